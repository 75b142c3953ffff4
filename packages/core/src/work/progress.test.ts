import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import thimbleText from '../../../../demo/thimble.json?raw';
import wrenText from '../../../../demo/wren.json?raw';
import { derive } from '../derive/again.fixture.js';
import { createDeriver } from '../derive/derive.js';
import type { Operation } from '../document/operation.js';
import type { Project, Worked } from '../document/schema.js';
import { readProjectFile } from '../formats/read.js';
import { applyOperation } from '../furniture/kit.js';
import { message } from '../words/message.js';
import { say } from '../words/say.js';
import { coversOf, doneTasks, learntFrom, tick, untick } from './progress.js';
import { reasonOf } from './reasons.js';
import { scheduleOf } from './schedule.js';
import type { Task } from './task.js';

const wren = readProjectFile(wrenText);
const { project, priceBook } = wren;
const touch = (at: string, by = '') => ({ at, by, say });
const done = (project: Project, ...operations: Operation[]): Project =>
  operations.reduce((p, operation) => applyOperation(p, operation).project, project);
const named = (id: string, changes: Partial<Task> = {}): Task => ({
  id,
  kind: 'line',
  title: message('task.subfloorDry'),
  minutes: 60,
  lagHours: 0,
  lagWhy: null,
  after: [],
  tools: message('tools.cut'),
  caution: null,
  open: [],
  ...changes,
});
const worked = (task: string, changes: Partial<Worked> = {}): Worked => ({
  task,
  title: task,
  kind: 'line',
  estimate: 60,
  since: null,
  minutes: 0,
  done: null,
  notBefore: null,
  by: '',
  covers: '',
  ...changes,
});
/** A moment of local time, as it is stored. */
const at = (day: number, hour: number): string => new Date(2026, 10, day, hour).toISOString();
const startOf = (task: string, tasks: readonly Task[], list: readonly Worked[], today: string | null = null) =>
  scheduleOf(tasks, '2026-11-02', 6, { worked: list, today }).tasks.find((planned) => planned.task.id === task);

describe('what is ticked', () => {
  const tasks = [named('a', { lagHours: 24 }), named('b', { after: ['a'] }), named('c')];
  it('is planned no more, and what has to cure runs from when it was done', () => {
    const plan = scheduleOf(tasks, '2026-11-02', 6, {
      worked: [worked('a', { done: at(3, 14) })],
      today: '2026-11-03',
    });
    expect(plan.tasks.map(({ task }) => task.id)).toEqual(['c', 'b']);
    expect(plan.done).toBe(1);
    // day 1 at 14:00 and 24 hours: the next day at 14:00
    expect(plan.curing).toMatchObject([{ wait: { from: 38, to: 62 }, until: '2026-11-04' }]);
    expect(plan.tasks[1]?.work).toEqual([{ from: 62, to: 63 }]);
  });
  it('leaves nothing planned before today, or before the day it was put off to', () => {
    expect(startOf('c', tasks, [], '2026-11-10')?.starts).toBe('2026-11-10');
    expect(startOf('c', tasks, [worked('c', { notBefore: '2026-11-20' })], '2026-11-10')?.starts).toBe('2026-11-20');
    // a day that is over puts nothing off
    expect(startOf('c', tasks, [worked('c', { notBefore: '2026-11-03' })], '2026-11-10')?.starts).toBe('2026-11-10');
  });
  it('takes off what was worked on it, and goes on with what is in hand first', () => {
    const inHand = worked('c', { since: at(2, 9), minutes: 20 });
    const plan = scheduleOf(tasks, '2026-11-02', 6, { worked: [inHand], today: '2026-11-02' });
    expect(plan.tasks[0]).toMatchObject({ left: 40 });
    expect(plan.tasks[0]?.task.id).toBe('c');
    // longer than was thought: it is not as good as done
    expect(startOf('c', tasks, [worked('c', { minutes: 200 })])?.left).toBe(15);
  });
  it('keeps every before and after, and does nothing twice, on graphs drawn by chance', () => {
    const graph = fc
      .array(
        fc.record({
          minutes: fc.integer({ min: 5, max: 600 }),
          lag: fc.constantFrom(0, 0, 8, 24),
          before: fc.array(fc.nat(30), { maxLength: 3 }),
          done: fc.boolean(),
        }),
        { minLength: 1, maxLength: 30 },
      )
      .map((list) => ({
        tasks: list.map(({ minutes, lag, before }, i) =>
          named(`t${i}`, {
            minutes,
            lagHours: lag,
            after: [...new Set(before.filter((b) => b < i))].map((b) => `t${b}`),
          }),
        ),
        // ticked are the first ones
        worked: list.flatMap((own, i) => (own.done && i < 5 ? [worked(`t${i}`, { done: at(3, 12) })] : [])),
      }));
    fc.assert(
      fc.property(graph, fc.integer({ min: 1, max: 12 }), ({ tasks, worked }, hours) => {
        const plan = scheduleOf(tasks, '2026-11-02', hours, { worked, today: '2026-11-04' });
        const ticked = new Set(worked.map(({ task }) => task));
        expect(plan.tasks.map(({ task }) => task.id).sort()).toEqual(
          tasks
            .map(({ id }) => id)
            .filter((id) => !ticked.has(id))
            .sort(),
        );
        const ready = new Map(plan.tasks.map((own) => [own.task.id, own.wait?.to ?? own.work.at(-1)?.to ?? 0]));
        for (const { wait, task } of plan.curing) ready.set(task.id, wait.to);
        for (const { task, work } of plan.tasks) {
          expect(work[0]?.from ?? 0).toBeGreaterThanOrEqual(48 + 9);
          for (const before of task.after)
            expect(work[0]?.from ?? 0).toBeGreaterThanOrEqual((ready.get(before) ?? 0) - 1e-9);
        }
      }),
      { numRuns: 60, seed: 36 },
    );
  });
});

