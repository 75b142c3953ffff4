import equal from 'fast-deep-equal';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { z } from 'zod';
import { projectFileText } from '../formats/write-project.js';
import { openStored } from '../formats/stored.js';
import { readProjectFile } from '../formats/read.js';
import { applyOperation, faultsIn, materialsOf } from '../furniture/kit.js';
import { bedWith, runWith } from '../furniture/units.fixture.js';
import { say } from '../words/say.js';
import { createProject } from './create.js';
import { OperationError, readOperation } from './editing.js';
import { OPERATION_NAMES, OPERATION_PAYLOADS, type Operation, type OperationName } from './operation.js';
import type { Project } from './schema.js';
import demo from '../../../../demo/wren.json?raw';

const { project: wren, priceBook } = readProjectFile(demo);
/** Hinges and pipes are chosen out of the book and never named by a project: reading them thousands of times shows nothing. */
const book = { ...priceBook, items: priceBook.items.filter(({ hardware }) => hardware === undefined) };
/** The same in every part; where it is not, a readable difference is thrown. */
const same = (actual: unknown, expected: unknown): void => {
  if (!equal(actual, expected)) expect(actual).toEqual(expected);
};
const AT = '2026-10-01T08:00:00.000Z';
const layer = (id: string, material = 'foam-20') => ({
  id,
  material,
  thickness: 20,
  place: 'continuous' as const,
  board: false,
  share: 1,
  measured: null,
});
const refusal = (project: Project, ...operations: Operation[]): string => {
  try {
    operations.reduce((now, operation) => applyOperation(now, operation, book).project, project);
    return 'done';
  } catch (problem) {
    if (!(problem instanceof OperationError)) throw problem;
    return say(problem.said);
  }
};
const reading = (value: number): Operation => ({
  name: 'takeReading',
  payload: { address: 'floor/length', reading: { value, method: 'tape', at: AT } },
});

