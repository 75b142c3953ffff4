import { derive, DERIVE_KIT } from '@nestplank/core/derive';
import {
  LOG_KINDS,
  OperationError,
  readOperation,
  type Operation,
  type Project,
  type ProjectFile,
} from '@nestplank/core/document';
import { projectFileText } from '@nestplank/core/formats';
import { applyOperation } from '@nestplank/core/furniture';
import { reasonSaid, tick, untick, type PlannedTask } from '@nestplank/core/work';
import type { Message } from '@nestplank/core/words';
import { CommandFailure } from './failure.js';
import { openProject, print, save, speaker } from './files.js';

const ISO_DATE = /^\d{4}-\d{2}-\d{2}$/;

function dateOf(text: string | undefined): string | null {
  if (text === undefined) return null;
  if (!ISO_DATE.test(text) || Number.isNaN(Date.parse(text)))
    throw new CommandFailure(2, `“${text}” is no date such as 2026-12-01.`);
  return text;
}

/** Does it on a project, or says why not. */
function done({ project, priceBook }: ProjectFile, operation: Operation, say: (said: Message) => string): Project {
  try {
    return applyOperation(project, readOperation(operation), priceBook).project;
  } catch (problem) {
    if (problem instanceof OperationError) throw new CommandFailure(1, say(problem.said));
    throw problem;
  }
}

const toldTask = ({ task, starts, ends, left, work, wait }: PlannedTask, say: (said: Message) => string) => ({
  task: task.id,
  kind: task.kind,
  title: say(task.title),
  starts,
  ends,
  minutes: Math.round(left),
  hours: work.map(({ from, to }) => [from, to]),
  waits: wait ? [wait.from, wait.to] : null,
  after: task.after,
});

/** The order of work with its days: what is left, what cures, what is done. */
export function scheduleCommand(path: string, options: { date?: string }): void {
  const { project, priceBook } = openProject(path);
  const { schedule } = derive(project, priceBook, DERIVE_KIT, dateOf(options.date));
  const say = speaker(project);
  print(
    JSON.stringify(
      {
        ends: schedule.ends,
        workHours: schedule.workHours,
        waitHours: schedule.waitHours,
        done: schedule.done,
        curing: schedule.curing.map(({ task, until }) => ({ task: task.id, title: say(task.title), until })),
        learnt: schedule.learnt,
        tasks: schedule.tasks.map((planned) => toldTask(planned, say)),
      },
      null,
      1,
    ),
  );
}

/** What is planned for a day: each task with what to take along, what to watch for and what comes before it. */
export function todayCommand(path: string, options: { date?: string }): void {
  const { project, priceBook } = openProject(path);
  const { schedule } = derive(project, priceBook, DERIVE_KIT, dateOf(options.date));
  const say = speaker(project);
  const day = options.date ?? schedule.tasks[0]?.starts ?? null;
  const known = new Map(schedule.tasks.map(({ task }) => [task.id, task]));
  const own = schedule.tasks.filter(({ starts, ends }) => day !== null && starts <= day && day <= ends);
  print(
    JSON.stringify(
      {
        day,
        tasks: own.map((planned) => ({
          ...toldTask(planned, say),
          note: planned.task.note ?? null,
          parts: planned.task.parts ?? [],
          fixings: planned.task.fixings ?? [],
          takeAlong: say(planned.task.tools),
          watchFor: planned.task.caution === null ? null : say(planned.task.caution),
          first: planned.task.open.map(say),
          because: planned.task.after.flatMap((id) => {
            const before = known.get(id);
            return before ? [{ task: id, why: say(reasonSaid(before, planned.task)) }] : [];
          }),
        })),
      },
      null,
      1,
    ),
  );
}

/** Ticks a task, or takes the tick back, and writes the project. */
export function doneCommand(
  path: string,
  task: string,
  options: { output?: string; at?: string; minutes?: number; by?: string; undo?: boolean },
): void {
  const file = openProject(path);
  const say = speaker(file.project);
  const { schedule, parts } = derive(file.project, file.priceBook);
  const planned = schedule.tasks.find((own) => own.task.id === task);
  const at = options.at ?? new Date().toISOString();
  let operation: Operation;
  if (options.undo) operation = untick(task, file.project);
  else if (planned) {
    const touch = { at, by: options.by ?? '', say };
    operation = tick(planned.task, file.project, parts, touch, options.minutes ?? null);
  } else {
    const ticked = file.project.record?.tasks.find((own) => own.task === task && own.done !== null);
    if (ticked) throw new CommandFailure(1, `“${ticked.title}” is ticked already.`);
    throw new CommandFailure(2, `There is no task “${task}”; schedule lists them.`);
  }
  const project = done(file, operation, say);
  save(options.output ?? path, projectFileText(project, file.priceBook));
  const after = derive(project, file.priceBook).schedule;
  print(`${after.done} of ${after.done + after.tasks.length} done, ${Math.round(after.workHours)} h of work left.`);
}

/** The logbook in the order it was written; with a text, one entry more. */
export function logCommand(
  path: string,
  options: { write?: string; kind: string; task?: string; output?: string; at?: string; by?: string },
): void {
  const file = openProject(path);
  if (options.write === undefined) {
    print(JSON.stringify(file.project.record?.log ?? [], null, 1));
    return;
  }
  const kind = LOG_KINDS.find((known) => known === options.kind);
  if (!kind) throw new CommandFailure(2, `“${options.kind}” is none of ${LOG_KINDS.join(', ')}.`);
  const planned = derive(file.project, file.priceBook).schedule.tasks.find((own) => own.task.id === options.task);
  if (options.task !== undefined && !planned)
    throw new CommandFailure(2, `There is no task “${options.task}”; schedule lists them.`);
  const at = options.at ?? new Date().toISOString();
  const log = file.project.record?.log ?? [];
  const entry = {
    id: `log-${Date.parse(at).toString(36)}-${log.length + 1}`,
    kind,
    at,
    text: options.write,
    by: options.by ?? '',
    task: planned?.task.id ?? null,
    work: planned?.task.kind ?? null,
    part: null,
    x: null,
    minutes: null,
    money: null,
    photo: null,
    passed: null,
    struck: null,
  };
  const project = done(file, { name: 'writeLog', payload: { entry } }, speaker(file.project));
  save(options.output ?? path, projectFileText(project, file.priceBook));
  print(`${log.length + 1} entries.`);
}
