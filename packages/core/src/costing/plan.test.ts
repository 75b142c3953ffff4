import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import { derive } from '../derive/again.fixture.js';
import { applyOperation } from '../furniture/kit.js';
import type { Operation } from '../document/operation.js';
import type { PriceItem } from '../document/schema.js';
import { readProjectFile } from '../formats/read.js';
import { buildUpDepth } from '../layers/buildup.js';
import { outlineArea } from '../numeric/plane.js';
import { thermalTransmittance } from '../layers/warmth.js';
import { scheduleOf, ScheduleError } from '../work/schedule.js';
import type { Task } from '../work/task.js';
import { message } from '../words/message.js';
import { EN } from '../words/en.js';
import { formatMoney, say } from '../words/say.js';
import { startPriceBook } from '../materials/start-book.js';
import demo from '../../../../demo/wren.json?raw';

const wren = readProjectFile(demo);
const book = startPriceBook();
const after = (...operations: Operation[]) =>
  derive(
    operations.reduce((project, operation) => applyOperation(project, operation).project, wren.project),
    book,
  );
const layer = (
  id: string,
  material: string,
  thickness: number,
  place: 'in-ribs' | 'battens' | 'between-battens' | 'continuous',
) => ({ id, material, thickness, place, board: false, share: 1, measured: null });

describe('layers', () => {
  it('in the ribs cost nothing until they stand proud; one after another', () => {
    const depth = buildUpDepth(
      'left',
      [
        layer('a', 'foam-30', 30, 'in-ribs'),
        layer('b', 'foam-30', 30, 'in-ribs'),
        layer('c', 'boards-9', 9, 'continuous'),
      ],
      50,
      book,
    );
    expect(depth.layers.map((l) => l.takes)).toEqual([0, 10, 9]);
  });
  it('between battens cost only what stands above the battens', () => {
    const depth = buildUpDepth(
      'floor',
      [
        layer('a', 'batten-30', 30, 'battens'),
        layer('b', 'wool-50', 50, 'between-battens'),
        layer('c', 'birch-12', 12, 'continuous'),
      ],
      0,
      book,
    );
    expect(depth.layers.map((l) => l.takes)).toEqual([30, 20, 12]);
    expect(depth.total).toBe(62);
  });
  it('pass heat as by hand', () => {
    // 50 mm of 0.038 and 9 mm of 0.13, wall 0.17: 1 / (0.17 + 1.31579 + 0.06923) = 0.64308
    const plain = buildUpDepth(
      'left',
      [layer('a', 'wool-50', 50, 'in-ribs'), layer('b', 'boards-9', 9, 'continuous')],
      50,
      book,
    );
    expect(thermalTransmittance(plain)).toBeCloseTo(0.64308, 4);
    // through battens 30 mm of 0.13: 1 / (0.21 + 0.23077) = 2.2688; between, foam 0.034: 1 / (0.21 + 0.88235) = 0.91546
    const framed = buildUpDepth(
      'floor',
      [layer('a', 'batten-30', 30, 'battens'), layer('b', 'foam-30', 30, 'between-battens')],
      0,
      book,
    );
    expect(thermalTransmittance(framed)).toBeCloseTo(0.1125 * 2.2688 + 0.8875 * 0.91546, 3);
    expect(thermalTransmittance(buildUpDepth('left', [layer('x', 'no-such', 10, 'continuous')], 0, book))).toBeNull();
  });
});

