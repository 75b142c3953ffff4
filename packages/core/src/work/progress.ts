import { minutesOn } from '../document/record-changes.js';
import type { Operation } from '../document/operation.js';
import type { BuildRecord, Project, Worked } from '../document/schema.js';
import { fingerprint } from '../numeric/fingerprint.js';
import type { Part } from '../parts/part.js';
import type { Message } from '../words/message.js';
import type { Task, TaskKind } from './task.js';

/** So many tasks of a kind with their hours teach what the next one takes; fewer say nothing. */
const ENOUGH = 5;
/** A single slip of the clock does not teach more than this, as shares of the estimate. */
const TAUGHT = { least: 0.25, most: 6 } as const;

/** What the hours of a kind of work taught: real time by the estimate, median, and the middle half of them. */
export interface Learnt {
  readonly kind: TaskKind;
  readonly count: number;
  readonly ratio: number;
  readonly low: number;
  readonly high: number;
}

/** Value of a sorted list at a share of its length, between neighbours in proportion. */
function quantile(sorted: readonly number[], share: number): number {
  const at = share * (sorted.length - 1);
  const [low, high] = [sorted[Math.floor(at)] ?? 1, sorted[Math.ceil(at)] ?? 1];
  return low + (high - low) * (at - Math.floor(at));
}

/**
 * What kinds of work really took against what was thought, from the tasks that are ticked and have hours: at least five of
 * a kind. Median and quartiles of the ratios.
 */
export function learntFrom(worked: readonly Worked[]): readonly Learnt[] {
  const ratios = new Map<string, number[]>();
  for (const { kind, done, minutes, estimate } of worked)
    if (done !== null && minutes > 0 && estimate > 0)
      ratios.set(kind, [
        ...(ratios.get(kind) ?? []),
        Math.min(TAUGHT.most, Math.max(TAUGHT.least, minutes / estimate)),
      ]);
  return [...ratios.entries()]
    .filter(([, list]) => list.length >= ENOUGH)
    .map(([kind, list]) => {
      const sorted = [...list].sort((a, b) => a - b);
      return {
        kind: kind as TaskKind,
        count: sorted.length,
        ratio: quantile(sorted, 0.5),
        low: quantile(sorted, 0.25),
        high: quantile(sorted, 0.75),
      };
    });
}

/** What a task is made of, as a fingerprint: another one when a part it works on is another, or comes or goes. */
export function coversOf(task: Pick<Task, 'parts' | 'title'>, parts: ReadonlyMap<string, Part>): string {
  const own = (task.parts ?? []).map((id) => {
    const part = parts.get(id);
    return part ? [id, part.material, part.thickness, part.outline.outer, part.outline.holes] : [id];
  });
  // a thousandth of a millimetre is no other part
  const rounded = (_: string, value: unknown): unknown =>
    typeof value === 'number' ? Math.round(value * 1000) / 1000 : value;
  return fingerprint(JSON.stringify(own, rounded));
}

/** A task that was ticked, with whether what it made is still what is asked for. */
export interface DoneTask {
  readonly worked: Worked;
  /** Null where the design has no such task any more. */
  readonly task: Task | null;
  /** Parts of it are others than when it was ticked. */
  readonly reopened: boolean;
}

const NONE_DONE: readonly DoneTask[] = [];

/** What was ticked, newest first. */
export function doneTasks(record: BuildRecord, tasks: readonly Task[], parts: readonly Part[]): readonly DoneTask[] {
  if (record.tasks.every(({ done }) => done === null)) return NONE_DONE;
  const known = new Map(tasks.map((task) => [task.id, task]));
  const byId = new Map(parts.map((part) => [part.id, part]));
  return record.tasks
    .filter(({ done }) => done !== null)
    .map((worked): DoneTask => {
      const task = known.get(worked.task) ?? null;
      return {
        worked,
        task,
        reopened: task !== null && worked.covers !== '' && coversOf(task, byId) !== worked.covers,
      };
    })
    .sort((a, b) => (b.worked.done ?? '').localeCompare(a.worked.done ?? ''));
}

type Facts = Pick<Project, 'survey' | 'fittings'>;

/** What ticking a task says besides: a find is done, a joint tried, a cable pulled, the leak test passed. */
export function factsOf(task: string, { survey, fittings }: Facts, at: string | null): Operation[] {
  const done = at !== null;
  if (task === 'test-leak')
    return [{ name: 'setLeakTest', payload: { leakTest: { state: done ? 'passed' : 'open', reason: '', at } } }];
  const found = survey.found.find(({ id }) => task === `found-${id}`);
  if (found) return [{ name: 'putFound', payload: { found: { ...found, status: done ? 'done' : 'open' } } }];
  const joint = survey.before?.joints.find(({ id }) => task === `joint-${id}`);
  if (joint) return [{ name: 'putJoint', payload: { joint: { ...joint, tested: done } } }];
  return fittings
    .filter(
      (fitting) =>
        task === `${fitting.surface}-wiring` &&
        fitting.kind !== 'duct' &&
        !fitting.wired &&
        (fitting.pulled === true) !== done,
    )
    .map((fitting): Operation => ({ name: 'putFitting', payload: { fitting: { ...fitting, pulled: done } } }));
}

/** Who touches a task, when, and what it is called in their language. */
export interface Touch {
  readonly at: string;
  readonly by: string;
  readonly say: (said: Message) => string;
}

/** A task as operations carry it. */
export const touched = ({ id, kind, title, minutes }: Task, { at, by, say }: Touch) => ({
  task: id,
  kind,
  title: say(title),
  estimate: minutes,
  at,
  by,
});

/** Ticks a task, and what that says besides, in one step. */
export function tick(
  task: Task,
  project: Facts,
  parts: readonly Part[],
  touch: Touch,
  minutes: number | null = null,
): Operation {
  const byId = new Map(parts.map((part) => [part.id, part]));
  const finish: Operation = {
    name: 'finishTask',
    payload: { ...touched(task, touch), minutes, covers: coversOf(task, byId) },
  };
  const facts = factsOf(task.id, project, touch.at);
  return facts.length === 0 ? finish : { name: 'together', payload: { operations: [...facts, finish] } };
}

/** Takes a tick back, and what it said besides. */
export function untick(task: string, project: Facts): Operation {
  const reopen: Operation = { name: 'reopenTask', payload: { task } };
  const facts = factsOf(task, project, null);
  return facts.length === 0 ? reopen : { name: 'together', payload: { operations: [...facts, reopen] } };
}

/** How long was worked on a task by now, minutes. */
export const workedOn = (worked: Worked, now: string): number => minutesOn(worked, now);
