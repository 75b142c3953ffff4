import { describe, expect, it } from 'vitest';
import wrenFile from '../../../../../demo/wren.json?raw';
import { derive } from '../../derive/again.fixture.js';
import { sceneOf } from '../../derive/scene-of.js';
import type { Operation } from '../../document/operation.js';
import type { Pet, Project } from '../../document/schema.js';
import { readProjectFile } from '../../formats/read.js';
import { FAMILIES } from '../../furniture/families/index.js';
import { applyOperation } from '../../furniture/kit.js';
import { solidsOf } from '../../furniture/solid.js';
import { petPlaceRule, petRoadRule } from '../../rules/pets.js';
import { overlapOf } from '../../rules/room.js';
import { halfWidth } from '../../shell/shell.js';
import { say } from '../../words/say.js';
import { offeredIn } from '../gap-offers.js';
import { gapsOf } from '../gaps.js';
import { lyingOnFloor, nearestDen, petRoom } from '../pets.js';

const { project: wren, priceBook } = readProjectFile(wrenFile);
const WOOL: Pet = { id: 'wool', name: 'Wool', length: 650, width: 200, height: 560 };
const done = (project: Project, ...operations: Operation[]): Project =>
  operations.reduce((at, operation) => applyOperation(at, operation, priceBook).project, project);
const putPet = (pet: Pet = WOOL): Operation => ({ name: 'putPet', payload: { pet } });
const lay = (at: Extract<Operation, { name: 'layPet' }>['payload']['at']): Operation => ({
  name: 'layPet',
  payload: { pet: 'wool', at },
});
const EMPTY = done(
  wren,
  ...wren.layout.units.map(({ id }): Operation => ({ name: 'removeUnit', payload: { id } })),
  ...(wren.layout.modes ?? []).map(({ id }): Operation => ({ name: 'removeMode', payload: { id } })),
  putPet(),
);
const sceneIn = (project: Project) => {
  const scene = sceneOf(project, derive(project, priceBook), priceBook, FAMILIES);
  if (!scene) throw new Error('there is a room');
  return scene;
};
const note = (project: Project, id = 'pet-place:wool') =>
  derive(project, priceBook).checks.find((check) => check.id === id);
/** A box with a name that stands free: from x and y so long and wide, between two heights above the floor. */
const box = (x: number, y: number, length: number, width: number, from: number, to: number): Operation => ({
  name: 'placeUnit',
  payload: {
    unit: {
      id: `box${x}`,
      family: 'plain-box',
      name: 'Crate stack',
      body: { stands: 'free', x, y, length, width, from, to },
      meets: {},
      division: { name: 'none', holds: { kind: 'open' }, front: { kind: 'none' } },
      school: 'plywood',
      materials: {},
      options: {},
    },
  },
});