describe('shopping', () => {
  it('buys whole sheets of the plan and whole packs of the area with waste', () => {
    const { shopping, plans, areas, parts } = after();
    const sheets = plans.find((plan) => plan.material.id === 'birch-12')?.plan.sheets.length ?? 0;
    expect(shopping.lines.find((line) => line.material === 'birch-12')).toMatchObject({
      quantity: sheets,
      unit: 'sheet',
      total: sheets * 6400,
    });
    // walls and ceiling are lined with boards of 2400 x 96, which their cut plan counts: hardly more than the area asks for
    const area = (areas?.left ?? 0) + (areas?.right ?? 0) + (areas?.ceiling ?? 0);
    const boards = shopping.lines.find((line) => line.material === 'boards-9');
    expect(boards?.quantity).toBe(plans.find((plan) => plan.material.id === 'boards-9')?.plan.sheets.length);
    expect(boards?.quantity).toBeGreaterThan(area / (2.4 * 0.096));
    expect(boards?.quantity).toBeLessThan((area / (2.4 * 0.096)) * 1.25);
    expect(boards?.total).toBe((boards?.quantity ?? 0) * 346);
    // both faces of the floor board, two coats of a litre on 11 square metres
    const board = parts
      .filter((part) => part.role === 'subfloor')
      .reduce((sum, part) => sum + outlineArea(part.outline), 0);
    const sealer = shopping.lines.find((line) => line.material === 'wood-sealer');
    expect(sealer?.quantity).toBe(Math.ceil((2 * board * 2) / 1e6 / 11));
    // insulation is bought by its area and the waste on top
    const wool = shopping.lines.find((line) => line.material === 'wool-50');
    expect(wool?.quantity).toBe(Math.ceil((((areas?.left ?? 0) + (areas?.right ?? 0)) * 1.1) / 6));
  });
  it('adds up to its total, by phase too', () => {
    const { shopping } = after();
    const sum = (values: readonly number[]): number => values.reduce((a, b) => a + b, 0);
    expect(sum(shopping.lines.map((line) => line.total))).toBe(shopping.total);
    expect(sum(shopping.byPhase.map((phase) => phase.total))).toBe(shopping.total);
    for (const line of shopping.lines) expect(line.total).toBe(line.quantity * line.each);
  });
  it('names what is needed and not sold: a fixing that the book has not, a material in neither sheets nor packs', () => {
    const gone = (change: (item: PriceItem) => PriceItem[]): readonly string[] =>
      derive(wren.project, { ...book, items: book.items.flatMap(change) }).shopping.unpriced;
    expect(gone((item) => (item.id === 'floor-glue' ? [] : [item]))).toEqual(['floor-glue']);
    expect(gone((item) => [item.id === 'wood-sealer' ? { ...item, pack: null, stocks: [] } : item])).toEqual([
      book.items.find((item) => item.id === 'wood-sealer')?.name,
    ]);
  });
  it('names a layer that nobody sells', () => {
    expect(
      after({ name: 'putLayer', payload: { surface: 'left', layer: layer('x', 'unobtainium', 5, 'continuous') } })
        .shopping.unpriced,
    ).toEqual(['unobtainium']);
  });
});

describe('mass', () => {
  it('is that of parts and layers', () => {
    const { mass, parts, room, areas, arches, inner } = after();
    // wool in the ribs takes no room, so nothing else changes: 50 mm of 18 kg/m3 on the left wall
    // the wall less its window, whose corners of 60 leave r2 (1 - 3 sin 15°) outside, and less the arch against it
    const corners = 4 * 0.06 ** 2 * (1 - 3 * Math.sin(Math.PI / 12));
    const arch = arches.find((one) => one.side === 'left');
    const against = (((arch?.to ?? 0) - (arch?.from ?? 0)) * ((arch?.height ?? 0) - (inner?.floor ?? 0))) / 1e6;
    const wool = (areas?.left ?? 0) * 0.05 * 18;
    expect(areas?.left).toBeCloseTo((room?.areas.left ?? 0) - 0.8 * 0.455 + corners - against, 6);
    const without = after({ name: 'removeLayer', payload: { surface: 'left', id: 'l1' } }).mass;
    expect(mass.total - without.total).toBeCloseTo(wool, 6);
    expect(mass.unknown).toEqual([]);
    expect(mass.of.filter((item) => item.kind === 'unit').map((item) => item.id)).toEqual(
      wren.project.layout.units.map(({ id }) => id),
    );
    // along each arch one, and ten battens along the floor, three of them joined from two, and every part of the first three units and the floor
    expect(parts.filter((part) => part.role === 'floor-batten')).toHaveLength(15);
    expect(parts.filter(({ unit }) => ['bed', 'kitchen', 'bench'].includes(unit ?? ''))).toHaveLength(47);
  });
});

describe('money and messages', () => {
  it('are written for reading', () => {
    expect(formatMoney(176480, 'EUR')).toBe('1\u202f764.80\u00a0EUR');
    expect(say(message('length.large', { typed: '9' }))).toBe('“9” is longer than any vehicle.');
    expect(
      say(message('rule.way.tight', { width: { mm: 500 }, wants: { mm: 550 }, short: { mm: 50 } }), {
        words: EN,
        lengths: { units: 'in', fraction: 16 },
      }),
    ).toContain('19 11/16\u00a0in wide');
  });
});

