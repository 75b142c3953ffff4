import { describe, expect, it } from 'vitest';
import wrenFile from '../../../../demo/wren.json?raw';
import { derive } from '../derive/again.fixture.js';
import { baysOf } from '../document/body.js';
import type { Operation } from '../document/operation.js';
import type { Bay, Project, Thing, Unit } from '../document/schema.js';
import { readProjectFile } from '../formats/read.js';
import { blankOf } from '../parts/part.js';
import { tiePointsRule } from '../rules/road.js';
import { boughtDepthRule } from '../rules/room.js';
import { START_THINGS } from './start-things.js';
import { leavesPlace, takesAway } from './motions.js';
import { halfWidth } from '../shell/shell.js';
import { baseRun } from './families/base-run.js';
import { boughtCupboard } from './families/bought-cupboard.js';
import { cornerSeat } from './families/corner-seat.js';
import { seat } from './families/seat.js';
import { rack } from './families/rack.js';
import type { Family } from './family.js';
import { applyOperation } from './kit.js';
import { boardBox } from './skeleton.js';

const { project: wren, priceBook: book } = readProjectFile(wrenFile);
const after = (project: Project, ...operations: Operation[]): Project =>
  operations.reduce((p, operation) => applyOperation(p, operation, book).project, project);
const empty: Project = {
  ...wren,
  stored: [],
  wishes: [],
  variants: [],
  things: [],
  keptPlans: [],
  waits: [],
  layout: { units: [] },
};
const room = derive(empty, book).inner;
if (!room) throw new Error('Wren has a room');
const started = (family: Family): Unit =>
  family.start({ id: 'u', name: 'It', layout: empty.layout, people: empty.people, room, book });
const place = (unit: Unit): Operation => ({ name: 'placeUnit', payload: { unit } });
const change = (changes: Record<string, number | string | boolean | string[]>): Operation => ({
  name: 'changeUnit',
  payload: { id: 'u', changes },
});
const gradeOf = (project: Project, id: string) => derive(project, book).checks.find((check) => check.id === id);

