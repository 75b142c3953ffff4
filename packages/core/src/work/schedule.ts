import { addDays } from 'date-fns/addDays';
import { differenceInCalendarDays } from 'date-fns/differenceInCalendarDays';
import { formatISO } from 'date-fns/formatISO';
import { parseISO } from 'date-fns/parseISO';
import type { Worked } from '../document/schema.js';
import { learntFrom, workedOn, type Learnt } from './progress.js';
import type { Task } from './task.js';
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
  /** What is left of it, minutes: what it is thought to take, or what its kind really took, less what was worked on it. */
  readonly left: number;
  /** What tasks of its kind took, least and most of the middle half, minutes; null while too few are known. */
  readonly range: readonly [number, number] | null;
}
/** What is done and still has to cure or dry. */
export interface Curing {
  readonly task: Task;
  readonly wait: Stretch;
  readonly until: string;
}
export interface Schedule {
  readonly tasks: readonly PlannedTask[];
  /** ISO date of the last day of work or waiting; null without tasks. */
  readonly ends: string | null;
  readonly workHours: number;
  readonly waitHours: number;
  readonly curing: readonly Curing[];
  /** What is ticked, with what is no task any more because of it, such as a find that is mended. */
  readonly done: number;
  /** What the hours of each kind of work taught. */
  readonly learnt: readonly Learnt[];
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

/** What was done so far, and which day it is; null where nobody says, and the last thing done tells. */
export interface SoFar {
  readonly worked: readonly Worked[];
  readonly today: string | null;
}
const NOTHING_YET: SoFar = { worked: [], today: null };
/** What is begun takes so long still, whatever was thought, minutes. */
const LEAST_LEFT = 15;

/** What is left of a task, minutes. */
function leftOf(task: Task, worked: Worked | undefined, learnt: ReadonlyMap<string, Learnt>, at: string): number {
  const whole = task.minutes * (learnt.get(task.kind)?.ratio ?? 1);
  const spent = worked ? workedOn(worked, at) : 0;
  return Math.max(1, spent > 0 ? Math.max(LEAST_LEFT, whole - spent) : whole);
}

/**
 * Earliest days for one person: of the work that may begin, the one with the longest chain behind it goes first; while
 * something cures, other work is done. Waiting runs round the clock, work only in the working day. What is ticked is not
 * planned any more, and what it waits for runs from when it was done; what is begun comes first; nothing is planned before
 * today.
 * @param startDate ISO date of the first day
 * @throws ScheduleError when tasks wait for each other in a circle
 */
export function scheduleOf(
  tasks: readonly Task[],
  startDate: string,
  hoursPerDay: number,
  { worked, today }: SoFar = NOTHING_YET,
): Schedule {
  const chain = chainBehind(tasks);
  const record = new Map(worked.map((own) => [own.task, own]));
  const learntList = learntFrom(worked);
  const learnt = new Map(learntList.map((own) => [own.kind as string, own]));
  const origin = parseISO(startDate);
  const hourOf = (at: string): number => {
    const moment = parseISO(at);
    return 24 * differenceInCalendarDays(moment, origin) + moment.getHours() + moment.getMinutes() / 60;
  };
  const morningOf = (date: string): number => 24 * differenceInCalendarDays(parseISO(date), origin) + MORNING;
  const touched = worked.flatMap(({ done, since }) => [done, since].filter((at) => at !== null)).sort();
  const last = touched.at(-1);
  const known = new Set(tasks.map((task) => task.id));
  const day = (hour: number): string => formatISO(addDays(origin, Math.floor(hour / 24)), { representation: 'date' });
  const readyAt = new Map<string, number>();
  const endedAt = new Map<string, number>();
  const open = new Set(tasks.filter(({ id }) => (record.get(id)?.done ?? null) === null));
  const planned: PlannedTask[] = [];
  const lastHour = last === undefined ? MORNING : hourOf(last);
  // what was done today is behind; what is ticked for a day to come says nothing of today
  const [dayStart, dayEnd] = today === null ? [MORNING, Infinity] : [morningOf(today), morningOf(today) + 24 - MORNING];
  let now = Math.max(MORNING, dayStart, lastHour < dayEnd ? lastHour : 0);
  const nowAt = last ?? `${today ?? startDate}T00:00:00Z`;
  const curing: Curing[] = [];
  for (const task of tasks) {
    const done = record.get(task.id)?.done ?? null;
    if (done === null) continue;
    const at = hourOf(done);
    readyAt.set(task.id, at + task.lagHours);
    endedAt.set(task.id, at);
    if (task.lagHours > 0 && at + task.lagHours > now)
      curing.push({ task, wait: { from: at, to: at + task.lagHours }, until: day(at + task.lagHours) });
  }
  while (open.size > 0) {
    const possible = [...open].filter((task) => task.after.every((id) => !known.has(id) || readyAt.has(id)));
    const begins = (task: Task): number => {
      const { notBefore = null } = record.get(task.id) ?? {};
      return Math.max(
        now,
        notBefore === null ? 0 : morningOf(notBefore),
        ...task.after.map((id) => readyAt.get(id) ?? 0),
      );
    };
    const inHand = (task: Task): number => ((record.get(task.id)?.since ?? null) === null ? 0 : 1);
    const earliest = Math.min(...possible.map(begins));
    const next = possible
      .filter((task) => begins(task) <= Math.max(now, earliest) + ROUNDING)
      .sort((a, b) => inHand(b) - inHand(a) || (chain.get(b.id) ?? 0) - (chain.get(a.id) ?? 0))[0];
    if (!next) throw new ScheduleError('No task can begin.');
    const plan = (task: Task, from: number): number => {
      const minutes = leftOf(task, record.get(task.id), learnt, nowAt);
      const work = task.unbroken ? unbrokenFrom(from, minutes, hoursPerDay) : workFrom(from, minutes, hoursPerDay);
      const end = work.at(-1)?.to ?? from;
      const wait = task.lagHours > 0 ? { from: end, to: end + task.lagHours } : null;
      readyAt.set(task.id, wait?.to ?? end);
      endedAt.set(task.id, end);
      const taught = learnt.get(task.kind);
      planned.push({
        task,
        work,
        wait,
        starts: day(work[0]?.from ?? from),
        ends: day(end),
        left: minutes,
        range: taught ? [task.minutes * taught.low, task.minutes * taught.high] : null,
      });
      return end;
    };
    let from = begins(next);
    const late = next.within;
    const ended = late && endedAt.get(late.after);
    const first = next.unbroken
      ? unbrokenFrom(from, leftOf(next, record.get(next.id), learnt, nowAt), hoursPerDay)[0]
      : { from };
    // what comes too late after the work it follows has other work before it
    if (
      late &&
      ended !== undefined &&
      !record.get(late.else.id)?.done &&
      first &&
      first.from - ended > late.hours + ROUNDING
    )
      from = plan(late.else, from);
    now = plan(next, from);
    open.delete(next);
  }
  const waits = planned.filter((item) => item.wait).sort((a, b) => (a.wait?.from ?? 0) - (b.wait?.from ?? 0));
  const first = waits[0];
  const finish = Math.max(
    0,
    ...planned.map((item) => item.wait?.to ?? item.work.at(-1)?.to ?? 0),
    ...curing.map(({ wait }) => wait.to),
  );
  return {
    tasks: planned,
    ends: planned.length + curing.length > 0 ? day(finish) : null,
    workHours: planned.reduce((sum, { left }) => sum + left / 60, 0),
    waitHours: planned.reduce((sum, item) => sum + item.task.lagHours, 0),
    curing,
    done: worked.filter(({ done }) => done !== null).length,
    learnt: learntList,
    nextWait: first?.wait ? { task: first.task.id, from: day(first.wait.from), until: day(first.wait.to) } : null,
  };
}
