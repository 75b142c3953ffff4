// @vitest-environment jsdom
import { cleanup, render, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { createDeriver } from '@nestplank/core/derive';
import type { Operation, Project } from '@nestplank/core/document';
import { readProjectFile } from '@nestplank/core/formats';
import { applyOperation } from '@nestplank/core/furniture';
import { tick, type Task } from '@nestplank/core/work';
import { say } from '@nestplank/core/words';
import type { Scene } from '../../state/scene.js';
import { look } from '../../state/view.js';
import { tell } from '../../words/words.js';
import { timeSaid } from './times.js';
import wrenFile from '../../../../../demo/wren.json?raw';

const acted: Operation[] = [];
let scene: Scene | null = null;
vi.mock('../../state/session.js', async (original) => ({
  ...(await original<typeof import('../../state/session.js')>()),
  act: (...operations: Operation[]) => {
    acted.push(...operations);
    return null;
  },
}));
vi.mock('../../state/scene.js', async (original) => ({
  ...(await original<typeof import('../../state/scene.js')>()),
  useScene: () => scene,
}));
vi.mock('../../kit/use-size.js', () => ({ useSize: () => ({ ref: () => undefined, width: 800, height: 600 }) }));
const { default: WorkStage } = await import('./WorkStage.js');

function open(...operations: Operation[]): Scene {
  const { project: first, priceBook: book } = readProjectFile(wrenFile);
  const project = operations.reduce<Project>((p, operation) => applyOperation(p, operation, book).project, first);
  const derived = createDeriver().derive(project, book);
  scene = { project, book, shape: derived, derived, room: derived.inner, previewing: false };
  return scene;
}
beforeEach(() => {
  acted.splice(0);
  look({ task: null, who: '' });
});
afterEach(cleanup);

describe('the work ahead', () => {
  it('lists every task in order, after those it waits for, with its time and its tick', async () => {
    const { derived } = open();
    render(<WorkStage />);
    await userEvent.click(screen.getByText('In order'));
    const list = screen.getAllByRole('list').find((own) => own.childElementCount > 20) as HTMLElement;
    const items = within(list).getAllByRole('listitem');
    const { tasks } = derived.schedule;
    expect(items).toHaveLength(tasks.length);
    const order = tasks.map(({ task }) => task.id);
    for (const [i, { task }] of tasks.entries()) {
      expect(items[i]?.textContent).toContain(timeSaid(task.minutes, { t: tell }));
      expect(within(items[i] as HTMLElement).getAllByRole('button', { name: /^Done: / })).toHaveLength(1);
      for (const before of task.after) expect(order.indexOf(before)).toBeLessThan(i);
    }
    // what can hurt somebody has its caution with it
    const cautions = tasks.filter(({ task }) => task.caution !== null).length;
    expect(cautions).toBeGreaterThan(0);
  });
  it('ends later with fewer hours a day, which are typed here', async () => {
    const { derived, project } = open();
    render(<WorkStage />);
    const hours = screen.getByRole('textbox', { name: /hours/i });
    expect((hours as HTMLInputElement).value).toBe(String(project.settings.hoursPerDay));
    await userEvent.clear(hours);
    await userEvent.type(hours, '3{Enter}');
    expect(acted).toEqual([{ name: 'changeSettings', payload: { changes: { hoursPerDay: 3 } } }]);
    const slower = open(...acted).derived.schedule;
    expect((slower.ends ?? '') > (derived.schedule.ends ?? '')).toBe(true);
    expect(slower.workHours).toBeCloseTo(derived.schedule.workHours, 6);
  });
  it('refuses a day of more than 24 hours, at its place, and keeps what was typed', async () => {
    open();
    render(<WorkStage />);
    const hours = screen.getByRole('textbox', { name: /hours/i });
    await userEvent.clear(hours);
    await userEvent.type(hours, '30{Enter}');
    expect(hours.getAttribute('aria-invalid')).toBe('true');
    expect((hours as HTMLInputElement).value).toBe('30');
    expect(acted).toEqual([]);
  });
  it('is drawn day by day, the tasks by their numbers', () => {
    const { derived } = open();
    const { container } = render(<WorkStage />);
    const chart = container.querySelector('.board');
    // each task is named where it is drawn, or has its number there
    const numbers = new Set(
      [...(chart?.querySelectorAll('text, span') ?? [])].flatMap(
        ({ textContent }) => /^(\d+)\b/.exec(textContent ?? '')?.[1] ?? [],
      ),
    );
    expect(numbers.size).toBeGreaterThan(derived.schedule.tasks.length / 2);
  });
  it('begins, pauses, puts off and ticks the task on the bench', async () => {
    const { derived, project } = open();
    const first = derived.schedule.tasks[0]?.task;
    const view = render(<WorkStage />);
    const card = (): HTMLElement => screen.getByRole('article');
    expect(card().textContent).toContain(say(first?.title as never));
    await userEvent.click(screen.getByRole('button', { name: 'Begin' }));
    expect(acted).toMatchObject([{ name: 'startTask', payload: { task: first?.id, kind: first?.kind } }]);
    open(...acted);
    view.rerender(<WorkStage />);
    await userEvent.click(screen.getByRole('button', { name: 'Pause' }));
    expect(acted[1]).toMatchObject({ name: 'pauseTask', payload: { task: first?.id } });
    await userEvent.click(screen.getByRole('button', { name: 'Not today' }));
    const putOff = acted[2] as { name: string; payload: { until: string } };
    expect(putOff.name).toBe('putOffTask');
    expect(putOff.payload.until > new Date().toISOString().slice(0, 10)).toBe(true);
    // a find is ticked, and is one no more
    await userEvent.click(screen.getByRole('button', { name: 'Done' }));
    expect(JSON.stringify(acted[3])).toContain('"status":"done"');
    const next = open(...acted.slice(0, 1), acted[3] as Operation);
    view.rerender(<WorkStage />);
    expect(next.project.survey.found.filter(({ status }) => status === 'done').length).toBe(
      project.survey.found.filter(({ status }) => status === 'done').length + 1,
    );
    expect(card().textContent).not.toContain(say(first?.title as never));
  });
  it('tells what was ticked and is another now, and takes a tick back', async () => {
    const { derived } = open();
    const cut = derived.schedule.tasks.find(({ task }) => task.id === 'kitchen-cut')?.task as Task;
    const touch = { at: '2026-12-01T15:00:00.000Z', by: 'Ada', say };
    const ticked = tick(cut, (scene as Scene).project, derived.parts, touch, 125);
    open(ticked, { name: 'changeUnit', payload: { id: 'kitchen', changes: { length: 1400 } } });
    render(<WorkStage />);
    expect(screen.getByText('1 changed since')).toBeTruthy();
    expect(screen.getByText(/2 h 05 · Ada/)).toBeTruthy();
    await userEvent.click(screen.getByRole('button', { name: /^Not done after all: Cut Kitchen/ }));
    expect(acted).toEqual([{ name: 'reopenTask', payload: { task: 'kitchen-cut' } }]);
  });
  it('writes in the logbook beside the task, finds it again, and strikes it out for a reason', async () => {
    open();
    const view = render(<WorkStage />);
    await userEvent.click(screen.getByRole('button', { name: 'Went wrong' }));
    const keep = screen.getByRole('button', { name: 'Write it down' });
    expect((keep as HTMLButtonElement).disabled).toBe(true);
    await userEvent.type(screen.getByRole('textbox', { name: 'Write or say' }), 'drilled too deep');
    await userEvent.click(keep);
    expect(acted).toMatchObject([
      { name: 'writeLog', payload: { entry: { kind: 'mistake', text: 'drilled too deep' } } },
    ]);
    open(...acted);
    view.rerender(<WorkStage />);
    await userEvent.click(screen.getByRole('button', { name: 'Strike out: drilled too deep' }));
    await userEvent.type(screen.getByRole('textbox', { name: 'Why is it struck out?' }), 'it was the other one{Enter}');
    expect(acted[1]).toMatchObject({ name: 'strikeLog', payload: { reason: 'it was the other one' } });
    open(...acted);
    view.rerender(<WorkStage />);
    expect(screen.getByText('struck out: it was the other one')).toBeTruthy();
    expect(screen.queryByRole('button', { name: 'Strike out: drilled too deep' })).toBeNull();
  });
  it('shows what is open where it closes something, and overrules it for a reason that stays', async () => {
    const { derived } = open();
    const planned = derived.schedule.tasks.find(({ task }) => task.open.length > 0 && task.surface !== undefined);
    const task = planned?.task as Task;
    look({ task: task.id });
    const view = render(<WorkStage />);
    const points = within(screen.getByRole('article')).getAllByRole('button', { name: /^Go on all the same: / });
    expect(points).toHaveLength(task.open.length);
    await userEvent.click(points[0] as HTMLElement);
    await userEvent.type(within(screen.getByRole('article')).getByRole('textbox'), 'reached from below{Enter}');
    expect(acted).toMatchObject([{ name: 'overrulePoint', payload: { reason: 'reached from below' } }]);
    const after = open(...acted).derived.schedule.tasks.find((own) => own.task.id === task.id);
    expect(after?.task.open).toHaveLength(task.open.length - 1);
    view.rerender(<WorkStage />);
  });
  it('brings a lesson up again with work of its kind, and with no other', () => {
    const lesson = (work: string): Operation => ({
      name: 'writeLog',
      payload: {
        entry: {
          id: `l-${work}`,
          kind: 'lesson',
          at: '2026-11-01T08:00:00.000Z',
          text: `mind the ${work}`,
          by: '',
          task: null,
          work,
          part: null,
          x: null,
          minutes: null,
          money: null,
          photo: null,
          passed: null,
          struck: null,
        },
      },
    });
    open(lesson('find'), lesson('cut'));
    render(<WorkStage />);
    const { textContent } = screen.getByRole('article');
    expect(textContent).toContain('mind the find');
    expect(textContent).not.toContain('mind the cut');
  });
  it('says so while there is nothing to do', () => {
    const { project } = readProjectFile(wrenFile);
    open(...project.layout.units.map(({ id }): Operation => ({ name: 'removeUnit', payload: { id } })));
    const { derived } = scene as Scene;
    scene = {
      ...(scene as Scene),
      derived: { ...derived, schedule: { ...derived.schedule, tasks: [], ends: null } } as never,
    };
    const { container } = render(<WorkStage />);
    expect(container.querySelector('.empty')?.textContent?.length).toBeGreaterThan(10);
    scene = null;
    cleanup();
    const { container: none } = render(<WorkStage />);
    expect(none.querySelector('main')?.textContent).toBe('');
  });
});
