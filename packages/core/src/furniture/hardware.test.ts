import { describe, expect, it } from 'vitest';
import type { PriceBook, Stored, Thing } from '../document/schema.js';
import type { Bay, Unit } from '../document/unit-schema.js';
import { startPriceBook } from '../materials/start-book.js';
import { monotoneCurve } from '../numeric/curve.js';
import { cupRule, handsRule, hingesRule, slideRule, strutRule } from '../rules/hardware.js';
import type { SolidBox } from '../rules/room.js';
import type { ArchShape } from '../shell/arch.js';
import { makeShell } from '../shell/shell.js';
import { FAMILIES } from './families/index.js';
import { partition } from './families/partition.js';
import { makeUnit } from './make.js';
import { SCHOOLS } from './schools/index.js';
import { boardBox } from './skeleton.js';
import { START_THINGS } from './start-things.js';
import { runWith } from './units.fixture.js';

const book = startPriceBook();
const wall = monotoneCurve([0, 1900], [900, 900]);
const roof = monotoneCurve([-900, 900], [1900, 1900]);
const room = makeShell(
  3000,
  0,
  [0, 3000].map((x) => ({ x, left: wall, right: wall, roof })),
);
const make = (unit: Unit, from: PriceBook = book, things: readonly Thing[] = []) =>
  makeUnit(unit, { inner: room, arches: [], book: from, things }, FAMILIES, SCHOOLS);
const bought = (unit: Unit, from: PriceBook = book, things: readonly Thing[] = []): Record<string, number> =>
  Object.fromEntries(
    make(unit, from, things)
      .hardware.filter(({ item }) => !/^screws|glue/.test(item))
      .map(({ item, amount }) => [item, Math.round(amount * 1000) / 1000]),
  );
/** A run 600 long, 400 deep, 900 high, of one bay. */
const run = (bay: Pick<Bay, 'holds' | 'front'>): Unit => ({
  ...runWith({ id: 'k', side: 'left', x: 500, length: 600, front: 480, height: 900 }),
  division: { name: 'bay', ...bay },
});

describe('the rules of hardware', () => {
  it('hang a door on two hinges up to 900 and 7 kg, on three up to 1600 and 14 kg', () => {
    expect(hingesRule.run({ length: 900, mass: 7 }).count).toBe(2);
    expect(hingesRule.run({ length: 901, mass: 3 }).count).toBe(3);
    expect(hingesRule.run({ length: 700, mass: 7.1 }).count).toBe(3);
    expect(hingesRule.run({ length: 1600, mass: 14 }).count).toBe(3);
    expect(hingesRule.run({ length: 1700, mass: null }).count).toBe(4);
  });
  it('carry a door of 4 kg by two struts of 56 N', () => {
    // 4 x 9.81 x 200 / (2 x 160 x 0.5) x 1.15 = 56.4
    expect(strutRule.run({ height: 400, mass: 4 }).newtons).toBeCloseTo(56.4, 1);
  });
  it('bore no cup into a door that is no 14.5 thick', () => {
    expect(cupRule.run({ thickness: 15 })).toEqual({ left: 2.5, takes: true });
    expect(cupRule.run({ thickness: 12 })).toEqual({ left: -0.5, takes: false });
  });
  it('give one person 15 kg of what is held: all of what is lifted, half of what is turned, hardly any of what runs', () => {
    const hands = (how: 'lifted' | 'turned' | 'slid' | 'runs' | 'hung', mass: number | null, length = 900) =>
      handsRule.run({ how, mass, length });
    expect(hands('lifted', 15)).toEqual({ held: 15, hands: 1 });
    expect(hands('lifted', 15.1).hands).toBe(2);
    expect(hands('turned', 30)).toEqual({ held: 15, hands: 1 });
    expect(hands('turned', 31).hands).toBe(2);
    expect(hands('slid', 40)).toEqual({ held: 12, hands: 1 });
    expect(hands('slid', 51).hands).toBe(2);
    expect(hands('runs', 100)).toEqual({ held: 5, hands: 1 });
    // a long board by its length, whatever it weighs; what hinges carry by nobody's strength
    expect([hands('lifted', 6, 1800).hands, hands('lifted', 6, 1801).hands]).toEqual([1, 2]);
    expect(hands('hung', null)).toEqual({ held: 0, hands: 1 });
    expect(hands('lifted', null)).toEqual({ held: null, hands: null });
    expect(hands('lifted', null, 1900)).toEqual({ held: null, hands: 2 });
  });
  it('rate slides by three quarters', () => expect(slideRule.run({ mass: 30 }).rated).toBe(40));
});

