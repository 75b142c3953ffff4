import type { PriceBook, Project, Unit } from '../document/schema.js';
import { frontLineOf } from '../document/body.js';
import { familyNamed } from '../document/kit.js';
import { cutOn } from '../cutting/plan/planned.js';
import { litresIn } from '../furniture/slid-inside.js';
import { behindGlass, sideOf } from '../layout/behind-glass.js';
import { isOpen } from '../layout/checks/checks.js';
import { narrowestWay } from '../layout/checks/room.js';
import { message, mm, type Message } from '../words/message.js';
import type { Derived } from './derived.js';
import { createDeriver } from './derive.js';
import { DERIVE_KIT, type DeriveKit } from './kit.js';
import { sceneOf } from './scene-of.js';

/** What one layout comes to, for a row beside others. Lengths in mm, masses in kg, money in minor units. */
export interface LayoutFigures {
  readonly fails: number;
  readonly tight: number;
  /** What each sleeper has beyond good, the least of length, sitting up and edge. */
  readonly comfort: readonly { readonly person: string; readonly name: string; readonly spare: number }[];
  /** Litres in bays below 900, to 1 400, and above. */
  readonly storage: { readonly low: number; readonly middle: number; readonly high: number };
  readonly worktop: number;
  readonly way: number | null;
  readonly kg: number;
  readonly cost: number;
  readonly hours: number;
  readonly sheets: number;
  /** Share of the glass that stays free. */
  readonly glass: number | null;
}

/** The figures of a layout as it was derived. */
export function layoutFigures(
  project: Project,
  derived: Derived,
  kit: Pick<DeriveKit, 'families'>,
  book: PriceBook,
): LayoutFigures {
  const { checks } = derived;
  const bays = derived.made.flatMap(({ skeleton }) =>
    (skeleton?.bays ?? []).map((place) => ({ ...place, litres: litresIn(place, skeleton?.boards ?? []) })),
  );
  const floor = derived.inner?.floor ?? 0;
  const litres = (from: number, to: number): number =>
    bays
      .filter(({ bay: { holds } }) => holds.kind !== 'thing' && holds.kind !== 'chase')
      // where something is built in nothing is stored
      .filter(({ bay: { holds } }) => holds.kind !== 'pull-out' || holds.thing === null)
      .filter(({ room }) => (room.z0 + room.z1) / 2 - floor >= from && (room.z0 + room.z1) / 2 - floor < to)
      .reduce((sum, one) => sum + one.litres, 0);
  const scene = sceneOf(project, derived, book, kit.families);
  const windows = (scene?.openings ?? []).filter(
    (placed) => placed.opening.kind === 'window' && sideOf(placed) !== null,
  );
  return {
    fails: checks.filter(isOpen).length,
    tight: checks.filter(({ grade, aside }) => grade === 'tight' && aside === null).length,
    comfort: project.people.flatMap((person) => {
      const own = checks.filter(
        (check) => check.person === person.id && ['bed-length', 'sitting-up', 'bed-edge'].includes(check.rule),
      );
      const spares = own.flatMap(({ spare }) => (spare === null ? [] : [spare]));
      return spares.length === 0 ? [] : [{ person: person.id, name: person.name, spare: Math.min(...spares) }];
    }),
    storage: { low: litres(-Infinity, 900), middle: litres(900, 1400), high: litres(1400, Infinity) },
    worktop: project.layout.units
      .filter((unit) => familyNamed(kit.families, unit.family)?.worksAt?.(unit) === true && frontLineOf(unit) !== null)
      .reduce((sum, unit) => sum + unit.body.length, 0),
    way: (scene && narrowestWay(scene, 'hip')?.width) ?? null,
    kg: derived.weight.added,
    cost: derived.shopping.total,
    hours: derived.schedule.tasks.reduce((sum, { task }) => sum + task.minutes, 0) / 60,
    sheets: derived.plans
      .filter(({ job }) => job.kind === 'sheet')
      .reduce((sum, { plan }) => sum + plan.sheets.length, 0),
    glass:
      scene && windows.length > 0
        ? 1 - windows.reduce((sum, placed) => sum + behindGlass(placed, scene).share, 0) / windows.length
        : null,
  };
}

