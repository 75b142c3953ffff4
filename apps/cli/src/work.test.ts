import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { plank } from './plank.fixture.js';

const wren = fileURLToPath(new URL('../../../demo/wren.json', import.meta.url));
let folder: string;
beforeAll(() => void (folder = mkdtempSync(join(tmpdir(), 'nest-plank-work-'))));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

interface Told {
  readonly task: string;
  readonly minutes: number;
  readonly starts: string;
  readonly after: readonly string[];
}
interface Schedule {
  readonly done: number;
  readonly workHours: number;
  readonly curing: readonly { readonly task: string; readonly until: string }[];
  readonly tasks: readonly Told[];
}
const scheduleOf = (path: string, ...args: string[]): Schedule =>
  JSON.parse(plank('schedule', path, ...args).out) as Schedule;

describe('the work from the command line', () => {
  it('is ticked, planned anew and ticked no second time', () => {
    const before = scheduleOf(wren);
    const cut = before.tasks.find(({ task }) => task === 'kitchen-cut') as Told;
    const file = join(folder, 'ticked.json');
    const args = ['--at', '2026-12-01T15:00:00Z', '--minutes', '300', '--by', 'Ada'];
    const done = plank('done', wren, 'kitchen-cut', '-o', file, ...args);
    expect(done.code).toBe(0);
    const after = scheduleOf(file);
    expect(done.out).toContain(`1 of ${before.tasks.length} done`);
    expect(after.done).toBe(1);
    expect(after.tasks).toHaveLength(before.tasks.length - 1);
    expect(before.workHours - after.workHours).toBeCloseTo(cut.minutes / 60, 6);
    const again = plank('done', file, 'kitchen-cut');
    expect([again.code, again.err]).toEqual([1, expect.stringContaining('ticked already')]);
    const back = plank('done', file, 'kitchen-cut', '--undo');
    expect(back.code).toBe(0);
    expect(
      scheduleOf(file)
        .tasks.map(({ task }) => task)
        .sort(),
    ).toEqual(before.tasks.map(({ task }) => task).sort());
  });
  it('moves what waits for glue with the day it was really glued, and nothing that does not', () => {
    const file = join(folder, 'glued.json');
    plank('done', wren, 'kitchen-assemble', '-o', file, '--at', '2027-01-10T12:00:00Z');
    const { curing, tasks } = scheduleOf(file, '--date', '2027-01-10');
    expect(curing).toMatchObject([{ task: 'kitchen-assemble', until: '2027-01-11' }]);
    expect(tasks.every(({ starts }) => starts >= '2027-01-10')).toBe(true);
  });
  it('tells a day with what to take, to watch for, and why then', () => {
    const { day, tasks } = JSON.parse(plank('today', wren, '--date', '2026-12-10').out) as {
      day: string;
      tasks: readonly { task: string; takeAlong: string; because: readonly { why: string }[] }[];
    };
    expect(day).toBe('2026-12-10');
    expect(tasks.length).toBeGreaterThan(0);
    for (const { takeAlong, because } of tasks) {
      expect(takeAlong.length).toBeGreaterThan(5);
      for (const { why } of because) expect(why.length).toBeGreaterThan(5);
    }
    const bad = plank('today', wren, '--date', 'tomorrow');
    expect([bad.code, bad.err]).toEqual([2, expect.stringContaining('no date')]);
  });
  it('writes the days ahead as a calendar, with one name for each event', () => {
    expect(plank('export', wren, '--as', 'ics', '-o', folder).code).toBe(0);
    const text = readFileSync(join(folder, 'wren-days.ics'), 'utf8').replace(/\r\n[ \t]/g, '');
    const names = [...text.matchAll(/^UID:(.+)$/gm)].map(([, name]) => name);
    expect(names.length).toBeGreaterThan(scheduleOf(wren).tasks.length);
    expect(new Set(names).size).toBe(names.length);
  });
  it('writes the logbook, with its task, and refuses what is none', () => {
    const file = join(folder, 'log.json');
    const entry = ['--write', 'string a line before row 1', '--kind', 'lesson', '--task', 'kitchen-fit'];
    expect(plank('log', wren, ...entry, '-o', file).code).toBe(0);
    const log = JSON.parse(plank('log', file).out) as readonly { text: string; kind: string; work: string }[];
    expect(log).toMatchObject([{ text: 'string a line before row 1', kind: 'lesson', work: 'fit' }]);
    expect(plank('log', file, '--write', '  ').code).toBe(1);
    expect(plank('log', file, '--write', 'x', '--kind', 'rumour').code).toBe(2);
    expect(plank('log', file, '--write', 'x', '--task', 'nothing').code).toBe(2);
    expect(plank('done', wren, 'nothing').code).toBe(2);
    // nothing was written beside it
    expect(
      (JSON.parse(readFileSync(file, 'utf8')) as { project: { record: { log: unknown[] } } }).project.record.log,
    ).toHaveLength(1);
  });
});
