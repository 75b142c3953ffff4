import type { Outline, Point } from '../../numeric/plane.js';
import { heldBy, solidAlong } from '../surface/pieces.js';
import type { FloorSeam } from './subfloor.js';

const swap = ([x, y]: Point): Point => [y, x];

/** Where a seam runs over the board: from where to where along it, mm. */
export function seamSpans(outline: Outline, seam: FloorSeam): readonly (readonly [number, number])[] {
  const spans = seam.direction === 'across' ? solidAlong([outline], seam.at) : levelSpans(outline, seam.at);
  return heldBy({ v0: seam.from, v1: seam.to }, spans);
}

/** Where a level line (y = const) runs over a shape, along x. */
export const levelSpans = (outline: Outline, y: number): readonly (readonly [number, number])[] =>
  solidAlong([{ outer: outline.outer.map(swap), holes: outline.holes.map((hole) => hole.map(swap)) }], y);