/** What is another thing in two layouts, unit by unit. */
export function layoutDifferences(a: readonly Unit[], b: readonly Unit[]): readonly Message[] {
  const find = (list: readonly Unit[], id: string): Unit | undefined => list.find((unit) => unit.id === id);
  return [
    ...a.flatMap((unit) => {
      const other = find(b, unit.id);
      if (!other) return [message('differs.gone', { name: unit.name })];
      const said: Message[] = [];
      if (unit.body.x !== other.body.x)
        said.push(message('differs.x', { name: unit.name, from: mm(unit.body.x), to: mm(other.body.x) }));
      if (unit.body.length !== other.body.length)
        said.push(
          message('differs.length', { name: unit.name, from: mm(unit.body.length), to: mm(other.body.length) }),
        );
      if (unit.body.to !== other.body.to)
        said.push(message('differs.height', { name: unit.name, from: mm(unit.body.to), to: mm(other.body.to) }));
      if (unit.body.stands !== other.body.stands) said.push(message('differs.side', { name: unit.name }));
      const [f, g] = [frontLineOf(unit), frontLineOf(other)];
      if (f && g && f.front !== g.front)
        said.push(message('differs.front', { name: unit.name, from: mm(f.front), to: mm(g.front) }));
      if (JSON.stringify(unit.division) !== JSON.stringify(other.division))
        said.push(message('differs.inside', { name: unit.name }));
      return said;
    }),
    ...b.filter((unit) => !find(a, unit.id)).map((unit) => message('differs.new', { name: unit.name })),
  ];
}

/** What of the work already done a change of layout touches. */
export interface KnockOn {
  /** Parts already cut that are wanted no more, or in another size. */
  readonly cut: readonly string[];
  /** Holes and fittings of the walls that a unit comes to stand before. */
  readonly fittings: readonly string[];
  /** Tasks that come or go. */
  readonly tasks: readonly string[];
  /** What is bought in another number: so many before, so many then; what it is bought by is its own measure. */
  readonly buys: readonly {
    readonly name: string;
    readonly size: Message;
    readonly from: number;
    readonly to: number;
  }[];
}

/** Lines of the shopping of which another number is bought. */
function boughtOtherwise(before: Derived, after: Derived): KnockOn['buys'] {
  const lines = [...before.shopping.lines, ...after.shopping.lines];
  const ids = [...new Set(lines.map(({ id }) => id))];
  const number = ({ shopping }: Derived, id: string): number =>
    shopping.lines.find((line) => line.id === id)?.quantity ?? 0;
  return ids.flatMap((id) => {
    const [from, to] = [number(before, id), number(after, id)];
    const line = lines.find((one) => one.id === id);
    return from === to || !line ? [] : [{ name: line.name, size: line.size, from, to }];
  });
}

/** Parts, fittings, tasks and purchases that differ between two derivations of one vehicle. */
export function knockOnOf(project: Project, before: Derived, after: Derived): KnockOn {
  const done = new Set(project.keptPlans.flatMap(({ sheets }) => sheets.flatMap(cutOn)));
  const sizes = (derived: Derived): Map<string, string> =>
    new Map(derived.parts.map((part) => [part.id, JSON.stringify([part.material, part.outline])]));
  const [was, is] = [sizes(before), sizes(after)];
  const ids = (derived: Derived): Set<string> => new Set(derived.schedule.tasks.map(({ task }) => task.id));
  const [tasksBefore, tasksAfter] = [ids(before), ids(after)];
  const covers = (derived: Derived, x: number, side: string): boolean =>
    derived.made.some(({ skeleton }) =>
      (skeleton?.bays ?? []).some(
        ({ room, into }) => x > room.x0 && x < room.x1 && (into < 0 ? 'left' : 'right') === side,
      ),
    );
  return {
    cut: [...done].filter((part) => was.has(part) && was.get(part) !== is.get(part)),
    fittings: project.fittings
      .filter(({ x, surface }) => covers(before, x, surface) !== covers(after, x, surface))
      .map(({ name }) => name),
    tasks: [
      ...[...tasksBefore].filter((id) => !tasksAfter.has(id)),
      ...[...tasksAfter].filter((id) => !tasksBefore.has(id)),
    ],
    buys: boughtOtherwise(before, after),
  };
}

/** What one layout comes to, beside the one that stands: its variant's id, null for the one that stands. */
export interface LayoutCase {
  readonly id: string | null;
  readonly figures: LayoutFigures;
  readonly differences: readonly Message[];
  readonly touches: KnockOn | null;
}

/** The layout that stands and every one that is kept, each derived as a whole. */
export function layoutCases(project: Project, book: PriceBook, kit: DeriveKit = DERIVE_KIT): readonly LayoutCase[] {
  const deriver = createDeriver(kit);
  const standing = deriver.pull(project, book);
  return [
    { id: null, figures: layoutFigures(project, standing, kit, book), differences: [], touches: null },
    ...(project.variants ?? []).map(({ id, layout }): LayoutCase => {
      const other = { ...project, layout };
      const derived = deriver.pull(other, book);
      return {
        id,
        figures: layoutFigures(other, derived, kit, book),
        differences: layoutDifferences(project.layout.units, layout.units),
        touches: knockOnOf(project, standing, derived),
      };
    }),
  ];
}
