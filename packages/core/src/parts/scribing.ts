import type { ScribePass, Pattern } from '../document/schema.js';
import { ringsApart, type Point } from '../numeric/plane.js';
import { blankOf, type Part } from './part.js';
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

/** Boards of twin windows differ by no more than this, mm. */
const TWIN_MM = 5;

/** What was taken off an edge of a part that is another's twin. */
export interface TwinPasses {
  /** The part whose passes they are. */
  readonly part: string;
  /** Gaps of each pass, in the order in which they lie along this part's edge. */
  readonly gaps: readonly (readonly number[])[];
}

/**
 * The passes that an edge's twin took: of the same board, and of the same size, of another box or unit, whose own edge was
 * scribed. The order of the gaps is turned round where the twin lies the other way round.
 * @returns null when this edge was scribed already, or none like it was
 */
export function twinPasses(
  part: Part,
  edge: ScribePass['edge'],
  parts: readonly Part[],
  passes: readonly ScribePass[],
): TwinPasses | null {
  const of = (id: string): readonly ScribePass[] => passes.filter((pass) => pass.part === id && pass.edge === edge);
  if (of(part.id).length > 0) return null;
  const { length } = blankOf(part);
  for (const other of parts) {
    if (other.role !== part.role || other.number !== part.number || of(other.id).length === 0) continue;
    // another box, or another unit: the same board there
    if (other.unit === part.unit && other.of === part.of) continue;
    if (Math.abs(blankOf(other).length - length) > TWIN_MM) continue;
    const [a, b] = [part.place.along, other.place.along];
    const turned = a[0] * b[0] + a[1] * b[1] + a[2] * b[2] < 0;
    const ring = other.outline.outer.map(([x, y]): Point => [turned ? length - x : x, y]);
    if (ringsApart(ring, part.outline.outer) > TWIN_MM) continue;
    return { part: other.id, gaps: of(other.id).map(({ gaps }) => (turned ? [...gaps].reverse() : [...gaps])) };
  }
  return null;
}
