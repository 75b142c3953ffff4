import { fits, type EngineJob, type EnginePart, type EngineStock } from './job.js';

/** Sums of fractions are lowered by this before they are rounded up, so that a bound is never too high. */
const SAFE = 1e-9;

/** A dual feasible function of size a in room b: whole numbers in, at most 1 for any set of sizes that fits b. */
type Feasible = (a: number, b: number) => number;

/** floor(a * factor / b) in whole numbers. */
const wholeShare = (a: number, factor: number, b: number): number => (a * factor - ((a * factor) % b)) / b;

const identity: Feasible = (a, b) => a / b;
/** u(k): x where (k + 1) x is whole, else floor((k + 1) x) / k (Lueker 1983). */
const rounded =
  (k: number): Feasible =>
  (a, b) =>
    (a * (k + 1)) % b === 0 ? a / b : wholeShare(a, k + 1, b) / k;
/** U(e): large sizes count as the whole, small ones as nothing (Martello and Toth 1990). */
const threshold =
  (e: number): Feasible =>
  (a, b) =>
    a > b - e ? 1 : a < e ? 0 : a / b;
/** phi(e): sizes over a half count by what they leave for pieces of size e (Fekete and Schepers 2001). */
const pieces =
  (e: number): Feasible =>
  (a, b) => {
    const most = wholeShare(b, 1, e);
    if (2 * a > b) return 1 - wholeShare(b - a, 1, e) / most;
    return a >= e ? 1 / most : 0;
  };

function functionsFor(sizes: readonly number[], room: number): Feasible[] {
  const small = [...new Set(sizes)].filter((size) => 2 * size <= room).sort((a, b) => a - b);
  const chosen = small.length <= 16 ? small : small.filter((_, i) => i % Math.ceil(small.length / 16) === 0);
  return [
    identity,
    ...[1, 2, 3, 4, 5].map(rounded),
    ...chosen.flatMap((e) => [threshold(e), pieces(e)]),
    threshold(Math.floor(room / 2)),
  ];
}

/** Fewest sheets by dual feasible functions on both axes, for sheets no larger than the largest length and width on offer. */
function fewestSheets(parts: readonly EnginePart[], stock: readonly EngineStock[], kerf: number): number {
  const roomLength = Math.max(...stock.map((s) => s.length)) + kerf;
  const roomWidth = Math.max(...stock.map((s) => s.width)) + kerf;
  const turns = (part: EnginePart): [number, number][] => {
    const ways: [number, number][] = [];
    if (stock.some((s) => fits({ ...part, mayTurn: false }, s))) ways.push([part.length + kerf, part.width + kerf]);
    if (part.mayTurn && stock.some((s) => fits({ length: part.width, width: part.length, mayTurn: false }, s)))
      ways.push([part.width + kerf, part.length + kerf]);
    return ways;
  };
  const all = parts.map((part) => ({ ways: turns(part), quantity: part.quantity }));
  const alongLength = functionsFor(
    all.flatMap((p) => p.ways.map((way) => way[0])),
    roomLength,
  );
  const alongWidth = functionsFor(
    all.flatMap((p) => p.ways.map((way) => way[1])),
    roomWidth,
  );
  let most = 0;
  for (const f of alongLength) {
    for (const g of alongWidth) {
      const sum = all.reduce(
        (total, { ways, quantity }) =>
          total + quantity * Math.min(...ways.map(([l, w]) => f(l, roomLength) * g(w, roomWidth))),
        0,
      );
      most = Math.max(most, Math.ceil(sum * (1 - SAFE) - SAFE));
    }
  }
  return most;
}

/** At least `count` sheets must be of these kinds. */
interface Demand {
  readonly kinds: ReadonlySet<number>;
  readonly count: number;
}

/** More visits than this and the small program gives its fractional price, which is a bound as well. */
const MOST_VISITS = 20_000;

/**
 * Cheapest whole numbers of each kind of sheet that have enough area and meet every demand, by branch and bound.
 * The area still missing at the cheapest rate prices what is left of a branch.
 */
function cheapestMix(stock: readonly EngineStock[], kerf: number, area: number, demands: readonly Demand[]): number {
  const kinds = stock
    .map((s, index) => ({ index, area: (s.length + kerf) * (s.width + kerf), price: s.price, quantity: s.quantity }))
    .sort((a, b) => a.price / a.area - b.price / b.area);
  const counts = stock.map(() => 0);
  const missingOf = (demand: Demand): number =>
    demand.count - [...demand.kinds].reduce((sum, index) => sum + (counts[index] ?? 0), 0);
  const mostDemanded = Math.max(0, ...demands.map((demand) => demand.count));
  let best = Infinity;
  let visits = 0;
  const walk = (depth: number, missing: number, cost: number): void => {
    const kind = kinds[depth];
    const rest = missing > 0 && kind ? (missing * kind.price) / kind.area : 0;
    if (cost + rest >= best - SAFE) return;
    if (!kind) {
      if (missing <= 0 && demands.every((demand) => missingOf(demand) <= 0)) best = cost;
      return;
    }
    visits += 1;
    if (visits > MOST_VISITS) {
      best = Math.min(best, cost + rest);
      return;
    }
    const most = Math.min(kind.quantity, Math.max(0, Math.ceil(missing / kind.area), mostDemanded));
    for (let count = most; count >= 0; count -= 1) {
      counts[kind.index] = count;
      walk(depth + 1, missing - count * kind.area, cost + count * kind.price);
    }
    counts[kind.index] = 0;
  };
  walk(0, area * (1 - SAFE), 0);
  return best;
}

/** The kinds of sheet a part fits on, by index. */
function kindsFor(part: EnginePart, stock: readonly EngineStock[]): number[] {
  return stock.flatMap((s, index) => (fits(part, s) ? [index] : []));
}

/** For each set of kinds that some part is confined to: how many sheets of that set its parts need at least. */
function demandsOf(job: EngineJob): Demand[] {
  const confined = new Map<string, number[]>();
  for (const part of job.parts) {
    const kinds = kindsFor(part, job.stock);
    confined.set(kinds.join(), kinds);
  }
  return [...confined.values()].map((kinds) => {
    const set = new Set(kinds);
    const parts = job.parts.filter((part) => kindsFor(part, job.stock).every((index) => set.has(index)));
    const count = fewestSheets(
      parts,
      job.stock.filter((_, index) => set.has(index)),
      job.kerf,
    );
    return { kinds: set, count };
  });
}

/**
 * A price below which the job cannot be cut, in minor units: the cheapest whole numbers of sheets that have enough area,
 * every part and sheet grown by one kerf, and enough sheets of every kind that parts are confined to, counted by dual
 * feasible functions. Infinity when the stock is too small whatever the layout.
 */
export function lowerBound(job: EngineJob): number {
  if (job.parts.length === 0) return 0;
  const { kerf, stock, parts } = job;
  const area = parts.reduce((sum, part) => sum + part.quantity * (part.length + kerf) * (part.width + kerf), 0);
  const everywhere: Demand = {
    kinds: new Set(stock.map((_, index) => index)),
    count: fewestSheets(parts, stock, kerf),
  };
  return Math.ceil(cheapestMix(stock, kerf, area, [everywhere, ...demandsOf(job)]) - 1e-6);
}
