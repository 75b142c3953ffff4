import { baysOf, endOf, frontLineOf } from '../../document/body.js';
import { thingIn } from '../../document/layout-changes.js';
import type { Bay, Division, Unit } from '../../document/unit-schema.js';
import { offer, together } from '../../furniture/offer.js';
import type { Mend, Scene } from '../../furniture/scene.js';
import { spread } from '../../numeric/plane.js';
import { stepUp } from '../../numeric/tolerance.js';
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

/** What a bay keeps at least in a cut: what the thing in it needs with its air, or so much that there is still a bay, mm. */
function leastOf(bay: Bay, cut: Cut['cut'], { things }: Scene): number {
  const id = thingIn(bay);
  const thing = things.find((one) => one.id === id);
  if (!thing) return LEAST_BAY_MM;
  return Math.max(
    LEAST_BAY_MM,
    cut === 'up'
      ? thing.height + thing.clear.top
      : cut === 'along'
        ? thing.width + 2 * thing.clear.side
        : thing.depth + thing.clear.back,
  );
}
/** Whether the bays beside one in its innermost cut can give it so much, mm, and keep what is in them; what has a set size keeps it. */
function canGive(unit: Unit, bay: Bay, cut: Cut, by: number, scene: Scene): boolean {
  const rooms = scene.skeletons.get(unit.id)?.bays ?? [];
  const free = cut.parts.flatMap((part, i) => {
    const size = cut.sizes[i];
    if ('cut' in part || part.name === bay.name || typeof size !== 'object') return [];
    const room = rooms.find((one) => one.bay.name === part.name)?.room;
    const least = leastOf(part, cut.cut, scene);
    // what is too small as it is has nothing to give, and takes nothing from what the others have
    return room ? [Math.max(0, (cut.cut === 'up' ? room.z1 - room.z0 : room.x1 - room.x0) - least)] : [];
  });
  return free.length > 0 && free.reduce((sum, size) => sum + size, 0) >= by;
}

/**
 * How much larger a whole has to be for one of its cuts to be larger by 1, where cuts of one way lie in each other: what is
 * shared grows by its share alone; null where a set size holds it.
 */
function growth(cuts: readonly Cut[], bay: string): number | null {
  return cuts.slice(0, -1).reduce<number | null>((factor, cut) => {
    const at = cut.parts.findIndex((part) => baysOf(part).some(({ name }) => name === bay));
    const own = cut.sizes[at];
    if (factor === null || typeof own !== 'object') return null;
    const all = cut.sizes.reduce<number>((sum, size) => sum + (typeof size === 'object' ? size.share : 0), 0);
    return (factor * all) / own.share;
  }, 1);
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
  const factor = growth(own, bay.name);
  const unitLarger = (): Mend | null => {
    if (factor === null) return null;
    const more = stepUp(scene, by * factor);
    if (!along)
      return offer(
        unit,
        scene,
        { height: body.to + more },
        message('mend.raise', { name: unit.name, by: mm(more) }),
        (then) => underRoof(then, deep, scene),
      );
    const said = message('mend.longer', { name: unit.name, by: mm(more) });
    const length = body.length + more;
    if (endOf(unit) + more <= scene.inner.length) return offer(unit, scene, { length }, said);
    return body.x - more >= scene.inner.start ? offer(unit, scene, { x: body.x - more, length }, said) : null;
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
    'cut' in part || part.name === bay.name || typeof inner.sizes[i] !== 'object'
      ? []
      : [Math.max(0, deepOf(part.name) - leastOf(part, 'deep', scene))],
  );
  const by = stepUp(scene, to - deepOf(bay.name));
  return {
    mend: {
      said: message('mend.deepenBay', { to: mm(stepUp(scene, to)) }),
      operations: [{ name: 'sizeBay', payload: { id: unit.id, bay: bay.name, size: stepUp(scene, to) } }],
    },
    enough: free.length > 0 && free.reduce((sum, size) => sum + size, 0) >= by,
  };
}

/** More width for a bay, by so much, to so much clear, mm. */
export const wider = (unit: Unit, bay: Bay, by: number, to: number, scene: Scene): Mend | null =>
  larger(unit, bay, stepUp(scene, by), stepUp(scene, to), true, scene);
/** More height for a bay that is to stay so deep at its head, mm. */
export const higher = (unit: Unit, bay: Bay, by: number, to: number, deep: number, scene: Scene): Mend | null =>
  larger(unit, bay, stepUp(scene, by), stepUp(scene, to), false, scene, deep);
