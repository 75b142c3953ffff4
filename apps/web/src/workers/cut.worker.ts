import * as Comlink from 'comlink';
import wasmUrl from 'highs/runtime?url';
import { loadProgram, searchPlans, type CutJob, type CutPlan, type SolveProgram } from '@nestplank/core/cutting';

export interface CutProgress {
  readonly step: number;
  readonly plan: CutPlan;
}

/** Progress is told about this often, ms. */
const TELL_EVERY_MS = 80;
/** A job that is not proved after this long is worth loading the program solver for, ms. */
const EASY_MS = 400;

/** The program solver is waited for so long, ms: a search goes on without it rather than stand still. */
const LOADED_WITHIN_MS = 3000;

/** The program solver; undefined where it cannot be had in time. */
const programInTime = (): Promise<SolveProgram | undefined> =>
  Promise.race([
    loadProgram(wasmUrl).catch(() => undefined),
    new Promise<undefined>((resolve) => setTimeout(() => resolve(undefined), LOADED_WITHIN_MS)),
  ]);

const service = {
  /** Searches until proved or out of time, telling how far it is; it is stopped by ending the worker. */
  async search(
    job: CutJob,
    seconds: number,
    smallestOffcut: number,
    tell: (progress: CutProgress) => void,
  ): Promise<CutProgress> {
    const started = performance.now();
    let told = started;
    let last: CutProgress | null = null;
    const run = (until: number, program?: SolveProgram): void => {
      for (const { step, plan, improved } of searchPlans(job, {
        steps: Number.MAX_SAFE_INTEGER,
        seed: 1,
        smallestOffcut,
        program,
      })) {
        const now = performance.now();
        if (
          !last ||
          plan.unplaced.length < last.plan.unplaced.length ||
          (plan.unplaced.length === last.plan.unplaced.length && plan.cost <= last.plan.cost)
        )
          last = { step, plan: { ...plan, seconds: Math.round(now - started) / 1000 } };
        if (improved || now - told > TELL_EVERY_MS) {
          told = now;
          tell(last);
        }
        if (now - started > until) break;
      }
    };
    run(Math.min(EASY_MS, seconds * 1000));
    const easy = last as CutProgress | null;
    if (easy && !easy.plan.proved && seconds * 1000 > EASY_MS) run(seconds * 1000, await programInTime());
    if (!last) throw new Error('The search gave no plan.');
    return last;
  },
};

export type CutService = typeof service;
Comlink.expose(service);
