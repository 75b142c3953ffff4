// @vitest-environment jsdom
import { act, cleanup, fireEvent, render, screen } from '@testing-library/react';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { createDeriver } from '@nestplank/core/derive';
import type { Operation, Unit } from '@nestplank/core/document';
import { readProjectFile } from '@nestplank/core/formats';
import { placedOpenings } from '@nestplank/core/shell';
import wrenFile from '../../../../demo/wren.json?raw';
import { look, useView } from '../state/view.js';
import { foldOutFrame } from './geometry.js';

const acted: Operation[] = [];
vi.mock('../state/session.js', async (original) => ({
  ...(await original<typeof import('../state/session.js')>()),
  act: (...operations: Operation[]) => {
    acted.push(...operations);
    return null;
  },
}));
const { UnitLayer, drawnTo, moveOperation } = await import('./UnitLayer.js');

const { project, priceBook: book } = readProjectFile(wrenFile);
const derived = createDeriver().derive(project, book);
const room = derived.inner;
if (!room) throw new Error('Wren has a room');
const frame = foldOutFrame(room, 900, 500);
const world = {
  units: project.layout.units,
  inner: room,
  openings: placedOpenings(project.survey),
  ribs: derived.ribs,
};
const named = (id: string): Unit => {
  const unit = project.layout.units.find((own) => own.id === id);
  if (!unit) throw new Error(id);
  return unit;
};
const table: Unit = {
  ...named('kitchen'),
  id: 'table',
  family: 'plain-box',
  name: 'Table',
  body: { stands: 'free', x: 900, length: 400, y: -100, width: 300, from: 0, to: 700 },
};
const shown = (unit: Unit, { snap = 5, chosen = false } = {}): HTMLElement => {
  const { together } = useView.getState();
  const lies = derived.lying.find((place) => place.unit.id === unit.id) ?? null;
  render(
    <svg>
      <UnitLayer
        frame={frame}
        unit={unit}
        room={room}
        arches={derived.arches}
        people={project.people}
        lies={lies}
        motions={[]}
        chosen={chosen}
        around={() => world}
        together={together.includes(unit.id)}
        snap={snap}
      />
    </svg>,
  );
  return screen.getByRole('button');
};
const changes = () => acted.map(({ name, payload }) => [name, 'changes' in payload ? payload.changes : payload]);

beforeEach(() => {
  acted.splice(0);
  look({ unit: null, together: [] });
});
afterEach(cleanup);

