import { addDays } from 'date-fns/addDays';
import { formatISO } from 'date-fns/formatISO';
import { parseISO } from 'date-fns/parseISO';
import type { Task } from './tasks.js';
import { ROUNDING } from '../numeric/tolerance.js';

/** A stretch of time in hours from midnight of the first day. */
export interface Stretch {
  readonly from: number;
  readonly to: number;
}
export interface PlannedTask {
  readonly task: Task;
  readonly work: readonly Stretch[];
  readonly wait: Stretch | null;
  /** ISO dates of the first and last day of work. */
  readonly starts: string;
  readonly ends: string;
}
export interface Schedule {
  readonly tasks: readonly PlannedTask[];
  /** ISO date of the last day of work or waiting; null without tasks. */
  readonly ends: string | null;
  readonly workHours: number;
  readonly waitHours: number;
  /** The first wait, by when it begins. */
  readonly nextWait: { readonly task: string; readonly from: string; readonly until: string } | null;
}

export class ScheduleError extends Error {}

/** The working day begins at this hour. */
const MORNING = 9;

/** Time left behind each task when everything follows on at once: the longest chain, hours. */
function chainBehind(tasks: readonly Task[]): Map<string, number> {
  const chain = new Map<string, number>();
  const followers = (id: string): Task[] => tasks.filter((task) => task.after.includes(id));
  const walk = (task: Task, seen: ReadonlySet<string>): number => {
    if (seen.has(task.id)) throw new ScheduleError(`The work goes in a circle at ${task.id}.`);
    const known = chain.get(task.id);
    if (known !== undefined) return known;
    const on = new Set([...seen, task.id]);
    const behind = task.minutes / 60 + task.lagHours + Math.max(0, ...followers(task.id).map((next) => walk(next, on)));
    chain.set(task.id, behind);
    return behind;
  };
  for (const task of tasks) walk(task, new Set());
  return chain;
}

/** When something can be done in one go: now, or from the next morning on; longer than a day's work it takes the evening too. */
function unbrokenFrom(now: number, minutes: number, hoursPerDay: number): Stretch[] {
  const day = Math.floor(now / 24);
  const open = 24 * day + MORNING;
  const at = Math.max(now, open);
  const fits = at + minutes / 60 <= open + Math.max(hoursPerDay, minutes / 60) + ROUNDING;
  const from = fits ? at : open + 24;
  return [{ from, to: from + minutes / 60 }];
}

/** Works for `minutes` from the hour `now` on, within working days, and gives the stretches. */
function workFrom(now: number, minutes: number, hoursPerDay: number): Stretch[] {
  const stretches: Stretch[] = [];
  let [at, left] = [now, minutes / 60];
  while (left > ROUNDING) {
    const day = Math.floor(at / 24);
    const [open, close] = [24 * day + MORNING, 24 * day + MORNING + hoursPerDay];
    if (at >= close - ROUNDING) {
      at = 24 * (day + 1) + MORNING;
      continue;
    }
    const from = Math.max(at, open);
    const to = Math.min(close, from + left);
    stretches.push({ from, to });
    left -= to - from;
    at = to;
  }
  return stretches;
}

/**
 * Earliest days for one person: of the work that may begin, the one with the longest chain behind it goes first; while
 * something cures, other work is done. Waiting runs round the clock, work only in the working day.
 * @param startDate ISO date of the first day
 * @throws ScheduleError when tasks wait for each other in a circle
 */
export function scheduleOf(tasks: readonly Task[], startDate: string, hoursPerDay: number): Schedule {
  const chain = chainBehind(tasks);
  const known = new Set(tasks.map((task) => task.id));
  const readyAt = new Map<string, number>();
  const endedAt = new Map<string, number>();
  const open = new Set(tasks);
  const planned: PlannedTask[] = [];
  const day = (hour: number): string =>
    formatISO(addDays(parseISO(startDate), Math.floor(hour / 24)), { representation: 'date' });
  let now = MORNING;
  while (open.size > 0) {
    const possible = [...open].filter((task) => task.after.every((id) => !known.has(id) || readyAt.has(id)));
    const begins = (task: Task): number => Math.max(now, ...task.after.map((id) => readyAt.get(id) ?? 0));
    const earliest = Math.min(...possible.map(begins));
    const next = possible
      .filter((task) => begins(task) <= Math.max(now, earliest) + ROUNDING)
      .sort((a, b) => (chain.get(b.id) ?? 0) - (chain.get(a.id) ?? 0))[0];
    if (!next) throw new ScheduleError('No task can begin.');
    const plan = (task: Task, from: number): number => {
      const minutes = Math.max(1, task.minutes);
      const work = task.unbroken ? unbrokenFrom(from, minutes, hoursPerDay) : workFrom(from, minutes, hoursPerDay);
      const end = work.at(-1)?.to ?? from;
      const wait = task.lagHours > 0 ? { from: end, to: end + task.lagHours } : null;
      readyAt.set(task.id, wait?.to ?? end);
      endedAt.set(task.id, end);
      planned.push({ task, work, wait, starts: day(work[0]?.from ?? from), ends: day(end) });
      return end;
    };
    let from = begins(next);
    const late = next.within;
    const ended = late && endedAt.get(late.after);
    const first = next.unbroken ? unbrokenFrom(from, Math.max(1, next.minutes), hoursPerDay)[0] : { from };
    // what comes too late after the work it follows has other work before it
    if (late && ended !== undefined && first && first.from - ended > late.hours + ROUNDING)
      from = plan(late.else, from);
    now = plan(next, from);
    open.delete(next);
  }
  const waits = planned.filter((item) => item.wait).sort((a, b) => (a.wait?.from ?? 0) - (b.wait?.from ?? 0));
  const first = waits[0];
  const finish = Math.max(0, ...planned.map((item) => item.wait?.to ?? item.work.at(-1)?.to ?? 0));
  return {
    tasks: planned,
    ends: planned.length > 0 ? day(finish) : null,
    workHours: planned.reduce((sum, item) => sum + item.task.minutes / 60, 0),
    waitHours: planned.reduce((sum, item) => sum + item.task.lagHours, 0),
    nextWait: first?.wait ? { task: first.task.id, from: day(first.wait.from), until: day(first.wait.to) } : null,
  };
}