describe('where an animal lies', () => {
  const ask = (long: number, wide: number, high: number) =>
    petPlaceRule.run({
      length: 650,
      width: 200,
      height: 560,
      free: { long, wide, high },
      shut: false,
      door: null,
      name: 'Wool',
    });

  it('is long enough to stretch out, wide enough to turn round and high enough to stand', () => {
    // 650 + 100 long, 2 x 200 wide, 560 + 50 high
    expect(ask(750, 400, 610)).toMatchObject({ grade: 'good', spare: 0 });
    expect(ask(749, 400, 610)).toMatchObject({ grade: 'tight', spare: -1 });
    expect(ask(750, 300, 610)).toMatchObject({ grade: 'tight', spare: -100, tight: 300 });
    expect(ask(750, 299, 610)).toMatchObject({ grade: 'fails' });
    expect(ask(750, 400, 559)).toMatchObject({ grade: 'fails', spare: -51 });
    expect(ask(640, 400, 560).said.key).toBe('rule.petPlace.fails');
  });
  it('in a bay has to be got into: 200 over the shoulders and 560 high want 250 and 560, 200 and 420 with the head down', () => {
    const through = (wide: number, high: number) =>
      petPlaceRule.run({
        length: 650,
        width: 200,
        height: 560,
        free: { long: 900, wide: 600, high: 700 },
        shut: false,
        door: { wide, high },
        name: 'Wool',
      });
    expect(through(250, 560)).toMatchObject({ grade: 'good' });
    expect(through(249, 560)).toMatchObject({ grade: 'tight', spare: -1 });
    expect(through(250, 420)).toMatchObject({ grade: 'tight', spare: -140 });
    expect(through(250, 419)).toMatchObject({ grade: 'fails' });
    expect(say(through(199, 560).said)).toContain('does not get into the bay where it lies through 199 of width');
  });
  it('is kept off by what is offered beside it, and built over only where nothing else is left', () => {
    const offered = (project: Project) => {
      const scene = sceneIn(project);
      const start = (noun: string) => ({
        id: noun,
        name: noun,
        layout: project.layout,
        people: project.people,
        room: scene.inner,
        book: priceBook,
      });
      return gapsOf(scene).flatMap((gap) =>
        FAMILIES.flatMap((family) => offeredIn(family, gap, start(family.words.noun), scene)?.unit ?? []),
      );
    };
    const at = { x: 1500, y: 300, turned: false };
    const lies = done(EMPTY, lay(at));
    const [den] = lyingOnFloor(sceneIn(lies));
    if (!den) throw new Error('it lies on the floor');
    const over = (project: Project) =>
      offered(project).filter((unit) =>
        solidsOf(unit, sceneIn(project), FAMILIES).some((box) => overlapOf(box, den) !== null),
      );
    const before = over(EMPTY).length;
    expect(before).toBeGreaterThan(5);
    // what is left is what takes all of the floor there
    expect(over(lies).length).toBeLessThan(before / 2);
    expect(offered(lies).length).toBe(offered(EMPTY).length);
  });
  it('is not known until somebody says, and fails behind a door however large it is', () => {
    expect(note(EMPTY)).toMatchObject({ grade: 'unknown' });
    const shut = {
      length: 650,
      width: 200,
      height: 560,
      free: { long: 900, wide: 900, high: 900 },
      shut: true,
      door: null,
    };
    expect(petPlaceRule.run({ ...shut, name: 'Wool' })).toMatchObject({ grade: 'fails' });
  });

  it('is free on both sides to the nearer thing: the wall, a box beside it, a shelf above', () => {
    const x = 1500;
    const wall = (y: number): number => {
      const { inner } = sceneIn(EMPTY);
      // the wall at its narrowest over the body, up to half its height
      return Math.min(
        ...[x - 325, x, x + 325].flatMap((at) =>
          [0, 280].map((z) => halfWidth(inner, 'left', at, inner.floor + z) + y),
        ),
      );
    };
    const beside = petRoom(WOOL, { x, y: -500, turned: false }, sceneIn(EMPTY));
    expect(beside?.wide).toBeCloseTo(2 * wall(-500), 0);
    const boxed = done(EMPTY, box(x + 400, -100, 300, 300, 0, 400), box(x - 200, -100, 200, 200, 500, 900));
    const room = petRoom(WOOL, { x, y: 0, turned: false }, sceneIn(boxed));
    // 400 to the box behind it, and the underside of the other over it
    expect(room).toMatchObject({ long: 800, high: 500, by: 'Crate stack' });
    // a box out of its line is nothing to its length
    const away = done(EMPTY, box(x + 400, 110, 300, 300, 0, 400));
    expect(petRoom(WOOL, { x, y: 0, turned: false }, sceneIn(away))?.long).toBeGreaterThan(1500);
    // and turned round it is in the way of nothing but its width
    const turned = petRoom(WOOL, { x, y: 0, turned: true }, sceneIn(done(EMPTY, box(x + 150, 200, 300, 300, 0, 400))));
    expect(turned?.wide).toBe(300);
  });

  it('is mended by one press, to a place that is good', () => {
    const stood = done(EMPTY, lay({ x: 1500, y: 0, turned: false }), box(1600, -100, 300, 300, 0, 400));
    const fails = note(stood);
    expect(fails).toMatchObject({ grade: 'fails' });
    expect(fails && say(fails.said)).toContain('Wool has only 200');
    const [mend] = fails?.mends ?? [];
    expect(note(done(stood, ...(mend?.operations ?? [])))).toMatchObject({ grade: 'good' });
    // and nobody has to say where first
    const [first] = note(EMPTY)?.mends ?? [];
    expect(note(done(EMPTY, ...(first?.operations ?? [])))).toMatchObject({ grade: 'good' });
  });

  it('has to be clear in every mode: what is drawn out over it is told with its mode', () => {
    const { motions } = derive(wren, priceBook).made.find(({ unit }) => unit === 'kitchen')?.skeleton ?? {};
    const slide = motions?.find((motion) => motion.kind === 'slide' && motion.by[1] > 200);
    if (slide?.kind !== 'slide') throw new Error('the kitchen has something that slides out');
    const { shut, by } = slide;
    const y = shut.y1 + by[1] / 2;
    const x = (shut.x0 + shut.x1) / 2;
    const lies = done(
      wren,
      putPet({ ...WOOL, length: 300, width: 100, height: 200 }),
      { name: 'putMode', payload: { mode: { id: 'out', name: 'Out', use: 'own', states: { [slide.of]: 1 } } } },
      lay({ x, y, turned: false }),
    );
    expect(note(lies, 'pet-place:out:wool')).toMatchObject({ mode: 'out' });
    expect(note(lies, 'pet-place:out:wool')?.grade).not.toBe('good');
    const scene = sceneIn(lies);
    const at = nearestDen({ ...WOOL, length: 300, width: 100, height: 200 }, [x, y], scene);
    if (!at) throw new Error('there is room');
    const moved = derive(done(lies, lay(at)), priceBook).checks.filter(({ id }) => id.startsWith('pet-place'));
    expect(moved.map(({ grade }) => grade)).toEqual(['good']);
  });

  it('is not where another lies: both are told, and one moved by one press is enough', () => {
    const two = done(EMPTY, putPet({ ...WOOL, id: 'moss', name: 'Moss' }), lay({ x: 1500, y: 0, turned: false }), {
      name: 'layPet',
      payload: { pet: 'moss', at: { x: 1500, y: 150, turned: false } },
    });
    // 50 from the middle of the one to the side of the other
    expect(petRoom(WOOL, { x: 1500, y: 0, turned: false }, sceneIn(two))).toMatchObject({ wide: 100, by: 'Moss' });
    expect([note(two)?.grade, note(two, 'pet-place:moss')?.grade]).toEqual(['fails', 'fails']);
    const [mend] = note(two)?.mends ?? [];
    const mended = done(two, ...(mend?.operations ?? []));
    expect([note(mended)?.grade, note(mended, 'pet-place:moss')?.grade]).toEqual(['good', 'good']);
  });
  it('in a bay is the room of that bay, open or not', () => {
    const [unit] = derive(wren, priceBook).made.filter(({ skeleton }) =>
      (skeleton?.bays ?? []).some(({ bay }) => bay.holds.kind === 'drawers'),
    );
    const drawers = unit?.skeleton?.bays?.find(({ bay }) => bay.holds.kind === 'drawers');
    if (!unit || !drawers) throw new Error('there are drawers');
    const inDrawers = done(wren, putPet(), lay({ unit: unit.unit, bay: drawers.bay.name }));
    expect(note(inDrawers)).toMatchObject({ grade: 'fails', unit: unit.unit });
    const opened = done(inDrawers, {
      name: 'changeBay',
      payload: { id: unit.unit, bay: drawers.bay.name, holds: { kind: 'open' }, front: { kind: 'none' } },
    });
    const scene = sceneIn(opened);
    const room = petRoom(WOOL, { unit: unit.unit, bay: drawers.bay.name }, scene);
    const bay = scene.skeletons.get(unit.unit)?.bays?.find(({ bay: own }) => own.name === drawers.bay.name)?.room;
    if (!bay || !room) throw new Error('there is a bay');
    expect([room.long, room.wide].sort((a, b) => a - b)).toEqual(
      [bay.x1 - bay.x0, bay.y1 - bay.y0].sort((a, b) => a - b),
    );
    expect(room.shut).toBe(false);
    // it is got into from its front: as wide as the bay, and as high as it or up to the rail under its head
    expect(room.door?.wide).toBe(bay.x1 - bay.x0);
    expect(room.door?.high).toBeLessThanOrEqual(bay.z1 - bay.z0);
    // a sliding door leaves half of its front, but shut it is no place to lie
    const slid = done(opened, {
      name: 'changeBay',
      payload: {
        id: unit.unit,
        bay: drawers.bay.name,
        holds: { kind: 'open' },
        front: { kind: 'doors', count: 1, latch: true },
      },
    });
    expect(note(slid)?.said.key).toBe('rule.petShut.fails');
    // it goes with its unit
    expect(done(opened, { name: 'removeUnit', payload: { id: unit.unit } }).layout.dens).toEqual([]);
  });
});

