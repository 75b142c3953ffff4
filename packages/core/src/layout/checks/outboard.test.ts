import { describe, expect, it } from 'vitest';
import wrenFile from '../../../../../demo/wren.json?raw';
import { derive } from '../../derive/again.fixture.js';
import type { Project } from '../../document/schema.js';
import { readProjectFile } from '../../formats/read.js';
import { FAMILIES } from '../../furniture/families/index.js';
import { outsideBoard } from '../../furniture/families/outside-board.js';
import { applyOperation } from '../../furniture/kit.js';
import { makeUnit } from '../../furniture/make.js';
import { standsMoved } from '../../furniture/motions.js';
import { SCHOOLS } from '../../furniture/schools/index.js';
import { partsIn } from '../../furniture/parts-moved.js';
import { outboardRule } from '../../rules/openings.js';
import { halfWidth } from '../../shell/shell.js';
import { say } from '../../words/say.js';

const { project, priceBook } = readProjectFile(wrenFile);
/** Wren's sliding door: from 240 to 1370, from the floor to 1690. */
const DOOR = { from: 240, to: 1370, head: 1690 };
const bare = derive(project, priceBook);

/** Wren with a board at its right wall; its lower and upper edge above the finished floor. */
function withBoard(x: number, length: number, from: number, to: number, options = { hinge: 'foot' }): Project {
  const room = bare.inner;
  if (!room) throw new Error('there is no room');
  const wall = Math.min(
    ...[x, x + length].flatMap((at) =>
      [from, (from + to) / 2, to].map((z) => halfWidth(room, 'right', at, room.floor + z)),
    ),
  );
  return applyOperation(project, {
    name: 'placeUnit',
    payload: {
      unit: {
        id: 'stall',
        family: 'outside-board',
        name: 'Stall',
        body: { stands: 'right', x, length, front: Math.floor(wall - 25), from, to },
        meets: { foot: { how: 'open' } },
        division: { name: 'none', holds: { kind: 'open' }, front: { kind: 'none' } },
        school: 'plywood',
        materials: { board: 'birch-15' },
        options,
      },
    },
  }).project;
}
type Derived = ReturnType<typeof derive>;
const noteIn = (derived: Derived) => derived.checks.find(({ id }) => id === 'outboard:stall.board');
const boardIn = (derived: Derived) => {
  const motion = derived.made.find(({ unit }) => unit === 'stall')?.skeleton?.motions?.[0];
  if (motion?.kind !== 'hinge' || motion.about !== 'level') throw new Error('it does not turn');
  return motion;
};

