import * as Comlink from 'comlink';
import { useCallback, useEffect, useRef, useState } from 'react';
import type { CutPlan, MaterialPlan } from '@nestplank/core';
import { act } from '../../state/session.js';
import type { CutProgress, CutService } from '../../workers/cut.worker.js';

/** Time a material is searched for at most, seconds. */
const SECONDS = 6;

export interface Cutting {
  readonly running: {
    readonly material: string;
    readonly step: number;
    readonly share: number;
    readonly plan: CutPlan;
  } | null;
  /** What the last search came to, by material. */
  readonly results: Readonly<
    Record<string, { readonly before: number; readonly after: number; readonly steps: number }>
  >;
  readonly start: (plans: readonly MaterialPlan[], smallestOffcut: number) => void;
  readonly cancel: () => void;
}

/** Searches material after material in a worker; what was found is kept even when it is stopped halfway. */
export function useCutting(): Cutting {
  const [running, setRunning] = useState<Cutting['running']>(null);
  const [results, setResults] = useState<Cutting['results']>({});
  const stop = useRef<(() => void) | null>(null);

  const searchOne = useCallback(async (item: MaterialPlan, smallestOffcut: number): Promise<boolean> => {
    const worker = new Worker(new URL('../../workers/cut.worker.ts', import.meta.url), { type: 'module' });
    const service = Comlink.wrap<CutService>(worker);
    let best: CutProgress | null = null;
    const started = performance.now();
    const cancelled = new Promise<'cancelled'>((resolve) => {
      stop.current = () => resolve('cancelled');
    });
    const failed = new Promise<'failed'>((resolve) => worker.addEventListener('error', () => resolve('failed')));
    const told = Comlink.proxy((progress: CutProgress) => {
      best = progress;
      setRunning({
        material: item.material.id,
        step: progress.step,
        share: Math.min(1, (performance.now() - started) / (SECONDS * 1000)),
        plan: progress.plan,
      });
    });
    setRunning({ material: item.material.id, step: 0, share: 0, plan: item.plan });
    const end = await Promise.race([service.search(item.job, SECONDS, smallestOffcut, told), cancelled, failed]);
    worker.terminate();
    stop.current = null;
    const found = typeof end === 'string' ? (best as CutProgress | null) : end;
    if (found && found.plan.unplaced.length <= item.plan.unplaced.length && found.plan.cost <= item.plan.cost) {
      act({ name: 'keepPlan', payload: { material: item.material.id, job: item.key, plan: found.plan } });
    }
    if (found)
      setResults((all) => ({
        ...all,
        [item.material.id]: {
          before: item.plan.cost,
          after: Math.min(found.plan.cost, item.plan.cost),
          steps: found.step,
        },
      }));
    return end !== 'cancelled';
  }, []);

  const start = useCallback(
    (plans: readonly MaterialPlan[], smallestOffcut: number): void => {
      const run = async (): Promise<void> => {
        for (const item of plans) if (!(await searchOne(item, smallestOffcut))) break;
        setRunning(null);
      };
      void run();
    },
    [searchOne],
  );
  const cancel = useCallback(() => stop.current?.(), []);
  useEffect(() => () => stop.current?.(), []);
  return { running, results, start, cancel };
}
