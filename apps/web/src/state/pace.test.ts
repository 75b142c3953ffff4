import { describe, expect, it } from 'vitest';
import { createPace } from './pace.js';

/** A clock that stands still until it is moved, and drawing that takes as long as it is told to. */
function bench() {
  let now = 0;
  let turns: { readonly at: number; readonly work: () => void }[] = [];
  const bench = {
    takes: 0,
    runs: 0,
    pace: createPace({
      now: () => now,
      after: (work, ms) => void turns.push({ at: now + ms, work }),
      atOnce: (work) => {
        work();
        now += bench.takes;
        bench.runs += 1;
      },
    }),
    to: (ms: number): void => {
      now = Math.max(now, ms);
      const due = turns.filter(({ at }) => at <= now);
      turns = turns.filter((turn) => !due.includes(turn));
      for (const { work } of due) work();
    },
    set: () => turns.length,
  };
  return bench;
}

describe('what is shown beside a drag', () => {
  it('is drawn all at once, with the newest of each', () => {
    const { pace, to, set } = bench();
    const seen: string[] = [];
    const leave = pace.join(() => seen.push('first, old'));
    pace.join(() => seen.push('second'));
    leave();
    pace.join(() => seen.push('first'));
    expect([seen, set()]).toEqual([[], 1]);
    to(0);
    expect(seen).toEqual(['second', 'first']);
  });
  it('then waits sixteen times as long as that took, and at least three hundredths of a second', () => {
    const at = bench();
    const seen: number[] = [];
    at.takes = 10;
    at.pace.join(() => seen.push(1));
    at.to(0);
    at.pace.join(() => seen.push(2));
    at.to(10 + 159);
    expect(seen).toEqual([1]);
    at.to(10 + 160);
    expect(seen).toEqual([1, 2]);
    // quickly drawn: soon again
    at.takes = 1;
    at.to(10_000);
    at.pace.join(() => seen.push(3));
    at.to(10_000);
    at.pace.join(() => seen.push(4));
    at.to(10_001 + 29);
    expect(seen).toEqual([1, 2, 3]);
    at.to(10_001 + 30);
    expect(seen).toEqual([1, 2, 3, 4]);
  });
  it('but never longer than four fifths of a second, however slowly it is drawn', () => {
    const at = bench();
    const seen: number[] = [];
    at.takes = 400;
    at.pace.join(() => seen.push(1));
    at.to(0);
    at.pace.join(() => seen.push(2));
    at.to(400 + 799);
    expect(seen).toEqual([1]);
    at.to(400 + 800);
    expect(seen).toEqual([1, 2]);
  });
  it('draws nothing when whoever waited has left', () => {
    const at = bench();
    at.pace.join(() => undefined)();
    at.to(0);
    expect(at.runs).toBe(0);
    const seen: number[] = [];
    at.pace.join(() => seen.push(1));
    at.to(100);
    expect(seen).toEqual([1]);
  });
});
