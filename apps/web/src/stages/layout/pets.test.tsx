// @vitest-environment jsdom
import { cleanup, configure, fireEvent, render, screen, within } from '@testing-library/react';
import userEvent from '@testing-library/user-event';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { createDeriver, sceneOf as rulesScene } from '@nestplank/core/derive';
import type { Operation, Pet, Project } from '@nestplank/core/document';
import { readProjectFile } from '@nestplank/core/formats';
import { applyOperation, FAMILIES } from '@nestplank/core/furniture';
import wrenFile from '../../../../../demo/wren.json?raw';
import { foldOutFrame, screenX, screenY } from '../../foldout/geometry.js';
import type { Scene } from '../../state/scene.js';
import { look, useView } from '../../state/view.js';
import { speechFor } from '../../words/speech.js';

configure({ asyncUtilTimeout: 20_000 });

const acted: Operation[] = [];
vi.mock('../../state/session.js', async (original) => ({
  ...(await original<typeof import('../../state/session.js')>()),
  act: (...operations: Operation[]) => {
    acted.push(...operations);
    return null;
  },
  previewActions: () => undefined,
}));
const { PetLayer, layBy } = await import('./PetLayer.js');
const { Pets } = await import('./Pets.js');
const { GapOffers } = await import('./GapAsk.js');
const { CheckMarks } = await import('./CheckMarks.js');
const { Animals } = await import('../../slice/Animals.js');

const { project: wren, priceBook: book } = readProjectFile(wrenFile);
const WOOL: Pet = { id: 'wool', name: 'Wool', length: 650, width: 200, height: 560 };
const put: Operation = { name: 'putPet', payload: { pet: WOOL } };
const lay = (at: Extract<Operation, { name: 'layPet' }>['payload']['at']): Operation => ({
  name: 'layPet',
  payload: { pet: 'wool', at },
});
function sceneOf(...operations: Operation[]): Scene {
  const project = operations.reduce<Project>((p, operation) => applyOperation(p, operation, book).project, wren);
  const derived = createDeriver().derive(project, book);
  return { project, book, shape: derived, derived, room: derived.inner, previewing: false };
}
const frameOf = ({ room }: Scene) => {
  if (!room) throw new Error('there is a room');
  return foldOutFrame(room, 900, 500);
};
const user = userEvent.setup();
beforeEach(() => {
  acted.splice(0);
  look({ unit: null, gap: null, mode: null, sliceX: null });
});
afterEach(cleanup);

describe('an animal on the fold-out', () => {
  const scene = sceneOf(put, lay({ x: 1500, y: 0, turned: false }));
  const drawn = () => {
    const { container } = render(
      <svg>
        <PetLayer frame={frameOf(scene)} scene={scene} step={5} />
      </svg>,
    );
    return { animal: screen.getByRole('button', { name: /Wool, lies 1.500 from the front/ }), container };
  };

  it('lies where it is said, to scale', () => {
    const frame = frameOf(scene);
    const { container } = drawn();
    const held = container.querySelector('rect');
    const [x, width, height] = ['x', 'width', 'height'].map((name) => Number(held?.getAttribute(name)));
    expect(width).toBeCloseTo(200 * frame.scale, 6);
    expect(height).toBeCloseTo(650 * frame.scale, 6);
    expect((x ?? 0) + (width ?? 0) / 2).toBeCloseTo(screenX(frame, 0), 6);
    expect(Number(held?.getAttribute('y')) + (height ?? 0) / 2).toBeCloseTo(screenY(frame, 1500), 6);
  });
  it('is moved by arrows, by ten times as much with shift, turned by Enter, and taken away by Delete', () => {
    const { animal } = drawn();
    for (const [key, shiftKey] of [
      ['ArrowDown', false],
      ['ArrowLeft', true],
      ['Enter', false],
      ['Delete', false],
      ['q', false],
    ] as const)
      fireEvent.keyDown(animal, { key, shiftKey });
    expect(acted).toEqual([
      lay({ x: 1510, y: 0, turned: false }),
      lay({ x: 1500, y: -100, turned: false }),
      lay({ x: 1500, y: 0, turned: true }),
      lay(null),
    ]);
  });
  it('is laid in whole steps, and along one way only where it is moved one way only', () => {
    expect(layBy(WOOL, { x: 1501, y: 3, turned: true }, 48, 0, 5)).toEqual(lay({ x: 1550, y: 3, turned: true }));
  });
  it('has its name left free by the numbers of notes', () => {
    render(
      <svg>
        <CheckMarks frame={frameOf(scene)} scene={scene} />
      </svg>,
    );
    const frame = frameOf(scene);
    const [x, y] = [screenX(frame, 0), screenY(frame, 1500)];
    const marks = [...document.querySelectorAll('circle')].map((circle) => [
      Number(circle.getAttribute('cx')),
      Number(circle.getAttribute('cy')),
    ]);
    expect(marks.length).toBeGreaterThan(3);
    for (const [cx, cy] of marks) expect(Math.hypot((cx ?? 0) - x, (cy ?? 0) - y)).toBeGreaterThan(12);
  });
  it('stands in the slice where it lies there, with what is judged over its head, and nowhere else', () => {
    const world = rulesScene(scene.project, scene.derived, book, FAMILIES);
    if (!world) throw new Error('there is a room');
    const speech = speechFor({ units: 'mm', fraction: 16 });
    const view = { scale: 1, at: (y: number, z: number): [number, number] => [y, -z] };
    const { rerender } = render(
      <svg>
        <Animals scene={world} x={1700} view={view} speech={speech} />
      </svg>,
    );
    expect(screen.getByRole('img', { name: /^Wool .* to spare$/ })).toBeTruthy();
    rerender(
      <svg>
        <Animals scene={world} x={1900} view={view} speech={speech} />
      </svg>,
    );
    expect(screen.queryByRole('img')).toBeNull();
  });
});

