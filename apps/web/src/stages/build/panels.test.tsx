// @vitest-environment jsdom
import { cleanup, render, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { Operation, Project, ProjectFile } from '@nestplank/core/document';
import { createDeriver } from '@nestplank/core/derive';
import { readProjectFile } from '@nestplank/core/formats';
import { applyOperation } from '@nestplank/core/furniture';
import { rowLengths } from '@nestplank/core/lining';
import type { Scene } from '../../state/scene.js';
import thimbleFile from '../../../../../demo/thimble.json?raw';
import wrenFile from '../../../../../demo/wren.json?raw';

const acted: Operation[] = [];
vi.mock('../../state/session.js', async (original) => ({
  ...(await original<typeof import('../../state/session.js')>()),
  act: (operation: Operation) => {
    acted.push(operation);
    return null;
  },
  // no worker stands behind the panels here
  stopAsking: () => undefined,
}));
const { FloorPanel } = await import('./floor/FloorPanel.js');
const { FinishPanel } = await import('./floor/FinishPanel.js');
const { LiningPanel } = await import('./lining/LiningPanel.js');
const { Boxes } = await import('./lining/Boxes.js');

const [wren, thimble] = [wrenFile, thimbleFile].map(readProjectFile) as [ProjectFile, ProjectFile];
function sceneOf({ project, priceBook: book }: ProjectFile, ...operations: Operation[]): Scene {
  const changed = operations.reduce<Project>((p, operation) => applyOperation(p, operation, book).project, project);
  const derived = createDeriver().derive(changed, book);
  return { project: changed, book, shape: derived, derived, room: derived.inner, previewing: false };
}
const liningIn = (scene: Scene, surface: string) => {
  const found = scene.derived.lined.linings.find((lining) => lining.surface === surface);
  if (!found) throw new Error(surface);
  return found;
};

beforeEach(() => void acted.splice(0));
afterEach(cleanup);

describe('the floor', () => {
  const scene = sceneOf(wren);

  it('tells its screws and noggins as they are drawn, and trims its edge in the doors when asked to', async () => {
    render(<FloorPanel scene={scene} />);
    const { screws, noggins } = scene.derived.floor;
    expect(screen.getByText(new RegExp(`^${screws.length} screws.*${noggins.length} noggins`))).toBeTruthy();
    await userEvent.setup().click(screen.getByRole('checkbox', { name: /edge in the doors/ }));
    expect(acted).toEqual([{ name: 'changeFloor', payload: { changes: { doorTrims: true } } }]);
  });

  it('has every row of its finish in a table, with the lengths that are printed', () => {
    render(<FinishPanel scene={scene} />);
    const { finish } = scene.derived.floor;
    if (!finish) throw new Error('the floor has a finish');
    const table = screen.getByText('Widths and lengths of every row').closest('details')?.querySelector('table');
    const rows = within(table ?? document.body)
      .getAllByRole('row', { hidden: true })
      .slice(1);
    const told = rowLengths(finish);
    expect(rows).toHaveLength(told.length);
    rows.forEach((row, i) => {
      const pieces = row.querySelectorAll('td')[2]?.textContent?.split(' · ') ?? [];
      expect(pieces).toHaveLength(told[i]?.pieces.length ?? -1);
      expect(pieces.filter((piece) => piece.endsWith('°'))).toHaveLength(
        told[i]?.pieces.filter(({ offcut }) => offcut).length ?? -1,
      );
    });
  });

  it('has its coats on the days that the order of work gives them', () => {
    const bare = sceneOf(thimble);
    render(<FinishPanel scene={bare} />);
    const planned = bare.derived.schedule.tasks.filter(({ task }) => task.id.startsWith('floor-coat-'));
    const items = screen.getAllByRole('listitem').map((item) => item.textContent ?? '');
    expect(planned.length).toBeGreaterThan(1);
    expect(items).toHaveLength(planned.length);
    planned.forEach(({ work }, i) => {
      const hour = (work[0]?.from ?? 0) % 24;
      expect(items[i]).toContain(`, ${Math.floor(hour)}:`);
    });
  });

  it('says that litres are unknown where the price book does not state what a litre covers', () => {
    const unsaid: ProjectFile = {
      ...thimble,
      priceBook: {
        ...thimble.priceBook,
        items: thimble.priceBook.items.map((item) => (item.recoat ? { ...item, coverage: null } : item)),
      },
    };
    render(<FinishPanel scene={sceneOf(unsaid)} />);
    expect(screen.getByText(/litres unknown/)).toBeTruthy();
  });
});

describe('a lining', () => {
  it('stands its lines at a height over the floor, where it has lines', async () => {
    const scene = sceneOf(wren);
    render(<LiningPanel lining={liningIn(scene, 'left')} scene={scene} />);
    const user = userEvent.setup();
    await user.click(screen.getByRole('combobox', { name: 'Lines stand' }));
    await user.click(screen.getByRole('option', { name: 'from the floor' }));
    const first = liningIn(scene, 'left').setOut?.rows[0]?.[1] ?? 0;
    expect(acted).toEqual([
      { name: 'changeLining', payload: { surface: 'left', changes: { datum: Math.round(first) } } },
    ]);
    cleanup();
    render(<LiningPanel lining={liningIn(scene, 'ceiling')} scene={scene} />);
    expect(screen.queryByRole('combobox', { name: 'Lines stand' })).toBeNull();
  });

  it('covers the joints of sheets, and offers it for nothing else', async () => {
    const scene = sceneOf(thimble);
    render(<LiningPanel lining={liningIn(scene, 'right')} scene={scene} />);
    await userEvent.setup().click(screen.getByRole('checkbox', { name: /strips of the trim/ }));
    expect(acted).toEqual([{ name: 'changeLining', payload: { surface: 'right', changes: { covered: true } } }]);
    cleanup();
    const boards = sceneOf(wren);
    render(<LiningPanel lining={liningIn(boards, 'left')} scene={boards} />);
    expect(screen.queryByRole('checkbox', { name: /strips of the trim/ })).toBeNull();
  });
});

describe('boxes', () => {
  it('have a curtain bought for one window, and given up again', async () => {
    render(<Boxes scene={sceneOf(wren)} />);
    const user = userEvent.setup();
    await user.click(screen.getByRole('checkbox', { name: /curtain and its track for Kitchen window/ }));
    expect(acted).toEqual([{ name: 'changeBoxes', payload: { changes: { curtains: ['o1'] } } }]);
    cleanup();
    acted.splice(0);
    render(<Boxes scene={sceneOf(wren, { name: 'changeBoxes', payload: { changes: { curtains: ['o1', 'o2'] } } })} />);
    await user.click(screen.getByRole('checkbox', { name: /curtain and its track for Kitchen window/ }));
    expect(acted).toEqual([{ name: 'changeBoxes', payload: { changes: { curtains: ['o2'] } } }]);
  });
});
