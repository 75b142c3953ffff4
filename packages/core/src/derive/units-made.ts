import type { PriceBook, Run, Stored, Thing, Unit } from '../document/schema.js';
import { makeUnit, withSkeleton, type MadeUnit } from '../furniture/make.js';
import { bored, NO_RUNS, runsOf, type RunHole, type RunsMade } from '../furniture/runs.js';
import { memoLast } from '../numeric/memo.js';
import type { ArchShape } from '../shell/arch.js';
import type { Shell } from '../shell/shell.js';
import type { DeriveKit } from './kit.js';
import { skeletonsOf } from './scene-of.js';

/** A unit is made again when anything but its name changes; its name too while there is something to say of it. */
function createUnitMaker(
  kit: DeriveKit,
): (
  unit: Unit,
  inner: Shell,
  arches: readonly ArchShape[],
  book: PriceBook,
  things: readonly Thing[],
  stored: readonly Stored[],
) => MadeUnit {
  interface Last {
    readonly unit: Unit;
    readonly inner: Shell;
    readonly arches: readonly ArchShape[];
    readonly book: PriceBook;
    readonly things: readonly Thing[];
    readonly kept: readonly Stored[];
    readonly made: MadeUnit;
  }
  const memory = new Map<string, Last>();
  return (unit, inner, arches, book, things, stored) => {
    const last = memory.get(unit.id);
    const own = stored.filter(({ kept }) => kept?.unit === unit.id);
    // goods that are the same make the same
    const kept = last?.kept.length === own.length && own.every((one, i) => one === last.kept[i]) ? last.kept : own;
    const same =
      last !== undefined &&
      last.inner === inner &&
      last.arches === arches &&
      last.book === book &&
      last.things === things &&
      last.kept === kept &&
      (unit === last.unit ||
        (Object.keys(unit) as (keyof Unit)[]).every(
          (key) => unit[key] === last.unit[key] || (key === 'name' && last.made.problems.length === 0),
        ));
    if (same && unit === last.unit) return last.made;
    const made = same
      ? last.made
      : makeUnit(unit, { inner, arches, book, things, stored: kept }, kit.families, kit.schools);
    memory.set(unit.id, { unit, inner, arches, book, things, kept, made });
    return made;
  };
}

/** A unit with the holes of what runs through it: bored again when it or its holes change. */
function createBorer(
  kit: DeriveKit,
): (unit: Unit, made: MadeUnit, holes: readonly RunHole[], book: PriceBook) => MadeUnit {
  const memory = new Map<string, { readonly made: MadeUnit; readonly key: string; readonly result: MadeUnit }>();
  return (unit, made, holes, book) => {
    const own = holes.filter((hole) => hole.unit === unit.id);
    if (own.length === 0 || !made.skeleton) return made;
    const key = JSON.stringify(own);
    const last = memory.get(unit.id);
    if (last?.made === made && last.key === key) return last.result;
    const result = withSkeleton(unit, made, bored(made.skeleton, own), book, kit.schools);
    memory.set(unit.id, { made, key, result });
    return result;
  };
}

interface UnitsMade {
  readonly made: readonly MadeUnit[];
  readonly runs: RunsMade;
}
const NOTHING: UnitsMade = { made: [], runs: NO_RUNS };

/** Every unit made, and everything that runs through them: first the boards, then the runs, then the holes in the boards. */
export function createUnitsMade(
  kit: DeriveKit,
): (
  units: readonly Unit[],
  runs: readonly Run[],
  inner: Shell | null,
  arches: readonly ArchShape[],
  book: PriceBook,
  things: readonly Thing[],
  stored: readonly Stored[],
) => UnitsMade {
  const unitMade = createUnitMaker(kit);
  const plain = memoLast(
    (made: readonly MadeUnit[]) => made,
    ([a], [b]) => a.length === b.length && a.every((unit, i) => unit === b[i]),
  );
  const laid = memoLast(
    (runs: readonly Run[], made: readonly MadeUnit[], things: readonly Thing[], inner: Shell): RunsMade =>
      runsOf({ runs, skeletons: skeletonsOf(made), things, inner }),
  );
  const boreUnit = createBorer(kit);
  const together = memoLast(
    (made: readonly MadeUnit[], runs: RunsMade): UnitsMade => ({ made, runs }),
    ([a, runsA], [b, runsB]) => runsA === runsB && a.length === b.length && a.every((unit, i) => unit === b[i]),
  );
  return (units, runs, inner, arches, book, things, stored) => {
    if (!inner) return NOTHING;
    const made = plain(units.map((unit) => unitMade(unit, inner, arches, book, things, stored)));
    if (runs.length === 0) return together(made, NO_RUNS);
    const now = laid(runs, made, things, inner);
    return together(
      units.flatMap((unit, i) => {
        const own = made[i];
        return own ? [boreUnit(unit, own, now.holes, book)] : [];
      }),
      now,
    );
  };
}
