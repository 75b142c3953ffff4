import { describe, expect, it } from 'vitest';
import type { LayoutFigures } from './compare-layouts.js';
import { scoreOf } from './suggest.js';

const NOTHING: LayoutFigures = {
  fails: 0,
  tight: 0,
  comfort: [],
  storage: { low: 0, middle: 0, high: 0 },
  worktop: 0,
  way: 0,
  kg: 0,
  cost: 0,
  hours: 0,
  sheets: 0,
  glass: 0,
};
const NONE = { storage: 0, worktop: 0, way: 0, glass: 0, comfort: 0 };
const sleeps = (...spare: readonly number[]): LayoutFigures['comfort'] =>
  spare.map((one, i) => ({ person: `p${i}`, name: `P${i}`, spare: one }));

describe('the score of a proposal', () => {
  it.each([
    // a cubic metre of storage is all that counts, 1.5 m of worktop, 800 of way, all glass, 200 beyond good for who lies worst
    ['storage', { storage: { low: 100, middle: 200, high: 200 } }, 0.5],
    ['storage', { storage: { low: 900, middle: 200, high: 200 } }, 1],
    ['worktop', { worktop: 750 }, 0.5],
    ['way', { way: 600 }, 0.75],
    ['way', { way: null }, 1],
    ['glass', { glass: 0.4 }, 0.4],
    ['glass', { glass: null }, 1],
    ['comfort', { comfort: sleeps(50, 150) }, 0.25],
    ['comfort', { comfort: sleeps(300, -100) }, -0.5],
    ['comfort', { comfort: sleeps(-900) }, -1],
    ['comfort', {}, 0],
    ['storage', { tight: 2 }, -0.06],
  ] as const)('weighs %s: %j is %f', (what, figures, score) => {
    expect(scoreOf({ ...NOTHING, ...figures }, { weights: { ...NONE, [what]: 1 } })).toBeCloseTo(score, 9);
    // twice as dear is twice as much, but for what is tight
    if (!('tight' in figures))
      expect(scoreOf({ ...NOTHING, ...figures }, { weights: { ...NONE, [what]: 2 } })).toBeCloseTo(2 * score, 9);
  });
});
