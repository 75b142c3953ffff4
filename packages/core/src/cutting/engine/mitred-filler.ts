import { BarFiller } from './bar-filler.js';
import type { Filler, FillTaste, JoinTaste, Laid } from './filling.js';
import type { EngineJob } from '../job/job.js';
import { chainOf } from '../job/mitres.js';

const MOST_TRIES = 8;

/** Fills bars with parts whose ends are not square: lengths are chosen by their middles, then laid so that ends interlock. */
export class MitredFiller implements Filler {
  private readonly inner: BarFiller;
  private pool: readonly number[] = [];
  private chain: Laid[] = [];

  constructor(
    private readonly job: EngineJob,
    random: () => number,
  ) {
    this.inner = new BarFiller(job, random);
  }

  load(pool: readonly number[]): void {
    this.pool = pool;
    this.inner.load(pool);
  }

  fill(space: number, width: number, join: JoinTaste, taste: FillTaste): number {
    const { job, inner } = this;
    let target = space;
    let parts: number[] = [];
    let chain = chainOf(job, []);
    for (let attempt = 0; attempt < MOST_TRIES; attempt += 1) {
      if (inner.fill(target, width, join, taste) === 0) break;
      parts = inner.laid().map((laid) => laid.part);
      chain = chainOf(job, parts);
      if (chain.length <= space - job.kerf) break;
      target -= Math.max(1, chain.length - (space - job.kerf));
    }
    const size = (part: number): number => (job.parts[part]?.length ?? 0) + job.kerf;
    // what still runs over gives up its smallest
    while (parts.length > 0 && chain.length > space - job.kerf) {
      const smallest = parts.reduce((least, part, i) => (size(part) < size(parts[least] ?? 0) ? i : least), 0);
      parts.splice(smallest, 1);
      chain = chainOf(job, parts);
    }
    if (parts.length === 0) {
      // one part that fits is better than none
      const reach = (part: number): number => job.parts[part]?.ends?.long ?? job.parts[part]?.length ?? Infinity;
      const fitting = this.pool.filter((part) => reach(part) <= space - job.kerf);
      const [first] = fitting.sort((a, b) => reach(b) - reach(a));
      if (first === undefined) {
        this.chain = [];
        return 0;
      }
      parts = [first];
      chain = chainOf(job, parts);
    }
    this.chain = chain.laid;
    return parts.reduce((sum, part) => sum + size(part) * width, 0);
  }

  left(): number[] {
    const left = [...this.pool];
    for (const { part } of this.chain) left.splice(left.indexOf(part), 1);
    return left;
  }

  laid(x = 0, y = 0): Laid[] {
    return this.chain.map((laid) => ({ ...laid, x: laid.x + x, y }));
  }
}
