import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import type { Bay, Division, Unit } from '../document/schema.js';
import { monotoneCurve } from '../numeric/curve.js';
import { ringArea } from '../numeric/plane.js';
import { makeShell, type Shell } from '../shell/shell.js';
import { startPriceBook } from '../materials/start-book.js';
import { movableDividers } from './division.js';
import { FAMILIES } from './families/index.js';
import { boardBox, type Skeleton } from './skeleton.js';
import { runWith } from './units.fixture.js';

const book = startPriceBook();
/** Upright walls 900 from the centre line, or leaning in by so much over 1000 of height; roof at 1900; 3000 long. */
function room(leans = 0): Shell {
  const wall = monotoneCurve([0, 1900], [900, 900 - 1.9 * leans]);
  const roof = monotoneCurve([-900, 0, 900], [1900, 1900, 1900]);
  return makeShell(
    3000,
    0,
    [0, 3000].map((x) => ({ x, left: wall, right: wall, roof })),
  );
}
const bay = (name: string, more: Partial<Bay> = {}): Bay => ({
  name,
  holds: { kind: 'open' },
  front: { kind: 'none' },
  ...more,
});
const cupboard = runWith({
  id: 'cup',
  side: 'right',
  x: 500,
  length: 1000,
  front: 385,
  height: 900,
  toeKick: 90,
  shelves: 1,
  doors: 2,
  top: 'birch-18',
});
const divided = (division: Division): Unit => ({ ...cupboard, division });
const made = (division: Division, inner = room()): Skeleton => {
  const family = FAMILIES.find(({ id }) => id === cupboard.family);
  if (!family) throw new Error('there are no cupboards');
  return family.skeleton(divided(division), { inner, arches: [], book, things: [] });
};
const roomOf = (skeleton: Skeleton, name: string) => {
  const found = skeleton.bays?.find((own) => own.bay.name === name);
  if (!found) throw new Error(`${name} is not there`);
  return found;
};
const boardOf = (skeleton: Skeleton, name: string) => {
  const found = skeleton.boards.find((own) => own.name === name);
  if (!found) throw new Error(`${name} is not there: ${skeleton.boards.map((own) => own.name).join(', ')}`);
  return found;
};
const keys = (skeleton: Skeleton): string[] => skeleton.problems.map(({ said }) => said.key);

