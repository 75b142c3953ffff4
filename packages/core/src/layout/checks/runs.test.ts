import { describe, expect, it } from 'vitest';
import wrenFile from '../../../../../demo/wren.json?raw';
import { derive } from '../../derive/again.fixture.js';
import { createDeriver } from '../../derive/derive.js';
import type { Operation } from '../../document/operation.js';
import type { Project, Run, Thing, Unit } from '../../document/schema.js';
import { readProjectFile } from '../../formats/read.js';
import { applyOperation } from '../../furniture/kit.js';
import { START_THINGS } from '../../furniture/start-things.js';
import { runWith } from '../../furniture/units.fixture.js';
import {
  cableRule,
  drainFallRule,
  dropRule,
  flueClearRule,
  ductRule,
  fuseRule,
  holeEdgeRule,
  openRunRule,
  runEndsRule,
} from '../../rules/runs.js';
import type { Rule, Verdict } from '../../rules/rule.js';

const wren = readProjectFile(wrenFile);
const book = wren.priceBook;
const after = (project: Project, ...operations: Operation[]): Project =>
  operations.reduce((p, operation) => applyOperation(p, operation, book).project, project);
const grade = <Input extends Rule['input']>(rule: Rule<Input, Verdict>, input: unknown): string =>
  rule.run(rule.input.parse(input)).grade;

describe('rules of runs', () => {
  it('leave 25 of wood beside a hole, 12 at the least', () =>
    expect([25, 24.9, 12, 11.9, -3].map((left) => grade(holeEdgeRule, { left, diameter: 12 }))).toEqual([
      'good',
      'tight',
      'tight',
      'fails',
      'fails',
    ]));
  it('let a waste pipe fall by 20 mm a metre, 10 at the least', () =>
    expect([20, 19, 10, 9, -5].map((fall) => grade(drainFallRule, { fall }))).toEqual([
      'good',
      'tight',
      'tight',
      'fails',
      'fails',
    ]));
  it('want a fuse a quarter above what is carried: 60 W at 12 V are 5 A', () => {
    expect([7.5, 6.25, 5, 4, null].map((fuse) => grade(fuseRule, { watts: 60, volts: 12, fuse }))).toEqual([
      'good',
      'good',
      'tight',
      'fails',
      'unknown',
    ]);
  });
  it('want copper that carries the fuse: 1.5 mm2 carry 14 A', () =>
    expect([1.5, 2, 1, 0.5, null].map((copper) => grade(cableRule, { fuse: 14, copper }))).toEqual([
      'good',
      'good',
      'fails',
      'fails',
      'unknown',
    ]));
  it('count the voltage lost there and back: 5 m of 1.5 mm2 at 5 A lose 0.593 V, 4.9 % of 12', () => {
    const drop = (copper: number | null) => grade(dropRule, { length: 5000, watts: 60, volts: 12, copper });
    expect([2.5, 1.5, 1, null].map(drop)).toEqual(['good', 'tight', 'fails', 'unknown']);
    expect(dropRule.run(dropRule.input.parse({ length: 5000, watts: 60, volts: 12, copper: 1.5 })).figure).toBeCloseTo(
      4.944,
      2,
    );
  });
  it('want the section of the opening all along a duct: 75 mm are 44 cm2', () =>
    expect([44, 44.5, 55, 56].map((wants) => grade(ductRule, { diameter: 75, wants }))).toEqual([
      'good',
      'tight',
      'tight',
      'fails',
    ]));
  it('never fail for what lies in the open, and know nothing of ends that are nowhere', () => {
    expect([0, 1, 3000].map((open) => grade(openRunRule, { open }))).toEqual(['good', 'tight', 'tight']);
    expect(grade(runEndsRule, {})).toBe('unknown');
  });
});

