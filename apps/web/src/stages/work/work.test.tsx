// @vitest-environment jsdom
import { cleanup, render, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { createDeriver } from '@nestplank/core/derive';
import type { Operation, Project } from '@nestplank/core/document';
import { readProjectFile } from '@nestplank/core/formats';
import { applyOperation } from '@nestplank/core/furniture';
import type { Scene } from '../../state/scene.js';
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
beforeEach(() => void acted.splice(0));
afterEach(cleanup);

describe('the work ahead', () => {
  it('lists every task in order, after those it waits for, with its hours', () => {
    const { derived } = open();
    render(<WorkStage />);
    const items = within(screen.getByRole('list')).getAllByRole('listitem');
    const { tasks } = derived.schedule;
    expect(items).toHaveLength(tasks.length);
    const order = tasks.map(({ task }) => task.id);
    for (const [i, { task }] of tasks.entries()) {
      expect(items[i]?.textContent).toContain(`${(task.minutes / 60).toFixed(1)}`);
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
