import { bestLoad, type Load } from './knapsack.js';
import type { Filled, Laid } from '../engine/filling.js';
import type { EngineJob } from '../job/job.js';
import type { SolveProgram } from './program.js';

/** One way to cut a bar: how many of each part. */
interface Column {
  readonly kind: number;
  readonly counts: readonly number[];
  /** The parts it has any of. */
  readonly parts: readonly number[];
}

const EPSILON = 1e-7;
/** Further ways of a kind of bar that are taken in a round, and steps spent on each. */
const MORE_COLUMNS = 12;
const MORE_VISITS = 4000;
/** A plan is looked for among next to full bars when the bound leaves less than this share of one bar over in all. */
const FULL_SHARE = 0.01;
const FULL_STEPS = 6_000_000;
const STEPS_A_START = 150_000;
/** How much a plan made bar by bar is left to luck, and how fast it learns what to use sooner. */
const NOISE = 0.03;
const LEARN = 0.4;
/** The most columns a whole-number program is given. */
const MOST_COLUMNS = 1500;

/** The greatest common divisor of all prices: a cost is always a multiple of it. */
export const priceStep = (prices: readonly number[]): number =>
  prices.reduce((a, b) => {
    let [x, y] = [a, b];
    while (y > 0) [x, y] = [y, x % y];
    return x;
  }, 0);

/** Lifts a bound to the next cost that can be. */
export function nextCost(bound: number, prices: readonly number[]): number {
  const step = Math.max(1, priceStep(prices));
  return Math.ceil((bound - 1e-6 * Math.max(1, Math.abs(bound))) / step) * step;
}

/**
 * Fills bars one after another, each to within what may be left over in all: the longest length that is left goes on the next
 * bar, with whatever fills it, the longest first, so that short ones are left for the end; what leads nowhere is taken back.
 * Starts anew in another order when a start has taken too long.
 * @param lengths one of each; @param bars how many there are; @param steps as many are taken in all
 * @returns lengths by their places, bar by bar; null when none was found
 */
export function fillAll(
  lengths: readonly number[],
  bars: number,
  space: number,
  random: () => number,
  steps: number,
): (readonly number[])[] | null {
  const slack = bars * space - lengths.reduce((sum, length) => sum + length, 0);
  if (slack < 0) return null;
  let order: number[] = [];
  let used: boolean[] = [];
  let left = 0;
  let chosen: number[][] = [];
  /** Fills the bar that is begun from a place in the order on; goes on to the next bar when it is full. */
  const fill = (from: number, room: number, over: number, bar: number[]): boolean => {
    left -= 1;
    if (left < 0) return false;
    if (room <= over) {
      chosen.push(bar);
      if (next(over - room)) return true;
      chosen.pop();
      if (left < 0) return false;
    }
    let before = -1;
    for (let i = from; i < order.length; i += 1) {
      const at = order[i] ?? 0;
      const own = lengths[at] ?? 0;
      // equal lengths are tried once
      if (used[at] || own > room || own === before) continue;
      before = own;
      used[at] = true;
      const done = fill(i + 1, room - own, over, [...bar, at]);
      if (done) return true;
      used[at] = false;
      if (left < 0) return false;
    }
    return false;
  };
  const next = (over: number): boolean => {
    const longest = order.find((at) => !used[at]);
    if (longest === undefined) return true;
    if (chosen.length >= bars) return false;
    used[longest] = true;
    if (fill(0, space - (lengths[longest] ?? 0), over, [longest])) return true;
    used[longest] = false;
    return false;
  };
  const starts = Math.max(1, Math.floor(steps / STEPS_A_START));
  for (let start = 0; start < starts; start += 1) {
    // the first start goes strictly by length, each further one disturbs it more
    const noise = (start / starts) * 0.5;
    const key = lengths.map((length) => length * (1 + noise * (2 * random() - 1)));
    order = lengths.map((_, i) => i).sort((x, y) => (key[y] ?? 0) - (key[x] ?? 0));
    used = lengths.map(() => false);
    left = STEPS_A_START;
    chosen = [];
    if (next(slack)) return chosen;
  }
  return null;
}

/**
 * Column generation for bars: the linear program over ways to cut a bar, grown by the knapsack's best way for the present
 * dual values until none pays. Every round gives a lower bound that holds even when it is stopped early: the dual values
 * scaled until they are feasible (Farley 1990); bars of limited number pay what their best way exceeds their price by.
 */
export class BarColumns {
  /** No plan is cheaper. */
  bound = 0;
  /** The best value of feasible dual values so far, before it is lifted to a cost that can be, and those values by part. */
  value = 0;
  scale: readonly number[] = [];
  finished = false;
  private readonly columns: Column[] = [];
  private readonly known = new Set<string>();
  private readonly lengths: readonly number[];

