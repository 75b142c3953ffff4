import type { Survey } from '../document/schema.js';
import { riseOver } from '../words/angle.js';
import { valueAt } from '../document/address.js';

/** A surface's slope as the instrument showed it and as it is against the vehicle's own floor, degrees. */
export interface RelativeAngle {
  readonly id: string;
  readonly name: string;
  readonly raw: number;
  /** The floor's reading taken beside it, or the floor's slope measured once. */
  readonly floor: number;
  readonly corrected: number;
}

/** How the vehicle stands, and what that does to a spirit level. */
export interface Level {
  /** Slope of the floor along and across, degrees; null while not read. */
  readonly along: number | null;
  readonly across: number | null;
  /** What a level line differs from the floor over the whole length and width, mm. */
  readonly riseAlong: number | null;
  readonly riseAcross: number | null;
  readonly angles: readonly RelativeAngle[];
}

/** States every slope against the floor: raw less what the floor read beside it. */
export function levelOf(survey: Survey, length: number, width: number): Level {
  const [along, across] = [valueAt(survey, 'level/along'), valueAt(survey, 'level/across')];
  return {
    along,
    across,
    riseAlong: along === null ? null : riseOver(along, length),
    riseAcross: across === null ? null : riseOver(across, width),
    angles: survey.angles.flatMap(({ id, name }): RelativeAngle[] => {
      const raw = valueAt(survey, `angle/${id}/raw`);
      const floor = valueAt(survey, `angle/${id}/floor`) ?? across;
      return raw === null || floor === null ? [] : [{ id, name, raw, floor, corrected: raw - floor }];
    }),
  };
}
