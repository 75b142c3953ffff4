import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import type { KeptPlan, KeptSheet, PriceItem } from '../../document/schema.js';
import { startPriceBook } from '../../materials/start-book.js';
import { movePart, placesFor, sawnAgain } from './by-hand.js';
import { merchantCuts } from './carrying.js';
import { keepingFirst, keptFrom, keptNow, planMaterial, type MaterialPlan } from './cutting-room.js';
import { fenceOrder, secondsPerCut, USUAL_CUT_SECONDS } from './fence.js';
import { cutJobSchema, type CutJob } from '../job/job.js';
import { solveJob } from '../engine/search.js';
import { needs, stepsOf } from './steps.js';
import { rectangle } from '../../numeric/plane.js';
import type { Part } from '../../parts/part.js';
import { planFaults } from '../job/verify.js';

const found = startPriceBook().items.find((item) => item.id === 'birch-15');
if (!found) throw new Error('The start price book has no birch of 15.');
const material: PriceItem = found;

const jobOf = (parts: Partial<CutJob['parts'][number]>[]): CutJob =>
  cutJobSchema.parse({
    format: 'cut-job',
    version: 1,
    kind: 'sheet',
    kerf: 3,
    trim: 10,
    stock: [{ id: 'full', length: 2500, width: 1250, quantity: null, price: 6000, offcut: false }],
    parts,
  });
const PARTS = [
  { id: 'a', length: 1200, width: 600 },
  { id: 'b', length: 1200, width: 600 },
  { id: 'c', length: 1200, width: 600 },
  { id: 'd', length: 1200, width: 600 },
  { id: 'e', length: 700, width: 400 },
  { id: 'f', length: 500, width: 300 },
];
const first = (job: CutJob) => solveJob(job, { steps: 40 });
const plan = (parts: typeof PARTS, kept?: KeptPlan, offcuts: Parameters<typeof planMaterial>[2] = []): MaterialPlan =>
  planMaterial({ material, job: jobOf(parts), key: '', waiting: [] }, kept, offcuts, 100, first);
const holder = (item: MaterialPlan, part: string) =>
  item.sheets.find((sheet) => sheet.placements.some((placed) => placed.part === part && !placed.spoiled));
const resized = (id: string, length: number) => PARTS.map((part) => (part.id === id ? { ...part, length } : part));
/** The plan with some steps of a sheet done. */
function sawn(item: MaterialPlan, sheet: string, steps: number): KeptPlan {
  const kept = keptNow(item);
  return {
    ...kept,
    sheets: kept.sheets.map((own) =>
      own.id === sheet
        ? {
            ...own,
            done: stepsOf(own)
              .slice(0, steps)
              .map((step) => step.name),
          }
        : own,
    ),
  };
}

