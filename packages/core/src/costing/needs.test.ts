import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import bulrushFile from '../../../../demo/bulrush.json?raw';
import thimbleFile from '../../../../demo/thimble.json?raw';
import wrenFile from '../../../../demo/wren.json?raw';
import { derive } from '../derive/again.fixture.js';
import { createDeriver } from '../derive/derive.js';
import { liningOn } from '../document/create.js';
import type { Derived } from '../derive/derived.js';
import type { PriceBook, Project } from '../document/schema.js';
import { FLOOR_SCHOOLS, LINING_SCHOOLS, WALL_SCHOOLS, wholeSchool } from '../layers/schools.js';
import { readProjectFile } from '../formats/read.js';
import { FAMILIES } from '../furniture/families/index.js';
import { shareOut } from './shopping.js';

/** How many builds are drawn. */
const DRAWN = 60;

const files = [wrenFile, bulrushFile, thimbleFile].map(readProjectFile);

/** Every counted fixing and adhesive that a drawing, a check or a panel states, by what it is called in the price book. */
function stated({ floor, lined, made, fixings }: Derived): Map<string, number> {
  const need = new Map<string, number>();
  const add = (item: string | null | undefined, amount: number): void => {
    if (item && amount > 0) need.set(item, (need.get(item) ?? 0) + amount);
  };
  add(fixings.find(({ surface }) => surface === 'floor')?.pick?.id, floor.screws.length);
  add('floor-glue', floor.glue?.millilitres ?? 0);
  for (const { screws, picked, glue } of floor.upper) {
    add(picked?.item?.id, screws.length);
    add('floor-glue', glue?.millilitres ?? 0);
  }
  add(floor.trims?.picked?.item?.id, floor.trims?.count ?? 0);
  for (const { held, caulk, glue } of lined.linings) {
    add('floor-glue', glue.millilitres);
    for (const { fixing, count } of held) add(fixing.pick?.id, count);
    add('caulk', caulk.millilitres < 1 ? 0 : caulk.millilitres);
  }
  add(lined.doors.held?.fixing.pick?.id, lined.doors.held?.count ?? 0);
  for (const { items } of lined.boxesHeld) for (const { item, amount } of items) add(item, amount);
  for (const { hardware } of made) for (const { item, amount } of hardware) add(item, amount);
  return need;
}
/** Fasteners, brackets and adhesives. */
const isFixing = (id: string): boolean =>
  /^(screws|metal|brads|bracket|hinge|catch|strap|stay|channel|strut|slides)-|^(floor-glue|wood-glue|caulk)$/.test(id);
const ways: readonly ((project: Project) => Project)[] = [
  (project) => project,
  (project) => ({
    ...project,
    boxes: { ...project.boxes, arches: project.survey.arches.map(({ id }) => id), board: 'birch-15' },
    floor: { ...project.floor, doorTrims: true, keepBack: 25 },
  }),
  (project) => ({
    ...project,
    floor: { ...project.floor, fixing: 'glued' },
    linings: Object.fromEntries(
      Object.entries(project.linings).map(([surface, lining]) => [
        surface,
        { ...lining, removable: true, covered: true },
      ]),
    ),
  }),
];

