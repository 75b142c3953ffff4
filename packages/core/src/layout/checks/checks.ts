import { familyNamed } from '../../document/kit.js';
import type { Unit } from '../../document/schema.js';
import type { Check, Scene, SceneRule } from '../../furniture/scene.js';
import { memoEach, memoLast } from '../../numeric/memo.js';
import type { Grade } from '../../rules/rule.js';

const WORST_FIRST: readonly Grade[] = ['fails', 'tight', 'unknown', 'good'];

/** The rules of one unit: the general ones, and its own family's. */
const rulesOf = (unit: Unit, scene: Scene, rules: readonly SceneRule[]): readonly SceneRule[] => [
  ...rules,
  ...(familyNamed(scene.families, unit.family)?.rules ?? []),
];

/** Every check of one unit, as the rules are listed. */
export const unitChecks = (unit: Unit, scene: Scene, rules: readonly SceneRule[]): readonly Check[] =>
  rulesOf(unit, scene, rules).flatMap((rule) => rule.ofUnit?.(unit, scene) ?? []);

/** Every check of the room as a whole. */
export const roomChecks = (scene: Scene, rules: readonly SceneRule[]): readonly Check[] =>
  [...rules, ...scene.families.flatMap((family) => family.rules)].flatMap((rule) => rule.ofRoom?.(scene) ?? []);

/** Every check of the layout, worst first: the registry of rules, gone through. */
export function layoutChecks(scene: Scene, rules: readonly SceneRule[]): readonly Check[] {
  return worstFirst([...scene.units.flatMap((unit) => unitChecks(unit, scene, rules)), ...roomChecks(scene, rules)]);
}

const worstFirst = (checks: readonly Check[]): readonly Check[] =>
  [...checks].sort((a, b) => WORST_FIRST.indexOf(a.grade) - WORST_FIRST.indexOf(b.grade));

/** The same with a memory: a unit that did not change, in a room that did not, is not looked at again. */
export function createChecks(rules: readonly SceneRule[]): (scene: Scene) => readonly Check[] {
  // a unit's own checks see nothing of the other units
  const alone = memoLast(
    (
      people: Scene['people'],
      inner: Scene['inner'],
      arches: Scene['arches'],
      openings: Scene['openings'],
      book: Scene['book'],
      families: Scene['families'],
    ): Scene => ({ units: [], people, inner, arches, openings, book, families }),
  );
  const each = memoEach(
    (unit: Unit) => unit.id,
    (unit: Unit, scene: Scene) => unitChecks(unit, scene, rules),
  );
  const room = memoLast((units: Scene['units'], scene: Scene) => roomChecks({ ...scene, units }, rules));
  const sorted = memoLast(
    (lists: readonly (readonly Check[])[]) => worstFirst(lists.flat()),
    ([a], [b]) => a.length === b.length && a.every((list, i) => list === b[i]),
  );
  return ({ units, people, inner, arches, openings, book, families }) => {
    const scene = alone(people, inner, arches, openings, book, families);
    return sorted([...units.map((unit) => each(unit, scene)), room(units, scene)]);
  };
}