describe('what a unit hangs and runs on', () => {
  it('is hinges and catches for its doors, and no catch where none is asked for', () => {
    expect(bought(run({ holds: { kind: 'open' }, front: { kind: 'doors', count: 2, latch: true } }))).toEqual({
      'hinge-cup-35': 4,
      'catch-push': 2,
    });
    expect(bought(run({ holds: { kind: 'open' }, front: { kind: 'doors', count: 1 } }))).toEqual({ 'hinge-cup-35': 2 });
  });
  it('is butt hinges where a door is too thin for a cup', () => {
    const thin: Unit = {
      ...run({ holds: { kind: 'open' }, front: { kind: 'doors', count: 2 } }),
      materials: { carcass: 'birch-15', facing: 'poplar-12', top: 'birch-15' },
    };
    expect(bought(thin)).toEqual({ 'hinge-butt-60': 4 });
  });
  it('is not screwed into an edge that even the thinnest screws split', () => {
    const told = (carcass: string) =>
      make({
        ...run({ holds: { kind: 'open' }, front: { kind: 'none' } }),
        materials: { carcass, facing: 'birch-15', top: 'birch-15' },
      }).problems.map(({ said }) => said.key);
    // 3.5 is 0.39 of 9, and 0.7 of 5
    expect(told('birch-9')).not.toContain('furniture.thinEdge');
    expect(told('poplar-5')).toContain('furniture.thinEdge');
  });
  it('is a pair of slides of the drawer’s own length for each drawer', () => {
    const unit = run({ holds: { kind: 'drawers', count: 3, latch: true }, front: { kind: 'none' } });
    const made = make(unit);
    const side = made.parts.find(({ id }) => id === 'k.bay.drawer-1.side-front');
    // 900 - 480 - 15 of facing - 10 behind = 395: the next shorter is 350
    expect(Math.max(...(side?.outline.outer ?? []).map(([x]) => x))).toBeCloseTo(350);
    expect(bought(unit)).toEqual({ 'slides-350': 3, 'catch-push': 3 });
  });
  it('is slides that bear what is kept in the drawers, shared by them, and never less than the heaviest piece', () => {
    const unit = run({ holds: { kind: 'drawers', count: 2, latch: true }, front: { kind: 'none' } });
    const goods = (mass: number, count: number): Stored => ({
      id: 'g',
      name: 'Irons',
      length: 200,
      width: 150,
      height: 60,
      mass,
      count,
      turns: false,
      kept: { unit: unit.id, bay: 'bay' },
    });
    const bears = (stored: readonly Stored[]): number => {
      const made = makeUnit(unit, { inner: room, arches: [], book, things: START_THINGS, stored }, FAMILIES, SCHOOLS);
      const [item] = made.hardware.map(({ item: id }) => id).filter((id) => id.startsWith('slides'));
      const wanted = made.problems.flatMap(({ said }) =>
        said.key === 'hardware.none.slides' ? [Number(said.params['bears'])] : [],
      );
      return book.items.find(({ id }) => id === item)?.hardware?.bears ?? wanted[0] ?? NaN;
    };
    // 30 of them at 2 in two drawers are 30 in each: more than slides of 30 bear with the drawer itself
    expect(bears([goods(2, 30)])).toBeGreaterThan(30);
    expect(bears([goods(2, 30)])).toBeGreaterThan(bears([]));
    // one piece of 40 is in one of them
    expect(bears([goods(40, 1)])).toBeGreaterThan(40);
    // what is kept elsewhere is nothing to it
    expect(bears([{ ...goods(2, 30), kept: { unit: 'other', bay: 'bay' } }])).toBe(bears([]));
  });
  it('sets the carcass back by both sliding panels and their play, so that none stands in it', () => {
    const made = make(run({ holds: { kind: 'open' }, front: { kind: 'sliding', latch: true } }));
    const box = (name: string) => {
      const board = made.skeleton?.boards.find((own) => own.name === name);
      if (!board) throw new Error(name);
      return boardBox(board);
    };
    const [one, two, end] = [box('bay.sliding-1'), box('bay.sliding-2'), box('end-front')];
    const deep = (at: typeof one): readonly number[] =>
      [Math.abs(at.low[1]), Math.abs(at.high[1])].sort((a, b) => a - b);
    // from the way to the wall: the outer panel, play, the inner one, play, the carcass
    expect((deep(two)[0] ?? 0) - (deep(one)[1] ?? 0)).toBeCloseTo(1, 6);
    expect((deep(end)[0] ?? 0) - (deep(two)[1] ?? 0)).toBeCloseTo(1, 6);
    expect(deep(one)[0]).toBeCloseTo(480, 6);
  });
  it('is a pair of slides under a tray that slides out: as long as fit under it, that bear it with its load', () => {
    const family = FAMILIES.find(({ id }) => id === 'rack');
    if (!family) throw new Error('there are racks');
    const tray = family.start({ id: 'u', name: 'U', layout: { units: [] }, people: [], room, book });
    const body = { ...tray.body, length: 700, width: 600, y: 0 } as typeof tray.body;
    const slides = (load: number, from = book) => {
      const { hardware, problems } = make(
        { ...tray, body, options: { ...tray.options, opens: 'right', slides: true, load } },
        from,
      );
      return {
        bought: hardware.filter(({ item }) => item.startsWith('slides')),
        said: problems.flatMap(({ said }) => (said.key === 'hardware.none.slides' ? [said.params] : [])),
      };
    };
    expect(make({ ...tray, body }).hardware.some(({ item }) => item.startsWith('slides'))).toBe(false);
    // drawn out by 0.8 x 600 = 480: slides from 480 to 600
    const light = slides(5).bought.map(({ item, amount }) => [item, amount]);
    expect(light).toEqual([['slides-600', 1]]);
    expect(slides(40).bought.map(({ item }) => item)).toEqual(['slides-heavy-600']);
    const short = { ...book, items: book.items.filter(({ id }) => !/^slides-(heavy-)?(5\d0|6\d0)$/.test(id)) };
    expect(slides(5, short).bought.every(({ item }) => Number(/\d+$/.exec(item)?.[0]) >= 480)).toBe(true);
    const { bought: none, said } = slides(900);
    expect(none).toEqual([]);
    expect(said).toHaveLength(1);
    expect(said[0]).toMatchObject({ length: { mm: 480 } });
  });
  it('takes heavier slides for a heavy thing, and says so where there are none', () => {
    const things = START_THINGS.map((thing) => (thing.kind === 'cold-box' ? { ...thing, mass: 40, holds: 15 } : thing));
    const cold = things.find(({ kind }) => kind === 'cold-box');
    const unit: Unit = {
      ...run({
        holds: { kind: 'pull-out', travel: 400, thing: cold?.id ?? '', latch: false },
        front: { kind: 'none' },
      }),
      body: { stands: 'left', x: 500, length: 900, front: 350, from: 0, to: 900 },
    };
    expect(Object.keys(bought(unit, book, things))).toEqual(['slides-heavy-500']);
    const light: PriceBook = { ...book, items: book.items.filter(({ id }) => !id.startsWith('slides-heavy')) };
    const { problems, hardware } = make(unit, light, things);
    expect(hardware.some(({ item }) => item.startsWith('slides'))).toBe(false);
    // the tray of 15 mm board weighs over 9 kg: (55 + tray) / 0.75
    const said = problems.find(({ said: { key } }) => key === 'hardware.none.slides')?.said;
    expect(Number(said?.params['bears'])).toBeGreaterThan(74);
    expect(said?.params['length']).toEqual({ mm: 500 });
  });
  it('is made as long as slides that bear it are stocked: shorter than it could be, where only shorter ones do', () => {
    const cold = START_THINGS.find(({ kind }) => kind === 'cold-box');
    const things = START_THINGS.map((thing) => (thing.id === cold?.id ? { ...thing, mass: 40, holds: 15 } : thing));
    const unit: Unit = {
      ...run({
        holds: { kind: 'pull-out', travel: 400, thing: cold?.id ?? '', latch: false },
        front: { kind: 'none' },
      }),
      // 900 - 200 - 15 - 5 - 10: 650 would fit, and of 650 this book has only light ones
      body: { stands: 'left', x: 500, length: 900, front: 200, from: 0, to: 900 },
    };
    const few: PriceBook = { ...book, items: book.items.filter(({ id }) => id !== 'slides-heavy-650') };
    expect(make(unit, few, things).problems).toEqual([]);
    expect(bought(unit, few, things)).toEqual({ 'slides-heavy-600': 1 });
  });
  it('buys slides and struts too for boards whose density is not known', () => {
    const unknown: PriceBook = { ...book, items: book.items.map((item) => ({ ...item, density: 0 })) };
    const drawer = run({ holds: { kind: 'drawers', count: 1, latch: false }, front: { kind: 'none' } });
    expect(bought(drawer, unknown)).toEqual({ 'slides-350': 1 });
    const lift = run({ holds: { kind: 'open' }, front: { kind: 'lift-up', latch: false } });
    expect(bought(lift, unknown)).toEqual({ 'hinge-cup-35': 2, 'strut-30': 2 });
  });
  it('runs two panels in one double channel, over and under', () => {
    // the front is 594 long, with 3 at each end: twice that
    expect(bought(run({ holds: { kind: 'open' }, front: { kind: 'sliding', latch: false } }))).toEqual({
      'channel-double': 1.188,
    });
  });
  it('makes drawers as long as the book has slides for, and names what a book has nothing of', () => {
    const some: PriceBook = {
      ...book,
      items: book.items.filter(({ id }) => id === 'slides-300' || !/^(slides|hinge)/.test(id)),
    };
    expect(bought(run({ holds: { kind: 'drawers', count: 1, latch: false }, front: { kind: 'none' } }), some)).toEqual({
      'slides-300': 1,
    });
    const doors = make(run({ holds: { kind: 'open' }, front: { kind: 'doors', count: 1 } }), some);
    expect(doors.problems.map(({ said }) => said.key)).toEqual(['hardware.none.cup-hinge']);
  });
});

