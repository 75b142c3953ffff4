import { describe, expect, it } from 'vitest';
import wrenFile from '../../../../../demo/wren.json?raw';
import { derive } from '../../derive/again.fixture.js';
import type { Operation } from '../../document/operation.js';
import type { Bay, Project, Unit } from '../../document/schema.js';
import { readProjectFile } from '../../formats/read.js';
import { applyOperation } from '../../furniture/kit.js';
import { START_THINGS } from '../../furniture/start-things.js';
import { runWith } from '../../furniture/units.fixture.js';
import { airRule, thingOpensRule } from '../../rules/things.js';

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
const withUnits = (...units: Unit[]): Project =>
  after(bare, ...units.map((unit): Operation => ({ name: 'placeUnit', payload: { unit } })));
const checkOf = (project: Project, id: string) => derive(project, book).checks.find((check) => check.id === id);
const holding = (id: string, side: 'left' | 'right', holds: Bay['holds'], height = 900, front = 200): Unit => ({
  ...runWith({ id, side, x: 600, length: 900, front, height }),
  division: { name: 'bay-1', holds, front: { kind: 'none' } },
});
const wide = (grade: (clear: number) => string): string => [560, 559, 476, 475].map(grade).join(' ');

describe('what an appliance needs to open', () => {
  it('is all of it for a lid and a flap, and most of it for a door', () => {
    const input = { needs: 560, thing: '', name: '', by: '' };
    expect(wide((clear) => thingOpensRule.run({ ...input, how: 'flap', clear }).grade)).toBe('good fails fails fails');
    expect(wide((clear) => thingOpensRule.run({ ...input, how: 'door', clear }).grade)).toBe('good tight tight fails');
  });
  it('has a lid free over it: not under a worktop, and drawn out from under it', () => {
    const chest = { kind: 'thing', thing: 'cold-chest-40' } as const;
    const shut = withUnits(holding('k', 'left', chest, 760, 60));
    const told = checkOf(shut, 'thing-opens:k:bay-1');
    expect(told?.grade).toBe('fails');
    expect(told?.said.params['needs']).toEqual({ mm: 380 });
    const mended = after(shut, ...(told?.mends ?? []).flatMap(({ operations }) => operations));
    expect(told?.mends).toHaveLength(1);
    // what is good is not listed
    expect(checkOf(mended, 'thing-opens:k:bay-1')).toBeUndefined();
    // no slides are as long as that in a bay that is less deep
    expect(checkOf(withUnits(holding('k', 'left', chest, 760)), 'thing-opens:k:bay-1')?.mends).toEqual([]);
    // drawn out half way its lid is still under the top
    const half = withUnits(
      holding('k', 'left', { kind: 'pull-out', thing: 'cold-chest-40', travel: 300, latch: true }, 760),
    );
    expect(checkOf(half, 'thing-opens:k:bay-1')?.grade).toBe('fails');
  });
  it('has a cupboard that hangs low over where it is drawn out in its way', () => {
    const out = holding('k', 'left', { kind: 'pull-out', thing: 'cold-chest-40', travel: 650, latch: true });
    const over: Unit = {
      id: 'hung',
      family: 'thing-alone',
      name: 'Box in the air',
      body: { stands: 'free', x: 700, length: 700, y: -200, width: 800, from: 700, to: 1000 },
      meets: { foot: { how: 'square' } },
      division: { name: 'itself', holds: { kind: 'open' }, front: { kind: 'none' } },
      school: 'plywood',
      materials: {},
      options: { thing: '', looks: 'rear' },
    };
    expect(checkOf(withUnits(out), 'thing-opens:k:bay-1')).toBeUndefined();
    const told = checkOf(withUnits(out, over), 'thing-opens:k:bay-1');
    expect([told?.grade, told?.said.params['by']]).toEqual(['fails', 'Box in the air']);
  });
  it('has a flap free before it, to what stands across the way', () => {
    const oven = holding('k', 'left', { kind: 'thing', thing: 'cooker-oven' });
    expect(checkOf(withUnits(oven), 'thing-opens:k:bay-1')).toBeUndefined();
    // fronts at 200 left and 80 right: 280 between them, and 20 of a top
    const bench = runWith({ id: 'b', side: 'right', x: 500, length: 1200, front: 80, height: 900 });
    const told = checkOf(withUnits(oven, bench), 'thing-opens:k:bay-1');
    expect([told?.grade, told?.said.params['needs']]).toEqual(['fails', { mm: 560 }]);
    // one that is lower than the flap is not in its way
    const low = runWith({ id: 'b', side: 'right', x: 500, length: 1200, front: 80, height: 200 });
    expect(checkOf(withUnits(oven, low), 'thing-opens:k:bay-1')).toBeUndefined();
  });
  it('is asked of what stands by itself too', () => {
    const cold = (looks: string, y: number): Unit => ({
      id: 'cold',
      family: 'thing-alone',
      name: 'Cold box',
      body: { stands: 'free', x: 1000, length: 480, y, width: 520, from: 0, to: 625 },
      meets: { foot: { how: 'square' } },
      division: { name: 'itself', holds: { kind: 'open' }, front: { kind: 'none' } },
      school: 'plywood',
      materials: {},
      options: { thing: 'cold-door-85', looks },
    });
    expect(checkOf(withUnits(cold('right', -700)), 'thing-opens:cold')).toBeUndefined();
    expect(checkOf(withUnits(cold('right', 100)), 'thing-opens:cold')?.grade).toBe('fails');
    expect(checkOf(withUnits(cold('left', 100)), 'thing-opens:cold')).toBeUndefined();
  });
});

