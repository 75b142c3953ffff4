import type { Derived } from '../../derive/derived.js';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import bulrushFile from '../../../../../demo/bulrush.json?raw';
import thimbleFile from '../../../../../demo/thimble.json?raw';
import wrenFile from '../../../../../demo/wren.json?raw';
import { readProjectFile } from '../../formats/read.js';
import { outlineArea, rectangle, type Outline } from '../../numeric/plane.js';
import { clipTo, cutOut } from '../../numeric/shapes.js';
import { derive } from '../../derive/again.fixture.js';
import { applyOperation } from '../../furniture/kit.js';
import type { FloorChoice, PriceItem, Project } from '../../document/schema.js';
import { SURFACE_LIST } from '../../document/surfaces.js';
import { NO_RUNS } from '../../furniture/runs.js';
import { scheduleOf } from '../../work/schedule.js';
import type { Task } from '../../work/task.js';
import { tasksOf, type TasksInput } from '../../work/tasks.js';
import { message } from '../../words/message.js';
import { floorFinish } from './floor-finish.js';
import { keptBack } from './floor-holes.js';
import { floorInsulation } from './floor-pieces.js';
import { finishWays } from './finish-ways.js';
import { templateParts } from './floor.js';

const wren = readProjectFile(wrenFile);
const bulrush = readProjectFile(bulrushFile);
const thimble = readProjectFile(thimbleFile);
const item = (id: string): PriceItem => {
  const found = wren.priceBook.items.find((candidate) => candidate.id === id);
  if (!found) throw new Error(id);
  return found;
};
const room = (length: number, width: number): Outline => ({ outer: rectangle(0, 0, length, width), holes: [] });
const insulated = ({ depths }: Derived, surface: 'left' | 'right' | 'ceiling'): boolean =>
  depths[surface].layers.some(({ layer }) => layer.place === 'in-ribs');
const EVERYWHERE = { finish: 'everywhere', tiles: 'grid', joint: 0 } as const;
const floorChange = (project: Project, changes: Partial<FloorChoice>): Project =>
  applyOperation(project, { name: 'changeFloor', payload: { changes } }).project;

describe('tiles', () => {
  const tiles = item('tiles-3');

  it('that fit whole are laid whole', () => {
    const finish = floorFinish(room(3000, 1500), tiles, [], EVERYWHERE);
    expect(finish).toMatchObject({ laid: 'tiles', planks: 50, short: 0, legal: true });
    expect(finish?.rows.every((row) => row.pieces.length === 10)).toBe(true);
  });

  it('are balanced: no strip under a third at either side, however wide the room', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1000, max: 6000 }),
        fc.integer({ min: 900, max: 2300 }),
        fc.constantFrom('grid' as const, 'half' as const),
        (length, width, pattern) => {
          const finish = floorFinish(room(length, width), tiles, [], { ...EVERYWHERE, tiles: pattern, joint: 3 });
          if (!finish) throw new Error('nothing');
          const first = finish.rows[0];
          const last = finish.rows.at(-1);
          expect(Math.min((first?.y1 ?? 0) - (first?.y0 ?? 0), (last?.y1 ?? 0) - (last?.y0 ?? 0))).toBeGreaterThan(
            pattern === 'grid' ? 100 : 0,
          );
          // every row is covered but for its joints
          for (const row of finish.rows) {
            const covered = row.pieces.reduce((sum, piece) => sum + piece.x1 - piece.x0, 0);
            expect(length - covered).toBeLessThanOrEqual(3 * row.pieces.length + 1e-6);
          }
          const area = finish.rows.reduce(
            (sum, row) => sum + row.pieces.reduce((a, piece) => a + (piece.x1 - piece.x0) * (row.y1 - row.y0), 0),
            0,
          );
          // never fewer tiles than the area takes
          expect(finish.planks * 300 * 300).toBeGreaterThanOrEqual(area - 1);
        },
      ),
      { numRuns: 60, seed: 3 },
    );
  });

  it('shift each other row by half a tile', () => {
    const finish = floorFinish(room(3000, 1500), tiles, [], { ...EVERYWHERE, tiles: 'half' });
    const joints = finish?.rows.map((row) => (row.pieces[1]?.x0 ?? 0) % 300) ?? [];
    expect(Math.abs((joints[0] ?? 0) - (joints[1] ?? 0))).toBeCloseTo(150, 6);
    expect(joints[2]).toBeCloseTo(joints[0] ?? NaN, 6);
  });
});

