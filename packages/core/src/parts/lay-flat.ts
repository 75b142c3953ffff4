import { boxOf, ringArea, type Outline, type Point, type Ring } from '../numeric/plane.js';
import type { Vector } from './part.js';

export type Axis = 'x' | 'y' | 'z';

/** A flat board as it stands in the vehicle: square to one axis, its outline on the other two in the order x, y, z. */
export interface Standing {
  readonly normal: Axis;
  /** Where its two faces are along the normal, mm: from the lower to the higher. */
  readonly at: number;
  readonly thickness: number;
  readonly outline: Outline;
  /** The axis its grain runs along. */
  readonly grain: Axis;
  /** Which way along the normal its good face looks. */
  readonly good: 1 | -1;
}

/** How a standing board lies on the bench: its axes, and what takes its points there. */
export interface LaidFlat {
  readonly outline: Outline;
  readonly place: { readonly origin: Vector; readonly along: Vector; readonly across: Vector; readonly thick: Vector };
  /** Takes a point of the board's plane to the part's own axes. */
  readonly point: (point: Point) => Point;
}

const unitOf = (axis: Axis): Vector => [Number(axis === 'x'), Number(axis === 'y'), Number(axis === 'z')];
const scaled = ([x, y, z]: Vector, by: number): Vector => [x * by + 0, y * by + 0, z * by + 0];

/** The vector square to two others, right-handed. */
export const cross = (a: Vector, b: Vector): Vector => [
  a[1] * b[2] - a[2] * b[1] + 0,
  a[2] * b[0] - a[0] * b[2] + 0,
  a[0] * b[1] - a[1] * b[0] + 0,
];

/** The two axes a board square to `normal` is drawn on, in order. */
export const planeAxes = (normal: Axis): readonly [Axis, Axis] => PLANES[normal];
const PLANES: Readonly<Record<Axis, readonly [Axis, Axis]>> = { x: ['y', 'z'], y: ['x', 'z'], z: ['x', 'y'] };

const turned = (ring: Ring, anticlockwise: boolean): Ring =>
  ringArea(ring) > 0 === anticlockwise ? ring : [...ring].reverse();

/**
 * Lays a standing board on the bench with its good face up: x along the grain, y across it, the blank's lower left corner
 * at 0,0, thickness away from the one who looks. So along x across = -thick for every part, and the two hands of a part
 * come out as each other's mirror image.
 */
export function layFlat(board: Standing): LaidFlat {
  const [u, v] = planeAxes(board.normal);
  const g = board.grain === u ? 0 : 1;
  const along = unitOf(board.grain);
  const good = scaled(unitOf(board.normal), board.good);
  const across = cross(good, along);
  const w = unitOf(g === 0 ? v : u);
  const sign = across[0] * w[0] + across[1] * w[1] + across[2] * w[2] > 0 ? 1 : -1;
  const raw = (point: Point): Point => [point[g], sign * point[(1 - g) as 0 | 1]];
  const outer = board.outline.outer.map(raw);
  const { minX, minY } = boxOf(outer);
  const point = (p: Point): Point => {
    const [x, y] = raw(p);
    return [x - minX, y - minY];
  };
  const face = board.at + (board.good > 0 ? board.thickness : 0);
  const normal = unitOf(board.normal);
  const origin: Vector = [0, 1, 2].map(
    (i) => (along[i] ?? 0) * minX + (across[i] ?? 0) * minY + (normal[i] ?? 0) * face,
  ) as unknown as Vector;
  return {
    outline: {
      outer: turned(board.outline.outer.map(point), true),
      holes: board.outline.holes.map((hole) => turned(hole.map(point), false)),
    },
    place: { origin, along, across, thick: scaled(good, -1) },
    point,
  };
}

/** Where a part is whose drawn face is given by its two axes: its thickness goes away from the one who looks at that face. */
export const placeSeen = (origin: Vector, along: Vector, across: Vector): LaidFlat['place'] => {
  const [x, y, z] = cross(along, across);
  return { origin, along, across, thick: [0 - x, 0 - y, 0 - z] };
};
