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
const { CurtainAcross } = await import('./lining/CurtainAcross.js');
const { PartPanel } = await import('./PartPanel.js');
const { ScribePasses } = await import('./ScribePasses.js');

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
    render(<Boxes scene={sceneOf(wren)} of="wall" />);
    const user = userEvent.setup();
    await user.click(screen.getByRole('checkbox', { name: /curtain and its track for Kitchen window/ }));
    expect(acted).toEqual([{ name: 'changeBoxes', payload: { changes: { curtains: ['o1'] } } }]);
    cleanup();
    acted.splice(0);
    render(
      <Boxes
        scene={sceneOf(wren, { name: 'changeBoxes', payload: { changes: { curtains: ['o1', 'o2'] } } })}
        of="windows"
      />,
    );
    await user.click(screen.getByRole('checkbox', { name: /curtain and its track for Kitchen window/ }));
    expect(acted).toEqual([{ name: 'changeBoxes', payload: { changes: { curtains: ['o2'] } } }]);
  });
});

describe('one piece of a lining', () => {
  const scene = sceneOf(wren);
  const lining = liningIn(scene, 'left');
  const fixed = lining.pieces.find(({ removable }) => !removable);
  const wired = lining.pieces.find(({ removable }) => removable);
  const show = (id: string | undefined, at = scene) => {
    const part = at.shape.parts.find((candidate) => candidate.id === id);
    if (!part) throw new Error(id);
    return render(<PartPanel part={part} scene={at} />);
  };

  it('can be made to come off again by itself, and taken back', async () => {
    show(fixed?.part);
    await userEvent.setup().click(screen.getByRole('checkbox', { name: /Comes off again/ }));
    const put = { name: 'changeLining', payload: { surface: 'left', changes: { comesOff: [fixed?.part ?? ''] } } };
    expect(acted).toEqual([put]);
    cleanup();
    show(fixed?.part, sceneOf(wren, put as Operation));
    await userEvent.setup().click(screen.getByRole('checkbox', { name: /Comes off again/ }));
    expect(acted.at(-1)).toEqual({ ...put, payload: { surface: 'left', changes: { comesOff: [] } } });
  });

  it('is not asked about where what lies behind it decides', () => {
    show(wired?.part);
    expect(screen.queryByRole('checkbox', { name: /Comes off again/ })).toBeNull();
    expect(screen.getByText(/It comes off again/)).toBeTruthy();
  });
});

describe('scribing the second of two boxes', () => {
  const pass = (id: string, part: string, gaps: number[]): Operation => ({
    name: 'logScribe',
    payload: { scribe: { id, part, edge: 'back', gaps, at: '2026-10-02T08:00:00.000Z' } },
  });

  it('begins from the passes of the first, by one press', async () => {
    // the two windows in the walls are equally high
    const scene = sceneOf(wren, pass('sp1', 'window-o1-front', [0, 2, 4]));
    const twin = scene.shape.parts.find(({ id }) => id === 'window-o2-front');
    const edge = twin?.edges.find(({ at }) => at === 'back');
    if (!twin || !edge) throw new Error('no twin');
    render(<ScribePasses part={twin} edge={edge} scene={scene} />);
    expect(screen.getByText(/Its twin, .* was scribed first.*4.mm came off/)).toBeTruthy();
    await userEvent.setup().click(screen.getByRole('button', { name: 'Begin from its passes' }));
    expect(acted).toHaveLength(1);
    expect(acted[0]).toMatchObject({ name: 'logScribe', payload: { scribe: { id: 'sp2', part: twin.id } } });
  });

  it('leaves on from now on what three edges have taught', async () => {
    const scene = sceneOf(
      wren,
      pass('sp1', 'window-o1-sill', [0, 2]),
      pass('sp2', 'window-o1-head', [0, 5]),
      pass('sp3', 'window-o1-front', [0, 3]),
    );
    const part = scene.shape.parts.find(({ id }) => id === 'window-o1-rear');
    const edge = part?.edges.find(({ at }) => at === 'back');
    if (!part || !edge) throw new Error('no part');
    render(<ScribePasses part={part} edge={edge} scene={scene} />);
    await userEvent.setup().click(screen.getByRole('button', { name: /^Leave 9.mm from now on$/ }));
    expect(acted).toEqual([{ name: 'leaveToScribe', payload: { allowance: 9 } }]);
    // it bears on boxes and on units that are scribed, and on nothing that leaves nothing on
    const { project } = applyOperation(wren.project, acted[0] as Operation, wren.priceBook);
    expect(project.boxes.scribe).toBe(9);
    const kept = project.layout.units.flatMap((unit) => Object.values(unit.meets));
    expect(kept.some((meet) => meet?.how === 'scribed' && meet.allowance === 9)).toBe(true);
    expect(kept.some((meet) => meet?.how === 'scribed' && meet.allowance !== 9)).toBe(false);
    for (const [surface, { scribe }] of Object.entries(wren.project.linings))
      expect(project.linings[surface]?.scribe).toBe(scribe > 0 ? 9 : 0);
  });
});

describe('curtains across the body', () => {
  it('are kept by name, with their figures, and named where they do not hang', async () => {
    const hung = (height: number): Operation => ({
      name: 'changeBoxes',
      payload: { changes: { across: [{ id: 'cu1', name: 'Cab curtain', x: 600, height }] } },
    });
    const user = userEvent.setup();
    render(<CurtainAcross scene={sceneOf(wren)} />);
    await user.type(screen.getByRole('textbox', { name: /by name/ }), 'Cab curtain');
    await user.click(screen.getByRole('button', { name: 'Add' }));
    expect(acted).toEqual([hung(1600)]);
    cleanup();
    const scene = sceneOf(wren, hung(1600));
    render(<CurtainAcross scene={scene} />);
    await user.click(screen.getByRole('button', { name: /Cab curtain/ }));
    const [one] = scene.shape.lined.curtains;
    const table = screen.getByRole('table');
    expect(within(table).getAllByRole('row')).toHaveLength(1 + (one?.curtain.drops.length ?? 0));
    cleanup();
    render(<CurtainAcross scene={sceneOf(wren, hung(2600))} />);
    await user.click(screen.getByRole('button', { name: /Cab curtain/ }));
    expect(screen.getByText(/its rail would be above the ceiling/)).toBeTruthy();
    expect(screen.queryByRole('table')).toBeNull();
  });
});
