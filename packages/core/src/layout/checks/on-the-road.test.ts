import { describe, expect, it } from 'vitest';
import wrenFile from '../../../../../demo/wren.json?raw';
import { derive } from '../../derive/again.fixture.js';
import type { Operation } from '../../document/operation.js';
import type { Bay, Project, Stored, Unit } from '../../document/schema.js';
import { readProjectFile } from '../../formats/read.js';
import { applyOperation } from '../../furniture/kit.js';
import { START_THINGS } from '../../furniture/start-things.js';
import { runWith } from '../../furniture/units.fixture.js';
import { heldOnRoadRule } from '../../rules/road.js';

const wren = readProjectFile(wrenFile);
const book = wren.priceBook;
const bare: Project = {
  ...wren.project,
  stored: [],
  wishes: [],
  variants: [],
  things: [...START_THINGS],
  keptPlans: [],
  waits: [],
  fittings: [],
  layout: { units: [] },
};
const after = (project: Project, ...operations: Operation[]): Project =>
  operations.reduce((p, operation) => applyOperation(p, operation, book).project, project);
const place = (unit: Unit): Operation => ({ name: 'placeUnit', payload: { unit } });
const cupboard = (holds: Bay['holds'], front: Bay['front']): Unit => ({
  ...runWith({ id: 'k', side: 'left', x: 600, length: 900, front: 300, height: 900 }),
  division: { name: 'bay-1', holds, front },
});
const stored = (mass: number, kept: Stored['kept']): Operation => ({
  name: 'putStored',
  payload: {
    stored: { id: 's', name: 'Iron pot', length: 250, width: 200, height: 120, mass, count: 2, turns: false, kept },
  },
});
const road = (...operations: Operation[]) =>
  derive(after(bare, ...operations), book)
    .checks.filter(({ rule }) => rule === 'road-held')
    .map(({ id, grade }) => `${id} ${grade}`);
const inBay = { unit: 'k', bay: 'bay-1' };

describe('what is loose on the road', () => {
  it('is what stands on open shelves: told for them, and for what is on them by its mass', () => {
    const open = place(cupboard({ kind: 'shelves', count: 2 }, { kind: 'none' }));
    expect(road(open)).toEqual(['road-held:k:bay-1 tight']);
    expect(road(open, stored(3, inBay))).toEqual(['road-held:s fails']);
    // two of half a kilogram
    expect(road(open, stored(0.5, inBay))).toEqual(['road-held:s tight']);
    expect(road(place(cupboard({ kind: 'shelves', count: 2 }, { kind: 'curtain' })), stored(3, inBay))).toEqual([
      'road-held:s fails',
    ]);
    const project = after(bare, open, stored(3, inBay));
    const mends = derive(project, book).checks.find(({ id }) => id === 'road-held:s')?.mends ?? [];
    const mended = after(project, ...mends.flatMap(({ operations }) => operations));
    expect(derive(mended, book).checks.find(({ id }) => id === 'road-held:s')).toBeUndefined();
  });
  it('is not what a door, a drawer or a panel shuts in', () => {
    for (const [holds, front] of [
      [
        { kind: 'shelves', count: 2 },
        { kind: 'doors', count: 1, latch: true },
      ],
      [{ kind: 'drawers', count: 2, latch: true }, { kind: 'none' }],
      [{ kind: 'open' }, { kind: 'panel' }],
    ] as const)
      expect(road(place(cupboard(holds, front)), stored(3, inBay))).toEqual([]);
  });
  it('is what nobody has said a place for, and what stands by itself', () => {
    expect(road(stored(3, null))).toEqual(['road-held:s unknown']);
    const alone: Unit = {
      id: 'safe',
      family: 'thing-alone',
      name: 'Safe',
      body: { stands: 'free', x: 1000, length: 200, y: 0, width: 310, from: 0, to: 200 },
      meets: { foot: { how: 'square' } },
      division: { name: 'itself', holds: { kind: 'open' }, front: { kind: 'none' } },
      school: 'plywood',
      materials: {},
      options: { thing: 'safe', looks: 'rear' },
    };
    const project = after(bare, place(alone));
    const told = derive(project, book).checks.find(({ id }) => id === 'road-held:safe');
    // twice the weight of 7 kg
    expect([told?.grade, told?.said.params['newtons']]).toEqual(['tight', 140]);
  });
  it('is in a rack what its lip is too low for, unless it is tied down', () => {
    const input = { mass: 5, high: 200, where: 'shelf' as const, thing: 'Pot', name: 'Rack' };
    expect(heldOnRoadRule.run({ ...input, by: 'lip', lip: 50 }).grade).toBe('good');
    expect(heldOnRoadRule.run({ ...input, by: 'lip', lip: 49 }).grade).toBe('tight');
    expect(heldOnRoadRule.run({ ...input, by: 'tied', lip: 0 }).grade).toBe('good');
    expect(heldOnRoadRule.run({ ...input, by: 'nothing', lip: 0, where: 'hold' }).grade).toBe('tight');
  });
});
