import { describe, expect, it } from 'vitest';
import wrenFile from '../../../../demo/wren.json?raw';
import { derive } from '../derive/again.fixture.js';
import { baysOf } from '../document/body.js';
import type { Operation } from '../document/operation.js';
import type { Found, PlaceSurface, Project } from '../document/schema.js';
import { readProjectFile } from '../formats/read.js';
import { applyOperation } from '../furniture/kit.js';
import { START_THINGS } from '../furniture/start-things.js';
import { openBefore } from './cover-gate.js';

const { project: wren, priceBook } = readProjectFile(wrenFile);
const AT = '2026-10-02T08:00:00.000Z';
const after = (...operations: Operation[]): Project =>
  operations.reduce((p, operation) => applyOperation(p, operation, priceBook).project, wren);
const points = (project: Project, surface: PlaceSurface): string[] =>
  openBefore(project, surface)
    .filter(({ stops }) => stops)
    .map(({ id }) => id);
/** The points that hold a task, by what is said. */
const heldBy = (project: Project, task: string): string[] => {
  const found = derive(project, priceBook).schedule.tasks.find(({ task: own }) => own.id === task)?.task;
  if (!found) throw new Error(`no task ${task}`);
  return found.open.map(({ key }) => key);
};
const firstOf = (surface: string): string => `${surface}-${wren.buildUps[surface]?.[0]?.id ?? ''}`;
const faceOf = (surface: string): string => `${surface}-${wren.buildUps[surface]?.at(-1)?.id ?? ''}`;
const thingNamed = (id: string) => {
  const found = START_THINGS.find((one) => one.id === id);
  if (!found) throw new Error(id);
  return found;
};
const rust = (more: Partial<Found> = {}): Operation => ({
  name: 'putFound',
  payload: {
    found: {
      id: 'n8',
      name: 'Rust by the sill',
      kind: 'rust',
      surface: 'right',
      x: 900,
      along: 100,
      size: 60,
      decision: 'redo',
      status: 'open',
      method: '',
      cost: 3200,
      hours: 1.5,
      photo: null,
      ...more,
    },
  },
});

describe('covering begins with the first layer', () => {
  it('so what is open on a surface holds that, and not only the panel', () => {
    const project = after(rust());
    expect(heldBy(project, firstOf('right'))).toContain('cover.found.redo');
    expect(heldBy(project, faceOf('right'))).not.toContain('cover.found.redo');
    expect(heldBy(after(rust({ status: 'done' })), firstOf('right'))).not.toContain('cover.found.redo');
    // another surface is not held by it
    expect(heldBy(project, firstOf('left'))).not.toContain('cover.found.redo');
  });

  it('and a joint that is not tried holds the face that would hide it', () => {
    const joint = (tested: boolean): Operation => ({
      name: 'putJoint',
      payload: { joint: { id: 'j5', name: 'Gas tee', kind: 'gas', surface: 'right', tested } },
    });
    expect(heldBy(after(joint(false)), faceOf('right'))).toContain('cover.joint.gas');
    expect(heldBy(after(joint(false)), firstOf('right'))).not.toContain('cover.joint.gas');
    expect(heldBy(after(joint(true)), faceOf('right'))).not.toContain('cover.joint.gas');
  });

  it('and the floor is held by its first layer, its board by what runs in it', () => {
    const joint: Operation = {
      name: 'putJoint',
      payload: { joint: { id: 'j5', name: 'Drain tee', kind: 'water', surface: 'floor', tested: false } },
    };
    // and by the tank beneath it, over which there is no hatch
    expect(heldBy(after(joint), 'subfloor-glue')).toEqual(['cover.joint.water', 'cover.reach']);
    const [reach] = openBefore(wren, 'floor').filter(({ id }) => id.startsWith('reach-'));
    if (!reach?.mend) throw new Error('a hatch');
    expect(heldBy(after(reach.mend), 'subfloor-glue')).toEqual([]);
    expect(heldBy(after(rust({ surface: 'floor' })), firstOf('floor'))).toContain('cover.found.redo');
  });
});

describe('a hole that is decided', () => {
  it('holds while its place or its size is not read', () => {
    expect(points(wren, 'floor')).not.toContain('place-p1');
    const without = structuredClone(wren);
    Reflect.deleteProperty(without.survey.readings, 'hole/p1/size');
    expect(points(without, 'floor')).toContain('place-p1');
  });
});

describe('an empty register', () => {
  it('asks once whether there is nothing', () => {
    const empty = after(...wren.survey.found.map(({ id }): Operation => ({ name: 'removeFound', payload: { id } })));
    expect(points(empty, 'left')).toContain('register');
    const said = applyOperation(empty, { name: 'sayNothingFound', payload: { at: AT } }, priceBook).project;
    expect(points(said, 'left')).not.toContain('register');
    expect(points(wren, 'left')).not.toContain('register');
  });
});

describe('a photo of a bare surface', () => {
  it('is asked for until there is one', () => {
    expect(points(wren, 'left')).toContain('photo-left');
    const taken = after({ name: 'photoSurface', payload: { surface: 'left', photo: 'p-1' } });
    expect(points(taken, 'left')).not.toContain('photo-left');
    expect(points(taken, 'ceiling')).toContain('photo-ceiling');
    const gone = applyOperation(taken, { name: 'photoSurface', payload: { surface: 'left', photo: null } }, priceBook);
    expect(points(gone.project, 'left')).toContain('photo-left');
  });
});

