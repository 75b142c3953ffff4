import type { Outline, Point } from '../../numeric/plane.js';
import { solidAlong } from '../surface/pieces.js';
import type { Subfloor } from './subfloor.js';

const swap = ([x, y]: Point): Point => [y, x];

/** Where a seam runs over the board: from where to where along it, mm. */
export function seamSpans(outline: Outline, seam: Subfloor['seams'][number]): readonly (readonly [number, number])[] {
  return seam.direction === 'across' ? solidAlong([outline], seam.at) : levelSpans(outline, seam.at);
}

/** Where a level line (y = const) runs over a shape, along x. */
export const levelSpans = (outline: Outline, y: number): readonly (readonly [number, number])[] =>
  solidAlong([{ outer: outline.outer.map(swap), holes: outline.holes.map((hole) => hole.map(swap)) }], y);
