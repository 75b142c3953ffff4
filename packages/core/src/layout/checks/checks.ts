import { familyNamed } from '../../document/kit.js';
import type { Aside, Unit } from '../../document/schema.js';
import type { Check, Scene, SceneRule } from '../../furniture/scene.js';
import { NO_RUNS } from '../../furniture/runs.js';
import type { Skeleton } from '../../furniture/skeleton.js';
import { memoLast } from '../../numeric/memo.js';
import type { Grade } from '../../rules/rule.js';
import { createSights } from './sight.js';

const WORST_FIRST: readonly Grade[] = ['fails', 'tight', 'unknown', 'good'];

/** The rules of one unit: the general ones, and its own family's. */
const rulesOf = (unit: Unit, scene: Scene, rules: readonly SceneRule[]): readonly SceneRule[] => [
  ...rules,
  ...(familyNamed(scene.families, unit.family)?.rules ?? []),
];

/** Every check of one unit, as the rules are listed. */
export const unitChecks = (unit: Unit, scene: Scene, rules: readonly SceneRule[]): readonly Check[] =>
  rulesOf(unit, scene, rules).flatMap((rule) => rule.ofUnit?.(unit, scene) ?? []);

/** What a rule says of each unit and what stands beside it. */
function eachChecks({ ofEach }: SceneRule, scene: Scene, found: Check[]): void {
  if (ofEach) for (const unit of scene.units) found.push(...ofEach.of(unit, scene));
}

/** Every check of the room as a whole, and of what stands beside each other in it. */
export function roomChecks(scene: Scene, rules: readonly SceneRule[], each = eachChecks): readonly Check[] {
  const found: Check[] = [];
  const of = (rule: SceneRule): void => {
    if (rule.ofEach) each(rule, scene, found);
    if (rule.ofRoom) for (const check of rule.ofRoom(scene)) found.push(check);
  };
  rules.forEach(of);
  for (const family of scene.families) family.rules.forEach(of);
  return found;
}

/** Every check of the layout, worst first: the registry of rules, gone through. */
export function layoutChecks(scene: Scene, rules: readonly SceneRule[]): readonly Check[] {
  return worstFirst([...scene.units.flatMap((unit) => unitChecks(unit, scene, rules)), ...roomChecks(scene, rules)]);
}

/** Worst first; what was put aside after everything else that is not good. */
function worstFirst(...lists: readonly (readonly Check[])[]): readonly Check[] {
  const ranks: (Check[] | undefined)[] = [];
  for (const checks of lists)
    for (let i = 0; i < checks.length; i += 1) {
      const check = checks[i] as Check;
      const rank =
        2 * (WORST_FIRST.indexOf(check.grade) + (check.aside === null ? 0 : WORST_FIRST.length)) +
        (SMALL.has(check.rule) ? 1 : 0);
      (ranks[rank] ??= []).push(check);
    }
  const ordered: Check[] = [];
  for (const those of ranks) for (const check of those ?? []) ordered.push(check);
  return ordered;
}
/** What is mended by a screwdriver in a minute stands after what changes the plan. */
const SMALL: ReadonlySet<string> = new Set(['travel-latch', 'in-one-line', 'appliance-air']);

/** Checks with the reasons for which some were put aside: one that is good stays as it is. */
export const withAside = (checks: readonly Check[], aside: readonly Aside[]): readonly Check[] =>
  aside.length === 0
    ? checks
    : worstFirst(
        checks.map((check) => {
          const put = check.grade === 'good' ? undefined : aside.find((own) => own.check === check.id);
          return put ? { ...check, aside: put.reason } : check;
        }),
      );

/** Whether a check asks for something to be done. */
export const isOpen = ({ grade, aside }: Check): boolean => grade === 'fails' && aside === null;

/** The checks of each unit by itself with a memory: for as long as it, what it is made of and its room are the same. */
function createEach(rules: readonly SceneRule[]) {
  interface Last {
    readonly unit: Unit;
    readonly skeleton: Skeleton | null;
    readonly scene: Omit<Scene, 'skeletons'>;
    readonly checks: readonly Check[];
  }
  const lasts = new Map<string, Last>();
  return (unit: Unit, skeleton: Skeleton | null, scene: Omit<Scene, 'skeletons'>): readonly Check[] => {
    const last = lasts.get(unit.id);
    if (last?.unit === unit && last.skeleton === skeleton && last.scene === scene) return last.checks;
    const skeletons = new Map(skeleton ? [[unit.id, skeleton]] : []);
    const checks = unitChecks(unit, { ...scene, skeletons }, rules);
    lasts.set(unit.id, { unit, skeleton, scene, checks });
    return checks;
  };
}

/** The same with a memory: a unit that did not change, in a room that did not, is not looked at again. */
export function createChecks(rules: readonly SceneRule[]): (scene: Scene, aside: readonly Aside[]) => readonly Check[] {
  // a unit's own checks see nothing of the other units
  const alone = memoLast(
    (
      people: Scene['people'],
      pets: Scene['pets'],
      inner: Scene['inner'],
      arches: Scene['arches'],
      openings: Scene['openings'],
      book: Scene['book'],
      families: Scene['families'],
      things: Scene['things'],
      stored: Scene['stored'],
      figures: Scene['figures'],
      step: Scene['step'],
    ): Omit<Scene, 'skeletons'> => ({
      step,
      units: [],
      people,
      pets,
      dens: [],
      inner,
      arches,
      openings,
      book,
      families,
      things,
      stored,
      fittings: [],
      runs: NO_RUNS,
      modes: [],
      limits: null,
      figures,
      masses: null,
      // these are looked at again for what is moved alone
      mending: true,
    }),
  );
  const each = createEach(rules);
  const sights = createSights();
  const room = memoLast(
    (scene: Scene) => roomChecks(scene, rules, scene.mending ? eachChecks : sights),
    ([a], [b]) => (Object.keys(a) as (keyof Scene)[]).every((key) => a[key] === b[key]),
  );
  const sorted = memoLast(
    (lists: readonly (readonly Check[])[], aside: readonly Aside[]) => withAside(worstFirst(...lists), aside),
    ([a, asideA], [b, asideB]) => a.length === b.length && a.every((list, i) => list === b[i]) && asideA === asideB,
  );
  return (scene, aside) => {
    const { units, people, pets, inner, arches, openings, book, families, things, stored, figures, skeletons, step } =
      scene;
    const one = alone(people, pets, inner, arches, openings, book, families, things, stored, figures, step);
    return sorted([...units.map((unit) => each(unit, skeletons.get(unit.id) ?? null, one)), room(scene)], aside);
  };
}
