import { baysOf, withBay } from './body.js';
import { familyNamed, type DocumentKit } from './kit.js';
import type { Bay, Layout, Mode, Project, Run, Unit } from './schema.js';

/** The thing a bay holds, by its id; null where it holds none. */
export function thingIn({ holds }: Bay): string | null {
  return holds.kind === 'thing' || holds.kind === 'pull-out' ? holds.thing : null;
}

/** The things a unit speaks of: in its bays and in its fields. */
export function thingsOf(unit: Unit, kit: Pick<DocumentKit, 'families'>): readonly string[] {
  const family = familyNamed(kit.families, unit.family);
  return [
    ...baysOf(unit.division).flatMap((bay) => thingIn(bay) ?? []),
    ...(family?.fields ?? [])
      .filter((field) => field.kind === 'thing')
      .flatMap((field) => {
        const value = field.get(unit);
        return typeof value === 'string' && value !== '' ? [value] : [];
      }),
  ];
}

/** A unit with a bay's thing taken out. */
const withoutThing = (unit: Unit, thing: string): Unit =>
  baysOf(unit.division)
    .filter((bay) => thingIn(bay) === thing)
    .reduce(
      (changed, bay) => ({
        ...changed,
        division: withBay(changed.division, bay.name, (own) => ({
          ...own,
          holds: own.holds.kind === 'pull-out' ? { ...own.holds, thing: null } : { kind: 'open' },
        })),
      }),
      unit,
    );

/** A unit without people who are not there any more. */
export function withoutPeople(unit: Unit, kit: Pick<DocumentKit, 'families'>, gone: (person: string) => boolean): Unit {
  return (familyNamed(kit.families, unit.family)?.fields ?? [])
    .filter((field) => field.kind === 'people')
    .reduce((changed, field) => {
      const had = field.get(changed);
      return Array.isArray(had) && had.some(gone)
        ? field.set(
            changed,
            had.filter((person) => !gone(person)),
          )
        : changed;
    }, unit);
}

/** A layout that was kept, as it can stand now: without people, animals and things that are not in the project any more. */
export function asItCanStand(layout: Layout, project: Project, kit: Pick<DocumentKit, 'families'>): Layout {
  const people = new Set(project.people.map(({ id }) => id));
  const things = new Set((project.things ?? []).map(({ id }) => id));
  const pets = new Set((project.pets ?? []).map(({ id }) => id));
  return {
    ...layout,
    ...(layout.dens ? { dens: layout.dens.filter(({ pet }) => pets.has(pet)) } : {}),
    units: layout.units.map((unit) =>
      thingsOf(unit, kit)
        .filter((thing) => !things.has(thing))
        .reduce(
          withoutThing,
          withoutPeople(unit, kit, (person) => !people.has(person)),
        ),
    ),
  };
}

/** A mode without what it says of a unit that is taken out. */
export function forgetStates(mode: Mode, unit: string): void {
  mode.states = Object.fromEntries(Object.entries(mode.states).filter(([name]) => !name.startsWith(`${unit}.`)));
}

/** A run that ended in a unit that is taken out ends nowhere until somebody says where. */
export function forgetEnds(run: Run, unit: string): void {
  for (const end of ['from', 'to'] as const) {
    const own = run[end];
    if (own && 'unit' in own && own.unit === unit) run[end] = null;
  }
}

/** What is kept of a unit elsewhere goes with it: what is kept in its bays, wishes tied to it. */
export function forgetUnit(draft: Project, unit: string): void {
  for (const stored of draft.stored ?? []) if (stored.kept?.unit === unit) stored.kept = null;
  for (const wish of draft.wishes ?? []) if (wish.unit === unit) wish.unit = null;
}
