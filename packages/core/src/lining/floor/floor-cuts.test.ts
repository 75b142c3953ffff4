import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { floorCuts, type FloorCut } from './floor-cuts.js';

/** Seams between the strips of a way. */
const between = ({ strips }: FloorCut): number[] => strips.slice(1).map(({ span: [at] }) => at);
const apart = (a: readonly number[], b: readonly number[]): number =>
  Math.min(...a.flatMap((one) => b.map((other) => Math.abs(one - other))));

describe('two boards of a floor', () => {
  it('laid in strips of whole sheets, the upper begun with half of one, have their seams half a sheet apart', () => {
    // 3000 long in strips of 1200: 1200, 1200, 600 beneath; 600, 1200, 1200 over it
    const ways = floorCuts([0, 3000], [0, 1700], { length: 2400, width: 1200 }, 'across', 150, true);
    const beneath = ways.find((way) => between(way).join() === '1200,2400');
    const over = ways.find((way) => between(way).join() === '600,1800');
    expect(beneath).toBeDefined();
    expect(over?.strips.map(({ span: [from, to] }) => to - from)).toEqual([600, 1200, 1200]);
    expect(apart(between(beneath as FloorCut), between(over as FloorCut))).toBe(600);
  });
  it('have, over equal pieces, a way whose seams lie in their middles', () => {
    fc.assert(
      fc.property(fc.integer({ min: 1300, max: 9000 }), (long) => {
        const ways = floorCuts([0, long], [0, 1700], { length: 2400, width: 1200 }, 'across', 100, true);
        const equal = ways.find(({ equal: is }) => is);
        if (!equal) throw new Error('equal pieces');
        const piece = long / equal.strips.length;
        expect(ways.some((way) => Math.abs(apart(between(equal), between(way)) - piece / 2) < 1e-6)).toBe(true);
        for (const { strips } of ways)
          for (const { span } of strips) expect(span[1] - span[0]).toBeLessThanOrEqual(1200 + 1e-6);
      }),
      { seed: 3 },
    );
  });
});