describe('the door of a partition', () => {
  const of = (door: string): Unit => {
    const unit = partition.start({ id: 'p', name: 'P', layout: { units: [] }, people: [], room, book });
    return { ...unit, options: { ...unit.options, door } };
  };
  it('is a part of its own, with hinges or a channel', () => {
    const leaf = (door: string) => make(of(door)).parts.find(({ id }) => id === 'p.door');
    expect(leaf('open')).toBeUndefined();
    const hinged = leaf('hinged');
    // 600 less 3 at each side
    expect(Math.max(...(hinged?.outline.outer ?? []).map(([, y]) => y))).toBeCloseTo(594);
    expect(bought(of('hinged'))).toEqual({ 'hinge-butt-60': 4, 'catch-push': 1 });
    // 640 wide, slid by 620, when it is clear of its opening: 1260, twice
    expect(bought(of('sliding'))).toEqual({ 'channel-double': 2.52, 'catch-push': 1 });
  });
  it('slides before the board beside it, to the side with the wall farther off', () => {
    const slide = (doorAt: number) => {
      const unit = of('sliding');
      const { skeleton } = make({ ...unit, options: { ...unit.options, doorAt } });
      return skeleton?.motions?.[0];
    };
    // its leaf runs behind the strips of 12 on the rear face of a board of 12
    const x = 1500 + 24;
    expect(slide(-500)).toMatchObject({ by: [0, 620, 0], shut: { x0: x, x1: x + 12, y0: -520, y1: 120 } });
    expect(slide(0)).toMatchObject({ by: [0, -620, 0] });
  });
});