describe('an operation is refused for what it would leave behind', () => {
  it('the fifty-first reading at one place', () => {
    const before = wren.survey.readings['floor/length']?.length ?? 0;
    const room = Array.from({ length: 50 - before }, (_, i) => reading(3690 + i));
    expect(refusal(wren, ...room)).toBe('done');
    expect(refusal(wren, ...room, reading(3690))).toBe(
      'project.survey.readings.floor/length: at most 50 can be kept here.',
    );
  });
  it('the twenty-first layer of a surface', () => {
    const layers = Array.from({ length: 20 }, (_, i): Operation => ({
      name: 'putLayer',
      payload: { surface: 'windows', layer: layer(`x${i}`) },
    }));
    const bare: Project = { ...wren, buildUps: { ...wren.buildUps, windows: [] } };
    expect(refusal(bare, ...layers)).toBe('done');
    expect(refusal(bare, ...layers, { name: 'putLayer', payload: { surface: 'windows', layer: layer('more') } })).toBe(
      'project.buildUps.windows: at most 20 can be kept here.',
    );
  });
  it.each<[string, Operation, string]>([
    [
      'a material that is not in the price book, in a layer',
      { name: 'putLayer', payload: { surface: 'left', layer: layer('x', 'unobtainium') } },
      'unobtainium',
    ],
    [
      'or in a unit',
      { name: 'changeUnit', payload: { id: 'kitchen', changes: { carcass: 'unobtainium' } } },
      'project.layout.units[1].materials.carcass',
    ],
    ['or in a box', { name: 'changeBoxes', payload: { changes: { board: 'unobtainium' } } }, 'project.boxes.board'],
    [
      'a sleeper who is nobody',
      { name: 'changeUnit', payload: { id: 'bed', changes: { sleepers: ['nobody'] } } },
      'nobody',
    ],
    ['an arch that is not there', { name: 'changeBoxes', payload: { changes: { arches: ['a9'] } } }, 'a9'],
    [
      'a surface that is not there',
      { name: 'putLayer', payload: { surface: 'keel', layer: layer('x') } },
      'project.buildUps.keel',
    ],
    [
      'a part of no unit',
      { name: 'putWait', payload: { wait: { part: 'sofa.top', read: null } } },
      'there is no sofa.top to refer to',
    ],
    [
      'a unit outside its family’s limits',
      {
        name: 'placeUnit',
        payload: { unit: { ...bedWith({ id: 'b', x: 0, length: 900, height: 500 }), options: {} } },
      },
      'mattress',
    ],
    [
      'a family that is not known',
      {
        name: 'placeUnit',
        payload: {
          unit: {
            ...runWith({ id: 'h', side: 'left', x: 0, length: 500, front: 400, height: 800 }),
            family: 'hammock',
          },
        },
      },
      'hammock',
    ],
    [
      'a bed that is divided',
      { name: 'divideBay', payload: { id: 'bed', bay: 'hold', cut: 'up', into: 2 } },
      'division',
    ],
  ])('%s', (_what, operation, said) => {
    expect(refusal(wren, operation)).toContain(said);
  });
  it('and nothing else in the document hinders it: what was unsound before is not looked at again', () => {
    const odd: Project = { ...wren, buildUps: { ...wren.buildUps, left: [layer('x', 'unobtainium')] } };
    expect(faultsIn(odd, book)).toHaveLength(1);
    expect(refusal(odd, { name: 'changeUnit', payload: { id: 'bench', changes: { x: 1400 } } })).toBe('done');
    expect(
      refusal(odd, {
        name: 'putLayer',
        payload: { surface: 'left', layer: { ...layer('x', 'unobtainium'), thickness: 9 } },
      }),
    ).toContain('unobtainium');
  });
  it('taking something out takes with it what spoke of it', () => {
    const boxed = applyOperation(wren, { name: 'changeBoxes', payload: { changes: { arches: ['a1', 'a2'] } } }, book);
    const without = applyOperation(boxed.project, { name: 'removeArch', payload: { id: 'a1' } }, book).project;
    expect(without.boxes.arches).toEqual(['a2']);
    const waiting = applyOperation(
      { ...wren, variants: [] },
      { name: 'putWait', payload: { wait: { part: 'bench.top', read: null } } },
      book,
    );
    const gone = applyOperation(waiting.project, { name: 'removeUnit', payload: { id: 'bench' } }, book).project;
    expect(gone.waits).toEqual([]);
    expect(faultsIn(gone, book)).toEqual([]);
    // what is known of a unit that stands in a kept layout waits for it to come back
    const kept = applyOperation(
      applyOperation(wren, { name: 'putWait', payload: { wait: { part: 'bench.top', read: null } } }, book).project,
      { name: 'removeUnit', payload: { id: 'bench' } },
      book,
    ).project;
    expect(kept.waits).toHaveLength(1);
    const forgotten = (wren.variants ?? []).reduce<Project>(
      (project, { id }) => applyOperation(project, { name: 'removeLayout', payload: { id } }, book).project,
      kept,
    );
    expect(forgotten.waits).toEqual([]);
    expect(faultsIn(forgotten, book)).toEqual([]);
  });
});

/** Whole documents that are unsound, and where that is. */
describe('a whole document', () => {
  it.each<[string, Project, string]>([
    ['two people of one id', { ...wren, people: [...wren.people, ...wren.people.slice(0, 1)] }, 'project.people[2]'],
    [
      'two fittings of one id',
      { ...wren, fittings: [...wren.fittings, ...wren.fittings.slice(0, 1)] },
      'project.fittings',
    ],
    [
      'two plans of one material',
      { ...wren, keptPlans: [...wren.keptPlans, ...wren.keptPlans.slice(0, 1)] },
      'project.keptPlans',
    ],
    [
      'a reading at a station that is not there',
      {
        ...wren,
        survey: {
          ...wren.survey,
          readings: { ...wren.survey.readings, 'station/s99/x': [{ value: 1, method: 'tape', at: AT }] },
        },
      },
      'project.survey.readings.station/s99/x',
    ],
    [
      'two bays of one name',
      {
        ...wren,
        layout: {
          units: wren.layout.units.map((unit) =>
            unit.id === 'tall'
              ? {
                  ...unit,
                  division: {
                    cut: 'along',
                    divider: 'board',
                    sizes: [{ share: 1 }, { share: 1 }],
                    parts: [unit.division, unit.division],
                  },
                }
              : unit,
          ),
        },
      },
      'project.layout.units[3].division[1]',
    ],
  ])('with %s is told so at its place', (_what, project, place) => {
    const [fault] = faultsIn(project, book);
    expect(fault?.place).toContain(place);
    expect(() => readProjectFile(projectFileText(project, book))).toThrow();
  });
});

