import * as Comlink from 'comlink';
import { searchPlans, type CutJob, type CutPlan } from '@nestplank/core/cutting';

export interface CutProgress {
  readonly step: number;
  readonly plan: CutPlan;
}

/** Progress is told about this often, ms. */
const TELL_EVERY_MS = 80;

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
    for (const { step, plan, improved } of searchPlans(job, {
      steps: Number.MAX_SAFE_INTEGER,
      seed: 1,
      smallestOffcut,
    })) {
      const now = performance.now();
      last = { step, plan: { ...plan, seconds: Math.round(now - started) / 1000 } };
      if (improved || now - told > TELL_EVERY_MS) {
        told = now;
        tell(last);
      }
      if (now - started > seconds * 1000) break;
    }
    if (!last) throw new Error('The search gave no plan.');
    return last;
  },
};

export type CutService = typeof service;
Comlink.expose(service);
