import { endOf, frontLineOf } from '../../document/body.js';
import type { Bay, Division, Unit } from '../../document/unit-schema.js';
import { offer, together } from '../../furniture/offer.js';
import type { Mend, Scene } from '../../furniture/scene.js';
import { spread } from '../../numeric/plane.js';
import { wholeUp } from '../../numeric/tolerance.js';
import { halfWidth, roofHeight } from '../../shell/shell.js';
import { message, mm } from '../../words/message.js';

type Cut = Extract<Division, { cut: string }>;

/** The cuts a bay lies in, the outermost first; null where it does not lie in this division. */
function cutsOf(division: Division, bay: string): readonly Cut[] | null {
  if (!('cut' in division)) return division.name === bay ? [] : null;
  for (const part of division.parts) {
    const within = cutsOf(part, bay);
    if (within) return [division, ...within];
  }
  return null;
}

/** A bay beside another keeps at least this, mm. */
const LEAST_BAY_MM = 60;

/** Whether the bays beside one in its innermost cut can give it so much, mm. */
function canGive(unit: Unit, bay: Bay, cut: Cut, by: number, scene: Scene): boolean {
  const rooms = scene.skeletons.get(unit.id)?.bays ?? [];
  const free = cut.parts.flatMap((part, i) => {
    const size = cut.sizes[i];
    if ('cut' in part || part.name === bay.name || typeof size !== 'object') return [];
    const room = rooms.find((one) => one.bay.name === part.name)?.room;
    return room ? [cut.cut === 'up' ? room.z1 - room.z0 : room.x1 - room.x0] : [];
  });
  return free.length > 0 && free.reduce((sum, size) => sum + size - LEAST_BAY_MM, 0) >= by;
}

/** Boards and the gap at the wall take so much of the depth at most, mm. */
const BOARDS_MM = 40;
/** Whether a unit that is made higher still stands under the roof, with so much between its front and the wall at its head, mm. */
function underRoof(then: Unit, deep: number, { inner }: Scene): boolean {
  const line = frontLineOf(then);
  const top = inner.floor + then.body.to;
  return spread(then.body.x, endOf(then), 5).every(
    (x) =>
      !line ||
      (top <= roofHeight(inner, x, line.sign * (line.front + deep / 2)) &&
        halfWidth(inner, line.side, x, top) - line.front - BOARDS_MM >= deep),
  );
}

/** More of one size for a bay: its bay made larger where it lies in such a cut, else its unit; both where the others cannot give it. */
function larger(unit: Unit, bay: Bay, by: number, to: number, along: boolean, scene: Scene, deep = 0): Mend | null {
  const cuts = cutsOf(unit.division, bay.name) ?? [];
  const own = cuts.filter(({ cut }) => cut === (along ? 'along' : 'up'));
  const inner = cuts.at(-1);
  const { body } = unit;
  const unitLarger = (): Mend | null => {
    if (!along)
      return offer(
        unit,
        scene,
        { height: body.to + by },
        message('mend.raise', { name: unit.name, by: mm(by) }),
        (then) => underRoof(then, deep, scene),
      );
    const said = message('mend.longer', { name: unit.name, by: mm(by) });
    const length = body.length + by;
    if (endOf(unit) + by <= scene.inner.length) return offer(unit, scene, { length }, said);
    return body.x - by >= scene.inner.start ? offer(unit, scene, { x: body.x - by, length }, said) : null;
  };
  if (own.length === 0) return unitLarger();
  if (!inner || inner !== own.at(-1)) return null;
  const sized: Mend = {
    said: message(along ? 'mend.widenBay' : 'mend.heightenBay', { to: mm(to) }),
    operations: [{ name: 'sizeBay', payload: { id: unit.id, bay: bay.name, size: to } }],
  };
  return canGive(unit, bay, inner, by, scene) ? sized : together([unitLarger(), sized]);
}

/** More depth for a bay in a cut from its front backward, to so much clear, mm, and whether the others can give it; null where it lies in none. */
export function deeper(
  unit: Unit,
  bay: Bay,
  to: number,
  scene: Scene,
): { readonly mend: Mend; readonly enough: boolean } | null {
  const inner = (cutsOf(unit.division, bay.name) ?? []).at(-1);
  const rooms = scene.skeletons.get(unit.id)?.bays ?? [];
  const deepOf = (name: string): number => {
    const own = rooms.find((one) => one.bay.name === name);
    return own ? Math.min(own.deepLow, own.deepHigh) : 0;
  };
  if (inner?.cut !== 'deep') return null;
  const free = inner.parts.flatMap((part, i) =>
    'cut' in part || part.name === bay.name || typeof inner.sizes[i] !== 'object' ? [] : [deepOf(part.name)],
  );
  const by = wholeUp(to - deepOf(bay.name));
  return {
    mend: {
      said: message('mend.deepenBay', { to: mm(wholeUp(to)) }),
      operations: [{ name: 'sizeBay', payload: { id: unit.id, bay: bay.name, size: wholeUp(to) } }],
    },
    enough: free.length > 0 && free.reduce((sum, size) => sum + size - LEAST_BAY_MM, 0) >= by,
  };
}

/** More width for a bay, by so much, to so much clear, mm. */
export const wider = (unit: Unit, bay: Bay, by: number, to: number, scene: Scene): Mend | null =>
  larger(unit, bay, wholeUp(by), wholeUp(to), true, scene);
/** More height for a bay that is to stay so deep at its head, mm. */
export const higher = (unit: Unit, bay: Bay, by: number, to: number, deep: number, scene: Scene): Mend | null =>
  larger(unit, bay, wholeUp(by), wholeUp(to), false, scene, deep);
