import { z } from 'zod';
import { endOf, frontLineOf } from '../../document/body.js';
import { gapSchema, idSchema } from '../../document/schema-base.js';
import type { Person } from '../../document/schema.js';
import { CUTS, type Unit } from '../../document/unit-schema.js';
import { materialOf } from '../../materials/material.js';
import { spread } from '../../numeric/plane.js';
import { backOfKnee, CUSHION_GIVES, grownIn } from '../../rules/people.js';
import { halfWidth, type Shell } from '../../shell/shell.js';
import { archIn, CARCASS_ROLES, notchedBy, overArchField } from '../against-wall.js';
import { carcassSkeleton, nothingButProblems } from '../carcass.js';
import {
  bodyField,
  faultsBy,
  freePlace,
  materialField,
  numberOption,
  optionField,
  peopleField,
  scribeField,
  sheetAbout,
  sideField,
  yesNoField,
  type Family,
  type Start,
} from '../family.js';

const CUSHION_MM = 80;
const BACKREST_MM = 80;
/** A seat is about so deep from its edge to the backrest, mm. */
const DEEP_MM = 450;

/** The height of the boards that suits those who are grown best: the middle of their knees, with the cushion pressed. */
export function seatHeight(people: readonly Person[], cushion: number): number {
  const grown = grownIn(people);
  const knees = (grown.length > 0 ? grown : people).map((person) => person.backOfKnee ?? backOfKnee(person.stature));
  const middle = knees.length === 0 ? 440 : (Math.min(...knees) + Math.max(...knees)) / 2;
  return Math.round(middle - (1 - CUSHION_GIVES) * cushion);
}

function seatAt(x: number, length: number, side: 'left' | 'right', front: number, start: Start): Unit {
  return {
    id: start.id,
    family: 'seat',
    name: start.name,
    body: { stands: side, x, length, front, from: 0, to: seatHeight(start.people, CUSHION_MM) },
    meets: { back: { how: 'scribed', allowance: 20 }, foot: { how: 'square' } },
    division: { name: 'bay-1', holds: { kind: 'hold' }, front: { kind: 'panel' } },
    school: 'plywood',
    materials: {
      carcass: sheetAbout(start.book, 12),
      facing: sheetAbout(start.book, 12),
      top: sheetAbout(start.book, 15),
    },
    options: { cushion: CUSHION_MM, backrest: BACKREST_MM, sitters: [], latch: true },
  };
}

/** From the front edge to the backrest, the least along it, mm. */
function deepOf(unit: Unit, inner: Shell): number {
  const line = frontLineOf(unit);
  if (!line) return 0;
  const z = inner.floor + unit.body.to;
  const wall = Math.min(...spread(unit.body.x, endOf(unit), 7).map((x) => halfWidth(inner, line.side, x, z)));
  return wall - line.front - numberOption(unit, 'backrest');
}

/** A box to sit on, with lids over its hold and a cushion on them. */
export const seat: Family = {
  id: 'seat',
  words: {
    name: 'Seat',
    add: 'Bench seat',
    start: 'Seat',
    noun: 'seat',
    fields: { latch: 'Lids held on the road', top: 'Lids of', facing: 'Front of', height: 'Boards' },
    roles: CARCASS_ROLES,
  },
  schools: ['plywood'],
  cuts: CUTS,
  fields: [
    bodyField('x', 'x'),
    bodyField('length', 'length'),
    bodyField('height', 'to'),
    bodyField('front', 'front'),
    sideField,
    optionField('cushion', { group: 'place', least: 0, most: 300 }),
    optionField('backrest', { group: 'place', least: 0, most: 300 }),
    peopleField('sitters'),
    materialField('carcass'),
    materialField('facing'),
    materialField('top'),
    yesNoField('latch', 'place'),
    overArchField,
    scribeField(['back']),
  ],
  faults: faultsBy({
    stands: ['left', 'right'],
    materials: ['carcass', 'facing', 'top'],
    options: z.strictObject({
      cushion: gapSchema,
      backrest: gapSchema,
      sitters: z.array(idSchema).max(8),
      latch: z.boolean().optional(),
      overArch: z.boolean().optional(),
    }),
    cuts: CUTS,
  }),
  start: (start) => {
    const { side, x } = freePlace(start, 1000, ['right', 'left']);
    const wall = Math.min(...[x, x + 1000].map((at) => halfWidth(start.room, side, at, start.room.floor + 430)));
    return seatAt(x, 1000, side, Math.max(0, Math.round(wall - DEEP_MM - BACKREST_MM)), start);
  },
  inGap: (gap, start) => {
    const room = gap.x1 - gap.x0;
    if (gap.zone !== 'floor' || gap.where === 'middle' || room < 500 || gap.deep < DEEP_MM) return null;
    const length = Math.round(Math.min(room, 1250));
    const deep = Math.min(gap.deep, DEEP_MM + BACKREST_MM);
    return {
      unit: seatAt(gap.x0, length, gap.where, Math.round(gap.wall - deep), start),
      fits: 0.95 * Math.min(1, room / 1000) * Math.min(1, deep / (DEEP_MM + BACKREST_MM)),
    };
  },
  skeleton: (unit, room) => {
    const line = frontLineOf(unit);
    const [board, top, facing] = ['carcass', 'top', 'facing'].map((role) =>
      materialOf(room.book, unit.materials[role] ?? ''),
    );
    if (!line || !board || !top || !facing) return nothingButProblems([]);
    const { floor } = room.inner;
    return carcassSkeleton({
      unit,
      room,
      side: line.side,
      sign: line.sign,
      front: line.front,
      foot: floor,
      bottom: floor,
      carcassTop: floor + unit.body.to - top.thickness,
      board,
      facing,
      top: { material: top, overhang: 0, lids: true },
      head: 'rails',
      seenBelow: false,
      notched: notchedBy(unit, room),
    });
  },
  sits: (unit, { inner }) => {
    const line = frontLineOf(unit);
    if (!line) return [];
    const { sitters } = unit.options;
    return [
      {
        top: unit.body.to,
        cushion: numberOption(unit, 'cushion'),
        deep: deepOf(unit, inner),
        wide: unit.body.length,
        at: [unit.body.x + unit.body.length / 2, line.sign * line.front],
        looks: [0, -line.sign],
        sitters: Array.isArray(sitters) ? sitters : [],
      },
    ];
  },
  rules: [archIn],
};