  constructor(
    private readonly job: EngineJob,
    private readonly solve: SolveProgram,
    /** What each part counts for, where it is not how many there are of it. */
    private readonly weights: readonly number[] = job.parts.map((part) => part.quantity),
  ) {
    this.lengths = job.parts.map((part) => part.length + job.kerf);
    job.stock.forEach((stock, kind) => {
      job.parts.forEach((part, i) => {
        const fit = Math.min(part.quantity, Math.floor((stock.length + job.kerf) / (this.lengths[i] ?? 1)));
        if (fit > 0) this.add({ kind, counts: job.parts.map((_, other) => (other === i ? fit : 0)) });
      });
    });
  }

  private add(column: Omit<Column, 'parts'>): boolean {
    const key = `${column.kind}:${column.counts.join()}`;
    if (this.known.has(key)) return false;
    this.known.add(key);
    this.columns.push({ ...column, parts: column.counts.flatMap((count, i) => (count > 0 ? [i] : [])) });
    return true;
  }

  /** How many columns there are. */
  get size(): number {
    return this.columns.length;
  }

  /** Takes the bars of a plan in as columns. */
  learn(sheets: readonly Filled[]): void {
    for (const sheet of sheets) {
      const counts = this.job.parts.map(() => 0);
      for (const laid of sheet.laid) counts[laid.part] = (counts[laid.part] ?? 0) + 1;
      this.add({ kind: sheet.stock, counts });
    }
  }

  private program(whole: boolean): string {
    const { job, columns } = this;
    const price = (kind: number): number => job.stock[kind]?.price ?? 0;
    const used = whole ? columns.slice(-MOST_COLUMNS) : columns;
    const of = job.parts.map((): string[] => []);
    used.forEach((column, c) => {
      for (const i of column.parts) of[i]?.push(`${column.counts[i] ?? 0} x${c}`);
    });
    const rows = of.map(
      (terms, i) => ` d${i}: ${terms.length > 0 ? terms.join(' + ') : '0 x0'} >= ${this.weights[i] ?? 0}`,
    );
    const limits = job.stock.flatMap((stock, kind) => {
      const terms = used.flatMap((column, c) => (column.kind === kind ? [`x${c}`] : []));
      return Number.isFinite(stock.quantity) && terms.length > 0
        ? [` q${kind}: ${terms.join(' + ')} <= ${stock.quantity}`]
        : [];
    });
    const lines = [
      'Minimize',
      ` cost: ${used.map((column, c) => `${price(column.kind)} x${c}`).join(' + ')}`,
      'Subject To',
      ...rows,
      ...limits,
      ...(whole ? ['General', ` ${used.map((_, c) => `x${c}`).join(' ')}`] : []),
      'End',
    ];
    return lines.join('\n');
  }

  /** One round: prices the present columns, lifts the bound, adds columns that pay. */
  round(): void {
    const { job, lengths } = this;
    const solved = this.solve(this.program(false), 5);
    if (!solved.optimal) {
      this.finished = true;
      return;
    }
    const duals = job.parts.map((_, i) => Math.max(0, solved.duals[`d${i}`] ?? 0));
    const loadsWithin = (visits?: number): Load[] =>
      job.stock.map((stock) =>
        bestLoad(
          lengths,
          duals,
          job.parts.map((part) => part.quantity),
          stock.length + job.kerf,
          visits,
        ),
      );
    const limitOf = (kind: number): number => Math.min(0, solved.duals[`q${kind}`] ?? 0);
    const paysFor = (kind: number, worth: number): boolean => {
      const price = job.stock[kind]?.price ?? 0;
      return worth > price - limitOf(kind) + EPSILON * Math.max(1, price);
    };
    // the exact best way is looked for only when a short search finds none that pays
    const quick = loadsWithin(MORE_VISITS);
    const loads = quick.some((load, kind) => paysFor(kind, load.worth)) ? quick : loadsWithin();
    let scale = 1;
    job.stock.forEach((stock, kind) => {
      const most = loads[kind]?.most ?? 0;
      if (!Number.isFinite(stock.quantity) && most > stock.price) scale = Math.min(scale, stock.price / most);
    });
    let dual = scale * duals.reduce((sum, value, i) => sum + value * (this.weights[i] ?? 0), 0);
    job.stock.forEach((stock, kind) => {
      if (Number.isFinite(stock.quantity))
        dual -= stock.quantity * Math.max(0, scale * (loads[kind]?.most ?? 0) - stock.price);
    });
    if (dual > this.value) {
      this.value = dual;
      this.scale = duals.map((value) => value * scale);
    }
    this.bound = Math.max(
      this.bound,
      nextCost(
        dual,
        job.stock.map((stock) => stock.price),
      ),
    );
    let added = false;
    loads.forEach((load, kind) => {
      const stock = job.stock[kind];
      if (!stock) return;
      // with the best way others that pay, each of what those before it left: the columns of a whole plan at once
      const rest = job.parts.map((part) => part.quantity);
      let next = load;
      for (let more = 0; paysFor(kind, next.worth) && more < MORE_COLUMNS; more += 1) {
        added = this.add({ kind, counts: next.counts }) || added;
        next.counts.forEach((count, i) => {
          rest[i] = (rest[i] ?? 0) - count;
        });
        next = bestLoad(lengths, duals, rest, stock.length + job.kerf, MORE_VISITS);
      }
    });
    this.finished = !added;
  }

