import { lowerBound } from './bound.js';
import { fillSheet, type FilledSheet, type Taste, type Wanted } from './fill.js';
import { engineJob, fits, toMm, type CutJob, type CutPlan, type EngineJob } from './job.js';
import { seededRandom } from '../numeric/random.js';

export interface SearchOptions {
  readonly seed?: number;
  /** Steps of improvement before it stops; the same seed and steps give the same plan. */
  readonly steps?: number;
  /** Leftover pieces narrower than this are not listed as offcuts, mm. */
  readonly smallestOffcut?: number;
}

/** A moment of the search: the best plan so far, and how many steps were made. */
export interface SearchMoment {
  readonly step: number;
  readonly plan: CutPlan;
  readonly improved: boolean;
}

/** Steps spent on a better remnant after the price is proved. */
const POLISH_STEPS = 60;
const DEFAULT_STEPS = 4000;

interface Solution {
  readonly sheets: readonly FilledSheet[];
  readonly unplaced: Wanted;
  readonly missing: number;
  readonly cost: number;
  readonly squares: number;
  readonly largestLeft: number;
}

function measure(job: EngineJob, sheets: readonly FilledSheet[], unplaced: Wanted): Solution {
  const price = (sheet: FilledSheet): number => job.stock[sheet.stock]?.price ?? 0;
  const area = (sheet: FilledSheet): number =>
    (job.stock[sheet.stock]?.length ?? 0) * (job.stock[sheet.stock]?.width ?? 0);
  return {
    sheets,
    unplaced,
    missing: unplaced.reduce((sum, count) => sum + count, 0),
    cost: sheets.reduce((sum, sheet) => sum + price(sheet), 0),
    squares: sheets.reduce((sum, sheet) => sum + (sheet.filled / area(sheet)) ** 2, 0),
    largestLeft: Math.max(0, ...sheets.flatMap((sheet) => sheet.left.map((rest) => rest.length * rest.width))),
  };
}

/** Price first, then sheets, then one large remnant: negative when a is better. */
function compare(a: Solution, b: Solution): number {
  return a.missing - b.missing || a.cost - b.cost || a.sheets.length - b.sheets.length || b.largestLeft - a.largestLeft;
}

/** Whether to walk on from `next`: not dearer, and its sheets unevenly full so that one can be emptied. */
function acceptable(next: Solution, now: Solution): boolean {
  return (
    next.missing < now.missing ||
    (next.missing === now.missing &&
      (next.cost < now.cost || (next.cost === now.cost && next.squares >= now.squares - 1e-4)))
  );
}

const drawTaste = (random: () => number): Taste => ({
  wholeEdge: 0.4 + 1.6 * random(),
  fill: random(),
  large: 0.3 + 2 * random(),
  noise: random() < 0.4 ? 0.05 : 0.8 * random(),
  ripFirst: random(),
});
const STEADY: Taste = { wholeEdge: 1, fill: 0.3, large: 2, noise: 0, ripFirst: 0.5 };

/** Puts wanted parts on new sheets until none is left or no sheet takes any, choosing the kind of sheet by price for what goes on it. */
function fillUp(
  job: EngineJob,
  kept: readonly FilledSheet[],
  wanted: Wanted,
  random: () => number,
  taste: () => Taste,
): Solution {
  const sheets = [...kept];
  const used = job.stock.map((_, i) => kept.filter((sheet) => sheet.stock === i).length);
  const remaining = [...wanted];
  while (remaining.some((count) => count > 0)) {
    let best: { sheet: FilledSheet; after: Wanted; value: number } | null = null;
    for (let index = 0; index < job.stock.length; index += 1) {
      const stock = job.stock[index];
      if (!stock || (used[index] ?? 0) >= stock.quantity) continue;
      if (!job.parts.some((part, i) => (remaining[i] ?? 0) > 0 && fits(part, stock))) continue;
      const after = [...remaining];
      const sheet = fillSheet(index, stock, job.parts, after, job.kerf, taste(), random);
      const value = sheet.filled / Math.max(1, stock.price) + (stock.price === 0 ? 1e18 : 0);
      if (sheet.placed.length > 0 && (!best || value > best.value)) best = { sheet, after, value };
    }
    if (!best) break;
    sheets.push(best.sheet);
    used[best.sheet.stock] = (used[best.sheet.stock] ?? 0) + 1;
    remaining.splice(0, remaining.length, ...best.after);
  }
  return measure(job, sheets, remaining);
}

