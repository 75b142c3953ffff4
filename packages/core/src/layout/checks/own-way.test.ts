import { describe, expect, it } from 'vitest';
import wrenFile from '../../../../../demo/wren.json?raw';
import { derive } from '../../derive/derive.js';
import type { Operation } from '../../document/operation.js';
import type { Division, Project, Unit } from '../../document/schema.js';
import { readProjectFile } from '../../formats/read.js';
import { FAMILIES } from '../../furniture/families/index.js';
import { applyOperation } from '../../furniture/kit.js';
import { boardBox } from '../../furniture/skeleton.js';

const wren = readProjectFile(wrenFile);
const book = wren.priceBook;
const bare: Project = {
  ...wren.project,
  stored: [],
  wishes: [],
  variants: [],
  things: [],
  keptPlans: [],
  waits: [],
  fittings: [],
  layout: { units: [] },
};
const room = derive(bare, book).inner;
const family = FAMILIES.find(({ id }) => id === 'corner-seat');
if (!room || !family) throw new Error('no room');
const start = family.start({ id: 'c', name: 'Corner', layout: { units: [] }, people: [], room, book });
const seat = (division: Division): Unit => ({
  ...start,
  body: { stands: 'left', x: 800, length: 1800, front: 300, from: 0, to: 400 },
  division,
  options: { ...start.options, wings: 'rear', wingOut: 450, wingWide: 520 },
});
const standing = (division: Division): Project => {
  const operation: Operation = { name: 'placeUnit', payload: { unit: seat(division) } };
  return applyOperation(bare, operation, book).project;
};
const bay = (name: string, holds: 'drawers' | 'doors'): Division =>
  holds === 'drawers'
    ? { name, holds: { kind: 'drawers', count: 1, latch: true }, front: { kind: 'none' } }
    : { name, holds: { kind: 'open' }, front: { kind: 'doors', count: 1, latch: true } };
const sweeps = (division: Division) =>
  derive(standing(division), book)
    .checks.filter(({ rule }) => rule === 'room-to-move')
    .map(({ id, grade }) => `${id} ${grade}`);
const halves = (one: 'drawers' | 'doors'): Division => ({
  cut: 'along',
  divider: 'board',
  sizes: [{ share: 1 }, { share: 1 }],
  parts: [bay('front', one), bay('rear', one)],
});

describe('a unit that stands in its own way', () => {
  it('is told: what opens behind a wing of a seat does not', () => {
    expect(sweeps(halves('drawers'))).toEqual(['sweep:c.rear.drawer-1 fails']);
    expect(sweeps(halves('doors'))).toEqual(['sweep:c.rear.door-1 fails']);
  });
  it('has a wing of four sides that are joined to each other', () => {
    const { boards, contacts } = derive(standing(bay('front', 'doors')), book).made[0]?.skeleton ?? {};
    const wing = (boards ?? []).filter(({ name }) => name.startsWith('wing-rear.'));
    expect(wing.map(({ name }) => name.slice(10)).sort()).toEqual(
      ['back', 'bottom', 'end', 'lid', 'side-front', 'side-rear'].sort(),
    );
    const joined = (one: string, other: string): boolean =>
      (contacts ?? []).some(
        ({ a, b }) =>
          (a === `wing-rear.${one}` && b === `wing-rear.${other}`) ||
          (b === `wing-rear.${one}` && a === `wing-rear.${other}`),
      );
    for (const side of ['side-front', 'side-rear']) {
      expect(joined('back', side), side).toBe(true);
      expect(joined('bottom', side), side).toBe(true);
    }
    expect(joined('back', 'bottom')).toBe(true);
    // its back lies at the front of the bench: nothing of it reaches into that
    const back = wing.find(({ name }) => name === 'wing-rear.back');
    const bench = (boards ?? []).filter(({ name }) => !name.startsWith('wing-'));
    const benchFront = Math.max(...bench.map((board) => boardBox(board).high[1]));
    expect(back && boardBox(back).low[1]).toBeGreaterThanOrEqual(benchFront - 1);
  });
});