describe('the order of work', () => {
  const task = (id: string, minutes: number, after: string[] = [], lagHours = 0): Task => ({
    id,
    kind: 'line',
    title: message('task.subfloorDry'),
    minutes,
    lagHours,
    lagWhy: null,
    after,
    tools: message('tools.cut'),
    caution: null,
    open: [],
  });

  it('fills the working day and goes on the next', () => {
    const plan = scheduleOf([task('a', 480), task('b', 60, ['a'])], '2026-11-30', 6);
    expect(plan.tasks.map((t) => [t.task.id, t.starts, t.ends])).toEqual([
      ['a', '2026-11-30', '2026-12-01'],
      ['b', '2026-12-01', '2026-12-01'],
    ]);
    expect(plan.tasks[0]?.work).toEqual([
      { from: 9, to: 15 },
      { from: 33, to: 35 },
    ]);
    expect(plan.workHours).toBe(9);
  });
  it('waits round the clock while glue cures, and does other work meanwhile', () => {
    const plan = scheduleOf(
      [task('glue', 60, [], 24), task('on it', 60, ['glue']), task('else', 120)],
      '2026-11-30',
      6,
    );
    // glued by 10 on the first day, cured by 10 on the second; the rest is done in between
    expect(plan.tasks.map((t) => t.task.id)).toEqual(['glue', 'else', 'on it']);
    expect(plan.tasks[0]?.wait).toEqual({ from: 10, to: 34 });
    expect(plan.tasks[2]?.work[0]?.from).toBe(34);
    expect(plan.nextWait).toEqual({ task: 'glue', from: '2026-11-30', until: '2026-12-01' });
  });
  it('refuses work that waits for itself', () => {
    expect(() => scheduleOf([task('a', 60, ['b']), task('b', 60, ['a'])], '2026-11-30', 6)).toThrow(ScheduleError);
  });
  it('never begins before what it waits for is done and cured', () => {
    const tasks = fc.array(
      fc.record({
        minutes: fc.integer({ min: 1, max: 900 }),
        lag: fc.integer({ min: 0, max: 40 }),
        after: fc.array(fc.nat(20), { maxLength: 3 }),
      }),
      { minLength: 1, maxLength: 14 },
    );
    fc.assert(
      fc.property(tasks, fc.integer({ min: 1, max: 12 }), (list, hours) => {
        const made = list.map((t, i) =>
          task(
            `t${i}`,
            t.minutes,
            [...new Set(t.after.filter((n) => n < i))].map((n) => `t${n}`),
            t.lag,
          ),
        );
        const plan = scheduleOf(made, '2026-11-30', hours);
        expect(plan.tasks).toHaveLength(made.length);
        const end = new Map(plan.tasks.map((t) => [t.task.id, t.wait?.to ?? t.work.at(-1)?.to ?? 0]));
        for (const { task: own, work } of plan.tasks) {
          for (const before of own.after)
            expect(work[0]?.from ?? 0).toBeGreaterThanOrEqual((end.get(before) ?? 0) - 1e-6);
          for (const stretch of work) expect(stretch.to % 24).toBeLessThanOrEqual(9 + hours + 1e-6);
        }
        expect(plan.tasks.reduce((sum, t) => sum + t.work.reduce((s, w) => s + w.to - w.from, 0), 0)).toBeCloseTo(
          made.reduce((sum, t) => sum + t.minutes / 60, 0),
          5,
        );
      }),
      { seed: 41, numRuns: 150 },
    );
  });
  it('of the demo puts the glue before the units, and walls before a floor that meets the lining', () => {
    const { schedule } = after();
    const order = schedule.tasks.map((t) => t.task.id);
    expect(order.indexOf('right-r2')).toBeLessThan(order.indexOf('subfloor-dry'));
    expect(order.indexOf('subfloor-glue')).toBeLessThan(order.indexOf('bed-fit'));
    // 24 h at 20 C are 33.9 h at 15 C
    expect(schedule.tasks.find((t) => t.task.id === 'subfloor-glue')?.task.lagHours).toBeCloseTo(24 * Math.SQRT2, 9);
    const first = after({ name: 'changeSettings', payload: { changes: { floorMeets: 'shell' } } }).schedule.tasks.map(
      (t) => t.task.id,
    );
    expect(first.indexOf('subfloor-glue')).toBeLessThan(first.indexOf('left-l1'));
  });
});
