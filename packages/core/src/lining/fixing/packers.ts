import type { Lined } from '../../document/schema.js';
import { halfWidth, roofHeight, wallTop, type Shell } from '../../shell/shell.js';
import { isEnd } from '../surface/unrolled.js';
import type { Support } from '../surface/lined-surface.js';

/** A support that lies back from the straight line between those beside it, or stands proud of it, mm. */
export interface Packer {
  readonly support: string;
  /** What is put on it; below 0 for what has to come off. */
  readonly thickness: number;
}

/** Less than this a lining goes over without showing it, mm. */
const SHOWS_MM = 1.5;
const HEIGHTS = [0.25, 0.5, 0.75] as const;

/**
 * What has to be packed so that neighbouring faces lie in one plane at a joint: at each support between two others, how far
 * the surface lies behind the straight line from one to the other, at the height where that is most.
 */
export function packersOf(shell: Shell, surface: Lined, supports: readonly Support[]): readonly Packer[] {
  // an end has no ribs that differ
  if (isEnd(surface)) return [];
  const out = (u: number, share: number): number => {
    if (surface === 'ceiling') {
      const half = halfWidth(shell, 'right', u, wallTop(shell, 'right', u));
      return roofHeight(shell, u, (share - 0.5) * half);
    }
    return halfWidth(shell, surface, u, shell.floor + share * (wallTop(shell, surface, u) - shell.floor));
  };
  const sorted = [...supports].sort((a, b) => a.u - b.u);
  return sorted.slice(1, -1).flatMap((support, i): Packer[] => {
    const [before, after] = [sorted[i], sorted[i + 2]];
    if (!before || !after) return [];
    const t = (support.u - before.u) / (after.u - before.u);
    const back = HEIGHTS.map(
      (share) => out(support.u, share) - ((1 - t) * out(before.u, share) + t * out(after.u, share)),
    );
    const most = back.reduce((a, b) => (Math.abs(b) > Math.abs(a) ? b : a));
    return Math.abs(most) >= SHOWS_MM ? [{ support: support.name, thickness: most }] : [];
  });
}