/** What stands in a check of a schema. */
interface CheckDef {
  readonly check: string;
  readonly value?: number;
  readonly inclusive?: boolean;
  readonly minimum?: number;
  readonly maximum?: number;
  readonly format?: string;
}
interface Def {
  readonly type: string;
  readonly shape?: Record<string, z.ZodType>;
  readonly element?: z.ZodType;
  readonly keyType?: z.ZodType;
  readonly valueType?: z.ZodType;
  readonly innerType?: z.ZodType;
  readonly options?: z.ZodType[];
  readonly items?: z.ZodType[];
  readonly entries?: Record<string, string>;
  readonly values?: unknown[];
  readonly check?: string;
  readonly format?: string;
  readonly checks?: { readonly _zod: { readonly def: CheckDef } }[];
}
/** Wren with one of everything that an operation may take away or change. */
const TOUCHED = {
  title: 'Fit the bench',
  kind: 'fit',
  estimate: 60,
  notBefore: null,
  by: '',
  covers: '',
  minutes: 0,
};
const FULL: Project = {
  ...wren,
  record: {
    tasks: [
      { ...TOUCHED, task: 'in-hand', since: AT, done: null },
      { ...TOUCHED, task: 'ticked', since: null, done: AT },
    ],
    log: [
      {
        id: 'l1',
        kind: 'note',
        at: AT,
        text: 'a note',
        by: '',
        task: null,
        work: null,
        part: null,
        x: null,
        minutes: null,
        money: null,
        photo: null,
        passed: null,
        struck: null,
      },
    ],
  },
  headers: [{ id: 'd0', name: 'Loom', side: 'left', x: 0, length: 500, past: [{ down: 50, in: 50 }], clearance: 5 }],
  floorHatches: [{ id: 'h0', name: 'sender', x: 1500, y: 0, length: 200, width: 200, lift: 'finger-hole' }],
  scribes: [{ id: 'sc0', part: 'kitchen.top', edge: 'back', gaps: [1, 2], at: AT }],
  patterns: [{ id: 'pt0', name: 'card', source: '', revision: 2, mirrored: true, made: [] }],
  waits: [{ part: 'kitchen.top', read: null }],
  variants: [{ id: 'v0', name: 'Other', layout: { units: [] } }],
  things: [
    ...(wren.things ?? []),
    {
      id: 'cold',
      name: 'Cold box',
      kind: 'cold-box',
      width: 400,
      depth: 450,
      height: 500,
      mass: 15,
      holds: 0,
      opens: 'lid',
      clear: { side: 10, back: 30, top: 0, front: 0 },
      connects: ['12 V'],
      service: ['front'],
      heat: 60,
      air: null,
      cutOut: null,
      draws: 45,
      hours: 8,
      source: '',
    },
  ],
  stored: [
    {
      id: 'crate',
      name: 'Crate',
      length: 600,
      width: 400,
      height: 300,
      mass: 6,
      count: 1,
      turns: true,
      kept: { unit: 'chest', bay: 'bay-1' },
    },
  ],
  wishes: [{ id: 'seat', text: 'a seat by the door', who: 'Ilva', unit: 'bench', rule: null, signed: null }],
  pets: [{ id: 'wool', name: 'Wool', length: 650, width: 200, height: 560, mass: 18 }],
  layout: {
    dens: [{ pet: 'wool', at: { unit: 'chest', bay: 'bay-1' } }],
    modes: [{ id: 'night', name: 'Night', use: 'night', states: { 'chest.bay-1.door-1': 1 } }],
    runs: [
      {
        id: 'run0',
        name: 'Feed',
        kind: 'cable',
        diameter: 8,
        from: { unit: wren.layout.units[0]?.id ?? '', bay: 'any' },
        to: null,
        via: [],
      },
    ],
    units: [
      ...wren.layout.units,
      {
        ...runWith({ id: 'chest', side: 'right', x: 200, length: 900, front: 450, height: 500 }),
        division: {
          cut: 'along',
          divider: 'board',
          sizes: [{ share: 1 }, { share: 1 }],
          parts: ['bay-1', 'bay-2'].map((name) => ({ name, holds: { kind: 'open' }, front: { kind: 'none' } })),
        },
      },
    ],
  },
  corners: [
    {
      id: 'co0',
      name: 'Post',
      surface: 'left',
      board: 'birch-9',
      height: 900,
      legs: [100, 100],
      radius: 50,
      angle: 90,
      skin: 2,
      grainRound: true,
    },
  ],
};
const idsIn = (list: readonly { readonly id: string }[]): string[] => list.map((item) => item.id);
const ADDRESSES = Object.keys(wren.survey.readings);
const PARTS = ['kitchen.top', 'bench.end-front', 'left.board.row-1.from-start', 'sofa.top'];
const KEPT = FULL.keptPlans.flatMap((plan) => plan.sheets.map((sheet) => ({ material: plan.material, sheet })));

