import * as Comlink from 'comlink';
import { useCallback, useEffect, useRef, useState } from 'react';
import type { CutPlan } from '@nestplank/core/document';
import { costWith, keptFrom, type CutJob, type MaterialPlan } from '@nestplank/core/plan';
import { act, useSession } from '../../state/session.js';
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
  readonly start: (materials: readonly string[], smallestOffcut: number) => void;
  readonly cancel: () => void;
}

/** The plan of a material as it stands at this moment. */
const itemNow = (material: string): MaterialPlan | undefined =>
  useSession.getState().derived?.plans.find((item) => item.material.id === material);

/** A worker that has not answered so long after its time keeps nobody waiting, s: what it told by then is taken. */
const GRACE_S = 6;

/** A search in a worker of its own that can be stopped; what it found so far is told on the way. */
export function searchInWorker(
  job: CutJob,
  seconds: number,
  smallestOffcut: number,
  tell: (progress: CutProgress) => void,
): { readonly end: Promise<CutProgress | null>; readonly stop: () => void } {
  const worker = new Worker(new URL('../../workers/cut.worker.ts', import.meta.url), { type: 'module' });
  const service = Comlink.wrap<CutService>(worker);
  let best: CutProgress | null = null;
  let stop: () => void = () => undefined;
  const stopped = new Promise<null>((resolve) => {
    stop = () => resolve(null);
    worker.addEventListener('error', () => resolve(null));
  });
  const late = window.setTimeout(() => stop(), (seconds + GRACE_S) * 1000);
  let over = false;
  const told = Comlink.proxy((progress: CutProgress) => {
    // what is told travels its own way, and may come in after the answer: the search is over then
    if (over) return;
    best = progress;
    tell(progress);
  });
  const end = Promise.race([service.search(job, seconds, smallestOffcut, told), stopped]).then((last) => {
    over = true;
    window.clearTimeout(late);
    worker.terminate();
    return last ?? best;
  });
  return { end, stop };
}

/** Searches material after material in a worker; what was found is kept even when it is stopped halfway. */
export function useCutting(): Cutting {
  const [running, setRunning] = useState<Cutting['running']>(null);
  const [results, setResults] = useState<Cutting['results']>({});
  const stop = useRef<(() => void) | null>(null);

  /** Searches one material; false when the design moved on meanwhile, so that what was found is of no use. */
  const searchOne = useCallback(async (item: MaterialPlan, smallestOffcut: number): Promise<boolean> => {
    const started = performance.now();
    setRunning({ material: item.material.id, step: 0, share: 0, plan: item.plan });
    const search = searchInWorker(item.search, SECONDS, smallestOffcut, ({ step, plan }) =>
      setRunning({
        material: item.material.id,
        step,
        share: Math.min(1, (performance.now() - started) / (SECONDS * 1000)),
        plan,
      }),
    );
    const ask = stop.current;
    stop.current = () => {
      ask?.();
      search.stop();
    };
    const found = await search.end;
    stop.current = ask;
    if (!found) return true;
    if (itemNow(item.material.id)?.key !== item.key) return false;
    const before = item.plan.cost;
    const after = costWith(item, found.plan);
    if (found.plan.unplaced.length <= item.plan.unplaced.length && after <= before)
      act({ name: 'keepPlan', payload: keptFrom(item, found.plan) });
    setResults((all) => ({
      ...all,
      [item.material.id]: { before, after: Math.min(after, before), steps: found.step },
    }));
    return true;
  }, []);

  const start = useCallback(
    (materials: readonly string[], smallestOffcut: number): void => {
      const run = async (): Promise<void> => {
        let stopped = false;
        stop.current = () => {
          stopped = true;
        };
        for (const material of materials)
          for (let attempt = 0; attempt < 2 && !stopped; attempt += 1) {
            const item = itemNow(material);
            if (!item || item.search.parts.length === 0 || (await searchOne(item, smallestOffcut))) break;
          }
        stop.current = null;
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
