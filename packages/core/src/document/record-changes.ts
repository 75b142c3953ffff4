import { message } from '../words/message.js';
import { OperationError } from './operation-error.js';
import type { OperationName, OperationOf } from './operation.js';
import type { BuildRecord, Project, Worked } from './schema.js';

type Payload<Name extends OperationName> = OperationOf<Name>['payload'];

const recordOf = (draft: Project): BuildRecord => (draft.record ??= { tasks: [], log: [] });

const MINUTE_MS = 60_000;
/** Nobody works at one task for longer without a pause: whoever forgot to press it has not worked through the night, minutes. */
const LONGEST_STRETCH = 16 * 60;

/** What was worked on a task up to a moment, minutes, with what is in hand. */
export const minutesOn = ({ since, minutes }: Pick<Worked, 'since' | 'minutes'>, at: string): number =>
  minutes +
  (since === null ? 0 : Math.min(LONGEST_STRETCH, Math.max(0, (Date.parse(at) - Date.parse(since)) / MINUTE_MS)));

const rest = (worked: Worked, at: string): void => {
  worked.minutes = Math.round(minutesOn(worked, at));
  worked.since = null;
};

/** The task as it stands in the record, put in where it was not touched before. */
function touch(draft: Project, { task, title, kind, estimate, by }: Omit<Payload<'startTask'>, 'at'>): Worked {
  const { tasks } = recordOf(draft);
  const known = tasks.find((own) => own.task === task);
  if (known) return Object.assign(known, { title, kind, estimate, ...(by === '' ? {} : { by }) });
  tasks.push({ task, title, kind, estimate, since: null, minutes: 0, done: null, notBefore: null, by, covers: '' });
  return tasks.at(-1) as Worked;
}

function known(draft: Project, task: string): Worked {
  const found = draft.record?.tasks.find((own) => own.task === task);
  if (!found) throw new OperationError(message('operation.notTouched', { task }), task);
  return found;
}

function stillOpen(draft: Project, task: string): void {
  const done = draft.record?.tasks.find((own) => own.task === task && own.done !== null);
  if (!done) return;
  const day = (done.done ?? '').slice(0, 10);
  throw new OperationError(
    done.by === ''
      ? message('operation.doneAlready', { title: done.title, day })
      : message('operation.doneAlreadyBy', { title: done.title, day, by: done.by }),
    task,
  );
}

export function start(draft: Project, { at, ...task }: Payload<'startTask'>): void {
  stillOpen(draft, task.task);
  for (const other of recordOf(draft).tasks) if (other.since !== null && other.by === task.by) rest(other, at);
  const worked = touch(draft, task);
  worked.since = at;
  worked.notBefore = null;
}

export function pause(draft: Project, { task, at }: Payload<'pauseTask'>): void {
  const worked = known(draft, task);
  if (worked.since === null) throw new OperationError(message('operation.notInHand', { title: worked.title }), task);
  rest(worked, at);
}

export function finish(draft: Project, { at, minutes, covers, ...task }: Payload<'finishTask'>): void {
  stillOpen(draft, task.task);
  const worked = touch(draft, task);
  rest(worked, at);
  if (minutes !== null) worked.minutes = minutes;
  worked.done = at;
  worked.notBefore = null;
  worked.covers = covers;
}

export function reopen(draft: Project, { task }: Payload<'reopenTask'>): void {
  const worked = known(draft, task);
  if (worked.done === null) throw new OperationError(message('operation.notDone', { title: worked.title }), task);
  worked.done = null;
  worked.covers = '';
}

export function putOff(draft: Project, { at, until, ...task }: Payload<'putOffTask'>): void {
  stillOpen(draft, task.task);
  const worked = touch(draft, task);
  if (worked.since !== null) rest(worked, at);
  worked.notBefore = until;
}

export function write(draft: Project, { entry }: Payload<'writeLog'>): void {
  if (entry.text.trim() === '' && entry.photo === null && entry.minutes === null && entry.money === null)
    throw new OperationError(message('operation.emptyEntry'), entry.id);
  const { log } = recordOf(draft);
  if (log.some(({ id }) => id === entry.id)) throw new OperationError(message('operation.writtenAlready'), entry.id);
  log.push(entry);
}

export function strike(draft: Project, { id, reason, at }: Payload<'strikeLog'>): void {
  const entry = draft.record?.log.find((own) => own.id === id);
  if (!entry) throw new OperationError(message('operation.notThere', { id }), id);
  entry.struck = { reason, at };
}
