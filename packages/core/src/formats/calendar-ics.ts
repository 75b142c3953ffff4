import { addMinutes } from 'date-fns/addMinutes';
import { parseISO } from 'date-fns/parseISO';
import * as ics from 'ics';
import type { Project } from '../document/schema.js';
import type { PlannedTask, Schedule, Stretch } from '../work/schedule.js';
import type { Task } from '../work/task.js';
import { say, type Voice } from '../words/say.js';

/** A moment as the calendar's own clock shows it: hours are counted from midnight of the first day. */
function clock(startDate: string, hour: number): ics.DateTime {
  const at = addMinutes(parseISO(startDate), Math.round(hour * 60));
  return [at.getFullYear(), at.getMonth() + 1, at.getDate(), at.getHours(), at.getMinutes()];
}

/**
 * The days ahead as an iCalendar file (RFC 5545): each stretch of work an event, each wait one that leaves the time free.
 * Every event has the same name in each file that is made of a build, so that a calendar that takes it in again has nothing
 * twice. Times float: nine in the morning is nine wherever it is read.
 * @param startDate ISO date that the schedule's hours are counted from
 * @throws Error when a date of it is none
 */
export function scheduleIcs(
  project: Pick<Project, 'id' | 'name'>,
  schedule: Schedule,
  startDate: string,
  voice: Voice,
): string {
  const said = (task: Task, key: 'title' | 'tools'): string => say(task[key], voice);
  const event = (task: Task, name: string, { from, to }: Stretch, free: boolean): ics.EventAttributes => ({
    uid: `${project.id}.${task.id}.${name}@nest-plank`,
    title: free && task.lagWhy ? `${say(task.lagWhy, voice)} (${said(task, 'title')})` : said(task, 'title'),
    description: free ? '' : [said(task, 'tools'), task.caution ? say(task.caution, voice) : ''].join('\n').trim(),
    start: clock(startDate, from),
    // what takes less than a minute is a minute long
    end: clock(startDate, Math.max(to, from + 1 / 60)),
    startInputType: 'local',
    startOutputType: 'local',
    endInputType: 'local',
    endOutputType: 'local',
    busyStatus: free ? 'FREE' : 'BUSY',
    calName: project.name,
    productId: 'nest-plank',
  });
  const ofTask = ({ task, work, wait }: PlannedTask): ics.EventAttributes[] => [
    ...work.map((stretch, i) => event(task, `work-${i + 1}`, stretch, false)),
    ...(wait ? [event(task, 'wait', wait, true)] : []),
  ];
  const { error, value } = ics.createEvents([
    ...schedule.curing.map(({ task, wait }) => event(task, 'wait', wait, true)),
    ...schedule.tasks.flatMap(ofTask),
  ]);
  if (error) throw error;
  return value ?? '';
}
