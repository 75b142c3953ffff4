import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Thing } from '../document/schema.js';
import type { Run, Unit } from '../document/unit-schema.js';
import { startPriceBook } from '../materials/start-book.js';
import { monotoneCurve } from '../numeric/curve.js';
import { isWithin } from '../numeric/plane.js';
import { bundleRule } from '../rules/runs.js';
import { makeShell } from '../shell/shell.js';
import { FAMILIES } from './families/index.js';
import { makeUnit, withSkeleton } from './make.js';
import { bored, openLength, runsOf } from './runs.js';
import { SCHOOLS } from './schools/index.js';
import { boardBox, type Skeleton } from './skeleton.js';
import { runWith } from './units.fixture.js';

const book = startPriceBook();
const wall = monotoneCurve([0, 1900], [900, 900]);
const roof = monotoneCurve([-900, 900], [1900, 1900]);
const inner = makeShell(
  3000,
  20,
  [0, 3000].map((x) => ({ x, left: wall, right: wall, roof })),
);
const things: readonly Thing[] = [];
/** 1200 long at the left wall, in two bays with a board of 15 between them: 585 - 7.5 ... the divider is about x 1100. */
const kitchen: Unit = {
  ...runWith({ id: 'kitchen', side: 'left', x: 500, length: 1200, front: 450, height: 900, carcass: 'birch-15' }),
  division: {
    cut: 'along',
    divider: 'board',
    sizes: [{ share: 1 }, { share: 1 }],
    parts: ['left', 'right'].map((name) => ({ name, holds: { kind: 'open' }, front: { kind: 'none' } })),
  },
};
const made = makeUnit(kitchen, { inner, arches: [], book, things }, FAMILIES, SCHOOLS);
const skeleton = made.skeleton as Skeleton;
const skeletons = new Map([['kitchen', skeleton]]);
const run = (more: Partial<Run>): Run => ({
  id: 'r',
  name: 'R',
  kind: 'cable',
  diameter: 10,
  from: { unit: 'kitchen', bay: 'left' },
  to: { unit: 'kitchen', bay: 'right' },
  via: [],
  ...more,
});
const laid = (...runs: Run[]) => runsOf({ runs, skeletons, things, inner });

describe('the hole of a bundle', () => {
  it('is 2 more than one, and a quarter more than several laid together', () => {
    expect(bundleRule.run({ diameters: [10], hot: false }).hole).toBe(12);
    expect(bundleRule.run({ diameters: [24], hot: true }).hole).toBe(124);
    // 1.25 x root(3 x 100) + 2 = 23.65
    expect(bundleRule.run({ diameters: [10, 10, 10], hot: false }).hole).toBe(24);
  });
});

