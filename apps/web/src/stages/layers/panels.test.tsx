// @vitest-environment jsdom
import { cleanup, configure, render, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { createDeriver } from '@nestplank/core/derive';
import type { Operation, Project } from '@nestplank/core/document';
import { readProjectFile } from '@nestplank/core/formats';
import { applyOperation } from '@nestplank/core/furniture';
import { type BuildUpFigures, dampOf } from '@nestplank/core/layers';
import type { Scene } from '../../state/scene.js';
import bulrushFile from '../../../../../demo/bulrush.json?raw';
import wrenFile from '../../../../../demo/wren.json?raw';

configure({ asyncUtilTimeout: 20_000 });

const acted: Operation[] = [];
const figures = new Map<string | null, BuildUpFigures>();
vi.mock('../../state/session.js', async (original) => ({
  ...(await original<typeof import('../../state/session.js')>()),
  act: (...operations: Operation[]) => {
    acted.push(...operations);
    return null;
  },
  askBuildUps: (id: string | null) => Promise.resolve(figures.get(id) ?? null),
}));
vi.mock('../../kit/use-size.js', () => ({ useSize: () => ({ ref: () => undefined, width: 340, height: 300 }) }));
// the drawing of a chart is its package's own
vi.mock('../../kit/chart.js', () => ({
  Chart: ({ series }: { series: readonly { name: string; data: readonly { x: number; y: number }[] }[] }) => (
    <ul>
      {series.map(({ name, data }) => (
        <li key={name}>{`${name}: ${data.map(({ x, y }) => `${x}/${y}`).join(' ')}`}</li>
      ))}
    </ul>
  ),
}));
const { ComparePanel } = await import('./ComparePanel.js');
const { KnockOnPanel } = await import('./KnockOnPanel.js');
const { RoomPanel } = await import('./RoomPanel.js');
const { WarmthPanel } = await import('./WarmthPanel.js');

function sceneOf(text: string, ...operations: Operation[]): Scene {
  const { project: first, priceBook: book } = readProjectFile(text);
  const project = operations.reduce<Project>((p, operation) => applyOperation(p, operation, book).project, {
    ...first,
    settings: { ...first.settings, units: 'mm' },
  });
  const derived = createDeriver().derive(project, book);
  return { project, book, shape: derived, derived, room: derived.inner, previewing: false };
}
const plain = (text: string | null | undefined): number =>
  Number((text ?? '').replace(/\u2212/g, '-').replace(/[^\d.-]/g, ''));
const row = (name: RegExp): HTMLElement[] => within(screen.getByRole('row', { name })).getAllByRole('cell');

beforeEach(() => void acted.splice(0));
afterEach(cleanup);

describe('the room that is left', () => {
  it('is the bare one less what the layers take, each row by itself', () => {
    const scene = sceneOf(wrenFile);
    render(<RoomPanel scene={scene} />);
    const { bareRoom, room } = scene.shape;
    if (!bareRoom || !room) throw new Error('there is a room');
    for (const [name, key] of [
      [/^Standing height/, 'standing'],
      [/^Width at the floor/, 'widthAtFloor'],
    ] as const) {
      const [, bare, net, lost] = row(name).map(({ textContent }) => plain(textContent));
      expect(bare).toBe(Math.round(bareRoom[key].value));
      expect(net).toBe(Math.round(room[key].value));
      expect(Math.abs((lost ?? NaN) - ((bare ?? 0) - (net ?? 0)))).toBeLessThanOrEqual(1);
      expect(lost).toBeGreaterThan(0);
    }
  });
  it('is told for each person, and which figure of whom decides', () => {
    const scene = sceneOf(wrenFile);
    render(<RoomPanel scene={scene} />);
    const { left } = scene.derived;
    for (const figure of left?.people ?? []) {
      const what = { standing: 'standing', lying: 'lying across', shoulders: 'passing at the shoulders' }[figure.what];
      const [, there, spare] = row(new RegExp(`^${figure.person.name}, ${what}, wants`)).map(({ textContent }) =>
        plain(textContent),
      );
      expect(there).toBe(Math.round(figure.there));
      expect(Math.abs((spare ?? NaN) - figure.spare)).toBeLessThanOrEqual(0.5);
    }
    expect(left?.people.length).toBeGreaterThan(2);
    expect(left?.matters && screen.getByText(new RegExp(left.matters.person.name), { selector: 'b' })).toBeTruthy();
  });
  it('says of nobody what is not known: no people, no layers', () => {
    const { project } = readProjectFile(wrenFile);
    render(
      <RoomPanel
        scene={sceneOf(
          wrenFile,
          ...project.people.map(({ id }): Operation => ({ name: 'removePerson', payload: { id } })),
        )}
      />,
    );
    expect(screen.queryByText(/Ilva/)).toBeNull();
    expect(screen.getByText(/people|person|who/i)).toBeTruthy();
  });
});

describe('warmth', () => {
  it('is the loss on the night that is set, surface by surface, and changes with it', async () => {
    const scene = sceneOf(wrenFile);
    render(<WarmthPanel scene={scene} />);
    const { warmth } = scene.derived;
    if (!warmth) throw new Error('the demo has layers');
    const loss = screen.getByRole('heading', { name: new RegExp(String(Math.round(warmth.watts))) });
    const watts = within(loss.closest('section') ?? document.body)
      .getAllByRole('row')
      .map((one) => plain(within(one).getAllByRole('cell').at(-1)?.textContent));
    expect(watts).toEqual(warmth.of.map((item) => Math.round(item.watts)));
    expect(watts.reduce((sum, one) => sum + one, 0)).toBeGreaterThan(warmth.watts - watts.length);
    const outside = screen.getByRole('textbox', { name: /outside/i });
    await userEvent.clear(outside);
    await userEvent.type(outside, '-20{Enter}');
    expect(acted).toEqual([
      {
        name: 'changeSettings',
        payload: { changes: { climate: { ...scene.project.settings.climate, outside: -20 } } },
      },
    ]);
    // twice as far from inside it loses twice as much
    const colder = sceneOf(wrenFile, ...acted).derived.warmth;
    const { inside, outside: was } = scene.project.settings.climate;
    expect(colder?.watts).toBeCloseTo((warmth.watts * (inside + 20)) / (inside - was), 6);
  });
  it('refuses a night nobody has, at the field, and keeps what was typed', async () => {
    render(<WarmthPanel scene={sceneOf(wrenFile)} />);
    const humidity = screen.getByRole('textbox', { name: /humid/i });
    await userEvent.clear(humidity);
    await userEvent.type(humidity, '180{Enter}');
    expect(acted).toEqual([]);
    expect((humidity as HTMLInputElement).value).toBe('180');
    expect(humidity.getAttribute('aria-invalid')).toBe('true');
  });
  it('draws the temperature through the layers of the surface that is picked, and says whether it is wet', () => {
    const scene = sceneOf(wrenFile);
    render(<WarmthPanel scene={scene} />);
    const damp = dampOf(scene.shape.depths.left, scene.project.settings.climate);
    if (!damp) throw new Error('the wall has layers');
    const [temperature, dew] = screen.getAllByRole('listitem').map(({ textContent }) => textContent ?? '');
    expect(temperature?.split(': ')[1]?.split(' ')).toHaveLength(damp.faces.length);
    expect(dew).toContain(String(Math.round(damp.dewPoint * 10) / 10));
    expect(document.querySelector(damp.skin < damp.dewPoint ? 'p.needs' : 'p.done')).toBeTruthy();
  });
});

describe('what the layers do to the rest', () => {
  it('is told of every window, door and surface that has one', () => {
    const scene = sceneOf(wrenFile);
    render(<KnockOnPanel scene={scene} />);
    for (const { opening } of scene.derived.reveals)
      expect(screen.getByRole('heading', { name: opening.name, level: 3 })).toBeTruthy();
    const { floorBattens } = scene.derived;
    if (!floorBattens) throw new Error('the demo has battens');
    expect(screen.getByText(new RegExp(`${floorBattens.metres.toFixed(1)}`))).toBeTruthy();
    expect(screen.getByRole('img', { name: /batten/i }).querySelectorAll('rect')).toHaveLength(
      floorBattens.battens.length,
    );
  });
  it('takes another spacing of the battens, in the units that are shown', async () => {
    const scene = sceneOf(wrenFile);
    render(<KnockOnPanel scene={scene} />);
    const spacing = screen.getByRole('textbox', { name: /apart|spacing/i });
    await userEvent.clear(spacing);
    await userEvent.type(spacing, '350{Enter}');
    expect(acted).toEqual([
      {
        name: 'changeSettings',
        payload: { changes: { floorBattens: { ...scene.project.settings.floorBattens, spacing: 350 } } },
      },
    ]);
    const closer = sceneOf(wrenFile, ...acted).derived.floorBattens;
    expect(closer?.battens.length).toBeGreaterThan(scene.derived.floorBattens?.battens.length ?? Infinity);
  });
  it('says what is not there: a bus of another build', () => {
    const scene = sceneOf(bulrushFile);
    render(<KnockOnPanel scene={scene} />);
    for (const { surface } of scene.derived.fixings) expect(surface).toBeTruthy();
    const picked = scene.derived.fixings.filter(({ pick }) => pick === null).length;
    expect(document.querySelectorAll('[aria-label] p > .needs').length).toBeGreaterThanOrEqual(picked);
  });
});

describe('sets of layers beside each other', () => {
  const made = (more: Partial<BuildUpFigures>): BuildUpFigures =>
    ({
      standing: 1800,
      widthAtFloor: 1700,
      widthAtBed: 1750,
      watts: 900,
      dew: 10,
      kg: 90,
      money: 80_000,
      hours: 40,
      labour: 0,
      deadened: 2,
      ...more,
    }) as BuildUpFigures;
  it('mark the better of each row, less where less is better, and none where they are alike', async () => {
    const first = sceneOf(wrenFile, { name: 'keepBuildUps', payload: { id: 'b9', name: 'Thin' } });
    const variants = first.project.buildUpVariants;
    figures.set(null, made({}));
    for (const { id } of variants) figures.set(id, made({ watts: 1100, standing: 1830 }));
    render(<ComparePanel scene={first} />);
    await screen.findByRole('columnheader', { name: 'Thin' });
    const standing = row(/^Standing/).map(({ textContent }) => textContent ?? '');
    expect(standing[1]).not.toContain('✓');
    expect(standing.at(-1)).toContain('✓');
    const watts = row(/^(Heat|Watts|Loss)|W$/i).map(({ textContent }) => textContent ?? '');
    expect(watts[1]).toContain('✓');
    expect(row(/^(Mass|Weigh|kg)|kg$/i).some(({ textContent }) => (textContent ?? '').includes('✓'))).toBe(false);
  });
  it('are kept, used and taken out by operations', async () => {
    const scene = sceneOf(wrenFile, { name: 'keepBuildUps', payload: { id: 'b9', name: 'Thin' } });
    render(<ComparePanel scene={scene} />);
    await userEvent.click(screen.getByRole('button', { name: /^Keep/ }));
    await userEvent.click(screen.getByRole('button', { name: 'Use Thin' }));
    expect(acted.map(({ name }) => name)).toEqual(['keepBuildUps', 'useBuildUps']);
  });
  it('stand beside what was heard and felt: a figure is read, or refused where it is none', async () => {
    const scene = sceneOf(wrenFile, {
      name: 'putComfort',
      payload: {
        comfort: {
          id: 'c1',
          when: '2026-10-01T08:00:00.000Z',
          after: 'Bare',
          decibels: 74,
          celsius: null,
          moisture: null,
        },
      },
    });
    render(<ComparePanel scene={scene} />);
    const warm = screen.getByRole('textbox', { name: '°C inside: Bare' });
    await userEvent.type(warm, '4,5{Enter}');
    expect(acted).toEqual([
      {
        name: 'putComfort',
        payload: { comfort: expect.objectContaining({ id: 'c1', celsius: 4.5, decibels: 74 }) as object },
      },
    ]);
    acted.splice(0);
    await userEvent.clear(warm);
    await userEvent.type(warm, 'cold{Enter}');
    expect(acted).toEqual([]);
  });
});
