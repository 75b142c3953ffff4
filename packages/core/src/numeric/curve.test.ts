import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import { CurveError, evaluate, evaluateKnown, monotoneCurve, neededFrom, neededTo, pieceAt, slopeAt } from './curve.js';

describe('monotoneCurve', () => {
  it('keeps a straight wall straight', () => {
    const curve = monotoneCurve([0, 350, 700, 1400], [892, 899, 906, 920]);
    for (const z of [0, 100, 349, 500, 1111, 1400]) expect(evaluate(curve, z)).toBeCloseTo(892 + z / 50, 9);
    expect(slopeAt(curve, 640)).toBeCloseTo(1 / 50, 12);
  });

  it('agrees with a hand calculation at the middle of a piece', () => {
    // points (0,0) (1,1) (2,4): secants 1 and 3; inner slope = 6 / (3/1 + 3/3) = 1.5; first end slope = (3*1 - 3) / 2 = 0
    const curve = monotoneCurve([0, 1, 2], [0, 1, 4]);
    expect(curve.slope[0]).toBe(0);
    expect(curve.slope[1]).toBeCloseTo(1.5, 12);
    // Hermite at t = 1/2: (0 + 1) / 2 + (0 - 1.5) / 8 = 0.3125
    expect(evaluate(curve, 0.5)).toBeCloseTo(0.3125, 12);
  });

  it('passes through its points and never leaves the range of two neighbours', () => {
    const points = fc
      .uniqueArray(fc.integer({ min: 0, max: 4000 }), { minLength: 2, maxLength: 12 })
      .chain((at) =>
        fc.tuple(
          fc.constant([...at].sort((a, b) => a - b)),
          fc.array(fc.integer({ min: 500, max: 1100 }), { minLength: at.length, maxLength: at.length }),
        ),
      );
    fc.assert(
      fc.property(points, fc.double({ min: 0, max: 1, noNaN: true }), ([at, value], share) => {
        const curve = monotoneCurve(at, value);
        for (let i = 0; i + 1 < at.length; i += 1) {
          const [a = 0, b = 0, va = 0, vb = 0] = [at[i], at[i + 1], value[i], value[i + 1]];
          const y = evaluate(curve, a + share * (b - a));
          expect(evaluate(curve, a)).toBeCloseTo(va, 9);
          const x = a + share * (b - a);
          const known = new Float64Array(at.length).fill(NaN);
          const piece = pieceAt(at, x);
          const [from, to] = [neededFrom(piece), neededTo(at, piece)];
          for (let k = from; k <= to; k += 1) known[k] = value[k] ?? 0;
          expect(to - from).toBeLessThan(4);
          expect(evaluateKnown(at, known, x, piece)).toBeCloseTo(y, 8);
          expect(y).toBeGreaterThanOrEqual(Math.min(va, vb) - 1e-9);
          expect(y).toBeLessThanOrEqual(Math.max(va, vb) + 1e-9);
        }
      }),
      { seed: 3, numRuns: 500 },
    );
  });

  it('holds its end values and refuses positions that do not increase', () => {
    const curve = monotoneCurve([0, 10, 20], [1, 2, 4]);
    expect(evaluate(curve, -5)).toBe(1);
    expect(evaluate(curve, 50)).toBe(4);
    expect(() => monotoneCurve([0, 0], [1, 2])).toThrow(CurveError);
    expect(() => monotoneCurve([], [])).toThrow(CurveError);
  });
});
