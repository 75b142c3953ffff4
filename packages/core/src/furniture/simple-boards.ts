import type { PriceItem } from '../document/schema.js';
import { rectangle, type Outline } from '../numeric/plane.js';
import type { SolidBox } from '../rules/room.js';
import type { Axis } from '../parts/lay-flat.js';
import type { Board } from './skeleton.js';

/** A plain board that fills a box, thin along its normal: mm. */
export function boardIn(
  box: SolidBox,
  normal: Axis,
  wanted: Pick<Board, 'name' | 'role' | 'grain' | 'good'> &
    Partial<Pick<Board, 'held' | 'moves' | 'edges'>> & {
      readonly material: PriceItem;
      readonly holes?: Outline['holes'];
    },
): Board {
  const { material, holes = [], held = 'fixed', edges = [], ...rest } = wanted;
  const { x0, x1, y0, y1, z0, z1 } = box;
  const outer =
    normal === 'x' ? rectangle(y0, z0, y1, z1) : normal === 'y' ? rectangle(x0, z0, x1, z1) : rectangle(x0, y0, x1, y1);
  return {
    ...rest,
    material: material.id,
    thickness: material.thickness,
    normal,
    at: normal === 'x' ? x0 : normal === 'y' ? y0 : z0,
    outline: { outer, holes },
    edges,
    held,
  };
}

/** A box of which two ends across are given from the side of a wall: y from the centre line outward on a side. */
export const outward = (sign: 1 | -1, near: number, far: number): { readonly y0: number; readonly y1: number } => ({
  y0: Math.min(sign * near, sign * far),
  y1: Math.max(sign * near, sign * far),
});
