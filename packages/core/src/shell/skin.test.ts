import { describe, expect, it } from 'vitest';
import type { Opening } from '../document/schema.js';
import { monotoneCurve } from '../numeric/curve.js';
import { openingArea, type PlacedOpening } from './openings.js';
import { makeShell } from './shell.js';
import { revealsOf, skinsOf, type Facet } from './skin.js';

const window = (surface: Opening['surface'], edges: Partial<PlacedOpening> = {}): PlacedOpening => ({
  opening: {
    id: 'w',
    name: 'Window',
    kind: 'window',
    surface,
    cornerRadius: 60,
    swing: 'fixed',
    hand: 'none',
    slanted: false,
    framed: true,
    ring: null,
  },
  from: 1000,
  to: 1700,
  fromHead: 1000,
  toHead: 1700,
  sill: 800,
  head: 1300,
  ...edges,
});
/** A box 3000 long, 1800 wide, its walls 1600 high under a flat roof; its floor 40 up. */
const wall = monotoneCurve([0, 800, 1600], [900, 900, 900]);
const roof = monotoneCurve([-900, 0, 900], [1600, 1600, 1600]);
const box = makeShell(
  3000,
  40,
  [0, 1500, 3000].map((x) => ({ x, left: wall, right: wall, roof })),
);

/** Area of a facet by its own plane, m2: half the length of the sum of its edges' cross products. */
function area(facet: Facet): number {
  const [first] = facet;
  if (!first) return 0;
  const sum = [0, 0, 0];
  facet.forEach((place, i) => {
    const next = facet[(i + 1) % facet.length] ?? first;
    const [a, b] = [place, next].map((p) => p.map((v, k) => v - (first[k] ?? 0))) as [number[], number[]];
    for (const k of [0, 1, 2]) {
      const [m, n] = [(k + 1) % 3, (k + 2) % 3];
      sum[k] = (sum[k] ?? 0) + (a[m] ?? 0) * (b[n] ?? 0) - (a[n] ?? 0) * (b[m] ?? 0);
    }
  });
  return Math.hypot(...sum) / 2 / 1e6;
}
const total = (facets: readonly Facet[]): number => facets.reduce((sum, facet) => sum + area(facet), 0);
const skin = (surface: string, openings: readonly PlacedOpening[] = [], shell = box) => {
  const found = skinsOf(shell, openings).find((own) => own.surface === surface);
  if (!found) throw new Error(`no ${surface}`);
  return found;
};

describe('the skin of a vehicle', () => {
  it('is as large as its surfaces are: a wall 3.00 by 1.56, roof and floor 3.00 by 1.80, ends 1.80 by 1.56', () => {
    for (const side of ['left', 'right']) expect(total(skin(side).closed)).toBeCloseTo(3 * 1.56, 3);
    expect(total(skin('roof').closed)).toBeCloseTo(5.4, 3);
    expect(total(skin('floor').closed)).toBeCloseTo(5.4, 3);
    for (const end of ['front', 'rear']) expect(total(skin(end).closed)).toBeCloseTo(1.8 * 1.56, 3);
  });
  it('has its openings cut out, as large as they are, round corners and all', () => {
    const placed = window('left');
    const { closed, clear, outlines } = skin('left', [placed]);
    expect(total(clear[0]?.facets ?? [])).toBeCloseTo(openingArea(placed), 3);
    expect(total(closed)).toBeCloseTo(3 * 1.56 - openingArea(placed), 3);
    expect(outlines).toHaveLength(1);
    for (const [x, y, z] of outlines[0] ?? []) {
      expect(x).toBeGreaterThanOrEqual(1000 - 0.01);
      expect(y).toBeCloseTo(-900, 6);
      expect(z).toBeLessThanOrEqual(1300.01);
    }
    // on the other wall there is nothing
    expect(skin('right', [placed]).clear).toEqual([]);
  });
  it('follows a slanted window, one in the rear and one in the roof', () => {
    const slanted = window('right', { fromHead: 1200 });
    expect(total(skin('right', [slanted]).clear[0]?.facets ?? [])).toBeCloseTo(openingArea(slanted), 3);
    const rear = window('rear', { from: -700, to: 700, fromHead: -700, toHead: 700 });
    expect(total(skin('rear', [rear]).closed)).toBeCloseTo(1.8 * 1.56 - openingArea(rear), 3);
    const hatch = window('roof', { sill: -200, head: 200 });
    expect(total(skin('roof', [hatch]).clear[0]?.facets ?? [])).toBeCloseTo(openingArea(hatch), 3);
  });
  it('follows a wall that leans and a roof that is higher in the middle', () => {
    const leaning = monotoneCurve([0, 1400], [950, 600]);
    const arched = monotoneCurve([-600, 0, 600], [1400, 1500, 1400]);
    const shell = makeShell(
      3000,
      0,
      [0, 3000].map((x) => ({ x, left: leaning, right: leaning, roof: arched })),
    );
    expect(total(skin('left', [], shell).closed)).toBeCloseTo((3 * Math.hypot(1400, 350)) / 1000, 2);
    for (const [x, y, z] of skin('roof', [], shell).closed.flat()) {
      expect(Math.abs(y)).toBeLessThanOrEqual(600.5);
      expect(z).toBeGreaterThanOrEqual(1399.9);
      expect(x).toBeLessThanOrEqual(3000);
    }
  });
});

describe('the edge of a lining in an opening', () => {
  const lined = (by: number) => {
    const nearer = monotoneCurve([0, 800, 1600], [900 - by, 900 - by, 900 - by]);
    return makeShell(
      3000,
      40,
      [0, 1500, 3000].map((x) => ({ x, left: nearer, right: nearer, roof })),
    );
  };
  it('is as wide as the lining is thick, all the way round', () => {
    // 700 x 500 with corners of 60: 2 (580 + 380) straight, and one circle
    const round = 2 * (580 + 380) + 2 * Math.PI * 60;
    const [left] = revealsOf(lined(50), box, [window('left')]);
    expect(total(left?.facets ?? []) * 1e6).toBeGreaterThan(0.99 * 50 * round);
    expect(total(left?.facets ?? []) * 1e6).toBeLessThanOrEqual(50 * round + 1);
    expect(left?.behind.every(([, y]) => Math.abs(y + 900) < 1e-6)).toBe(true);
    expect(left?.middle[1]).toBeCloseTo(-850, 6);
  });
  it('is none where nothing is laid on, and one for each opening of either wall', () => {
    expect(revealsOf(box, box, [window('left')])).toEqual([]);
    const both = revealsOf(lined(30), box, [window('left'), window('right')]);
    expect(both.map(({ opening }) => opening.surface)).toEqual(['left', 'right']);
    expect(both.map(({ middle }) => Math.sign(middle[1]))).toEqual([-1, 1]);
  });
});