describe('a run', () => {
  it('takes its way along the wall and goes through the board between two bays', () => {
    const { placed, holes, along } = laid(run({}));
    expect(along).toEqual([]);
    expect(holes).toHaveLength(1);
    const [hole] = holes;
    expect(hole?.diameter).toBe(12);
    // the boards’ middle is the unit’s: 500 + 600
    expect(hole?.place[0]).toBeCloseTo(1100, 0);
    // 900 - 5 behind inner boards, or the wall: 45 off the back of the bay
    expect(hole?.place[1]).toBeLessThan(-800);
    expect(placed[0]?.length).toBeCloseTo((placed[0]?.points.at(-1)?.[0] ?? 0) - (placed[0]?.points[0]?.[0] ?? 0), 6);
  });
  it('ends in the middle of a bay, or beside the bearer that stands there', () => {
    const bunk: Unit = {
      id: 'bunk',
      family: 'bed-along',
      name: 'Bunk',
      body: { stands: 'right', x: 700, length: 1200, front: 250, from: 0, to: 450 },
      meets: { back: { how: 'square' }, foot: { how: 'open' } },
      division: { name: 'hold', holds: { kind: 'hold' }, front: { kind: 'none' } },
      school: 'plywood',
      materials: { board: 'birch-12', support: 'birch-15' },
      options: { mattress: 100, guard: 0, sleepers: [] },
    };
    const bed = makeUnit(bunk, { inner, arches: [], book, things }, FAMILIES, SCHOOLS).skeleton as Skeleton;
    const middle = bed.boards.find(({ name }) => name === 'bearer-1');
    // 1170 between its ends take one bearer, in the middle: 15 thick at 1292.5
    expect(middle?.at).toBeCloseTo(1292.5, 6);
    const to = { unit: 'bunk', bay: 'hold' };
    const all = runsOf({ runs: [run({ to })], skeletons: new Map([...skeletons, ['bunk', bed]]), things, inner });
    expect(all.along.filter((one) => one.unit === 'bunk')).toEqual([]);
    // 5 and half of 10 past its rear face
    expect(all.placed[0]?.points.at(-1)?.[0]).toBeCloseTo(1292.5 + 15 + 10, 6);
  });
  it('bores its hole into the part, and only there', () => {
    const { holes } = laid(run({}));
    const after = withSkeleton(kitchen, made, bored(skeleton, holes), book, SCHOOLS);
    const changed = after.parts.filter((part, i) => part.outline.holes.length !== made.parts[i]?.outline.holes.length);
    expect(changed.map(({ id }) => id)).toEqual([`kitchen.${holes[0]?.board ?? ''}`]);
    expect(after.hardware).toBe(made.hardware);
  });
  it('shares its hole with the next cable, and not with a gas pipe', () => {
    expect(laid(run({}), run({ id: 'b' })).holes.map(({ diameter, runs }) => [diameter, runs])).toEqual([
      // 1.25 x root(200) + 2 = 19.7
      [20, ['r', 'b']],
    ]);
    const apart = laid(run({}), run({ id: 'g', kind: 'gas' })).holes;
    expect(apart.map(({ runs }) => runs)).toEqual([['r'], ['g']]);
  });
  it('tells what wood is left to the edge, and does not bore where it breaks out', () => {
    const board = skeleton.boards.find(({ name }) => name === laid(run({})).holes[0]?.board);
    const back = Math.min(...(board?.outline.outer ?? []).map(([y]) => y));
    const by = (y: number) =>
      laid(
        run({
          from: { at: [800, y, 400] },
          to: { at: [1400, y, 400] },
        }),
      ).holes[0];
    expect(by(back + 40)?.edge).toBeCloseTo(40 - 6);
    expect(by(back + 4)?.edge).toBeCloseTo(4 - 6);
    expect(
      bored(
        skeleton,
        [by(back + 4)].flatMap((hole) => hole ?? []),
      ),
    ).toBe(skeleton);
  });
  it('has no points while an end is nowhere, nor when its bay is gone', () => {
    expect(laid(run({ to: null })).placed[0]).toMatchObject({ points: [], length: 0 });
    expect(laid(run({ to: { unit: 'kitchen', bay: 'gone' } })).placed[0]?.points).toEqual([]);
    expect(laid(run({ to: { unit: 'gone', bay: 'left' } })).holes).toEqual([]);
  });
  it('is told where it lies along a board, within it', () => {
    const upright = skeleton.boards.find(
      ({ normal, name }) => normal === 'x' && name === laid(run({})).holes[0]?.board,
    );
    const x = (upright?.at ?? 0) + 7;
    const { along, holes } = laid(run({ from: { at: [x, -880, 400] }, to: { at: [x, -480, 400] } }));
    expect(along.map(({ board }) => board)).toEqual([upright?.name]);
    expect(holes.filter(({ board }) => board === upright?.name)).toEqual([]);
  });
  it('is told where it comes to a board too flat to be bored for', () => {
    const bottom = skeleton.boards.find(({ role }) => role === 'bottom');
    const z = (bottom?.at ?? 0) - 20;
    // from 40 over the bottom board to 40 under it over 1000: one part in ten
    const { along, holes } = laid(
      run({
        diameter: 40,
        from: { at: [600, -700, z + 60] },
        via: [[1100, -700, z + 10]],
        to: { at: [1600, -700, z - 40] },
      }),
    );
    expect(along.map(({ board }) => board)).toContain(bottom?.name);
    expect(holes.filter(({ board }) => board === bottom?.name)).toEqual([]);
  });
  it('crosses to the other wall over the floor', () => {
    const right: Unit = { ...runWith({ id: 'seat', side: 'right', x: 500, length: 800, front: 450, height: 450 }) };
    const other = makeUnit(right, { inner, arches: [], book, things }, FAMILIES, SCHOOLS);
    const both = new Map([...skeletons, ['seat', other.skeleton as Skeleton]]);
    const { placed } = runsOf({ runs: [run({ to: { unit: 'seat', bay: 'bay-1' } })], skeletons: both, things, inner });
    // 20 is the floor one stands on; the cable of 10 lies on it
    expect(Math.min(...(placed[0]?.points ?? []).map(([, , z]) => z))).toBeCloseTo(25);
  });
  it('hangs nowhere in mid-air between what stands in the middle of the room and a wall', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 100, max: 2000 }),
        fc.integer({ min: -350, max: 100 }),
        fc.constantFrom<Run['kind']>('cable', 'water', 'gas', 'duct'),
        fc.boolean(),
        fc.constantFrom<'left' | 'right'>('left', 'right'),
        (x, y, kind, back, side) => {
          const island: Unit = {
            id: 'island',
            family: 'rack',
            name: 'Rack',
            body: { stands: 'free', x, y, length: 700, width: 450, from: 0, to: 900 },
            meets: { foot: { how: 'square' } },
            division: { name: 'bay-1', holds: { kind: 'open' }, front: { kind: 'none' } },
            school: 'plywood',
            materials: { board: 'birch-15', lip: 'birch-12' },
            options: { opens: side, lipHigh: 40 },
          };
          const made = makeUnit(island, { inner, arches: [], book, things }, FAMILIES, SCHOOLS).skeleton as Skeleton;
          const bay = made.bays?.[0]?.bay.name ?? '';
          const [from, to] = [
            { unit: 'island', bay },
            { unit: 'kitchen', bay: 'left' },
          ];
          const all = new Map([...skeletons, ['island', made]]);
          const way = runsOf({
            runs: [run({ kind, ...(back ? { from: to, to: from } : { from, to }) })],
            skeletons: all,
            things,
            inner,
          }).placed[0];
          expect(way?.points.length).toBeGreaterThan(1);
          // walked by itself: what is neither by the floor, nor by a wall, nor in a unit's own outside
          let air = 0;
          for (const [i, b] of (way?.points ?? []).entries()) {
            const a = way?.points[i - 1];
            if (!a) continue;
            const long = Math.hypot(b[0] - a[0], b[1] - a[1], b[2] - a[2]);
            for (let s = 0; s < long; s += 5) {
              const [px, py, pz] = [0, 1, 2].map((k) => (a[k] ?? 0) + (((b[k] ?? 0) - (a[k] ?? 0)) * s) / long);
              const inUnit =
                ((px ?? 0) >= x - 1 && (px ?? 0) <= x + 701 && (py ?? 0) >= y - 1 && (py ?? 0) <= y + 451) ||
                ((px ?? 0) >= 499 && (px ?? 0) <= 1701 && (py ?? 0) <= -449);
              if (!inUnit && (pz ?? 0) > 20 + 60 && Math.abs(py ?? 0) < 780) air += 5;
            }
          }
          expect(air).toBeLessThanOrEqual(40);
        },
      ),
      { numRuns: 60, seed: 27 },
    );
  });
  it('counts the corners it turns at, and none where it goes straight on', () => {
    const bends = (...via: Run['via']) =>
      laid(run({ from: { at: [600, -700, 300] }, to: { at: [1600, -700, 300] }, via })).placed[0]?.bends;
    expect(bends([1000, -700, 300])).toBe(0);
    expect(bends([1000, -700, 300], [1000, -500, 300], [1300, -500, 300])).toBe(3);
    // 40 over 400: less than six degrees
    expect(bends([1000, -740, 300])).toBe(0);
    expect(laid(run({ to: null })).placed[0]?.bends).toBe(0);
  });
  it('goes by the places it is led through', () => {
    const { placed } = laid(run({ via: [[1000, -700, 880]] }));
    expect(placed[0]?.points[1]).toEqual([1000, -700, 900]);
  });
  it('falls evenly where it is a waste pipe', () => {
    const points = laid(run({ kind: 'waste', diameter: 40 })).placed[0]?.points ?? [];
    for (let i = 1; i < points.length; i += 1) expect(points[i]?.[2]).toBeLessThanOrEqual(points[i - 1]?.[2] ?? 0);
  });
});