describe('a bought cupboard', () => {
  const base = START_THINGS.find(({ id }) => id === 'safe') as Thing;
  const sheet: Thing = { ...base, id: 'box', name: 'Box', width: 582, depth: 560, height: 800, mass: 21, price: 8950 };
  const stands = after(
    empty,
    { name: 'putThing', payload: { thing: sheet } },
    place(started(boughtCupboard)),
    change({ thing: 'box', x: 900, front: 350 }),
  );
  const unit = stands.layout.units[0] as Unit;
  it('is paid and weighed as its data sheet says, once for each that stands', () => {
    const derived = derive(stands, book);
    const line = derived.shopping.lines.find(({ id }) => id === 'thing:box');
    expect(line).toMatchObject({ quantity: 1, each: 8950, total: 8950, phase: 'things' });
    const second = after(stands, place({ ...unit, id: 'v', name: 'Second', body: { ...unit.body, x: 1600 } }));
    const two = derive(second, book);
    expect(two.shopping.lines.find(({ id }) => id === 'thing:box')?.total).toBe(17_900);
    const without = derive(after(second, { name: 'putThing', payload: { thing: { ...sheet, price: null } } }), book);
    expect(without.shopping.lines.find(({ id }) => id === 'thing:box')).toBeUndefined();
    expect(without.shopping.unpriced).toContain('Box');
    const gone = derive(after(stands, { name: 'removeUnit', payload: { id: 'u' } }), book);
    expect([derived.shopping.nowhere, gone.shopping.nowhere]).toEqual([[], ['Box']]);
    const kg = (of: typeof derived) => of.weight.units.find(({ unit: id }) => id === 'u')?.kg ?? 0;
    const light = derive(after(stands, { name: 'putThing', payload: { thing: { ...sheet, mass: 1 } } }), book);
    expect(kg(derived) - kg(light)).toBeCloseTo(20, 6);
  });
  it('says how much of it comes off at each height, from the wall itself, and covers what stays open', () => {
    const { made, inner } = derive(stands, book);
    if (!inner) throw new Error('a room');
    const told = boughtCupboard.tells?.(unit, { inner, arches: [], book, things: [sheet] }) ?? [];
    expect(told).toHaveLength(8);
    for (const [i, { key, params }] of told.entries()) {
      const x = i < 4 ? 900 : 900 + unit.body.length;
      const { at, off } = params as unknown as { at: { mm: number }; off: { mm: number } };
      const free = halfWidth(inner, 'left', x, inner.floor + at.mm) - 350 - 560;
      expect(key).toBe(free < 0 ? 'bought.cut' : 'bought.gap');
      expect(off.mm).toBeCloseTo(Math.abs(free), 6);
    }
    const cover = made[0]?.skeleton?.boards.find(({ name }) => name === 'cover-front');
    const thick = cover?.thickness ?? 0;
    for (const [y, z] of cover?.edges[0]?.line ?? [])
      // it is flush with the wall at the face where that is tighter
      expect(-y).toBeCloseTo(Math.min(...[900, 900 + thick].map((x) => halfWidth(inner, 'left', x, z))), 1);
    expect(made[0]?.parts.map(({ role }) => role)).toContain('wall-rail');
  });
  it('has to be as long as its sheet with a strip at each end, and may not lose half of its depth', () => {
    const thick = book.items.find(({ id }) => id === unit.materials['cover'])?.thickness ?? 0;
    const check = gradeOf(stands, 'thing-size:u');
    expect(unit.body.length === 582 + 2 * thick ? check : check?.grade).toBe(
      unit.body.length === 582 + 2 * thick ? undefined : 'fails',
    );
    const mended = after(stands, ...(check?.mends[0]?.operations ?? []));
    expect(gradeOf(mended, 'thing-size:u')).toBeUndefined();
    const grade = (left: number) => boughtDepthRule.run({ left, deep: 500, name: 'a' }).grade;
    expect([400, 399, 250, 249].map(grade)).toEqual(['good', 'tight', 'tight', 'fails']);
    const deepIn = after(stands, change({ front: 800 }));
    const short = gradeOf(deepIn, 'bought-depth:u');
    expect(short?.grade).toBe('fails');
    expect(gradeOf(after(deepIn, ...(short?.mends[0]?.operations ?? [])), 'bought-depth:u')).toBeUndefined();
  });
  it('cannot stand where the wall leaves it no depth, and says so', () => {
    const wall = halfWidth(room, 'left', 900, room.floor + 400);
    const { made } = derive(after(stands, change({ front: Math.round(wall) - 20 })), book);
    expect(made[0]?.parts).toEqual([]);
    expect(made[0]?.problems.map(({ said }) => said.key)).toContain('furniture.shallow');
  });
});

describe('a rack', () => {
  const stands = after(empty, place(started(rack)));
  it('has a bay on every level, with lips before what lies there', () => {
    const three = derive(after(stands, change({ levels: 3 })), book);
    const skeleton = three.made[0]?.skeleton;
    expect(skeleton?.bays?.map(({ bay }) => bay.name)).toEqual(['level-1', 'level-2', 'level-3']);
    expect(skeleton?.boards.filter(({ role }) => role === 'lip')).toHaveLength(6);
    // 700 high: three trays of 12 leave 664 for three levels
    for (const bay of skeleton?.bays ?? []) expect(bay.room.z1 - bay.room.z0).toBeCloseTo((700 - 3 * 12) / 3, 6);
    const [unit] = after(stands, change({ levels: 1 })).layout.units;
    expect(unit && baysOf(unit.division).map(({ name }) => name)).toEqual(['level-1']);
  });
  it('is tied down for what is kept on it: 40 kg pull with 800 N', () => {
    const grade = (load: number | null, eyes: number) => tiePointsRule.run({ load, eyes, holds: 400, name: 'a' }).grade;
    expect([grade(40, 3), grade(40, 2), grade(40, 1), grade(null, 4)]).toEqual(['good', 'tight', 'fails', 'unknown']);
    expect(gradeOf(stands, 'tie-points:u')?.grade).toBe('unknown');
    const kept = after(stands, change({ eyes: 1 }), {
      name: 'putStored',
      payload: {
        stored: {
          id: 's',
          name: 'Press',
          length: 300,
          width: 250,
          height: 200,
          mass: 45,
          count: 2,
          turns: true,
          kept: { unit: 'u', bay: 'level-1' },
        },
      },
    });
    const check = gradeOf(kept, 'tie-points:u');
    // 90 kg are 1800 N, one eye holds 1000
    expect(check?.grade).toBe('fails');
    const mended = after(kept, ...(check?.mends[0]?.operations ?? []));
    expect(mended.layout.units[0]?.options['eyes']).toBe(3);
    expect(gradeOf(mended, 'tie-points:u')?.grade).toBe('good');
  });
  it('slides out to the side it is loaded from, on the road only held', () => {
    const slides = after(stands, change({ slides: true, opens: 'left', latch: false }));
    const [motion] = derive(slides, book).made[0]?.skeleton?.motions ?? [];
    expect(motion).toMatchObject({ kind: 'slide', by: [0, -400, 0] });
    expect(derive(slides, book).checks.find(({ id }) => id === 'latch:u')?.grade).toBe('fails');
  });
});

