import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { startPriceBook } from '../materials/start-book.js';
import { monotoneCurve } from '../numeric/curve.js';
import { boxOf, isWithin, outlineArea, ringArea } from '../numeric/plane.js';
import { halfWidth, makeShell, roofHeight, type Shell } from '../shell/shell.js';
import type { Thing, Unit } from '../document/schema.js';
import { FAMILIES } from './families/index.js';
import { idSchema } from '../document/schema-base.js';
import { freeUnitId, type Start } from './family.js';
import { makeUnit } from './make.js';
import { standsMoved, sweptBy } from './motions.js';
import { moved as movedBy, rigidOf } from './moved.js';
import { goesWith } from './goes-with.js';
import { SCHOOLS } from './schools/index.js';
import { boardBox } from './skeleton.js';
import { START_THINGS } from './start-things.js';
import { runWith } from './units.fixture.js';

const book = startPriceBook();
/** Walls 900 out up to 1400, leaning in to 700 under a roof that falls to the sides. */
function van(length = 3600, high = 1900): Shell {
  const wall = monotoneCurve([0, 700, 1400, 1750], [890, 930, 890, 720]);
  const roof = monotoneCurve([-720, 0, 720], [1760, high, 1760]);
  return makeShell(
    length,
    40,
    [0, length / 2, length].map((x) => ({ x, left: wall, right: wall, roof })),
  );
}
const people: Start['people'] = [
  { id: 'a', name: 'Ann', stature: 1650 },
  { id: 'b', name: 'Bo', stature: 1800 },
];
const start = (room: Shell): Start => ({ id: 'u', name: 'U', layout: { units: [] }, people, room, book });
const make = (unit: Unit, room: Shell, things: readonly Thing[] = []) =>
  makeUnit(unit, { inner: room, arches: [], book, things }, FAMILIES, SCHOOLS);