/** A way to build one of the vehicles, drawn: schools, finish, what comes off, which boxes, where units stand. */
const drawnBuild = fc
  .record({
    vehicle: fc.constantFrom(...files),
    moisture: fc.constantFrom(...WALL_SCHOOLS),
    lining: fc.constantFrom(...LINING_SCHOOLS),
    floor: fc.constantFrom(...FLOOR_SCHOOLS),
    own: fc.boolean(),
    removable: fc.boolean(),
    covered: fc.boolean(),
    gap: fc.constantFrom(0, 1, 3),
    finish: fc.constantFrom('everywhere' as const, 'seen' as const),
    fixing: fc.constantFrom('screwed' as const, 'glued' as const, 'loose' as const),
    doorTrims: fc.boolean(),
    arches: fc.boolean(),
    moved: fc.integer({ min: -60, max: 60 }),
    meets: fc.constantFrom('lining' as const, 'shell' as const),
  })
  .map((drawn): { readonly project: Project; readonly priceBook: PriceBook } => {
    const { project, priceBook } = drawn.vehicle;
    const { removable, covered, gap, finish, fixing, doorTrims } = drawn;
    return {
      priceBook,
      project: {
        ...project,
        keptPlans: [],
        settings: { ...project.settings, floorMeets: drawn.meets },
        buildUps: drawn.own ? project.buildUps : { ...project.buildUps, ...wholeSchool(drawn, priceBook) },
        linings: Object.fromEntries(
          (['left', 'right', 'ceiling'] as const).map((surface) => [
            surface,
            { ...liningOn(project.linings, surface), removable, covered, gap },
          ]),
        ),
        floor: { ...project.floor, finish, fixing, doorTrims },
        boxes: { ...project.boxes, arches: drawn.arches ? project.survey.arches.map(({ id }) => id) : [] },
        layout: {
          ...project.layout,
          units: project.layout.units.map((unit) => ({
            ...unit,
            body: { ...unit.body, x: Math.max(0, unit.body.x + drawn.moved) },
          })),
        },
      },
    };
  });

describe('one need, one list', () => {
  it('holds for builds drawn at random: what is stated is bought and nothing else, and sums agree', () => {
    const deriver = createDeriver();
    fc.assert(
      fc.property(drawnBuild, ({ project, priceBook }) => {
        const derived = deriver.pull(project, priceBook);
        const need = stated(derived);
        const bought = new Map(
          derived.shopping.lines
            .filter(({ material }) => isFixing(material))
            .map((line) => [line.material, line.amount]),
        );
        expect([...bought.keys()].sort()).toEqual([...need.keys()].sort());
        for (const [item, amount] of need) expect([item, bought.get(item)]).toEqual([item, expect.closeTo(amount, 6)]);
        for (const { shares, total, id } of derived.shopping.lines)
          expect([id, shares.reduce((sum, share) => sum + share.money, 0)]).toEqual([id, total]);
        const { lines, byPhase, total } = derived.shopping;
        expect(byPhase.reduce((sum, phase) => sum + phase.total, 0)).toBe(total);
        expect(lines.reduce((sum, line) => sum + line.total, 0)).toBe(total);
      }),
      { numRuns: DRAWN, seed: 12 },
    );
  }, 120_000);
  it('tells what is left of sheets and lengths as the cut plan leaves it, the largest first', () => {
    for (const { project, priceBook } of files) {
      const { shopping, plans } = derive(project, priceBook);
      const left = shopping.lines.flatMap(({ offcuts }) => offcuts ?? []);
      expect(left.length).toBe(plans.flatMap(({ plan }) => plan.sheets.flatMap((sheet) => sheet.offcuts)).length);
      for (const { offcuts, unit } of shopping.lines) {
        if (unit === 'pack') expect(offcuts).toBeUndefined();
        const areas = (offcuts ?? []).map(({ length, width }) => length * width);
        expect(areas).toEqual([...areas].sort((a, b) => b - a));
      }
    }
  });
  it('tells when hardly anything is over of what is sold in packs', () => {
    for (const { project, priceBook } of files)
      for (const line of derive(project, priceBook).shopping.lines) {
        const { left } = line;
        const item = priceBook.items.find(({ id }) => id === line.material);
        const sheet = item?.stocks[0];
        const contents = item?.pack?.contents ?? (sheet ? (sheet.length * sheet.width) / 1e6 : 0);
        if (left === null) expect(line.low).toBe(false);
        else if (item?.pack)
          expect([line.id, line.low]).toEqual([line.id, left < 0.05 * (line.quantity * contents - left)]);
      }
  });
  it('buys every fixing and adhesive that is stated, and no other', () => {
    for (const { project, priceBook } of files)
      for (const way of ways) {
        const derived = derive(way(project), priceBook);
        const need = stated(derived);
        const bought = new Map(
          derived.shopping.lines
            .filter(({ material }) => isFixing(material))
            .map((line) => [line.material, line.amount]),
        );
        expect([...bought.keys()].sort()).toEqual([...need.keys()].sort());
        for (const [item, amount] of need) expect([item, bought.get(item)]).toEqual([item, expect.closeTo(amount, 6)]);
      }
  });

  it('rounds packs up once over the whole build, and tells what is left of the last one', () => {
    for (const { project, priceBook } of files) {
      const { shopping } = derive(project, priceBook);
      const packed = shopping.lines.filter(({ left }) => left !== null);
      expect(new Set(packed.map(({ material }) => material)).size).toBe(packed.length);
      for (const line of packed) {
        const pack = priceBook.items.find(({ id }) => id === line.material)?.pack;
        expect(line.left).toBeGreaterThanOrEqual(-1e-6);
        // never a whole pack too many
        if (pack) expect(line.left).toBeLessThan(pack.contents);
      }
    }
  });

  it('adds up by place, by phase and in all', () => {
    for (const { project, priceBook } of files) {
      const { shopping } = derive(project, priceBook);
      for (const { shares, amount, total, id } of shopping.lines) {
        expect([id, shares.reduce((sum, share) => sum + share.money, 0)]).toEqual([id, total]);
        expect([id, shares.reduce((sum, share) => sum + share.amount, 0)]).toEqual([id, expect.closeTo(amount, 6)]);
      }
      expect(shopping.byPhase.reduce((sum, phase) => sum + phase.total, 0)).toBe(shopping.total);
    }
  });
});