describe('hours that were really needed', () => {
  const list = (ratios: readonly number[], kind = 'line'): Worked[] =>
    ratios.map((ratio, i) => worked(`w${i}`, { kind, estimate: 60, minutes: 60 * ratio, done: at(2, 12) }));
  it('teach nothing before there are five of a kind, then their median', () => {
    expect(learntFrom(list([2, 2, 2, 2]))).toEqual([]);
    expect(learntFrom(list([1, 2, 1.5, 3, 1.2]))).toMatchObject([
      { kind: 'line', count: 5, ratio: 1.5, low: 1.2, high: 2 },
    ]);
    // one that ran all night does not count for more than six
    expect(learntFrom(list([90, 90, 90, 90, 90]))[0]?.ratio).toBe(6);
  });
  it('make what is left of that kind longer, and of no other', () => {
    const known = list([2, 2, 2, 2, 2]);
    const tasks = [named('x', { minutes: 60 }), named('y', { minutes: 60, kind: 'fit' })];
    expect(startOf('x', tasks, known)).toMatchObject({ left: 120, range: [120, 120] });
    expect(startOf('y', tasks, known)).toMatchObject({ left: 60, range: null });
  });
});

describe('ticking on the demo', () => {
  const { schedule, parts } = derive(project, priceBook);
  const cut = schedule.tasks.find(({ task }) => task.kind === 'cut' && task.unit !== undefined)?.task as Task;

  it('stays when the design changes, and is told to be open again where its parts are others', () => {
    const ticked = done(project, tick(cut, project, parts, touch('2026-12-01T10:00:00.000Z'), 90));
    const derived = createDeriver().derive(ticked, priceBook);
    expect(derived.done).toMatchObject([{ worked: { task: cut.id, minutes: 90 }, reopened: false }]);
    expect(derived.schedule.tasks.some(({ task }) => task.id === cut.id)).toBe(false);
    const wider = done(ticked, { name: 'changeUnit', payload: { id: cut.unit ?? '', changes: { length: 640 } } });
    const after = createDeriver().derive(wider, priceBook);
    expect(after.done[0]).toMatchObject({ worked: { task: cut.id }, reopened: true });
    // a unit that is gone: what was done of it is still told
    const gone = done(ticked, { name: 'removeUnit', payload: { id: cut.unit ?? '' } });
    expect(createDeriver().derive(gone, priceBook).done[0]).toMatchObject({ task: null, worked: { task: cut.id } });
  });
  it('reads a fingerprint that a renamed unit does not change', () => {
    const byId = new Map(parts.map((part) => [part.id, part]));
    expect(coversOf(cut, byId)).toBe(coversOf({ ...cut, title: message('task.leak') }, byId));
    const thicker = new Map(parts.map((part) => [part.id, { ...part, thickness: part.thickness + 1 }]));
    expect(coversOf(cut, thicker)).not.toBe(coversOf(cut, byId));
  });
  it('says with it what is a fact of the vehicle: the leak test is passed, and open again when it is taken back', () => {
    const open = done(project, {
      name: 'setLeakTest',
      payload: { leakTest: { state: 'open', reason: '', at: null } },
    });
    const leak = derive(open, priceBook).schedule.tasks.find(({ task }) => task.id === 'test-leak')?.task as Task;
    // nothing is laid on a seam before
    const first = derive(open, priceBook).schedule.tasks.findIndex(({ task }) => task.kind === 'insulate');
    const at = derive(open, priceBook).schedule.tasks.findIndex(({ task }) => task.id === 'test-leak');
    expect(at).toBeLessThan(first);
    const passed = done(open, tick(leak, open, parts, touch('2026-12-01T10:00:00.000Z')));
    expect(passed.survey.leakTest.state).toBe('passed');
    expect(done(passed, untick('test-leak', passed)).survey.leakTest.state).toBe('open');
  });
  it('is refused a second time, and says who was first', () => {
    const one = tick(cut, project, parts, touch('2026-12-01T10:00:00.000Z', 'Ada'));
    const ticked = done(project, one);
    expect(() => applyOperation(ticked, one)).toThrow(
      expect.objectContaining({
        said: { key: 'operation.doneAlreadyBy', params: { title: say(cut.title), day: '2026-12-01', by: 'Ada' } },
      }) as Error,
    );
  });
  it('counts the minutes in hand, and one person has one thing in hand', () => {
    const of = (task: Task, at: string): Operation => ({
      name: 'startTask',
      payload: { task: task.id, kind: task.kind, title: say(task.title), estimate: task.minutes, by: 'Ada', at },
    });
    const other = schedule.tasks.find(({ task }) => task.id !== cut.id)?.task as Task;
    const next = done(project, of(cut, '2026-12-01T10:00:00.000Z'), of(other, '2026-12-01T10:45:00.000Z'));
    expect(next.record?.tasks).toMatchObject([
      { task: cut.id, since: null, minutes: 45 },
      { task: other.id, since: '2026-12-01T10:45:00.000Z', minutes: 0 },
    ]);
    const finished = done(next, tick(other, next, parts, touch('2026-12-01T11:00:00.000Z', 'Ada')));
    expect(finished.record?.tasks[1]).toMatchObject({ minutes: 15, since: null });
    // forgotten overnight: not more than sixteen hours
    const night = done(next, tick(other, next, parts, touch('2026-12-03T11:00:00.000Z', 'Ada')));
    expect(night.record?.tasks[1]?.minutes).toBe(16 * 60);
    expect(doneTasks(night.record ?? { tasks: [], log: [] }, [], [])).toHaveLength(1);
  });
});

