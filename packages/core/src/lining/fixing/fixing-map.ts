import { boxOf, spread, type Point } from '../../numeric/plane.js';
import { isBehind, type LinedSurface, type Support } from '../surface/lined-surface.js';
import { solidAlong, type Piece } from '../surface/pieces.js';

/** One screw or brad, on the unrolled surface. */
export interface FixingPoint {
  readonly at: Point;
  readonly support: string;
  /** A unit will stand in front of it. */
  readonly hidden: boolean;
}

/** Screws are this far apart at most, and this far from an end, mm. */
const SPACING_MM = 180;
const EDGE_MM = 20;
/** From a joint on a support each piece is fixed this far off it, mm. */
const OFF_JOINT_MM = 12;
const SHORT_MM = 2 * EDGE_MM + 15;

/** Places along one span, evenly spread; one in the middle where it is short. */
function along(v0: number, v1: number): number[] {
  const length = v1 - v0;
  if (length < SHORT_MM) return length > 12 ? [(v0 + v1) / 2] : [];
  const count = Math.ceil((length - 2 * EDGE_MM) / SPACING_MM) + 1;
  return spread(v0 + EDGE_MM, v1 - EDGE_MM, Math.max(2, count));
}

/** The stretches along which a support can be fixed to. */
export const heldBy = (
  { v0, v1 }: Pick<Support, 'v0' | 'v1'>,
  spans: readonly (readonly [number, number])[],
): (readonly [number, number])[] =>
  spans.flatMap(([a, b]): (readonly [number, number])[] =>
    Math.min(b, v1) > Math.max(a, v0) ? [[Math.max(a, v0), Math.min(b, v1)]] : [],
  );

/**
 * Where a lining is fixed: on every support under each piece, so that rows run on over neighbouring pieces, moved aside
 * or left out where a cable, a duct or a lamp lies behind.
 */
export function fixingPoints(surface: LinedSurface, pieces: readonly Piece[]): FixingPoint[] {
  return pieces.flatMap((piece) => {
    const box = boxOf(piece.outline.outer);
    return surface.supports.flatMap((support): FixingPoint[] => {
      const half = support.width / 2;
      if (support.u < box.minX - half || support.u > box.maxX + half) return [];
      // at a joint on the support both pieces stay clear of their edge
      const u = Math.min(box.maxX - OFF_JOINT_MM, Math.max(box.minX + OFF_JOINT_MM, support.u));
      if (Math.abs(u - support.u) > half - 5) return [];
      return heldBy(support, solidAlong([piece.outline], u))
        .flatMap(([v0, v1]) => along(v0, v1).flatMap((v) => clearOf(surface, u, v, v0, v1)))
        .map((v): FixingPoint => ({
          at: [u, v],
          support: support.name,
          hidden: isBehind(surface, [u, v]),
        }));
    });
  });
}

/** The place itself, or the nearest along the support that is clear of everything; none when the span has none. */
function clearOf(surface: LinedSurface, u: number, v: number, v0: number, v1: number): number[] {
  const blocked = (at: number): boolean =>
    surface.noScrews.some(({ at: [x, y], radius }) => Math.hypot(u - x, at - y) < radius);
  if (!blocked(v)) return [v];
  for (let step = 5; step <= SPACING_MM; step += 5)
    for (const moved of [v - step, v + step])
      if (moved > v0 + EDGE_MM / 2 && moved < v1 - EDGE_MM / 2 && !blocked(moved)) return [moved];
  return [];
}
