import { describe, expect, it } from 'vitest';
import wrenText from '../../../../demo/wren.json?raw';
import { derive } from '../derive/again.fixture.js';
import { readProjectFile } from '../formats/read.js';
import { PLAIN_VOICE, say } from '../words/say.js';
import { scheduleIcs } from './calendar-ics.js';

const { project, priceBook } = readProjectFile(wrenText);
const { schedule } = derive(project, priceBook);
/** Events as a reader that knows nothing of ours takes them out: lines folded as RFC 5545 folds them. */
const eventsOf = (text: string): Record<string, string>[] =>
  text
    .replace(/\r\n[ \t]/g, '')
    .split('BEGIN:VEVENT')
    .slice(1)
    .map((block) =>
      Object.fromEntries(
        block.split('\r\n').flatMap((line): [string, string][] => {
          const [, name, value] = /^([A-Z-]+)[^:]*:(.*)$/.exec(line) ?? [];
          return name === undefined ? [] : [[name, value ?? '']];
        }),
      ),
    );

describe('the days ahead as a calendar', () => {
  const text = scheduleIcs(project, schedule, project.settings.startDate, PLAIN_VOICE);
  const events = eventsOf(text);
  it('has each stretch of work and each wait once, with its hours', () => {
    const stretches = schedule.tasks.flatMap(({ work }) => work);
    const waits = schedule.tasks.filter(({ wait }) => wait !== null);
    expect(events).toHaveLength(stretches.length + waits.length);
    // 2026-11-30 is a Monday; work begins at nine
    const first = schedule.tasks[0];
    const own = events.find(({ UID }) => UID === `${project.id}.${first?.task.id ?? ''}.work-1@nest-plank`);
    expect(own).toMatchObject({
      DTSTART: '20261130T090000',
      SUMMARY: say(first?.task.title as never).replace(/,/g, '\\,'),
    });
    const minutes = (stamp: string): number =>
      Date.UTC(
        +stamp.slice(0, 4),
        +stamp.slice(4, 6) - 1,
        +stamp.slice(6, 8),
        +stamp.slice(9, 11),
        +stamp.slice(11, 13),
      ) / 60_000;
    const worked = events
      .filter(({ UID }) => UID?.includes('.work-'))
      .reduce((sum, { DTSTART = '', DTEND = '' }) => sum + minutes(DTEND) - minutes(DTSTART), 0);
    expect(Math.abs(worked / 60 - schedule.workHours)).toBeLessThan(stretches.length / 60);
    for (const { DTSTART = '', DTEND = '' } of events) expect(minutes(DTEND)).toBeGreaterThan(minutes(DTSTART));
  });
  it('has every event under one name, the same when it is made again, so that nothing is taken in twice', () => {
    const names = events.map(({ UID }) => UID);
    expect(new Set(names).size).toBe(names.length);
    const later = eventsOf(scheduleIcs(project, schedule, '2027-02-01', PLAIN_VOICE));
    expect(later.map(({ UID }) => UID)).toEqual(names);
    expect(later[0]?.DTSTART).not.toBe(events[0]?.DTSTART);
  });
  it('is a calendar even where there is nothing to do', () => {
    const empty = { ...schedule, tasks: [], curing: [] };
    expect(scheduleIcs(project, empty, project.settings.startDate, PLAIN_VOICE)).toMatch(
      /^BEGIN:VCALENDAR[\s\S]*END:VCALENDAR/,
    );
  });
});
