// @vitest-environment jsdom
import { cleanup, configure, fireEvent, render, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { createDeriver } from '@nestplank/core/derive';
import type { Operation, Project, Unit } from '@nestplank/core/document';
import { readProjectFile } from '@nestplank/core/formats';
import { applyOperation, type MadeUnit } from '@nestplank/core/furniture';
import wrenFile from '../../../../../demo/wren.json?raw';

configure({ asyncUtilTimeout: 20_000 });
const acted: Operation[] = [];
const take = (operation: Operation) => {
  acted.push(operation);
  return null;
};
vi.mock('../../state/session.js', async (original) => ({
  ...(await original<typeof import('../../state/session.js')>()),
  act: take,
}));
vi.mock('../../kit/use-change.js', () => ({ useChange: () => (operation: Operation) => take(operation) === null }));
const { Bays } = await import('./Bays.js');

const { project, priceBook: book } = readProjectFile(wrenFile);
/** The tall cupboard of the demo once these are done to it, as it is shown. */
function cupboard(...operations: Operation[]): { readonly unit: Unit; readonly skeleton: MadeUnit['skeleton'] } {
  const changed = operations.reduce<Project>((p, operation) => applyOperation(p, operation, book).project, project);
  const unit = changed.layout.units.find(({ id }) => id === 'tall');
  const made = createDeriver()
    .derive(changed, book)
    .made.find((one) => one.unit === 'tall');
  if (!unit || !made) throw new Error('there is no cupboard');
  return { unit, skeleton: made.skeleton };
}
const shown = (...operations: Operation[]) => {
  const { unit, skeleton } = cupboard(...operations);
  render(<Bays unit={unit} skeleton={skeleton} things={project.things ?? []} />);
  return skeleton;
};
const at = { id: 'tall', bay: 'bay-1' };
const deep: Operation = { name: 'divideBay', payload: { ...at, cut: 'deep', into: 2 } };
const along: Operation = { name: 'divideBay', payload: { ...at, cut: 'along', into: 2 } };

beforeEach(() => void acted.splice(0));
afterEach(cleanup);

describe('the bays of a unit', () => {
  it('each is divided by itself, three ways', async () => {
    shown(along);
    const user = userEvent.setup();
    await user.click(screen.getByRole('button', { name: 'bay-2: Add an upright' }));
    await user.click(screen.getByRole('button', { name: 'bay-1: Add a level' }));
    await user.click(screen.getByRole('button', { name: 'bay-2: Add an inner back' }));
    expect(acted.map(({ payload }) => payload)).toEqual([
      { id: 'tall', bay: 'bay-2', cut: 'along', into: 2 },
      { id: 'tall', bay: 'bay-1', cut: 'up', into: 2 },
      { id: 'tall', bay: 'bay-2', cut: 'deep', into: 2 },
    ]);
  });

  it('one behind another is named in the view from the front, and drawn from above with its depth', () => {
    const skeleton = shown(deep);
    const back = skeleton?.bays?.find(({ bay }) => bay.name === 'bay-2');
    const front = screen.getByRole('group', { name: 'Tall cupboard from its front' });
    expect(within(front).getByText('behind: bay-2')).toBeTruthy();
    expect(within(front).queryByText('bay-2')).toBeNull();
    const plan = screen.getByRole('group', { name: /Tall cupboard from above/ });
    const depth = Math.round(Math.min(back?.deepLow ?? 0, back?.deepHigh ?? 0));
    expect(depth).toBeGreaterThan(100);
    expect(within(plan).getAllByText(new RegExp(`× ${depth}`)).length).toBeGreaterThan(0);
  });

  it('nothing that swings or slides is offered for one behind another', async () => {
    shown(deep);
    const user = userEvent.setup();
    const behind = within(screen.getByRole('region', { name: 'bay-2' }));
    await user.click(behind.getByRole('combobox', { name: /Closed by/ }));
    expect(screen.getAllByRole('option').map(({ textContent }) => textContent)).toEqual(['open', 'panel, screwed on']);
    await user.click(screen.getByRole('option', { name: 'open' }));
    await user.click(behind.getByRole('combobox', { name: /Holds/ }));
    expect(screen.queryByRole('option', { name: 'drawers' })).toBeNull();
    expect(acted).toEqual([{ name: 'changeBay', payload: { id: 'tall', bay: 'bay-2', front: { kind: 'none' } } }]);
  });

  it('its depth is typed, what stands between is picked', async () => {
    shown(deep);
    const user = userEvent.setup();
    const behind = within(screen.getByRole('region', { name: 'bay-2' }));
    const depth = behind.getByRole('textbox', { name: /Clear depth/ });
    await user.clear(depth);
    await user.type(depth, '180{Enter}');
    await user.click(behind.getByRole('combobox', { name: /Dividers beside it/ }));
    await user.click(screen.getByRole('option', { name: /frames/ }));
    expect(acted).toEqual([
      { name: 'sizeBay', payload: { id: 'tall', bay: 'bay-2', size: 180 } },
      { name: 'changeDividers', payload: { id: 'tall', bay: 'bay-2', divider: 'frame' } },
    ]);
  });

  it('the board between is moved by arrows: up makes the front bay deeper', () => {
    const skeleton = shown(deep);
    const front = skeleton?.bays?.find(({ bay }) => bay.name === 'bay-1');
    const size = Math.min(front?.deepLow ?? 0, front?.deepHigh ?? 0);
    const plan = within(screen.getByRole('group', { name: /from above/ }));
    fireEvent.keyDown(plan.getByRole('slider', { name: 'Divider between bay-1 and bay-2' }), { key: 'ArrowUp' });
    const next = Math.round((size + 5) / 5) * 5;
    const back = skeleton?.bays?.find(({ bay }) => bay.name === 'bay-2');
    const left = size + Math.min(back?.deepLow ?? 0, back?.deepHigh ?? 0) - next;
    expect(acted).toEqual([
      { name: 'sizeBay', payload: { id: 'tall', bay: 'bay-1', size: next, beside: expect.anything() } },
    ]);
    const [{ payload }] = acted as [Extract<Operation, { name: 'sizeBay' }>];
    expect(payload.beside?.side).toBe('after');
    expect(payload.beside?.size).toBeCloseTo(left, 3);
  });

  it('an upright is moved as seen from the front: to the right of who stands before the left wall is the front of the vehicle', () => {
    const skeleton = shown(along);
    const one = skeleton?.bays?.find(({ bay }) => bay.name === 'bay-1');
    const size = (one?.room.x1 ?? 0) - (one?.room.x0 ?? 0);
    const front = within(screen.getByRole('group', { name: 'Tall cupboard from its front' }));
    fireEvent.keyDown(front.getByRole('slider', { name: 'Divider between bay-1 and bay-2' }), { key: 'ArrowRight' });
    const two = skeleton?.bays?.find(({ bay }) => bay.name === 'bay-2');
    const next = Math.round((size - 5) / 5) * 5;
    const left = size + (two?.room.x1 ?? 0) - (two?.room.x0 ?? 0) - next;
    const [{ payload }] = acted as [Extract<Operation, { name: 'sizeBay' }>];
    expect(payload).toMatchObject({ id: 'tall', bay: 'bay-1', size: next, beside: { side: 'after' } });
    expect(payload.beside?.size).toBeCloseTo(left, 3);
  });

  it('one that is alone has no dividers, and no size of its own', () => {
    shown();
    expect(screen.queryByRole('button', { name: 'Take out its dividers' })).toBeNull();
    expect(screen.queryByRole('textbox', { name: /Clear/ })).toBeNull();
    expect(screen.queryByRole('combobox', { name: /Dividers/ })).toBeNull();
  });
});
