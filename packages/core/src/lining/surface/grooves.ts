import type { LiningChoice, PriceItem } from '../../document/schema.js';
import type { PartMarks } from '../../parts/part.js';
import { boxOf, type Outline, type Point } from '../../numeric/plane.js';
import { message, mm, type Message } from '../../words/message.js';
import { levelSpans } from '../floor/floor-lines.js';
import type { LinedSurface } from './lined-surface.js';
import { edgeRanges, solidAlong } from './pieces.js';
import { datumOf, setOutFrom, type SetOut } from './set-out.js';
import { ROUNDING } from '../../numeric/tolerance.js';

/** Grooves that make sheets look like boards, set out for the whole surface. */
export interface Grooves {
  readonly direction: 'level' | 'upright';
  /** Their middle lines: v of level ones, u of upright ones. */
  readonly at: readonly number[];
  /** What shows before the first and behind the last, at its narrowest, mm. */
  readonly first: number;
  readonly last: number;
  /** Places where a groove of one sheet must meet that of the next. */
  readonly meetings: number;
  readonly problems: readonly Message[];
  readonly notes: readonly Message[];
}

/** A groove goes no deeper than this share of the sheet, or its face splits when it is bent. */
const DEEPEST_SHARE = 1 / 3;
/** What shows at an edge is no narrower than this share of the spacing. */
const NEAR_HALF = 0.4;

/** The pitch of level grooves that a wall has; 0 when it has none. */
export const groovePitch = (choice: LiningChoice): number =>
  choice.groove.direction === 'level' ? choice.groove.spacing : 0;

/**
 * Grooves between the given edges, evenly apart, with the same left over before the first and behind the last: no less than
 * the sliver, or near half the spacing.
 */
export function grooveRows(low: Edge, high: Edge, spacing: number, sliver: number): SetOut {
  const run = high.min - low.max;
  const least = Math.min(sliver, NEAR_HALF * spacing);
  const whole = Math.max(0, Math.floor(run / spacing + ROUNDING));
  // a strip too narrow at both edges is made up from one whole one
  const between = (run - whole * spacing) / 2 >= least ? whole : Math.max(0, whole - 1);
  const first = (run - between * spacing) / 2;
  const lines = Array.from({ length: between + 1 }, (_, i) => low.max + first + i * spacing);
  const ends = [low.min, ...lines, high.max];
  return {
    rows: ends.slice(1).map((end, i) => [ends[i] ?? 0, end] as const),
    first,
    last: first,
    legal: first >= least - ROUNDING,
  };
}
/** Level grooves from the floor where a height is given, else balanced. */
export const grooveLines = (low: Edge, high: Edge, spacing: number, sliver: number, datum: number | null): SetOut =>
  datum === null
    ? grooveRows(low, high, spacing, sliver)
    : setOutFrom(low, high, spacing, 0, Math.min(sliver, NEAR_HALF * spacing), datum);

interface Edge {
  readonly min: number;
  readonly max: number;
}

/**
 * Sets grooves out from one datum for the whole surface.
 * @param up whether the sheets stand up, their grain with them
 * @param seams upright seams between sheets
 * @param rows set out for both walls together; null to set out this surface alone
 */
export function groovesOf(
  ground: LinedSurface,
  choice: LiningChoice,
  material: PriceItem,
  thickness: number,
  up: boolean,
  seams: number,
  rows: SetOut | null,
): Grooves | null {
  const { spacing, depth, width, direction } = choice.groove;
  if (spacing <= 0) return null;
  const { low, high } = edgeRanges(ground, choice.edge);
  const [start, end] = [choice.edge, ground.unrolled.length - choice.edge];
  const setOut =
    direction === 'level'
      ? (rows ?? grooveLines(low, high, spacing, choice.sliver, datumOf(choice, ground.unrolled.surface)))
      : grooveRows({ min: start, max: start }, { min: end, max: end }, spacing, choice.sliver);
  const at = setOut.rows.slice(1).map(([from]) => from);
  const meetings = direction === 'level' ? at.length * seams : 0;
  const across = material.grain && (direction === 'level') === up;
  const most = thickness * DEEPEST_SHARE;
  return {
    direction,
    at,
    first: setOut.first,
    last: setOut.last,
    meetings,
    problems: [
      ...(depth > most + ROUNDING ? [message('lining.grooveDeep', { depth: mm(depth), most: mm(most) })] : []),
      ...(width >= spacing ? [message('lining.grooveWide', { width: mm(width), spacing: mm(spacing) })] : []),
    ],
    notes: [
      ...(across ? [message('lining.grooveAcross')] : []),
      ...(meetings > 0 ? [message('lining.grooveMeet', { count: meetings, seams })] : []),
    ],
  };
}

/** Where a groove runs over a shape: from where to where along it. */
export const grooveSpans = (
  outline: Outline,
  direction: Grooves['direction'],
  at: number,
): readonly (readonly [number, number])[] =>
  direction === 'level' ? levelSpans(outline, at) : solidAlong([outline], at);

/** The grooves of one piece, on its own axes. */
export function groovesOn(
  grooves: Grooves | null,
  piece: Outline,
  onPart: (point: Point) => Point,
): NonNullable<PartMarks['grooves']> {
  if (!grooves) return [];
  const box = boxOf(piece.outer);
  const [from, to] = grooves.direction === 'level' ? [box.minY, box.maxY] : [box.minX, box.maxX];
  return grooves.at
    .filter((at) => at > from && at < to)
    .flatMap((at) =>
      grooveSpans(piece, grooves.direction, at).map(([a, b]) =>
        grooves.direction === 'level'
          ? { from: onPart([a, at]), to: onPart([b, at]) }
          : { from: onPart([at, a]), to: onPart([at, b]) },
      ),
    );
}
