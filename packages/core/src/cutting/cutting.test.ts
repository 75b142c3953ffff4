import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import { cutJobSchema, engineJob, type CutJob } from './job/job.js';
import { lowerBound } from './bounds/bound.js';
import { searchPlans, solveJob } from './engine/search.js';
import { planFaults, separable } from './job/verify.js';

const job = (parts: Partial<CutJob['parts'][number]>[], more: Partial<CutJob> = {}): CutJob =>
  cutJobSchema.parse({
    format: 'cut-job',
    version: 1,
    kind: 'sheet',
    kerf: 3,
    trim: 0,
    method: 'guillotine',
    stock: [{ id: 's', length: 2440, width: 1220, quantity: null, price: 5000 }],
    parts: parts.map((part, i) => ({ id: `p${i}`, ...part })),
    ...more,
  });

describe('worked examples', () => {
  it('gets two halves with one kerf out of a sheet, and not a tenth more', () => {
    const exact = solveJob(job([{ length: 2440, width: 608.5, quantity: 2 }]));
    expect(exact).toMatchObject({ cost: 5000, bound: 5000, proved: true });
    expect(exact.sheets[0]?.placements.map((p) => [p.x, p.y])).toEqual([
      [0, 0],
      [0, 611.5],
    ]);
    expect(exact.sheets[0]?.cuts).toEqual([
      { axis: 'rip', at: 608.5, from: 0, to: 2440, level: 1, edge: 0, far: 1220 },
    ]);
    const over = solveJob(job([{ length: 2440, width: 608.6, quantity: 2 }]));
    expect(over).toMatchObject({ cost: 10000, bound: 10000, proved: true });
  });

  it('takes a kerf of 3.2 without a rounding slip: 7 strips of 171.5 and 6 kerfs are 1219.7', () => {
    expect(solveJob(job([{ length: 2440, width: 171.5, quantity: 7 }], { kerf: 3.2 })).sheets).toHaveLength(1);
    expect(solveJob(job([{ length: 2440, width: 171.6, quantity: 7 }], { kerf: 3.2 })).sheets).toHaveLength(2);
  });

  it('lets a last sliver thinner than the kerf be sawn away', () => {
    expect(
      solveJob(
        job(
          [
            { length: 1220, width: 1220 },
            { length: 1218, width: 1219 },
          ],
          { kerf: 2 },
        ),
      ).sheets,
    ).toHaveLength(1);
  });

  it('cuts 1/32 in exactly: four parts of 11 31/32 in and three kerfs of 1/24 in fill 48 in', () => {
    const inch = 25.4;
    const plan = solveJob(
      job([{ length: 48 * inch, width: (11 + 31 / 32) * inch, quantity: 4 }], {
        kerf: inch / 24,
        stock: [{ id: 's', length: 96 * inch, width: 48 * inch, quantity: null, price: 1, offcut: false }],
      }),
    );
    expect(plan.sheets).toHaveLength(1);
  });

  it('keeps the grain: a part that must not turn is refused with what would fit', () => {
    const plan = solveJob(
      job([
        { length: 1000, width: 1500 },
        { length: 3000, width: 100 },
        { length: 3000, width: 1300 },
      ]),
    );
    expect(plan.unplaced).toEqual([
      { part: 'p0', quantity: 1, why: 'turn' },
      { part: 'p1', quantity: 1, why: 'longer' },
      { part: 'p2', quantity: 1, why: 'both' },
    ]);
    expect(plan.proved).toBe(false);
  });

  it('takes trim off every edge of a sheet but not off an offcut', () => {
    const stock = [
      { id: 's', length: 2440, width: 1220, quantity: 1, price: 5000, offcut: false },
      { id: 'o', length: 600, width: 400, quantity: 1, price: 0, offcut: true },
    ];
    const plan = solveJob(
      job(
        [
          { length: 600, width: 400 },
          { length: 2420, width: 1200 },
        ],
        { trim: 10, stock },
      ),
    );
    expect(plan.unplaced).toEqual([]);
    expect(plan.cost).toBe(5000);
    expect(solveJob(job([{ length: 2420.1, width: 1200 }], { trim: 10, stock })).unplaced).toHaveLength(1);
  });

  it('says that stock ran out, and gives no bound for what it could not do', () => {
    const plan = solveJob(
      job([{ length: 1500, width: 1000, quantity: 3 }], {
        stock: [{ id: 's', length: 2440, width: 1220, quantity: 2, price: 5000, offcut: false }],
      }),
    );
    expect(plan.unplaced).toEqual([{ part: 'p0', quantity: 1, why: 'stock' }]);
    expect(plan).toMatchObject({ bound: 0, proved: false });
  });

  it('chooses the cheaper mix of sizes', () => {
    const stock = [
      { id: 'large', length: 2500, width: 1250, quantity: null, price: 6000, offcut: false },
      { id: 'half', length: 1250, width: 1250, quantity: null, price: 3500, offcut: false },
    ];
    const plan = solveJob(job([{ length: 1200, width: 1200, quantity: 3 }], { stock }));
    expect(plan).toMatchObject({ cost: 9500, bound: 9500, proved: true });
  });

  it('cuts bars: four of 1000 and two of 480 from bars of 2500', () => {
    const plan = solveJob(
      job(
        [
          { length: 1000, quantity: 4 },
          { length: 480, quantity: 2 },
        ],
        { kind: 'bar', kerf: 3, stock: [{ id: 'b', length: 2500, quantity: null, price: 900, offcut: false }] },
      ),
    );
    // 1000 + 3 + 1000 + 3 + 480 = 2486 fits twice
    expect(plan).toMatchObject({ cost: 1800, proved: true });
  });
});

