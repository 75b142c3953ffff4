import { solveJob } from '../cutting/engine/search.js';
import { jobOfMaterial, withoutStock } from '../cutting/job/from-parts.js';
import type { CutJob } from '../cutting/job/job.js';
import { planMaterial, type MaterialPlan } from '../cutting/plan/cutting-room.js';
import type { CutPlan, KeptPlan, Offcut, PriceBook, PriceItem, Project, Settings, Wait } from '../document/schema.js';
import { fingerprint } from '../numeric/fingerprint.js';
import type { Part } from '../parts/part.js';

/** Steps of improvement given to the plan that stands until a better one is asked for. */
const FIRST_PLAN_STEPS = 6;
/**
 * A job of more parts than this gets fewer steps in the same measure, at least one: a step costs what the parts cost, and
 * the plan that stands must not keep the rest of the page waiting. A better one is searched for when it is asked for.
 */
const PARTS_FOR_ALL_STEPS = 120;
const stepsFor = (job: CutJob): number => {
  const parts = job.parts.reduce((sum, part) => sum + part.quantity, 0);
  return Math.max(1, Math.min(FIRST_PLAN_STEPS, Math.floor((FIRST_PLAN_STEPS * PARTS_FOR_ALL_STEPS) / parts)));
};
/** First plans that are remembered by their jobs. */
const REMEMBERED = 60;

export interface Plans {
  readonly plans: readonly MaterialPlan[];
  /** Parts of a material that is sold neither in sheets nor by the length. */
  readonly without: readonly Part[];
}

interface OneInput {
  readonly material: PriceItem;
  readonly parts: readonly Part[];
  readonly waits: readonly Wait[];
  readonly kept: KeptPlan | undefined;
  readonly offcuts: readonly Offcut[];
  readonly cutting: Settings['cutting'];
}
const sameItems = <T>(a: readonly T[], b: readonly T[]): boolean =>
  a.length === b.length && a.every((item, i) => item === b[i]);
const sameInput = (a: OneInput, b: OneInput): boolean =>
  a.material === b.material &&
  a.kept === b.kept &&
  a.cutting === b.cutting &&
  sameItems(a.parts, b.parts) &&
  sameItems(a.waits, b.waits) &&
  sameItems(a.offcuts, b.offcuts);

/** A maker of the plans of all materials: one whose parts, stock and kept sheets stay as they are is left alone. */
export function createPlans(): (
  parts: readonly Part[],
  project: Pick<Project, 'waits' | 'keptPlans' | 'offcuts'>,
  settings: Settings,
  book: PriceBook,
) => Plans {
  const firstPlans = new Map<string, CutPlan>();
  const firstPlan = (job: CutJob, smallestOffcut: number): CutPlan => {
    const key = fingerprint(JSON.stringify([job, smallestOffcut]));
    const known = firstPlans.get(key);
    if (known) return known;
    const plan = solveJob(
      job,
      { steps: stepsFor(job), smallestOffcut },
      ({ plan: found }) => job.kind === 'bar' && found.proved,
    );
    if (firstPlans.size > REMEMBERED) firstPlans.clear();
    firstPlans.set(key, plan);
    return plan;
  };
  const memory = new Map<string, { readonly input: OneInput; readonly plan: MaterialPlan }>();
  let last: { readonly parts: readonly Part[]; readonly plans: Plans; readonly of: readonly unknown[] } | null = null;
  return (parts, project, { cutting }, book) => {
    const of = [parts, project.waits, project.keptPlans, project.offcuts, cutting, book];
    if (last && sameItems(last.of, of)) return last.plans;
    const byMaterial = new Map<string, Part[]>();
    for (const part of parts) {
      const own = byMaterial.get(part.material);
      if (own) own.push(part);
      else byMaterial.set(part.material, [part]);
    }
    const plans = [...byMaterial].flatMap(([id, own]): MaterialPlan[] => {
      const material = book.items.find((item) => item.id === id);
      if (!material || withoutStock(material)) return [];
      const ids = new Set(own.map((part) => part.id));
      const input: OneInput = {
        material,
        parts: own,
        waits: project.waits.filter((wait) => ids.has(wait.part)),
        kept: project.keptPlans.find((plan) => plan.material === id),
        offcuts: project.offcuts.filter((offcut) => offcut.material === id),
        cutting,
      };
      const known = memory.get(id);
      const plan =
        known && sameInput(known.input, input)
          ? known.plan
          : planMaterial(
              jobOfMaterial(material, own, cutting, input.waits),
              input.kept,
              project.offcuts,
              cutting.smallestOffcut,
              firstPlan,
              own,
            );
      memory.set(id, { input, plan });
      return [plan];
    });
    const made: Plans = {
      plans,
      without: parts.filter((part) => {
        const material = book.items.find((item) => item.id === part.material);
        return !material || withoutStock(material);
      }),
    };
    last = { parts, plans: made, of };
    return made;
  };
}
