import { z } from 'zod';
import { frontLineOf } from '../../document/body.js';
import { gapSchema } from '../../document/schema-base.js';
import { CUTS, type Unit } from '../../document/unit-schema.js';
import { materialOf } from '../../materials/material.js';
import { halfWidth } from '../../shell/shell.js';
import { archIn, bayField, CARCASS_ROLES, notchedBy, overArchField } from '../against-wall.js';
import { beforeCarcass } from '../carcass-boards.js';
import { carcassSkeleton, nothingButProblems, roofOver } from '../carcass.js';
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
} from '../family.js';

const UNDER_ROOF_MM = 10;
/** From so wide on clothes hang side by side on a rail from front to back, mm. */
const HANGER_MM = 600;

function standing(x: number, length: number, side: 'left' | 'right', front: number, start: Start): Unit {
  const sign = side === 'left' ? -1 : 1;
  const probe = { body: { stands: side, x, length, front, from: 0, to: 1 } } as Unit;
  const to = Math.floor(roofOver(start.room, probe, sign * front) - start.room.floor) - UNDER_ROOF_MM;
  return {
    id: start.id,
    family: 'tall-cupboard',
    name: start.name,
    body: { stands: side, x, length, front, from: 0, to: Math.max(300, to) },
    meets: { back: { how: 'scribed', allowance: 20 }, foot: { how: 'square' } },
    division: {
      cut: 'up',
      divider: 'board',
      sizes: [{ share: 1 }, { share: 2 }],
      parts: [
        { name: 'bay-1', holds: { kind: 'shelves', count: 1 }, front: { kind: 'doors', count: 1, latch: true } },
        {
          name: 'bay-2',
          holds: { kind: 'rail', along: length >= HANGER_MM ? 'depth' : 'bay' },
          front: { kind: 'doors', count: 1, latch: true },
        },
      ],
    },
    school: 'plywood',
    materials: { carcass: sheetAbout(start.book, 15), facing: sheetAbout(start.book, 12) },
    options: { toeKick: 60 },
  };
}

/** From the floor to under the roof: a wardrobe, a larder, a tower. */
export const tallCupboard: Family = {
  id: 'tall-cupboard',
  words: {
    name: 'Tall cupboard',
    add: 'Tall cupboard',
    start: 'Tall cupboard',
    noun: 'tall-cupboard',
    fields: { facing: 'Doors of' },
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
    materialField('carcass'),
    materialField('facing'),
    optionField('toeKick', { group: 'made' }),
    overArchField,
    scribeField(['back']),
    bayField('shelves', 8, 'holds', 'shelves'),
    bayField('doors', 6, 'front', 'doors'),
  ],
  faults: faultsBy({
    stands: ['left', 'right'],
    materials: ['carcass', 'facing'],
    options: z.strictObject({ toeKick: gapSchema, overArch: z.boolean().optional() }),
    cuts: CUTS,
  }),
  start: (start) => {
    const { side, x } = freePlace(start, 600);
    const wall = Math.min(...[x, x + 600].map((at) => halfWidth(start.room, side, at, start.room.floor + 900)));
    return standing(x, 600, side, Math.max(100, Math.round(wall - 560)), start);
  },
  inGap: (gap, start) => {
    const room = gap.x1 - gap.x0;
    if (gap.zone !== 'floor' || gap.where === 'middle' || room < 320 || gap.deep < 400 || gap.z1 < 1500) return null;
    const deep = Math.min(gap.deep, 600);
    const unit = standing(gap.x0, Math.round(Math.min(room, 650)), gap.where, Math.round(gap.wall - deep), start);
    return { unit, fits: 0.9 * Math.min(1, room / 500) * Math.min(1, deep / 550) };
  },
  skeleton: (unit, room) => {
    const line = frontLineOf(unit);
    const [board, facing] = ['carcass', 'facing'].map((role) => materialOf(room.book, unit.materials[role] ?? ''));
    if (!line || !board || !facing) return nothingButProblems([]);
    const { floor } = room.inner;
    return carcassSkeleton({
      unit,
      room,
      side: line.side,
      sign: line.sign,
      front: line.front,
      foot: floor,
      bottom: floor + numberOption(unit, 'toeKick'),
      carcassTop: Math.min(
        floor + unit.body.to,
        roofOver(room.inner, unit, line.sign * (line.front + beforeCarcass(unit, facing))),
      ),
      board,
      facing,
      top: null,
      head: 'board',
      seenBelow: false,
      notched: notchedBy(unit, room),
    });
  },
  rules: [archIn],
};
