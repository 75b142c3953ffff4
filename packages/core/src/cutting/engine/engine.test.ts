import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import { seededRandom } from '../../numeric/random.js';
import { lowerBound } from '../bounds/bound.js';
import { BarColumns, nextCost, priceStep } from '../bounds/columns.js';
import { SheetFiller } from './filler.js';
import { cutJobSchema, engineJob, type CutJob } from '../job/job.js';
import { bestLoad } from '../bounds/knapsack.js';
import { clearance, isConvex, outlineArea, selfCrossing, turnOutline, within, type Dot } from '../job/outline.js';
import { loadProgram, type SolveProgram } from '../bounds/program.js';
import { spacesOf } from './spaces.js';
import { scaledBound } from '../bounds/scales.js';
import { solveJob } from './search.js';
import { sawApart } from './tree.js';
import { planFaults } from '../job/verify.js';
import { Ways } from './ways.js';

const job = (parts: Partial<CutJob['parts'][number]>[], more: Partial<CutJob> = {}): CutJob =>
  cutJobSchema.parse({
    format: 'cut-job',
    version: 1,
    kind: 'sheet',
    kerf: 3,
    stock: [{ id: 's', length: 2440, width: 1220, quantity: null, price: 5000 }],
    parts: parts.map((part, i) => ({ id: `p${i}`, ...part })),
    ...more,
  });
const program: SolveProgram = await loadProgram();

describe('the knapsack', () => {
  it('is as good as trying everything', () => {
    const kinds = fc.array(
      fc.record({
        length: fc.integer({ min: 1, max: 30 }),
        worth: fc.integer({ min: 0, max: 40 }),
        limit: fc.integer({ min: 0, max: 3 }),
      }),
      { minLength: 1, maxLength: 6 },
    );
    fc.assert(
      fc.property(kinds, fc.integer({ min: 1, max: 70 }), (list, space) => {
        let most = 0;
        const walk = (i: number, left: number, sum: number): void => {
          most = Math.max(most, sum);
          const kind = list[i];
          if (!kind) return;
          for (let n = 0; n <= kind.limit && n * kind.length <= left; n += 1)
            walk(i + 1, left - n * kind.length, sum + n * kind.worth);
        };
        walk(0, space, 0);
        const found = bestLoad(
          list.map((k) => k.length),
          list.map((k) => k.worth),
          list.map((k) => k.limit),
          space,
        );
        expect(found.worth).toBe(most);
        expect(found.most).toBe(most);
        expect(found.counts.reduce((sum, n, i) => sum + n * (list[i]?.length ?? 0), 0)).toBeLessThanOrEqual(space);
      }),
      { seed: 3, numRuns: 200 },
    );
  });
  it('gives a bound that holds when it is cut short', () => {
    const lengths = Array.from({ length: 40 }, (_, i) => 1000 + ((i * 617) % 811));
    const worths = lengths.map((length, i) => length + ((i * 31) % 17));
    const limits = lengths.map(() => 3);
    const exact = bestLoad(lengths, worths, limits, 9999);
    expect(bestLoad(lengths, worths, limits, 9999, 20).most).toBeGreaterThanOrEqual(exact.worth - 1e-9);
  });
});

describe('bars', () => {
  const bars = (
    lengths: readonly [number, number][],
    stock: readonly [number, number][],
    more: Partial<CutJob> = {},
  ): CutJob =>
    job(
      lengths.map(([length, quantity]) => ({ length, quantity })),
      {
        kind: 'bar',
        stock: stock.map(([length, price], i) => ({ id: `b${i}`, length, price, quantity: null, offcut: false })),
        ...more,
      },
    );
  it('lifts a bound to the next cost that can be', () => {
    expect(priceStep([900, 1200])).toBe(300);
    expect(nextCost(1000, [900, 1200])).toBe(1200);
    expect(nextCost(1200.0000001, [900, 1200])).toBe(1200);
  });
  it('proves by column generation what area alone cannot', () => {
    // three pieces of 700 do not go on a bar of 2000, though 15 of them are 10 500: six bars by length, eight in truth
    const made = bars([[700, 15]], [[2000, 100]]);
    const plan = solveJob(made, { program });
    expect(plan).toMatchObject({ cost: 800, bound: 800, proved: true });
  });
  it('has a bound that never passes a plan, at any round', () => {
    const random = seededRandom(9);
    for (let trial = 0; trial < 6; trial += 1) {
      const made = bars(
        Array.from(
          { length: 6 },
          () => [300 + Math.floor(random() * 1500), 1 + Math.floor(random() * 5)] as [number, number],
        ),
        [
          [2400, 900],
          [3600, 1250],
        ],
      );
      const engine = engineJob(made);
      const columns = new BarColumns(engine, program);
      const plan = solveJob(made, { program, steps: 120 });
      expect(planFaults(made, plan)).toEqual([]);
      for (let round = 0; round < 40 && !columns.finished; round += 1) {
        columns.round();
        expect(columns.bound).toBeLessThanOrEqual(plan.cost);
      }
    }
  });
});