describe('lower bound', () => {
  it('counts parts that cannot share a sheet', () => {
    const engine = engineJob(job([{ length: 1300, width: 700, quantity: 5 }]));
    // area alone would allow 2 sheets; no two of them fit side by side either way
    expect(lowerBound(engine)).toBe(25_000);
  });
  it('knows that only one strip of 620 goes across 1220', () => {
    expect(lowerBound(engineJob(job([{ length: 2400, width: 620, quantity: 3 }])))).toBe(15_000);
  });
});

const randomJob = fc.record({
  kerf: fc.constantFrom(0, 2.4, 3.2, 3),
  trim: fc.constantFrom(0, 10),
  parts: fc.array(
    fc.record({
      length: fc.integer({ min: 600, max: 24000 }),
      width: fc.integer({ min: 600, max: 12000 }),
      quantity: fc.integer({ min: 1, max: 5 }),
      mayTurn: fc.boolean(),
    }),
    { minLength: 1, maxLength: 9 },
  ),
  two: fc.boolean(),
});

describe('properties', () => {
  it('every plan on the way is sound, never under the bound, and proved only at the bound', () => {
    fc.assert(
      fc.property(randomJob, ({ kerf, trim, parts, two }) => {
        const stock = [
          { id: 'a', length: 2440, width: 1220, quantity: null, price: 5000, offcut: false },
          ...(two ? [{ id: 'b', length: 1525, width: 1525, quantity: 3, price: 4700, offcut: false }] : []),
        ];
        const made = job(
          parts.map((p) => ({ ...p, length: p.length / 10, width: p.width / 10 })),
          { kerf, trim, stock },
        );
        for (const { plan, improved } of searchPlans(made, { steps: 40, seed: 5 })) {
          if (!improved) continue;
          expect(planFaults(made, plan)).toEqual([]);
          expect(plan.cost).toBeGreaterThanOrEqual(plan.bound);
          expect(plan.proved).toBe(plan.unplaced.length === 0 && plan.cost === plan.bound);
        }
      }),
      { seed: 21, numRuns: 120 },
    );
  });

  it('never puts the bound above a plan that is known to exist', () => {
    // pieces sawn from whole sheets: the number of sheets they came from is always enough
    const cuts = fc.array(fc.double({ min: 0.15, max: 0.85, noNaN: true }), { minLength: 3, maxLength: 12 });
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 4 }), cuts, (sheets, shares) => {
        const kerf = 3;
        const pieces: { length: number; width: number }[] = [];
        for (let s = 0; s < sheets; s += 1) {
          let open = [{ length: 2440, width: 1220 }];
          shares.forEach((share, i) => {
            const piece = open.shift();
            if (!piece) return;
            const along = i % 2 === 0;
            const size = along ? piece.length : piece.width;
            if (size < 300) return open.push(piece);
            const a = Math.floor(size * share * 10) / 10;
            const b = size - a - kerf;
            if (a < 50 || b < 50) return open.push(piece);
            return open.push(
              along ? { ...piece, length: a } : { ...piece, width: a },
              along ? { ...piece, length: b } : { ...piece, width: b },
            );
          });
          pieces.push(...open);
          open = [];
        }
        const bound = lowerBound(
          engineJob(
            job(
              pieces.map((p) => ({ ...p, mayTurn: true })),
              { kerf },
            ),
          ),
        );
        expect(bound).toBeLessThanOrEqual(sheets * 5000);
      }),
      { seed: 22, numRuns: 300 },
    );
  });

  it('gives the same plan for the same seed and steps', () => {
    const made = job([
      { length: 900, width: 450, quantity: 9 },
      { length: 700, width: 330, quantity: 8 },
      { length: 1210, width: 280, quantity: 7 },
    ]);
    expect(solveJob(made, { seed: 4, steps: 200 })).toEqual(solveJob(made, { seed: 4, steps: 200 }));
  });
});

describe('the referee', () => {
  it('tells a pinwheel, which no saw can cut edge to edge, from a plan that can be cut', () => {
    const piece = (x0: number, y0: number, x1: number, y1: number) => ({ part: 'p', x0, y0, x1, y1 });
    expect(
      separable([piece(0, 0, 60, 30), piece(70, 0, 100, 60), piece(40, 70, 100, 100), piece(0, 40, 30, 100)], 5),
    ).toBe(false);
    expect(separable([piece(0, 0, 60, 30), piece(70, 0, 100, 60), piece(0, 40, 60, 100)], 5)).toBe(true);
  });
  it('finds pieces too close, over the edge, turned against the grain, lost, and a false proof', () => {
    const made = job([{ length: 1000, width: 500, quantity: 2 }]);
    const plan = solveJob(made);
    const spoil = (change: (copy: typeof plan) => void): string[] => {
      const copy = JSON.parse(JSON.stringify(plan)) as typeof plan;
      change(copy);
      return planFaults(made, copy);
    };
    const at = (copy: typeof plan, i: number) => {
      const placement = copy.sheets[0]?.placements[i];
      if (!placement) throw new Error('no placement');
      return placement;
    };
    expect(planFaults(made, plan)).toEqual([]);
    expect(spoil((c) => Object.assign(at(c, 1), { x: at(c, 0).x, y: at(c, 0).y + 501 })).join()).toContain(
      'edge to edge',
    );
    expect(spoil((c) => Object.assign(at(c, 0), { x: 2000 })).join()).toContain('runs over the edge');
    expect(spoil((c) => Object.assign(at(c, 0), { turned: true })).join()).toContain('must not be turned');
    expect(spoil((c) => c.sheets[0]?.placements.pop()).join()).toContain('1 placed');
    expect(spoil((c) => Object.assign(c, { bound: 1, proved: true })).join()).toContain('proved although');
  });
});