describe('a unit on the fold-out, by the keys', () => {
  it('is moved along by a finger’s breadth, with Shift by a hand’s, and across by its front', () => {
    const kitchen = shown(named('kitchen'));
    fireEvent.keyDown(kitchen, { key: 'ArrowDown' });
    fireEvent.keyDown(kitchen, { key: 'ArrowUp', shiftKey: true });
    // to the right is away from the left wall: the front comes nearer to the centre line
    fireEvent.keyDown(kitchen, { key: 'ArrowRight' });
    expect(changes()).toEqual([
      ['changeUnit', { x: 700 }],
      ['changeUnit', { x: 590 }],
      ['changeUnit', { front: 360 }],
    ]);
  });
  it('in inches goes by quarters', () => {
    fireEvent.keyDown(shown({ ...named('kitchen'), body: { ...named('kitchen').body, x: 635 } }, { snap: 6.35 }), {
      key: 'ArrowDown',
    });
    expect(changes()).toEqual([['changeUnit', { x: 641.35 }]]);
  });
  it('from wall to wall is moved along only', () => {
    const bed = shown(named('bed'));
    fireEvent.keyDown(bed, { key: 'ArrowLeft' });
    expect(acted).toEqual([]);
    fireEvent.keyDown(bed, { key: 'ArrowDown' });
    expect(changes()).toEqual([['changeUnit', { x: named('bed').body.x + 10 }]]);
  });
  it('free in the room is moved both ways', () => {
    const free = shown(table);
    fireEvent.keyDown(free, { key: 'ArrowLeft' });
    fireEvent.keyDown(free, { key: 'ArrowUp' });
    expect(changes()).toEqual([
      ['changeUnit', { y: -110 }],
      ['changeUnit', { x: 890 }],
    ]);
  });
  it('takes with it what is moved together, by as much', () => {
    look({ together: ['kitchen', 'bench', 'bed'] });
    fireEvent.keyDown(shown(named('kitchen')), { key: 'ArrowDown' });
    expect(changes()).toEqual([
      ['changeUnit', { x: 700 }],
      ['changeUnit', { x: named('bed').body.x + 10 }],
      ['changeUnit', { x: named('bench').body.x + 10 }],
    ]);
  });
  it('is chosen by Enter, put to others by Shift and Enter, and taken out by Delete', () => {
    const kitchen = shown(named('kitchen'));
    fireEvent.keyDown(kitchen, { key: 'Enter' });
    expect(useView.getState().unit).toBe('kitchen');
    look({ unit: 'bench' });
    fireEvent.keyDown(kitchen, { key: 'Enter', shiftKey: true });
    expect(useView.getState().together).toEqual(['bench', 'kitchen']);
    fireEvent.keyDown(kitchen, { key: 'Delete' });
    expect(acted).toEqual([{ name: 'removeUnit', payload: { id: 'kitchen' } }]);
    expect(useView.getState().unit).toBeNull();
  });
  it('leaves other keys to the line', () => {
    expect(fireEvent.keyDown(shown(named('kitchen')), { key: 'x' })).toBe(true);
    expect(acted).toEqual([]);
  });
});

describe('a unit on the fold-out, as it is drawn', () => {
  it('says its name and its length, and whether it is chosen', () => {
    const kitchen = shown(named('kitchen'), { chosen: true });
    expect(kitchen.getAttribute('aria-label')).toMatch(/^Kitchen, 1.445/);
    expect(kitchen.getAttribute('aria-pressed')).toBe('true');
  });
  it('has its sleepers on it, to their measures, instead of its name', () => {
    shown(named('bed'));
    for (const { name } of project.people)
      expect(screen.getByRole('img', { name: new RegExp(`^${name} 1`) })).toBeTruthy();
    expect(screen.queryByText('Bed')).toBeNull();
  });
  it('that hangs is open and dashed, so that what stands below is seen', () => {
    const path = shown(named('overhead-left')).querySelector('path');
    expect(path?.getAttribute('fill')).toBe('transparent');
    expect(path?.getAttribute('stroke-dasharray')).toBeTruthy();
    // over the floor by its edge, so that what stands below can be taken hold of; on the ceiling anywhere
    expect(path?.getAttribute('pointer-events')).toBe('stroke');
    act(() => look({ ceiling: true }));
    expect(path?.getAttribute('pointer-events')).toBeNull();
    act(() => look({ ceiling: false }));
  });
});

describe('what a moved unit comes to stand with', () => {
  it('is its neighbour, told by what drew it; a step of the hand where nothing is near', () => {
    const bench = named('bench');
    // the bench is brought near to where the bed begins
    const gap = named('bed').body.x - (bench.body.x + bench.body.length);
    const drawn = drawnTo(bench, gap + 6, 0, 20, world);
    expect(drawn.along?.to).toBeCloseTo(bench.body.x + gap, 6);
    expect(drawn.across).toBeNull();
    expect(moveOperation(bench, gap + 6, 0, 5, drawn).payload).toMatchObject({ changes: { x: bench.body.x + gap } });
    const far = { along: null, across: null };
    expect(moveOperation(bench, -203, 0, 5, far).payload).toMatchObject({
      changes: { x: Math.round((bench.body.x - 203) / 5) * 5 },
    });
  });
  it('never has a front beyond the centre line by a drag', () => {
    expect(moveOperation(named('kitchen'), 0, 5000, 5).payload).toMatchObject({ changes: { front: 0 } });
  });
});
