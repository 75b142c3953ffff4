import {
  boxOf,
  distanceToLine,
  distanceToRing,
  isWithin,
  outlineArea,
  type Outline,
  type Point,
  type Ring,
} from '../numeric/plane.js';
import { placesAlong } from '../numeric/adaptive.js';
import { clipTo, cutOut, joined, movedIn, simplify, stripAlong } from '../numeric/shapes.js';
import type { Side } from '../document/schema.js';
import { halfWidth, leanAlong, roofHeight, wallTop, type Shell } from '../shell/shell.js';

/** Outlines are drawn with chords that stay within this of the true curve, mm. */
export const CHORD_MM = 0.05;
/** An edge of a shape runs along the vehicle where it lies no farther from it than this, mm. */
const ON_MM = 0.05;
/** A shorter stretch along the vehicle is no edge to be scribed, mm. */
const LEAST_RUN_MM = 2;
/** Stretches of a curve are looked at no longer than a share of it before they are halved. */
const LEAST_PLACES = 9;
const BELOW_MM = 200;

/** One side of a section: from low down up the wall and along the roof to a place across, as (distance from the centre line, height). */
function upAndOver(shell: Shell, side: Side, x: number, low: number, until: number): Point[] {
  const sign = side === 'left' ? -1 : 1;
  const top = wallTop(shell, side, x);
  const wall = (z: number): number => halfWidth(shell, side, x, z);
  const roof = (y: number): number => roofHeight(shell, x, sign * y);
  const corner = wall(top);
  return [
    ...placesAlong(wall, { from: low, to: top, tolerance: CHORD_MM, least: LEAST_PLACES }).map((z): Point => [
      wall(z),
      z,
    ]),
    ...placesAlong(roof, { from: until, to: corner, tolerance: CHORD_MM, least: LEAST_PLACES })
      .slice(0, -1)
      .reverse()
      .map((y): Point => [y, roof(y)]),
  ];
}

/** A board beside one wall has its room drawn on that side alone, and so far beyond the centre line, mm. */
const BEYOND_MM = 50;

/**
 * What an upright board across the vehicle has room in: the section at both of its faces, from below the floor to the roof.
 * @param only the side of the centre line it lies on; both where nothing is said
 */
export function roomAcross(shell: Shell, x: number, thick: number, only?: Side): Ring[] {
  const low = shell.floor - BELOW_MM;
  const mirrored = ([y, z]: Point): Point => [-y, z];
  const ring = (at: number): Ring => {
    if (only !== undefined) {
      const half: Ring = [...upAndOver(shell, only, at, low, -BEYOND_MM), [-BEYOND_MM, low]];
      return only === 'right' ? half : half.map(mirrored);
    }
    return [
      ...upAndOver(shell, 'right', at, low, 0),
      ...upAndOver(shell, 'left', at, low, 0).reverse().slice(1).map(mirrored),
    ];
  };
  return clipTo({ outer: ring(x), holes: [] }, ring(x + thick)).map(({ outer }) => outer);
}

/** How far the vehicle leans, along itself, at a place of its section, radians: positive where it opens to the rear. */
export function leanAt(shell: Shell, x: number, [y, z]: Point): number {
  const side = y < 0 ? 'left' : 'right';
  if (z < wallTop(shell, side, x) - 1) return leanAlong(shell, side, x, z);
  const h = 5;
  return Math.atan2(roofHeight(shell, x + h, y) - roofHeight(shell, x - h, y), 2 * h);
}

/** The stretches of a shape's outer edge that run along one of the lines given, in the order of the ring, longest first. */
export function runsAlong(shape: Ring, lines: readonly Ring[]): (readonly Point[])[] {
  const box = boxOf(shape);
  // what lies far off is not asked again for every edge
  const near = lines.map((ring) =>
    ring
      .map((a, i): readonly [Point, Point] => [a, ring[(i + 1) % ring.length] ?? a])
      .filter(
        ([a, b]) =>
          Math.min(a[0], b[0]) <= box.maxX + 1 &&
          Math.max(a[0], b[0]) >= box.minX - 1 &&
          Math.min(a[1], b[1]) <= box.maxY + 1 &&
          Math.max(a[1], b[1]) >= box.minY - 1,
      ),
  );
  const on = (point: Point): boolean =>
    near.some((edges) => edges.some((edge) => distanceToLine(point, edge) <= ON_MM));
  const kept = shape.map(on);
  const along = shape.map((a, i): boolean => {
    const b = shape[(i + 1) % shape.length] ?? a;
    return (kept[i] ?? false) && (kept[(i + 1) % shape.length] ?? false) && on([(a[0] + b[0]) / 2, (a[1] + b[1]) / 2]);
  });
  const start = along.findIndex((is, i) => is && along.at(i - 1) === false);
  if (start < 0) return along[0] === true ? [[...shape, ...shape.slice(0, 1)]] : [];
  const runs: Point[][] = [];
  for (let n = 0; n < shape.length; n += 1) {
    const i = (start + n) % shape.length;
    if (along[i] !== true) continue;
    if (along.at(i - 1) !== true || n === 0) runs.push([shape[i] as Point]);
    runs.at(-1)?.push(shape[(i + 1) % shape.length] as Point);
  }
  const long = (run: readonly Point[]): number =>
    run.reduce(
      (sum, point, i) =>
        i === 0 ? 0 : sum + Math.hypot(point[0] - (run[i - 1]?.[0] ?? 0), point[1] - (run[i - 1]?.[1] ?? 0)),
      0,
    );
  return runs.filter((run) => long(run) >= LEAST_RUN_MM).sort((a, b) => long(b) - long(a));
}

