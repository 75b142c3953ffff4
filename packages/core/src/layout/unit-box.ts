import type { PriceBook, Unit } from '../document/schema.js';
import { spread } from '../numeric/plane.js';
import { halfWidth, type Shell } from '../shell/shell.js';
import { bedLevels } from '../furniture/platform-bed.js';
import type { SolidBox } from '../rules/room.js';

/** The room a unit takes, as one or more upright boxes in the vehicle, mm. Walls are followed only as far as a box can. */
export function unitBoxes(unit: Unit, inner: Shell, book: PriceBook): SolidBox[] {
  const [x0, x1] = [unit.x, unit.x + unit.length];
  const widest = (side: 'left' | 'right', z: number): number =>
    Math.max(...spread(x0, x1, 5).map((x) => halfWidth(inner, side, x, z)));
  switch (unit.kind) {
    case 'platform-bed': {
      const levels = bedLevels(unit, inner, book);
      return [
        {
          x0,
          x1,
          y0: -widest('left', levels.top),
          y1: widest('right', levels.top),
          z0: levels.floor,
          z1: levels.top + unit.mattress,
        },
      ];
    }
    case 'base-cupboard': {
      const reach = widest(unit.side, inner.floor + unit.height);
      const [near, far] = unit.side === 'left' ? [-reach, -unit.front] : [unit.front, reach];
      return [{ x0, x1, y0: near, y1: far, z0: inner.floor, z1: inner.floor + unit.height }];
    }
  }
}
