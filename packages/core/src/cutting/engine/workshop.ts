import { FreeFiller } from './free-filler.js';
import { BarFiller } from './bar-filler.js';
import { SheetFiller } from './filler.js';
import { MitredFiller } from './mitred-filler.js';
import type { Filled, Filler, Laid } from './filling.js';
import { areaOfPart, fits, type EngineJob } from '../job/job.js';
import { spacesOf, type Space } from './spaces.js';
import { PLAIN_WAY, Ways, type Way } from './ways.js';

/** Sheets and what is still to be placed, by the parts' indices. */
export interface Solution {
  readonly sheets: readonly Filled[];
  readonly left: readonly number[];
  readonly cost: number;
  /** Sum over the sheets of the square of their filled share: large when one sheet is nearly empty. */
  readonly squares: number;
}

interface Made {
  readonly laid: Laid[];
  readonly left: number[];
  readonly area: number;
}

/** Shares of steps that do one thing rather than another; found by trial on drawn jobs of many kinds. */
const EMPTIEST_OUT = 0.8;
const MOST_ROOMS = 3;
const WHOLE_SHEET = 0.2;
const TRIES_OF_ONE = [4, 16, 64] as const;
const TRIES_OF_SEVERAL = [1, 4, 16] as const;
const LAST_TRIES = 16;

/** The ways to make a solution and to change one. Every draw comes from one stream, so that a seed gives one result. */
export class Workshop {
  /** Every piece of the job, by its part's index. */
  readonly pool: readonly number[];
  /** More than one size of sheet is on offer. */
  readonly several: boolean;
  private readonly filler: Filler;
  private readonly ways: Ways;
  private readonly lengths: readonly number[];
  private readonly widths: readonly number[];
  private readonly areas: readonly number[];
  private readonly partAreas: readonly number[];
  private readonly fitting: readonly (readonly boolean[])[];

  constructor(
    readonly job: EngineJob,
    private readonly random: () => number,
  ) {
    this.filler = job.bars
      ? job.mitred
        ? new MitredFiller(job, random)
        : new BarFiller(job, random)
      : job.free
        ? new FreeFiller(job, random)
        : new SheetFiller(job, random);
    this.ways = new Ways(random);
    this.several = job.stock.length > 1;
    this.lengths = job.stock.map((s) => s.length + job.kerf);
    this.widths = job.stock.map((s) => s.width + job.kerf);
    this.areas = job.stock.map((_, i) => this.length(i) * this.width(i));
    this.partAreas = job.parts.map((part) => areaOfPart(job, part));
    this.fitting = job.stock.map((s) => job.parts.map((part) => fits(part, s)));
    this.pool = job.parts.flatMap((part, i) => Array.from({ length: part.quantity }, () => i));
  }

  private length(kind: number): number {
    return this.lengths[kind] ?? 0;
  }
  private width(kind: number): number {
    return this.widths[kind] ?? 0;
  }
  private areaOf(kind: number): number {
    return this.areas[kind] ?? 0;
  }
  private price(kind: number): number {
    return this.job.stock[kind]?.price ?? 0;
  }
  private tries(): number {
    if (this.job.free) return 1;
    const list = this.several ? TRIES_OF_SEVERAL : TRIES_OF_ONE;
    return list[Math.floor(this.random() * list.length)] ?? 1;
  }

  measure(sheets: readonly Filled[], left: readonly number[]): Solution {
    let cost = 0;
    let squares = 0;
    for (const sheet of sheets) {
      cost += this.price(sheet.stock);
      squares += (sheet.area / this.areaOf(sheet.stock)) ** 2;
    }
    return { sheets, left, cost, squares };
  }

  /** The first plan: large parts first, no draw of luck. */
  plain(): Solution {
    return this.fillUp([], this.pool, 1, Infinity, PLAIN_WAY) ?? this.measure([], this.pool);
  }

  /** A plan from nothing in a drawn way, unless it would cost more than `most`. */
  anew(most: number): Solution | null {
    return this.fillUp([], this.pool, 1, most);
  }

