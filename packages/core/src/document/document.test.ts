import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import { startPriceBook } from '../materials/start-book.js';
import { readProjectFile } from '../formats/read.js';
import { createDeriver, derive } from '../derive/derive.js';
import { createProject } from './create.js';
import { isProject, OperationError, patchProject, readOperation } from './editing.js';
import { applyOperation } from '../furniture/kit.js';
import { memoEach, memoLast } from '../numeric/memo.js';
import { runWith } from '../furniture/units.fixture.js';
import { OPERATION_NAMES, type Operation } from './operation.js';
import { keptNow } from '../cutting/plan/cutting-room.js';
import { planFaults } from '../cutting/job/verify.js';
import type { KeptPlan, LogEntry, Project, Run, Stored, Thing, Wish } from './schema.js';
import bulrush from '../../../../demo/bulrush.json?raw';
import thimble from '../../../../demo/thimble.json?raw';
import demo from '../../../../demo/wren.json?raw';

/** One part of 500 x 100 on a sheet of 600 x 300. */
const EXAMPLE_PLAN: KeptPlan = {
  material: 'birch-18',
  job: 'x',
  sheets: [
    {
      id: 's1',
      stock: 'sheet',
      length: 600,
      width: 300,
      trim: 0,
      price: 1000,
      offcut: null,
      placements: [{ part: 'a', x: 0, y: 0, turned: false, length: 500, width: 100, spoiled: false, locked: false }],
      cuts: [{ axis: 'rip', at: 100, from: 0, to: 600, level: 1, edge: 0, far: 300 }],
      left: [],
      done: [],
    },
  ],
  bound: 1000,
  proved: true,
};

const wren = readProjectFile(demo);
const book = startPriceBook();
const reading = (value: number) => ({ value, method: 'tape' as const, at: '2026-10-01T08:00:00.000Z' });

const THING: Thing = {
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
};
const PET = { id: 'wool', name: 'Wool', length: 650, width: 200, height: 560, mass: 18 };
const STORED: Stored = {
  id: 'crate',
  name: 'Crate',
  length: 600,
  width: 400,
  height: 300,
  mass: 6,
  count: 1,
  turns: true,
  kept: { unit: 'chest', bay: 'left' },
};
const RUN: Run = {
  id: 'feed',
  name: 'Feed of the cold box',
  kind: 'cable',
  diameter: 9,
  from: { unit: 'tall', bay: 'bay-1' },
  to: { at: [900, -600, 300] },
  via: [],
  wire: { volts: 12, copper: 4, fuse: 10 },
};
const WISH: Wish = { id: 'seat', text: 'a seat by the door', who: 'Ilva', unit: 'bench', rule: null, signed: null };
const WORKED = { title: 'Bench', kind: 'fit', estimate: 60, minutes: 10, notBefore: null, by: 'Ilva', covers: '' };
const NOTE: LogEntry = {
  id: 'l9',
  kind: 'note',
  at: '2026-12-01T09:00:00.000Z',
  text: 'wool stays up better with the net',
  by: '',
  task: 'bench-fit',
  work: 'fit',
  part: null,
  x: 1200,
  minutes: null,
  money: null,
  photo: null,
  passed: null,
  struck: null,
};
/** Wren with something of everything that an operation can take away. */
/** A chest of two bays, side by side. */
const CHEST = {
  ...runWith({ id: 'chest', side: 'right', x: 200, length: 900, front: 450, height: 500 }),
  division: {
    cut: 'along' as const,
    divider: 'board' as const,
    sizes: [{ share: 1 }, { share: 1 }],
    parts: ['left', 'right'].map((name) => ({
      name,
      holds: { kind: 'open' as const },
      front: { kind: 'none' as const },
    })),
  },
};

