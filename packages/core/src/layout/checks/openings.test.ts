import { describe, expect, it } from 'vitest';
import bulrushFile from '../../../../../demo/bulrush.json?raw';
import wrenFile from '../../../../../demo/wren.json?raw';
import { derive } from '../../derive/again.fixture.js';
import { sceneOf } from '../../derive/scene-of.js';
import type { Operation } from '../../document/operation.js';
import type { ProjectFile } from '../../document/schema.js';
import { readProjectFile } from '../../formats/read.js';
import { FAMILIES } from '../../furniture/families/index.js';
import type { Family } from '../../furniture/family.js';
import { applyOperation } from '../../furniture/kit.js';
import { doorHeadRule, doorwayRule, glassGapRule, sashRule } from '../../rules/openings.js';
import { placedOpenings, widthOf } from '../../shell/openings.js';
import { offersIn } from '../gap-offers.js';
import { gapsOf } from '../gaps.js';
import { say } from '../../words/say.js';

const wren = readProjectFile(wrenFile);
const bulrush = readProjectFile(bulrushFile);
const after = ({ project, priceBook }: ProjectFile, ...operations: Operation[]) =>
  derive(
    operations.reduce((p, operation) => applyOperation(p, operation).project, project),
    priceBook,
  );
const move = (id: string, changes: Record<string, number | string>): Operation => ({
  name: 'changeUnit',
  payload: { id, changes },
});

describe('a door that furniture stands in', () => {
  it('is judged by the widest stretch that is left free, a narrow door by itself', () => {
    const grade = (free: number, width = 1100) => doorwayRule.run({ free, width, name: '', by: '' }).grade;
    expect([grade(550), grade(549), grade(400), grade(399)]).toEqual(['good', 'tight', 'tight', 'fails']);
    expect([grade(380, 380), grade(379, 380)]).toEqual(['good', 'fails']);
  });

  it('is named with what stands in it, and free again when that moves away', () => {
    const door = wren.project.survey.openings.find((o) => o.kind === 'door' && o.surface !== 'rear');
    if (!door || (door.surface !== 'left' && door.surface !== 'right')) throw new Error('the demo has a side door');
    const read = (what: string): number =>
      wren.project.survey.readings[`opening/${door.id}/${what}`]?.at(-1)?.value ?? 0;
    const unit = wren.project.layout.units.find((one) => one.body.stands === door.surface);
    const checkIn = (x: number) =>
      after(wren, move(unit?.id ?? '', { x })).checks.find((check) => check.id === `doorway:${door.id}`);
    // its end reaches past the door's start so far that 300 are left
    const length = unit && 'length' in unit.body ? unit.body.length : 0;
    const blocked = checkIn(read('to') - 300 - length);
    expect(blocked?.grade).toBe('fails');
    expect(blocked && say(blocked.said)).toContain(unit?.name ?? 'nothing');
    expect(checkIn(read('from') - length - 1)).toBeUndefined();
  });
});

describe('what stands over a step', () => {
  it('has no floor under it', () => {
    const { arches } = derive(bulrush.project, bulrush.priceBook);
    const step = arches.find((arch) => arch.kind === 'step');
    const unit = bulrush.project.layout.units.find((one) => one.body.stands === step?.side);
    if (!step || !unit) throw new Error('the demo has a step, and a unit on its side');
    const over = (x: number) =>
      after(bulrush, move(unit.id, { x })).checks.find((check) => check.id === `over-step:${unit.id}:${step.id}`);
    expect(over(step.from + 50)?.grade).toBe('fails');
    expect(over(step.to + 1)).toBeUndefined();
  });
});

