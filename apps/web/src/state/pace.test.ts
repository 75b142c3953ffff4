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
  it('is drawn in one turn while that is short, first come first, but not for those who have left', () => {
    const at = bench();
    at.takes = 1;
    const seen: string[] = [];
    const leave = at.pace.join(() => seen.push('first'));
    at.pace.join(() => seen.push('second'));
    at.pace.join(() => seen.push('third'));
    leave();
    expect([seen, at.set()]).toEqual([[], 1]);
    at.to(0);
    expect([seen, at.runs, at.set()]).toEqual([['second', 'third'], 2, 0]);
  });
  it('and in the next turn what would make it long; whoever comes again meanwhile waits behind them', () => {
    const at = bench();
    at.takes = 2;
    const seen: string[] = [];
    for (const name of ['a', 'b', 'c', 'd', 'e']) at.pace.join(() => seen.push(name));
    at.to(0);
    // two of two ms each; three are not begun
    expect(seen).toEqual(['a', 'b']);
    at.pace.join(() => seen.push('a again'));
    // sixteen times four ms behind it
    at.to(4 + 63);
    expect(seen).toEqual(['a', 'b']);
    at.to(4 + 64);
    expect(seen).toEqual(['a', 'b', 'c', 'd']);
    at.to(10_000);
    expect(seen).toEqual(['a', 'b', 'c', 'd', 'e', 'a again']);
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
  it('but never longer than four fifths of a second, however slowly it is drawn and however many wait', () => {
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
    at.to(10_000);
    for (let i = 3; i <= 6; i += 1) at.pace.join(() => seen.push(i));
    at.to(10_000);
    // what still waits would have waited so long by then; after that the hand has as much of the time as they
    at.to(10_400 + 399);
    expect(seen).toEqual([1, 2, 3]);
    at.to(10_400 + 400);
    expect(seen).toEqual([1, 2, 3, 4]);
    at.to(11_200 + 399);
    expect(seen).toEqual([1, 2, 3, 4]);
    at.to(11_200 + 400);
    expect(seen).toEqual([1, 2, 3, 4, 5]);
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
