import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readCutJob } from '../../formats/read.js';
import { engineJob, type CutJob, type CutPlan } from './job.js';
import { barOutline, chainOf } from './mitres.js';
import { solveJob } from '../engine/search.js';
import { planFaults } from './verify.js';

type PartIn = Partial<CutJob['parts'][number]> & { readonly id: string; readonly length: number };
const bars = (parts: readonly PartIn[], length = 1000, kerf = 3): CutJob => ({
  format: 'cut-job',
  version: 1,
  kind: 'bar',
  kerf,
  trim: 0,
  endTrim: 0,
  method: 'guillotine',
  stock: [{ id: 'bar', length, width: 50, quantity: null, price: 500, offcut: false }],
  parts: parts.map((part) => ({ width: 50, quantity: 1, mayTurn: true, ...part })),
});
/** A side of a frame: both long points at the far edge. */
const side = (id: string, length: number, quantity = 1, angle = 45): PartIn => ({
  id,
  length,
  quantity,
  ends: { start: angle, end: angle },
});

/** Outlines on the bar, worked out from the plan and the job alone. */
function outlines(job: CutJob, sheet: CutPlan['sheets'][number]): [number, number][][] {
  return sheet.placements.map((placed) => {
    const part = job.parts.find((candidate) => candidate.id === placed.part);
    if (!part) throw new Error(placed.part);
    return barOutline(part.length, 50, part.ends, placed.turned, placed.flipped ?? false).map(([x, y]) => [
      x + placed.x,
      y,
    ]);
  });
}
/** The line of an outline's start or end at a share of the width. */
const edgeAt = (outline: readonly [number, number][], end: boolean, share: number): number => {
  const [near, far] = end ? [outline[1], outline[2]] : [outline[0], outline[3]];
  return (near?.[0] ?? 0) + share * ((far?.[0] ?? 0) - (near?.[0] ?? 0));
};

describe('bars with angled ends', () => {
  it('four sides of a frame interlock on a bar that is too short for them end to end', () => {
    // 4 x 250 less 3 overlaps of 50 and 3 oblique cuts of 3 x 1.4142: 862.7; end to end 1009
    const job = bars([side('a', 250, 4)]);
    const chain = chainOf(engineJob(job), [0, 0, 0, 0]);
    expect(chain.length / 1e5).toBeCloseTo(1000 - 150 + 9 * Math.SQRT2, 3);
    const plan = solveJob(job, { steps: 50 });
    expect(plan.sheets).toHaveLength(1);
    expect(plan.proved).toBe(true);
    expect(planFaults(job, plan)).toEqual([]);
    // one cut at 45 degrees parts two pieces: five cuts for four pieces with all ends angled
    expect(plan.sheets[0]?.cuts).toHaveLength(5);
    expect(plan.sheets[0]?.cuts.every((cut) => Math.abs(cut.angle ?? 0) === 45)).toBe(true);
  });

  it('a profile that must not be turned over does not interlock', () => {
    const job = bars([{ ...side('a', 250, 4), mayTurn: false }]);
    const plan = solveJob(job, { steps: 50 });
    expect(plan.sheets).toHaveLength(2);
    expect(planFaults(job, plan)).toEqual([]);
  });

  it('a piece is as long as its long points: one longer than the bar is refused by name', () => {
    const plan = solveJob(bars([side('long', 1001), side('fits', 1000)]), { steps: 20 });
    expect(plan.unplaced).toEqual([{ part: 'long', quantity: 1, why: 'longer' }]);
    expect(plan.sheets).toHaveLength(1);
  });

  it('what is drawn is the true outline', () => {
    expect(barOutline(250, 50, { start: 45, end: 45 }, false, false).map(([x, y]) => [Math.round(x), y])).toEqual([
      [50, 0],
      [200, 0],
      [250, 50],
      [0, 50],
    ]);
    // turned over, the long points are at the near edge
    expect(barOutline(250, 50, { start: 45, end: 0 }, true, true).map(([x, y]) => [Math.round(x), y])).toEqual([
      [0, 0],
      [250, 0],
      [200, 50],
      [0, 50],
    ]);
  });

  it.each([
    ['crossing ends', { length: 90, ends: { start: 45, end: 45 } }, 'cross'],
    ['no width', { length: 300, width: undefined, ends: { start: 45, end: 0 } }, 'width'],
    ['an angle that is none', { length: 300, ends: { start: 95, end: 0 } }, 'ends'],
  ])('bad input: %s', (_, part, words) => {
    const job = bars([{ id: 'a', ...part }]);
    expect(() => readCutJob(JSON.stringify(job))).toThrow(words);
  });

  it('every plan is whole, keeps a cut between neighbours, and is never under its bound', () => {
    const angle = fc.constantFrom(0, 0, 30, -30, 45, -45, 22.5);
    const part = fc.record({
      length: fc.integer({ min: 120, max: 900 }),
      quantity: fc.integer({ min: 1, max: 4 }),
      start: angle,
      end: angle,
      mayTurn: fc.boolean(),
    });
    fc.assert(
      fc.property(fc.array(part, { minLength: 1, maxLength: 7 }), fc.integer({ min: 1, max: 99 }), (list, seed) => {
        const job = bars(
          list.map(({ start, end, ...rest }, i) => ({ id: `p${i}`, ...rest, ends: { start, end } })),
          1000,
          3.2,
        );
        const plan = solveJob(job, { steps: 30, seed });
        expect(planFaults(job, plan)).toEqual([]);
        expect(plan.unplaced).toEqual([]);
        expect(plan.cost).toBeGreaterThanOrEqual(plan.bound);
        for (const sheet of plan.sheets) {
          const pieces = outlines(job, sheet).sort((a, b) => edgeAt(a, false, 0.5) - edgeAt(b, false, 0.5));
          for (const share of [0, 0.5, 1]) {
            pieces.forEach((piece, i) => {
              const before = pieces[i - 1];
              if (before) expect(edgeAt(piece, false, share) - edgeAt(before, true, share)).toBeGreaterThan(3.199);
              expect(edgeAt(piece, true, share)).toBeLessThan(1000.001);
            });
            // no cut runs through a piece
            for (const cut of sheet.cuts) {
              const at = cut.at + 50 * share * Math.tan(((cut.angle ?? 0) * Math.PI) / 180);
              const wide = 3.2 / Math.cos(((cut.angle ?? 0) * Math.PI) / 180);
              for (const piece of pieces) {
                const clear =
                  at + wide <= edgeAt(piece, false, share) + 0.01 || at >= edgeAt(piece, true, share) - 0.01;
                expect(clear).toBe(true);
              }
            }
          }
        }
      }),
      { numRuns: 40, seed: 5 },
    );
  });
});