describe('what a bed on rails hangs on', () => {
  /** A bed at a height, its bearers as many as are asked for; boards 12, so the rails are that much shorter. */
  const bed = (to: number, bearers: number): Unit => {
    const family = FAMILIES.find(({ id }) => id === 'bed-on-rails');
    if (!family) throw new Error('there is no bed on rails');
    const unit = family.start({ id: 'b', name: 'Bed', layout: { units: [] }, people: [], room, book });
    return { ...unit, body: { ...unit.body, to }, options: { ...unit.options, bearers, boardWidth: 2000 } };
  };
  it('is a rail from the floor at each end of each bearer, cut from lengths of 2 m, and a bracket in each', () => {
    // rails of 888: two from a length, so six take three lengths
    expect(bought(bed(900, 3))).toEqual({ 'wall-rail': 6, 'rail-bracket': 6 });
    // rails of 1 038: one from a length
    expect(bought(bed(1050, 3))).toEqual({ 'wall-rail': 12, 'rail-bracket': 6 });
    // of 638: three from a length
    expect(bought(bed(650, 2))).toEqual({ 'wall-rail': 2.667, 'rail-bracket': 4 });
  });
  /** The bed where its bearers hang at 240, 1 500 and 2 760. */
  const long = (to: number): Unit => {
    const unit = bed(to, 3);
    return { ...unit, body: { ...unit.body, x: 171, length: 2658 } };
  };
  const arch = (of: Partial<ArchShape>): ArchShape => ({
    id: 'a',
    name: 'Arch',
    side: 'left',
    kind: 'arch',
    shape: 'box',
    from: 1200,
    to: 1900,
    height: 300,
    bottom: 0,
    face: 650,
    topFace: 650,
    far: null,
    ...of,
  });
  const over = (unit: Unit, arches: readonly ArchShape[]) =>
    makeUnit(unit, { inner: room, arches, book, things: [] }, FAMILIES, SCHOOLS);
  const railsOf = (made: ReturnType<typeof over>) =>
    (made.skeleton?.hangsOn ?? []).flatMap(({ kind, count, each, at }) =>
      kind === 'wall-rail' ? [{ count, each, at: at ?? [] }] : [],
    );
  it('stands off the wall by the rails: the bearers end before them', () => {
    const bearer = (unit: Unit) => over(unit, []).skeleton?.boards.find(({ role }) => role === 'bearer');
    const wide = (unit: Unit): number => {
      const ys = bearer(unit)?.outline.outer.map(([y]) => y) ?? [];
      return Math.max(...ys) - Math.min(...ys);
    };
    // 1 800 between the walls, on each side a rail of 20 and 5 of play
    expect(wide(long(900))).toBeCloseTo(1750, 6);
    const unit = long(900);
    expect(wide({ ...unit, options: { ...unit.options, rail: 35 } })).toBeCloseTo(1720, 6);
    const [{ at } = { at: [] }] = railsOf(over(unit, []));
    expect(at).toHaveLength(6);
    const whole = (box: SolidBox | undefined) =>
      Object.fromEntries(Object.entries(box ?? {}).map(([name, value]) => [name, Math.round(value * 1e6) / 1e6]));
    expect(whole(at[0])).toEqual({ x0: 225, x1: 255, y0: -900, y1: -880, z0: 0, z1: 888 });
    expect(whole(at.at(-1))).toEqual({ x0: 2745, x1: 2775, y0: 880, y1: 900, z0: 0, z1: 888 });
  });
  it('begins on an arch where one stands behind it, and is bought that much shorter', () => {
    const straight = over(long(900), [arch({})]);
    expect(railsOf(straight).map(({ count, each }) => [count, each])).toEqual([
      [5, 888],
      [1, 588],
    ]);
    expect(straight.problems).toEqual([]);
    // five of 888 from two and a half lengths, one of 588 from a third of one
    expect(straight.hardware.find(({ item }) => item === 'wall-rail')?.amount).toBeCloseTo(5 + 2 / 3, 6);
    // of a round one from 1 000 to 1 600 the highest that the rail meets, at its front edge: half an ellipse of 300
    const round = railsOf(over(long(900), [arch({ shape: 'rounded', from: 1000, to: 1600 })]));
    const rises = 300 * Math.sqrt(1 - ((1485 - 1300) / 300) ** 2);
    expect(round[1]?.each).toBe(Math.ceil(888 - rises));
    // one that ends before the wall, one on the other side and a step in the floor are none of its business
    for (const other of [arch({ far: 800 }), arch({ from: 1600 }), arch({ kind: 'step', height: 0, bottom: -150 })])
      expect(railsOf(over(long(900), [other])).map(({ count, each }) => [count, each])).toEqual([[6, 888]]);
  });
  it('is told to hang higher where an arch leaves no rail worth the name', () => {
    // 512 under boards of 12: a rail of 100 on the arch of 400 is just enough
    expect(over(long(512), [arch({ height: 400 })]).problems.map(({ said }) => said.key)).toEqual([
      'furniture.railStep',
    ]);
    const [low] = over(long(500), [arch({ height: 400 })]).problems;
    expect(low?.said).toMatchObject({
      key: 'furniture.railShort',
      params: { n: 1, top: { mm: 400 }, least: { mm: 512 } },
    });
  });
  it('is told where the price book has no rail, or none that is long enough', () => {
    const without = (change: (item: PriceBook['items'][number]) => PriceBook['items']): readonly string[] =>
      make(bed(900, 3), { ...book, items: book.items.flatMap(change) }).problems.map(({ said }) => said.key);
    expect(without((item) => [item])).toEqual([]);
    expect(without((item) => (item.hardware?.kind === 'wall-rail' ? [] : [item]))).toEqual(['hardware.none.wall-rail']);
    expect(
      without((item) =>
        item.id === 'wall-rail' && item.pack ? [{ ...item, pack: { ...item.pack, contents: 0.8 } }] : [item],
      ),
    ).toEqual(['hardware.none.wall-rail']);
    expect(without((item) => (item.hardware?.kind === 'rail-bracket' ? [] : [item]))).toEqual([
      'hardware.none.rail-bracket',
    ]);
  });
});
