import type { SawCut } from '../../document/schema.js';
import { toMm } from '../job/units.js';

/** A piece on a sheet, in engine units as it will be cut (not grown). */
export interface Rectangle {
  readonly x: number;
  readonly y: number;
  readonly length: number;
  readonly width: number;
}
interface Sawn {
  readonly cuts: SawCut[];
  readonly left: Rectangle[];
}

/** Lengths in a plan went through mm once: they may be off by this many engine units. */
export const ROUNDING = 2;

interface Gap {
  readonly rip: boolean;
  /** Where the saw may go: its first edge from `from` on, its last edge at most `to`. */
  readonly from: number;
  readonly to: number;
  readonly before: readonly Rectangle[];
  readonly after: readonly Rectangle[];
}

function gapsAlong(pieces: readonly Rectangle[], space: Rectangle, rip: boolean, kerf: number): Gap[] {
  const start = (p: Rectangle): number => (rip ? p.y : p.x);
  const end = (p: Rectangle): number => (rip ? p.y + p.width : p.x + p.length);
  const sorted = [...pieces].sort((a, b) => start(a) - start(b));
  const gaps: Gap[] = [];
  let reached = start(space);
  sorted.forEach((piece, i) => {
    const empty = start(piece) - reached;
    if (i > 0 ? empty >= kerf - ROUNDING : empty > ROUNDING)
      gaps.push({ rip, from: reached, to: start(piece), before: sorted.slice(0, i), after: sorted.slice(i) });
    reached = Math.max(reached, end(piece));
  });
  const far = end(space);
  if (pieces.length > 0 && far - reached > ROUNDING)
    gaps.push({ rip, from: reached, to: Math.max(far, reached + kerf), before: sorted, after: [] });
  return gaps;
}

const restOf = (space: Rectangle, rip: boolean, from: number, to: number): Rectangle =>
  rip ? { ...space, y: from, width: to - from } : { ...space, x: from, length: to - from };
const areaOf = (space: Rectangle): number => Math.max(0, space.length) * Math.max(0, space.width);

/**
 * The cuts that part the pieces of a rectangle, each from edge to edge of what it cuts, and what is left over.
 * At every step the cut that leaves the largest free rectangle whole is taken first.
 * @returns null when no saw can part them edge to edge
 */
export function sawApart(pieces: readonly Rectangle[], space: Rectangle, kerf: number, level = 1): Sawn | null {
  if (pieces.length === 0) return { cuts: [], left: areaOf(space) > 0 ? [space] : [] };
  const [only] = pieces;
  const gaps = [...gapsAlong(pieces, space, true, kerf), ...gapsAlong(pieces, space, false, kerf)];
  if (gaps.length === 0) {
    return only && pieces.length === 1 ? { cuts: [], left: [] } : null;
  }
  const freeOf = (gap: Gap): number => {
    if (gap.after.length === 0) return areaOf(restOf(space, gap.rip, gap.from + kerf, gap.to));
    if (gap.before.length === 0) return areaOf(restOf(space, gap.rip, gap.from, gap.to - kerf));
    return 0;
  };
  const balance = (gap: Gap): number => Math.min(gap.before.length, gap.after.length);
  const best = gaps.reduce((a, b) => {
    const [freeA, freeB] = [freeOf(a), freeOf(b)];
    if (freeA !== freeB) return freeB > freeA ? b : a;
    return balance(b) > balance(a) ? b : a;
  });
  // the saw keeps to the pieces before it; what is empty stays with the part after it
  const at = best.before.length === 0 ? best.to - kerf : best.from;
  const near = best.rip ? { ...space, width: at - space.y } : { ...space, length: at - space.x };
  const far = best.rip
    ? { ...space, y: at + kerf, width: space.y + space.width - at - kerf }
    : { ...space, x: at + kerf, length: space.x + space.length - at - kerf };
  const cut: SawCut = {
    axis: best.rip ? 'rip' : 'crosscut',
    at,
    from: best.rip ? space.x : space.y,
    to: best.rip ? space.x + space.length : space.y + space.width,
    level,
    edge: best.rip ? space.y : space.x,
    far: best.rip ? space.y + space.width : space.x + space.length,
  };
  const first = sawApart(best.before, near, kerf, level + 1);
  const second = first && sawApart(best.after, far, kerf, level + 1);
  return first && second ? { cuts: [cut, ...first.cuts, ...second.cuts], left: [...first.left, ...second.left] } : null;
}

/** The same in millimetres, rests narrower than the smallest offcut left out. */
export function sawnInMm(sawn: Sawn, smallestOffcut: number): { readonly cuts: SawCut[]; readonly left: Rectangle[] } {
  return {
    cuts: sawn.cuts.map((cut) => ({
      ...cut,
      at: toMm(cut.at),
      from: toMm(cut.from),
      to: toMm(cut.to),
      edge: toMm(cut.edge),
      far: toMm(cut.far),
    })),
    left: sawn.left
      .map((rest) => ({ x: toMm(rest.x), y: toMm(rest.y), length: toMm(rest.length), width: toMm(rest.width) }))
      .filter((rest) => Math.min(rest.length, rest.width) >= smallestOffcut),
  };
}