describe('a roll', () => {
  const roll = item('roll-2');

  it('is laid in one lane where it is wide enough, with a trim left at both ends', () => {
    expect(floorFinish(room(3000, 1800), roll, [], EVERYWHERE)).toMatchObject({ metres: 3.1, seams: 0, planks: 0 });
  });

  it('goes the way that takes less: two lanes along, or lanes across', () => {
    // 2.6 wide: along needs 2 lanes of 4.1; across 3 lanes (4.1 in all, with trim) of 2.7
    const finish = floorFinish(room(4000, 2600), roll, [], EVERYWHERE);
    expect(finish?.metres).toBeCloseTo(Math.min(2 * 4.1, 3 * 2.7), 6);
    expect(finish?.seams).toBeCloseTo(2 * 2.6, 6);
  });

  it('is bought by the metre, and its lanes have templates where they are cut out', () => {
    const derived = derive(bulrush.project, bulrush.priceBook);
    const { finish } = derived.floor;
    const line = derived.shopping.lines.find((candidate) => candidate.material === 'roll-2');
    expect(line?.quantity).toBe(Math.ceil(finish?.metres ?? 0));
    expect(finish?.awkward.length).toBeGreaterThan(0);
    const patterns = templateParts(derived).filter(({ role }) => role === 'cavity');
    expect(patterns).toHaveLength(derived.cavities.filter(({ surface }) => insulated(derived, surface)).length);
    expect(templateParts(derived).length).toBe(derived.parts.length + (finish?.awkward.length ?? 0) + patterns.length);
    // what is cut from a roll is not cut from bars
    expect(derived.plans.some((plan) => plan.material.id === 'roll-2')).toBe(false);
  });
});

describe('awkward pieces', () => {
  it('are those that are cut round something, at their true outline', () => {
    const arch = rectangle(1000, 0, 1600, 250);
    const [outline] = cutOut(room(3000, 1500), [arch]);
    if (!outline) throw new Error('no outline');
    const finish = floorFinish(outline, item('planks-5'), [], EVERYWHERE);
    const whole = floorFinish(room(3000, 1500), item('planks-5'), [], EVERYWHERE);
    expect(whole?.awkward).toEqual([]);
    expect(finish?.awkward.length).toBeGreaterThan(0);
    for (const part of finish?.awkward ?? []) {
      const [x, y] = part.place.origin;
      const placed = part.outline.outer.map(([a, b]) => [a + x, b + y] as const);
      const inside = clipTo(outline, placed).reduce((sum, piece) => sum + outlineArea(piece), 0);
      expect(inside).toBeCloseTo(outlineArea(part.outline), 3);
      expect(
        clipTo({ outer: placed, holes: [] }, arch).reduce((sum, piece) => sum + outlineArea(piece), 0),
      ).toBeLessThan(1);
    }
  });
});

const plainTask: Task = {
  id: '',
  kind: 'coat',
  title: message('task.floorCoat', { number: 1, of: 1 }),
  minutes: 60,
  lagHours: 0,
  lagWhy: null,
  after: [],
  caution: null,
  tools: message('tools.coat'),
  open: [],
};
const NO_WORK: TasksInput = {
  made: [],
  runs: NO_RUNS,
  lying: [],
  floorHatches: [],
  linings: {},
  layout: thimble.project.layout,
  things: [],
  buildUps: {},
  survey: thimble.project.survey,
  units: [],
  fittings: [],
  parts: [],
  areas: derive(thimble.project, thimble.priceBook).areas,
  coats: null,
  joints: [],
  surfaces: SURFACE_LIST,
  floor: thimble.project.floor,
  finish: null,
  settings: thimble.project.settings,
  book: thimble.priceBook,
};
/** Coats as the order of work has them. */
const coats = (count: number, minutes: number, from: number, to: number): Task[] =>
  tasksOf({
    ...NO_WORK,
    coats: { material: 'v', coats: count, litres: 1, area: 1, minutes, from, to, cure: 0, zones: [], out: null },
  }).filter(({ id }) => id.startsWith('floor-coat-'));

