import { parentPort } from 'node:worker_threads';
import {
  createDeriver,
  smallFoldOut,
  type SmallFoldOut,
  vehicleMeasures,
  type VehicleMeasures,
} from '@nestplank/core/derive';
import type { PriceBook, Project } from '@nestplank/core/document';
import { stepBack } from '../threads.js';
import { makeFile, MakeError, type FileJob, type Made } from './make-file.js';

/** Long work that must not keep the server from saving: a file, or the measures of a vehicle. */
export type LongJob =
  | { readonly kind: 'file'; readonly job: FileJob }
  | { readonly kind: 'measures' | 'small'; readonly project: Project; readonly priceBook: PriceBook };
export type LongResult = Made | VehicleMeasures | SmallFoldOut | null;
export type LongAnswer =
  | { readonly ok: true; readonly result: LongResult }
  | { readonly ok: false; readonly message: string; readonly place: string | null };

function measured(project: Project, priceBook: PriceBook): VehicleMeasures {
  return vehicleMeasures(project, createDeriver().shape({ ...project, layout: { units: [] } }, priceBook));
}

stepBack();
parentPort?.on('message', (job: LongJob) => {
  void (async () => {
    try {
      const result =
        job.kind === 'file'
          ? await makeFile(job.job)
          : job.kind === 'measures'
            ? measured(job.project, job.priceBook)
            : smallFoldOut(job.project, createDeriver().pull(job.project, job.priceBook));
      parentPort?.postMessage({ ok: true, result } satisfies LongAnswer);
    } catch (problem) {
      parentPort?.postMessage({
        ok: false,
        message: problem instanceof Error ? problem.message : String(problem),
        place: problem instanceof MakeError ? problem.place : null,
      } satisfies LongAnswer);
    }
  })();
});
