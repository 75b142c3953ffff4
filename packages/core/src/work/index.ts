/** Order of work. */
export type { Schedule } from './schedule.js';
