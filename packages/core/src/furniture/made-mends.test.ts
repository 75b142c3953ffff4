import { describe, expect, it } from 'vitest';
import bulrushFile from '../../../../demo/bulrush.json?raw';
import thimbleFile from '../../../../demo/thimble.json?raw';
import wrenFile from '../../../../demo/wren.json?raw';
import { derive } from '../derive/again.fixture.js';
import { mendAll } from '../derive/mend-all.js';
import { sceneOf } from '../derive/scene-of.js';
import type { Project, Unit } from '../document/schema.js';
import { readProjectFile } from '../formats/read.js';
import { say } from '../words/say.js';
import { bedAlong } from './families/bed-along.js';
import { bedOnRails } from './families/bed-on-rails.js';
import { cornerSeat } from './families/corner-seat.js';
import { highCupboard } from './families/high-cupboard.js';
import { FAMILIES } from './families/index.js';
import { outsideBoard } from './families/outside-board.js';
import { partition } from './families/partition.js';
import { plainBox } from './families/plain-box.js';
import { washRoom } from './families/wash-room.js';
import { applyOperation } from './kit.js';
import { madeHeight, topAt, tried } from './offer.js';

const { project: wren, priceBook: book } = readProjectFile(wrenFile);
const empty: Project = { ...wren, layout: { units: [] }, stored: [], wishes: [], variants: [] };
const room = derive(empty, book).inner;
if (!room) throw new Error('Wren has a room');
const start = { id: 'u', name: 'It', layout: empty.layout, people: empty.people, room, book };
const place = (project: Project, unit: Unit): Project =>
  applyOperation(project, { name: 'placeUnit', payload: { unit } }).project;
const sceneIn = (project: Project, from = book) => {
  const scene = sceneOf(project, derive(project, from), from, FAMILIES);
  if (!scene) throw new Error('there is a room');
  return scene;
};

