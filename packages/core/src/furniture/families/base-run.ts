import { z } from 'zod';
import { endOf, frontLineOf } from '../../document/body.js';
import type { Field } from '../../document/kit.js';
import { gapSchema } from '../../document/schema-base.js';
import { CUTS, type Unit } from '../../document/unit-schema.js';
import { bestTop, grownIn } from '../../rules/people.js';
import { materialOf } from '../../materials/material.js';
import { spread } from '../../numeric/plane.js';
import { halfWidth } from '../../shell/shell.js';
import { message } from '../../words/message.js';
import { archIn, bayField, CARCASS_ROLES, notchedBy, overArchField } from '../against-wall.js';
import { carcassSkeleton, nothingButProblems } from '../carcass.js';
import {
  bodyField,
  faultsBy,
  freePlace,
  materialField,
  numberOption,
  optionField,
  scribeField,
  sheetAbout,
  sideField,
  type Family,
  type Start,
  type Surroundings,
} from '../family.js';
import type { Motion } from '../motions.js';
import { boardIn, outward } from '../simple-boards.js';
import { contactsOf, type Board, type Skeleton } from '../skeleton.js';

/** One stands and works at a top between these heights, unless it is said otherwise, mm. */
const WORKTOP_MM = [780, 1000] as const;

const FLAPS = ['none', 'front', 'rear'] as const;
const flapOf = ({ options }: Unit): (typeof FLAPS)[number] => FLAPS.find((end) => end === options['flapEnd']) ?? 'none';
/** A flap is as long as this where nothing was said, and stays so far off the wall, mm. */
const FLAP_MM = 350;
const OFF_WALL_MM = 10;
const flapLong = ({ options }: Unit): number =>
  typeof options['flapLong'] === 'number' ? options['flapLong'] : FLAP_MM;
const flapField: Field = {
  name: 'flapEnd',
  kind: 'choice',
  group: 'place',
  choices: FLAPS,
  get: flapOf,
  set: (unit, value) =>
    flapOf(unit) === value ? unit : { ...unit, options: { ...unit.options, flapEnd: value, flapLong: flapLong(unit) } },
};
const flapLongField: Field = {
  ...optionField('flapLong', { group: 'place', least: 100, most: 900 }),
  when: (unit) => flapOf(unit) !== 'none',
  get: flapLong,
  set: (unit, value) => (flapLong(unit) === value ? unit : { ...unit, options: { ...unit.options, flapLong: value } }),
};

const isLoose = ({ options }: Unit): boolean => options['flapLoose'] === true;
const flapLooseField: Field = {
  name: 'flapLoose',
  kind: 'yes-no',
  group: 'place',
  when: (unit) => flapOf(unit) !== 'none',
  get: isLoose,
  set: (unit, value) => (isLoose(unit) === value ? unit : { ...unit, options: { ...unit.options, flapLoose: value } }),
};

/**
 * A flap that hangs at an end of the top and is lifted level with it, as thick as the top: hinged under its edge, or loose,
 * on hooks at the end while it is not laid on.
 */
