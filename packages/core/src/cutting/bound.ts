import { fits, type EngineJob, type EnginePart, type EngineStock } from './job.js';

/** Sums of fractions are lowered by this before they are rounded up, so that a bound is never too high. */
const SAFE = 1e-9;

/** A dual feasible function of size a in room b: whole numbers in, at most 1 for any set of sizes that fits b. */
type Feasible = (a: number, b: number) => number;

/** floor(a * factor / b) in whole numbers. */
const wholeShare = (a: number, factor: number, b: number): number => (a * factor - ((a * factor) % b)) / b;

const identity: Feasible = (a, b) => a / b;
/** u(k): x where (k + 1) x is whole, else floor((k + 1) x) / k (Lueker 1983). */
const rounded = (k: number): Feasible => (a, b) => ((a * (k + 1)) % b === 0 ? a / b : wholeShare(a, k + 1, b) / k);
/** U(e): large sizes count as the whole, small ones as nothing (Martello and Toth 1990). */
const threshold = (e: number): Feasible => (a, b) => (a > b - e ? 1 : a < e ? 0 : a / b);
/** phi(e): sizes over a half count by what they leave for pieces of size e (Fekete and Schepers 2001). */
const pieces = (e: number): Feasible => (a, b) => {
  const most = wholeShare(b, 1, e);
  if (2 * a > b) return 1 - wholeShare(b - a, 1, e) / most;
  return a >= e ? 1 / most : 0;
};

function functionsFor(sizes: readonly number[], room: number): Feasible[] {
  const small = [...new Set(sizes)].filter((size) => 2 * size <= room).sort((a, b) => a - b);
  const chosen = small.length <= 16 ? small : small.filter((_, i) => i % Math.ceil(small.length / 16) === 0);
  return [identity, ...[1, 2, 3, 4, 5].map(rounded), ...chosen.flatMap((e) => [threshold(e), pieces(e)]), threshold(Math.floor(room / 2))];
}

/** Fewest sheets by dual feasible functions on both axes, for sheets no larger than the largest length and width on offer. */
function fewestSheets(parts: readonly EnginePart[], stock: readonly EngineStock[], kerf: number): number {
  const roomLength = Math.max(...stock.map((s) => s.length)) + kerf;
  const roomWidth = Math.max(...stock.map((s) => s.width)) + kerf;
  const turns = (part: EnginePart): [number, number][] => {
    const ways: [number, number][] = [];
    if (stock.some((s) => fits({ ...part, mayTurn: false }, s))) ways.push([part.length + kerf, part.width + kerf]);
    if (part.mayTurn && stock.some((s) => fits({ length: part.width, width: part.length, mayTurn: false }, s))) ways.push([part.width + kerf, part.length + kerf]);
    return ways;
  };
  const all = parts.map((part) => ({ ways: turns(part), quantity: part.quantity }));
  const alongLength = functionsFor(all.flatMap((p) => p.ways.map((way) => way[0])), roomLength);
  const alongWidth = functionsFor(all.flatMap((p) => p.ways.map((way) => way[1])), roomWidth);
  let most = 0;
  for (const f of alongLength) {
    for (const g of alongWidth) {
      const sum = all.reduce((total, { ways, quantity }) => total + quantity * Math.min(...ways.map(([l, w]) => f(l, roomLength) * g(w, roomWidth))), 0);
      most = Math.max(most, Math.ceil(sum * (1 - SAFE) - SAFE));
    }
  }
  return most;
}

/** Cheapest sheets whose areas add up to at least `area`, by branch and bound over whole numbers of each kind. */
function cheapestArea(kinds: readonly { readonly area: number; readonly price: number; readonly quantity: number }[], area: number): number {
  const sorted = [...kinds].sort((a, b) => a.price / a.area - b.price / b.area);
  let best = Infinity;
  let visits = 0;
  const walk = (index: number, missing: number, cost: number): void => {
    if (missing <= 0) {
      best = Math.min(best, cost);
      return;
    }
    const kind = sorted[index];
    visits += 1;
    if (!kind) return;
    if (cost + (missing * kind.price) / kind.area >= best - SAFE) return;
    if (visits > 20_000) {
      // the fractional price is a bound too: give up on whole numbers here
      best = Math.min(best, cost + (missing * kind.price) / kind.area);
      return;
    }
    const most = Math.min(kind.quantity, Math.ceil(missing / kind.area));
    for (let count = most; count >= 0; count -= 1) walk(index + 1, missing - count * kind.area, cost + count * kind.price);
  };
  walk(0, area * (1 - SAFE), 0);
  return best;
}

/** Cheapest way to take at least `count` sheets. */
function cheapestCount(stock: readonly EngineStock[], count: number): number {
  let [missing, cost] = [count, 0];
  for (const s of [...stock].sort((a, b) => a.price - b.price)) {
    const taken = Math.min(missing, s.quantity);
    cost += taken * s.price;
    missing -= taken;
    if (missing <= 0) return cost;
  }
  return Infinity;
}

/**
 * A price below which the job cannot be cut, in minor units: the greater of the cheapest sheets with enough area, every
 * part and sheet grown by one kerf, and the fewest sheets by dual feasible functions at the cheapest prices. Infinity
 * when the stock is too small whatever the layout.
 */
export function lowerBound(job: EngineJob): number {
  if (job.parts.length === 0) return 0;
  const { kerf, stock, parts } = job;
  const area = parts.reduce((sum, part) => sum + part.quantity * (part.length + kerf) * (part.width + kerf), 0);
  const kinds = stock.map((s) => ({ area: (s.length + kerf) * (s.width + kerf), price: s.price, quantity: s.quantity }));
  const byArea = cheapestArea(kinds, area);
  const byCount = cheapestCount(stock, fewestSheets(parts, stock, kerf));
  return Math.ceil(Math.max(byArea, byCount) - 1e-6);
}