/** Operations of every kind that can be done on the demo. */
const TASK = { task: 'bench-fit', title: 'Fit the bench', kind: 'fit', estimate: 60, by: '' };
const SAMPLES: readonly Operation[] = [
  { name: 'renameProject', payload: { name: 'Wren two', model: 'Halden Carrier long' } },
  { name: 'changeSettings', payload: { changes: { units: 'in', hoursPerDay: 4 } } },
  { name: 'changeCutting', payload: { changes: { kerf: 3.2 } } },
  { name: 'setFigure', payload: { rule: 'way-through', figure: 'hipGood', value: 520 } },
  { name: 'putPerson', payload: { person: { id: 'guest', name: 'Guest', stature: 1800 } } },
  { name: 'removePerson', payload: { id: 'ilva' } },
  { name: 'takeReading', payload: { address: 'station/s4/left/700', reading: reading(930) } },
  { name: 'takeReading', payload: { address: 'opening/o6/from', reading: reading(1000) } },
  { name: 'photoReading', payload: { address: 'floor/length', index: 0, photo: 'tape-1' } },
  { name: 'removeReading', payload: { address: 'floor/length', index: 0 } },
  {
    name: 'takeReadings',
    payload: {
      stations: [{ id: 's12', name: 'Station 12', planned: true }],
      readings: [
        { address: 'station/s12/x', reading: reading(1000) },
        { address: 'level/along', reading: reading(-1.5) },
      ],
    },
  },
  { name: 'askReading', payload: { address: 'station/s3/rest' } },
  { name: 'putKeepOut', payload: { keepOut: { id: 'k9', name: 'Beam', reason: 'beam', note: '' } } },
  { name: 'removeKeepOut', payload: { id: 'k1' } },
  {
    name: 'putPenetration',
    payload: {
      penetration: { id: 'p9', name: 'Vent', surface: 'left', purpose: 'air', decided: false, sealing: '' },
    },
  },
  { name: 'removePenetration', payload: { id: 'p1' } },
  { name: 'putAngle', payload: { angle: { id: 'g9', name: 'Roof', surface: 'ceiling' } } },
  { name: 'removeAngle', payload: { id: 'g1' } },
  {
    name: 'putFound',
    payload: {
      found: {
        id: 'n9',
        name: 'Dent',
        kind: 'other',
        surface: 'rear',
        x: 0,
        along: 0,
        size: 0,
        decision: 'keep',
        status: 'open',
        method: '',
        cost: 0,
        photo: null,
      },
    },
  },
  { name: 'removeFound', payload: { id: 'n1' } },
  {
    name: 'setLeakTest',
    payload: { leakTest: { state: 'overruled', reason: 'new shell', at: '2026-10-01T08:00:00.000Z' } },
  },
  {
    name: 'together',
    payload: {
      operations: [
        { name: 'renameProject', payload: { name: 'Both', model: '' } },
        { name: 'sayLooked', payload: { topic: 'ribs', at: null } },
      ],
    },
  },
  { name: 'sayLooked', payload: { topic: 'under', at: '2026-11-20T09:00:00.000Z' } },
  { name: 'sayNothingFound', payload: { at: '2026-10-01T08:00:00.000Z' } },
  { name: 'photoSurface', payload: { surface: 'left', photo: 'photo-1' } },
  {
    name: 'putJoint',
    payload: { joint: { id: 'j9', name: 'Tee', kind: 'gas', surface: 'floor', tested: false } },
  },
  { name: 'removeJoint', payload: { id: 'j0' } },
  {
    name: 'overrulePoint',
    payload: { point: 'leak', reason: 'stands in a dry hall', at: '2026-10-01T08:00:00.000Z' },
  },
  { name: 'holdPoint', payload: { point: 'photo-left' } },
  { name: 'replaceLayers', payload: { surface: 'doors', layers: [] } },
  { name: 'keepBuildUps', payload: { id: 'b9', name: 'Now' } },
  { name: 'useBuildUps', payload: { id: 'b1' } },
  { name: 'removeBuildUps', payload: { id: 'b1' } },
  {
    name: 'putComfort',
    payload: {
      comfort: {
        id: 'c9',
        when: '2026-10-01T08:00:00.000Z',
        after: 'bare',
        decibels: 80,
        celsius: null,
        moisture: null,
      },
    },
  },
  { name: 'removeComfort', payload: { id: 'c1' } },
  { name: 'skipReading', payload: { address: 'station/s4/left/700' } },
  { name: 'planSurvey', payload: { changes: { symmetric: true, heights: [0, 900] } } },
  { name: 'putStation', payload: { station: { id: 's9', name: 'Extra', planned: false } } },
  { name: 'removeStation', payload: { id: 's2' } },
  { name: 'putRib', payload: { rib: { id: 'r9', name: 'rib 9', on: 'ring', flat: true } } },
  { name: 'removeRib', payload: { id: 'r1' } },
  { name: 'putArch', payload: { arch: { id: 'a1', name: 'Left arch', side: 'left', kind: 'arch', shape: 'rounded' } } },
  { name: 'removeArch', payload: { id: 'a2' } },
  {
    name: 'putOpening',
    payload: {
      opening: {
        id: 'o9',
        name: 'New',
        kind: 'window',
        surface: 'left',
        cornerRadius: 10,
        swing: 'fixed',
        hand: 'none',
        slanted: false,
        framed: false,
        ring: null,
      },
    },
  },
  { name: 'removeOpening', payload: { id: 'o1' } },
  {
    name: 'putLayer',
    payload: {
      surface: 'ceiling',
      layer: {
        id: 'c9',
        material: 'foam-20',
        thickness: 20,
        place: 'continuous',
        board: false,
        share: 1,
        measured: null,
      },
      at: 0,
    },
  },
  {
    name: 'putLayer',
    payload: {
      surface: 'floor',
      layer: {
        id: 'f1',
        material: 'batten-18',
        thickness: 18,
        place: 'battens',
        board: false,
        share: 1,
        measured: null,
      },
      at: 1,
    },
  },
  { name: 'removeLayer', payload: { surface: 'left', id: 'l1' } },
  {
    name: 'placeUnit',
    payload: {
      unit: runWith({ id: 'box', name: 'Box', side: 'right', x: 100, length: 500, front: 400, height: 500, doors: 1 }),
    },
  },
  { name: 'changeUnit', payload: { id: 'bed', changes: { height: 680, mattress: 120 } } },
  { name: 'divideBay', payload: { id: 'tall', bay: 'bay-1', cut: 'along', into: 3 } },
  { name: 'changeDividers', payload: { id: 'chest', bay: 'left', divider: 'frame' } },
  { name: 'sizeBay', payload: { id: 'chest', bay: 'left', size: 300 } },
  {
    name: 'sizeBay',
    payload: { id: 'chest', bay: 'left', size: 310, beside: { side: 'after', size: 290 } },
  },
  { name: 'changeBay', payload: { id: 'tall', bay: 'bay-1', holds: { kind: 'shelves', count: 2 } } },
  { name: 'joinBays', payload: { id: 'chest', bay: 'left' } },
  { name: 'replaceUnit', payload: { unit: { ...CHEST, name: 'Trunk' } } },
  {
    name: 'putMode',
    payload: { mode: { id: 'meal', name: 'Meal', use: 'meal', states: { 'tall.bay-1.door-1': 1 } } },
  },
  { name: 'removeMode', payload: { id: 'night' } },
  { name: 'setAside', payload: { check: 'way', reason: 'only at night', at: '2026-10-01T08:00:00.000Z' } },
  { name: 'takeUp', payload: { check: 'latch:kitchen' } },
  {
    name: 'putTaped',
    payload: {
      unit: 'kitchen',
      corners: [
        [690, -370],
        [690, -880],
        [2135, -370],
        [2135, -880],
      ],
    },
  },
  { name: 'removeTaped', payload: { unit: 'bench' } },
  { name: 'keepLayout', payload: { id: 'v1', name: 'As it is' } },
  { name: 'useLayout', payload: { id: 'v0', keep: { id: 'v2', name: 'Before' } } },
  { name: 'removeLayout', payload: { id: 'v0' } },
  { name: 'putPet', payload: { pet: { ...PET, id: 'moss', name: 'Moss', rides: 'crate' } } },
  { name: 'layPet', payload: { pet: 'wool', at: { unit: 'bench', bay: 'bay-1' } } },
  { name: 'removePet', payload: { id: 'wool' } },
  { name: 'putRun', payload: { run: { ...RUN, id: 'other', name: 'Other' } } },
  { name: 'removeRun', payload: { id: 'feed' } },
  { name: 'putThing', payload: { thing: { ...THING, id: 'cooker', name: 'Cooker' } } },
  { name: 'removeThing', payload: { id: 'cold' } },
  { name: 'putStored', payload: { stored: { ...STORED, id: 'press', count: 2 } } },
  { name: 'removeStored', payload: { id: 'crate' } },
  { name: 'changeLimits', payload: { changes: { most: 3500, bare: 2100 } } },
  { name: 'putWish', payload: { wish: { ...WISH, id: 'light', text: 'light over the bench' } } },
  { name: 'removeWish', payload: { id: 'seat' } },
  { name: 'removeUnit', payload: { id: 'bench' } },
  {
    name: 'keepPlan',
    payload: {
      material: 'birch-18',
      job: 'x',
      sheets: [],
      bound: 0,
      proved: false,
    },
  },
  { name: 'forgetPlan', payload: { material: 'birch-18' } },
  { name: 'startTask', payload: { ...TASK, at: '2026-12-01T08:00:00.000Z' } },
  { name: 'pauseTask', payload: { task: 'bench-fit', at: '2026-12-01T09:00:00.000Z' } },
  { name: 'finishTask', payload: { ...TASK, at: '2026-12-01T09:00:00.000Z', minutes: 70, covers: 'abc' } },
  { name: 'reopenTask', payload: { task: 'bench-assemble' } },
  { name: 'putOffTask', payload: { ...TASK, at: '2026-12-01T09:00:00.000Z', until: '2026-12-04' } },
  {
    name: 'writeLog',
    payload: {
      entry: NOTE,
    },
  },
  { name: 'strikeLog', payload: { id: 'l1', reason: 'the wrong wall', at: '2026-12-01T09:00:00.000Z' } },
  {
    name: 'tickCut',
    payload: { material: 'birch-18', sheet: 's1', step: 'rip:100.0:0.0:0.0', done: true, seconds: 90 },
  },
  {
    name: 'spoilPart',
    payload: {
      waste: {
        id: 'w2',
        material: 'birch-18',
        part: 'a',
        length: 500,
        width: 100,
        cost: 120,
        reason: 'cut on the wrong side of the line',
        remedy: 'smaller',
        date: '2026-02-01',
      },
      offcut: { id: 'o1', material: 'birch-18', length: 490, width: 100, place: 'rack' },
    },
  },
  { name: 'lockPart', payload: { material: 'birch-18', part: 'a', locked: true } },
  {
    name: 'putOffcut',
    payload: { offcut: { id: 'o2', material: 'birch-18', length: 700, width: 400, place: '' } },
  },
  { name: 'removeOffcut', payload: { id: 'o2' } },
  { name: 'removeWaste', payload: { id: 'w1' } },
  { name: 'putWait', payload: { wait: { part: 'tall.bay-1.door-1', read: null } } },
  { name: 'removeWait', payload: { part: 'tall.bay-1.door-1' } },
  { name: 'changeLining', payload: { surface: 'left', changes: { school: 'strips', strip: 240 } } },
  { name: 'changeFloor', payload: { changes: { direction: 'along' } } },
  { name: 'changeBoxes', payload: { changes: { arches: ['a1'], clearance: 30 } } },
  { name: 'changeDoors', payload: { changes: { inset: 30 } } },
  {
    name: 'putReserved',
    payload: {
      reserved: {
        id: 'o1',
        name: 'high cupboard',
        side: 'left',
        x: 500,
        length: 900,
        depth: 300,
        height: 350,
        ceiling: 'stops',
      },
    },
  },
  { name: 'removeReserved', payload: { id: 'o0' } },
  {
    name: 'putHeader',
    payload: {
      header: {
        id: 'd1',
        name: 'rail',
        side: 'right',
        x: 200,
        length: 900,
        past: [{ down: 80, in: 60 }],
        clearance: 5,
      },
    },
  },
  { name: 'removeHeader', payload: { id: 'd0' } },
  {
    name: 'putCorner',
    payload: {
      corner: {
        id: 'c1',
        name: 'pillar',
        surface: 'right',
        board: 'poplar-5',
        height: 1200,
        legs: [120, 90],
        radius: 40,
        angle: 90,
        skin: 1.5,
        grainRound: true,
      },
    },
  },
  { name: 'removeCorner', payload: { id: 'c0' } },
  {
    name: 'putFitting',
    payload: {
      fitting: {
        id: 'f1',
        name: 'lamp',
        kind: 'lamp',
        surface: 'ceiling',
        x: 900,
        along: 0,
        diameter: 60,
        wired: false,
      },
    },
  },
  { name: 'removeFitting', payload: { id: 'f0' } },
  {
    name: 'putFloorHatch',
    payload: { hatch: { id: 'h1', name: 'tank', x: 900, y: 100, length: 300, width: 200, lift: 'ring' } },
  },
  { name: 'removeFloorHatch', payload: { id: 'h0' } },
  { name: 'measureMaterial', payload: { material: 'birch-12', thickness: 11.6 } },
  {
    name: 'logScribe',
    payload: {
      scribe: { id: 's1', part: 'kitchen.top', edge: 'back', gaps: [0, 4], at: '2026-02-01T10:00:00.000Z' },
    },
  },
  { name: 'removeScribe', payload: { id: 's0' } },
  { name: 'leaveToScribe', payload: { allowance: 12 } },
  {
    name: 'putPattern',
    payload: { pattern: { id: 'p1', name: 'arch', source: 'card', revision: 1, mirrored: false, made: [] } },
  },
  { name: 'removePattern', payload: { id: 'p0' } },
  {
    name: 'restore',
    payload: {
      project: createProject({
        id: 'other',
        name: 'Other',
        kind: 'bus',
        model: '',
        units: 'in',
        startDate: '2026-01-01',
      }),
    },
  },
];