describe('a coated floor', () => {
  it('has one coat after the other as soon as it may, none broken off for the night', () => {
    // an hour a coat, two to wait, six hours a day from nine: 9, 12, then the third would end at 16:00, and does not begin later
    const tasks = coats(4, 60, 2, 24);
    const starts = scheduleOf(tasks, '2026-11-30', 6).tasks.map(({ work }) => work.map(({ from }) => from));
    expect(starts).toEqual([[9], [12], [33], [36]]);
    // two hours a coat: the second one waits for the morning whole, where other work would have been begun at 13:00
    const long = scheduleOf(coats(2, 120, 2, 24), '2026-11-30', 5).tasks;
    expect(long.map(({ work }) => work.length)).toEqual([1, 1]);
    expect(long[1]?.work[0]).toEqual({ from: 33, to: 35 });
  });

  it('is sanded where the next coat comes too late by the calendar, and not else', () => {
    // three hours a day: the second coat waits till the morning, 23 hours after the first, later than the 12 allowed
    const late = scheduleOf(coats(2, 60, 4, 12), '2026-11-30', 3).tasks;
    expect(late.map(({ task }) => task.id)).toEqual(['floor-coat-1', 'floor-coat-2-sand', 'floor-coat-2']);
    expect(late[2]?.work[0]?.from).toBe(34);
    expect(scheduleOf(coats(2, 60, 4, 24), '2026-11-30', 3).tasks).toHaveLength(2);
    // other work that comes between makes it late as well
    const between: Task = { ...plainTask, id: 'other', minutes: 2000, after: ['floor-coat-1'] };
    const busy = scheduleOf([...coats(2, 60, 4, 12), between], '2026-11-30', 8).tasks;
    const [first, second] = [1, 2].map((n) => busy.find(({ task }) => task.id === `floor-coat-${n}`));
    const gap = (second?.work[0]?.from ?? 0) - (first?.work[0]?.to ?? 0);
    expect(busy.some(({ task }) => task.id === 'floor-coat-2-sand')).toBe(gap > 12);
  });

  it('never comes too early, is never broken off, and is sanded just when it is late, whatever the figures', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 8 }),
        fc.integer({ min: 5, max: 300 }),
        fc.integer({ min: 0, max: 60 }),
        fc.integer({ min: 1, max: 100 }),
        fc.integer({ min: 1, max: 16 }),
        (count, minutes, from, window, hours) => {
          const { tasks } = scheduleOf(coats(count, minutes, from, from + window), '2026-11-30', hours);
          const laid = tasks.filter(({ task }) => !task.id.endsWith('-sand'));
          expect(laid).toHaveLength(count);
          laid.forEach(({ work }) => expect(work).toHaveLength(1));
          laid.slice(1).forEach(({ task, work }, i) => {
            const before = laid[i]?.work[0]?.to ?? 0;
            expect((work[0]?.from ?? 0) - before).toBeGreaterThan(from - 1e-6);
            const sand = tasks.find((other) => other.task.id === `${task.id}-sand`);
            const begun = sand?.work[0]?.from ?? work[0]?.from ?? 0;
            if (!sand) expect((work[0]?.from ?? 0) - before).toBeLessThanOrEqual(from + window + 1e-6);
            expect(begun - before).toBeGreaterThan(from - 1e-6);
          });
        },
      ),
      { numRuns: 200, seed: 5 },
    );
  });

  it('takes what its data sheet states, and is no guess without', () => {
    const unsaid = {
      ...thimble.priceBook,
      items: thimble.priceBook.items.map((one) => (one.recoat ? { ...one, coverage: null } : one)),
    };
    const derived = derive(thimble.project, unsaid);
    expect(derived.floor.coats?.litres).toBeNull();
    expect(derived.shopping.unpriced).toContain('Floor varnish 750 ml');
    const { coats: stated } = derive(thimble.project, thimble.priceBook).floor;
    expect(stated?.litres).toBeCloseTo(((stated?.area ?? 0) * 3) / 10, 9);
  });

  it('ends at the door, in zones within reach, is bought in tins and stands in the order of work', () => {
    const derived = derive(thimble.project, thimble.priceBook);
    const { coats } = derived.floor;
    expect(coats?.out).toBe('Rear door');
    expect(coats?.zones[0]?.from).toBe(0);
    expect(coats?.zones.at(-1)?.to).toBe(3000);
    coats?.zones.forEach(({ from, to }) => expect(to - from).toBeLessThan(800.1));
    const line = derived.shopping.lines.find((candidate) => candidate.material === 'floor-varnish');
    expect(line?.quantity).toBe(Math.ceil(((coats?.area ?? 0) * 3 * 100) / 750));
    const tasks = derived.schedule.tasks.map(({ task }) => task);
    expect(tasks.filter((task) => task.id.startsWith('floor-coat-')).map((task) => task.id)).toEqual([
      'floor-coat-1',
      'floor-coat-2',
      'floor-coat-3',
    ]);
    // units wait for the last coat
    expect(tasks.find((task) => task.id === 'desk-fit')?.after).toContain('floor-coat-3');
    // coats on a floor that is laid are no coats
    expect(derive(floorChange(wren.project, { coats: 2 }), wren.priceBook).floor.coats).toBeNull();
  });

  it('that comes too late is sanded in the order of work as well', () => {
    const cold: Project = {
      ...thimble.project,
      settings: { ...thimble.project.settings, hoursPerDay: 1, workTemperature: 25 },
    };
    const hasty = {
      ...thimble.priceBook,
      items: thimble.priceBook.items.map((one) => (one.recoat ? { ...one, recoat: { from: 2, to: 6 } } : one)),
    };
    const derived = derive(cold, hasty);
    const ids = derived.schedule.tasks.map(({ task }) => task.id);
    expect(ids.filter((id) => id.endsWith('-sand'))).toEqual(['floor-coat-2-sand', 'floor-coat-3-sand']);
  });
});

