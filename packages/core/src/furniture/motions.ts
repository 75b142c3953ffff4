import type { Unit } from '../document/unit-schema.js';
import { frontLineOf } from '../document/body.js';
import type { Point, Ring } from '../numeric/plane.js';
import type { Vector } from '../parts/part.js';
import { boardBox, type Skeleton } from './skeleton.js';

/** How a part of a unit moves. The only source of swept room and of what is drawn open. */
export interface Motion {
  /** The part that moves, by its lasting name. */
  readonly of: string;
  readonly kind: 'hinge';
  /** Where its axis passes, and which way it runs. */
  readonly axis: { readonly at: Vector; readonly along: 'z' };
  /** From shut to open, degrees: positive turns from the rear toward the right, seen from above. */
  readonly range: readonly [number, number];
  /** From the axis to its far edge, mm. */
  readonly reach: number;
}

/** A plain hinge opens so far, degrees. */
const OPENS = 95;
const STEPS = 10;

/** How the hung boards of a unit move: doors of one bay open away from each other, in pairs. */
export function motionsOf(unit: Unit, skeleton: Skeleton): readonly Motion[] {
  const line = frontLineOf(unit);
  if (!line) return [];
  const pairs = new Map<string, number>();
  return skeleton.boards
    .filter((board) => board.held === 'hung')
    .map((board): Motion => {
      const bay = board.name.slice(0, board.name.lastIndexOf('.'));
      const order = pairs.get(bay) ?? 0;
      pairs.set(bay, order + 1);
      const { low, high } = boardBox(board);
      const atFront = order % 2 === 0;
      return {
        of: `${unit.id}.${board.name}`,
        kind: 'hinge',
        axis: { at: [atFront ? low[0] : high[0], line.sign * line.front, low[2]], along: 'z' },
        // shut it points to the rear or to the front; open into the way, away from its wall
        range: atFront ? [0, -line.sign * OPENS] : [180, 180 + line.sign * OPENS],
        reach: high[0] - low[0],
      };
    });
}

/** The room a motion sweeps, seen from above, mm. */
export function sweptFromAbove({ axis, range, reach }: Motion): Ring {
  const [x, y] = axis.at;
  const arc = Array.from({ length: STEPS + 1 }, (_, i): Point => {
    const angle = ((range[0] + ((range[1] - range[0]) * i) / STEPS) * Math.PI) / 180;
    return [x + reach * Math.cos(angle), y + reach * Math.sin(angle)];
  });
  return [[x, y], ...arc];
}
