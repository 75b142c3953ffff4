import type { Lined } from '../../document/schema.js';
import { spread, type Point, type Ring } from '../../numeric/plane.js';
import { halfWidth, roofHeight, wallTop, type Shell } from '../../shell/shell.js';
import { HAIR_MM } from '../../numeric/tolerance.js';

/**
 * A wall or ceiling laid flat: u along the vehicle, v along the curve of the section, mm. On a wall v is 0 at the floor one
 * stands on; on the ceiling it is 0 at the centre line and positive to the right. Plain data: columns of points that are
 * read between by straight lines.
 */
export interface Unrolled {
  readonly surface: Lined;
  /** What u is counted from: the front datum, or on an end the outermost of its left edge. */
  readonly from: number;
  readonly length: number;
  readonly columns: readonly Column[];
}
/** One section: where its points are (height on a wall, y on the ceiling) and how far along the curve. */
interface Column {
  readonly u: number;
  readonly place: readonly number[];
  readonly v: readonly number[];
}

const POINTS = 33;
const COLUMNS = 33;

/** Whether a surface closes the vehicle at its front or rear. */
export const isEnd = (surface: string): surface is 'front' | 'rear' => surface === 'front' || surface === 'rear';
/** Where an end is along the vehicle. */
export const endAt = (shell: Shell, end: 'front' | 'rear'): number => (end === 'front' ? shell.start : shell.length);

/** A column of an end: the heights between which the section is as wide as it is far from the middle there. */
function endColumn(shell: Shell, x: number, y: number, u: number): Column {
  const side = y < 0 ? 'left' : 'right';
  const [low, high] = [shell.floor, roofHeight(shell, x, y)];
  const within = spread(low, high, 4 * POINTS).filter((z) => halfWidth(shell, side, x, z) >= Math.abs(y) - HAIR_MM);
  const ends = [within[0] ?? low, within.at(-1) ?? low + 1e-3] as const;
  const place = spread(ends[0], Math.max(ends[1], ends[0] + 1e-3), 2);
  return { u, place, v: place.map((z) => z - shell.floor) };
}

function unrollEnd(shell: Shell, end: 'front' | 'rear'): Unrolled {
  const x = endAt(shell, end);
  const widest = (side: 'left' | 'right'): number =>
    Math.max(...spread(shell.floor, wallTop(shell, side, x), POINTS).map((z) => halfWidth(shell, side, x, z)));
  const [left, right] = [widest('left'), widest('right')];
  const us = spread(0, left + right, COLUMNS);
  return {
    surface: end,
    from: -left,
    length: left + right,
    columns: us.map((u) => endColumn(shell, x, u - left, u)),
  };
}

function columnOf(shell: Shell, surface: 'left' | 'right' | 'ceiling', u: number): Column {
  const points: Point[] =
    surface === 'ceiling'
      ? spread(
          -halfWidth(shell, 'left', u, wallTop(shell, 'left', u)),
          halfWidth(shell, 'right', u, wallTop(shell, 'right', u)),
          POINTS,
        ).map((y): Point => [y, roofHeight(shell, u, y)])
      : spread(shell.floor, wallTop(shell, surface, u), POINTS).map((z): Point => [z, halfWidth(shell, surface, u, z)]);
  let run = 0;
  const v = points.map(([a, b], i) => {
    const before = points[i - 1];
    if (before) run += Math.hypot(a - before[0], b - before[1]);
    return run;
  });
  const place = points.map(([a]) => a);
  if (surface !== 'ceiling') return { u, place, v };
  const middle = between(place, v, 0);
  return { u, place, v: v.map((value) => value - middle) };
}

/** Reads a table at a place by straight lines; beyond its ends it goes on straight. */
function between(at: readonly number[], value: readonly number[], x: number): number {
  let i = 1;
  while (i < at.length - 1 && (at[i] ?? 0) < x) i += 1;
  const [a, b, p, q] = [at[i - 1] ?? 0, at[i] ?? 0, value[i - 1] ?? 0, value[i] ?? 0];
  return b === a ? p : p + ((q - p) * (x - a)) / (b - a);
}

/** Lays a surface of a shell flat. Give the shell of the lining's middle, half its thickness behind the face. */
export function unroll(shell: Shell, surface: Lined): Unrolled {
  if (isEnd(surface)) return unrollEnd(shell, surface);
  const us = [...new Set([...spread(0, shell.length, COLUMNS), ...shell.at.filter((x) => x > 0 && x < shell.length)])];
  return {
    surface,
    from: 0,
    length: shell.length,
    columns: us.sort((a, b) => a - b).map((u) => columnOf(shell, surface, u)),
  };
}

function atColumns(unrolled: Unrolled, u: number, read: (column: Column) => number): number {
  const { columns } = unrolled;
  let i = 1;
  while (i < columns.length - 1 && (columns[i]?.u ?? 0) < u) i += 1;
  const [a, b] = [columns[i - 1], columns[i]];
  if (!a || !b) return 0;
  const t = (u - a.u) / (b.u - a.u);
  return read(a) * (1 - t) + read(b) * t;
}

/** From a height on a wall, or a y on the ceiling, to v. */
export const toV = (unrolled: Unrolled, u: number, place: number): number =>
  atColumns(unrolled, u, (column) => between(column.place, column.v, place));
/** From v to a height on a wall, or a y on the ceiling. */
export const toPlace = (unrolled: Unrolled, u: number, v: number): number =>
  atColumns(unrolled, u, (column) => between(column.v, column.place, v));
/** The least and the greatest v at a place along the vehicle. */
export const reachOf = (unrolled: Unrolled, u: number): readonly [number, number] => [
  atColumns(unrolled, u, (column) => column.v[0] ?? 0),
  atColumns(unrolled, u, (column) => column.v.at(-1) ?? 0),
];

/** Its outline, less a gap at every edge. */
export function outlineOf(unrolled: Unrolled, edge: number): Ring {
  const us = [
    edge,
    ...unrolled.columns.map((column) => column.u).filter((u) => u > edge && u < unrolled.length - edge),
    unrolled.length - edge,
  ];
  const reach = us.map((u) => reachOf(unrolled, u));
  return [
    ...us.map((u, i): Point => [u, (reach[i]?.[0] ?? 0) + edge]),
    ...us.map((u, i): Point => [u, (reach[i]?.[1] ?? 0) - edge]).reverse(),
  ];
}

/** A rectangle of the vehicle on it: its two u and two heights or y. */
export function patchOf(unrolled: Unrolled, u0: number, u1: number, place0: number, place1: number): Ring {
  const us = spread(u0, u1, 5);
  return [
    ...us.map((u): Point => [u, toV(unrolled, u, place0)]),
    ...us.map((u): Point => [u, toV(unrolled, u, place1)]).reverse(),
  ];
}

/** The same as seen from inside the vehicle, x to the right where it can be: the left wall is seen with the front at the right. */
export function asSeen(unrolled: Pick<Unrolled, 'surface' | 'length'>, [u, v]: Point): Point {
  if (unrolled.surface === 'left' || unrolled.surface === 'rear') return [unrolled.length - u, v];
  return unrolled.surface === 'ceiling' ? [u, -v] : [u, v];
}
