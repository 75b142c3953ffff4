import type { Unit } from '../document/schema.js';

/** What stands for the name of a unit until it is said: its id between two characters that no name keeps. */
const MARK = '\u0001';
const tokenOf = (id: string): string => `${MARK}${id}${MARK}`;
const TOKEN = new RegExp(`${MARK}([^${MARK}]*)${MARK}`, 'gu');

/**
 * Units without their names, each the same one for as long as nothing else of it changes: what rules say of them need not be
 * found out again because one is called otherwise.
 */
export function createUnnamed(): (units: readonly Unit[]) => readonly Unit[] {
  const last = new Map<string, { readonly unit: Unit; readonly unnamed: Unit }>();
  const same = (a: Unit, b: Unit): boolean => {
    const keys = Object.keys(a) as (keyof Unit)[];
    return keys.length === Object.keys(b).length && keys.every((key) => key === 'name' || a[key] === b[key]);
  };
  return (units) => {
    const all = units.map((unit) => {
      const before = last.get(unit.id);
      if (before && (before.unit === unit || same(before.unit, unit))) return before.unnamed;
      const unnamed = { ...unit, name: tokenOf(unit.id) };
      last.set(unit.id, { unit, unnamed });
      return unnamed;
    });
    // what is gone is let go
    if (last.size > units.length) {
      const there = new Set(units.map(({ id }) => id));
      for (const id of last.keys()) if (!there.has(id)) last.delete(id);
    }
    return all;
  };
}

/** Puts names where a thing as plain data has what stands for them; it stays the same one where it has none. */
function withNames<T>(value: T, names: ReadonlyMap<string, string>): T {
  if (typeof value === 'string')
    return value.includes(MARK) ? (value.replace(TOKEN, (_, id: string) => names.get(id) ?? id) as T & string) : value;
  if (typeof value !== 'object' || value === null) return value;
  if (Array.isArray(value)) {
    const list = value as readonly unknown[];
    let named: unknown[] | null = null;
    for (let i = 0; i < list.length; i += 1) {
      const now = withNames(list[i], names);
      if (now !== list[i]) (named ??= [...list])[i] = now;
    }
    return (named ?? value) as T;
  }
  const changed: Record<string, unknown> = {};
  for (const [key, own] of Object.entries(value) as [string, unknown][]) {
    const now = withNames(own, names);
    if (now !== own) changed[key] = now;
  }
  return Object.keys(changed).length === 0 ? value : { ...value, ...changed };
}

/** Puts names into what was found out of units without, each thing again only when a name in it is another. */
export function createNaming<T extends object>(): (
  things: readonly T[],
  names: ReadonlyMap<string, string>,
) => readonly T[] {
  let known = new WeakMap<T, T>();
  let before: ReadonlyMap<string, string> | null = null;
  return (things, names) => {
    if (before !== names) known = new WeakMap();
    before = names;
    return things.map((thing) => {
      const named = known.get(thing) ?? withNames(thing, names);
      known.set(thing, named);
      return named;
    });
  };
}