describe('the order of work', () => {
  it('takes along the screws of all joints of a unit and what is bought for it, none twice', () => {
    const { schedule, made } = derive(project, priceBook);
    for (const unit of made) {
      const task = schedule.tasks.find((own) => own.task.id === `${unit.unit}-assemble`)?.task;
      if (!task) continue;
      const screws = unit.joints.reduce((sum, own) => sum + (own.fastener === null ? 0 : own.screws), 0);
      const bought = unit.hardware.reduce((sum, { amount }) => sum + amount, 0);
      expect((task.fixings ?? []).reduce((sum, { amount }) => sum + amount, 0)).toBeCloseTo(screws + bought, 6);
    }
  });
  it('says for each before and after why, and every demo has tests of what runs in it', () => {
    for (const text of [wrenText, thimbleText]) {
      const { project: own, priceBook: book } = readProjectFile(text);
      const { schedule } = derive(own, book);
      const byId = new Map(schedule.tasks.map(({ task }) => [task.id, task]));
      for (const { task } of schedule.tasks)
        for (const id of task.after) {
          const before = byId.get(id);
          if (before) expect(reasonOf(before, task)).toBeTruthy();
        }
      for (const { id } of own.layout.runs ?? [])
        if (byId.has(`run-${id}`)) expect(byId.get(`run-${id}-test`)?.after).toEqual([`run-${id}`]);
      // each part of furniture is worked on by somebody
      const touched = new Set(schedule.tasks.flatMap(({ task }) => task.parts ?? []));
      for (const part of derive(own, book).parts)
        if (part.unit !== null) expect(touched.has(part.id), part.id).toBe(true);
    }
  });
});
