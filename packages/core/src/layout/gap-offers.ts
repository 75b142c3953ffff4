import { endOf, frontLineOf, spansWalls } from '../document/body.js';
import { familyNamed } from '../document/kit.js';
import type { Unit } from '../document/unit-schema.js';
import type { Family, Gap, Offer, Start } from '../furniture/family.js';
import { tried } from '../furniture/offer.js';
import type { Scene, SceneRule } from '../furniture/scene.js';
import { sweptBy } from '../furniture/motions.js';
import { solidsOf } from '../furniture/solid.js';
import { memoFew } from '../numeric/memo.js';
import { boxOf } from '../numeric/plane.js';
import { overlapOf, type SolidBox } from '../rules/room.js';
import { MEANT_STEP_MM } from '../rules/room-use.js';
import { archSpan } from '../shell/arch.js';
import { mostHidden } from './behind-glass.js';
import { stretchesLeft } from './gaps.js';
import { lyingOnFloor } from './pets.js';
import { inWalls, standingInDoor, type Walled } from './in-doors.js';
import { ROOM_CHECKS } from './checks/room.js';
import { isNextTo } from './checks/use.js';

/** The rules what is offered has to pass where it stands: it is within the room, and on no wheel arch. */
const STANDS: ReadonlySet<string> = new Set(['inside-shell', 'arch-in']);
/** So well fits what would stand in the way of what is moved, as a share; of that what would stand where an animal lies. */
const IN_THE_WAY = 0.3;
/** So much worse fits what would stand before all of a window, as a share. */
const HIDES = 0.4;
/** Less than this is not slid along to get past something, mm. */
const SLIDES_MM = 1;

/** Whether a unit stands in the room without running into anything. */
export function standsClear(unit: Unit, scene: Scene): boolean {
  const own = solidsOf(unit, scene, scene.families);
  const meets = scene.units.some(
    (other) =>
      other.id !== unit.id &&
      solidsOf(other, scene, scene.families).some((box) => own.some((mine) => overlapOf(mine, box) !== null)),
  );
  if (meets) return false;
  const rules: readonly SceneRule[] = [...ROOM_CHECKS, ...(familyNamed(scene.families, unit.family)?.rules ?? [])];
  return rules
    .filter(({ rule }) => STANDS.has(rule.name))
    .every((rule) => (rule.ofUnit?.(unit, scene) ?? []).every(({ grade }) => grade !== 'fails'));
}

/** Doors of the side walls that a unit stands or hangs in. */
const doorsOf = (unit: Unit, scene: Scene): Walled[] =>
  inWalls(scene, 'door').filter((door) => standingInDoor({ ...scene, units: [unit] }, door).length > 0);
const standsInDoor = (unit: Unit, scene: Scene): boolean => doorsOf(unit, scene).length > 0;

/** What lies in a stretch at the heights of a unit and as deep as it: from where to where along, mm. */
function blockedIn(unit: Unit, gap: Gap, scene: Scene, off: readonly SolidBox[]): [number, number][] {
  const line = frontLineOf(unit);
  const own = solidsOf(unit, scene, scene.families);
  // wherever along it would stand
  const swept = own.map((box): SolidBox => ({ ...box, x0: gap.x0, x1: gap.x1 }));
  return [
    ...scene.units
      .filter(({ id }) => id !== unit.id)
      .flatMap((other) => solidsOf(other, scene, scene.families))
      .concat(off)
      .filter((box) => swept.some((mine) => overlapOf(mine, box) !== null))
      .map((box): [number, number] => [box.x0, box.x1]),
    ...scene.arches
      .filter((arch) => line?.side === arch.side || spansWalls(unit))
      .flatMap((arch): [number, number][] => {
        const span = archSpan(arch, scene.inner.floor);
        return span ? [[span[0], span[1]]] : [];
      }),
    ...doorsOf({ ...unit, body: { ...unit.body, x: gap.x0, length: gap.x1 - gap.x0 } }, scene).map(
      ({ from, to }): [number, number] => [from, to],
    ),
  ].filter(([from, to]) => from < gap.x1 && to > gap.x0);
}

/**
 * One of a family as it would stand in a free stretch, clear of what stands there and of wheel arches: slid along, notched
 * over an arch, or fitted into what is free of the stretch; off the places of animals and of what is opened or drawn out where it can be. Null where it does not.
 */
