import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import bulrushFile from '../../../../demo/bulrush.json?raw';
import thimbleFile from '../../../../demo/thimble.json?raw';
import wrenFile from '../../../../demo/wren.json?raw';
import { derive } from '../derive/derive.js';
import type { Derived } from '../derive/derived.js';
import type { Project } from '../document/schema.js';
import { readProjectFile } from '../formats/read.js';
import { shareOut } from './shopping.js';

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
  for (const { held, caulk } of lined.linings) {
    for (const { fixing, count } of held) add(fixing.pick?.id, count);
    add('caulk', caulk.millilitres < 1 ? 0 : caulk.millilitres);
  }
  add(lined.doors.held?.fixing.pick?.id, lined.doors.held?.count ?? 0);
  for (const { items } of lined.boxesHeld) for (const { item, amount } of items) add(item, amount);
  for (const { hardware } of made) for (const { item, amount } of hardware) add(item, amount);
  return need;
}
/** Fasteners, brackets and adhesives. */
const isFixing = (id: string): boolean => /^(screws|metal|brads|bracket)-|^(floor-glue|wood-glue|caulk)$/.test(id);
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

describe('one need, one list', () => {
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
