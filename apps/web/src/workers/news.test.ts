import { describe, expect, it } from 'vitest';
import { foundByPlace, toldByPlace } from './news.js';

const [a, b, c, d] = ['a', 'b', 'c', 'd'].map((name) => ({ name }));
type Named = NonNullable<typeof a>;
const list = (...all: (Named | undefined)[]): Named[] => all.flatMap((one) => one ?? []);

describe('a list that crosses over', () => {
  it('tells by its place what is there already, and the rest as it is', () => {
    expect(toldByPlace(list(c, d, a), list(a, b, c))).toEqual([2, d, 0]);
    expect(toldByPlace(list(a, b), undefined)).toEqual([a, b]);
    // what only looks the same is another
    expect(toldByPlace([{ name: 'a' }], list(a))).toEqual([{ name: 'a' }]);
  });
  it('comes out as it was, with the very things that were there', () => {
    const there = list(a, b, c);
    const crossed = structuredClone(toldByPlace(list(c, d, a), there));
    const found = foundByPlace(crossed, there);
    expect(found).toEqual([c, d, a]);
    expect([found[0] === c, found[1] === d, found[2] === a]).toEqual([true, false, true]);
  });
});