describe.each(FAMILIES.map((family) => [family.id, family] as const))('%s', (_id, family) => {
  const room = van();
  const unit = family.start(start(room));
  const made = make(unit, room);

  it('begins sound, and as something that can be made', () => {
    expect(family.faults(unit)).toEqual([]);
    expect(made.problems).toEqual([]);
  });
  it('keeps its boards in the room, and under the roof', () => {
    for (const board of made.skeleton?.boards ?? []) {
      const { low, high } = boardBox(board);
      expect(low[0], board.name).toBeGreaterThanOrEqual(-0.01);
      expect(high[0], board.name).toBeLessThanOrEqual(room.length + 0.01);
      expect(low[2], board.name).toBeGreaterThanOrEqual(room.floor - 0.01);
      // no board is higher than the roof over the middle, nor further out than the widest wall with what is left on
      expect(high[2], board.name).toBeLessThanOrEqual(roofHeight(room, 0, 0) + 0.01);
      expect(Math.max(-low[1], high[1]), board.name).toBeLessThanOrEqual(halfWidth(room, 'left', 0, 740) + 21);
      expect(outlineArea(board.outline), board.name).toBeGreaterThan(0);
    }
  });
  it('keeps each corner of its boards under the roof there, less what is left on to be scribed', () => {
    for (const { name, normal, at, thickness, outline, edges } of made.skeleton?.boards ?? []) {
      const left = Math.max(0, ...edges.map(({ allowance }) => allowance));
      for (const [p, q] of outline.outer)
        for (const face of [at, at + thickness]) {
          const [x, y, z] = normal === 'x' ? [face, p, q] : normal === 'y' ? [p, face, q] : [p, q, face];
          // square to the roof, which falls by 8 in 72 at most
          expect(z - roofHeight(room, x, y), `${name} at ${x} ${y} ${z}`).toBeLessThanOrEqual(1.08 * left + 0.5);
        }
    }
  });
  it('has one name for each board and each motion, and parts for all of its boards', () => {
    const names = (made.skeleton?.boards ?? []).map(({ name }) => name);
    expect(new Set(names).size).toBe(names.length);
    expect(made.parts.map(({ id }) => id)).toEqual(names.map((name) => `u.${name}`));
    const motions = (made.skeleton?.motions ?? []).map(({ of }) => of);
    expect(new Set(motions).size).toBe(motions.length);
    for (const of of motions) expect(of.startsWith('u.')).toBe(true);
  });
  it('is joined together, or stands on the floor or at a wall with every piece of it', () => {
    const fixed = (made.skeleton?.boards ?? []).filter(({ moves, held }) => moves === undefined && held === 'fixed');
    const groups = new Map(fixed.map(({ name }) => [name, name]));
    const groupOf = (name: string): string => {
      const next = groups.get(name) ?? name;
      return next === name ? name : groupOf(next);
    };
    for (const { a, b } of made.skeleton?.contacts ?? [])
      if (groups.has(a) && groups.has(b)) groups.set(groupOf(a), groupOf(b));
    for (const group of new Set(fixed.map(({ name }) => groupOf(name)))) {
      const boxes = fixed.filter(({ name }) => groupOf(name) === group).map(boardBox);
      const held = boxes.some(({ low, high }) => {
        const wall = (side: 'left' | 'right') => halfWidth(room, side, low[0], low[2]) - 30;
        return low[2] < room.floor + 1 || -low[1] > wall('left') || high[1] > wall('right');
      });
      expect(held, group).toBe(true);
    }
  });
  it('can be put in by its noun, which is one word for the line', () => {
    expect(family.words.noun).toMatch(/^[a-z-]+$/);
    expect(idSchema.safeParse(freeUnitId([], family.words.noun).id).success).toBe(true);
    expect(freeUnitId([], 'two words').id).toBe('two-words');
  });
  it('moves from where it is shut: shut it takes its own box, open it is within what it sweeps', () => {
    for (const motion of made.skeleton?.motions ?? []) {
      const shut = standsMoved(motion, 0);
      expect(shut && [shut.z0, shut.z1]).toEqual([motion.shut.z0, motion.shut.z1]);
      const swept = sweptBy(motion);
      const open = standsMoved(motion, 1);
      if (open && motion.kind !== 'hinge') {
        const xs = swept.ring.map(([x]) => x);
        for (const [x] of open.ring) {
          expect(x).toBeGreaterThanOrEqual(Math.min(...xs) - 0.01);
          expect(x).toBeLessThanOrEqual(Math.max(...xs) + 0.01);
        }
      }
    }
  });
  it('carries boards with each of its motions, and what is taken off for one is a board of it', () => {
    const yes = Object.fromEntries(
      family.fields.filter(({ kind }) => kind === 'yes-no').map(({ name }) => [name, true]),
    );
    const low: Unit['options'] = family.id === 'table' ? { low: 300 } : {};
    for (const options of [unit.options, { ...unit.options, ...yes, ...low }]) {
      const { skeleton } = make({ ...unit, options }, room);
      for (const motion of skeleton?.motions ?? []) {
        const goes = (skeleton?.boards ?? []).flatMap((board) => goesWith('u', board, motion) ?? []);
        expect(goes.filter(({ off }) => !off).length, motion.of).toBeGreaterThan(0);
        expect(goes.filter(({ off }) => off).length, motion.of).toBe(motion.off?.length ?? 0);
      }
    }
  });
  it('is turned or moved to where it stands when it is open, without changing shape', () => {
    for (const motion of made.skeleton?.motions ?? []) {
      const stands = standsMoved(motion, 1);
      const rigid = rigidOf(motion, 1);
      expect(rigid === null).toBe(stands === null);
      if (!rigid || !stands) continue;
      const { x0, x1, y0, y1, z0, z1 } = motion.shut;
      const corners = [x0, x1].flatMap((x) => [y0, y1].flatMap((y) => [z0, z1].map((z) => movedBy(rigid, [x, y, z]))));
      const span = (i: 0 | 1 | 2) => [Math.min(...corners.map((c) => c[i])), Math.max(...corners.map((c) => c[i]))];
      const ring = boxOf(stands.ring);
      // what turns lies as far off as the board is thick, at most
      const off = motion.kind === 'slide' ? 0.01 : 41;
      for (const [found, wanted] of [
        [span(0), [ring.minX, ring.maxX]],
        [span(1), [ring.minY, ring.maxY]],
        [span(2), [stands.z0, stands.z1]],
      ] as const)
        found.forEach((value, i) => expect(Math.abs(value - (wanted[i] ?? 0)), motion.of).toBeLessThanOrEqual(off));
      // half way it is between the two, and shut it has not moved
      const shut = rigidOf(motion, 0);
      if (shut) expect(movedBy(shut, [x0, y0, z0])).toEqual([x0, y0, z0]);
    }
  });
  it('makes boards or says why not, however its figures are turned', () => {
    const lengths = family.fields.filter(({ kind, group }) => kind === 'length' && group === 'place');
    fc.assert(
      fc.property(
        fc.constantFrom(...lengths),
        fc.integer({ min: 1, max: 2400 }),
        fc.constantFrom(...lengths),
        fc.integer({ min: 1, max: 900 }),
        (one, a, other, b) => {
          const set = (to: Unit, field: typeof one, value: number): Unit =>
            value >= (field.least ?? -1e6) && value <= (field.most ?? 1e6) ? field.set(to, value) : to;
          const turned = set(set(unit, one, a), other, b);
          if (family.faults(turned).length > 0) return;
          const result = make(turned, room);
          const none = (made.skeleton?.boards.length ?? 0) === 0;
          expect(none || result.parts.length > 0 || result.problems.length > 0).toBe(true);
          for (const part of result.parts) expect(outlineArea(part.outline)).toBeGreaterThan(0);
        },
      ),
      { numRuns: 40, seed: 13 },
    );
  });
});