describe('other finishes', () => {
  it('are all worked out everywhere and where feet go, the one laid among them', () => {
    const derived = derive(wren.project, wren.priceBook);
    if (!derived.floor.room) throw new Error('no room');
    const ways = finishWays(derived.floor.room, wren.priceBook, wren.project.layout.units, wren.project.floor);
    expect(ways.map((way) => `${way.laid} ${way.where}`)).toEqual([
      'planks everywhere',
      'planks seen',
      'tiles everywhere',
      'tiles seen',
      'roll everywhere',
      'roll seen',
    ]);
    const now = ways[0];
    const line = derived.shopping.lines.find((candidate) => candidate.material === 'planks-5');
    expect(now?.packs).toBe(line?.quantity);
    expect(now?.cost).toBe(line?.total);
    for (const i of [0, 2]) expect(ways[i + 1]?.mass).toBeLessThan(ways[i]?.mass ?? 0);
  });
});

describe('insulation under the board', () => {
  const SOLD = { length: 1200, width: 600 };

  it('without battens lies in rows as wide as it is sold, its joints off the seams and off each other', () => {
    // 3000 x 1500: rows of 600, 600, 300; seams of the board at 1000 and 2000
    const foam = floorInsulation(room(3000, 1500), null, [], 0, SOLD, [1000, 2000]);
    const covered = foam.pieces.reduce((sum, piece) => sum + piece.count * piece.length * piece.width, 0);
    expect(covered).toBeCloseTo(3000 * 1500, 3);
    expect(foam.nearest).toBeGreaterThanOrEqual(150);
    expect(foam.joints.length).toBeGreaterThanOrEqual(6);
    for (const piece of foam.pieces) expect(piece.length).toBeLessThanOrEqual(1200.01);
  });

  it('keeps every joint off a seam in every demo', () => {
    for (const file of [wren, bulrush, thimble]) {
      const { insulation } = derive(file.project, file.priceBook).floor;
      expect(insulation?.joints.length).toBeGreaterThan(0);
      expect(insulation?.nearest).toBeGreaterThan(100);
    }
  });
});

describe('how the floor board is held', () => {
  const held = (fixing: FloorChoice['fixing']) => derive(floorChange(wren.project, { fixing }), wren.priceBook);

  it('glued and screwed, or with screws only where furniture hides them, or not at all', () => {
    const [screwed, glued, loose] = (['screwed', 'glued', 'loose'] as const).map((fixing) => held(fixing));
    const screws = screwed?.floor.screws ?? [];
    expect(glued?.floor.screws).toEqual(screws.filter((screw) => screw.hidden));
    expect(glued?.floor.screws.length).toBeGreaterThan(10);
    expect(glued?.floor.screws.length).toBeLessThan(screws.length);
    expect(loose?.floor.screws).toEqual([]);
    const glue = (derived: typeof screwed) =>
      derived?.shopping.lines.some(
        ({ material, shares }) => material === 'floor-glue' && shares.some(({ of }) => of === 'floor'),
      );
    expect([screwed, glued, loose].map(glue)).toEqual([true, true, false]);
    const ids = (derived: typeof screwed) => derived?.schedule.tasks.map(({ task }) => task.id) ?? [];
    expect(ids(screwed)).toContain('subfloor-glue');
    expect(ids(loose)).toContain('subfloor-lay');
    expect(ids(loose)).not.toContain('subfloor-glue');
  });

  it('loose: names the pieces that nothing stands on', () => {
    const empty = derive(floorChange({ ...wren.project, layout: { units: [] } }, { fixing: 'loose' }), wren.priceBook);
    const boards = empty.parts.filter((part) => part.role === 'subfloor').map((part) => part.id);
    expect(empty.floor.unheld).toEqual(boards);
    // the bed and the kitchen stand on some of them
    expect(held('loose').floor.unheld.length).toBeLessThan(boards.length);
    expect(held('screwed').floor.unheld).toEqual([]);
  });
});