describe('any run', () => {
  it('has its holes within their boards, and none twice at one place', () => {
    const place = fc.tuple(
      fc.integer({ min: 400, max: 1900 }),
      fc.integer({ min: -890, max: 400 }),
      fc.integer({ min: 0, max: 900 }),
    );
    fc.assert(
      fc.property(
        fc.array(place, { minLength: 2, maxLength: 5 }),
        fc.integer({ min: 5, max: 60 }),
        (points, diameter) => {
          const [first, last] = [points[0], points.at(-1)];
          if (!first || !last) return;
          const { holes, placed } = laid(
            run({ from: { at: first }, to: { at: last }, via: points.slice(1, -1), diameter }),
          );
          expect(placed[0]?.length).toBeGreaterThanOrEqual(0);
          for (const hole of holes) {
            const board = skeleton.boards.find(({ name }) => name === hole.board);
            expect(board && isWithin(hole.at, board.outline.outer)).toBe(true);
            expect(hole.diameter).toBeGreaterThanOrEqual(diameter + 2);
            expect(Number.isFinite(hole.edge)).toBe(true);
          }
        },
      ),
      { seed: 13, numRuns: 60 },
    );
  });
});

describe('a chase on the way', () => {
  const bay = (name: string, kind: 'open' | 'chase') => ({ name, holds: { kind }, front: { kind: 'none' as const } });
  const cut = (how: 'up' | 'deep', chase: number) => ({
    cut: how,
    divider: 'board' as const,
    sizes: how === 'up' ? [{ share: 1 }, chase] : [{ share: 1 }, chase],
    parts: [
      {
        cut: 'along' as const,
        divider: 'board' as const,
        sizes: [{ share: 1 }, { share: 1 }],
        parts: [bay('left', 'open'), bay('right', 'open')],
      },
      bay('chase', 'chase'),
    ],
  });
  const withChase = (side: 'left' | 'right', how: 'up' | 'deep', chase: number) => {
    const unit: Unit = {
      ...runWith({ id: 'kitchen', side, x: 500, length: 1200, front: 450, height: 900, carcass: 'birch-15' }),
      division: cut(how, chase),
    };
    const own = makeUnit(unit, { inner, arches: [], book, things }, FAMILIES, SCHOOLS).skeleton as Skeleton;
    const room = own.bays?.find((one) => one.bay.name === 'chase')?.room;
    if (!room) throw new Error('there is a chase');
    const lie = (...runs: Run[]) => runsOf({ runs, skeletons: new Map([['kitchen', own]]), things, inner });
    const boards = (more: Partial<Run>) =>
      lie(run(more))
        .holes.map(({ board }) => own.boards.find(({ name }) => name === board))
        .map((board) => board?.normal);
    return { room, lie, boards };
  };
  const within =
    (room: { x0: number; x1: number; y0: number; y1: number; z0: number; z1: number }) =>
    ([x, y, z]: readonly [number, number, number]): boolean =>
      x > room.x0 && x < room.x1 && y > room.y0 && y < room.y1 && z > room.z0 && z < room.z1;

  it.each([
    ['left', 'up'],
    ['right', 'up'],
    ['left', 'deep'],
    ['right', 'deep'],
  ] as const)('at the %s wall, cut %s: goes into it and out of it, and through no upright', (side, how) => {
    const { room, lie, boards } = withChase(side, how, 120);
    const [placed] = lie(run({})).placed;
    const inside = (placed?.points ?? []).filter(within(room));
    expect(inside.length).toBeGreaterThanOrEqual(2);
    // the board between the bays and the chase twice, none of those that stand across
    expect(boards({})).toEqual(how === 'up' ? ['z', 'z'] : ['y', 'y']);
    // it ends where it would end without
    const [from, to] = [placed?.points[0], placed?.points.at(-1)];
    expect(from?.[0]).toBeLessThan(1100);
    expect(to?.[0]).toBeGreaterThan(1100);
    expect(placed?.length ?? 0).toBeGreaterThan((to?.[0] ?? 0) - (from?.[0] ?? 0));
  });
  it('is the same way back', () => {
    const { lie } = withChase('left', 'up', 120);
    const [there] = lie(run({})).placed;
    const [back] = lie(run({ from: { unit: 'kitchen', bay: 'right' }, to: { unit: 'kitchen', bay: 'left' } })).placed;
    expect(back?.length).toBeCloseTo(there?.length ?? NaN, 6);
  });
  it('is for cables, water and air, each at its own height, and not for gas, waste or heat', () => {
    const { room, lie } = withChase('left', 'deep', 120);
    const heights = (kind: Run['kind'], diameter = 10) => {
      const inside = (lie(run({ kind, diameter })).placed[0]?.points ?? []).filter(within(room));
      return [...new Set(inside.map(([, , z]) => Math.round(((z - room.z0) / (room.z1 - room.z0)) * 1000) / 1000))];
    };
    expect(heights('cable')).toContain(0.75);
    expect(heights('duct', 60)).toContain(0.5);
    expect(heights('water')).toContain(0.25);
    for (const kind of ['gas', 'waste', 'flue', 'fuel'] as const) expect(heights(kind)).toEqual([]);
  });
  it('is passed by where the run does not go in, or it lies far out of the way', () => {
    const { room, lie } = withChase('left', 'up', 60);
    const highest = (more: Partial<Run>) => Math.max(...(lie(run(more)).placed[0]?.points ?? []).map(([, , z]) => z));
    expect(highest({ kind: 'duct', diameter: 75 })).toBeLessThan(room.z0);
    // water runs low: the chase under the top is more than 450 above it
    expect(highest({ kind: 'water', diameter: 15 })).toBeLessThan(room.z0);
    expect(highest({ kind: 'cable', diameter: 15 })).toBeGreaterThan(room.z0);
  });
  it('is left alone by a run that is led by hand', () => {
    const { room, lie } = withChase('left', 'deep', 120);
    const led = lie(run({ via: [[1000, -600, 300]] })).placed[0]?.points ?? [];
    expect(led.filter(within(room))).toEqual([]);
  });
});

