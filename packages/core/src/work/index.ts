/** Order of work: what comes when, what is done, what it taught. */
export { type DoneTask, tick, touched, untick, workedOn } from './progress.js';
export { reasonSaid } from './reasons.js';
export type { PlannedTask, Schedule } from './schedule.js';
export type { Task } from './task.js';
