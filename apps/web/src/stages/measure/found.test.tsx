// @vitest-environment jsdom
import { cleanup, render, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { Operation, Project } from '@nestplank/core/document';
import { createDeriver } from '@nestplank/core/derive';
import { readProjectFile } from '@nestplank/core/formats';
import { applyOperation } from '@nestplank/core/furniture';
import type { Scene } from '../../state/scene.js';
import wrenFile from '../../../../../demo/wren.json?raw';

const acted: Operation[] = [];
vi.mock('../../state/session.js', async (original) => ({
  ...(await original<typeof import('../../state/session.js')>()),
  act: (...operations: Operation[]) => {
    acted.push(...operations);
    return null;
  },
}));
const { FoundPanel } = await import('./FoundPanel.js');

const { project: wren, priceBook: book } = readProjectFile(wrenFile);
function sceneOf(...operations: Operation[]): Scene {
  const project = operations.reduce<Project>((p, operation) => applyOperation(p, operation, book).project, wren);
  const derived = createDeriver().derive(project, book);
  return { project, book, shape: derived, derived, room: derived.inner, previewing: false };
}
/** What stands before the left wall is covered, the place the list begins at. */
const before = (): HTMLElement => screen.getByRole('region', { name: /^Before the left wall is covered|left wall/ });

beforeEach(() => void acted.splice(0));
afterEach(cleanup);

describe('before a wall is covered', () => {
  it('lets a point be overruled with a reason, and held again', async () => {
    const user = userEvent.setup();
    render(<FoundPanel scene={sceneOf()} />);
    const point = within(before())
      .getByText(/No photo of it bare/)
      .closest('li');
    if (!point) throw new Error('no point');
    await user.click(within(point).getByRole('button', { name: /Go on all the same/ }));
    const go = within(point).getByRole('button', { name: 'Go on all the same' });
    expect((go as HTMLButtonElement).disabled).toBe(true);
    await user.type(within(point).getByRole('textbox'), 'On film');
    await user.click(go);
    expect(acted).toEqual([
      { name: 'overrulePoint', payload: { point: 'photo-left', reason: 'On film', at: expect.any(String) as string } },
    ]);
    const scene = sceneOf(...acted);
    cleanup();
    render(<FoundPanel scene={scene} />);
    const put = within(before()).getByText('Overruled: On film').closest('li');
    await user.click(within(put ?? document.body).getByRole('button', { name: 'Hold it again' }));
    expect(acted.at(-1)).toEqual({ name: 'holdPoint', payload: { point: 'photo-left' } });
  });

  it('is held by a joint until that is ticked as tried', async () => {
    const user = userEvent.setup();
    render(<FoundPanel scene={sceneOf()} />);
    expect(within(before()).getByText(/water joint is not tried/)).toBeTruthy();
    await user.click(screen.getByRole('button', { name: /^Tee behind the sink/ }));
    await user.click(screen.getByRole('checkbox', { name: 'Tried under pressure' }));
    expect(acted[0]).toMatchObject({ name: 'putJoint', payload: { joint: { id: 'j1', tested: true } } });
    cleanup();
    render(<FoundPanel scene={sceneOf(...acted)} />);
    expect(within(before()).queryByText(/water joint is not tried/)).toBeNull();
  });
});

describe('an empty register', () => {
  it('asks once whether there is nothing', async () => {
    const none = wren.survey.found.map(({ id }): Operation => ({ name: 'removeFound', payload: { id } }));
    render(<FoundPanel scene={sceneOf(...none)} />);
    expect(within(before()).getByText(/Nothing is written down as found/)).toBeTruthy();
    await userEvent.setup().click(screen.getByRole('checkbox', { name: /there is nothing/ }));
    expect(acted).toEqual([{ name: 'sayNothingFound', payload: { at: expect.any(String) as string } }]);
    cleanup();
    render(<FoundPanel scene={sceneOf(...none, ...acted)} />);
    expect(within(before()).queryByText(/Nothing is written down as found/)).toBeNull();
  });

  it('is not asked about while something stands in it', () => {
    render(<FoundPanel scene={sceneOf()} />);
    expect(screen.queryByRole('checkbox', { name: /there is nothing/ })).toBeNull();
  });
});

describe('a find', () => {
  it('has its hours beside its cost', async () => {
    const user = userEvent.setup();
    render(<FoundPanel scene={sceneOf()} />);
    await user.click(screen.getByRole('button', { name: /Drip at the roof seam/ }));
    const hours = screen.getByRole('textbox', { name: 'Work, hours' });
    await user.clear(hours);
    await user.type(hours, '4{Enter}');
    expect(acted.at(-1)).toMatchObject({ name: 'putFound', payload: { found: { id: 'n4', hours: 4 } } });
  });
});