/** A line that goes on straight where it ends at a free edge, so that what is left on reaches into the corners there. */
function longer(line: readonly Point[], by: number, within: Ring): readonly Point[] {
  const beyond = (end: Point | undefined, beside: Point | undefined): Point[] => {
    if (!end || !beside) return [];
    const share = by / Math.hypot(end[0] - beside[0], end[1] - beside[1]);
    const next: Point = [end[0] + (end[0] - beside[0]) * share, end[1] + (end[1] - beside[1]) * share];
    return Number.isFinite(share) && !isWithin(next, within) ? [next] : [];
  };
  return [...beyond(line[0], line[1]), ...line, ...beyond(line.at(-1), line.at(-2))];
}

/** A shape with what is left on along some of its edges. */
export interface LeftOnShape {
  readonly outline: Outline;
  /** The most that comes off again, from the cut edge to the line, mm. */
  readonly most: readonly number[];
}

/**
 * Leaves an allowance on a shape along lines of its edge, measured square to them everywhere, round their corners too.
 * @param within what it may not grow beyond: where its free edges are
 * @param cuts what was cut out of it, and stays so
 * @param allowance for each line, mm
 */
export function leftOnAlong(
  shape: Outline,
  lines: readonly { readonly line: readonly Point[]; readonly allowance: number }[],
  within: Ring,
  cuts: readonly Ring[] = [],
): LeftOnShape {
  const strips = lines.flatMap(({ line, allowance }) =>
    allowance > 0 && line.length > 1 ? stripAlong(longer(line, allowance, within), allowance) : [],
  );
  const [outline = shape] =
    strips.length === 0
      ? []
      : joined(shape, strips)
          .flatMap((piece) => clipTo(piece, within))
          .flatMap((piece) => cutOut(piece, cuts));
  const outer = simplify(outline.outer, CHORD_MM);
  const added = outer.filter((point) => distanceToRing(point, shape.outer) > ON_MM);
  const nearest = added.map((point) => lines.map(({ line }) => distanceToLine(point, line)));
  return {
    outline: { outer, holes: outline.holes },
    most: lines.map((_, i) =>
      nearest.reduce((most, far) => {
        const own = far[i] ?? 0;
        return own <= Math.min(...far) ? Math.max(most, own) : most;
      }, 0),
    ),
  };
}

/** An edge that follows the vehicle: the line it is to have in the end, how much is left on, and the most that comes off, mm. */
export interface ScribedLine {
  readonly side: Side;
  readonly line: readonly Point[];
  readonly allowance: number;
  readonly most: number;
  /** How far the vehicle leans at each of its points, from the board's lower to its higher face, radians. */
  readonly leans: readonly number[];
}

/**
 * A board across the vehicle, as it is cut: what of its free room the vehicle leaves, and what is left on along wall and roof.
 * @param free where it may be, and where its free edges are; along a roof it is left on beyond those too
 * @param cuts what is cut out of it
 * @param off how far it keeps off wall and roof, mm; nothing is scribed then
 * @returns its shape, and what of its edge is scribed; null where nothing is left of it
 */
export function boardAcross(
  shell: Shell,
  wanted: {
    readonly x: number;
    readonly thick: number;
    readonly free: Ring;
    readonly cuts: readonly Ring[];
    readonly allowance: (side: Side) => number;
    readonly off?: number;
  },
): { readonly outline: Outline; readonly edges: readonly ScribedLine[] } | null {
  const { x, thick, free, cuts, off } = wanted;
  const ys = free.map(([y]) => y);
  const only = Math.min(...ys) >= 0 ? 'right' : Math.max(...ys) <= 0 ? 'left' : undefined;
  const room = roomAcross(shell, x, thick, only);
  const walls = off === undefined ? room : room.flatMap((ring) => movedIn(ring, off));
  const [shape] = walls
    .flatMap((ring) => clipTo({ outer: ring, holes: [] }, free))
    .flatMap((piece) => cutOut(piece, cuts))
    .sort((a, b) => outlineArea(b) - outlineArea(a));
  if (!shape) return null;
  if (off !== undefined) return { outline: { outer: simplify(shape.outer, CHORD_MM), holes: shape.holes }, edges: [] };
  const lines = runsAlong(shape.outer, walls).map((line) => {
    const side: Side = (line[0]?.[0] ?? 0) + (line.at(-1)?.[0] ?? 0) < 0 ? 'left' : 'right';
    return { side, line, allowance: wanted.allowance(side) };
  });
  const top = Math.max(...free.map(([, z]) => z));
  const head = top + Math.max(0, ...lines.map((line) => over(line, top)));
  const within = free.map(([y, z]): Point => [y, z === top ? head : z]);
  const { outline, most } = leftOnAlong(shape, lines, within, cuts);
  return {
    outline,
    edges: lines.map((line, i) => ({
      ...line,
      most: most[i] ?? line.allowance,
      leans: line.line.map((point) => leanAt(shell, x, point)),
    })),
  };
}

/** How far over a height it reaches what is left on along the stretches of a line that run along rather than up, mm. */
const over = ({ line, allowance }: Pick<ScribedLine, 'line' | 'allowance'>, top: number): number =>
  line.slice(1).reduce((most, b, i) => {
    const a = line[i] ?? b;
    const flat = Math.abs(b[0] - a[0]) > Math.abs(b[1] - a[1]);
    return flat ? Math.max(most, Math.max(a[1], b[1]) + allowance - top) : most;
  }, 0);
