import type { ScribePass, Pattern } from '../document/schema.js';
import type { Part } from './part.js';
import { fingerprint } from '../numeric/fingerprint.js';

/** Where to draw the line of one pass, with the part held in its place. */
export interface ScribeLine {
  /** What the compass is set to: the widest gap, mm. */
  readonly compass: number;
  /** How much comes off at each of the places where a gap was read, mm. */
  readonly off: readonly number[];
  /** The most that comes off, mm. */
  readonly most: number;
  /** What is left of the allowance after it, mm; negative when the blank is too small. */
  readonly left: number;
}

/**
 * One pass with the compass. Held at its widest gap g it draws a line that is everywhere that far from the wall: where the
 * gap is a, g - a comes off, and the part then moves in by g.
 * @param gaps along the edge, mm
 * @param allowance what the edge still has to give, mm
 */
export function scribeLine(gaps: readonly number[], allowance: number): ScribeLine {
  const compass = Math.max(0, ...gaps);
  const off = gaps.map((gap) => compass - gap);
  const most = Math.max(0, ...off);
  return { compass, off, most, left: allowance - most };
}

/** What an edge has taken in all its passes, mm. */
export function takenOff(passes: readonly ScribePass[], part: string, edge: ScribePass['edge']): number {
  return passes
    .filter((pass) => pass.part === part && pass.edge === edge)
    .reduce((sum, pass) => sum + scribeLine(pass.gaps, 0).most, 0);
}

/** Play that a learnt allowance gets on top of what was really taken off. */
const LEARNT_PLAY_MM = 4;

/**
 * The allowance that would have been enough for every edge scribed so far, in whole millimetres with a little play; null
 * before three edges were scribed.
 */
export function learntAllowance(
  passes: readonly ScribePass[],
): { readonly allowance: number; readonly edges: number } | null {
  const edges = [...new Set(passes.map((pass) => `${pass.part} ${pass.edge}`))];
  if (edges.length < 3) return null;
  const most = Math.max(...passes.map((pass) => takenOff(passes, pass.part, pass.edge)));
  return { allowance: Math.ceil(most) + LEARNT_PLAY_MM, edges: edges.length };
}

/** A fingerprint of a part's shape, to tell whether a pattern still gives it. Tenths of a millimetre count. */
export function shapeOf(part: Part): string {
  const round = (ring: readonly (readonly [number, number])[]): string =>
    ring.map(([x, y]) => `${Math.round(x * 10)},${Math.round(y * 10)}`).join(' ');
  return fingerprint([round(part.outline.outer), ...part.outline.holes.map(round)].join('|'));
}

/** How parts made from a pattern stand to it: of the shape they had, of another one now, or no longer wanted. */
export function patternState(
  pattern: Pattern,
  parts: readonly Part[],
): readonly { readonly part: string; readonly state: 'good' | 'changed' | 'gone' }[] {
  return pattern.made.map(({ part, shape }) => {
    const now = parts.find((candidate) => candidate.id === part);
    return { part, state: !now ? 'gone' : shapeOf(now) === shape ? 'good' : 'changed' };
  });
}