  /** The fullest of several tries to fill a rectangle from the loaded pool. */
  private fullest(space: Omit<Space, 'inside'>, tries: number, fixed?: Way): Made | null {
    const { filler, ways } = this;
    let best: (Made & { readonly way: Way }) | null = null;
    for (let attempt = 0; attempt < tries; attempt += 1) {
      const way = fixed ?? ways.draw();
      const area = filler.fill(space.length, space.width, way.join, way.taste);
      if (area === 0 || (best && area <= best.area)) continue;
      best = { laid: filler.laid(space.x, space.y), left: filler.left(), area, way };
      if (best.left.length === 0) return best;
    }
    if (best && tries > 1) ways.remember(best.way);
    return best;
  }

  private wholeSheet(kind: number): Omit<Space, 'inside'> {
    return { x: 0, y: 0, length: this.length(kind), width: this.width(kind) };
  }

  /** Puts a pool on new sheets until none is left or no sheet takes any, choosing the kind of sheet by price for what goes on it. */
  private fillUp(
    kept: readonly Filled[],
    pool: readonly number[],
    tries: number,
    most: number,
    fixed?: Way,
  ): Solution | null {
    const { job, random, filler } = this;
    const sheets = [...kept];
    const used = job.stock.map((_, i) => kept.filter((sheet) => sheet.stock === i).length);
    let cost = kept.reduce((sum, sheet) => sum + this.price(sheet.stock), 0);
    let left: readonly number[] = pool;
    while (left.length > 0) {
      filler.load(left);
      let best: { made: Made; kind: number; value: number } | null = null;
      for (let kind = 0; kind < job.stock.length; kind += 1) {
        if ((used[kind] ?? 0) >= (job.stock[kind]?.quantity ?? 0)) continue;
        if (this.several && !left.some((part) => this.fitting[kind]?.[part])) continue;
        const made = this.fullest(this.wholeSheet(kind), tries, fixed);
        if (!made) continue;
        const value = (made.area / Math.max(1, this.price(kind))) * (this.several && !fixed ? 0.9 + 0.2 * random() : 1);
        if (!best || value > best.value) best = { made, kind, value };
      }
      if (!best) break;
      sheets.push({ stock: best.kind, laid: best.made.laid, area: best.made.area });
      used[best.kind] = (used[best.kind] ?? 0) + 1;
      cost += this.price(best.kind);
      left = best.made.left;
      if (cost > most) return null;
    }
    return this.measure(sheets, left);
  }

  private limitOf(now: Solution): number {
    return now.left.length === 0 ? now.cost : Infinity;
  }

  private takeOut(now: Solution, out: ReadonlySet<number>): { readonly kept: Filled[]; readonly pool: number[] } {
    const pool = [...now.left];
    now.sheets.forEach((sheet, i) => {
      if (out.has(i)) for (const laid of sheet.laid) pool.push(laid.part);
    });
    return { kept: now.sheets.filter((_, i) => !out.has(i)), pool };
  }

  /** Takes out a few sheets, the emptiest often among them, and puts their parts on sheets anew. */
  rebuild(now: Solution): Solution | null {
    const { random } = this;
    const count = Math.min(now.sheets.length, 4, 2 + Math.floor(random() * 3));
    const order = now.sheets
      .map((sheet, i) => ({ i, key: random() * (random() < 0.5 ? 1 : sheet.area) }))
      .sort((a, b) => a.key - b.key);
    const { kept, pool } = this.takeOut(now, new Set(order.slice(0, count).map(({ i }) => i)));
    return this.fillUp(kept, pool, this.tries(), this.limitOf(now));
  }

  private sizeOf(laid: Laid): { readonly length: number; readonly width: number } {
    const part = this.job.parts[laid.part];
    const [length, width] = [(part?.length ?? 0) + this.job.kerf, (part?.width ?? 0) + this.job.kerf];
    return laid.turned ? { length: width, width: length } : { length, width };
  }

