import { withBay } from '../document/body.js';
import { changeFields, OperationError } from '../document/editing.js';
import { familyNamed } from '../document/kit.js';
import type { Bay, OptionValue, Unit } from '../document/unit-schema.js';
import { message, mm, type Message } from '../words/message.js';
import { changeUnit, type Mend, type Scene, type SceneFamily } from './scene.js';
import { thinIn } from './skeleton.js';
import type { Surroundings } from './surroundings.js';

type Changes = Readonly<Record<string, OptionValue>>;

/** What is asked of a room to try something in it. */
export type Tried = Pick<Scene, 'families'> & Surroundings;

/** What one room has answered about units as they would be: asked anew at every step of a drag, about the same ones. */
let answered: { readonly room: Surroundings; readonly of: Map<string, number> } | null = null;
const MOST_ANSWERS = 500;

/** What cannot be made of a unit: things its family says, and splinters. It may take all the boards of a unit to say. */
function flawsOf(unit: Unit, family: SceneFamily, scene: Tried): number {
  const { inner, arches, book, things } = scene;
  const same =
    answered?.room.inner === inner &&
    answered.room.arches === arches &&
    answered.room.book === book &&
    answered.room.things === things;
  if (!answered || !same || answered.of.size >= MOST_ANSWERS)
    answered = { room: { inner, arches, book, things }, of: new Map() };
  const key = JSON.stringify(unit);
  const before = answered.of.get(key);
  if (before !== undefined) return before;
  const { boards, problems } = family.skeleton(unit, scene);
  const flaws = problems.length + thinIn(boards).length;
  answered.of.set(key, flaws);
  return flaws;
}

/** Whether as much of a unit can be made as it would be as it is now, splinters counted. One that cannot be made as it is may stay so. */
export function keeps(then: Unit, unit: Unit, scene: Tried): boolean {
  const family = familyNamed(scene.families, unit.family);
  if (!family) return true;
  const flaws = flawsOf(then, family, scene);
  return flaws === 0 || flaws <= flawsOf(unit, family, scene);
}

/** Whether a unit can be made as it would be, as far as its family says at once. One that cannot be made as it is may stay so. */
function makes(then: Unit, unit: Unit, scene: Tried): boolean {
  const own = familyNamed(scene.families, unit.family)?.makes;
  return own === undefined || own(then, scene) || !own(unit, scene);
}

/**
 * The height nearest to a wanted one at which a unit can be made, and no higher where that is asked for: what hangs in steps
 * takes the next one. The wanted one where there is none nearby.
 */
export function madeHeight(unit: Unit, scene: Tried, wanted: number, noHigher = false): number {
  const own = familyNamed(scene.families, unit.family)?.makes;
  if (!own) return wanted;
  const at = (to: number): boolean => own({ ...unit, body: { ...unit.body, to } }, scene);
  for (let by = 0; by <= STEPS_APART_MM; by += 1) {
    if (at(wanted - by)) return wanted - by;
    if (!noHigher && at(wanted + by)) return wanted + by;
  }
  return wanted;
}
/** Heights at which something can be made are no farther apart than this, mm. */
const STEPS_APART_MM = 300;

/**
 * The fields that put the top of a unit at a height: what hangs is moved as a whole and stays as thick as it is, what stands
 * on the floor becomes higher or lower.
 */
export function topAt(unit: Unit, scene: Pick<Scene, 'families'>, to: number): Changes {
  const { body, family } = unit;
  const from = body.from + to - body.to;
  const hangs = body.from > 0 && from > 0;
  return hangs && familyNamed(scene.families, family)?.fields.some(({ name }) => name === 'from')
    ? { from }
    : { height: to };
}

/** A unit with fields changed; null where its family has not got one of them now, or no unit may be so. */
function changed(unit: Unit, changes: Changes, scene: Pick<Scene, 'families'>): Unit | null {
  try {
    const then = changeFields(unit, changes, scene);
    return (familyNamed(scene.families, unit.family)?.faults(then) ?? []).length > 0 ? null : then;
  } catch (problem) {
    if (problem instanceof OperationError) return null;
    throw problem;
  }
}

/** The same; null also where it cannot be made so. */
export function tried(unit: Unit, changes: Changes, scene: Tried): Unit | null {
  const then = changed(unit, changes, scene);
  return then && makes(then, unit, scene) ? then : null;
}

/**
 * A way to mend something by changing fields of a unit.
 * @param helps what the unit as it would be has to pass: what mends nothing is not offered
 */
export function offer(
  unit: Unit,
  scene: Tried,
  changes: Changes,
  said: Message,
  helps: (then: Unit) => boolean = () => true,
): Mend | null {
  const then = changed(unit, changes, scene);
  // whether it can be made is asked last: it may take its boards to say
  return then && helps(then) && makes(then, unit, scene) && keeps(then, unit, scene)
    ? { said, operations: [changeUnit(unit, changes)] }
    : null;
}

/** A way to mend something by changing a bay of a unit; null where less could be made of it so than as it is. */
export function offerBay(
  unit: Unit,
  bay: Bay,
  scene: Tried,
  changes: Partial<Pick<Bay, 'holds' | 'front' | 'vents'>>,
  said: Message,
): Mend | null {
  const then = { ...unit, division: withBay(unit.division, bay.name, (own) => ({ ...own, ...changes })) };
  return keeps(then, unit, scene)
    ? { said, operations: [{ name: 'changeBay', payload: { id: unit.id, bay: bay.name, ...changes } }] }
    : null;
}

/** What is raised at its underside alone keeps more than this of its height, mm. */
export const LEAST_LEFT_MM = 150;
/**
 * Something that hangs raised by so much: as a whole, or its underside alone where the roof leaves it no room above.
 * @param helps what it as it would be has to pass
 */
export function raised(unit: Unit, scene: Tried, by: number, helps?: (then: Unit) => boolean): Mend | null {
  const { name, body } = unit;
  const from = body.from + by;
  return (
    offer(unit, scene, { from }, message('mend.raise', { name, by: mm(by) }), helps) ??
    (body.to - from > LEAST_LEFT_MM
      ? offer(unit, scene, { from, height: body.to }, message('mend.underside', { name, by: mm(by) }), helps)
      : null)
  );
}

/** The same room with one unit as it would be. What its boards and motions would be is not worked out. */
export const sceneWith = <S extends Pick<Scene, 'units'>>(scene: S, then: Unit): S => ({
  ...scene,
  units: scene.units.map((unit) => (unit.id === then.id ? then : unit)),
});

/** Several ways that only together mend something, as one; null where one of them cannot be. */
export function together(mends: readonly (Mend | null)[]): Mend | null {
  const all = mends.filter((mend) => mend !== null);
  const [first, ...others] = all;
  if (!first || all.length < mends.length) return null;
  return {
    said: others.reduce((said, mend) => message('mend.and', { first: said, then: mend.said }), first.said),
    operations: all.flatMap(({ operations }) => operations),
  };
}
