import { message, type Message } from '../words/message.js';
import type { Task } from './task.js';

/** Why one task comes before another. */
export type Reason = 'physical' | 'reach' | 'hides' | 'cure' | 'try' | 'cut';

const SHELL: readonly Task['kind'][] = ['insulate', 'batten', 'line', 'back', 'trial', 'lay', 'glue', 'coat'];
const HIDDEN: readonly Task['kind'][] = ['find', 'test', 'hole', 'wire', 'run'];

/** Why a task waits for the one before it, from what both are. */
export function reasonOf(before: Task, task: Task): Reason {
  if (before.kind === 'cut') return 'cut';
  if (before.lagHours > 0) return 'cure';
  if (HIDDEN.includes(before.kind) && SHELL.includes(task.kind)) return 'hides';
  if (task.kind === 'test') return 'try';
  if (task.kind === 'fit' && SHELL.includes(before.kind)) return 'reach';
  return 'physical';
}

/** The same in words. */
export const reasonSaid = (before: Task, task: Task): Message =>
  message(`reason.${reasonOf(before, task)}`, { hours: Math.round(before.lagHours) });