describe('dearer bounds for sheets', () => {
  it('see that parts of two fifths of a sheet each way go four to a sheet', () => {
    // nine of 41 x 41 on 100 x 100: the area says two sheets, four fit on one
    const made = job([{ length: 41, width: 41, quantity: 9 }], {
      kerf: 0,
      stock: [{ id: 's', length: 100, width: 100, quantity: null, price: 10, offcut: false }],
    });
    expect(lowerBound(engineJob(made))).toBe(30);
    expect(solveJob(made, { program })).toMatchObject({ cost: 30, proved: true });
  });
  it('by conservative scales never pass a plan', () => {
    const random = seededRandom(4);
    for (let trial = 0; trial < 5; trial += 1) {
      const made = job(
        Array.from({ length: 14 }, () => ({
          length: 1 + Math.floor(random() * 70),
          width: 1 + Math.floor(random() * 70),
        })),
        { kerf: 0, stock: [{ id: 's', length: 100, width: 100, quantity: null, price: 1, offcut: false }] },
      );
      const plan = solveJob(made, { steps: 300 });
      for (const bound of scaledBound(engineJob(made), program)) expect(bound).toBeLessThanOrEqual(plan.cost);
    }
  });
});

describe('filling a sheet', () => {
  it('never overlaps, never leaves the space and loses no part, whatever the way', () => {
    const random = seededRandom(12);
    const ways = new Ways(random);
    const made = engineJob(
      job(
        Array.from({ length: 24 }, (_, i) => ({
          length: 200 + ((i * 173) % 900),
          width: 80 + ((i * 97) % 500),
          quantity: 1 + (i % 3),
          mayTurn: i % 2 === 0,
        })),
      ),
    );
    const filler = new SheetFiller(made, random);
    const pool = made.parts.flatMap((part, i) => Array.from({ length: part.quantity }, () => i));
    const [length, width] = [2440e5 + made.kerf, 1220e5 + made.kerf];
    for (let trial = 0; trial < 150; trial += 1) {
      filler.load(pool);
      const way = ways.draw();
      const area = filler.fill(length, width, way.join, way.taste);
      const laid = filler.laid();
      expect([...filler.left(), ...laid.map((piece) => piece.part)].sort((a, b) => a - b)).toEqual(
        [...pool].sort((a, b) => a - b),
      );
      const boxes = laid.map((piece) => {
        const part = made.parts[piece.part];
        const [l, w] = [(part?.length ?? 0) + made.kerf, (part?.width ?? 0) + made.kerf];
        return { x: piece.x, y: piece.y, length: piece.turned ? w : l, width: piece.turned ? l : w };
      });
      expect(boxes.reduce((sum, box) => sum + box.length * box.width, 0)).toBeCloseTo(area, -3);
      expect(boxes.every((box) => box.x + box.length <= length && box.y + box.width <= width)).toBe(true);
      // grown pieces simply touch: a saw without a kerf must part them
      expect(sawApart(boxes, { x: 0, y: 0, length, width }, 0)).not.toBeNull();
    }
  });
  it('knows the spaces of a sheet: rectangles that straight cuts set free', () => {
    const sheet = {
      stock: 0,
      area: 0,
      laid: [
        { part: 0, x: 0, y: 0, turned: false },
        { part: 1, x: 0, y: 40, turned: false },
        { part: 2, x: 60, y: 0, turned: false },
      ],
    };
    const sizes = [
      { length: 60, width: 40 },
      { length: 60, width: 60 },
      { length: 40, width: 100 },
    ];
    const spaces = spacesOf(sheet, 100, 100, (laid) => sizes[laid.part] ?? { length: 0, width: 0 });
    expect(spaces).toContainEqual({ x: 0, y: 0, length: 60, width: 100, inside: [0, 1] });
    expect(spaces).toContainEqual({ x: 60, y: 0, length: 40, width: 100, inside: [2] });
    expect(spaces).toContainEqual({ x: 0, y: 40, length: 60, width: 60, inside: [1] });
  });
});