  /**
   * Where every bar of a plan at the bound must be next to full: a search for just such a plan. Null where the bound leaves
   * more over than that, where bars are of several kinds, or when none was found.
   * @param bound price that no plan is below
   */
  full(bound: number, random: () => number): { readonly sheets: Filled[]; readonly left: number[] } | null {
    const { job, lengths } = this;
    const [stock] = job.stock;
    if (!stock || job.stock.length > 1 || job.mitred) return null;
    const space = stock.length + job.kerf;
    const each = job.parts.flatMap((part, i) => Array.from({ length: part.quantity }, () => i));
    const own = each.map((part) => lengths[part] ?? 0);
    const bars = Math.round(bound / stock.price);
    const slack = bars * space - own.reduce((sum, length) => sum + length, 0);
    if (slack < 0 || slack > FULL_SHARE * space) return null;
    const found = fillAll(own, bars, space, random, FULL_STEPS);
    return (
      found && {
        left: [],
        sheets: found.map((bar): Filled => {
          let at = 0;
          const laid = bar.map((place): Laid => {
            const piece: Laid = { part: each[place] ?? 0, x: at, y: 0, turned: false };
            at += own[place] ?? 0;
            return piece;
          });
          return { stock: 0, laid, area: at * (stock.width + job.kerf) };
        }),
      }
    );
  }

  /**
   * A plan made bar by bar: each time the way that is worth most for its price, parts being worth what the linear program
   * says they are, and more the longer they are left over (sequential value correction, Mukhacheva and Belov).
   * @param lift how much the worth of what was left for the last bars was raised by plans before, by part
   */
  sequence(random: () => number, lift: number[]): { readonly sheets: Filled[]; readonly left: number[] } {
    const { job, lengths } = this;
    const perLength = Math.min(...job.stock.map((stock) => stock.price / (stock.length + job.kerf)));
    const worth = lengths.map(
      (length, i) => (this.scale[i] ?? perLength * length) * (lift[i] ?? 1) * (1 + NOISE * random()),
    );
    const rest = job.parts.map((part) => part.quantity);
    const bars = job.stock.map((stock) => stock.quantity);
    const sheets: Filled[] = [];
    while (rest.some((count) => count > 0)) {
      let best: { readonly kind: number; readonly load: Load; readonly rate: number } | null = null;
      for (let kind = 0; kind < job.stock.length; kind += 1) {
        const stock = job.stock[kind];
        if (!stock || (bars[kind] ?? 0) <= 0) continue;
        const load = bestLoad(lengths, worth, rest, stock.length + job.kerf, MORE_VISITS);
        const rate = load.worth / Math.max(1, stock.price);
        if (load.worth > 0 && (best === null || rate > best.rate)) best = { kind, load, rate };
      }
      if (best === null) break;
      const { kind, load } = best;
      bars[kind] = (bars[kind] ?? 0) - 1;
      let at = 0;
      const laid: Laid[] = [];
      load.counts.forEach((count, part) => {
        for (let i = 0; i < count; i += 1) {
          laid.push({ part, x: at, y: 0, turned: false });
          at += lengths[part] ?? 0;
        }
        rest[part] = (rest[part] ?? 0) - count;
      });
      const stock = job.stock[kind];
      const room = (stock?.length ?? 0) + job.kerf;
      // what lies on a bar that wastes much was undervalued: the next plan takes it sooner
      for (const { part } of laid) lift[part] = (lift[part] ?? 1) * (1 - LEARN + (LEARN * room) / Math.max(1, at));
      sheets.push({ stock: kind, laid, area: at * ((stock?.width ?? 0) + job.kerf) });
    }
    return { sheets, left: rest.flatMap((count, part) => Array.from({ length: count }, () => part)) };
  }

  /** The cheapest plan from the columns there are, by the whole-number program; null when it found none in time. */
  plan(seconds: number): { readonly sheets: Filled[]; readonly left: number[] } | null {
    const { job, lengths } = this;
    const used = this.columns.slice(-MOST_COLUMNS);
    const solved = this.solve(this.program(true), seconds);
    const missing = job.parts.map((part) => part.quantity);
    const sheets: Filled[] = [];
    for (const [name, value] of Object.entries(solved.columns)) {
      const column = used[Number(name.slice(1))];
      if (!column) continue;
      for (let copy = 0; copy < Math.round(value); copy += 1) {
        let at = 0;
        const laid: Laid[] = [];
        column.counts.forEach((count, part) => {
          for (let i = 0; i < Math.min(count, missing[part] ?? 0); i += 1) {
            laid.push({ part, x: at, y: 0, turned: false });
            at += lengths[part] ?? 0;
          }
        });
        for (const { part } of laid) missing[part] = (missing[part] ?? 0) - 1;
        const width = (job.stock[column.kind]?.width ?? 0) + job.kerf;
        if (laid.length > 0) sheets.push({ stock: column.kind, laid, area: at * width });
      }
    }
    if (missing.some((count) => count > 0)) return null;
    return { sheets, left: [] };
  }
}