describe('a wash room', () => {
  const room = van();
  const family = FAMILIES.find(({ id }) => id === 'wash-room');
  const unit = family?.start(start(room));
  const withDoor = (door: string, x = 1200): Unit => {
    if (!unit) throw new Error('there are no wash rooms');
    return { ...unit, body: { ...unit.body, x }, options: { ...unit.options, door } };
  };
  const doorOf = (door: string, x?: number) => {
    const { skeleton } = make(withDoor(door, x), room);
    const board = skeleton?.boards.find(({ role }) => role === 'wash-door');
    return { skeleton, motion: skeleton?.motions?.[0], box: board && boardBox(board) };
  };
  it('has its wall over the door screwed flat to its posts, behind them', () => {
    const { skeleton } = doorOf('hinged');
    const met = (skeleton?.contacts ?? [])
      .filter(({ a, b }) => a === 'over-door' || b === 'over-door')
      .map(({ a, b, kind }) => `${a === 'over-door' ? b : a} ${kind}`)
      .sort();
    expect(met).toEqual(['end-front butt', 'end-rear butt', 'post-front face', 'post-rear face']);
  });
  it('slides its door before the posts until it is clear of its opening, to where there is room', () => {
    const [towardRear, towardFront] = [doorOf('sliding', 600), doorOf('sliding', 2400)];
    const wide = Number(unit?.options['doorWidth']);
    // it covers 20 at each side, and runs by its opening and as much
    expect((towardRear.box?.high[0] ?? 0) - (towardRear.box?.low[0] ?? 0)).toBeCloseTo(wide + 40, 6);
    expect(towardRear.motion).toMatchObject({ kind: 'slide', by: [wide + 20, 0, 0] });
    expect(towardFront.motion).toMatchObject({ kind: 'slide', by: [-wide - 20, 0, 0] });
    // in a plane of its own
    const posts = towardRear.skeleton?.boards.filter(({ role }) => role === 'wash-post').map(boardBox) ?? [];
    for (const post of posts)
      expect(
        Math.min(post.high[1], towardRear.box?.high[1] ?? 0) - Math.max(post.low[1], towardRear.box?.low[1] ?? 0),
      ).toBeLessThan(0.01);
    expect(make(withDoor('sliding'), room).hardware.map(({ item }) => item)).toContain('channel-double');
    expect(doorOf('curtain').box).toBeUndefined();
  });
});

