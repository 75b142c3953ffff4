import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { remembered, sameItems, steady } from './stage.js';

interface From {
  readonly a: number;
  readonly b: number;
  readonly c: number;
  readonly d: number;
}

describe('a stage', () => {
  it('depends on what it read, and on nothing else, whatever that is from time to time', () => {
    const some = fc.integer({ min: 0, max: 2 });
    fc.assert(
      fc.property(
        fc.array(fc.record({ a: some, b: some, c: some, d: some }), { minLength: 2, maxLength: 40 }),
        (all) => {
          let worked = 0;
          // c is read where a is 0 only, d never
          const work = (from: From): number => {
            worked += 1;
            return from.a === 0 ? from.b + 10 * from.c : 100 * from.a + from.b;
          };
          const stage = remembered({ work });
          let before: From | null = null;
          for (const from of all) {
            const was = worked;
            const value = stage(from);
            const needed =
              before === null || before.a !== from.a || before.b !== from.b || (from.a === 0 && before.c !== from.c);
            expect(worked - was).toBe(needed ? 1 : 0);
            expect(value).toBe(work(from));
            before = from;
          }
        },
      ),
      { seed: 15, numRuns: 200 },
    );
  });
  it('does not ask for what it would no longer read', () => {
    const plain = remembered<{ readonly on: boolean; readonly dear: number }, number>({
      work: (from) => (from.on ? from.dear : 0),
    });
    expect(plain({ on: true, dear: 5 })).toBe(5);
    const off = {
      on: false,
      get dear(): number {
        throw new Error('it is not needed');
      },
    };
    expect(plain(off)).toBe(0);
  });
  it('keeps the value before while the new one is the same in what counts', () => {
    const stage = remembered(
      steady(({ all }: { readonly all: readonly number[] }) => all.filter((n) => n > 0), sameItems),
    );
    const first = stage({ all: [1, 2, -1] });
    expect(stage({ all: [1, -5, 2] })).toBe(first);
    expect(stage({ all: [2, 1] })).toEqual([2, 1]);
  });
  it('that fails is asked again', () => {
    let fails = true;
    const stage = remembered({
      work: ({ a }: { readonly a: number }) => {
        if (fails) throw new Error('not now');
        return a;
      },
    });
    const from = { a: 3 };
    expect(() => stage(from)).toThrow('not now');
    fails = false;
    expect(stage(from)).toBe(3);
  });
});