/** What a field is drawn from by its name; anything else comes from everything there is. */
const BY_NAME: Readonly<Record<string, readonly string[]>> = {
  surface: ['floor', 'left', 'right', 'ceiling', 'front', 'rear', 'doors', 'windows', 'roof', 'keel'],
  address: [...ADDRESSES, 'station/s99/x', 'level/along', 'opening/o6/from'],
  material: [...idsIn(book.items).slice(0, 8), 'unobtainium'],
  board: ['birch-9', 'poplar-5', 'unobtainium'],
  trim: ['trim-30', 'unobtainium'],
  coat: ['floor-varnish', 'unobtainium'],
  part: PARTS,
  name: ['Somebody', 'Something', 'Else'],
  station: [...idsIn(wren.survey.stations), 's99'],
};
const EVERYTHING = [
  ...[FULL.people, FULL.comfort, FULL.offcuts, FULL.waste, FULL.reserved, FULL.headers, FULL.corners, FULL.fittings],
  ...[FULL.floorHatches, FULL.scribes, FULL.patterns, FULL.buildUpVariants, FULL.layout.units],
  ...[FULL.survey.stations, FULL.survey.ribs, FULL.survey.arches, FULL.survey.openings, FULL.survey.found],
  ...[FULL.survey.keepOuts, FULL.survey.penetrations, FULL.survey.angles],
].flatMap((list) => idsIn(list).slice(0, 3));

/** Something of a schema's shape. */
function drawn(schema: z.ZodType, key = '', depth = 0): fc.Arbitrary<unknown> {
  const def = schema._zod.def as unknown as Def;
  const checks = (def.checks ?? []).map(({ _zod }) => _zod.def);
  const inside = (one: z.ZodType | undefined, name = key): fc.Arbitrary<unknown> =>
    drawn(one ?? z.null(), name, depth + 1);
  switch (def.type) {
    case 'object':
      return fc.record(
        Object.fromEntries(Object.entries(def.shape ?? {}).map(([name, one]) => [name, inside(one, name)])),
      );
    case 'array': {
      const least = checks.find((check) => check.check === 'min_length')?.minimum ?? 0;
      return fc.array(inside(def.element), { minLength: least, maxLength: Math.max(least, 2) });
    }
    case 'tuple':
      return fc.tuple(...(def.items ?? []).map((one) => inside(one)));
    case 'record':
      return fc.dictionary(inside(def.keyType, 'surface') as fc.Arbitrary<string>, inside(def.valueType), {
        maxKeys: 2,
      });
    case 'optional':
      return fc.option(inside(def.innerType), { nil: undefined });
    case 'nullable':
      return fc.option(inside(def.innerType));
    case 'default':
      return inside(def.innerType);
    case 'union':
      return fc.oneof(...(def.options ?? []).map((one) => inside(one)));
    case 'lazy':
      return fc.constant({ name: 'bay-9', holds: { kind: 'open' }, front: { kind: 'none' } });
    case 'enum':
      return fc.constantFrom(...Object.values(def.entries ?? {}));
    case 'literal':
      return fc.constantFrom(...(def.values ?? []));
    case 'boolean':
      return fc.boolean();
    case 'number': {
      const least = Math.max(-2000, ...checks.filter((c) => c.check === 'greater_than').map((c) => c.value ?? 0));
      const most = Math.min(3000, ...checks.filter((c) => c.check === 'less_than').map((c) => c.value ?? 0));
      return fc.integer({ min: Math.ceil(least), max: Math.floor(most) });
    }
    default: {
      // nine times in ten something that is valid by itself
      const from = BY_NAME[key] ?? [...EVERYTHING, 'new-1', 'new-2', AT, '2026-11-01'];
      const valid = from.filter((text) => schema.safeParse(text).success);
      const odd = fc.constantFrom('', '   ', 'nowhere', 'x'.repeat(500));
      return valid.length === 0
        ? odd
        : fc.oneof({ weight: 9, arbitrary: fc.constantFrom(...valid) }, { weight: 1, arbitrary: odd });
    }
  }
}

