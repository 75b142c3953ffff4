import { standsAt, type Shadow } from '../document/body.js';
import type { Unit } from '../document/schema.js';
import { memoEach, memoLast } from '../numeric/memo.js';

const sameList = <T>([a]: readonly [readonly T[]], [b]: readonly [readonly T[]]): boolean =>
  a.length === b.length && a.every((item, i) => item === b[i]);

/** What the units are to what is round them, and of these the ones at each wall. */
export interface Shadows {
  readonly all: readonly Shadow[];
  readonly left: readonly Shadow[];
  readonly right: readonly Shadow[];
}

/**
 * Keeps a unit's shadow while it stands where it stood: a new name, another material or a shelf more is nothing to the
 * linings; and the list of a wall while nothing at that wall moves.
 */
export function createShadows(): (units: readonly Unit[]) => Shadows {
  const one = memoEach(
    (id: string) => id,
    (id: string, body: Unit['body'], meets: Unit['meets'], options: Unit['options']): Shadow => ({
      id,
      body,
      meets,
      options,
    }),
  );
  const keep = (): ((list: readonly Shadow[]) => readonly Shadow[]) =>
    memoLast((list: readonly Shadow[]) => list, sameList);
  const [all, left, right] = [keep(), keep(), keep()];
  const known = new WeakMap<Unit, Shadow>();
  const shadowOf = (unit: Unit): Shadow => {
    const before = known.get(unit);
    if (before) return before;
    const shadow = one(unit.id, unit.body, unit.meets, unit.options);
    known.set(unit, shadow);
    return shadow;
  };
  return (units) => {
    const shadows = units.map(shadowOf);
    return {
      all: all(shadows),
      left: left(shadows.filter((unit) => standsAt(unit, 'left'))),
      right: right(shadows.filter((unit) => standsAt(unit, 'right'))),
    };
  };
}