describe('a seat round a corner', () => {
  const stands = after(empty, place(started(cornerSeat)));
  const seats = (project: Project) => {
    const { inner } = derive(project, book);
    const [unit] = project.layout.units;
    return unit && inner ? (cornerSeat.sits?.(unit, { inner, arches: [], book, things: [] }) ?? []) : [];
  };
  it('is an L: a bench along the wall, and a wing out of one end that one sits on the other way', () => {
    const [bench, wing, ...more] = seats(stands);
    expect(more).toEqual([]);
    expect(bench?.wide).toBe(1600 - 520);
    expect(wing?.looks).toEqual([-1, 0]);
    expect(wing?.deep).toBe(520 - 80);
    const boards = derive(stands, book).made[0]?.skeleton?.boards ?? [];
    const lid = boards.find(({ name }) => name === 'wing-rear.lid');
    const [unit] = stands.layout.units;
    if (!lid || unit?.body.stands !== 'right') throw new Error('it starts on the right');
    const { low, high } = boardBox(lid);
    expect([low[1], high[1]]).toEqual([unit.body.front - 450, unit.body.front]);
    expect(high[2]).toBeCloseTo(room.floor + unit.body.to, 6);
  });
  it('is a U with both, and each of two people sits at one end of it', () => {
    const people = empty.people.slice(0, 2).map(({ id }) => id);
    const both = after(stands, change({ wings: 'both', sitters: people }));
    expect(seats(both).map(({ sitters }) => sitters.length)).toEqual([0, 1, 1]);
    expect(derive(both, book).made[0]?.skeleton?.bays?.map(({ bay }) => bay.name)).toEqual([
      'bay-1',
      'wing-front',
      'wing-rear',
    ]);
  });
  it('is told of bench and wing apart, and a wing that is not deep enough is made wider by one press', () => {
    const narrow = after(stands, change({ wingWide: 430 }));
    const { checks } = derive(narrow, book);
    const ids = checks.map(({ id }) => id);
    expect(new Set(ids).size).toBe(ids.length);
    const check = checks.find(({ id }) => id === 'seat-depth:u.wing-rear');
    expect(check?.grade).toBe('fails');
    const mended = after(narrow, ...(check?.mends[0]?.operations ?? []));
    // 420 to the backrest of 80
    expect(mended.layout.units[0]?.options['wingWide']).toBe(500);
    expect(gradeOf(mended, 'seat-depth:u.wing-rear')).toBeUndefined();
  });
  it('runs into what stands where its wing comes out, and not into what stands beside that', () => {
    const [unit] = stands.layout.units;
    if (unit?.body.stands !== 'right') throw new Error('it starts on the right');
    const { x: from, front } = unit.body;
    const box = (x: number): Operation =>
      place({
        ...started(cornerSeat),
        id: 'b',
        name: 'Box',
        family: 'plain-box',
        body: { stands: 'free', x, length: 200, y: front - 300, width: 200, from: 0, to: 300 },
        meets: {},
        division: { name: 'itself', holds: { kind: 'open' }, front: { kind: 'none' } },
        materials: {},
        options: {},
      });
    const clash = (x: number) =>
      derive(after(stands, box(x)), book).checks.some(({ rule, grade }) => rule === 'collision' && grade === 'fails');
    expect(clash(from + 1600 - 300)).toBe(true);
    expect(clash(from + 300)).toBe(false);
  });
  it('has no wings that are wider than it is long, and says so', () => {
    const { made } = derive(after(stands, change({ wings: 'both', wingWide: 900 })), book);
    expect(made[0]?.problems.map(({ said }) => said.key)).toEqual(['furniture.wings']);
  });
});