describe('a board that turns out through a door', () => {
  it('is judged by the least of what is left, and fails where there is no door', () => {
    const grade = (clear: number | null) =>
      outboardRule.run({ clear, before: 5, way: 'beside', name: '', door: '' }).grade;
    expect(outboardRule.run({ clear: 100, before: 151, way: 'beside', name: '', door: '' }).grade).toBe('fails');
    expect([grade(20), grade(19), grade(5), grade(4), grade(null)]).toEqual([
      'good',
      'tight',
      'tight',
      'fails',
      'fails',
    ]);
  });

  it('lies level outside at its foot, or at its head, as deep as it is high', () => {
    const [foot, head] = ['foot', 'head'].map((hinge) =>
      boardIn(derive(withBoard(400, 700, 500, 900, { hinge }), priceBook)),
    );
    const floor = bare.inner?.floor ?? 0;
    if (!foot || !head) throw new Error('there are two');
    expect([foot.open.z0 - floor, foot.open.z1 - floor]).toEqual([500, 515]);
    expect([head.open.z0 - floor, head.open.z1 - floor]).toEqual([885, 900]);
    for (const { open, shut } of [foot, head]) {
      // from its outer face outwards: no part of it is left inside
      expect(open.y0).toBeCloseTo(shut.y1, 9);
      expect(open.y1 - open.y0).toBeCloseTo(400, 9);
      expect(shut.z1 - shut.z0).toBeCloseTo(400, 9);
    }
    expect(standsMoved(foot, 1)).toMatchObject({ z0: foot.open.z0, z1: foot.open.z1 });
  });

  it('clears the door: good within it, tight near its side, failing over its head, and mended by one press', () => {
    const inside = noteIn(derive(withBoard(DOOR.from + 100, 700, 500, 900), priceBook));
    expect(inside).toMatchObject({ grade: 'good' });
    expect(noteIn(derive(withBoard(DOOR.from + 10, 700, 500, 900), priceBook))).toMatchObject({
      grade: 'tight',
      spare: -10,
    });
    const high = withBoard(DOOR.to - 500, 700, 1300, 1700);
    const fails = noteIn(derive(high, priceBook));
    // 870 to 1570 reaches 200 past its side
    expect(fails).toMatchObject({ grade: 'fails', spare: -220 });
    expect(fails && say(fails.said)).toContain('Sliding door');
    const [mend] = fails?.mends ?? [];
    const mended = (mend?.operations ?? []).reduce((p, operation) => applyOperation(p, operation).project, high);
    expect(noteIn(derive(mended, priceBook))).toMatchObject({ grade: 'good' });
  });

  it('is told to go out through the wall where there is no door', () => {
    const note = noteIn(derive(withBoard(1500, 700, 500, 900), priceBook));
    expect(note).toMatchObject({ grade: 'fails' });
    expect(note && say(note.said)).toBe('Stall goes out through the wall: no door of that side is behind it.');
    // it is put into the door there is, along its wall or across to it
    const across = withBoard(1500, 700, 500, 900);
    const turned = applyOperation(across, {
      name: 'changeUnit',
      payload: { id: 'stall', changes: { side: 'left', x: 600 } },
    }).project;
    for (const set of [across, turned]) {
      const { mends = [] } = noteIn(derive(set, priceBook)) ?? {};
      expect(mends.map(({ said }) => say(said))).toEqual(['Fit Stall into Sliding door', 'Fit Stall into Rear doors']);
      for (const { operations } of mends) {
        const derived = derive(
          operations.reduce((p, operation) => applyOperation(p, operation).project, set),
          priceBook,
        );
        expect(noteIn(derived)).toMatchObject({ grade: 'good' });
        expect(derived.problems.filter(({ place }) => place === 'stall')).toEqual([]);
      }
    }
  });

  it('across the rear doors lies level behind the vehicle, as wide as it is across', () => {
    const floor = bare.inner?.floor ?? 0;
    const length = bare.inner?.length ?? 0;
    // turned to the rear where it stands it is far before the doors, and put to them by one press
    const turned = applyOperation(withBoard(400, 700, 500, 900), {
      name: 'changeUnit',
      payload: { id: 'stall', changes: { side: 'rear' } },
    }).project;
    const far = noteIn(derive(turned, priceBook));
    expect(far).toMatchObject({ grade: 'fails' });
    expect(far && say(far.said)).toMatch(/^Stall turns [0-9\u202f]+ before Rear doors: a part of it stays inside/);
    expect(far?.mends.map(({ said }) => say(said))).toEqual(['Fit Stall into Rear doors']);
    const put = (far?.mends[0]?.operations ?? []).reduce((p, one) => applyOperation(p, one).project, turned);
    for (const hinge of ['foot', 'head']) {
      const set = applyOperation(put, { name: 'changeUnit', payload: { id: 'stall', changes: { hinge } } }).project;
      const derived = derive(set, priceBook);
      expect(noteIn(derived)).toMatchObject({ grade: 'good' });
      const { shut, open } = boardIn(derived);
      // 15 thick, 5 before the doors, 700 across about the centre line and 400 high
      expect(shut.x1).toBeCloseTo(Math.floor(length - 20) + 15, 6);
      expect([shut.x1 - shut.x0, shut.y0, shut.y1]).toEqual([15, -350, 350]);
      expect([shut.z0 - floor, shut.z1 - floor]).toEqual([500, 900]);
      expect([open.x0 - shut.x1, open.x1 - open.x0, open.z1 - open.z0]).toEqual([0, 400, 15]);
      expect(open.z0 - floor).toBeCloseTo(hinge === 'foot' ? 500 : 885, 6);
      const [part] = derived.parts.filter(({ id }) => id === 'stall.board');
      const size = (part?.outline.outer ?? []).reduce(([u, v], [a, b]) => [Math.max(u, a), Math.max(v, b)], [0, 0]);
      expect(size).toEqual([700, 400]);
      // turned by a quarter about its hinged edge the board lies where the motion says
      const [flat] = partsIn(part ? [part] : [], derived.made, { 'stall.board': 1 });
      expect(flat && Math.abs(flat.place.thick[2])).toBeCloseTo(1, 9);
      expect(derived.checks.filter(({ id, grade }) => /^(sweep|outboard):stall/.test(id) && grade === 'fails')).toEqual(
        [],
      );
    }
    // nearer to the side of the doors than they bear, and out past it
    const aside = (y: number) =>
      noteIn(
        derive(
          applyOperation(put, { name: 'changeUnit', payload: { id: 'stall', changes: { y } } }).project,
          priceBook,
        ),
      );
    expect(aside(70)).toMatchObject({ grade: 'tight', spare: -10 });
    expect(aside(200)).toMatchObject({ grade: 'fails', spare: -140 });
    // and back at a wall it is as long as it was wide
    const back = applyOperation(put, { name: 'changeUnit', payload: { id: 'stall', changes: { side: 'left' } } });
    expect(back.project.layout.units.find(({ id }) => id === 'stall')?.body).toMatchObject({
      stands: 'left',
      length: 700,
      from: 500,
      to: 900,
    });
  });

  it('that stands out through the shut door is a problem with its place, and has no parts', () => {
    const set = withBoard(400, 700, 500, 900);
    const out = applyOperation(set, {
      name: 'changeUnit',
      payload: { id: 'stall', changes: { front: 940 } },
    }).project;
    const made = derive(out, priceBook).made.find(({ unit }) => unit === 'stall');
    expect(made?.skeleton?.boards).toEqual([]);
    expect(made?.skeleton?.problems[0]?.place).toBe('stall');
  });

  it('offered in a door with a high sill stands inside that door, where the wall leans in', () => {
    const room = bare.inner;
    if (!room) throw new Error('there is a room');
    const start = { id: 'o', name: 'O', layout: project.layout, people: [], room, book: priceBook };
    const gap = { where: 'right', zone: 'door', x0: 240, x1: 1370, deep: 500, middle: 0, wall: 800 } as const;
    for (const z0 of [0, 700, 1100]) {
      const unit = outsideBoard.inGap?.({ ...gap, z0, z1: 1690 }, start)?.unit;
      if (!unit) throw new Error(`one fits over ${z0}`);
      expect(unit.body.from).toBeGreaterThanOrEqual(z0 + 20);
      const { skeleton } = makeUnit(unit, { inner: room, arches: [], book: priceBook, things: [] }, FAMILIES, SCHOOLS);
      expect(skeleton?.problems).toEqual([]);
      expect(skeleton?.boards).toHaveLength(1);
    }
    expect(outsideBoard.inGap?.({ ...gap, z0: 1400, z1: 1690 }, start)).toBeNull();
    expect(outsideBoard.inGap?.({ ...gap, zone: 'floor', z0: 0, z1: 1690 }, start)).toBeNull();
  });

  it('is held on the road, bought with hinges and stays, and shut to drive', () => {
    const set = withBoard(400, 700, 500, 900);
    const states = { 'stall.board': 1 };
    const driving = applyOperation(set, {
      name: 'putMode',
      payload: { mode: { id: 'drive', name: 'Drive', use: 'drive', states } },
    }).project;
    const derived = derive(driving, priceBook);
    const mentions = derived.checks.filter(({ rule, grade }) => rule === 'shut-to-drive' && grade === 'fails');
    expect(mentions.map(({ said }) => say(said)).join()).toContain('stall, turned out');
    const kinds = (of: Project) =>
      derive(of, priceBook)
        .shopping.lines.filter(({ id }) => /hinge|stay/.test(id))
        .reduce((sum, { quantity }) => sum + quantity, 0);
    expect(kinds(set)).toBeGreaterThan(kinds(project) + 2);
  });
});