describe('glass behind a unit', () => {
  it('is freed by one press: what stands before it is moved clear of it, or made shorter', () => {
    const window = placedOpenings(wren.project.survey).find(({ opening }) => opening.id === 'o1');
    const tall = wren.project.layout.units.find(({ family }) => family === 'tall-cupboard');
    if (!window || tall?.body.stands !== 'left') throw new Error('there is a window, and a tall cupboard on the left');
    const { body } = tall;
    const bare = wren.project.layout.units.map(({ id }): Operation => ({ name: 'removeUnit', payload: { id } }));
    const at = (x: number): Operation => ({
      name: 'placeUnit',
      payload: { unit: { ...tall, id: 'tall', body: { ...body, x } } },
    });
    const { from, to } = widthOf(window);
    const hidden = (operations: Operation[]) => after(wren, ...operations).checks.find(({ id }) => id === 'glass:o1');
    const note = hidden([...bare, at(Math.round(from) + 20)]);
    expect(note?.grade).toBe('tight');
    expect(note?.mends.length).toBeGreaterThan(0);
    for (const { operations } of note?.mends ?? [])
      expect(hidden([...bare, at(Math.round(from) + 20), ...operations])).toBeUndefined();
    expect(hidden([...bare, at(Math.ceil(to) + 1)])).toBeUndefined();
  });
  it('is told once of a unit, of however many parts it is', () => {
    const corner = FAMILIES.find(({ id }) => id === 'corner-seat');
    const room = after(wren).inner;
    if (!corner || !room) throw new Error('there is a room');
    const { project, priceBook } = wren;
    const start = {
      id: 'corner',
      name: 'Corner',
      layout: project.layout,
      people: project.people,
      room,
      book: priceBook,
    };
    const unit = corner.start(start);
    const body = { stands: 'left' as const, x: 600, length: 1200, front: 300, from: 0, to: 1300 };
    // its wings end within the width of the kitchen window
    const scene = after(
      wren,
      { name: 'removeUnit', payload: { id: 'kitchen' } },
      { name: 'placeUnit', payload: { unit: { ...unit, body } } },
    );
    const ids = scene.checks.map(({ id }) => id);
    expect(ids.filter((id) => id.startsWith('glass-gap:') && id.endsWith(':corner'))).toHaveLength(1);
    expect([...new Set(ids)]).toHaveLength(ids.length);
  });

  it('is out of reach when it lies near', () => {
    const grade = (clear: number | null) => glassGapRule.run({ clear, name: '', by: '' }).grade;
    expect([grade(30), grade(29), grade(15), grade(14), grade(null)]).toEqual([
      'good',
      'tight',
      'tight',
      'fails',
      'unknown',
    ]);
  });

  it('is as far off as its frame lies behind the finished face at its nearest corner', () => {
    const window = wren.project.survey.openings.find((o) => o.kind === 'window' && o.surface === 'right');
    const unit = wren.project.layout.units.find((one) => one.body.stands === 'right');
    if (!window || !unit) throw new Error('the demo has a window, and a unit on its side');
    const read = (what: string): number =>
      wren.project.survey.readings[`opening/${window.id}/${what}`]?.at(-1)?.value ?? 0;
    const derived = after(wren, move(unit.id, { x: read('from'), height: read('sill') + 200 }));
    const deep = Math.min(...['frame-front-low', 'frame-front-high', 'frame-rear-low', 'frame-rear-high'].map(read));
    const found = derived.checks.find((check) => check.id === `glass-gap:${window.id}:${unit.id}`);
    expect(found?.spare).toBeCloseTo(deep + derived.depths.right.total - 30, 6);
    // below the sill it hides nothing
    const low = after(wren, move(unit.id, { x: read('from'), height: read('sill') - 100 }));
    expect(low.checks.some((check) => check.id.startsWith(`glass-gap:${window.id}`))).toBe(false);
  });
});

describe('a window that comes into the room', () => {
  it('strikes what stands before it, and only then', () => {
    const grade = (clear: number) => sashRule.run({ clear, sweep: 250, name: '', by: '' }).grade;
    expect([grade(270), grade(269), grade(249)]).toEqual(['good', 'tight', 'fails']);
    const window = wren.project.survey.openings.find((o) => o.kind === 'window' && o.surface === 'right');
    if (!window) throw new Error('the demo has a window');
    const sash = (sweep: number | null) =>
      after(wren, { name: 'putOpening', payload: { opening: { ...window, sweep } } }).checks.filter((check) =>
        check.id.startsWith(`sash:${window.id}`),
      );
    expect(sash(null)).toEqual([]);
    const before = wren.project.layout.units.filter((unit) => {
      const sill = wren.project.survey.readings[`opening/${window.id}/sill`]?.at(-1)?.value ?? 0;
      return (unit.body.stands === 'right' || unit.body.stands === 'across') && unit.body.to > sill;
    });
    expect(sash(200).length).toBeLessThanOrEqual(before.length);
    for (const check of sash(200)) expect(check.grade).toBe('fails');
  });
});

