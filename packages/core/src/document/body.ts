import type { Point } from '../numeric/plane.js';
import type { Bay, Division, Unit } from './unit-schema.js';

type Side = 'left' | 'right';
/** What a unit is to everything round it: where it stands and how it meets the vehicle, not what it is called or made of. */
export type Shadow = Pick<Unit, 'id' | 'body' | 'meets' | 'options'>;

/** Where a unit ends along the vehicle, mm. */
export const endOf = ({ body }: Shadow): number => body.x + body.length;
/** Whether it reaches from wall to wall. */
export const spansWalls = ({ body }: Pick<Shadow, 'body'>): boolean => body.stands === 'across';
/** Whether a unit stands against a side wall: one across the vehicle stands against both. */
export const standsAt = (unit: Shadow, side: Side): boolean => spansWalls(unit) || unit.body.stands === side;
/** Whether a unit is at a place along the vehicle. */
export const isAt = (unit: Shadow, x: number): boolean => x >= unit.body.x && x <= endOf(unit);

/** A front that stands on a line parallel to the centre line, and the wall behind it; null for what stands across or free. */
export function frontLineOf({
  body,
}: Shadow): { readonly side: Side; readonly front: number; readonly sign: 1 | -1 } | null {
  return body.stands === 'across' || body.stands === 'free'
    ? null
    : { side: body.stands, front: body.front, sign: body.stands === 'left' ? -1 : 1 };
}

/** Whether a place on the floor lies under a unit: behind its front, or anywhere between its ends. */
export function isOver(unit: Shadow, [x, y]: Point): boolean {
  if (!isAt(unit, x)) return false;
  const across = acrossOf(unit);
  return y > across.from && y < across.to;
}

/** From where to where a unit stands across the vehicle, mm; without an end towards a wall it stands at. */
export function acrossOf(unit: Shadow): { readonly from: number; readonly to: number } {
  const { body } = unit;
  if (body.stands === 'free') return { from: body.y, to: body.y + body.width };
  const line = frontLineOf(unit);
  if (!line) return { from: -Infinity, to: Infinity };
  return line.sign < 0 ? { from: -Infinity, to: -line.front } : { from: line.front, to: Infinity };
}

/** Whether its foot closes the floor under it: nothing is walked on or laid there. */
export const closesFloor = ({ meets }: Shadow): boolean => meets.foot?.how === 'square';

/** How much is left on where it is cut to the vehicle's curve, mm: the least of its faces; null when none is scribed. */
export function scribeAllowance({ meets }: Shadow): number | null {
  const left = Object.values(meets).flatMap((meet) => (meet.how === 'scribed' ? [meet.allowance] : []));
  return left.length === 0 ? null : Math.min(...left);
}

/** The bays of a division, in order. */
export const baysOf = (division: Division): readonly Bay[] =>
  'cut' in division ? division.parts.flatMap(baysOf) : [division];

/** A division with one of its bays changed. */
export function withBay(division: Division, name: string, change: (bay: Bay) => Division): Division {
  if (!('cut' in division)) return division.name === name ? change(division) : division;
  return { ...division, parts: division.parts.map((part) => withBay(part, name, change)) };
}
