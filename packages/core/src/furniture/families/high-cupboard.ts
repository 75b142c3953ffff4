import { z } from 'zod';
import { frontLineOf } from '../../document/body.js';
import { CUTS, type Unit } from '../../document/unit-schema.js';
import { materialOf } from '../../materials/material.js';
import { halfWidth, wallTop } from '../../shell/shell.js';
import { bayField, CARCASS_ROLES } from '../against-wall.js';
import { beforeCarcass } from '../carcass-boards.js';
import { carcassSkeleton, nothingButProblems, roofOver } from '../carcass.js';
import {
  bodyField,
  faultsBy,
  freePlace,
  fromField,
  materialField,
  scribeField,
  sheetAbout,
  sideField,
  type Family,
  type Start,
} from '../family.js';
import { thinIn } from '../skeleton.js';

/** Its head stays so far under the roof, mm. */
const UNDER_ROOF_MM = 10;
const HIGH_MM = 380;
const DEEP_MM = 330;

function hung(x: number, length: number, side: 'left' | 'right', start: Start): Unit {
  const sign = side === 'left' ? -1 : 1;
  const front = frontAt(x, length, side, start);
  const probe = { body: { stands: side, x, length, front, from: 0, to: 1 } } as Unit;
  const under = (out: number): number =>
    Math.floor(roofOver(start.room, probe, sign * out) - start.room.floor) - UNDER_ROOF_MM;
  const from = Math.max(0, under(front) - HIGH_MM);
  // under a roof that falls away its head is as wide as one can be made of
  const to = Math.min(under(front), under(front + HEAD_MM));
  return {
    id: start.id,
    family: 'high-cupboard',
    name: start.name,
    body: { stands: side, x, length, front, from, to: Math.max(from + 1, to) },
    meets: { back: { how: 'scribed', allowance: 20 } },
    division: {
      cut: 'along',
      divider: 'board',
      sizes: [{ share: 1 }, { share: 1 }],
      parts: [
        { name: 'bay-1', holds: { kind: 'open' }, front: { kind: 'lift-up', latch: true } },
        { name: 'bay-2', holds: { kind: 'open' }, front: { kind: 'lift-up', latch: true } },
      ],
    },
    school: 'plywood',
    materials: { carcass: sheetAbout(start.book, 12), facing: sheetAbout(start.book, 12) },
    options: {},
  };
}

/** A head is at least so wide from its front to the roof or the wall behind it, mm. */
const HEAD_MM = 80;

/** A front that leaves a usual depth where the cupboard will hang. */
function frontAt(x: number, length: number, side: 'left' | 'right', { room }: Start): number {
  const high = Math.min(...[x, x + length / 2, x + length].map((at) => widthUp(room, side, at)));
  return Math.max(100, Math.round(high - DEEP_MM));
}
const widthUp = (room: Start['room'], side: 'left' | 'right', x: number): number =>
  halfWidth(room, side, x, wallTop(room, side, x) - HIGH_MM / 2);

/** Hung on wall and roof over what stands below: its ends follow wall and roof, its front stays on its line. */
export const highCupboard: Family = {
  id: 'high-cupboard',
  words: {
    name: 'High cupboard',
    add: 'High cupboard',
    start: 'High cupboard',
    noun: 'high-cupboard',
    fields: { from: 'Underside', height: 'Head', facing: 'Doors of' },
    roles: CARCASS_ROLES,
  },
  schools: ['plywood'],
  cuts: CUTS,
  fields: [
    bodyField('x', 'x'),
    bodyField('length', 'length'),
    fromField,
    bodyField('height', 'to'),
    bodyField('front', 'front'),
    sideField,
    materialField('carcass'),
    materialField('facing'),
    scribeField(['back']),
    bayField('shelves', 8, 'holds', 'shelves'),
    bayField('doors', 6, 'front', 'doors'),
  ],
  faults: faultsBy({
    stands: ['left', 'right'],
    materials: ['carcass', 'facing'],
    options: z.strictObject({}),
    cuts: CUTS,
  }),
  start: (start) => {
    const length = Math.min(1000, Math.round(start.room.length / 2));
    const { side, x } = freePlace(start, length, ['left', 'right'], 1300);
    return hung(x, length, side, start);
  },
  inGap: (gap, start) => {
    const room = gap.x1 - gap.x0;
    if (gap.zone !== 'high' || gap.where === 'middle' || room < 300) return null;
    const unit = hung(gap.x0, Math.round(Math.min(room, 1300)), gap.where, start);
    return unit.body.from >= gap.z0 && unit.body.to <= gap.z1 + 1 ? { unit, fits: Math.min(1, room / 1300) } : null;
  },
  // how low the roof comes over its front is said by its boards
  makes: (unit, room) => {
    const { boards, problems } = highCupboard.skeleton(unit, room);
    return problems.length === 0 && thinIn(boards).length === 0;
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
      foot: floor + unit.body.from,
      bottom: floor + unit.body.from,
      carcassTop: Math.min(
        floor + unit.body.to,
        roofOver(room.inner, unit, line.sign * (line.front + beforeCarcass(unit, facing))),
      ),
      board,
      facing,
      top: null,
      head: 'board',
      seenBelow: true,
      notched: [],
    });
  },
  rules: [],
};
