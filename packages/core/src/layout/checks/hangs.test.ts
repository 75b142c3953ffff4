import { describe, expect, it } from 'vitest';
import wrenFile from '../../../../../demo/wren.json?raw';
import { derive } from '../../derive/again.fixture.js';
import type { Operation } from '../../document/operation.js';
import type { Project, Unit } from '../../document/schema.js';
import { readProjectFile } from '../../formats/read.js';
import { FAMILIES } from '../../furniture/families/index.js';
import { applyOperation } from '../../furniture/kit.js';
import { boardBox } from '../../furniture/skeleton.js';
import { runWith } from '../../furniture/units.fixture.js';

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
const after = (project: Project, ...operations: Operation[]): Project =>
  operations.reduce((p, operation) => applyOperation(p, operation, book).project, project);
const withUnits = (...units: Unit[]): Project =>
  after(bare, ...units.map((unit): Operation => ({ name: 'placeUnit', payload: { unit } })));
const room = derive(bare, book).inner;
const started = (family: string, changes: (unit: Unit) => Unit): Unit => {
  const own = FAMILIES.find(({ id }) => id === family);
  if (!own || !room) throw new Error(`no ${family}`);
  return changes(own.start({ id: family, name: family, layout: { units: [] }, people: [], room, book }));
};
const checkOf = (project: Project, id: string) => derive(project, book).checks.find((check) => check.id === id);

describe('a table on ledges', () => {
  const table = (height: number) =>
    started('table', (unit) => ({
      ...unit,
      body: { stands: 'free', x: 1000, length: 800, y: -300, width: 600, from: 0, to: height },
      options: { ...unit.options, stand: 'ledges', low: 0, loose: false },
    }));
  const bench = (id: string, side: 'left' | 'right', height: number) =>
    runWith({ id, side, x: 900, length: 1000, front: 320, height });
  it('hangs on nothing alone in the room, and is offered legs', () => {
    const project = withUnits(table(700));
    const told = checkOf(project, 'ledges:table');
    expect(told?.grade).toBe('fails');
    const [legs] = told?.mends ?? [];
    expect(checkOf(after(project, ...(legs?.operations ?? [])), 'ledges:table')).toBeUndefined();
  });
  it('lies between two units as high as it, not on ones that end below it', () => {
    expect(checkOf(withUnits(table(700), bench('l', 'left', 720), bench('r', 'right', 720)), 'ledges:table')).toBe(
      undefined,
    );
    expect(checkOf(withUnits(table(700), bench('l', 'left', 720)), 'ledges:table')?.grade).toBe('tight');
    expect(
      checkOf(withUnits(table(700), bench('l', 'left', 400), bench('r', 'right', 400)), 'ledges:table')?.grade,
    ).toBe('fails');
  });
});

describe('the leaf of a desk', () => {
  it('has stays that hold it level, beside its hinges', () => {
    const desk = started('leaf-table', (unit) => unit);
    const hardware = derive(withUnits(desk), book).made[0]?.hardware ?? [];
    const of = (kind: string) => hardware.filter(({ item }) => item.startsWith(kind)).map(({ amount }) => amount);
    expect(of('stay-flap')).toEqual([2]);
    expect(hardware.some(({ item }) => item.includes('hinge'))).toBe(true);
  });
});

describe('the guard of a bed that hangs', () => {
  it('is one board with its rail, which is joined to both ends', () => {
    const bunk = started('bed-along', (unit) => ({
      ...unit,
      body: { stands: 'right', x: 800, length: 1900, front: 200, from: 900, to: 1100 },
      options: { ...unit.options, guard: 200, mattress: 100 },
    }));
    const { boards = [], contacts = [] } = derive(withUnits(bunk), book).made[0]?.skeleton ?? {};
    const rail = boards.find(({ name }) => name === 'rail');
    const floor = room?.floor ?? 0;
    expect(rail && boardBox(rail).high[2]).toBeCloseTo(floor + 1100 + 100 + 200, 6);
    expect(boards.some(({ name }) => name === 'guard')).toBe(false);
    for (const end of ['end-front', 'end-rear'])
      expect(
        contacts.some(({ a, b, kind }) => kind !== 'hinge' && [a, b].includes('rail') && [a, b].includes(end)),
        end,
      ).toBe(true);
    // one gets in over the rail alone
    const way = (rail?.outline.outer ?? []).filter(([, z]) => z > floor + 1101).map(([x]) => x);
    expect(Math.max(...way)).toBeLessThan(800 + 1900 - 300);
  });
});

describe('a bed along the wall that is wider than a sheet', () => {
  const bed = (split: string, length: number) =>
    started('bed-along', (unit) => ({
      ...unit,
      body: { stands: 'right', x: 500, length, front: -500, from: 0, to: 450 },
      options: { ...unit.options, split },
    }));
  const skeletonOf = (split: string, length: number) =>
    derive(withUnits(bed(split, length)), book).made[0]?.skeleton?.boards ?? [];
  const widths = (split: string, length: number): number[] =>
    skeletonOf(split, length)
      .filter(({ role }) => role === 'bunk-board')
      .map((board) => boardBox(board).high[0] - boardBox(board).low[0]);
  it('is made of one board, of equal ones, or of whole sheets and a strip', () => {
    expect(widths('none', 1900)).toEqual([1900]);
    expect(widths('equal', 1900).map((wide) => Math.round(wide * 10) / 10)).toEqual([948.5, 948.5]);
    const [whole = 0, strip = 0] = widths('sheet', 1900);
    expect(whole + strip).toBeCloseTo(1897, 6);
    expect(whole).toBeGreaterThan(strip);
    const material = book.items.find(({ id }) => id === bed('none', 1900).materials['board']);
    expect(whole).toBe(Math.max(...(material?.stocks ?? []).map((one) => Math.min(one.width, one.length))) - 20);
  });
  it.each(['equal', 'sheet'])('has each joint on a bearer of its own: %s', (split) => {
    for (const length of [1300, 1560, 1900, 2050, 2600, 3000]) {
      const boards = skeletonOf(split, length);
      const lies = boards.filter(({ role }) => role === 'bunk-board').map(boardBox);
      expect(lies.length).toBeGreaterThan(1);
      const bearers = boards.filter(({ role }) => role === 'bunk-bearer').map(boardBox);
      for (const [i, { high }] of lies.slice(0, -1).entries()) {
        const next = lies[i + 1]?.low[0] ?? NaN;
        // both boards bear on it by 5 at least
        const on = bearers.some(({ low, high: to }) => low[0] <= high[0] - 5 && to[0] >= next + 5);
        expect(on, `${split} ${length} at ${high[0]}`).toBe(true);
      }
      // and nothing spans farther than before
      const stops = [
        500,
        ...bearers.map(({ low, high }) => (low[0] + high[0]) / 2).sort((a, b) => a - b),
        500 + length,
      ];
      for (const [i, stop] of stops.slice(1).entries()) expect(stop - (stops[i] ?? 0)).toBeLessThanOrEqual(665);
    }
  });
});