function flapOn(unit: Unit, { inner, book }: Surroundings): { readonly board: Board; readonly motion: Motion } | null {
  const end = flapOf(unit);
  const line = frontLineOf(unit);
  const top = materialOf(book, unit.materials['top'] ?? '');
  if (end === 'none' || !line || !top) return null;
  const [long, thick] = [flapLong(unit), top.thickness];
  const at = end === 'front' ? unit.body.x : endOf(unit);
  const reach = end === 'front' ? [at - long, at] : [at, at + long];
  const z = inner.floor + unit.body.to;
  const wall = Math.min(
    ...spread(reach[0] ?? at, reach[1] ?? at, 7).flatMap((x) =>
      [z - thick - long, z].map((height) => halfWidth(inner, line.side, x, height)),
    ),
  );
  const near = line.front - numberOption(unit, 'overhang');
  const across = outward(line.sign, near, Math.max(near + 50, wall - OFF_WALL_MM));
  const along = (far: number): { readonly x0: number; readonly x1: number } =>
    end === 'front' ? { x0: at - far, x1: at } : { x0: at, x1: at + far };
  const loose = isLoose(unit);
  const shut = { ...across, ...along(thick), z0: z - thick - long, z1: z - thick };
  const open = { ...across, ...along(long), z0: z - thick, z1: z };
  return {
    board: boardIn(shut, 'x', {
      name: 'flap',
      role: 'top-flap',
      material: top,
      grain: 'z',
      good: end === 'front' ? -1 : 1,
      held: loose ? 'loose' : 'hung',
      moves: 'flap',
    }),
    motion: {
      of: `${unit.id}.flap`,
      name: message(loose ? 'motion.looseTop' : 'motion.topFlap', { unit: { unit: unit.id } }),
      ...(loose
        ? { kind: 'lift-off', to: open, part: true }
        : {
            kind: 'hinge',
            about: 'level',
            open,
            through: { ...across, ...along(long), z0: shut.z0, z1: open.z1 },
          }),
      shut,
      latch: true,
      before: 0,
    },
  };
}

const upstandOf = ({ options }: Unit): number => (typeof options['upstand'] === 'number' ? options['upstand'] : 0);
const upstandField: Field = {
  ...optionField('upstand', { group: 'place', least: 0, most: 300 }),
  get: upstandOf,
  set: (unit, value) => (upstandOf(unit) === value ? unit : { ...unit, options: { ...unit.options, upstand: value } }),
};

/** A board that stands on the back of the top, before the wall: straight, so as near as the wall comes to it anywhere. */
function upstandOn(unit: Unit, { inner, book }: Surroundings): Board | null {
  const high = upstandOf(unit);
  const line = frontLineOf(unit);
  const top = materialOf(book, unit.materials['top'] ?? '');
  if (high <= 0 || !line || !top) return null;
  const [x0, x1, z] = [unit.body.x, endOf(unit), inner.floor + unit.body.to];
  const wall = Math.min(
    ...spread(x0, x1, 13).flatMap((x) =>
      spread(z, z + high, 5).map((height) => halfWidth(inner, line.side, x, height)),
    ),
  );
  const back = wall - UPSTAND_GAP_MM;
  return boardIn({ ...outward(line.sign, back - top.thickness, back), x0, x1, z0: z, z1: z + high }, 'y', {
    name: 'upstand',
    role: 'upstand',
    material: top,
    grain: 'x',
    good: line.sign === 1 ? -1 : 1,
    held: 'fixed',
  });
}
/** Sealed behind it, mm. */
const UPSTAND_GAP_MM = 2;

function skeletonOf(unit: Unit, room: Surroundings): Skeleton {
  const line = frontLineOf(unit);
  const [board, top, facing] = ['carcass', 'top', 'facing'].map((role) =>
    materialOf(room.book, unit.materials[role] ?? ''),
  );
  if (!line || !board || !top || !facing) return nothingButProblems([]);
  const { floor } = room.inner;
  const run = carcassSkeleton({
    unit,
    room,
    side: line.side,
    sign: line.sign,
    front: line.front,
    foot: floor,
    bottom: floor + numberOption(unit, 'toeKick'),
    carcassTop: floor + unit.body.to - top.thickness,
    board,
    facing,
    top: { material: top, overhang: numberOption(unit, 'overhang'), lids: false },
    head: 'rails',
    seenBelow: false,
    notched: notchedBy(unit, room),
  });
  if (run.boards.length === 0) return run;
  const flap = flapOn(unit, room);
  const upstand = upstandOn(unit, room);
  if (!flap && !upstand) return run;
  const boards = [...run.boards, ...(upstand ? [upstand] : []), ...(flap ? [flap.board] : [])];
  return {
    ...run,
    boards,
    contacts: contactsOf(boards),
    motions: [...(run.motions ?? []), ...(flap ? [flap.motion] : [])],
  };
}