  /** Clears a space on a few sheets and the whole of one, mostly the emptiest, and fills them anew, that one last. */
  refill(now: Solution): Solution | null {
    const { random, filler } = this;
    if (now.sheets.length < 2) return null;
    const order = now.sheets.map((_, i) => i).sort((a, b) => (now.sheets[a]?.area ?? 0) - (now.sheets[b]?.area ?? 0));
    const last = (random() < EMPTIEST_OUT ? order[0] : Math.floor(random() * order.length)) ?? 0;
    const others = order.filter((i) => i !== last);
    let left = this.takeOut(now, new Set([last])).pool;
    const cleared: { readonly at: number; readonly space: Space; readonly kept: Filled }[] = [];
    const count = Math.min(others.length, 1 + Math.floor(random() * MOST_ROOMS));
    for (let i = 0; i < count; i += 1) {
      const at = others.splice(Math.floor(random() * others.length), 1)[0] ?? 0;
      const sheet = now.sheets[at];
      if (!sheet) continue;
      const spaces = spacesOf(sheet, this.length(sheet.stock), this.width(sheet.stock), (laid) => this.sizeOf(laid));
      // parts with angled ends interlock with their neighbours: their bar is only cleared as a whole
      const space = spaces[this.job.mitred || random() < WHOLE_SHEET ? 0 : Math.floor(random() * spaces.length)];
      if (!space) continue;
      const inside = new Set(space.inside);
      const kept = sheet.laid.filter((_, index) => !inside.has(index));
      for (const index of inside) left.push(sheet.laid[index]?.part ?? 0);
      const area = kept.reduce((sum, laid) => sum + (this.partAreas[laid.part] ?? 0), 0);
      cleared.push({ at, space, kept: { stock: sheet.stock, laid: kept, area } });
    }
    const sheets = [...now.sheets];
    const tries = this.tries();
    for (const { at, space, kept } of cleared) {
      sheets[at] = kept;
      if (left.length === 0) continue;
      filler.load(left);
      const made = this.fullest(space, tries);
      if (!made) continue;
      sheets[at] = { stock: kept.stock, laid: [...kept.laid, ...made.laid], area: kept.area + made.area };
      left = made.left;
    }
    const rest = sheets.filter((sheet, i) => i !== last && sheet.laid.length > 0);
    return this.fillUp(rest, left, this.job.free ? 1 : LAST_TRIES, this.limitOf(now));
  }

  /** Kinds of sheet, by weighted draw, that together have space enough for an area and cost less than a limit. */
  private drawMix(area: number, limit: number, free: number[]): number[] | null {
    const mix: number[] = [];
    let space = 0;
    let cost = 0;
    while (space < area) {
      let best = -1;
      let least = Infinity;
      for (let kind = 0; kind < free.length; kind += 1) {
        if ((free[kind] ?? 0) < 1 || cost + this.price(kind) >= limit) continue;
        // space beyond what is missing is worth nothing
        const use = Math.min(this.areaOf(kind), (area - space) * 1.05);
        const dear = ((this.price(kind) + 1) / use) * (0.6 + 0.8 * this.random());
        if (dear < least) {
          least = dear;
          best = kind;
        }
      }
      if (best < 0) return null;
      mix.push(best);
      free[best] = (free[best] ?? 0) - 1;
      space += this.areaOf(best);
      cost += this.price(best);
    }
    return mix;
  }

  /** Takes out a few sheets and puts their parts on a cheaper mix of kinds, if they go on it. */
  remix(now: Solution): Solution | null {
    const { random, filler } = this;
    const count = Math.min(now.sheets.length, 1 + Math.floor(random() * 5));
    const order = now.sheets.map((_, i) => ({ i, key: random() })).sort((a, b) => a.key - b.key);
    const out = order.slice(0, count).map(({ i }) => i);
    const { kept, pool } = this.takeOut(now, new Set(out));
    const price = out.reduce((sum, i) => sum + this.price(now.sheets[i]?.stock ?? 0), 0);
    const area = out.reduce((sum, i) => sum + (now.sheets[i]?.area ?? 0), 0);
    const free = this.job.stock.map((s, kind) => s.quantity - kept.filter((sheet) => sheet.stock === kind).length);
    const limit = now.left.length > 0 ? Infinity : random() < 0.3 ? price + 1 : price;
    const mix = this.drawMix(area / (0.86 + 0.135 * random()), limit, free);
    if (!mix) return null;
    const bySize = random();
    if (bySize < 0.75) mix.sort((a, b) => (this.areaOf(b) - this.areaOf(a)) * (bySize < 0.5 ? 1 : -1));
    const tries = this.tries();
    const sheets = [...kept];
    let left: readonly number[] = pool;
    for (const kind of mix) {
      if (left.length === 0) break;
      filler.load(left);
      const made = this.fullest(this.wholeSheet(kind), tries);
      if (!made) continue;
      sheets.push({ stock: kind, laid: made.laid, area: made.area });
      left = made.left;
    }
    return left.length === 0
      ? this.measure(sheets, left)
      : this.fillUp(sheets, left, this.job.free ? 1 : 4, this.limitOf(now));
  }
}
