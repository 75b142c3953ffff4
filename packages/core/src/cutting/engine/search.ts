import { seededRandom } from '../../numeric/random.js';
import { lowerBound } from '../bounds/bound.js';
import { BarColumns } from '../bounds/columns.js';
import { engineJob, type CutJob, type CutPlan } from '../job/job.js';
import type { SolveProgram } from '../bounds/program.js';
import { scaledBound } from '../bounds/scales.js';
import { interlocked } from '../job/mitres.js';
import { Workshop, type Solution } from './workshop.js';
import { writePlan } from './write.js';

export interface SearchOptions {
  readonly seed?: number;
  /** Steps of improvement before it stops; the same seed and steps give the same plan. */
  readonly steps?: number;
  /** Leftover pieces narrower than this are not listed as offcuts, mm. */
  readonly smallestOffcut?: number;
  /** Solves linear and whole-number programs; without it bars are planned by search alone. */
  readonly program?: SolveProgram | undefined;
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
/** Steps at the start that each make a whole plan from nothing. */
const FRESH_STEPS = 12;
/** How much worse the squares of a solution may get when the search walks on from it. */
const HEAT = 0.003;
const HEAT_OF_SEVERAL = 0.01;
/** The whole-number program over bars is solved when the columns are complete and every so many steps after. */
const WHOLE_EVERY = 4000;
const WHOLE_SECONDS = 0.4;
/** A round of the dearer bound is made every so many steps. */
const LIFT_EVERY = 4;
/** Ways to cut a bar that the program learns from plans, at most. */
const MOST_LEARNED = 2500;
/** Bars are planned one by one by what parts are worth every so many steps. */
const SEQUENCE_EVERY = 2;
const REMIX = 0.96;
const REBUILD = 0.2;

/** Fewer parts left out, then price, then sheets, then one sheet as empty as can be. */
function better(a: Solution, b: Solution): boolean {
  const order =
    a.left.length - b.left.length || a.cost - b.cost || a.sheets.length - b.sheets.length || b.squares - a.squares;
  return order < -1e-9;
}

/** Whether to walk on from `next`: not dearer, and its sheets unevenly full so that one can be emptied. */
function acceptable(next: Solution, now: Solution, heat: number): boolean {
  if (next.left.length !== now.left.length) return next.left.length < now.left.length;
  return next.cost < now.cost || (next.cost === now.cost && next.squares >= now.squares - heat);
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
  let bound = lowerBound(engine);
  const shop = new Workshop(engine, random);
  const write = (solution: Solution): CutPlan => writePlan(engine, solution, bound, options.smallestOffcut ?? 0);
  const change = (now: Solution): Solution | null => {
    if (shop.several && random() < REMIX) return shop.remix(now);
    return random() < REBUILD || now.sheets.length < 2 ? shop.rebuild(now) : shop.refill(now);
  };
  const columns =
    engine.bars && options.program && engine.parts.length > 0 ? new BarColumns(engine, options.program) : null;
  const lifting = !engine.bars && !engine.free && options.program ? scaledBound(engine, options.program) : null;
  const lift = engine.parts.map(() => 1);
  let best = shop.plain();
  let now = best;
  let plan = write(best);
  let provedAt = plan.proved ? 0 : null;
  const raise = (to: number): void => {
    if (to <= bound) return;
    bound = to;
    plan = write(best);
  };
  yield { step: 0, plan, improved: true };
  for (let step = 1; step <= steps && best.sheets.length > 0; step += 1) {
    if (plan.proved) provedAt ??= step - 1;
    if (provedAt !== null && step - provedAt > POLISH_STEPS) return;
    if (step === FRESH_STEPS + 1) raise(lowerBound(engine, true));
    // where the bound leaves next to nothing over, only bars that are next to full are of use: all of them, at once
    const full = columns !== null && step === FRESH_STEPS + 1 && !plan.proved ? columns.full(bound, random) : null;
    if (full) {
      const measured = shop.measure(full.sheets, full.left);
      if (better(measured, best)) {
        now = best = measured;
        plan = write(best);
        yield { step, plan, improved: true };
        continue;
      }
    }
    const priced = columns !== null && step > FRESH_STEPS && !columns.finished;
    if (priced) {
      columns.round();
      raise(columns.bound);
    }
    if (lifting && step > FRESH_STEPS && step % LIFT_EVERY === 0 && !plan.proved) {
      const lifted = lifting.next();
      if (lifted.done !== true) raise(lifted.value);
    }
    const whole = columns !== null && columns.finished && (priced || step % WHOLE_EVERY === 0) && !plan.proved;
    if (whole && !priced) columns.learn(best.sheets);
    const solved = whole ? columns.plan(WHOLE_SECONDS) : null;
    const laid = solved && engine.mitred ? interlocked(engine, solved.sheets) : solved?.sheets;
    const inTurn = columns !== null && !solved && step > FRESH_STEPS && !engine.mitred && step % SEQUENCE_EVERY === 0;
    const made = inTurn ? columns.sequence(random, lift) : null;
    const next =
      solved && laid
        ? shop.measure(laid, solved.left)
        : made
          ? shop.measure(made.sheets, made.left)
          : step <= FRESH_STEPS
            ? shop.anew(best.cost)
            : change(now);
    if (columns !== null && next && step <= FRESH_STEPS) columns.learn(next.sheets);
    // while columns are still sought, and no longer: a long search would drown the program in them
    if (made && columns !== null && !columns.finished && columns.size < MOST_LEARNED) columns.learn(made.sheets);
    if (next && acceptable(next, now, shop.several ? HEAT_OF_SEVERAL : HEAT)) now = next;
    const improved = next !== null && better(next, best);
    if (improved) {
      best = next;
      plan = write(best);
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
