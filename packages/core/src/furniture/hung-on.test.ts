import { describe, expect, it } from 'vitest';
import type { Bay, Division, PriceBook, Thing } from '../document/schema.js';
import { monotoneCurve } from '../numeric/curve.js';
import { startPriceBook } from '../materials/start-book.js';
import { makeShell } from '../shell/shell.js';
import { FAMILIES } from './families/index.js';
import type { DoorMotion } from './motions.js';
import type { Skeleton } from './skeleton.js';
import { START_THINGS } from './start-things.js';
import { runWith } from './units.fixture.js';

const wall = monotoneCurve([0, 1900], [900, 900]);
const roof = monotoneCurve([-900, 0, 900], [1900, 1900, 1900]);
const inner = makeShell(
  3000,
  0,
  [0, 3000].map((x) => ({ x, left: wall, right: wall, roof })),
);
const bay = (name: string, more: Partial<Bay> = {}): Bay => ({
  name,
  holds: { kind: 'open' },
  front: { kind: 'none' },
  ...more,
});
const doors = (count: number): Bay['front'] => ({ kind: 'doors', count, latch: true });
const two = (
  cut: 'along' | 'up',
  divider: 'board' | 'frame' | 'none',
  front: Partial<Bay>,
  other: Partial<Bay> = {},
): Division => ({
  cut,
  divider,
  sizes: [{ share: 1 }, { share: 1 }],
  parts: [bay('a', front), bay('b', other)],
});

function made(
  division: Division,
  carcass = 'birch-15',
  facing = carcass,
  book: PriceBook = startPriceBook(),
): Skeleton {
  const unit = {
    ...runWith({ id: 'cup', side: 'right', x: 500, length: 1000, front: 385, height: 900, carcass, facing }),
    division,
  };
  const family = FAMILIES.find(({ id }) => id === unit.family);
  if (!family) throw new Error('no family');
  return family.skeleton(unit, { inner, arches: [], book, things: START_THINGS });
}
const told = (skeleton: Skeleton): readonly string[] =>
  skeleton.problems.map(({ place, said }) => `${place} ${said.key}`);
const axes = (skeleton: Skeleton): readonly number[] =>
  (skeleton.motions ?? [])
    .filter((motion): motion is DoorMotion => motion.kind === 'hinge' && motion.about === 'z')
    .map(({ at }) => at[0]);

describe('a hinged front', () => {
  it('hangs on the ends of its bay: one or two doors do, a third has no upright to hang on', () => {
    expect(told(made(bay('a', { front: doors(1) })))).toEqual([]);
    expect(told(made(bay('a', { front: doors(2) })))).toEqual([]);
    expect(told(made(bay('a', { front: doors(3) })))).toEqual(['cup.a furniture.doorHangs']);
    expect(told(made(bay('a', { front: doors(4) })))).toEqual(['cup.a furniture.doorHangs']);
    // of two bays with a board between them each has its own two
    expect(told(made(two('along', 'board', { front: doors(2) }, { front: doors(2) })))).toEqual([]);
    expect(told(made(two('along', 'frame', { front: doors(2) }, { front: doors(2) })))).toEqual([]);
  });
  it('hangs at the other end where only that has a board, and a pair there on nothing', () => {
    const open = made(two('along', 'none', { front: doors(1) }, { front: doors(1) }));
    expect(told(open)).toEqual([]);
    // both at the ends of the cupboard: 3 within 500 and 1500
    expect(axes(open)).toEqual([503, 1497]);
    expect(axes(made(two('along', 'board', { front: doors(1) }, { front: doors(1) })))).toEqual([503, 1001.5]);
    expect(told(made(two('along', 'none', { front: doors(2) }, { front: doors(1) })))).toEqual([
      'cup.a furniture.doorHangs',
    ]);
  });
  it('that turns about a level axis hangs on a board at its foot or its head', () => {
    const flaps = (divider: 'board' | 'none') =>
      told(
        made(
          two(
            'up',
            divider,
            { front: { kind: 'lift-up', latch: true } },
            { front: { kind: 'flap-down', latch: true } },
          ),
        ),
      );
    expect(flaps('board')).toEqual([]);
    expect(flaps('none')).toEqual(['cup.a furniture.flapHangs', 'cup.b furniture.flapHangs']);
    const outer = two(
      'up',
      'none',
      { front: { kind: 'flap-down', latch: true } },
      { front: { kind: 'lift-up', latch: true } },
    );
    expect(told(made(outer))).toEqual([]);
  });
});

describe('sliding panels', () => {
  it('run in channels on the boards under and over them', () => {
    const front: Bay['front'] = { kind: 'sliding', latch: true };
    expect(told(made(bay('a', { front })))).toEqual([]);
    expect(told(made(two('up', 'board', { front }, { front })))).toEqual([]);
    expect(told(made(two('up', 'none', { front })))).toEqual(['cup.a furniture.slidingHangs']);
  });
});

describe('what a bay holds between its ends', () => {
  it.each<[string, Bay['holds']]>([
    ['shelves', { kind: 'shelves', count: 2 }],
    ['drawers', { kind: 'drawers', count: 2, latch: true }],
    ['a tray', { kind: 'pull-out', thing: null, travel: 300, latch: true }],
    ['a rail along it', { kind: 'rail', along: 'bay' }],
  ])('%s: is held at both of them, or told', (_, holds) => {
    expect(told(made(two('along', 'board', { holds })))).toEqual([]);
    expect(told(made(two('along', 'none', { holds })))).toEqual(['cup.a furniture.oneEnd']);
    expect(told(made(two('up', 'none', { holds })))).toEqual([]);
  });
  it('stands on a board, or hangs in the top', () => {
    const [sink, cold] = [
      START_THINGS.find(({ cutOut }) => cutOut),
      START_THINGS.find(({ kind }) => kind === 'cold-box'),
    ];
    const over = (divider: 'board' | 'none', thing: Thing | undefined) =>
      told(made(two('up', divider, {}, { holds: { kind: 'thing', thing: thing?.id ?? '' } })));
    expect(over('none', sink)).not.toContain('cup.b furniture.onNothing');
    expect(over('none', cold)).toContain('cup.b furniture.onNothing');
    expect(over('board', cold)).not.toContain('cup.b furniture.onNothing');
  });
  it('a rail from front to back needs no ends', () => {
    expect(told(made(two('along', 'none', { holds: { kind: 'rail', along: 'depth' } })))).toEqual([]);
  });
  it('slides out past its doors, which stand square to the front by their thickness', () => {
    const holds: Bay['holds'] = { kind: 'drawers', count: 2, latch: true };
    const behind = (carcass: string, facing: string) =>
      made(two('along', 'board', { holds, front: doors(2) }), carcass, facing);
    expect(told(behind('birch-15', 'birch-15'))).toEqual([]);
    // a door of 18 on the middle of an upright of 9 reaches 1.5 + 18 past the middle; the drawer begins at 4.5 + 12.7
    const [problem] = behind('birch-9', 'birch-18').problems;
    expect(problem?.said.key).toBe('furniture.slideDoor');
    expect(problem?.said.params['by']).toMatchObject({ mm: expect.closeTo(1.5 + 18 - 4.5 - 12.7, 6) as number });
  });
});