/** As much of a free stretch as it makes use of, as it is usually made. */
function runIn(
  x: number,
  length: number,
  side: 'left' | 'right',
  front: number,
  { id, name, people, book }: Start,
): Unit {
  return {
    id,
    family: 'base-run',
    name,
    body: { stands: side, x, length, front, from: 0, to: bestTop(grownIn(people), {}) },
    meets: { back: { how: 'scribed', allowance: 20 }, foot: { how: 'square' } },
    division: { name: 'bay-1', holds: { kind: 'shelves', count: 1 }, front: { kind: 'doors', count: 2, latch: true } },
    school: 'plywood',
    materials: {
      carcass: sheetAbout(book, 15),
      facing: sheetAbout(book, 15),
      top: materialOf(book, 'birch-18') ? 'birch-18' : sheetAbout(book, 18),
    },
    options: { toeKick: 90, overhang: 20 },
  };
}

/** Whether somebody stands and works at its top. */
const worksField: Field = {
  name: 'works',
  kind: 'yes-no',
  group: 'place',
  get: (unit) => worksAt(unit),
  set: (unit, value) => (worksAt(unit) === value ? unit : { ...unit, options: { ...unit.options, works: value } }),
};
function worksAt({ body, options }: Unit): boolean {
  return typeof options['works'] === 'boolean' ? options['works'] : body.to >= WORKTOP_MM[0] && body.to < WORKTOP_MM[1];
}

/** Cupboards, benches and kitchens against a side wall: a carcass on a plinth, with a top. */
export const baseRun: Family = {
  id: 'base-run',
  words: {
    name: 'Base run',
    add: 'Base cupboard',
    start: 'Cupboard',
    noun: 'cupboard',
    fields: {
      facing: 'Doors of',
      flapEnd: 'Flap of the top, lifted',
      flapLong: 'Flap, long',
      flapLoose: 'Flap is loose, on hooks',
      upstand: 'Upstand, high',
    },
    roles: { ...CARCASS_ROLES, 'top-flap': 'flap of the top', upstand: 'upstand' },
  },
  schools: ['plywood'],
  cuts: CUTS,
  fields: [
    bodyField('x', 'x'),
    bodyField('length', 'length'),
    bodyField('height', 'to'),
    bodyField('front', 'front'),
    sideField,
    materialField('carcass'),
    materialField('facing'),
    materialField('top'),
    optionField('toeKick', { group: 'made' }),
    optionField('overhang', { group: 'made' }),
    worksField,
    flapField,
    flapLongField,
    flapLooseField,
    upstandField,
    overArchField,
    scribeField(['back']),
    bayField('shelves', 8, 'holds', 'shelves'),
    bayField('doors', 6, 'front', 'doors'),
  ],
  faults: faultsBy({
    stands: ['left', 'right'],
    materials: ['carcass', 'facing', 'top'],
    options: z.strictObject({
      toeKick: gapSchema,
      overhang: gapSchema,
      overArch: z.boolean().optional(),
      works: z.boolean().optional(),
      flapEnd: z.enum(FLAPS).optional(),
      flapLong: gapSchema.optional(),
      flapLoose: z.boolean().optional(),
      upstand: gapSchema.optional(),
    }),
    cuts: CUTS,
  }),
  start: (start) => {
    const length = Math.min(900, Math.round(start.room.length / 2));
    const { side, x } = freePlace(start, length);
    return runIn(x, length, side, 370, start);
  },
  inGap: (gap, start) => {
    const room = gap.x1 - gap.x0;
    if (gap.zone !== 'floor' || gap.where === 'middle' || room < 350 || gap.deep < 300 || gap.z1 < 900) return null;
    const length = Math.round(Math.min(room, 1200));
    const deep = Math.min(gap.deep, 520);
    return {
      unit: runIn(gap.x0, length, gap.where, Math.round(gap.wall - deep), start),
      fits: Math.min(1, room / 1200) * Math.min(1, deep / 450),
    };
  },
  skeleton: skeletonOf,
  overhang: (unit) => numberOption(unit, 'overhang'),
  worksAt,
  rules: [archIn],
};