describe('a bed', () => {
  const bedOf = (id: string, change: (unit: Unit) => Unit = (unit) => unit) => {
    const room = van();
    const family = FAMILIES.find((one) => one.id === id);
    if (!family) throw new Error(`there is no ${id}`);
    return make(change(family.start(start(room))), room);
  };
  /** What a board rests on, from its front to its rear. */
  const under = ({ skeleton }: ReturnType<typeof bedOf>, name: string): readonly string[] =>
    (skeleton?.contacts ?? []).flatMap(({ a, b, kind }) =>
      kind === 'rest' && (a === name || b === name) ? [a === name ? b : a] : [],
    );
  it.each(['bed-platform', 'bed-along', 'bed-on-rails'])('%s has each of its boards on two bearers or more', (id) => {
    const made = bedOf(id);
    const boards = (made.skeleton?.boards ?? []).filter(({ role }) => ['bed-board', 'bunk-board'].includes(role));
    expect(boards.length).toBeGreaterThan(0);
    for (const { name } of boards) expect(under(made, name).length, name).toBeGreaterThanOrEqual(2);
  });
  it('on rails has a bearer under each joint of its boards, and more between them where they are asked for', () => {
    const bearers = (count: number, boardWidth: number) =>
      (
        bedOf('bed-on-rails', (unit) => ({
          ...unit,
          body: { ...unit.body, x: 2000, length: 1350 },
          options: { ...unit.options, bearers: count, boardWidth },
        })).skeleton?.boards ?? []
      )
        .filter(({ role }) => role === 'bearer')
        .map(({ at }) => at);
    // boards of 448, 3 apart: the joints' middles at 449.5 and 900.5, under them the middle of 18
    expect(bearers(2, 620)).toEqual([2060, 2440.5, 2891.5, 3272]);
    // one board: two, or a third in the middle
    expect(bearers(2, 2000)).toEqual([2060, 3272]);
    expect(bearers(3, 2000)).toEqual([2060, 2666, 3272]);
    expect(bearers(5, 620)).toHaveLength(5);
  });
  it('along a wall spans no more than 650 from bearer to bearer, and needs some depth', () => {
    const xs = (bedOf('bed-along').skeleton?.boards ?? [])
      .filter(({ role, normal }) => normal === 'x' && ['bunk-bearer', 'bunk-end'].includes(role))
      .map(({ at }) => at)
      .sort((a, b) => a - b);
    for (const [i, at] of xs.slice(1).entries()) expect(at - (xs[i] ?? 0)).toBeLessThanOrEqual(650);
    const shallow = bedOf('bed-along', (unit) => ({ ...unit, body: { ...unit.body, front: 760 } as Unit['body'] }));
    expect(shallow.problems.map(({ said }) => said.key)).toEqual(['furniture.shallow']);
  });
});

describe('a bed that slides out', () => {
  it('stands on feet of its own front when it is out, and its rails between its ends', () => {
    const room = van();
    const family = FAMILIES.find(({ id }) => id === 'slide-out-bed');
    const made = family && make(family.start(start(room)), room);
    const boards = made?.skeleton?.boards ?? [];
    const front = boards.find(({ role }) => role === 'moving-front');
    const box = front && boardBox(front);
    const rail = boards.find(({ name }) => name === 'rail-middle');
    expect(box?.low[2]).toBe(room.floor + 5);
    // two feet of 90, and 90 high between them
    const [long, high] = [(box?.high[0] ?? 0) - (box?.low[0] ?? 0), (box?.high[2] ?? 0) - (box?.low[2] ?? 0)];
    expect(front && outlineArea(front.outline)).toBeCloseTo(90 * long + 2 * 90 * (high - 90), 3);
    const ends = (made?.skeleton?.contacts ?? []).flatMap(({ a, b, kind }) => {
      const other = a === rail?.name ? b : b === rail?.name ? a : '';
      return kind === 'butt' && other.startsWith('end-') ? [other] : [];
    });
    expect(ends.sort()).toEqual(['end-front', 'end-rear']);
  });
});