describe('money shared out', () => {
  it('adds up to the penny, and no share is off by more than one', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 100_000 }),
        fc.array(fc.float({ min: 0, max: 1000, noNaN: true }), { minLength: 1, maxLength: 12 }),
        (total, weights) => {
          const shares = shareOut(total, weights);
          const sum = weights.reduce((all, weight) => all + weight, 0);
          expect(shares.reduce((all, share) => all + share, 0)).toBe(total);
          for (const [i, share] of shares.entries())
            expect(
              Math.abs(share - (sum > 0 ? (total * (weights[i] ?? 0)) / sum : total / weights.length)),
            ).toBeLessThan(1 + 1e-6);
        },
      ),
      { seed: 12 },
    );
  });
});

describe('the rails of a bed that hangs on them', () => {
  it('are bought in as many bars as their pieces are cut from, and nothing is added for waste', () => {
    const { project, priceBook } = readProjectFile(wrenFile);
    const empty: Project = { ...project, layout: { units: [] }, stored: [], wishes: [], variants: [] };
    const room = derive(empty, priceBook).inner;
    const family = FAMILIES.find(({ id }) => id === 'bed-on-rails');
    if (!room || !family) throw new Error('there is a room, and such a bed');
    const bed = family.start({
      id: 'u',
      name: 'Bed',
      layout: empty.layout,
      people: empty.people,
      room,
      book: priceBook,
    });
    const { shopping, made } = derive({ ...empty, layout: { units: [bed] } }, priceBook);
    const bearers = (made[0]?.skeleton?.boards ?? []).filter(({ role }) => role === 'bearer').length;
    // its boards lie at 700: four rails of 688 from the floor, two from a bar of 2 m; and four of 473 on the arches, from one
    expect([bed.body.to, bearers]).toEqual([700, 4]);
    const bought = (id: string) => shopping.lines.find(({ material }) => material === id);
    expect(bought('wall-rail')).toMatchObject({ amount: 6, quantity: 3, unit: 'bar' });
    expect(bought('rail-bracket')).toMatchObject({ amount: 8, quantity: 4 });
  });
});
