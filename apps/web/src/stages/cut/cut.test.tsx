// @vitest-environment jsdom
import { cleanup, configure, fireEvent, render, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { Operation, Project } from '@nestplank/core/document';
import { createDeriver } from '@nestplank/core/derive';
import { readProjectFile } from '@nestplank/core/formats';
import { applyOperation, FAMILIES } from '@nestplank/core/furniture';
import { blankOf } from '@nestplank/core/parts';
import type { Scene } from '../../state/scene.js';
import wrenFile from '../../../../../demo/wren.json?raw';

const acted: Operation[] = [];
let refusal: { readonly key: string; readonly params: Record<string, never> } | null = null;
vi.mock('../../state/session.js', async (original) => ({
  ...(await original<typeof import('../../state/session.js')>()),
  act: (...operations: Operation[]) => {
    acted.push(...operations);
    return refusal;
  },
}));
vi.mock('../../kit/use-size.js', () => ({ useSize: () => ({ ref: () => undefined, width: 800, height: 500 }) }));
const { useSession } = await import('../../state/session.js');
const { BenchView } = await import('./BenchView.js');
const { SawPanel } = await import('./SawPanel.js');
const { OffcutPanel } = await import('./OffcutPanel.js');

const { project: wren, priceBook: book } = readProjectFile(wrenFile);
const deriver = createDeriver();
function sceneOf(start: Project, ...operations: Operation[]): Scene {
  const project = operations.reduce<Project>((p, operation) => applyOperation(p, operation, book).project, start);
  const derived = deriver.derive(project, book);
  return { project, book, shape: derived, derived, room: derived.inner, previewing: false };
}
const plain = sceneOf(wren);
const planOf = (scene: Scene, material = 'birch-15') => {
  const plan = scene.derived.plans.find((one) => one.material.id === material);
  if (!plan) throw new Error(material);
  return plan;
};
const bench = (scene: Scene, onClose = vi.fn()) => {
  render(<BenchView plans={scene.derived.plans} start="birch-15" scene={scene} onClose={onClose} />);
  const main = screen.getByRole('main', { name: 'Bench view' });
  const number = (): number => Number(/cut (\d+) of/.exec(main.textContent ?? '')?.[1]);
  return { main, number, onClose };
};

configure({ asyncUtilTimeout: 20_000 });
beforeEach(() => {
  acted.splice(0);
  refusal = null;
  useSession.setState({ project: wren });
});
afterEach(cleanup);

describe('the bench', () => {
  it('keeps the plan that stands and what is drawn on the sheet, and ticks the cut that is shown', () => {
    const { main } = bench(plain);
    fireEvent.keyDown(main, { key: 'Enter' });
    const [keep, tick, ...more] = acted;
    expect(more).toEqual([]);
    if (keep?.name !== 'keepPlan' || tick?.name !== 'tickCut') throw new Error('it is kept, then ticked');
    const kept = keep.payload as Project['keptPlans'][number];
    const { sheet: id, step, done } = tick.payload as { sheet: string; step: string; done: boolean };
    expect(done).toBe(true);
    const sheet = kept.sheets.find((one) => one.id === id);
    if (!sheet) throw new Error('the sheet is kept');
    expect(sheet.done).not.toContain(step);
    const cut = new Set(planOf(plain).sheets.find((one) => one.id === id)?.cut);
    for (const { part, spoiled, shape } of sheet.placements) {
      expect(shape === undefined, part).toBe(spoiled || cut.has(part));
      const drawn = plain.derived.parts.find((one) => one.id === part);
      if (!shape?.[0] || !drawn) continue;
      // as long and as wide as its blank
      const [xs, ys] = [0, 1].map((at) => shape[0]?.filter((_, i) => i % 2 === at) ?? []);
      expect(Math.max(...(xs ?? [])), part).toBeCloseTo(blankOf(drawn).length, 0);
      expect(Math.max(...(ys ?? [])), part).toBeCloseTo(blankOf(drawn).width, 0);
    }
    // of every other sheet nothing is said
    for (const other of kept.sheets.filter((one) => one.id !== id))
      expect(other.placements.every(({ shape }) => shape === undefined)).toBe(true);
  });

  it('says of what is cut how it is drawn since', () => {
    let scene = plain;
    const isFree = (): boolean =>
      planOf(scene).sheets.some(({ cut, placements }) =>
        placements.some(({ part, shape }) => cut.includes(part) && (shape?.length ?? 0) > 0),
      );
    // as many cuts as it takes until something with an outline of its own is free
    for (let i = 0; i < 40 && !isFree(); i += 1) {
      acted.splice(0);
      fireEvent.keyDown(bench(scene).main, { key: 'Enter' });
      cleanup();
      scene = sceneOf(scene.project, ...acted);
    }
    const shaped = planOf(scene)
      .sheets.flatMap((sheet) => sheet.placements.filter(({ part }) => sheet.cut.includes(part)))
      .find(({ shape }) => (shape?.length ?? 0) > 0);
    if (!shaped) throw new Error('something is cut out');
    expect(planOf(scene).conflicts.map(({ part }) => part)).not.toContain(shaped.part);
    // a hole more in it than when it was sawn
    const project: Project = {
      ...scene.project,
      keptPlans: scene.project.keptPlans.map((plan) => ({
        ...plan,
        sheets: plan.sheets.map((sheet) => ({
          ...sheet,
          placements: sheet.placements.map((placed) =>
            placed.part === shaped.part && placed.shape
              ? { ...placed, shape: [...placed.shape, [50, 50, 90, 50, 90, 90, 50, 90]] }
              : placed,
          ),
        })),
      })),
    };
    const { problems } = deriver.derive(project, book);
    const told = problems.filter(({ stage, place }) => stage === 'cut' && place === shaped.part);
    expect(told.map(({ said }) => said.key)).toEqual(['cut.conflict.count']);
    expect(told[0]?.said.params).toMatchObject({ was: 1, now: 0 });
  });

  it('leaves a cut for later and comes back to it by the arrows, and is left by escape', () => {
    const { main, number, onClose } = bench(plain);
    const first = number();
    const shown = (): string | null => main.querySelector('.bench-numeral')?.textContent ?? null;
    const before = shown();
    fireEvent.keyDown(main, { key: 'ArrowRight' });
    expect(number()).toBe(first + 1);
    fireEvent.keyDown(main, { key: 'ArrowLeft' });
    expect([number(), shown()]).toEqual([first, before]);
    expect(acted).toEqual([]);
    fireEvent.keyDown(main, { key: 'Escape' });
    expect(onClose).toHaveBeenCalledOnce();
  });

  it('takes the last cut back where none is left for later', () => {
    const { main } = bench(plain);
    fireEvent.keyDown(main, { key: 'ArrowLeft' });
    const tick = acted.find(({ name }) => name === 'tickCut');
    const { sheet, step, done } = (tick?.payload ?? {}) as { sheet: string; step: string; done: boolean };
    expect(done).toBe(false);
    expect(planOf(plain).sheets.find(({ id }) => id === sheet)?.done).toContain(step);
  });

  it('asks what happened before a part is recorded as wrong, and keeps what was chosen', async () => {
    const user = userEvent.setup();
    const { main } = bench(plain);
    await user.click(within(main).getByRole('button', { name: 'Cut wrong' }));
    await user.click(within(main).getByRole('button', { name: 'Record it' }));
    expect(main.textContent).toContain('Say in a few words what happened');
    expect(acted).toEqual([]);
    await user.type(within(main).getByLabelText('What happened'), 'fence slipped');
    await user.click(within(main).getByRole('button', { name: 'Record it' }));
    const spoil = acted.find(({ name }) => name === 'spoilPart');
    const { waste } = (spoil?.payload ?? {}) as { waste?: { part: string; reason: string; remedy: string } };
    expect(waste).toMatchObject({ reason: 'fence slipped', remedy: 'recut' });
    // of those that are cut the last one
    const cut = planOf(plain).sheets.flatMap((sheet) => sheet.cut);
    expect(cut).toContain(waste?.part);
  });
});

describe('what one person should not carry', () => {
  const along = FAMILIES.find(({ id }) => id === 'bed-along');
  if (!along || !plain.room) throw new Error('it is a family');
  const bunk = along.start({
    id: 'bunk',
    name: 'Bunk',
    layout: { units: [] },
    people: wren.people,
    room: plain.room,
    book,
  });
  const weak: Project = {
    ...wren,
    layout: { ...wren.layout, units: [bunk], modes: [] },
    settings: { ...wren.settings, cutting: { ...wren.settings.cutting, carry: { mass: 8, length: 1800 } } },
  };
  it('is made of several boards at a press, where its unit can be, and no more is offered then', async () => {
    render(<SawPanel scene={sceneOf(weak)} />);
    const offers = screen.getAllByRole('button', { name: 'Make it of several boards' });
    expect(offers).toHaveLength(1);
    const [first] = offers;
    if (!first) throw new Error('it is offered');
    expect(first.closest('p')?.textContent).toContain('bunk.board');
    await userEvent.click(first);
    expect(acted).toEqual([{ name: 'changeUnit', payload: { id: 'bunk', changes: { split: 'equal' } } }]);
    cleanup();
    const after = sceneOf(weak, ...acted);
    expect(after.shape.parts.filter(({ role }) => role === 'bunk-board')).toHaveLength(2);
    render(<SawPanel scene={after} />);
    expect(screen.queryByRole('button', { name: 'Make it of several boards' })).toBeNull();
  });
});

describe('offcuts', () => {
  it('are put away with both sizes and their place, and only then', async () => {
    const user = userEvent.setup();
    render(<OffcutPanel item={planOf(plain)} scene={plain} />);
    const add = screen.getByRole('button', { name: 'Add' });
    expect(add).toHaveProperty('disabled', true);
    const [length, width] = [/^Length along the grain/, /^Width/].map((name) => screen.getAllByLabelText(name)[0]);
    if (!length || !width) throw new Error('both are asked for');
    await user.clear(length);
    await user.type(length, '600{Enter}');
    expect(add).toHaveProperty('disabled', true);
    await user.clear(width);
    await user.type(width, '250{Enter}');
    await user.type(screen.getByLabelText('Where it stands'), ' shelf ');
    expect(add).toHaveProperty('disabled', false);
    // where it is refused nothing that was typed is lost
    refusal = { key: 'operation.badUnit', params: {} };
    await user.click(add);
    expect(screen.getByLabelText('Where it stands')).toHaveProperty('value', ' shelf ');
    refusal = null;
    await user.click(add);
    expect(acted.at(-1)).toMatchObject({
      name: 'putOffcut',
      payload: { offcut: { material: 'birch-15', length: 600, width: 250, place: 'shelf' } },
    });
    expect(screen.getByLabelText('Where it stands')).toHaveProperty('value', '');
  });
});
