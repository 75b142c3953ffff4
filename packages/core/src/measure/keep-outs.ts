import type { KeepOut, Survey } from '../document/schema.js';
import { valueAt } from '../document/address.js';
import { openingRing, placedOpenings } from '../shell/openings.js';
import { boxOf } from '../numeric/plane.js';

/** Where a keep-out lies: under the floor, or on top of the roof. */
export type KeptOn = NonNullable<KeepOut['on']>;

/** An area under the floor or on the roof that is not to be drilled, as a rectangle in the floor's plane, mm. */
export interface KeepOutBounds extends KeepOut {
  readonly from: number;
  readonly to: number;
  readonly left: number;
  readonly right: number;
}

/** The keep-outs of one side whose four sides are read. */
export function boundsOf(survey: Survey, on: KeptOn = 'floor'): KeepOutBounds[] {
  return survey.keepOuts
    .filter((keepOut) => (keepOut.on ?? 'floor') === on)
    .flatMap((keepOut): KeepOutBounds[] => {
      const read = (what: string): number | null => valueAt(survey, `keepout/${keepOut.id}/${what}`);
      const [from, to, left, right] = [read('from'), read('to'), read('left'), read('right')];
      return from === null || to === null || left === null || right === null || to <= from || right <= left
        ? []
        : [{ ...keepOut, from, to, left, right }];
    });
}

/** An opening of the roof that would be cut where something is on it: how far they lie over each other, mm. */
export interface OnRoof {
  readonly opening: string;
  readonly name: string;
  readonly against: string;
  readonly over: number;
}

/** Hatches and fans that run into what is on top of the roof. */
export function roofClashes(survey: Survey): OnRoof[] {
  const kept = boundsOf(survey, 'roof');
  return placedOpenings(survey)
    .filter(({ opening }) => opening.surface === 'roof')
    .flatMap((placed) => {
      const box = boxOf(openingRing(placed, 0, 0));
      return kept.flatMap((area): OnRoof[] => {
        const over = Math.min(
          Math.min(box.maxX, area.to) - Math.max(box.minX, area.from),
          Math.min(box.maxY, area.right) - Math.max(box.minY, area.left),
        );
        return over > 0.5 ? [{ opening: placed.opening.id, name: placed.opening.name, against: area.name, over }] : [];
      });
    });
}