/** Some fields of an object changed, each to something of its own shape. */
const someOf = (schema: z.ZodType): fc.Arbitrary<unknown> => {
  const shape = (schema._zod.def as unknown as Def).shape ?? {};
  return fc
    .constantFrom(...Object.keys(shape))
    .chain((name) =>
      drawn(shape[name] ?? z.null(), name).map((value) => (value === undefined ? {} : { [name]: value })),
    );
};
const unitId = fc.constantFrom('kitchen', 'bench', 'bed', 'chest', 'sofa');
const bay = fc.constantFrom('bay-1', 'hold', 'bay-2');
const count = fc.integer({ min: 0, max: 5 });
/** Payloads that have to fit together to say anything. */
const TOGETHER: Partial<Record<OperationName, fc.Arbitrary<unknown>>> = {
  restore: fc.constant({ project: wren }),
  removeReading: fc.record({
    address: fc.constantFrom(...ADDRESSES.slice(0, 9)),
    index: fc.integer({ min: 0, max: 2 }),
  }),
  photoReading: fc.record({
    address: fc.constantFrom(...ADDRESSES.slice(0, 9)),
    index: fc.integer({ min: 0, max: 2 }),
    photo: fc.constantFrom(null, 'tape-1'),
  }),
  changeSettings: someOf(OPERATION_PAYLOADS.changeSettings.shape.changes).map((changes) => ({ changes })),
  setFigure: fc.record({
    rule: fc.constantFrom('way-through', 'room-to-use'),
    figure: fc.constantFrom('good', 'hipGood', 'tight'),
    value: fc.oneof(fc.constant(null), fc.integer({ min: 0, max: 900 })),
  }),
  changeCutting: someOf(OPERATION_PAYLOADS.changeCutting.shape.changes).map((changes) => ({ changes })),
  planSurvey: someOf(OPERATION_PAYLOADS.planSurvey.shape.changes).map((changes) => ({ changes })),
  changeBoxes: someOf(OPERATION_PAYLOADS.changeBoxes.shape.changes).map((changes) => ({ changes })),
  changeFloor: someOf(OPERATION_PAYLOADS.changeFloor.shape.changes).map((changes) => ({ changes })),
  changeLining: fc
    .tuple(fc.constantFrom('left', 'ceiling', 'rear', 'keel'), someOf(OPERATION_PAYLOADS.changeLining.shape.changes))
    .map(([surface, changes]) => ({ surface, changes })),
  removeLayer: fc
    .constantFrom(
      ...Object.entries(wren.buildUps).flatMap(([surface, list]) => list.map(({ id }) => ({ surface, id }))),
    )
    .map((one) => one),
  changeUnit: fc.record({
    id: unitId,
    changes: fc.dictionary(
      fc.constantFrom(
        'x',
        'length',
        'height',
        'front',
        'mattress',
        'scribe',
        'shelves',
        'toeKick',
        'carcass',
        'side',
        'sleepers',
        'name',
        'mood',
      ),
      fc.oneof(
        fc.integer({ min: -50, max: 2000 }),
        fc.constantFrom('birch-12', 'left', 'unobtainium', 'Sofa'),
        fc.constantFrom(['ilva'], ['nobody']),
      ),
      { maxKeys: 2 },
    ),
  }),
  layPet: fc.record({
    pet: fc.constantFrom('wool', 'nobody'),
    at: fc.constantFrom(
      null,
      { x: 900, y: 0, turned: true },
      { unit: 'chest', bay: 'bay-2' },
      { unit: 'gone', bay: 'bay-1' },
    ),
  }),
  replaceUnit: fc.record({ id: unitId, length: fc.integer({ min: -5, max: 3000 }) }).map(({ id, length }) => ({
    unit: runWith({ id, side: 'right', x: 10, length, front: 300, height: 700 }),
  })),
  useLayout: fc.record({
    id: fc.constantFrom('v0', 'v9'),
    keep: fc.constantFrom(null, { id: 'v0', name: 'Same' }, { id: 'v1', name: 'Was' }),
  }),
  placeUnit: fc
    .tuple(
      fc.constantFrom('new', 'bench'),
      fc.integer({ min: -50, max: 3000 }),
      fc.constantFrom('birch-15', 'unobtainium'),
      count,
    )
    .map(([id, x, carcass, shelves]) => ({
      unit: runWith({ id, side: 'left', x, length: 600, front: 400, height: 800, carcass, shelves }),
    })),
  changeDividers: fc.record({ id: unitId, bay, divider: fc.constantFrom('board', 'frame', 'none') }),
  divideBay: fc.record({
    id: unitId,
    bay,
    cut: fc.constantFrom('along', 'up', 'deep'),
    into: fc.integer({ min: 2, max: 12 }),
  }),
  sizeBay: fc.record(
    {
      id: unitId,
      bay,
      size: fc.option(fc.integer({ min: 1, max: 900 })),
      outward: fc.integer({ min: 0, max: 2 }),
      beside: fc.record({ side: fc.constantFrom('before', 'after'), size: fc.integer({ min: 1, max: 900 }) }),
    },
    { requiredKeys: ['id', 'bay', 'size'] },
  ),
  joinBays: fc.record({ id: unitId, bay }),
  changeBay: fc.record({
    id: unitId,
    bay,
    front: count.map((n) => (n > 0 ? { kind: 'doors', count: n } : { kind: 'none' })),
  }),
  keepPlan: fc
    .constantFrom(...FULL.keptPlans)
    .chain((plan) =>
      fc.constantFrom(
        { ...plan, sheets: plan.sheets.slice(1) },
        { ...plan, material: 'unobtainium' },
        { ...plan, bound: 7 },
      ),
    ),
  tickCut: fc.constantFrom(...KEPT).chain(({ material, sheet }) =>
    fc.record({
      material: fc.constantFrom(material, 'wool-50'),
      sheet: fc.constant(sheet.id),
      step: fc.constantFrom(...sheet.done, 'rip:1'),
      done: fc.boolean(),
      seconds: fc.option(fc.integer({ min: 1, max: 3600 })),
    }),
  ),
  pauseTask: fc.record({ task: fc.constantFrom('in-hand', 'ticked'), at: fc.constant(AT) }),
  reopenTask: fc.record({ task: fc.constantFrom('in-hand', 'ticked') }),
  strikeLog: fc.record({
    id: fc.constantFrom('l1', 'l2'),
    reason: fc.constantFrom('twice', 'wrong wall'),
    at: fc.constant(AT),
  }),
  spoilPart: fc.constantFrom(...KEPT.filter(({ sheet }) => sheet.placements.length > 0)).map(({ material, sheet }) => ({
    waste: {
      id: 'w9',
      material,
      part: sheet.placements[0]?.part ?? '',
      length: 100,
      width: 100,
      cost: 0,
      reason: 'split',
      remedy: 'recut',
      date: '2026-11-01',
    },
    offcut: null,
  })),
};
/** `removeX` takes an id of X's own list. */
const LISTS: Readonly<Record<string, readonly { readonly id: string }[]>> = {
  removeComfort: FULL.comfort,
  removeOffcut: FULL.offcuts,
  removeWaste: FULL.waste,
  removeHeader: FULL.headers,
  removeCorner: FULL.corners,
  removeFloorHatch: FULL.floorHatches,
  removeScribe: FULL.scribes,
  removePattern: FULL.patterns,
  removeJoint: FULL.survey.before?.joints ?? [],
  removeMode: FULL.layout.modes ?? [],
  removeLayout: FULL.variants ?? [],
  removeRun: FULL.layout.runs ?? [],
  removeThing: FULL.things ?? [],
  removeStored: FULL.stored ?? [],
  removeWish: FULL.wishes ?? [],
  removeUnit: FULL.layout.units,
  removePerson: FULL.people,
  removePet: FULL.pets ?? [],
  useBuildUps: FULL.buildUpVariants,
  removeBuildUps: FULL.buildUpVariants,
};
/** Any two other operations as one. */
const severalOf = (): fc.Arbitrary<unknown> => {
  const one = fc
    .constantFrom(...OPERATION_NAMES.filter((name) => name !== 'restore' && name !== 'together'))
    .chain((name) => fc.record({ name: fc.constant(name), payload: payloadOf(name) }));
  return fc.array(one, { minLength: 1, maxLength: 2 }).map((operations) => ({ operations }));
};