export function offeredIn(family: Family, gap: Gap, start: Start, scene: Scene): Offer | null {
  const dens = lyingOnFloor(scene);
  const swept = sweptIn(scene);
  // where there is no such place it may be in the way of what is seldom moved, then of an animal, and is told so
  const ways = [
    { off: [...dens, ...swept], share: 1 },
    { off: dens, share: IN_THE_WAY },
    { off: [], share: IN_THE_WAY ** 2 },
  ].filter(({ off }, i, all) => off.length !== all[i - 1]?.off.length);
  let offer: Offer | null = null;
  for (const { off, share } of ways) {
    const next = offeredBeside(off, family, gap, start, scene);
    if (!next) continue;
    offer = { ...next, fits: next.fits * share };
    break;
  }
  // what would stand before a window is better somewhere else
  return offer && { ...offer, fits: offer.fits * (1 - HIDES * mostHidden({ ...scene, units: [offer.unit] })) };
}
/**
 * The room that what moves takes up on its way, box by box: doors, drawers, lids and beds of what stands there. Every family
 * is asked for every free stretch of one room: worked out once for it.
 */
const sweptIn = memoFew((scene: Scene): readonly SolidBox[] =>
  [...scene.skeletons.values()].flatMap(({ motions = [] }) =>
    motions.map((motion): SolidBox => {
      const { ring, z0, z1 } = sweptBy(motion);
      const { minX, maxX, minY, maxY } = boxOf(ring);
      return { x0: minX, x1: maxX, y0: minY, y1: maxY, z0, z1 };
    }),
  ),
);
function offeredBeside(off: readonly SolidBox[], family: Family, gap: Gap, start: Start, scene: Scene): Offer | null {
  const offer = family.inGap?.(gap, start) ?? null;
  if (!offer) return null;
  const { unit } = offer;
  // what turns out of a door stands in it
  const free = (own: Unit): boolean =>
    standsClear(own, scene) &&
    (gap.zone === 'door' || !standsInDoor(own, scene)) &&
    !solidsOf(own, scene, scene.families).some((box) => off.some((kept) => overlapOf(box, kept) !== null));
  const { body } = unit;
  // the middle of what is free across is not always the vehicle's
  const placed: Unit =
    body.stands === 'free' && gap.where === 'middle'
      ? { ...unit, body: { ...body, y: body.y + Math.round(gap.middle) } }
      : unit;
  // a front that would be a little before or behind its neighbour's is put in one line with it
  const lined = (own: Unit): Unit => {
    const line = frontLineOf(own);
    const puts = scene.units.flatMap((other) => {
      const step = Math.abs((frontLineOf(other)?.front ?? Infinity) - (line?.front ?? 0));
      return step > 0 && step <= MEANT_STEP_MM && isNextTo(own, other)
        ? (tried(own, { front: frontLineOf(other)?.front ?? 0 }, scene) ?? [])
        : [];
    });
    return puts.find(free) ?? own;
  };
  if (free(placed)) return { ...offer, unit: lined(placed) };
  const blocked = blockedIn(placed, gap, scene, off);
  const { x, length } = placed.body;
  const places = [...blocked.flatMap(([from, to]) => [to, from - length]), gap.x1 - length]
    .map((at) => Math.round(at))
    .filter((at) => Math.abs(at - x) >= SLIDES_MM && at >= gap.x0 && at + length <= gap.x1)
    .sort((a, b) => Math.abs(a - x) - Math.abs(b - x));
  const slid = places.flatMap((at) => tried(placed, { x: at }, scene) ?? []);
  const notched = tried(placed, { overArch: true }, scene);
  const clear = [...slid, ...(notched ? [notched] : [])].find(
    (candidate) => endOf(candidate) <= gap.x1 + 1 && free(candidate),
  );
  if (clear) return { ...offer, unit: lined(clear) };
  const parts = stretchesLeft(gap.x0, gap.x1, blocked)
    .map(([from, to]): Gap => ({ ...gap, x0: Math.ceil(from), x1: Math.floor(to) }))
    .flatMap((part) => {
      const fitted = family.inGap?.(part, start);
      return fitted && free(fitted.unit) ? [{ ...fitted, unit: lined(fitted.unit) }] : [];
    });
  return parts.sort((a, b) => b.fits - a.fits)[0] ?? null;
}

/** A family as it would stand in a free stretch. */
export interface Offered extends Offer {
  readonly family: Family;
}

/** The families that fit a free stretch now, best first. */
export function offersIn(
  gap: Gap,
  families: readonly Family[],
  start: (family: Family) => Start,
  scene: Scene,
): readonly Offered[] {
  return families
    .flatMap((family): Offered[] => {
      const offer = offeredIn(family, gap, start(family), scene);
      return offer ? [{ family, ...offer }] : [];
    })
    .sort((a, b) => b.fits - a.fits);
}