describe('a point that is overruled', () => {
  const project = after(rust(), {
    name: 'overrulePoint',
    payload: { point: 'found-n8', reason: 'Treated, waits for paint', at: AT },
  });

  it('holds nothing any more, and keeps its reason', () => {
    expect(points(project, 'right')).not.toContain('found-n8');
    expect(heldBy(project, firstOf('right'))).not.toContain('cover.found.redo');
    expect(openBefore(project, 'right').find(({ id }) => id === 'found-n8')?.overruled).toEqual({
      reason: 'Treated, waits for paint',
      at: AT,
    });
  });

  it('can be held again, and is not overruled without a reason', () => {
    const held = applyOperation(project, { name: 'holdPoint', payload: { point: 'found-n8' } }, priceBook).project;
    expect(points(held, 'right')).toContain('found-n8');
    expect(() =>
      applyOperation(project, { name: 'overrulePoint', payload: { point: 'leak', reason: '', at: AT } }, priceBook),
    ).toThrow();
  });
});

describe('what was found', () => {
  it('costs money and hours, which are counted before anything covers it', () => {
    const [plain, found] = [derive(wren, priceBook), derive(after(rust()), priceBook)];
    expect(found.shopping.total - plain.shopping.total).toBe(3200);
    expect(found.shopping.byPhase.find(({ phase }) => phase === 'found')?.total).toBe(
      wren.survey.found.filter(({ decision }) => decision !== 'keep').reduce((sum, { cost }) => sum + cost, 3200),
    );
    expect(found.schedule.workHours - plain.schedule.workHours).toBeCloseTo(1.5, 6);
    const tasks = found.schedule.tasks.map(({ task }) => task);
    expect(tasks.find(({ id }) => id === firstOf('right'))?.after).toContain('found-n8');
    const order = tasks.map(({ id }) => id);
    expect(order.indexOf('found-n8')).toBeLessThan(order.indexOf(firstOf('right')));
  });

  it('is no work and no money once it is kept, and no work once it is done', () => {
    const plain = derive(wren, priceBook);
    const kept = derive(after(rust({ decision: 'keep' })), priceBook);
    expect(kept.shopping.total).toBe(plain.shopping.total);
    const done = derive(after(rust({ status: 'done' })), priceBook);
    expect(done.schedule.workHours).toBeCloseTo(plain.schedule.workHours, 6);
    expect(done.shopping.total - plain.shopping.total).toBe(3200);
  });
});

describe('a cable', () => {
  it('is pulled before the face, by a task of its own while it is not', () => {
    const fitting = wren.fittings.find(({ surface, wired, kind }) => surface === 'left' && !wired && kind !== 'duct');
    if (!fitting) throw new Error('no cable');
    const names = (project: Project): string =>
      JSON.stringify(
        derive(project, priceBook).schedule.tasks.find(({ task }) => task.id === 'left-wiring')?.task.title ?? '',
      );
    expect(names(wren)).toContain(fitting.name);
    const pulled = after({ name: 'putFitting', payload: { fitting: { ...fitting, pulled: true } } });
    expect(names(pulled)).not.toContain(fitting.name);
  });
});

describe('an appliance at a wall', () => {
  const oven = thingNamed('oven-microwave');
  const unit = wren.layout.units.find(({ body }) => body.stands === 'left');
  const bay = unit && baysOf(unit.division)[0];
  const put = (): Operation[] => [
    { name: 'putThing', payload: { thing: oven } },
    {
      name: 'changeBay',
      payload: { id: unit?.id ?? '', bay: bay?.name ?? '', holds: { kind: 'thing', thing: oven.id } },
    },
  ];
  const feed = `feed-${unit?.id ?? ''}-${bay?.name ?? ''}`;
  it('wants its outlet or its cable before the wall is closed', () => {
    expect(points(wren, 'left')).not.toContain(feed);
    // the outlet that is planned in that wall feeds it
    expect(points(after(...put()), 'left')).not.toContain(feed);
    const bare = (...more: Operation[]): Project =>
      after(...put(), { name: 'removeFitting', payload: { id: 'ft4' } }, ...more);
    expect(points(bare(), 'left')).toContain(feed);
    expect(points(bare(), 'right')).not.toContain(feed);
    expect(heldBy(bare(), faceOf('left'))).toContain('cover.feedMains');
    const outlet: Operation = {
      name: 'putFitting',
      payload: {
        fitting: {
          id: 'out',
          name: 'Outlet',
          kind: 'outlet',
          surface: 'left',
          x: unit?.body.x ?? 0,
          along: 1000,
          diameter: 60,
          wired: false,
        },
      },
    };
    expect(points(bare(outlet), 'left')).not.toContain(feed);
    const cable: Operation = {
      name: 'putRun',
      payload: {
        run: {
          id: 'c',
          name: 'C',
          kind: 'cable',
          diameter: 10,
          from: { at: [600, -500, 100] },
          to: { unit: unit?.id ?? '', bay: bay?.name ?? '' },
          via: [],
        },
      },
    };
    expect(points(bare(cable), 'left')).not.toContain(feed);
  });
});