describe('a tray that is drawn out through a door', () => {
  // the rear doors: 780 to both sides of the centre line, from the floor to 1720; the room ends at 3690
  const room = bare.inner;
  const empty: Project = { ...project, layout: { units: [] } };
  const withTray = (body: object, opens = 'rear'): Project =>
    applyOperation(empty, {
      name: 'placeUnit',
      payload: {
        unit: {
          id: 'crates',
          family: 'rack',
          name: 'Crates',
          body: {
            stands: 'free',
            x: (room?.length ?? 0) - 1010,
            length: 1000,
            y: -300,
            width: 600,
            from: 0,
            to: 700,
            ...body,
          } as never,
          meets: { foot: { how: 'square' } },
          division: { name: 'level-1', holds: { kind: 'hold' }, front: { kind: 'none' } },
          school: 'plywood',
          materials: { board: 'birch-12', lip: 'birch-9' },
          options: { lipHigh: 60, opens, slides: true, latch: true, load: 0, eyes: 4, eyeHolds: 1000 },
        },
      },
    }).project;
  const notes = (of: Project) =>
    derive(of, priceBook).checks.filter(({ id }) => /^(outboard|sweep|before):crates/.test(id));

  it('goes out at the rear by eight tenths of its length, with what the doors leave under it', () => {
    const derived = derive(withTray({}), priceBook);
    const [motion] = derived.made[0]?.skeleton?.motions ?? [];
    expect(motion).toMatchObject({ kind: 'slide', by: [800, 0, 0] });
    const [note, ...others] = notes(withTray({}));
    expect(others).toEqual([]);
    // the sill of the doors is at the datum, the finished floor above it
    expect(note).toMatchObject({ id: 'outboard:crates.slide', grade: 'good' });
    expect(note?.spare).toBeCloseTo((room?.floor ?? 0) - 20, 6);
  });

  it('near the side of the doors it is short of good, and moved by one press', () => {
    const set = withTray({ y: 170 });
    const [note] = notes(set);
    // it ends at 770: 10 are left beside it
    expect(note).toMatchObject({ grade: 'tight', spare: -10 });
    const mended = (note?.mends[0]?.operations ?? []).reduce((p, one) => applyOperation(p, one).project, set);
    expect(notes(mended)).toMatchObject([{ grade: 'good' }]);
    expect(mended.layout.units[0]?.body).toMatchObject({ y: 160, width: 600 });
  });

  it('too wide for the doors it is made narrower', () => {
    const set = withTray({ y: -800, width: 1600 });
    expect(notes(set)[0]).toMatchObject({ grade: 'fails', spare: -40 });
    const mended = (notes(set)[0]?.mends[0]?.operations ?? []).reduce((p, one) => applyOperation(p, one).project, set);
    expect(mended.layout.units[0]?.body).toMatchObject({ y: -760, width: 1520 });
    expect(notes(mended)).toMatchObject([{ grade: 'good' }]);
  });

  it('meets the rear end where no door is known there, and the wall beside the sliding door', () => {
    const closed: Project = {
      ...withTray({}),
      survey: { ...project.survey, openings: project.survey.openings.filter(({ surface }) => surface !== 'rear') },
    };
    expect(notes(closed)).toMatchObject([{ id: 'sweep:crates.slide', grade: 'fails', spare: -790 }]);
    const side = (x: number) => notes(withTray({ x, length: 500, y: 100, width: 700, to: 500 }, 'right'));
    expect(side(400)).toMatchObject([{ id: 'outboard:crates.slide', grade: 'good' }]);
    expect(side(1600)).toMatchObject([{ id: 'sweep:crates.slide', grade: 'fails' }]);
  });

  it('has its ends beside what is loaded and its lips before and behind it', () => {
    const boards = (opens: string) =>
      (derive(withTray({}, opens), priceBook).made[0]?.skeleton?.boards ?? []).map(({ name, normal }) => [
        name,
        normal,
      ]);
    expect(boards('rear')).toEqual([
      ['end-left', 'y'],
      ['end-right', 'y'],
      ['bottom', 'z'],
      ['bottom.lip-front', 'x'],
      ['bottom.lip-rear', 'x'],
    ]);
    expect(boards('right')).toEqual([
      ['end-front', 'x'],
      ['end-rear', 'x'],
      ['bottom', 'z'],
      ['bottom.lip-left', 'y'],
      ['bottom.lip-right', 'y'],
    ]);
    const { made, parts } = derive(withTray({}), priceBook);
    expect(made[0]?.skeleton?.problems).toEqual([]);
    // as long between its ends as it is wide less two boards of 12, and as deep as it is long
    const tray = parts.find(({ role }) => role === 'tray');
    const box = (tray?.outline.outer ?? []).map(([u, v]) => [u, v]);
    const size = [0, 1].map((i) => Math.max(...box.map((p) => p[i] ?? 0)) - Math.min(...box.map((p) => p[i] ?? 0)));
    expect(size.sort((a, b) => a - b)).toEqual([576, 1000]);
  });
});
