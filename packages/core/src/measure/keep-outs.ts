import type { KeepOut, Survey } from '../document/schema.js';
import { valueAt } from '../document/address.js';

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