describe('a kept plan', () => {
  it('stands while its parts are the same', () => {
    const item = plan(PARTS);
    expect(item).toMatchObject({ state: 'first', plan: { cost: 12000, proved: true } });
    const again = plan(PARTS, keptNow(item));
    expect(again.state).toBe('kept');
    expect(again.sheets).toEqual(item.sheets);
    expect(planFaults(item.job, again.plan)).toEqual([]);
  });

  it('is laid out anew only on sheets with changed parts', () => {
    const item = plan(PARTS);
    const changed = plan(resized('e', 650), keptNow(item));
    const before = holder(item, 'e')?.id;
    expect(changed.state).toBe('mended');
    for (const sheet of item.sheets)
      if (sheet.id !== before) expect(changed.sheets.find((own) => own.id === sheet.id)).toEqual(sheet);
    expect(planFaults(changed.job, changed.plan)).toEqual([]);
  });

  it('never rearranges a sheet that is begun, and says what no longer fits', () => {
    const item = plan(PARTS);
    const sheet = holder(item, 'a');
    if (!sheet) throw new Error('a lies nowhere');
    const kept = sawn(item, sheet.id, 99);
    const changed = plan(resized('a', 1207), kept);
    const now = changed.sheets.find((own) => own.id === sheet.id);
    expect(now?.placements).toEqual(sheet.placements);
    expect(now?.cut).toContain('a');
    expect(changed.conflicts).toEqual([{ part: 'a', short: { length: 7, width: 0 } }]);
    // no saw is better than that
    expect(plan(resized('a', 1200.4), kept).conflicts).toEqual([]);
    expect(plan(resized('a', 1199.4), kept).conflicts).toHaveLength(1);
    const gone = plan(
      PARTS.filter((part) => part.id !== 'a'),
      kept,
    );
    expect(gone.conflicts).toEqual([{ part: 'a', short: null }]);
  });

  it('keeps what was drawn on a part when it was sawn, and says how it is drawn since', () => {
    const drawn = (id: string, holes: Part['outline']['holes']): Part => ({
      id,
      role: 'side',
      number: 1,
      unit: null,
      material: 'birch-12',
      thickness: 12,
      outline: { outer: rectangle(0, 0, 1200, 600), holes },
      grain: true,
      edges: [],
      place: { origin: [0, 0, 0], along: [1, 0, 0], across: [0, 1, 0], thick: [0, 0, 1] },
    });
    const withHole = (x: number): readonly Part[] =>
      ['a', 'b', 'c', 'd'].map((id) => drawn(id, [rectangle(x, 200, x + 100, 300)]));
    const item = plan(PARTS);
    const sheet = holder(item, 'a')?.id ?? '';
    const [keep] = keepingFirst(item, keptNow(item), { sheet, parts: withHole(500) });
    if (keep?.name !== 'keepPlan') throw new Error('it is kept with what is drawn');
    const cut = keep.payload as KeptPlan;
    const all = {
      ...cut,
      sheets: cut.sheets.map((own) =>
        own.id === sheet ? { ...own, done: stepsOf(own).map((step) => step.name) } : own,
      ),
    };
    const now = (parts: readonly Part[], sizes = PARTS) =>
      planMaterial({ material, job: jobOf(sizes), key: '', waiting: [] }, all, [], 100, first, parts).conflicts;
    const told = (found: ReturnType<typeof now>) => found.find(({ part }) => part === 'a');
    expect(now(withHole(500))).toEqual([]);
    // a hole that a saw would not tell from where it was
    expect(now(withHole(500.3))).toEqual([]);
    expect(told(now(withHole(512)))).toMatchObject({ short: { length: 0, width: 0 }, shape: { openings: 12 } });
    const more = withHole(500).map((part) => ({
      ...part,
      outline: { ...part.outline, holes: [...part.outline.holes, rectangle(50, 50, 80, 80)] },
    }));
    expect(told(now(more))).toMatchObject({ shape: { was: 1, now: 2 } });
    // where its size is another one this is said, once
    const both = now(withHole(512), resized('a', 1207)).filter(({ part }) => part === 'a');
    expect(both).toEqual([{ part: 'a', short: { length: 7, width: 0 } }]);
    // what is kept stays what was sawn, also when the next sheet is kept
    const after = planMaterial(
      { material, job: jobOf(PARTS), key: '', waiting: [] },
      all,
      [],
      100,
      first,
      withHole(512),
    );
    const again = keptNow(after, { sheet, parts: withHole(512) });
    const shapeOn = (of: KeptPlan) =>
      of.sheets.flatMap(({ placements }) => placements).find(({ part }) => part === 'a')?.shape;
    expect(shapeOn(again)).toEqual(shapeOn(all));
    expect(shapeOn(all)).toHaveLength(2);
    // a sheet that is not sawn yet is kept without
    const other = all.sheets.find(({ id }) => id !== sheet);
    expect(other?.placements.every(({ shape }) => shape === undefined)).toBe(true);
  });

  it('moves a changed part off a begun sheet while it is not cut, and its place is free again', () => {
    const item = plan(PARTS);
    const sheet = holder(item, 'a');
    if (!sheet) throw new Error('a lies nowhere');
    const kept = sawn(item, sheet.id, 1);
    const others = sheet.placements.map((placed) => placed.part).filter((part) => part !== 'a');
    const changed = plan(resized('a', 1150), kept);
    const now = changed.sheets.find((own) => own.id === sheet.id);
    expect(now?.placements.map((placed) => placed.part)).toEqual(expect.arrayContaining(others));
    expect(changed.plan.unplaced).toEqual([]);
    // it is a little smaller: it can have its old place
    expect(holder(changed, 'a')?.id).toBe(sheet.id);
    expect(changed.plan.cost).toBe(item.plan.cost);
  });

  it('cuts a spoiled part again, from what is still uncut before a new sheet', () => {
    const item = plan(PARTS);
    const sheet = holder(item, 'f');
    if (!sheet) throw new Error('f lies nowhere');
    const kept = sawn(item, sheet.id, 99);
    const spoiled: KeptPlan = {
      ...kept,
      sheets: kept.sheets.map((own) => ({
        ...own,
        placements: own.placements.map((placed) => (placed.part === 'f' ? { ...placed, spoiled: true } : placed)),
      })),
    };
    const after = plan(PARTS, spoiled);
    expect(holder(after, 'f')).toBeDefined();
    expect(after.plan.cost).toBe(item.plan.cost);
    expect(after.plan.unplaced).toEqual([]);
  });

  it('searches again around what is locked', () => {
    const item = plan(PARTS);
    const kept = keptNow(item);
    const locked: KeptPlan = {
      ...kept,
      sheets: kept.sheets.map((sheet) => ({
        ...sheet,
        placements: sheet.placements.map((placed) => (placed.part === 'c' ? { ...placed, locked: true } : placed)),
      })),
    };
    const before = holder(item, 'c');
    const fixed = plan(PARTS, locked);
    const better = keptFrom(fixed, solveJob(fixed.search, { steps: 60 }));
    const after = better.sheets.find((sheet) => sheet.id === before?.id);
    expect(after?.placements.find((placed) => placed.part === 'c')).toEqual({
      ...before?.placements.find((placed) => placed.part === 'c'),
      locked: true,
    });
  });

  it('takes an offcut before it opens a sheet', () => {
    const parts = PARTS.slice(4);
    expect(plan(parts).plan.cost).toBe(6000);
    const offcuts = [{ id: 'o', material: material.id, length: 1300, width: 420, place: 'rack' }];
    const item = plan(parts, undefined, offcuts);
    expect(item.plan.cost).toBe(0);
    expect(item.sheets).toMatchObject([{ offcut: 'o', length: 1300, width: 420, trim: 0 }]);
  });
});

