import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { LESSER_PX, MARK_PX, markPlaces, markSizes } from './mark-places.js';

const far = ([a, b]: readonly [number, number], [c, d]: readonly [number, number]): number => Math.hypot(a - c, b - d);

describe('the places of numbered marks', () => {
  it('are their own where nothing is in the way', () => {
    expect(
      markPlaces(
        [
          [100, 100],
          [200, 100],
        ],
        [],
      ),
    ).toEqual([
      [100, 100],
      [200, 100],
    ]);
  });
  it('are beside each other where several speak of one place, the first on it', () => {
    const places = markPlaces(
      Array.from({ length: 7 }, () => [50, 50] as const),
      [],
    );
    expect(places[0]).toEqual([50, 50]);
    for (const [i, a] of places.entries())
      for (const b of places.slice(i + 1)) expect(far(a, b)).toBeGreaterThanOrEqual(26);
    // seven of them in a ring and a middle
    expect(Math.max(...places.map((place) => far(place, [50, 50])))).toBeLessThan(45);
  });
  it('cover no name', () => {
    const name = { x0: 40, x1: 120, y0: 90, y1: 104 };
    const [place] = markPlaces([[80, 97]], [name]);
    if (!place) throw new Error('there is one');
    const [x, y] = place;
    expect(Math.hypot(Math.max(name.x0 - x, 0, x - name.x1), Math.max(name.y0 - y, 0, y - name.y1))).toBeGreaterThan(
      MARK_PX - 0.001,
    );
    expect(far(place, [80, 97])).toBeLessThan(30);
  });
  it('stay apart from each other however they fall, forty of them, and one has as many as were asked for', () => {
    const at = fc.tuple(fc.integer({ min: 0, max: 500 }), fc.integer({ min: 0, max: 300 }));
    const box = fc
      .tuple(at, fc.integer({ min: 10, max: 120 }))
      .map(([[x, y], wide]) => ({ x0: x, x1: x + wide, y0: y, y1: y + 14 }));
    fc.assert(
      fc.property(fc.array(at, { maxLength: 40 }), fc.array(box, { maxLength: 8 }), (wanted, names) => {
        const places = markPlaces(wanted, names);
        expect(places).toHaveLength(wanted.length);
        for (const [i, a] of places.entries())
          for (const b of places.slice(i + 1)) expect(far(a, b)).toBeGreaterThanOrEqual(25.999);
      }),
      { seed: 11, numRuns: 60 },
    );
  });
  it('are smaller for lesser notes where there are many, and closer by as much', () => {
    const lesser = Array.from({ length: 12 }, (_, i) => i % 2 === 1);
    expect(new Set(markSizes(lesser))).toEqual(new Set([MARK_PX]));
    expect(new Set(markSizes(lesser, true))).toEqual(new Set([LESSER_PX]));
    const sizes = markSizes([...lesser, true]);
    expect(sizes.slice(0, 2)).toEqual([MARK_PX, LESSER_PX]);
    const places = markPlaces(
      sizes.map(() => [200, 200] as const),
      [],
      sizes,
    );
    const least = places.flatMap((a, i) =>
      places.slice(i + 1).map((b, j) => far(a, b) - (sizes[i] ?? 0) - (sizes[i + 1 + j] ?? 0)),
    );
    expect(Math.min(...least)).toBeGreaterThanOrEqual(1.999);
    expect(Math.min(...least)).toBeLessThan(6);
  });
});