describe('an upstand at the back of a worktop', () => {
  const with80 = (more: Record<string, number | string> = {}) =>
    after(
      empty,
      place({ ...started(baseRun), id: 'u' }),
      change({ x: 1200, length: 800, height: 900, upstand: 80, ...more }),
    );
  it('stands on the top from end to end, as near to the wall as it comes anywhere', () => {
    const derived = derive(with80(), book);
    const board = derived.made[0]?.skeleton?.boards.find(({ name }) => name === 'upstand');
    if (!board) throw new Error('it has one');
    const { low, high } = boardBox(board);
    const top = room.floor + 900;
    expect([low[0], high[0], low[2], high[2]]).toEqual([1200, 2000, top, top + 80]);
    const nearest = Math.min(
      ...[1200, 1400, 1600, 1800, 2000].flatMap((x) => [top, top + 80].map((z) => halfWidth(room, 'left', x, z))),
    );
    // two millimetres are sealed behind it, and it never stands in the wall
    expect(-low[1]).toBeLessThanOrEqual(nearest - 2 + 1e-6);
    expect(-low[1]).toBeGreaterThan(nearest - 6);
    expect(high[1] - low[1]).toBeCloseTo(book.items.find(({ id }) => id === 'birch-18')?.thickness ?? NaN, 9);
  });
  it('is cut from the board of the top, 800 by 80, and held to it', () => {
    const derived = derive(with80(), book);
    const part = derived.parts.find(({ id }) => id === 'u.upstand');
    if (!part) throw new Error('it is cut');
    expect(part.material).toBe('birch-18');
    const { length, width } = blankOf(part);
    expect([length, width].sort((a, b) => b - a)).toEqual([800, 80]);
    expect(part.touches).toContain('u.top');
    expect(derived.problems.filter(({ place: at }) => at.startsWith('u'))).toEqual([]);
  });
  it('is none where none is asked for, and no higher than makes sense', () => {
    expect(derive(with80({ upstand: 0 }), book).parts.some(({ role }) => role === 'upstand')).toBe(false);
    expect(() => with80({ upstand: 301 })).toThrow(/outOfRange/);
  });
});

