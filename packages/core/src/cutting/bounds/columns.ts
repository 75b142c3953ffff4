import { bestLoad } from './knapsack.js';
import type { Filled, Laid } from '../engine/filling.js';
import type { EngineJob } from '../job/job.js';
import type { SolveProgram } from './program.js';

/** One way to cut a bar: how many of each part. */
interface Column {
  readonly kind: number;
  readonly counts: readonly number[];
}

const EPSILON = 1e-7;
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

  private add(column: Column): boolean {
    const key = `${column.kind}:${column.counts.join()}`;
    if (this.known.has(key)) return false;
    this.known.add(key);
    this.columns.push(column);
    return true;
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
    const rows = job.parts.map((_, i) => {
      const terms = used.flatMap((column, c) =>
        (column.counts[i] ?? 0) > 0 ? [`${column.counts[i] ?? 0} x${c}`] : [],
      );
      return ` d${i}: ${terms.length > 0 ? terms.join(' + ') : '0 x0'} >= ${this.weights[i] ?? 0}`;
    });
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
    const loads = job.stock.map((stock) =>
      bestLoad(
        lengths,
        duals,
        job.parts.map((part) => part.quantity),
        stock.length + job.kerf,
      ),
    );
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
      const limit = Math.min(0, solved.duals[`q${kind}`] ?? 0);
      if (load.worth > stock.price - limit + EPSILON * Math.max(1, stock.price))
        added = this.add({ kind, counts: load.counts }) || added;
    });
    this.finished = !added;
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