const BEFORE: Project = {
  ...wren.project,
  survey: {
    ...wren.project.survey,
    before: {
      nothingFound: null,
      photos: {},
      joints: [{ id: 'j0', name: 'Elbow', kind: 'water', surface: 'left', tested: true }],
      overruled: [{ point: 'photo-left', reason: 'on film', at: '2026-10-01T08:00:00.000Z' }],
    },
  },
  layout: {
    units: [...wren.project.layout.units, CHEST],
    modes: [{ id: 'night', name: 'Night', use: 'night', states: {} }],
    runs: [RUN],
    taped: [
      {
        unit: 'bench',
        corners: [
          [0, 400],
          [0, 880],
          [900, 400],
          [900, 880],
        ],
      },
    ],
    dens: [{ pet: 'wool', at: { x: 1500, y: 0, turned: false } }],
    aside: [{ check: 'latch:kitchen', reason: 'a strap holds them', at: '2026-10-01T08:00:00.000Z' }],
  },
  variants: [{ id: 'v0', name: 'Other way round', layout: { units: [CHEST] } }],
  things: [...(wren.project.things ?? []), THING],
  stored: [STORED],
  pets: [PET],
  wishes: [WISH],
  record: {
    tasks: [
      { ...WORKED, task: 'bench-fit', since: '2026-12-01T08:00:00.000Z', done: null },
      { ...WORKED, task: 'bench-assemble', since: null, done: '2026-11-30T08:00:00.000Z' },
    ],
    log: [{ ...NOTE, id: 'l1' }],
  },
  keptPlans: [EXAMPLE_PLAN],
  fittings: [
    { id: 'f0', name: 'outlet', kind: 'outlet', surface: 'left', x: 900, along: 1000, diameter: 68, wired: true },
  ],
  floorHatches: [{ id: 'h0', name: 'sender', x: 1500, y: 0, length: 200, width: 200, lift: 'finger-hole' }],
  reserved: [
    {
      id: 'o0',
      name: 'Book shelf',
      side: 'right',
      x: 400,
      length: 600,
      depth: 200,
      height: 250,
      ceiling: 'through',
    },
  ],
  corners: [
    {
      id: 'c0',
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
  headers: [{ id: 'd0', name: 'Loom', side: 'left', x: 0, length: 500, past: [{ down: 50, in: 50 }], clearance: 5 }],
  scribes: [{ id: 's0', part: 'kitchen.top', edge: 'back', gaps: [1, 2], at: '2026-02-01T09:00:00.000Z' }],
  patterns: [{ id: 'p0', name: 'card', source: '', revision: 2, mirrored: true, made: [] }],
  offcuts: [{ id: 'o2', material: 'birch-18', length: 800, width: 300, place: 'rack' }],
  waits: [{ part: 'tall.bay-1.door-1', read: { length: 500, width: 400 } }],
  waste: [
    {
      id: 'w1',
      material: 'birch-18',
      part: 'b',
      length: 300,
      width: 200,
      cost: 90,
      reason: 'split',
      remedy: 'recut',
      date: '2026-01-20',
    },
  ],
};

describe('operations', () => {
  it('there is a sample of each below', () => {
    expect([...new Set(SAMPLES.map((operation) => operation.name))].sort()).toEqual([...OPERATION_NAMES].sort());
  });
  it.each(SAMPLES.map((operation) => [operation.name, operation] as const))(
    '%s leaves a sound project and is undone exactly',
    (_name, operation) => {
      const read = readOperation(JSON.parse(JSON.stringify(operation)));
      const edit = applyOperation(BEFORE, read);
      expect(isProject(edit.project)).toBe(true);
      expect(edit.project).not.toEqual(BEFORE);
      expect(patchProject(edit.project, edit.inverse)).toEqual(BEFORE);
      expect(patchProject(BEFORE, edit.patches)).toEqual(edit.project);
    },
  );
  it('any run of them is undone step by step to where it began', () => {
    fc.assert(
      fc.property(fc.array(fc.constantFrom(...SAMPLES), { maxLength: 12 }), (operations) => {
        let project: Project = wren.project;
        const inverses: ReturnType<typeof applyOperation>['inverse'][] = [];
        for (const operation of operations) {
          try {
            const edit = applyOperation(project, operation);
            project = edit.project;
            inverses.push(edit.inverse);
          } catch (problem) {
            expect(problem).toBeInstanceOf(OperationError);
          }
        }
        for (const inverse of inverses.reverse()) project = patchProject(project, inverse);
        expect(project).toEqual(wren.project);
      }),
      { seed: 31, numRuns: 150 },
    );
  });
  it('take out with a thing all that spoke of it', () => {
    const { project } = applyOperation(wren.project, { name: 'removeStation', payload: { id: 's2' } });
    expect(Object.keys(project.survey.readings).some((address) => address.includes('/s2/'))).toBe(false);
    const without = applyOperation(wren.project, { name: 'removePerson', payload: { id: 'joost' } }).project;
    expect(without.layout.units[0]?.options).toMatchObject({ sleepers: ['ilva'] });
  });
  it.each([
    [{ name: 'nonsense', payload: {} }, 'operation.unknown'],
    [null, 'operation.unknown'],
    [{ name: 'removeUnit', payload: { id: 'bench', why: 'x' } }, 'operation.badPayload'],
    [{ name: 'changeUnit', payload: { id: 'bench', changes: { length: {} } } }, 'operation.badPayload'],
    [{ name: 'putPerson', payload: { person: { id: 'p', name: '', stature: 1700 } } }, 'operation.badPayload'],
  ])('%j is refused', (raw, key) => {
    expect(() => readOperation(raw)).toThrow(
      expect.objectContaining({ said: expect.objectContaining({ key }) as object }) as Error,
    );
  });
  it.each([
    [{ name: 'removeUnit', payload: { id: 'sofa' } }, 'operation.notThere'],
    [{ name: 'changeUnit', payload: { id: 'sofa', changes: { x: 1 } } }, 'operation.notThere'],
    [{ name: 'changeUnit', payload: { id: 'bed', changes: { doors: 2 } } }, 'operation.badUnit'],
    [{ name: 'changeUnit', payload: { id: 'bench', changes: { length: -20 } } }, 'operation.outOfRange'],
    [{ name: 'divideBay', payload: { id: 'bench', bay: 'no', cut: 'up', into: 2 } }, 'operation.noBay'],
    [{ name: 'joinBays', payload: { id: 'bench', bay: 'bay-1' } }, 'operation.notDivided'],
    [
      { name: 'tickCut', payload: { material: 'wool-50', sheet: 's1', step: 'x', done: true, seconds: null } },
      'operation.notThere',
    ],
    [{ name: 'takeReading', payload: { address: 'station/s99/x', reading: reading(1) } }, 'operation.noPlace'],
    [{ name: 'takeReading', payload: { address: 'arch/a1/height', reading: reading(4000) } }, 'operation.outOfRange'],
    [{ name: 'removeReading', payload: { address: 'floor/length', index: 7 } }, 'operation.noReading'],
    [{ name: 'photoReading', payload: { address: 'floor/length', index: 7, photo: null } }, 'operation.noReading'],
    [{ name: 'placeUnit', payload: { unit: wren.project.layout.units[0] } }, 'operation.twice'],
    [{ name: 'pauseTask', payload: { task: 'bench-fit', at: '2026-12-01T09:00:00.000Z' } }, 'operation.notTouched'],
    [{ name: 'reopenTask', payload: { task: 'bench-fit' } }, 'operation.notTouched'],
    [{ name: 'writeLog', payload: { entry: { ...NOTE, text: ' ' } } }, 'operation.emptyEntry'],
    [{ name: 'strikeLog', payload: { id: 'no', reason: 'x', at: '2026-12-01T09:00:00.000Z' } }, 'operation.notThere'],
  ] as [Operation, string][])('%j cannot be done on the demo', (operation, key) => {
    expect(() => applyOperation(wren.project, operation)).toThrow(
      expect.objectContaining({ said: expect.objectContaining({ key }) as object }) as Error,
    );
  });
});

describe('the record of the work', () => {
  it.each([
    [{ name: 'pauseTask', payload: { task: 'bench-assemble', at: '2026-12-01T09:00:00.000Z' } }, 'operation.notInHand'],
    [{ name: 'reopenTask', payload: { task: 'bench-fit' } }, 'operation.notDone'],
    [
      { name: 'startTask', payload: { ...TASK, task: 'bench-assemble', at: '2026-12-01T09:00:00.000Z' } },
      'operation.doneAlreadyBy',
    ],
    [
      { name: 'putOffTask', payload: { ...TASK, task: 'bench-assemble', at: '2026-12-01T09:00:00.000Z', until: null } },
      'operation.doneAlreadyBy',
    ],
    [{ name: 'writeLog', payload: { entry: { ...NOTE, id: 'l1' } } }, 'operation.writtenAlready'],
  ] as [Operation, string][])('%j is refused', (operation, key) => {
    expect(() => applyOperation(BEFORE, operation)).toThrow(
      expect.objectContaining({ said: expect.objectContaining({ key }) as object }) as Error,
    );
  });
});

describe('derive', () => {
  it('works on an empty project of each kind without complaint but what is missing', () => {
    for (const kind of ['van', 'bus', 'trailer'] as const) {
      const derived = derive(
        createProject({ id: 'e', name: 'Empty', kind, model: '', units: 'mm', startDate: '2026-10-01' }),
        book,
      );
      expect(derived.shell).toBeNull();
      expect(derived.parts).toEqual([]);
      expect(derived.shopping.total).toBe(0);
      expect(derived.schedule.ends).toBeNull();
      expect(derived.progress.next).toBe('floor/length');
      expect(derived.problems.map((problem) => problem.said.key)).toEqual(['shell.noStation']);
    }
  });
  it.each([
    ['Wren', demo, 2, 45],
    ['Bulrush', bulrush, 1, 15],
    ['Thimble', thimble, 2, 25],
  ] as const)(
    '%s gives the same result with a memory as without, after any operations in any order',
    (_name, text, numRuns, least) => {
      const { project: start, priceBook: prices } = readProjectFile(text);
      let done = 0;
      fc.assert(
        fc.property(fc.shuffledSubarray([...SAMPLES], { minLength: 40 }), (operations) => {
          const deriver = createDeriver();
          let project = start;
          deriver.derive(project, prices);
          for (const [i, operation] of operations.entries()) {
            try {
              project = applyOperation(project, operation, prices).project;
            } catch {
              continue;
            }
            done += 1;
            // now and then everything is asked for, else only what a stage shows first
            if (i % 9 === 0) expect(deriver.derive(project, prices)).toEqual(derive(project, prices));
            else void deriver.pull(project, prices).made;
          }
          expect(deriver.derive(project, prices)).toEqual(derive(project, prices));
        }),
        { seed: 20, numRuns },
      );
      expect(done).toBeGreaterThan(least);
    },
  );
  it('works again only on what a change touches', () => {
    const deriver = createDeriver();
    const before = deriver.derive(wren.project, book);
    const moved = deriver.derive(
      applyOperation(wren.project, { name: 'changeUnit', payload: { id: 'bench', changes: { x: 1400 } } }).project,
      book,
    );
    expect(moved.shell).toBe(before.shell);
    expect(moved.inner).toBe(before.inner);
    expect(moved.subfloor).toBe(before.subfloor);
    const of = (parts: typeof before.parts, unit: string) => parts.filter((part) => part.unit === unit);
    expect(of(moved.parts, 'kitchen')[0]).toBe(of(before.parts, 'kitchen')[0]);
    expect(of(moved.parts, 'bench')[0]).not.toBe(of(before.parts, 'bench')[0]);
  });
  it('keeps a plan while its job is the same, and not when a size changed or the plan is unsound', () => {
    const fresh: Project = { ...wren.project, keptPlans: [], offcuts: [], waste: [] };
    const item = derive(fresh, book).plans.find((plan) => plan.material.id === 'birch-15');
    if (!item) throw new Error('no plan');
    const keep = (change: Partial<KeptPlan> = {}): Project =>
      applyOperation(fresh, { name: 'keepPlan', payload: { ...keptNow(item), ...change } }).project;
    const planIn = (project: Project) => derive(project, book).plans.find((plan) => plan.material.id === 'birch-15');
    const kept = keep();
    expect(planIn(kept)).toMatchObject({ state: 'kept', anew: [], plan: { cost: item.plan.cost } });
    // a part of the first sheet was another size when the plan was kept: that sheet alone is laid out anew
    const changed = keptNow(item).sheets.map((sheet, i) => ({
      ...sheet,
      placements: sheet.placements.map((placed, k) =>
        i + k === 0 ? { ...placed, length: placed.length - 7 } : placed,
      ),
    }));
    const mended = planIn(keep({ sheets: changed }));
    expect(mended?.state).toBe('mended');
    expect(mended?.sheets.slice(0, -1).map((sheet) => sheet.id)).toEqual(changed.slice(1).map((sheet) => sheet.id));
    expect(mended?.anew).toHaveLength(1);
    expect(planFaults(item.job, mended?.plan ?? item.plan)).toEqual([]);
    const overlapping = keptNow(item).sheets.map((sheet) => ({
      ...sheet,
      placements: sheet.placements.map((placed) => ({ ...placed, x: 0, y: 0 })),
    }));
    expect(planFaults(item.job, planIn(keep({ sheets: overlapping }))?.plan ?? item.plan)).toEqual([]);
  });
});

describe('memory', () => {
  it('gives the last result again for the same arguments only', () => {
    let calls = 0;
    const add = memoLast((a: number, b: number) => {
      calls += 1;
      return a + b;
    });
    expect([add(1, 2), add(1, 2), add(2, 2), add(1, 2)]).toEqual([3, 3, 4, 3]);
    expect(calls).toBe(3);
    const each = memoEach(
      (a: string) => a,
      (a: string, b: number) => ({ a, b }),
    );
    const [x, y] = [each('x', 1), each('y', 1)];
    expect(each('x', 1)).toBe(x);
    expect(each('y', 1)).toBe(y);
    expect(each('x', 2)).not.toBe(x);
  });
});

describe('several changes as one', () => {
  const base = readProjectFile(demo).project;
  const rename = (name: string): Operation => ({ name: 'renameProject', payload: { name, model: '' } });
  it('are all done or none, and one set of patches takes them back', () => {
    const edit = applyOperation(base, {
      name: 'together',
      payload: { operations: [rename('One'), { name: 'sayLooked', payload: { topic: 'under', at: null } }] },
    });
    expect(edit.project.name).toBe('One');
    expect(patchProject(edit.project, edit.inverse)).toEqual(base);
    const bad = (): unknown =>
      applyOperation(base, {
        name: 'together',
        payload: { operations: [rename('Two'), { name: 'removeUnit', payload: { id: 'nobody' } }] },
      });
    expect(bad).toThrow(OperationError);
    expect(base.name).not.toBe('Two');
  });
  it('are read one by one, and none of them is several again or a whole project', () => {
    for (const operation of [
      { name: 'together', payload: { operations: [rename('x')] } },
      { name: 'restore', payload: { project: base } },
      { name: 'renameProject', payload: { nam: 'x' } },
      { name: 'nothing', payload: {} },
    ])
      expect(() => applyOperation(base, { name: 'together', payload: { operations: [operation] } })).toThrow(
        OperationError,
      );
  });
});

describe('a name', () => {
  it('is what was typed of it: what no keyboard types and no file bears is let go', () => {
    const named = (name: string) =>
      applyOperation(wren.project, readOperation({ name: 'renameProject', payload: { name, model: 'a\u0000b' } }))
        .project;
    expect(named('Wren\u0000 two\u0007').name).toBe('Wren two');
    expect(() => named('\u0000')).toThrow(OperationError);
  });
});
