import { describe, expect, it } from 'vitest';
import { memoFew, memoLast, memoOf, memoPair } from './memo.js';

/** Counts how often it is asked. */
const counted = () => {
  let asked = 0;
  return { work: (thing: { readonly n: number }) => ((asked += 1), thing.n * 2), asked: () => asked };
};

describe('memoLast', () => {
  it('works again only when an argument is another', () => {
    const { work, asked } = counted();
    const remembered = memoLast(work);
    const [one, other] = [{ n: 1 }, { n: 2 }];
    expect([one, one, other, other, one].map((thing) => remembered(thing))).toEqual([2, 2, 4, 4, 2]);
    expect(asked()).toBe(3);
  });
  it('keeps what it had when the work fails', () => {
    const remembered = memoLast((n: number) => {
      if (n < 0) throw new Error('below nothing');
      return { n };
    });
    const one = remembered(1);
    expect(() => remembered(-1)).toThrow('below nothing');
    expect(remembered(1)).toBe(one);
  });
});

describe('memoFew', () => {
  it('remembers the last four and forgets the fifth', () => {
    const { work, asked } = counted();
    const remembered = memoFew(work);
    const things = Array.from({ length: 5 }, (_, n) => ({ n }));
    const four = things.slice(0, 4);
    for (const thing of [...four, ...four]) expect(remembered(thing)).toBe(thing.n * 2);
    expect(asked()).toBe(4);
    things.forEach((thing) => remembered(thing));
    // the fifth took the place of the first
    expect(asked()).toBe(5);
    expect(remembered({ n: 0 })).toBe(0);
    expect(asked()).toBe(6);
  });
});

describe('memoOf and memoPair', () => {
  it('tell things apart by identity, not by what they hold', () => {
    const { work, asked } = counted();
    const remembered = memoOf(work);
    const one = { n: 3 };
    expect([remembered(one), remembered(one), remembered({ n: 3 })]).toEqual([6, 6, 6]);
    expect(asked()).toBe(2);
  });
  it('remember a result that is nothing', () => {
    let asked = 0;
    const remembered = memoOf<object, null>(() => ((asked += 1), null));
    const one = {};
    expect([remembered(one), remembered(one)]).toEqual([null, null]);
    expect(asked).toBe(1);
  });
  it('keep the order of a pair', () => {
    const less = memoPair((a: { readonly n: number }, b: { readonly n: number }) => a.n - b.n);
    const [one, other] = [{ n: 5 }, { n: 2 }];
    expect([less(one, other), less(other, one), less(one, other)]).toEqual([3, -3, 3]);
  });
});