/** A seat at the left and a run of two bays at the right of an empty Wren. */
const bays = (unit: Unit): Unit => ({
  ...unit,
  division: {
    cut: 'along',
    divider: 'board',
    sizes: [{ share: 1 }, { share: 1 }],
    parts: ['front', 'rear'].map((name) => ({ name, holds: { kind: 'open' }, front: { kind: 'none' } })),
  },
});
const empty: Project = after(
  {
    ...wren.project,
    stored: [],
    wishes: [],
    variants: [],
    things: [],
    keptPlans: [],
    waits: [],
    fittings: [],
    layout: { units: [] },
  },
  {
    name: 'placeUnit',
    payload: {
      unit: bays(runWith({ id: 'k', name: 'Kitchen', side: 'left', x: 300, length: 1200, front: 350, height: 900 })),
    },
  },
  {
    name: 'placeUnit',
    payload: {
      unit: bays(runWith({ id: 's', name: 'Chest', side: 'left', x: 1700, length: 900, front: 400, height: 500 })),
    },
  },
);
const run = (more: Partial<Run>): Operation => ({
  name: 'putRun',
  payload: {
    run: {
      id: 'r',
      name: 'The run',
      kind: 'cable',
      diameter: 10,
      from: { unit: 'k', bay: 'front' },
      to: { unit: 'k', bay: 'rear' },
      via: [],
      ...more,
    },
  },
});
const checksOf = (...operations: Operation[]) =>
  derive(after(empty, ...operations), book)
    .checks.filter(
      ({ id, grade: own }) => /^(run-|hole-|drain|fuse|cable|voltage|connected)/.test(id) && own !== 'good',
    )
    .map(({ id, grade: own }) => `${id} ${own}`);