describe('what hangs in a door, or stands free before it', () => {
  const away = wren.project.layout.units.map(({ id }): Operation => ({ name: 'removeUnit', payload: { id } }));
  const overhead = wren.project.layout.units.find(({ id }) => id === 'overhead-right');
  const bare = after(wren, ...away);
  const door = { from: 240, to: 1370, head: 1690 };
  const inner = bare.inner;
  if (!overhead || overhead.body.stands !== 'right' || !inner)
    throw new Error('Wren has a cupboard over its right wall');
  const { body } = overhead;
  const hung = (x: number, from: number): Operation => ({
    name: 'placeUnit',
    payload: { unit: { ...overhead, id: 'hung', body: { ...body, x, length: 900, from, to: from + 300 } } },
  });
  const noteIn = (derived: ReturnType<typeof after>, id: string) => derived.checks.find((check) => check.id === id);
  const did = (operations: readonly Operation[], ...before: Operation[]) =>
    after(wren, ...away, ...before, ...operations);

  it('is ducked under down to 1300, and a low door is judged by itself', () => {
    const grade = (free: number, high = 1690) => doorHeadRule.run({ free, high, name: '', by: '' }).grade;
    expect([grade(1690), grade(1689), grade(1300), grade(1299)]).toEqual(['good', 'tight', 'tight', 'fails']);
    expect([grade(1100, 1100), grade(1099, 1100)]).toEqual(['good', 'fails']);
  });
  it('is told by the height that is left, not as if it stood on the floor, and moved out by one press', () => {
    const at1400 = after(wren, ...away, hung(300, 1400));
    expect(noteIn(at1400, 'doorway:o3')).toBeUndefined();
    const tight = noteIn(at1400, 'door-head:o3');
    expect(tight).toMatchObject({ grade: 'tight', spare: 1400 - (door.head - inner.floor) });
    expect(noteIn(after(wren, ...away, hung(300, 1200)), 'door-head:o3')?.grade).toBe('fails');
    // the door's front end is too near the front of the floor
    const [mend, ...others] = tight?.mends ?? [];
    expect(mend?.operations).toEqual([{ name: 'changeUnit', payload: { id: 'hung', changes: { x: door.to } } }]);
    expect(others).toEqual([]);
    expect(noteIn(did(mend?.operations ?? [], hung(300, 1400)), 'door-head:o3')).toBeUndefined();
  });
  it('over the head of the door, or beside it, is nothing to it', () => {
    expect(noteIn(after(wren, ...away, hung(door.to, 1400)), 'door-head:o3')).toBeUndefined();
  });
  it('is made shorter up to the door where it reaches into it', () => {
    const [move, shorten] = noteIn(after(wren, ...away, hung(1300, 1400)), 'door-head:o3')?.mends ?? [];
    expect(move?.operations).toEqual([{ name: 'changeUnit', payload: { id: 'hung', changes: { x: door.to } } }]);
    expect(shorten?.operations).toEqual([
      { name: 'changeUnit', payload: { id: 'hung', changes: { x: door.to, length: 830 } } },
    ]);
    expect(noteIn(did(shorten?.operations ?? [], hung(1300, 1400)), 'door-head:o3')).toBeUndefined();
  });
  it('and a box that stands free is in the way where nobody gets past it to the door', () => {
    const free = (y: number): Operation => ({
      name: 'placeUnit',
      payload: {
        unit: {
          id: 'crate',
          family: 'plain-box',
          name: 'Crate',
          body: { stands: 'free', x: 300, y, length: 1000, width: 300, from: 0, to: 500 },
          meets: {},
          division: { name: 'inside', holds: { kind: 'open' }, front: { kind: 'none' } },
          school: 'plywood',
          materials: {},
          options: {},
        },
      },
    });
    // 1370 - 1300 beside it
    expect(noteIn(after(wren, ...away, free(400)), 'doorway:o3')).toMatchObject({ grade: 'fails', unit: 'crate' });
    expect(noteIn(after(wren, ...away, free(0)), 'doorway:o3')).toBeUndefined();
  });
  it('is offered in no free stretch', () => {
    const scene = sceneOf(
      away.reduce((p, operation) => applyOperation(p, operation).project, wren.project),
      bare,
      wren.priceBook,
      FAMILIES,
    );
    if (!scene) throw new Error('there is a room');
    const start = (family: Family) => ({
      id: family.words.noun,
      name: family.words.start,
      layout: { units: [] },
      people: wren.project.people,
      room: inner,
      book: wren.priceBook,
    });
    const offers = gapsOf(scene)
      .filter(({ zone }) => zone !== 'door')
      .flatMap((gap) => offersIn(gap, FAMILIES, start, scene));
    expect(offers.length).toBeGreaterThan(10);
    for (const { unit, family } of offers) {
      const then = derive(
        away.reduce((p, operation) => applyOperation(p, operation).project, {
          ...wren.project,
          layout: { ...wren.project.layout, units: [...wren.project.layout.units, { ...unit, id: 'offered' }] },
        }),
        wren.priceBook,
      );
      expect(
        then.checks.filter(({ rule }) => rule === 'doorway' || rule === 'door-head').map(({ id }) => id),
        family.id,
      ).toEqual([]);
    }
  });
});
