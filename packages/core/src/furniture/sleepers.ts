import type { Person, Unit } from '../document/schema.js';
import { bedLengthRule } from '../rules/people.js';
import { clearAcross, type Shell } from '../shell/shell.js';
import type { Gap, Offer, Start } from './family.js';

/**
 * Who lies across on a platform, at most two: those who fit side by side on it, in their order.
 * @param x0 where the platform begins and ends along the vehicle, mm; `top` its boards above the finished floor
 */
export function sleepersAcross(
  people: readonly Person[],
  room: Shell,
  x0: number,
  x1: number,
  top: number,
  mattress: number,
): readonly string[] {
  const clear = clearAcross(room, x0, x1, room.floor + top, room.floor + top + mattress);
  return people
    .filter(({ stature }) => bedLengthRule.run({ clear, stature, who: '', along: 'y' }).grade !== 'fails')
    .slice(0, 2)
    .map(({ id }) => id);
}

/** A bed across is so wide for one, and for two; and no narrower than that for one, mm. */
export const SINGLE_MM = 800;
export const DOUBLE_MM = 1350;
const LEAST_ONE_MM = 700;
const LEAST_TWO_MM = 1300;
/** What reaches from wall to wall needs all of the width. */
const ALL_OF_IT = 1.9;
const count = ({ options: { sleepers } }: Unit): number => (Array.isArray(sleepers) ? sleepers.length : 0);

/**
 * A bed from wall to wall as it is offered in a free stretch: at its rear, for two where two fit across it, else for one. Null
 * where something stands at its sides, or nobody fits.
 */
export function bedInGap(
  gap: Gap,
  { people }: Start,
  at: (x: number, length: number) => Unit,
  fits: number,
): Offer | null {
  const room = gap.x1 - gap.x0;
  if (gap.where !== 'middle' || gap.deep < ALL_OF_IT * gap.wall) return null;
  const bed = (most: number): Unit => {
    const length = Math.floor(Math.min(room, most));
    return at(Math.round(gap.x1 - length), length);
  };
  const double = people.length > 1 && room >= LEAST_TWO_MM ? bed(DOUBLE_MM) : null;
  if (double && count(double) > 1) return { unit: double, fits };
  const single = room >= LEAST_ONE_MM ? bed(SINGLE_MM) : null;
  // where there are two it is only half of what is wanted
  return single && count(single) > 0 ? { unit: single, fits: people.length > 1 ? 0.6 * fits : fits } : null;
}
