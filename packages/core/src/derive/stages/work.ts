import { scheduleOf } from '../../work/schedule.js';
import { doneTasks } from '../../work/progress.js';
import { tasksOf } from '../../work/tasks.js';
import type { DeriveKit } from '../kit.js';
import type { Stages } from './stages.js';

type From =
  | 'survey'
  | 'units'
  | 'layout'
  | 'things'
  | 'fittings'
  | 'floorHatches'
  | 'floorChoice'
  | 'linings'
  | 'buildUps'
  | 'settings'
  | 'making'
  | 'book'
  | 'parts'
  | 'made'
  | 'joints'
  | 'runs'
  | 'lying'
  | 'areas'
  | 'floor'
  | 'tasks'
  | 'record'
  | 'today';
type Makes = 'joints' | 'tasks' | 'schedule' | 'done';

/** From all that is to be made to the tasks, and the days they fall on. */
export function workStages({ surfaces }: DeriveKit): Stages<From, Makes> {
  return {
    joints: ({ made }) => made.flatMap((unit) => unit.joints),
    tasks: (from) =>
      tasksOf({
        buildUps: from.buildUps,
        survey: from.survey,
        units: from.units,
        fittings: from.fittings,
        floorHatches: from.floorHatches,
        linings: from.linings,
        layout: from.layout,
        things: from.things,
        parts: from.parts,
        joints: from.joints,
        made: from.made,
        runs: from.runs,
        lying: from.lying,
        areas: from.areas,
        coats: from.floor.coats,
        floor: from.floorChoice,
        finish: from.floor.finish,
        surfaces,
        settings: from.making,
        book: from.book,
      }),
    schedule: ({ tasks, settings, record, today }) =>
      scheduleOf(tasks, settings.startDate, settings.hoursPerDay, { worked: record.tasks, today }),
    done: ({ record, tasks, parts }) => doneTasks(record, tasks, parts),
  };
}