/** Takes out a few sheets, the emptiest often among them, and fills their parts in anew. */
function ruinAndRecreate(job: EngineJob, now: Solution, random: () => number): Solution {
  const count = Math.min(now.sheets.length, 1 + Math.floor(random() * 4));
  const order = now.sheets
    .map((sheet, i) => ({ i, key: random() * (random() < 0.5 ? 1 : sheet.filled) }))
    .sort((a, b) => a.key - b.key);
  const out = new Set(order.slice(0, count).map(({ i }) => i));
  const wanted = [...now.unplaced];
  now.sheets.forEach((sheet, i) => {
    if (out.has(i)) for (const placed of sheet.placed) wanted[placed.part] = (wanted[placed.part] ?? 0) + 1;
  });
  const taste = drawTaste(random);
  return fillUp(
    job,
    now.sheets.filter((_, i) => !out.has(i)),
    wanted,
    random,
    () => (random() < 0.3 ? drawTaste(random) : taste),
  );
}

function writePlan(
  job: EngineJob,
  solution: Solution,
  bound: number,
  smallestOffcut: number,
  seconds: number,
): CutPlan {
  const complete = solution.missing === 0;
  const price = (sheet: FilledSheet): number => job.stock[sheet.stock]?.price ?? 0;
  const sheets = [...solution.sheets].sort((a, b) => price(b) - price(a) || b.filled - a.filled);
  const given = job.parts.map(() => 0);
  const nextId = (part: number): string => {
    const number = given[part] ?? 0;
    given[part] = number + 1;
    return job.parts[part]?.ids[number] ?? '';
  };
  const written = sheets.map((sheet) => ({
    stock: job.stock[sheet.stock]?.id ?? '',
    placements: sheet.placed.map((p) => ({ part: nextId(p.part), x: toMm(p.x), y: toMm(p.y), turned: p.turned })),
    cuts: sheet.cuts.map((cut) => ({
      axis: cut.axis,
      at: toMm(cut.at),
      from: toMm(cut.from),
      to: toMm(cut.to),
      level: cut.level,
    })),
    offcuts: sheet.left
      .map((rest) => ({ x: toMm(rest.x), y: toMm(rest.y), length: toMm(rest.length), width: toMm(rest.width) }))
      .filter((rest) => Math.min(rest.length, rest.width) >= smallestOffcut),
  }));
  const forgotten = job.parts.flatMap((part, i) => part.ids.slice(given[i] ?? 0));
  return {
    format: 'cut-plan',
    version: 1,
    sheets: written,
    unplaced: [
      ...job.tooLarge,
      ...[...new Set(forgotten)].map((id) => ({
        part: id,
        quantity: forgotten.filter((other) => other === id).length,
        why: 'stock' as const,
      })),
    ],
    cost: solution.cost,
    bound: complete ? bound : 0,
    proved: complete && job.tooLarge.length === 0 && solution.cost === bound,
    seconds,
  };
}

/**
 * Searches for the cheapest plan that a saw can cut edge to edge. The first moment comes at once; each further one after
 * a step of improvement. Whoever draws from it decides when to stop: it ends by itself when the price is proved least,
 * or after `steps`. `seconds` in its plans is 0: it does not look at the clock.
 */
export function* searchPlans(job: CutJob, options: SearchOptions = {}): Generator<SearchMoment, void, undefined> {
  const engine = engineJob(job);
  const random = seededRandom(options.seed ?? 1);
  const steps = options.steps ?? DEFAULT_STEPS;
  const smallestOffcut = options.smallestOffcut ?? 0;
  const bound = lowerBound(engine);
  const wanted = engine.parts.map((part) => part.quantity);
  let best = fillUp(engine, [], wanted, random, () => STEADY);
  let now = best;
  let plan = writePlan(engine, best, bound, smallestOffcut, 0);
  let provedAt = plan.proved ? 0 : null;
  yield { step: 0, plan, improved: true };
  for (let step = 1; step <= steps && best.sheets.length > 0; step += 1) {
    if (provedAt !== null && step - provedAt > POLISH_STEPS) return;
    const next =
      step <= 12 || random() < 0.03
        ? fillUp(engine, [], wanted, random, () => drawTaste(random))
        : ruinAndRecreate(engine, now, random);
    if (acceptable(next, now)) now = next;
    const improved = compare(next, best) < 0;
    if (improved) {
      best = next;
      plan = writePlan(engine, best, bound, smallestOffcut, 0);
      if (plan.proved) provedAt ??= step;
    }
    yield { step, plan, improved };
  }
}

/** Runs the search to its end, or until `until` says to stop, and returns the best plan. */
export function solveJob(
  job: CutJob,
  options: SearchOptions = {},
  until: (moment: SearchMoment) => boolean = () => false,
): CutPlan {
  let last: CutPlan | null = null;
  for (const moment of searchPlans(job, options)) {
    last = moment.plan;
    if (until(moment)) break;
  }
  if (!last) throw new Error('The search gave no plan at all.');
  return last;
}