describe('bays behind each other', () => {
  // doors 15 thick before 385: the carcass begins at 400 and is free to 895, 5 before the wall: 495 deep
  const halves: Division = {
    cut: 'deep',
    divider: 'board',
    sizes: [{ share: 1 }, 150],
    parts: [bay('store', { holds: { kind: 'shelves', count: 1 }, front: { kind: 'doors', count: 1 } }), bay('duct')],
  };
  it('share what is between the face and the wall, less the board between them', () => {
    const skeleton = made(halves);
    expect(skeleton.problems).toEqual([]);
    const thick = boardOf(skeleton, 'duct.inner-back').thickness;
    const [front, back] = [roomOf(skeleton, 'store'), roomOf(skeleton, 'duct')];
    expect(front.deepLow).toBeCloseTo(495 - 150 - thick, 6);
    expect([front.room.y0, front.room.y1].map(Math.round)).toEqual([400, Math.round(745 - thick)]);
    expect(back.deepLow).toBeCloseTo(150, 6);
    expect(back.behind).toBeCloseTo(345, 6);
    expect(front.behind).toBeUndefined();
    expect([back.room.y0, back.room.y1]).toEqual([745, 895]);
    const between = boardBox(boardOf(skeleton, 'duct.inner-back'));
    expect([between.low[1], between.high[1]]).toEqual([745 - thick, 745]);
  });
  it('have shelves that end at the board, and fronts only at the face', () => {
    const skeleton = made(halves);
    const thick = boardOf(skeleton, 'duct.inner-back').thickness;
    expect(boardBox(boardOf(skeleton, 'store.shelf-1')).high[1]).toBeCloseTo(745 - thick, 6);
    expect(skeleton.motions?.map(({ of }) => of)).toEqual(['cup.store.door-1']);
    // the board between stands on the bottom and between the ends
    const touched = skeleton.contacts.filter(({ a, b }) => [a, b].includes('duct.inner-back'));
    expect(touched.map(({ a, b }) => (a === 'duct.inner-back' ? b : a)).sort()).toEqual(
      ['bottom', 'end-front', 'end-rear', 'store.shelf-1'].sort(),
    );
  });
  it('are got at by a panel that comes off, with the openings for air cut in it', () => {
    const panel = bay('duct', { front: { kind: 'panel' }, vents: { low: 50, high: 50 } });
    const skeleton = made({ ...halves, parts: [bay('store'), panel] });
    const board = boardOf(skeleton, 'duct.panel');
    expect(board.held).toBe('loose');
    // 50 cm2 low and as much high
    expect(board.outline.holes.map((hole) => Math.round(Math.abs(ringArea(hole))))).toEqual([5000, 5000]);
  });
  it('a frame has an opening with 60 round it; one too small for that is told', () => {
    const skeleton = made({ ...halves, divider: 'frame' });
    const board = boardOf(skeleton, 'duct.inner-back');
    const [wide, high] = [
      boardBox(board).high[0] - boardBox(board).low[0],
      boardBox(board).high[2] - boardBox(board).low[2],
    ];
    expect(Math.abs(ringArea(board.outline.holes[0] ?? []))).toBeCloseTo((wide - 120) * (high - 120), 3);
    const narrow = made({
      cut: 'up',
      divider: 'board',
      sizes: [{ share: 1 }, 150],
      parts: [bay('low'), { ...halves, divider: 'frame' }],
    });
    expect(keys(narrow)).toEqual(['furniture.noFrame']);
  });
  it('uprights may be frames too, and nothing between takes no room', () => {
    const along = (divider: 'frame' | 'none'): Skeleton =>
      made({ cut: 'along', divider, sizes: [{ share: 1 }, { share: 1 }], parts: [bay('a'), bay('b')] });
    expect(boardOf(along('frame'), 'b.upright').outline.holes).toHaveLength(1);
    const free = along('none');
    expect(free.boards.some(({ name }) => name === 'b.upright')).toBe(false);
    expect(roomOf(free, 'a').room.x1).toBe(roomOf(free, 'b').room.x0);
    const deep = made({ ...halves, divider: 'none' });
    expect(roomOf(deep, 'store').deepLow).toBeCloseTo(345, 6);
  });
  it('what swings or slides behind another bay, and what has no depth left, is told at its place', () => {
    const swings = made({
      ...halves,
      parts: [bay('store'), bay('duct', { front: { kind: 'flap-down', latch: true } })],
    });
    expect(swings.problems.map(({ place, said }) => [place, said.key])).toEqual([['cup.duct', 'furniture.behind']]);
    expect(swings.boards.some(({ name }) => name === 'duct.flap')).toBe(false);
    expect(keys(made({ ...halves, sizes: [{ share: 1 }, 600] }))).toEqual(['furniture.division']);
    expect(keys(made({ ...halves, sizes: [{ share: 1 }, 470] }))).toEqual(['furniture.tinyBay']);
  });
  it('at a wall that leans in, the one behind is less deep at its head', () => {
    const back = roomOf(made(halves, room(100)), 'duct');
    expect(back.deepLow).toBeGreaterThan(back.deepHigh);
    expect(back.deepHigh).toBeGreaterThanOrEqual(150 - 1);
  });
  it('are divided further: an upright in the one behind begins there', () => {
    const skeleton = made({
      ...halves,
      parts: [
        bay('store'),
        { cut: 'along', divider: 'board', sizes: [{ share: 1 }, 300], parts: [bay('tank'), bay('pump')] },
      ],
    });
    const upright = boardBox(boardOf(skeleton, 'pump.upright'));
    expect([upright.low[1], upright.high[1]].map(Math.round)).toEqual([745, 895]);
    expect(movableDividers(divided(halves).division)).toEqual([
      { board: 'duct.inner-back', cut: 'deep', bay: 'store', outward: 0, own: ['store'], grows: 1, others: ['duct'] },
    ]);
  });
  it('boards have names of their own and no bay overlaps another, however it is cut', () => {
    const names = 'abcdefghijklmnop';
    const cut = (depth: number): fc.Arbitrary<Division> =>
      depth === 0
        ? fc
            .record({ front: fc.constantFrom({ kind: 'none' as const }, { kind: 'panel' as const }) })
            .map((own) => bay('', own))
        : fc.oneof(
            cut(0),
            fc
              .record({
                cut: fc.constantFrom('along' as const, 'up' as const, 'deep' as const),
                divider: fc.constantFrom('board' as const, 'frame' as const, 'none' as const),
                parts: fc.tuple(cut(depth - 1), cut(depth - 1)),
              })
              .map((own): Division => ({ ...own, sizes: [{ share: 1 }, { share: 1 }] })),
          );
    const named = (division: Division, next: { at: number }): Division =>
      'cut' in division
        ? { ...division, parts: division.parts.map((part) => named(part, next)) }
        : { ...division, name: names[next.at++] ?? 'z' };
    fc.assert(
      fc.property(cut(3), (drawn) => {
        const skeleton = made(named(drawn, { at: 0 }));
        const own = skeleton.boards.map(({ name }) => name);
        expect(new Set(own).size).toBe(own.length);
        const bays = skeleton.bays ?? [];
        bays.forEach((a, i) =>
          bays.slice(i + 1).forEach((b) => {
            const apart = (['x', 'y', 'z'] as const).some(
              (axis) =>
                a.room[`${axis}0`] >= b.room[`${axis}1`] - 1e-6 || b.room[`${axis}0`] >= a.room[`${axis}1`] - 1e-6,
            );
            expect(apart, `${a.bay.name} and ${b.bay.name}`).toBe(true);
          }),
        );
      }),
      { seed: 11, numRuns: 150 },
    );
  });
});
