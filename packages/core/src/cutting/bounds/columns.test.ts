import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { seededRandom } from '../../numeric/random.js';
import { solveJob } from '../engine/search.js';
import { cutJobSchema } from '../job/job.js';
import { planFaults } from '../job/verify.js';
import { fillAll } from './columns.js';
import { loadProgram } from './program.js';

const KERF = 30;

/** Bars sawn into pieces with nothing left over, the saw's cut counted, in tenths of a millimetre. */
function sawn(seed: number, bars: number, length: number): number[] {
  const random = seededRandom(seed);
  const pieces: number[] = [];
  for (let bar = 0; bar < bars; bar += 1) {
    let rest = length + KERF;
    const count = 3 + Math.floor(3 * random());
    for (let i = 1; i < count && rest > 6000; i += 1) {
      const piece = Math.round(1500 + random() * (rest * 0.6 - 1500));
      pieces.push(piece);
      rest -= piece;
    }
    pieces.push(rest);
  }
  return pieces.sort((a, b) => a - b);
}

describe('bars that must all be full', () => {
  it('by hand: 60 + 40, 70 + 30, 50 + 50', () => {
    const found = fillAll([30, 40, 50, 50, 60, 70], 3, 100, seededRandom(1), 1e6);
    const bars = found?.map((bar) => bar.map((at) => [30, 40, 50, 50, 60, 70][at]).sort()) ?? [];
    expect(bars.map((bar) => bar.join('+')).sort()).toEqual(['30+70', '40+60', '50+50']);
  });

  it('are none where the lengths are more than the bars, or cannot fill them', () => {
    expect(fillAll([60, 60], 1, 100, seededRandom(1), 1e6)).toBeNull();
    // 90 + 10 is full, and 45 + 45 leaves 10 where nothing may be left over
    expect(fillAll([90, 45, 45, 20], 2, 100, seededRandom(1), 1e6)).toBeNull();
  });

  it('take every length once and hold no more than they can, however they were sawn', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 1e6 }), fc.integer({ min: 2, max: 12 }), (seed, bars) => {
        const lengths = sawn(seed, bars, 30_000);
        const found = fillAll(lengths, bars, 30_000 + KERF, seededRandom(seed), 6e6);
        expect(found).not.toBeNull();
        expect(found?.flat().sort((a, b) => a - b)).toEqual(lengths.map((_, i) => i));
        for (const bar of found ?? [])
          expect(bar.reduce((sum, at) => sum + (lengths[at] ?? 0), 0)).toBeLessThanOrEqual(30_000 + KERF);
      }),
      { seed: 4, numRuns: 40 },
    );
  });
});

describe('larger frames', () => {
  it('sawn from whole bars are planned on just as many again, and soundly', async () => {
    const program = await loadProgram();
    for (const seed of [1, 2, 3]) {
      const pieces = sawn(seed, 14, 30_000);
      const job = cutJobSchema.parse({
        format: 'cut-job',
        version: 1,
        kind: 'bar',
        kerf: KERF / 10,
        trim: 0,
        endTrim: 0,
        method: 'guillotine',
        stock: [{ id: 'bar', length: 3000, price: 900, quantity: null, offcut: false }],
        // a piece takes the saw's cut with it
        parts: pieces.map((piece, i) => ({
          id: `p${i}`,
          length: (piece - KERF) / 10,
          quantity: 1,
          mayTurn: false,
        })),
      });
      const plan = solveJob(job, { steps: 60, program });
      expect(planFaults(job, plan)).toEqual([]);
      expect(plan.sheets).toHaveLength(14);
      expect(plan.proved).toBe(true);
    }
  });

  it('of several lengths and a few offcuts come out whole, within two hundredths of the bound', async () => {
    const program = await loadProgram();
    const random = seededRandom(77);
    const job = cutJobSchema.parse({
      format: 'cut-job',
      version: 1,
      kind: 'bar',
      kerf: 3,
      trim: 0,
      endTrim: 5,
      method: 'guillotine',
      stock: [
        { id: 'a', length: 3000, price: 930, quantity: null, offcut: false },
        { id: 'b', length: 4000, price: 1190, quantity: null, offcut: false },
        { id: 'c', length: 1700, price: 210, quantity: 2, offcut: true },
      ],
      parts: Array.from({ length: 60 }, (_, i) => ({
        id: `p${i}`,
        length: Math.round(1200 + 22_000 * random() ** 1.5) / 10,
        quantity: 1,
        mayTurn: false,
      })),
    });
    const plan = solveJob(job, { steps: 120, program });
    expect(planFaults(job, plan)).toEqual([]);
    expect(plan.unplaced).toEqual([]);
    expect(plan.sheets.filter((sheet) => sheet.stock === 'c').length).toBeLessThanOrEqual(2);
    expect(plan.cost / plan.bound).toBeLessThan(1.02);
  });
});
