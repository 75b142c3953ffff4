import { parentPort, workerData } from 'node:worker_threads';
import { stepBack } from '../threads.js';
import { ArchiveError, readArchive, type Read } from './read-archive.js';

/** What a thread that reads an archive answers when it is asked for more. */
export type ArchiveAnswer =
  Read | { readonly kind: 'done' } | { readonly kind: 'none'; readonly message: string; readonly file: string | null };

stepBack();
const { archive } = workerData as { readonly archive: Uint8Array };
const reading = readArchive(archive);
// one project at a time: it is asked for the next when the last is in
parentPort?.on('message', () => {
  let answer: ArchiveAnswer;
  try {
    const { value, done } = reading.next();
    answer = done || !value ? { kind: 'done' } : value;
  } catch (problem) {
    answer = {
      kind: 'none',
      message: problem instanceof Error ? problem.message : String(problem),
      file: problem instanceof ArchiveError ? problem.file : null,
    };
  }
  parentPort?.postMessage(answer);
});