describe('the list of animals', () => {
  it('takes one by its name alone, with the size of a dog to be measured', async () => {
    render(<Pets scene={sceneOf()} />);
    await user.type(screen.getByRole('textbox', { name: 'Name', hidden: true }), 'Moss{Enter}');
    expect(acted).toEqual([
      { name: 'putPet', payload: { pet: { id: 'pet1', name: 'Moss', length: 650, width: 200, height: 560 } } },
    ]);
  });
  it('takes what holds it on the road and forgets it again, keeping what is measured', async () => {
    const held: Operation = { name: 'putPet', payload: { pet: { ...WOOL, mass: 18, rides: 'crate' } } };
    render(<Pets scene={sceneOf(held)} />);
    await user.click(screen.getByRole('button', { name: /Wool/, hidden: true }));
    await user.click(screen.getByRole('combobox', { name: 'On the road: Wool', hidden: true }));
    await user.click(screen.getByRole('option', { name: 'not said' }));
    expect(acted).toEqual([{ name: 'putPet', payload: { pet: { ...WOOL, mass: 18 } } }]);
  });
  it('lays it on the floor where there is room in every mode, or in a bay that is open', async () => {
    const scene = sceneOf(put);
    render(<Pets scene={scene} />);
    await user.click(screen.getByRole('button', { name: /Wool/, hidden: true }));
    await user.click(screen.getByRole('combobox', { name: 'Lies: Wool', hidden: true }));
    const choices = within(screen.getByRole('listbox'));
    expect(choices.queryByRole('option', { name: /drawer/ })).toBeNull();
    await user.click(choices.getByRole('option', { name: 'on the floor' }));
    const [laid] = acted;
    if (laid?.name !== 'layPet' || !laid.payload.at || !('x' in laid.payload.at)) throw new Error('it was laid');
    const checks = sceneOf(put, laid).derived.checks.filter(({ rule }) => rule === 'pet-place');
    expect(checks.map(({ grade }) => grade)).toEqual(['good']);
  });
});

describe('a free stretch that is pointed at', () => {
  it('takes an animal where it was pointed at', async () => {
    look({ gap: { surface: 'floor', x: 600, along: 120 } });
    render(<GapOffers scene={sceneOf(put)} />);
    await user.click(screen.getByRole('button', { name: 'Lay Wool here' }));
    expect(acted).toEqual([lay({ x: 600, y: 120, turned: false })]);
    expect(useView.getState().gap).toBeNull();
  });
});