describe('runs in a plan', () => {
  it('are good along the wall through the board between two bays', () => {
    const derived = derive(after(empty, run({})), book);
    expect(derived.runs.holes).toHaveLength(1);
    const part = derived.parts.find(({ id }) => id === `k.${derived.runs.holes[0]?.board ?? ''}`);
    expect(part?.outline.holes).toHaveLength(1);
    expect(checksOf(run({}))).toEqual([]);
  });
  it('follow the unit when it moves, and leave its parts alone when they are taken away', () => {
    const { pull } = createDeriver();
    const before = pull(after(empty, run({})), book).runs.holes[0]?.place[0] ?? NaN;
    const moved = after(empty, run({}), { name: 'changeUnit', payload: { id: 'k', changes: { x: 350 } } });
    expect(pull(moved, book).runs.holes[0]?.place[0]).toBeCloseTo(before + 50, 6);
    const gone = after(moved, { name: 'removeRun', payload: { id: 'r' } });
    expect(pull(gone, book).made.flatMap(({ parts }) => parts.flatMap(({ outline }) => outline.holes))).toEqual([]);
  });
  it('lie in the open between two units, and are told for how long', () => {
    // from 1500 to 1700 nothing stands, and the wall is farther than 120 from its way
    const led = (high: number): Operation =>
      run({
        to: { unit: 's', bay: 'front' },
        via: [
          [1000, -400, high],
          [2000, -420, high],
        ],
      });
    const told = (high: number) => checksOf(led(high)).filter((id) => id.startsWith('run-open'));
    expect(told(20)).toEqual(['run-open:r tight']);
    // 200 above the floor it hangs in mid-air: nobody can lay it so, and its own way along the wall is offered
    expect(told(200)).toEqual(['run-open:r fails']);
    const project = after(empty, led(200));
    const mends = derive(project, book).checks.find(({ id }) => id === 'run-open:r')?.mends ?? [];
    expect(mends.map(({ said }) => said.key)).toEqual(['mend.ownWay']);
    expect(
      derive(after(project, ...mends.flatMap(({ operations }) => operations)), book).checks.find(
        ({ id }) => id === 'run-open:r',
      ),
    ).toBeUndefined();
  });
  it('end nowhere once their unit is taken out, and say so', () => {
    const project = after(empty, run({ to: { unit: 's', bay: 'front' } }), {
      name: 'removeUnit',
      payload: { id: 's' },
    });
    expect(project.layout.runs?.[0]).toMatchObject({ from: { unit: 'k', bay: 'front' }, to: null });
    expect(derive(project, book).checks.find(({ id }) => id === 'run-ends:r')?.grade).toBe('unknown');
  });
  it('break out at the edge of a board that is left too narrow', () => {
    const upright = derive(after(empty, run({})), book).runs.holes[0];
    const [x = 0, , z = 0] = upright?.place ?? [];
    const back = (upright?.place[1] ?? 0) - (upright?.edge ?? 0) - 6;
    const floor = derive(empty, book).inner?.floor ?? 0;
    const led = (off: number) =>
      checksOf(
        run({
          from: { at: [x - 200, back + off, z - floor] },
          to: { at: [x + 200, back + off, z - floor] },
        }),
      ).filter((id) => id.startsWith('hole-edge'));
    expect(led(31)).toEqual([]);
    expect(led(20)).toEqual([`hole-edge:k.${upright?.board ?? ''}:r tight`]);
    expect(led(10)).toEqual([`hole-edge:k.${upright?.board ?? ''}:r fails`]);
  });
  it('are led away from the edge by one press', () => {
    const upright = derive(after(empty, run({})), book).runs.holes[0];
    const [x = 0, , z = 0] = upright?.place ?? [];
    const back = (upright?.place[1] ?? 0) - (upright?.edge ?? 0) - 6;
    const floor = derive(empty, book).inner?.floor ?? 0;
    const near = after(
      empty,
      run({ from: { at: [x - 200, back + 10, z - floor] }, to: { at: [x + 200, back + 10, z - floor] } }),
    );
    const check = derive(near, book).checks.find(({ id }) => id.startsWith('hole-edge'));
    expect(check?.grade).toBe('fails');
    const led = after(near, ...(check?.mends[0]?.operations ?? []));
    expect(derive(led, book).checks.find(({ id }) => id.startsWith('hole-edge'))).toBeUndefined();
    expect(derive(led, book).runs.holes).toHaveLength(1);
  });
  it('may not go through a drawer', () => {
    const drawers: Operation = {
      name: 'changeBay',
      payload: {
        id: 'k',
        bay: 'rear',
        holds: { kind: 'drawers', count: 2, latch: true },
      },
    };
    const floor = derive(empty, book).inner?.floor ?? 0;
    const told = checksOf(
      drawers,
      run({ from: { at: [400, -500, 300 - floor] }, to: { at: [1480, -500, 300 - floor] } }),
    ).filter((id) => id.startsWith('run-moving'));
    expect(told).toEqual([
      'run-moving:k.rear.drawer-1.side-front:r fails',
      'run-moving:k.rear.drawer-1.side-rear:r fails',
    ]);
  });
  it('feed a cold box: amperes, its fuse and its copper; and bring a flue to a heater', () => {
    const things = (kind: Thing['kind']): Thing => {
      const found = START_THINGS.find((thing) => thing.kind === kind);
      if (!found) throw new Error(kind);
      return found;
    };
    const cold: Thing = { ...things('cold-box'), id: 'cold', draws: 60, width: 400, depth: 300, height: 400 };
    const heater: Thing = { ...things('heater'), id: 'heat', connects: ['flue'], width: 200, depth: 150, height: 150 };
    const held: Operation[] = [
      { name: 'putThing', payload: { thing: cold } },
      { name: 'putThing', payload: { thing: heater } },
      { name: 'changeBay', payload: { id: 'k', bay: 'front', holds: { kind: 'thing', thing: 'cold' } } },
      { name: 'changeBay', payload: { id: 's', bay: 'front', holds: { kind: 'thing', thing: 'heat' } } },
    ];
    const wired = (fuse: number | null, copper: number | null): string[] =>
      checksOf(...held, run({ wire: { volts: 12, fuse, copper } })).filter((id) => /fuse|voltage/.test(id));
    expect(wired(null, null)).toEqual(['fuse:r unknown', 'voltage-drop:r unknown']);
    expect(wired(10, 2.5)).toEqual([]);
    expect(wired(4, 0.5)).toContain('fuse:r fails');
    expect(wired(10, 0.5)).toContain('cable-fuse:r fails');
    const flue = (...more: Operation[]) => checksOf(...held, ...more).filter((id) => id.includes(':flue'));
    expect(flue()).toEqual(['connected:s:front:flue tight']);
    expect(flue(run({ kind: 'flue', from: { unit: 's', bay: 'front' }, to: { at: [1900, -700, -100] } }))).toEqual([]);
  });
  it('fall evenly into a tank that stands lower, and fail where they are led level', () => {
    const waste = (more: Partial<Run>): string[] =>
      checksOf(run({ kind: 'waste', diameter: 40, ...more })).filter((id) => id.startsWith('drain'));
    // half of its height down to 200 over less than 600: steep
    expect(waste({})).toEqual([]);
    const { runs, inner } = derive(after(empty, run({ kind: 'waste', diameter: 40 })), book);
    const [from, to] = [runs.placed[0]?.points[0], runs.placed[0]?.points.at(-1)];
    if (!from || !to || !inner) throw new Error('it lies');
    expect(waste({ via: [[(from[0] + to[0]) / 2, from[1], from[2] - inner.floor]] })).toEqual(['drain-fall:r fails']);
  });
  it('are mended by one press: a fuse, the copper it asks for, a fall, a wider duct', () => {
    const sheet = START_THINGS.find(({ kind }) => kind === 'cold-box');
    if (!sheet) throw new Error('a cold box');
    const cold: Thing = { ...sheet, id: 'cold', draws: 120, heat: 0, air: { inlet: 80, outlet: 60 } };
    const held: Operation[] = [
      { name: 'putThing', payload: { thing: cold } },
      { name: 'changeBay', payload: { id: 'k', bay: 'front', holds: { kind: 'thing', thing: 'cold' } } },
    ];
    const mended = (id: string, ...operations: Operation[]): Run | undefined => {
      const project = after(empty, ...held, ...operations);
      const mend = derive(project, book).checks.find((check) => check.id === id)?.mends[0];
      const then = after(project, ...(mend?.operations ?? []));
      expect(derive(then, book).checks.find((check) => check.id === id)?.grade ?? 'good').toBe('good');
      return then.layout.runs?.[0];
    };
    const wire = (fuse: number | null, copper: number | null) => run({ wire: { volts: 12, fuse, copper } });
    // 120 W at 12 V are 10 A: a fuse of 12.5 or more, usual is 15; 1.5 mm2 carry 14 and 2.5 carry 20
    expect(mended('fuse:r', wire(8, 2.5))?.wire).toEqual({ volts: 12, fuse: 15, copper: 2.5 });
    expect(mended('fuse:r', wire(null, 1.5))?.wire).toEqual({ volts: 12, fuse: 15, copper: 2.5 });
    expect(mended('cable-fuse:r', wire(30, 1))?.wire).toEqual({ volts: 12, fuse: 30, copper: 6 });
    const far = run({ wire: { volts: 12, fuse: 15, copper: 0.75 }, to: { at: [4000, -700, 200] } });
    expect(mended('voltage-drop:r', far)?.wire?.copper).toBeGreaterThan(1);
    const led = mended(
      'drain-fall:r',
      run({ kind: 'waste', diameter: 40, to: { at: [2500, -700, 440] }, via: [[1500, -700, 460]] }),
    );
    expect(led?.via).toEqual([]);
    expect(led?.to).toMatchObject({ at: [2500, -700, expect.any(Number) as number] });
    // 80 cm2 are a circle of 100.9 mm
    expect(mended('duct:r:cold', run({ kind: 'duct', diameter: 60 }))?.diameter).toBe(101);
  });
  it('of an exhaust: a hole that keeps wood off it, and boards it passes too near', () => {
    const flue = (up: number) => {
      const { runs, checks, inner } = derive(
        after(
          empty,
          run({ kind: 'flue', diameter: 24, from: { at: [400, -600, up] }, to: { at: [1400, -600, up] }, via: [] }),
        ),
        book,
      );
      return { holes: runs.holes, check: checks.find(({ id }) => id === 'flue-clear:r'), inner };
    };
    // through the upright between the two bays: 24 + 2 x 50
    expect(flue(400).holes.map(({ diameter }) => diameter)).toEqual([124]);
    expect(flue(400).check).toBeUndefined();
    // the bottom lies on the floor and is 15 thick
    expect(flue(45).check).toMatchObject({ grade: 'fails', unit: 'k' });
    expect(flue(45).check?.spare).toBeCloseTo(45 - 15 - 12 - 50, 6);
    expect([50, 49, 25, 24].map((clear) => grade(flueClearRule, { clear }))).toEqual([
      'good',
      'tight',
      'tight',
      'fails',
    ]);
  });
  it('are bought by the metre as they lie, and say what the book has nothing of', () => {
    const lies = derive(after(empty, run({ wire: { volts: 12, fuse: 10, copper: 2 } })), book);
    const [bought] = lies.runsBought;
    expect(bought?.item?.hardware?.copper).toBe(2.5);
    expect(bought?.metres).toBeCloseTo((lies.runs.placed[0]?.length ?? NaN) / 1000, 9);
    const line = lies.shopping.lines.find(({ material }) => material === bought?.item?.id);
    expect(line?.amount).toBeCloseTo(bought?.metres ?? NaN, 9);
    expect(line?.shares.map(({ of }) => of)).toEqual(['k']);
    const told = (more: Partial<Run>) =>
      derive(after(empty, run(more)), book)
        .problems.filter(({ place }) => place === 'r')
        .map(({ said }) => said.key);
    expect(told({ wire: { volts: 12, fuse: 10, copper: 2 } })).toEqual([]);
    expect(told({ wire: { volts: 12, fuse: 10, copper: null } })).toEqual(['runs.none.copper']);
    expect(told({ wire: { volts: 12, fuse: 10, copper: 150 } })).toEqual(['runs.none.cable']);
    expect(told({ kind: 'duct', diameter: 90 })).toEqual(['runs.none.across']);
    // without its ends nothing is bought and nothing is asked for: the rule of ends says so
    expect(told({ kind: 'duct', diameter: 90, to: null })).toEqual([]);
  });
});
