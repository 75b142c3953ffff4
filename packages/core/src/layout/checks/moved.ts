import { endOf } from '../../document/body.js';
import type { Unit } from '../../document/schema.js';
import { offer } from '../../furniture/offer.js';
import type { Mend, Scene } from '../../furniture/scene.js';
import { spread } from '../../numeric/plane.js';
import { wholeUp } from '../../numeric/tolerance.js';
import type { SolidBox } from '../../rules/room.js';
import { halfWidth } from '../../shell/shell.js';
import { message, mm } from '../../words/message.js';

/** Where something free stands between the walls, measured from the left one at its narrowest. */
export function acrossSpan(
  y: number,
  width: number,
  { inner }: Scene,
  unit: Unit,
): { readonly start: number; readonly end: number; readonly room: number } {
  const xs = spread(unit.body.x, endOf(unit), 5);
  const heights = [unit.body.from, Math.min(unit.body.to, 1200)].map((height) => inner.floor + height);
  const least = (side: 'left' | 'right'): number =>
    Math.min(...xs.flatMap((x) => heights.map((z) => halfWidth(inner, side, x, z))));
  const left = least('left');
  return { start: y + left, end: y + left + width, room: left + least('right') };
}

export type Direction = 'front' | 'rear' | 'left' | 'right';

/** What moving a unit along or across by a distance would be, where it stays in the room and has such a field. */
export function moved(
  unit: Unit,
  way: Direction,
  by: number,
  scene: Scene,
  helps: (then: Unit) => boolean = () => true,
): Mend | null {
  const distance = wholeUp(by);
  const said = message('mend.move', { name: unit.name, by: mm(distance), way: { word: `mend.way.${way}` } });
  const { x } = unit.body;
  if (way === 'front')
    return x - distance >= scene.inner.start ? offer(unit, scene, { x: x - distance }, said, helps) : null;
  if (way === 'rear')
    return endOf(unit) + distance <= scene.inner.length ? offer(unit, scene, { x: x + distance }, said, helps) : null;
  if (unit.body.stands !== 'free') return null;
  return offer(unit, scene, { y: unit.body.y + (way === 'left' ? -distance : distance) }, said, (then) => {
    if (then.body.stands !== 'free') return false;
    const { start, end, room } = acrossSpan(then.body.y, then.body.width, scene, then);
    return start >= 0 && end <= room && helps(then);
  });
}

/**
 * How far solids have to move one way to be clear of others, mm: past every one at whose height, and in whose line, they
 * stand, not only past the one they reach into deepest.
 */
export function pushed(own: readonly SolidBox[], others: readonly SolidBox[], way: Direction): number {
  const along = way === 'front' || way === 'rear';
  const meets = (a: SolidBox, b: SolidBox): boolean =>
    Math.min(a.z1, b.z1) - Math.max(a.z0, b.z0) > 0.5 &&
    (along ? Math.min(a.y1, b.y1) - Math.max(a.y0, b.y0) > 0.5 : Math.min(a.x1, b.x1) - Math.max(a.x0, b.x0) > 0.5);
  const by = (a: SolidBox, b: SolidBox): number =>
    way === 'front' ? a.x1 - b.x0 : way === 'rear' ? b.x1 - a.x0 : way === 'left' ? a.y1 - b.y0 : b.y1 - a.y0;
  return Math.max(0, ...own.flatMap((a) => others.filter((b) => meets(a, b)).map((b) => by(a, b))));
}
