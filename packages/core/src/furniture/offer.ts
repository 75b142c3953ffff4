import { changeFields, OperationError } from '../document/editing.js';
import { familyNamed } from '../document/kit.js';
import type { OptionValue, Unit } from '../document/unit-schema.js';
import { message, type Message } from '../words/message.js';
import { changeUnit, type Mend, type Scene } from './scene.js';

type Changes = Readonly<Record<string, OptionValue>>;

/** A unit with fields changed; null where its family has not got one of them now, or no unit may be so. */
export function tried(unit: Unit, changes: Changes, scene: Pick<Scene, 'families'>): Unit | null {
  try {
    const then = changeFields(unit, changes, scene);
    return (familyNamed(scene.families, unit.family)?.faults(then) ?? []).length > 0 ? null : then;
  } catch (problem) {
    if (problem instanceof OperationError) return null;
    throw problem;
  }
}

/**
 * A way to mend something by changing fields of a unit.
 * @param helps what the unit as it would be has to pass: what mends nothing is not offered
 */
export function offer(
  unit: Unit,
  scene: Pick<Scene, 'families'>,
  changes: Changes,
  said: Message,
  helps: (then: Unit) => boolean = () => true,
): Mend | null {
  const then = tried(unit, changes, scene);
  return then && helps(then) ? { said, operations: [changeUnit(unit, changes)] } : null;
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