describe('cuts found from places', () => {
  it('leave a large rest whole and waste nothing that is wide enough', () => {
    const sawn = sawApart([{ x: 0, y: 0, length: 300, width: 200 }], { x: 0, y: 0, length: 1000, width: 500 }, 3);
    // either way the larger rest stays in one piece: 697 x 500 against 1000 x 297
    expect(sawn?.left).toContainEqual({ x: 303, y: 0, length: 697, width: 500 });
    expect(sawn?.cuts).toHaveLength(2);
  });
  it('saw off a strip before the first piece', () => {
    const sawn = sawApart([{ x: 50, y: 0, length: 100, width: 100 }], { x: 0, y: 0, length: 150, width: 100 }, 3);
    expect(sawn?.left).toEqual([{ x: 0, y: 0, length: 47, width: 100 }]);
  });
});

describe('outlines', () => {
  const square: Dot[] = [
    [0, 0],
    [10, 0],
    [10, 10],
    [0, 10],
  ];
  it('are turned about their rectangle', () => {
    expect(
      turnOutline(
        [
          [0, 0],
          [8, 0],
          [8, 2],
          [0, 4],
        ],
        8,
        4,
        2,
      ),
    ).toEqual([
      [8, 4],
      [0, 4],
      [0, 2],
      [8, 0],
    ]);
    expect(
      outlineArea(
        turnOutline(
          [
            [0, 0],
            [8, 0],
            [8, 2],
            [0, 4],
          ],
          8,
          4,
          1,
        ),
      ),
    ).toBe(24);
  });
  it('are told apart: convex, crossing themselves, holding a point, near each other', () => {
    expect(isConvex(square)).toBe(true);
    expect(
      isConvex([
        [0, 0],
        [10, 0],
        [10, 10],
        [5, 3],
        [0, 10],
      ]),
    ).toBe(false);
    expect(selfCrossing(square)).toBeNull();
    expect(
      selfCrossing([
        [0, 0],
        [10, 10],
        [10, 0],
        [0, 10],
      ]),
    ).toEqual([0, 2]);
    expect(within([5, 5], square)).toBe(true);
    expect(
      clearance(
        square,
        square.map(([x, y]): Dot => [x + 13, y + 14]),
      ),
    ).toBe(5);
    expect(
      clearance(
        square,
        square.map(([x, y]): Dot => [x + 5, y + 5]),
      ),
    ).toBe(0);
  });
  it('interlock: tapered sides head to tail take half the sheets of their rectangles', () => {
    const outline: [number, number][] = [
      [0, 0],
      [1200, 0],
      [1200, 20],
      [0, 580],
    ];
    const made = job([{ length: 1200, width: 580, quantity: 7, outline }], { method: 'free' });
    const free = solveJob(made, { steps: 60 });
    expect(planFaults(made, free)).toEqual([]);
    expect(free).toMatchObject({ cost: 5000, bound: 5000, proved: true });
    expect(solveJob(job([{ length: 1200, width: 580, quantity: 7 }]), { steps: 60 }).cost).toBe(10_000);
  });
  it('are kept a kerf apart and inside, whatever the draw', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 1e6 }), (seed) => {
        const random = seededRandom(seed);
        const parts = Array.from({ length: 7 }, () => {
          const [length, foot] = [Math.round(300 + random() * 900), Math.round(200 + random() * 400)];
          const top = Math.round(foot * (0.3 + 0.6 * random()));
          const notch = Math.round(top * random() * 0.6);
          return {
            length,
            width: foot,
            quantity: 2,
            mayTurn: random() < 0.5,
            outline: [
              [0, 0],
              [length, notch],
              [length, top],
              [Math.round(length / 2), foot],
              [0, foot],
            ] as [number, number][],
          };
        });
        const made = job(parts, { method: 'free', trim: 10 });
        const plan = solveJob(made, { steps: 4, seed });
        expect(planFaults(made, plan)).toEqual([]);
        expect(plan.cost).toBeGreaterThanOrEqual(plan.bound);
      }),
      { seed: 2, numRuns: 12 },
    );
  });
});
