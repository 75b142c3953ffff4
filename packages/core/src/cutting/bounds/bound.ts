import { FINE, isConvex, perimeter } from '../job/outline.js';
import { areaOfPart, fits, type EngineJob, type EnginePart, type EngineStock } from '../job/job.js';
import { UNITS_PER_MM } from '../job/units.js';

/** Sums of fractions are lowered by this before they are rounded up, so that a bound is never too high. */
const SAFE = 1e-9;

/** A dual feasible function of size a in space b: whole numbers in, at most 1 for any set of sizes that fits b. */
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

/** How many functions are tried on each axis. */
const FEW = { rounds: 5, sizes: 16 };
const MANY = { rounds: 16, sizes: 120 };
type Effort = typeof FEW;

function functionsFor(sizes: readonly number[], space: number, effort: Effort): Feasible[] {
  const small = [...new Set(sizes)].filter((size) => 2 * size <= space).sort((a, b) => a - b);
  const step = Math.ceil(small.length / effort.sizes);
  const chosen = small.filter((_, i) => i % Math.max(1, step) === 0);
  return [
    identity,
    ...Array.from({ length: effort.rounds }, (_, k) => rounded(k + 1)),
    ...chosen.flatMap((e) => [threshold(e), pieces(e)]),
    threshold(Math.floor(space / 2)),
  ];
}

/** Fewest sheets by dual feasible functions on both axes, for sheets no larger than the largest length and width on offer. */
function fewestSheets(
  parts: readonly EnginePart[],
  stock: readonly EngineStock[],
  kerf: number,
  effort: Effort,
): number {
  const roomLength = Math.max(...stock.map((s) => s.length)) + kerf;
  const roomWidth = Math.max(...stock.map((s) => s.width)) + kerf;
  /** Each part upright and, where it may and does fit, turned; a way that does not fit is left out. */
  const ways: { readonly part: number; readonly length: number; readonly width: number }[] = [];
  parts.forEach((part, index) => {
    const [length, width] = [part.length + kerf, part.width + kerf];
    if (stock.some((s) => fits({ ...part, mayTurn: false }, s))) ways.push({ part: index, length, width });
    if (
      part.mayTurn &&
      part.length !== part.width &&
      stock.some((s) => fits({ length: part.width, width: part.length, mayTurn: false }, s))
    )
      ways.push({ part: index, length: width, width: length });
  });
  const valuesOf = (sizes: readonly number[], space: number): Float64Array[] =>
    functionsFor(sizes, space, effort).map((f) => Float64Array.from(sizes, (size) => f(size, space)));
  const alongLength = valuesOf(
    ways.map((way) => way.length),
    roomLength,
  );
  const alongWidth = valuesOf(
    ways.map((way) => way.width),
    roomWidth,
  );
  const quantities = parts.map((part) => part.quantity);
  let most = 0;
  for (const f of alongLength) {
    for (const g of alongWidth) {
      let sum = 0;
      for (let w = 0; w < ways.length; w += 1) {
        const part = ways[w]?.part ?? 0;
        let value = (f[w] ?? 0) * (g[w] ?? 0);
        if (ways[w + 1]?.part === part) {
          w += 1;
          value = Math.min(value, (f[w] ?? 0) * (g[w] ?? 0));
        }
        sum += value * (quantities[part] ?? 0);
      }
      if (sum > most) most = sum;
    }
  }
  return Math.ceil(most * (1 - SAFE) - SAFE);
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
function demandsOf(job: EngineJob, effort: Effort): Demand[] {
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
      effort,
    );
    return { kinds: set, count };
  });
}

/**
 * The least a part takes of sheets grown by a kerf: its area and half a kerf all round (Steiner's formula, for convex
 * outlines; the corners' round pieces are left out), for others its bare area.
 */
function leastArea(job: EngineJob, part: EnginePart): number {
  const { kerf } = job;
  if (!part.outline) return (part.length + kerf) * (part.width + kerf);
  const fine = UNITS_PER_MM / FINE;
  const bare = areaOfPart(job, part);
  return isConvex(part.outline) ? bare + (perimeter(part.outline) * fine * kerf) / 2 : bare;
}

/**
 * A price below which the job cannot be cut, in minor units: the cheapest whole numbers of sheets that have enough area,
 * every part and sheet grown by one kerf, and enough sheets of every kind that parts are confined to, counted by dual
 * feasible functions. Infinity when the stock is too small whatever the layout.
 */
export function lowerBound(job: EngineJob, thorough = false): number {
  const effort = thorough ? MANY : FEW;
  if (job.parts.length === 0) return 0;
  const { kerf, stock } = job;
  const area = job.parts.reduce((sum, part) => sum + part.quantity * leastArea(job, part), 0);
  // outlines may lie in each other's rectangles, so only true rectangles are counted by their sides
  const parts = job.parts.filter((part) => part.outline === undefined);
  const everywhere: Demand = {
    kinds: new Set(stock.map((_, index) => index)),
    count: parts.length === 0 ? 1 : fewestSheets(parts, stock, kerf, effort),
  };
  return Math.ceil(cheapestMix(stock, kerf, area, [everywhere, ...demandsOf({ ...job, parts }, effort)]) - 1e-6);
}