describe('the board at a side door', () => {
  // Wren’s sliding door is 1130 wide, from 240 to 1370 on the right
  const area = (project: Project): number => {
    const { subfloor } = derive(project, wren.priceBook);
    return subfloor ? outlineArea(subfloor.outline) : 0;
  };
  const bare: Project = { ...wren.project, layout: { units: [] } };

  it('is kept back by as much as is asked for, over the width of the door', () => {
    const less = area(bare) - area(floorChange(bare, { keepBack: 40 }));
    // less what the round of its two inner corners leaves standing
    expect(less).toBeGreaterThan(1130 * 40 - 400);
    expect(less).toBeLessThan(1130 * 40 + 1);
    expect(keptBack(bare.survey, [], 40)).toEqual([{ side: 'right', from: 240, to: 1370, by: 40 }]);
  });

  it('is carried out under a unit that stands in the door', () => {
    const bench = wren.project.layout.units.find((unit) => unit.id === 'bench');
    if (!bench) throw new Error('no bench');
    const at = (x: number, length: number, stands: 'left' | 'right' = 'right') => ({
      ...bench,
      body: { stands, x, length, front: 430, from: 0, to: 430 },
    });
    const within = [at(500, 400)];
    expect(keptBack(bare.survey, within, 40).map(({ from, to }) => [from, to])).toEqual([
      [240, 500],
      [900, 1370],
    ]);
    expect(keptBack(bare.survey, [at(100, 1400)], 40)).toEqual([]);
    expect(keptBack(bare.survey, [at(1000, 900)], 40).map(({ to }) => to)).toEqual([1000]);
    // on the other side it changes nothing
    expect(keptBack(bare.survey, [at(500, 400, 'left')], 40)).toHaveLength(1);
    expect(keptBack(bare.survey, within, 0)).toEqual([]);
  });
});

describe('a finish only where feet go', () => {
  it('is laid after the furniture, everywhere before it', () => {
    const order = (finish: FloorChoice['finish']): [number, number] => {
      const tasks = derive(floorChange(wren.project, { finish }), wren.priceBook).schedule.tasks.map(
        ({ task }) => task,
      );
      const at = (id: string): number => tasks.findIndex((task) => task.id === id);
      const laid = tasks.find((task) => task.id === 'floor-f4');
      expect(laid?.after.some((id) => id.endsWith('-fit'))).toBe(finish === 'seen');
      return [at('floor-f4'), at('kitchen-fit')];
    };
    const [before, kitchen] = order('everywhere');
    expect(before).toBeLessThan(kitchen);
    const [late, fitted] = order('seen');
    expect(late).toBeGreaterThan(fitted);
  });
  it('weighs and takes the time of what is laid, not of the whole floor', () => {
    const of = (finish: FloorChoice['finish']) => {
      const derived = derive(floorChange(wren.project, { finish }), wren.priceBook);
      const minutes = derived.schedule.tasks.find(({ task }) => task.id === 'floor-f4')?.task.minutes ?? NaN;
      const kg = derived.mass.of.find(({ id }) => id === 'floor')?.kg ?? NaN;
      return { minutes, kg, laid: derived.floor.finish };
    };
    const [whole, seen] = [of('everywhere'), of('seen')];
    if (!whole.laid || !seen.laid) throw new Error('no finish');
    expect(seen.laid.covered).toBeLessThan(0.85 * whole.laid.covered);
    // 40 minutes a square metre
    expect(whole.minutes).toBe(Math.round(40 * whole.laid.covered));
    expect(seen.minutes).toBe(Math.round(40 * seen.laid.covered));
    const planks = wren.priceBook.items.find(({ id }) => id === seen.laid?.material);
    const areaMass = ((planks?.density ?? NaN) * (planks?.thickness ?? NaN)) / 1000;
    expect(whole.kg - seen.kg).toBeCloseTo((whole.laid.covered - seen.laid.covered) * areaMass, 6);
  });
});
