import type { Filler, FillTaste, JoinTaste, Laid } from './filling.js';
import type { EngineJob } from '../job/job.js';

const MOST_VISITS = 6000;

/**
 * Fills one bar after another from a pool: the subset of lengths that leaves least, by a short depth-first search. The
 * draw of luck is in what a length is counted for and in whether the longest must be on it.
 */
export class BarFiller implements Filler {
  private kinds: number[] = [];
  private counts: number[] = [];
  private taken: number[] = [];

  constructor(
    private readonly job: EngineJob,
    private readonly random: () => number,
  ) {}

  private size(part: number): number {
    return (this.job.parts[part]?.length ?? 0) + this.job.kerf;
  }

  load(pool: readonly number[]): void {
    const counts = new Map<number, number>();
    for (const part of pool) counts.set(part, (counts.get(part) ?? 0) + 1);
    this.kinds = [...counts.keys()].sort((a, b) => this.size(b) - this.size(a) || a - b);
    this.counts = this.kinds.map((part) => counts.get(part) ?? 0);
  }

  /** Disturbs the order in which lengths are tried: 1 is any order. */
  private shuffle(share: number): void {
    const key = new Map(this.kinds.map((part) => [part, this.size(part) * (1 + share * (2 * this.random() - 1))]));
    const order = this.kinds.map((part, i) => ({ part, count: this.counts[i] ?? 0 }));
    order.sort((a, b) => (key.get(b.part) ?? 0) - (key.get(a.part) ?? 0) || a.part - b.part);
    this.kinds = order.map(({ part }) => part);
    this.counts = order.map(({ count }) => count);
  }

  /** Returns the area placed, a bar being one part wide. */
  fill(space: number, width: number, join: JoinTaste, taste: FillTaste): number {
    if (join.waste >= 0) this.shuffle(taste.smallestFirst ? 1 : 0.3);
    const { kinds, counts, random } = this;
    const size = kinds.map((part) => this.size(part));
    const disturb = join.waste < 0 ? 0 : 0.15 * taste.noise;
    const worth = size.map((length) => length * (1 + disturb * random()));
    const dearest = Math.max(...worth.map((w, i) => w / (size[i] ?? 1)), 1);
    const now = kinds.map(() => 0);
    let left = space;
    const longest = size.reduce(
      (at, length, i) => (length <= space && length > (at < 0 ? 0 : (size[at] ?? 0)) ? i : at),
      -1,
    );
    if (longest < 0) {
      this.taken = now;
      return 0;
    }
    let sum = 0;
    if (random() < 0.6 || join.waste < 0) {
      now[longest] = 1;
      left -= size[longest] ?? 0;
      sum = worth[longest] ?? 0;
    }
    let best = [...now];
    let bestSum = sum;
    let visits = 0;
    const smallest: number[] = [];
    for (let i = size.length - 1; i >= 0; i -= 1) smallest[i] = Math.min(size[i] ?? 0, smallest[i + 1] ?? Infinity);
    const most = MOST_VISITS * (join.waste < 0 ? 0.2 : random() ** 3 + 0.01);
    const exactly = new Map(size.map((length, i) => [length, i]));
    const walk = (depth: number, rest: number, reached: number): void => {
      if (reached > bestSum) {
        bestSum = reached;
        best = [...now];
      }
      // one length that fills the rest exactly ends the search
      const last = exactly.get(rest);
      if (last !== undefined && last >= depth && (now[last] ?? 0) < (counts[last] ?? 0)) {
        now[last] = (now[last] ?? 0) + 1;
        bestSum = Infinity;
        best = [...now];
        now[last] -= 1;
        return;
      }
      visits += 1;
      if (visits > most || bestSum === Infinity || depth === kinds.length || rest < (smallest[depth] ?? Infinity))
        return;
      if (reached + rest * dearest <= bestSum) return;
      const own = size[depth] ?? 1;
      const before = now[depth] ?? 0;
      for (let count = Math.min((counts[depth] ?? 0) - before, Math.floor(rest / own)); count >= 0; count -= 1) {
        now[depth] = before + count;
        walk(depth + 1, rest - count * own, reached + count * (worth[depth] ?? 0));
        if (visits > most || bestSum === Infinity) break;
      }
      now[depth] = before;
    };
    walk(0, left, sum);
    this.taken = best;
    return best.reduce((total, count, i) => total + count * (size[i] ?? 0) * width, 0);
  }

  left(): number[] {
    return this.kinds.flatMap((part, i) =>
      Array.from({ length: (this.counts[i] ?? 0) - (this.taken[i] ?? 0) }, () => part),
    );
  }

  laid(x = 0, y = 0): Laid[] {
    let at = x;
    const laid: Laid[] = [];
    this.kinds.forEach((part, i) => {
      for (let count = 0; count < (this.taken[i] ?? 0); count += 1) {
        laid.push({ part, x: at, y, turned: false });
        at += this.size(part);
      }
    });
    return laid;
  }
}