describe('air', () => {
  const input = {
    watts: 100,
    between: 800,
    sheet: null,
    low: 0,
    high: 0,
    around: null,
    behind: null,
    fan: 0,
    thing: '',
    name: '',
  };
  const grade = (more: Partial<typeof input> | { around: number; behind: number; low?: number; high?: number }) =>
    airRule.run({ ...input, ...more }).grade;
  it('goes through openings side by side together, and behind each other by the narrowest', () => {
    const wants = Math.ceil(airRule.run(input).good);
    // 100 W over 800: Q = 100 / 12 060 = 0.00829 m3/s; 0.6 root(2 x 9.81 x 0.8 x 10 / 293) = 0.439 m/s: 189 cm2
    expect(wants).toBe(189);
    expect(grade({ low: 189, high: 189 })).toBe('good');
    expect(grade({ low: 1000, high: 100 })).toBe('fails');
    expect(grade({ low: 100, high: 100, around: 180, behind: 500 })).toBe('good');
    expect(grade({ low: 100, high: 100, around: 180, behind: 50 })).toBe('fails');
  });
  it('is moved by a fan by its flow', () => {
    // 0.00829 m3/s are 29.85 m3/h; at 2.5 m/s 33.2 cm2
    expect(grade({ fan: 30, low: 34, high: 34 })).toBe('good');
    expect(grade({ fan: 30, low: 33, high: 34 })).toBe('fails');
    expect(grade({ fan: 29, low: 34, high: 34 })).toBe('fails');
    // a data sheet that asks for openings is not overruled by a fan
    expect(airRule.run({ ...input, sheet: 200, fan: 500, low: 150, high: 150 }).grade).toBe('fails');
  });
});

describe('what is offered where one measures in inches', () => {
  it('is a whole number of eighths', () => {
    const lid = holding('k', 'left', { kind: 'thing', thing: 'cold-door-135' }, 700);
    const ofInches = (units: 'mm' | 'in') =>
      derive({ ...withUnits(lid), settings: { ...bare.settings, units } }, book).checks.find(
        ({ id }) => id === 'thing-fits:k:bay-1',
      )?.mends[0]?.operations[0];
    const by = (units: 'mm' | 'in'): number => {
      const operation = ofInches(units);
      const height = operation?.name === 'changeUnit' ? operation.payload.changes['height'] : undefined;
      if (typeof height !== 'number') throw new Error('no height');
      return height - 700;
    };
    expect(Number.isInteger(by('mm'))).toBe(true);
    expect((by('in') / 25.4) * 8).toBeCloseTo(Math.round((by('in') / 25.4) * 8), 6);
    expect(by('in')).toBeGreaterThanOrEqual(by('mm') - 1);
    expect(by('in')).toBeLessThan(by('mm') + 3.2);
  });
});
