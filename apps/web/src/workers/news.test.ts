import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { foundByPlace, toldByName, toldByPlace } from './news.js';

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
  it('is the very list that was there where nothing of it is new', () => {
    const there = list(a, b, c);
    expect(foundByPlace(structuredClone(toldByPlace(list(a, b, c), there)), there)).toBe(there);
    expect(foundByPlace([0, 1], there)).toEqual([a, b]);
    expect(foundByPlace([1, 0, 2], there)).toEqual([b, a, c]);
  });
});

describe('a list of what is worked out anew each time', () => {
  const said = (id: string, spare: number) => ({ id, spare });
  const nameOf = ({ id }: { readonly id: string }): string => id;
  const there = [said('head', 20), said('door', 5), said('way', 480)];
  it('tells by its place what says the same as before under its name, wherever it stands now', () => {
    const next = [said('way', 480), said('head', 25), said('door', 5), said('knee', 30)];
    expect(toldByName(next, there, nameOf)).toEqual([2, said('head', 25), 1, said('knee', 30)]);
    // and once more, from what is remembered
    expect(toldByName(next, there, nameOf)).toEqual([2, said('head', 25), 1, said('knee', 30)]);
    expect(toldByName(next, undefined, nameOf)).toBe(next);
  });
  it('comes out as what is said now, whatever is the same', () => {
    fc.assert(
      fc.property(
        fc.uniqueArray(fc.record({ id: fc.constantFrom(...'abcdef'), spare: fc.nat(2) }), { selector: nameOf }),
        fc.uniqueArray(fc.record({ id: fc.constantFrom(...'abcdef'), spare: fc.nat(2) }), { selector: nameOf }),
        (before, next) => {
          const found = foundByPlace(structuredClone(toldByName(next, before, nameOf)), before);
          expect(found).toEqual(next);
          for (const one of found)
            expect(before.includes(one)).toBe(before.some(({ id, spare }) => id === one.id && spare === one.spare));
        },
      ),
      { seed: 7, numRuns: 300 },
    );
  });
});