describe('what mends something can be made', () => {
  it('a slide-out bed is put back only as far as its two sets still hold each other', () => {
    const { project, priceBook } = readProjectFile(thimbleFile);
    const bed = project.layout.units.find(({ family }) => family === 'slide-out-bed');
    if (!bed || bed.body.stands !== 'right') throw new Error('Thimble has one');
    const scene = sceneIn(project, priceBook);
    const { front } = bed.body;
    const problems = (to: number): number =>
      derive(
        applyOperation(project, { name: 'changeUnit', payload: { id: bed.id, changes: { front: to } } }).project,
        priceBook,
      ).made.find(({ unit }) => unit === bed.id)?.problems.length ?? NaN;
    // as far back as it can be made, and a little farther
    let last = front;
    while (tried(bed, { front: last + 5 }, scene)) last += 5;
    expect(last).toBeGreaterThan(front);
    expect(problems(last)).toBe(0);
    expect(problems(last + 5)).toBe(1);
    // one that cannot be made as it is may be changed to whatever
    const broken = { ...bed, body: { ...bed.body, front: last + 50 } };
    expect(tried(broken, { front: last + 60 }, scene)).not.toBeNull();
  });

  it('a bed on rails is lowered and raised to one of its steps', () => {
    const unit = bedOnRails.start(start);
    const bed = { ...unit, body: { ...unit.body, to: 800 }, options: { ...unit.options, step: 50 } };
    const scene = sceneIn(place(empty, bed));
    expect([801, 799, 774, 776, 730].map((to) => madeHeight(bed, scene, to))).toEqual([800, 800, 750, 800, 750]);
    expect([799, 774, 776].map((to) => madeHeight(bed, scene, to, true))).toEqual([750, 750, 750]);
    expect(tried(bed, { height: 784 }, scene)).toBeNull();
    // whoever cannot sit up is offered the next step that is low enough
    const high = place(
      { ...empty, people: [{ id: 'a', name: 'A', stature: 1600 }] },
      { ...bed, body: { ...bed.body, to: 1000 }, options: { ...bed.options, sleepers: ['a'] } },
    );
    const note = derive(high, book).checks.find(({ id }) => id === 'sitting-up:u:a');
    expect(note?.grade).toBe('fails');
    const short = -(note?.spare ?? 0);
    const lower = Math.ceil(short / 50) * 50;
    expect(note?.mends.map(({ said }) => say(said))).toContain(`Lower the platform by ${lower}`);
    const mended = (note?.mends[0]?.operations ?? []).reduce((p, one) => applyOperation(p, one).project, high);
    const after = derive(mended, book);
    expect(after.checks.find(({ id }) => id === 'sitting-up:u:a')?.grade).toBe('good');
    expect(after.problems.filter(({ place: at }) => at === 'u')).toEqual([]);
  });

  it('a sliding door across that would meet the wall has its opening moved, and then opens', () => {
    const unit = partition.start(start);
    // its door of 600 begins 300 left of the centre line: slid by 620 its edge of 20 over is 940 right of it
    const options = { ...unit.options, door: 'sliding', doorWidth: 600, doorAt: -300, doorHeight: 1200 };
    const wall: Unit = { ...unit, options };
    const project = place(empty, wall);
    const note = derive(project, book).checks.find(({ id }) => id === 'sweep:u.door');
    expect(note?.grade).toBe('fails');
    const mend = note?.mends.find(({ said }) => say(said).startsWith('Put the left edge of the door'));
    const mended = (mend?.operations ?? []).reduce((p, one) => applyOperation(p, one).project, project);
    const after = derive(mended, book);
    expect(mended.layout.units[0]?.options['doorAt']).toBeLessThan(-300);
    expect(after.checks.filter(({ id, grade }) => id === 'sweep:u.door' && grade === 'fails')).toEqual([]);
    // one that is as wide as half of the vehicle opens nowhere: that is not offered
    const wide = place(empty, { ...wall, options: { ...wall.options, doorWidth: 950, doorAt: -475 } });
    const none = derive(wide, book).checks.find(({ id }) => id === 'sweep:u.door');
    expect(none?.grade).toBe('fails');
    expect(none?.mends.filter(({ said }) => say(said).startsWith('Put the left edge of the door'))).toEqual([]);
  });

  it('a wash room is not made shorter than its door and what holds it, and says so where somebody does that', () => {
    const unit = washRoom.start(start);
    const wash = { ...unit, options: { ...unit.options, doorWidth: 500 } };
    const scene = sceneIn(place(empty, wash));
    expect(tried(wash, { length: 620 }, scene)).not.toBeNull();
    expect(tried(wash, { length: 619 }, scene)).toBeNull();
    const typed = applyOperation(place(empty, wash), {
      name: 'changeUnit',
      payload: { id: 'u', changes: { length: 600 } },
    }).project;
    expect(derive(typed, book).problems.map(({ said }) => say(said))).toContain('It is too short for its door.');
  });

  it.each([
    // two wings of 520 want a seat of 1040
    [
      'a corner seat is not shortened under its wings',
      cornerSeat,
      { wings: 'both', wingWide: 520 },
      'length',
      1040,
      -1,
    ],
    // its front is the inner face of a board of 15, 5 off the door that is shut
    ['an outside board is not put back through the door', outsideBoard, {}, 'front', null, 1],
    ['a high cupboard is not raised so far that the roof leaves it no height', highCupboard, {}, 'from', null, 1],
  ] as const)('%s', (_what, family, options, field, last, way) => {
    const unit = family.start(start);
    const stood: Unit = {
      ...unit,
      options: { ...unit.options, ...options },
      body: { ...unit.body, length: Math.max(unit.body.length, 1200) },
    };
    const scene = sceneIn(place(empty, stood));
    const at = (value: number): Project =>
      applyOperation(place(empty, stood), {
        name: 'changeUnit',
        payload: { id: 'u', changes: { [field]: value } },
      }).project;
    const problems = (value: number): number =>
      derive(at(value), book).made.reduce((sum, made) => sum + made.problems.length, 0);
    const now = Number(family.fields.find(({ name }) => name === field)?.get(stood));
    expect(problems(now)).toBe(0);
    let to = now;
    while (tried(stood, { [field]: to + way }, scene) && Math.abs(to - now) < 1000) to += way;
    // the very last that can be made, and it is offered nothing beyond it
    expect(Math.abs(to - now)).toBeGreaterThan(0);
    if (last !== null) expect(to).toBe(last);
    expect(problems(to)).toBe(0);
    expect(problems(to + way)).toBeGreaterThan(0);
  });

  it('a bed that hangs is lowered as a whole, and stays as thick as it is', () => {
    const bunk = bedAlong.start(start);
    const hung = { ...bunk, body: { ...bunk.body, from: 860, to: 975 } };
    const scene = sceneIn(place(empty, hung));
    expect(topAt(hung, scene, 940)).toEqual({ from: 825 });
    const lower = tried(hung, topAt(hung, scene, 940), scene);
    expect(lower?.body).toMatchObject({ from: 825, to: 940 });
    // one that stands on the floor becomes lower, and so does one that would hang in it
    expect(topAt({ ...hung, body: { ...hung.body, from: 0 } }, scene, 940)).toEqual({ height: 940 });
    expect(topAt({ ...hung, body: { ...hung.body, from: 30 } }, scene, 940)).toEqual({ height: 940 });
  });

  it('is searched for no longer than it may take, and what was found by then is given', () => {
    const file = readProjectFile(bulrushFile);
    let asked = 0;
    // each look at the clock is 10 s later
    const now = () => (asked += 1) * 10_000;
    const short = mendAll(file.project, file.priceBook, undefined, { now, longest: 35_000 });
    expect(short.tried).toBeLessThan(5);
    expect(asked).toBeLessThan(8);
    const none = mendAll(file.project, file.priceBook, undefined, { now, longest: 0 });
    expect([none.tried, none.operations]).toEqual([1, []]);
    expect(none.left.length).toBeGreaterThan(0);
  });

  it('and all mends together leave nothing that cannot be', () => {
    const unit = washRoom.start(start);
    const { length } = unit.body;
    const wash = { ...unit, options: { ...unit.options, doorWidth: length - 120 } };
    // a plain box runs into it by half of its length
    const box = plainBox.start({ ...start, id: 'box', name: 'Box' });
    const set = place(place(empty, wash), {
      ...box,
      body: { stands: 'free', x: wash.body.x + length / 2, length: 900, y: -900, width: 600, from: 0, to: 700 },
    });
    const before = derive(set, book);
    expect(before.checks.some(({ rule, grade }) => rule === 'collision' && grade === 'fails')).toBe(true);
    const { project, left } = mendAll(set, book);
    expect(left.filter(({ rule }) => rule === 'collision')).toEqual([]);
    expect(derive(project, book).made.flatMap(({ problems }) => problems)).toEqual([]);
  });
});