describe('an animal on the road', () => {
  it('is never called safe: what is missing is asked for, then what it has to hold is told', () => {
    const ask = (mass: number | null, rides: 'crate' | null) => petRoadRule.run({ mass, rides, name: 'Wool' });
    expect([ask(null, null), ask(null, 'crate'), ask(18, 'crate')].map(({ grade }) => grade)).toEqual([
      'unknown',
      'unknown',
      'unknown',
    ]);
    // 20 N for each of 18 kg
    expect(say(ask(18, 'crate').said)).toContain('360 N');
  });
  it('weighs where it lies, in the cab while nobody has said, and not at all in a trailer', () => {
    const heavy = putPet({ ...WOOL, mass: 30 });
    const added = (project: Project) => derive(project, priceBook).weight;
    const bare = done(EMPTY, { name: 'removePet', payload: { id: 'wool' } });
    const here = added(done(EMPTY, heavy, lay({ x: 2000, y: 0, turned: false })));
    expect(here.added - added(bare).added).toBeCloseTo(30, 6);
    const moment = (figures: typeof here) => figures.added * (figures.centre?.[0] ?? 0);
    expect(moment(here) - moment(added(bare))).toBeCloseTo(30 * 2000, 3);
    expect(moment(added(done(EMPTY, heavy))) - moment(added(bare))).toBeCloseTo(30 * -700, 3);
    const trailer = { ...bare, vehicle: { ...bare.vehicle, kind: 'trailer' as const } };
    expect(added(done(trailer, heavy)).added).toBeCloseTo(added(trailer).added, 9);
  });
});
