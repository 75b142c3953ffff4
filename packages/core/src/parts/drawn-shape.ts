import type { DrawnShape } from '../document/schema.js';
import { boxOf, outlineArea, ringsApart, type Point, type Ring } from '../numeric/plane.js';
import { simplify } from '../numeric/shapes.js';
import { blankOf, type Part } from './part.js';

/** An outline is remembered with so few corners that it is nowhere farther from what was drawn, mm. */
const KEPT_WITHIN_MM = 0.1;
/** No shape is remembered by more corners than this; one that would need more is not remembered. */
const MOST_CORNERS = 400;
/** A corner is remembered to so much, mm. */
const STEP_MM = 0.1;

const toStep = (mm: number): number => Math.round(mm / STEP_MM) * STEP_MM;
const rounded = (mm: number): number => Number(toStep(mm).toFixed(1));
const plain = (ring: Ring): number[] => simplify(ring, KEPT_WITHIN_MM).flatMap(([x, y]) => [rounded(x), rounded(y)]);

/**
 * The shape of a part as it is drawn now, on its own blank: its outline and the openings in it, as the corners of each in a
 * row, mm; nothing for a plain rectangle, and undefined where it would be too long to remember.
 */
export function drawnShape(part: Part): DrawnShape | undefined {
  const { outer, holes } = part.outline;
  const { minX, minY } = boxOf(outer);
  const { length, width } = blankOf(part);
  const square = outlineArea({ outer, holes: [] }) > length * width - STEP_MM * (length + width);
  if (square && holes.length === 0) return [];
  const rings = [outer, ...holes].map((ring) => plain(ring.map(([x, y]): Point => [x - minX, y - minY])));
  return rings.reduce((sum, ring) => sum + ring.length / 2, 0) > MOST_CORNERS ? undefined : rings;
}

const asRing = (flat: readonly number[]): Ring =>
  Array.from({ length: Math.floor(flat.length / 2) }, (_, i): Point => [flat[2 * i] ?? 0, flat[2 * i + 1] ?? 0]);
/** How the shape of a part differs from what it was: by how far its outline has moved at most, and its openings, mm. */
export interface ShapeMoved {
  readonly outline: number;
  readonly openings: number;
  /** How many openings there were, and are. */
  readonly was: number;
  readonly now: number;
}

/**
 * What has become of a shape since it was remembered. A rectangle is given by its size.
 * @param size of the blank, mm
 */
export function shapeMoved(
  before: DrawnShape,
  after: DrawnShape,
  size: { readonly length: number; readonly width: number },
): ShapeMoved {
  const rectangle: Ring = [
    [0, 0],
    [size.length, 0],
    [size.length, size.width],
    [0, size.width],
  ];
  const rings = (shape: DrawnShape): readonly Ring[] => (shape.length === 0 ? [rectangle] : shape.map(asRing));
  const [[outerWas = rectangle, ...holesWas], [outerNow = rectangle, ...holesNow]] = [rings(before), rings(after)];
  // each opening is held against the one that it is nearest to
  const nearest = (ring: Ring, others: readonly Ring[]): number =>
    Math.min(...others.map((other) => ringsApart(ring, other)));
  const openings =
    holesWas.length === 0 || holesWas.length !== holesNow.length
      ? 0
      : Math.max(
          ...holesWas.map((ring) => nearest(ring, holesNow)),
          ...holesNow.map((ring) => nearest(ring, holesWas)),
        );
  return { outline: ringsApart(outerWas, outerNow), openings, was: holesWas.length, now: holesNow.length };
}