describe('the order at the saw', () => {
  const sheets: KeptSheet[] = keptNow(plan(PARTS)).sheets;
  it('has every cut once, none before the cut that frees its piece', () => {
    const steps = fenceOrder(sheets).flatMap((fence) => fence.steps);
    expect(steps.length).toBe(sheets.reduce((sum, sheet) => sum + sheet.cuts.length, 0));
    steps.forEach((step, i) => {
      for (const later of steps.slice(i + 1)) expect(needs(step, later)).toBe(false);
    });
  });
  it('makes all cuts of one width at one setting where nothing stands in the way', () => {
    // two equal sheets of three strips of 400: the rest of 21 comes off first, then two cuts at 400 on each
    const strips = plan(Array.from({ length: 6 }, (_, i) => ({ id: `s${i}`, length: 2480, width: 400 }))).sheets;
    expect(strips).toHaveLength(2);
    const order = fenceOrder(strips);
    expect(order.map((fence) => [fence.kind, Math.round(fence.setting), fence.steps.length])).toEqual([
      ['rip', 1206, 2],
      ['rip', 400, 2],
      ['rip', 400, 2],
    ]);
  });
  it('frees a part when the last cut over its piece is made', () => {
    const [sheet] = sheets;
    if (!sheet) throw new Error('no sheet');
    const all = stepsOf(sheet);
    for (const placed of sheet.placements) expect(all.some((step) => step.frees(placed))).toBe(true);
  });
  it('learns what a cut takes from three on', () => {
    expect(secondsPerCut([60, 61])).toEqual({ seconds: USUAL_CUT_SECONDS, learned: 2 });
    expect(secondsPerCut([300, 60, 70])).toEqual({ seconds: 70, learned: 3 });
  });
});

describe('by hand', () => {
  const item = plan(PARTS);
  it('offers places, moves there, locks the part and keeps the plan sound', () => {
    const places = placesFor(item.sheets, 'f', false, 3);
    expect(places.length).toBeGreaterThan(0);
    for (const place of places) {
      const moved = movePart(item.sheets, 'f', place, false, 3, 100);
      if (typeof moved === 'string') throw new Error(moved);
      const at = moved.find((sheet) => sheet.id === place.sheet)?.placements.find((p) => p.part === 'f');
      expect(at).toMatchObject({ x: place.x, y: place.y, locked: true });
      for (const sheet of moved) expect(sawnAgain(sheet, 3, 0)).not.toBeNull();
    }
  });
  it.each([
    ['over the edge', { x: 2400, y: 0, turned: false }, 'edge'],
    ['onto another part', { x: 10, y: 10, turned: false }, 'overlap'],
    ['against its grain', { x: 0, y: 0, turned: true }, 'grain'],
  ] as const)('refuses to put a part %s', (_what, at, why) => {
    const sheet = item.sheets.find((own) => !own.placements.some((placed) => placed.part === 'f')) ?? item.sheets[0];
    expect(movePart(item.sheets, 'f', { sheet: sheet?.id ?? '', ...at }, false, 3, 100)).toBe(why);
  });
  it('drops a sheet that is left empty, so that the price falls', () => {
    const two = plan(PARTS.slice(4)).sheets;
    const split: KeptSheet[] = two.flatMap((sheet) =>
      sheet.placements.map((placed, i) => ({ ...sheet, id: `s${i + 1}`, placements: [{ ...placed, x: 0, y: 0 }] })),
    );
    const sawnSheets = split.map((sheet) => sawnAgain(sheet, 3, 0) ?? sheet);
    const [to] = placesFor(sawnSheets, 'f', false, 3).filter((place) => place.sheet === 's1');
    if (!to) throw new Error('no place');
    expect(movePart(sawnSheets, 'f', to, false, 3, 100)).toHaveLength(1);
  });
});

describe('cuts at the merchant', () => {
  it('are the fewest first cuts after which all pieces fit, and none when the sheet does', () => {
    fc.assert(
      fc.property(fc.integer({ min: 700, max: 2600 }), fc.integer({ min: 500, max: 1300 }), (length, width) => {
        for (const sheet of plan(PARTS).sheets) {
          const { cuts, pieces, tooLarge } = merchantCuts(sheet, 3, { length, width });
          expect(sheet.cuts).toEqual(expect.arrayContaining([...cuts]));
          const over = pieces.filter(
            (p) =>
              Math.max(p.length, p.width) > Math.max(length, width) ||
              Math.min(p.length, p.width) > Math.min(length, width),
          );
          expect(over.length).toBeLessThanOrEqual(tooLarge);
          if (length >= 2500 && width >= 1250) expect(cuts).toEqual([]);
        }
      }),
      { seed: 7, numRuns: 60 },
    );
  });
});