describe('a divided run', () => {
  const room = van();
  const sink = START_THINGS.find(({ id }) => id === 'sink-square');
  const cold = START_THINGS.find(({ id }) => id === 'cold-chest-25');
  if (!sink || !cold) throw new Error('the start set has a sink and a cold box');
  const kitchen: Unit = {
    ...runWith({ id: 'k', side: 'left', x: 500, length: 1800, front: 300, height: 900, toeKick: 90, top: 'birch-18' }),
    division: {
      cut: 'along',
      divider: 'board',
      sizes: ['as needed', 'as needed', { share: 1 }],
      parts: [
        { name: 'sink', holds: { kind: 'thing', thing: sink.id }, front: { kind: 'doors', count: 2, latch: true } },
        {
          name: 'cold',
          holds: { kind: 'pull-out', thing: cold.id, travel: 400, latch: true },
          front: { kind: 'none' },
        },
        { name: 'stack', holds: { kind: 'drawers', count: 3, latch: true }, front: { kind: 'none' } },
      ],
    },
  };
  const made = make(kitchen, room, [sink, cold]);
  const bays = made.skeleton?.bays ?? [];
  const widthOf = (name: string): number => {
    const bay = bays.find(({ bay: own }) => own.name === name);
    return bay ? bay.room.x1 - bay.room.x0 : NaN;
  };

  it('gives things what their sheets ask for, and the rest what is left', () => {
    expect(made.problems).toEqual([]);
    expect(widthOf('sink')).toBeCloseTo(560 + 2 * 5, 6);
    // beside it in its tray: a side of 15 and a slide of 12.7, which is more than the 20 its sheet asks for
    expect(widthOf('cold')).toBeCloseTo(340 + 2 * (15 + 12.7), 6);
    // 1800 less four boards of 15 less 570 and 395.4
    expect(widthOf('stack')).toBeCloseTo(1800 - 4 * 15 - 570 - 395.4, 6);
  });
  it('has the opening of a sink with the corners of its sheet: a round one is sawn round', () => {
    const holeOf = (radius: number) => {
      const sheet = { ...sink, cutOut: { length: 370, width: 370, radius } };
      const top = make(kitchen, room, [sheet, cold]).skeleton?.boards.find(({ name }) => name === 'top');
      const [hole] = top?.outline.holes ?? [];
      if (!hole) throw new Error('there is an opening');
      return Math.abs(ringArea(hole)) / 370 / 370;
    };
    expect(holeOf(0)).toBeCloseTo(1, 9);
    // four quarters of a circle in place of the corners
    expect(holeOf(100)).toBeCloseTo(1 - ((4 - Math.PI) * 100 * 100) / 370 / 370, 3);
    expect(holeOf(185)).toBeCloseTo(Math.PI / 4, 2);
  });
  it('has its rails notched round what hangs in a deep opening, or sawn through where too little would be left', () => {
    const hung = (width: number) => {
      const sheet = { ...sink, cutOut: { length: 300, width, radius: 20 } };
      const shallow: Unit = { ...kitchen, body: { ...kitchen.body, front: 400 } as Unit['body'] };
      const { skeleton } = make(shallow, room, [sheet, cold]);
      const rails = (skeleton?.boards ?? []).filter(({ role }) => role === 'rail');
      const [hole] = skeleton?.boards.find(({ name }) => name === 'top')?.outline.holes ?? [];
      return { rails, hole: hole && boxOf(hole) };
    };
    const whole = hung(250);
    expect(whole.rails.map(({ name }) => name)).toEqual(['rail-front', 'rail-back']);
    // until it is so deep that it does not fit the top at all
    const fitting = Array.from({ length: 40 }, (_, i) => hung(250 + 8 * i)).filter(({ hole }) => hole);
    for (const { rails, hole } of fitting) {
      if (!hole) throw new Error('there is an opening');
      // nothing of a rail is left under the opening
      for (const { outline } of rails)
        for (const [x, y] of [0.02, 0.5, 0.98].flatMap((a) =>
          [0.02, 0.5, 0.98].map((b): [number, number] => [
            hole.minX + a * (hole.maxX - hole.minX),
            hole.minY + b * (hole.maxY - hole.minY),
          ]),
        ))
          expect(isWithin([x, y], outline.outer)).toBe(false);
    }
    expect(fitting.map(({ rails }) => rails.map(({ name }) => name))).toContainEqual([
      'rail-front',
      'rail-back',
      'rail-back-2',
    ]);
  });
  it('has a cooker with an oven at its front, flush with the top, and no rail across it', () => {
    const oven = START_THINGS.find(({ id }) => id === 'cooker-oven');
    if (!oven?.cutOut) throw new Error('the start set has a cooker with an oven');
    const { skeleton } = make(
      {
        ...kitchen,
        division: {
          cut: 'along',
          divider: 'board',
          sizes: [{ share: 1 }, 'as needed', { share: 1 }],
          parts: [
            { name: 'left', holds: { kind: 'open' }, front: { kind: 'none' } },
            { name: 'oven', holds: { kind: 'thing', thing: oven.id }, front: { kind: 'none' } },
            { name: 'right', holds: { kind: 'open' }, front: { kind: 'none' } },
          ],
        },
      },
      room,
      [oven],
    );
    const [hole] = skeleton?.boards.find(({ name }) => name === 'top')?.outline.holes ?? [];
    const { minX, maxX, minY, maxY } = boxOf(hole ?? []);
    // its body begins where the carcass does, 315 out: 530 deep round an opening of 450
    expect([-maxY, -minY].map((y) => Math.round(y))).toEqual([315 + 40, 315 + 40 + 450]);
    expect(maxX - minX).toBeCloseTo(510, 6);
    const fronts = (skeleton?.boards ?? []).filter(({ name }) => name.startsWith('rail-front'));
    expect(fronts.map(({ name }) => name)).toEqual(['rail-front', 'rail-front-2']);
    const [a, b] = fronts.map(({ outline }) => boxOf(outline.outer));
    expect((b?.minX ?? 0) - (a?.maxX ?? 0)).toBeCloseTo(520 + 2 * 3, 6);
  });
  it('has levels as high as their thing needs, and takes the sum of what lies within one another', () => {
    const bay = (name: string, thing?: string) => ({
      name,
      holds: thing === undefined ? ({ kind: 'open' } as const) : ({ kind: 'thing', thing } as const),
      front: { kind: 'none' } as const,
    });
    const cut = (
      way: 'along' | 'up',
      sizes: ('as needed' | { share: number })[],
      parts: Unit['division'][],
      divider: 'board' | 'none' = 'board',
    ): Unit['division'] => ({ cut: way, divider, sizes, parts });
    const roomsOf = (division: Unit['division']) => {
      const { skeleton } = make({ ...kitchen, division }, room, [sink, cold]);
      return (name: string): [number, number] => {
        const found = skeleton?.bays?.find((one) => one.bay.name === name);
        if (!found) throw new Error(`there is no ${name}`);
        return [found.room.x1 - found.room.x0, found.room.z1 - found.room.z0];
      };
    };
    // the sink asks for 190 by its sheet, whatever the rest is
    const up = roomsOf(cut('up', [{ share: 1 }, 'as needed'], [bay('rest'), bay('basin', 'sink-square')]));
    expect(up('basin')[1]).toBeCloseTo(190, 6);
    // two things beside each other in one part: 570 and 380 wide with a board of 15 between; above each other the wider
    const both = [bay('basin', 'sink-square'), bay('box', cold.id)];
    const needs = [570, cold.width + 2 * cold.clear.side];
    const beside = roomsOf(
      cut('along', ['as needed', { share: 1 }], [cut('along', ['as needed', 'as needed'], both), bay('rest')]),
    );
    expect(beside('basin')[0] + beside('box')[0]).toBeCloseTo((needs[0] ?? 0) + (needs[1] ?? 0), 6);
    const above = roomsOf(
      cut('along', ['as needed', { share: 1 }], [cut('up', [{ share: 1 }, { share: 1 }], both), bay('rest')]),
    );
    expect(above('basin')[0]).toBeCloseTo(Math.max(...needs), 6);
  });
  it('has the sink cut out of its top behind the rail, with no rail across it', () => {
    const top = made.skeleton?.boards.find(({ name }) => name === 'top');
    const [hole] = top?.outline.holes ?? [];
    const ys = (hole ?? []).map(([, y]) => -y);
    // doors of 15, and a rail of 80
    expect(Math.min(...ys)).toBeCloseTo(300 + 15 + 80, 6);
    expect(Math.max(...ys) - Math.min(...ys)).toBeCloseTo(420, 6);
  });
  it('has drawers on slides of a stocked length, 12.7 clear on each side', () => {
    const side = made.skeleton?.boards.find(({ name }) => name === 'stack.drawer-1.side-front');
    const box = side && boardBox(side);
    const stack = bays.find(({ bay }) => bay.name === 'stack');
    expect(box?.low[0]).toBeCloseTo((stack?.room.x0 ?? 0) + 12.7, 6);
    const deep = (box?.high[1] ?? 0) - (box?.low[1] ?? 0);
    expect(deep % 50).toBeCloseTo(0, 6);
    expect(deep).toBeLessThanOrEqual(Math.min(stack?.deepLow ?? 0, stack?.deepHigh ?? 0) - 10);
    expect(made.skeleton?.motions?.filter(({ kind }) => kind === 'slide')).toHaveLength(4);
  });
  it('joins the boards of a drawer to each other and to nothing that stands still', () => {
    const moving = made.joints.filter(({ a, b }) => a.includes('drawer-1') || b.includes('drawer-1'));
    expect(moving.length).toBeGreaterThan(4);
    for (const { a, b } of moving) {
      expect(a).toContain('drawer-1');
      expect(b).toContain('drawer-1');
    }
  });
  it('cuts openings for air into its doors, of the area that is asked for', () => {
    const vented: Unit = {
      ...kitchen,
      division: {
        ...(kitchen.division as Extract<Unit['division'], { cut: string }>),
        parts: (kitchen.division as Extract<Unit['division'], { cut: string }>).parts.map((part) =>
          'name' in part && part.name === 'sink' ? { ...part, vents: { low: 80, high: 60 } } : part,
        ),
      },
    };
    const doors = (make(vented, room, [sink, cold]).skeleton?.boards ?? []).filter(({ role }) => role === 'door');
    const holes = doors.flatMap(({ outline }) => outline.holes.map((outer) => outlineArea({ outer, holes: [] }) / 100));
    expect(holes.reduce((sum, area) => sum + area, 0)).toBeCloseTo(140, 6);
  });
  it('that is too small for its drawers says so at the bay', () => {
    const narrow = make({ ...kitchen, body: { ...kitchen.body, length: 1090 } as Unit['body'] }, room, [sink, cold]);
    expect(narrow.problems.map(({ said, place }) => [said.key, place])).toEqual([['furniture.drawerSmall', 'k.stack']]);
  });
  it('stands over an arch when it is notched, and is cut round it', () => {
    const arch = {
      id: 'a',
      name: 'arch',
      side: 'left' as const,
      kind: 'arch' as const,
      shape: 'box' as const,
      from: 1000,
      to: 1600,
      height: 260,
      face: 700,
      bottom: 0,
      topFace: 700,
      far: null,
    };
    const notched: Unit = { ...kitchen, options: { ...kitchen.options, overArch: true } };
    const cut = makeUnit(notched, { inner: room, arches: [arch], book, things: [sink, cold] }, FAMILIES, SCHOOLS);
    const area = (of: typeof made, name: string): number =>
      outlineArea(of.skeleton?.boards.find((board) => board.name === name)?.outline ?? { outer: [], holes: [] });
    expect(area(cut, 'bottom')).toBeLessThan(area(made, 'bottom') - 100_000);
    expect(area(cut, 'end-front')).toBeCloseTo(area(made, 'end-front'), 3);
  });
});

describe('the start set of things', () => {
  it('is at least thirty, each of its own name, with sizes that can be', () => {
    expect(START_THINGS.length).toBeGreaterThanOrEqual(30);
    expect(new Set(START_THINGS.map(({ id }) => id)).size).toBe(START_THINGS.length);
    for (const { width, depth, height, mass, cutOut } of START_THINGS) {
      for (const size of [width, depth, height]) expect(size).toBeGreaterThan(40);
      expect(mass).toBeGreaterThan(0.5);
      if (cutOut) expect(cutOut.length).toBeLessThanOrEqual(Math.max(width, depth));
    }
  });
});