describe('a flap at the end of a worktop', () => {
  const flapped = (more: Record<string, number | string | boolean> = { flapEnd: 'rear', flapLong: 300 }) =>
    after(empty, place({ ...started(baseRun), id: 'u' }), change({ x: 1200, length: 800, height: 900, ...more }));
  const motionOf = (project: Project) =>
    derive(project, book).made[0]?.skeleton?.motions?.find(({ of }) => of === 'u.flap');
  it('hangs under the top at its end, and lies level with it when it is lifted', () => {
    const motion = motionOf(flapped());
    if (motion?.kind !== 'hinge' || motion.about !== 'level') throw new Error('it turns about a level axis');
    const thick = book.items.find(({ id }) => id === 'birch-18')?.thickness ?? NaN;
    const top = room.floor + 900;
    expect([motion.open.x0, motion.open.x1, motion.open.z0, motion.open.z1]).toEqual([2000, 2300, top - thick, top]);
    expect([motion.shut.x0, motion.shut.x1, motion.shut.z0, motion.shut.z1]).toEqual([
      2000,
      2000 + thick,
      top - thick - 300,
      top - thick,
    ]);
    const other = motionOf(flapped({ flapEnd: 'front', flapLong: 300 }));
    expect(other?.kind === 'hinge' && other.about === 'level' && [other.open.x0, other.open.x1]).toEqual([900, 1200]);
  });
  it('may be loose: laid on at the same place, on hooks under it while it is not, without hinges', () => {
    const hinged = motionOf(flapped());
    const loose = flapped({ flapEnd: 'rear', flapLong: 300, flapLoose: true });
    const motion = motionOf(loose);
    if (motion?.kind !== 'lift-off' || hinged?.kind !== 'hinge' || hinged.about !== 'level')
      throw new Error('both are there');
    expect(motion.to).toEqual(hinged.open);
    expect(motion.shut).toEqual(hinged.shut);
    const hinges = (of: Project) =>
      derive(of, book).shopping.lines.find(({ id }) => id === 'pack:hinge-butt-60')?.amount ?? 0;
    expect(hinges(loose)).toBe(hinges(flapped({ flapEnd: 'none' })));
    expect(derive(loose, book).parts.find(({ id }) => id === 'u.flap')).toBeDefined();
  });
  it('a seat whose lid is lifted still stands there: the floor of that mode is what it was', () => {
    const seat = after(empty, place({ ...started(cornerSeat), id: 'c' }));
    const motions = derive(seat, book).made[0]?.skeleton?.motions ?? [];
    const lid = motions.find(({ kind }) => kind === 'lift-off');
    if (!lid) throw new Error('the wing has a lid');
    const figures = (states: Record<string, number>) =>
      derive(after(seat, { name: 'putMode', payload: { mode: { id: 'm', name: 'M', use: 'own', states } } }), book)
        .modes[0];
    const [shut, lifted] = [figures({}), figures({ [lid.of]: 1 })];
    expect(shut?.floor).toBeGreaterThan(1);
    expect([lifted?.floor, lifted?.standing, lifted?.way]).toEqual([shut?.floor, shut?.standing, shut?.way]);
  });
  it('a tray that is slid out takes the floor where it then is, and none where it was', () => {
    const tray = {
      ...started(rack),
      id: 'r',
      body: { stands: 'free' as const, x: 1000, length: 800, y: -700, width: 600, from: 0, to: 500 },
    };
    const withTray = after(empty, place({ ...tray, options: { ...tray.options, opens: 'right', slides: true } }));
    const floor = (states: Record<string, number>) =>
      derive(after(withTray, { name: 'putMode', payload: { mode: { id: 'm', name: 'M', use: 'own', states } } }), book)
        .modes[0]?.floor ?? NaN;
    expect(floor({})).toBeGreaterThan(1);
    // drawn out by 480 of 600 across a room that is wide enough: the floor it takes is as large as before
    expect(floor({ 'r.slide': 1 })).toBeCloseTo(floor({}), 6);
  });
  it('a lid opens the bay it lies on, not one under a level', () => {
    const battery = START_THINGS.find(({ service }) => service.includes('top'));
    if (!battery) throw new Error('something is looked after from above');
    const bay = (name: string, holds: Bay['holds']): Bay => ({ name, holds, front: { kind: 'none' } });
    const reached = (where: 'low' | 'high') => {
      const holds = (own: string): Bay['holds'] =>
        own === where ? { kind: 'thing', thing: battery.id } : { kind: 'open' };
      const unit: Unit = {
        ...started(seat),
        id: 's',
        division: {
          cut: 'up',
          divider: 'board',
          sizes: [{ share: 1 }, { share: 1 }],
          parts: [bay('low', holds('low')), bay('high', holds('high'))],
        },
      };
      const project = after(empty, { name: 'putThing', payload: { thing: battery } }, place(unit));
      return derive(project, book).checks.find(({ id }) => id === `reach:s:${where}:top`)?.grade;
    };
    expect(reached('low')).toBe('fails');
    expect(reached('high')).not.toBe('fails');
  });
  it('what is taken off a unit leaves the unit where it is', () => {
    const loose = flapped({ flapEnd: 'rear', flapLong: 300, flapLoose: true });
    const mode = { id: 'm', name: 'Meal', use: 'meal' as const, states: { 'u.flap': 1 } };
    const rackAt = (x: number) => ({
      ...started(rack),
      id: 'r',
      body: { stands: 'free' as const, x, length: 400, y: -700, width: 300, from: 0, to: 1000 },
    });
    const stands = after(loose, { name: 'putMode', payload: { mode } });
    // a rack in the cupboard itself still runs into it while its board is laid on, and one in the board's place into that
    const failing = (x: number) =>
      derive(after(stands, place(rackAt(x))), book)
        .checks.filter(({ grade, id }) => grade === 'fails' && /u/.test(id) && /r/.test(id))
        .map(({ rule }) => rule);
    expect(failing(1400)).toContain('collision');
    expect(failing(2050).length).toBeGreaterThan(0);
    // as a hinged one does, with or without a mode that lays it on: 82 from the end to the rack
    const meets = derive(after(loose, place(rackAt(2100))), book).checks.find(({ id }) => id === 'sweep:u.flap');
    expect(meets?.grade).toBe('fails');
    expect(meets?.said.params).toMatchObject({ clear: { mm: 2100 - 2000 - 18 }, needs: { mm: 300 - 18 } });
    expect(
      derive(loose, book).checks.find(({ id, grade }) => id === 'sweep:u.flap' && grade === 'fails'),
    ).toBeUndefined();
    const motions = derive(stands, book).made[0]?.skeleton?.motions ?? [];
    expect(motions.map((own) => [own.of, takesAway(own), leavesPlace(own)])).toContainEqual(['u.flap', false, false]);
  });
  it('is cut, hung and bought, keeps off the wall, and meets what stands there', () => {
    const derived = derive(flapped(), book);
    const part = derived.parts.find(({ id }) => id === 'u.flap');
    expect(part?.material).toBe('birch-18');
    const motion = motionOf(flapped());
    expect(-(motion?.shut.y0 ?? NaN)).toBeLessThan(halfWidth(room, 'left', 2000, room.floor + 750));
    const hinges = (of: typeof derived) => of.shopping.lines.find(({ id }) => id === 'pack:hinge-butt-60')?.amount ?? 0;
    expect(hinges(derived)).toBeGreaterThan(hinges(derive(flapped({ flapEnd: 'none' }), book)));
    const stood = after(
      flapped(),
      place({
        ...started(rack),
        id: 'r',
        body: { stands: 'free', x: 2100, length: 400, y: -700, width: 300, from: 0, to: 1000 },
      }),
    );
    const sweep = derive(stood, book).checks.find(({ id }) => id === 'sweep:u.flap');
    expect(sweep?.grade).toBe('fails');
    // from its face to the rack at 2100
    expect(sweep?.said.params).toMatchObject({ clear: { mm: 2100 - 2000 - 18 }, needs: { mm: 300 - 18 } });
    // where it hangs something stands already, 12 into it: it is lifted nowhere
    const inIt = after(
      flapped(),
      place({
        ...started(rack),
        id: 'r',
        body: { stands: 'free', x: 2006, length: 400, y: -700, width: 300, from: 0, to: 1000 },
      }),
    );
    const held = derive(inIt, book).checks.find(({ id }) => id === 'sweep:u.flap');
    expect(held?.grade).toBe('fails');
    expect(held?.said.params).toMatchObject({ clear: { mm: 0 } });
    const shorter = after(stood, ...(sweep?.mends[0]?.operations ?? []));
    expect(shorter.layout.units.find(({ id }) => id === 'u')?.options['flapLong']).toBe(100);
    expect(derive(shorter, book).checks.find(({ id }) => id === 'sweep:u.flap')).toBeUndefined();
    const past = flapped({ flapEnd: 'rear', flapLong: 300, x: Math.floor(room.length) - 900 });
    // out through the rear doors, beside which its end at the wall does not get
    const gradesOf = (project: Project) =>
      derive(project, book)
        .checks.filter(({ id }) => /^(sweep|outboard):u\.flap$/.test(id))
        .map(({ id, grade }) => [id.split(':')[0], grade]);
    expect(gradesOf(past)).toEqual([['outboard', 'fails']]);
    const shut = { ...past, survey: { ...past.survey, openings: [] } };
    expect(gradesOf(shut)).toEqual([['sweep', 'fails']]);
    expect(derive(flapped({ flapEnd: 'none' }), book).parts.some(({ role }) => role === 'top-flap')).toBe(false);
  });
});