describe('its own way', () => {
  /** A tower 1600 high before the kitchen of 900: a cable from high up in it to the kitchen would lie over the worktop. */
  const tower: Unit = { ...runWith({ id: 'tower', side: 'left', x: 0, length: 480, front: 450, height: 1600 }) };
  const other = makeUnit(tower, { inner, arches: [], book, things }, FAMILIES, SCHOOLS).skeleton as Skeleton;
  const both = new Map([
    ['tower', other],
    ['kitchen', skeleton],
  ]);
  const solids = [skeleton, other].map(({ boards }) => {
    const boxes = boards.filter(({ moves }) => moves === undefined).map(boardBox);
    const end = (of: 'low' | 'high', n: 0 | 1 | 2, pick: (...values: number[]) => number) =>
      pick(...boxes.map((box) => box[of][n]));
    return {
      x0: end('low', 0, Math.min),
      x1: end('high', 0, Math.max),
      y0: end('low', 1, Math.min),
      y1: end('high', 1, Math.max),
      z0: end('low', 2, Math.min),
      z1: end('high', 2, Math.max),
    };
  });
  const between = (from: Run['from'], to: Run['to']) =>
    runsOf({ runs: [run({ from, to })], skeletons: both, things, inner }).placed[0]?.points ?? [];
  const [high, low]: readonly [Run['from'], Run['from']] = [
    { unit: 'tower', bay: 'bay-1' },
    { unit: 'kitchen', bay: 'right' },
  ];
  it('goes down where it is still in a unit, whichever end it is begun from', () => {
    for (const points of [between(high, low), between(low, high)]) {
      // 20 between the two is all that is not in one of them
      expect(openLength(points, solids, inner)).toBeLessThan(40);
      expect(points.length).toBeGreaterThan(2);
    }
  });
  it('is in the open where nothing stands, by as much as lies off the wall, over the floor and below 1900', () => {
    const straight = (y: number, z: number): number =>
      openLength(
        [
          [1800, y, z],
          [2800, y, z],
        ],
        solids,
        inner,
      );
    expect(straight(0, 500)).toBeCloseTo(1000, 6);
    expect(straight(-800, 500)).toBe(0);
    expect(straight(0, 10)).toBe(0);
    expect(straight(0, 1930)).toBe(0);
  });
});

