import type { Family } from '../family.js';
import { baseRun } from './base-run.js';
import { bedPlatform } from './bed-platform.js';

/** Every family there is. A new one is a file of its own and a line here. */
export const FAMILIES: readonly Family[] = [bedPlatform, baseRun];
