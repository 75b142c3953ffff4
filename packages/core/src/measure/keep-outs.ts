import type { KeepOut, Survey } from '../document/schema.js';
import { valueAt } from '../document/address.js';

/** An area under the floor that is not to be drilled, as a rectangle in the floor's plane, mm. */
export interface KeepOutBounds extends KeepOut {
  readonly from: number;
  readonly to: number;
  readonly left: number;
  readonly right: number;
}

/** The keep-outs whose four sides are read. */
export function boundsOf(survey: Survey): KeepOutBounds[] {
  return survey.keepOuts.flatMap((keepOut): KeepOutBounds[] => {
    const read = (what: string): number | null => valueAt(survey, `keepout/${keepOut.id}/${what}`);
    const [from, to, left, right] = [read('from'), read('to'), read('left'), read('right')];
    return from === null || to === null || left === null || right === null || to <= from || right <= left
      ? []
      : [{ ...keepOut, from, to, left, right }];
  });
}