describe('the panel of a chase', () => {
  it('is bored where a run goes through it, as what comes off with a slot, while a door is not', () => {
    const division = (holds: 'chase' | 'hold'): Unit['division'] => ({
      cut: 'deep',
      divider: 'frame',
      sizes: [{ share: 1 }, 120],
      parts: [
        { name: 'left', holds: { kind: 'open' }, front: { kind: 'none' } },
        { name: 'behind', holds: { kind: holds }, front: { kind: 'panel' } },
      ],
    });
    const crossed = (holds: 'chase' | 'hold') => {
      const unit = { ...kitchen, division: division(holds) };
      const own = makeUnit(unit, { inner, arches: [], book, things }, FAMILIES, SCHOOLS).skeleton as Skeleton;
      const { holes } = runsOf({
        runs: [run({ from: { at: [1100, -500, 500] }, to: { at: [1100, -850, 500] } })],
        skeletons: new Map([['kitchen', own]]),
        things,
        inner,
      });
      const [panel] = holes.filter(({ board }) => board === 'behind.panel');
      return { panel, after: bored(own, holes).boards.find(({ name }) => name === 'behind.panel') };
    };
    const [chase, hold] = [crossed('chase'), crossed('hold')];
    expect(chase.panel).toMatchObject({ moves: false, panel: true });
    expect(chase.after?.outline.holes).toHaveLength(1);
    expect(hold.panel).toMatchObject({ moves: true, panel: false });
    expect(hold.after?.outline.holes).toHaveLength(0);
  });
});
