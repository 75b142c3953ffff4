import { parentPort, workerData } from 'node:worker_threads';
import { stepBack } from '../threads.js';
import { copyDatabase } from './backup-files.js';

stepBack();
const { from, to } = workerData as { readonly from: string; readonly to: string };
parentPort?.postMessage(copyDatabase(from, to));