const payloadOf = (name: OperationName): fc.Arbitrary<unknown> => {
  if (name === 'together') return severalOf();
  const own = LISTS[name];
  return (
    TOGETHER[name] ??
    (own ? fc.constantFrom(...idsIn(own), 'nobody').map((id) => ({ id })) : drawn(OPERATION_PAYLOADS[name]))
  );
};

describe('any operation, sixty times, with any valid payload', () => {
  const done = new Map<OperationName, number>();
  it.each(OPERATION_NAMES)('%s leaves a document that exports, imports and restores', (name) => {
    fc.assert(
      fc.property(payloadOf(name), (payload) => {
        let operation: Operation;
        try {
          operation = readOperation({ name, payload: JSON.parse(JSON.stringify(payload)) as unknown });
        } catch (problem) {
          expect(problem).toBeInstanceOf(OperationError);
          return;
        }
        let next: Project;
        try {
          next = applyOperation(FULL, operation, book).project;
        } catch (problem) {
          expect(problem).toBeInstanceOf(OperationError);
          return;
        }
        const times = (done.get(name) ?? 0) + 1;
        done.set(name, times);
        expect(faultsIn(next, book)).toEqual([]);
        // the whole way out and in again takes long: the first few, and every third
        if (times > 6 && times % 3 > 0) return;
        same(readProjectFile(projectFileText(next, book)).project, next);
        const opened = openStored(JSON.parse(JSON.stringify(next)), book);
        expect([opened.repaired, opened.faults]).toEqual([[], []]);
        same(opened.project, next);
        const other = createProject({
          id: 'o',
          name: 'O',
          kind: 'van',
          model: '',
          units: 'mm',
          startDate: '2026-10-01',
        });
        const restored = applyOperation(other, { name: 'restore', payload: { project: next } }, book).project;
        same({ ...restored, id: next.id }, next);
      }),
      { numRuns: 60, seed: 59 },
    );
  });
  it('and most of them were really done', () => {
    const never = OPERATION_NAMES.filter((name) => (done.get(name) ?? 0) === 0);
    expect(never).toEqual([]);
  });
});

describe('what a project is made of', () => {
  it('is every material chosen or used, and nothing else', () => {
    const used = materialsOf(wren);
    for (const id of ['birch-15', 'birch-12', 'batten-30', 'boards-9', 'floor-varnish'])
      expect(used.has(id)).toBe(true);
    for (const id of ['kitchen', 'ilva', 'base-run', 'left', 'screws-60']) expect(used.has(id)).toBe(false);
  });
});
