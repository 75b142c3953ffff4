import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { at, dense, inverseOf, timesTransposed, timesVector } from './dense.js';

const values = ({ data }: { data: Float64Array }): number[] => [...data];

describe('dense matrices', () => {
  it('multiply by hand', () => {
    const a = dense(2, 2, (i, j) => [1, 2, 3, 4][2 * i + j] ?? 0);
    const b = dense(2, 2, (i, j) => [5, 6, 7, 8][2 * i + j] ?? 0);
    // A B' = [1 2; 3 4] [5 7; 6 8]
    expect(values(timesTransposed(a, b))).toEqual([17, 23, 39, 53]);
    expect([...timesVector(a, [10, 1])]).toEqual([12, 34]);
  });
  it('are inverted by hand', () => {
    // 1 / (4 x 3 - 2 x 2) [3 -2; -2 4]
    const inverse = inverseOf(dense(2, 2, (i, j) => [4, 2, 2, 3][2 * i + j] ?? 0));
    for (const [i, value] of [0.375, -0.25, -0.25, 0.5].entries()) expect(values(inverse)[i]).toBeCloseTo(value, 12);
  });
  it('times their inverse are one, and what says the same twice divides by nothing', () => {
    fc.assert(
      fc.property(fc.array(fc.double({ min: -3, max: 3, noNaN: true }), { minLength: 9, maxLength: 49 }), (list) => {
        const n = Math.floor(Math.sqrt(list.length));
        const root = dense(n, n, (i, j) => list[i * n + j] ?? 0);
        const square = timesTransposed(root, root);
        const matrix = dense(n, n, (i, j) => at(square, i, j) + (i === j ? 1 : 0));
        const one = timesTransposed(matrix, inverseOf(matrix));
        for (let i = 0; i < n; i += 1)
          for (let j = 0; j < n; j += 1) expect(at(one, i, j)).toBeCloseTo(i === j ? 1 : 0, 6);
      }),
      { seed: 4, numRuns: 100 },
    );
    expect(values(inverseOf(dense(2, 2, () => 1))).every(Number.isFinite)).toBe(true);
  });
});
