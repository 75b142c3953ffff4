import { z } from 'zod';
import { endOf } from '../../document/body.js';
import { gapSchema, idSchema } from '../../document/schema-base.js';
import type { Unit } from '../../document/unit-schema.js';
import { materialOf } from '../../materials/material.js';
import { message } from '../../words/message.js';
import { nothingButProblems } from '../carcass.js';
import {
  bodyField,
  faultsBy,
  freeField,
  materialField,
  numberOption,
  optionField,
  peopleField,
  sheetAbout,
  yesNoField,
  type Family,
  type Start,
} from '../family.js';
import { seatHeight } from './seat.js';
import { boardIn } from '../simple-boards.js';
import { contactsOf, type Board } from '../skeleton.js';

/** So wide both ways, and what is left to get past it, mm. */
const WIDE_MM = 380;
const PAST_MM = 560;
const CUSHION_MM = 40;

function stoolAt(x: number, y: number, { id, name, people, book }: Start): Unit {
  return {
    id,
    family: 'stool',
    name,
    body: { stands: 'free', x, length: WIDE_MM, y, width: WIDE_MM, from: 0, to: seatHeight(people, CUSHION_MM) },
    meets: {},
    division: { name: 'inside', holds: { kind: 'hold' }, front: { kind: 'none' } },
    school: 'plywood',
    materials: { board: sheetAbout(book, 12) },
    options: { cushion: CUSHION_MM, sitters: [], latch: true },
  };
}

/** A loose seat: a small box that carries a person and is moved where it is wanted. */
export const stool: Family = {
  id: 'stool',
  words: {
    name: 'Loose stool',
    add: 'Loose stool',
    start: 'Stool',
    noun: 'stool',
    fields: { board: 'Boards of', y: 'Left edge from the centre line', width: 'Across', latch: 'Held on the road' },
    roles: { 'stool-top': 'seat', 'stool-side': 'side' },
  },
  schools: ['plywood'],
  cuts: [],
  fields: [
    bodyField('x', 'x'),
    bodyField('length', 'length'),
    freeField('y', 'y'),
    freeField('width', 'width'),
    bodyField('height', 'to'),
    optionField('cushion', { group: 'place', least: 0, most: 200 }),
    peopleField('sitters'),
    yesNoField('latch', 'place'),
    materialField('board'),
  ],
  faults: faultsBy({
    stands: ['free'],
    materials: ['board'],
    options: z.strictObject({ cushion: gapSchema, sitters: z.array(idSchema).max(2), latch: z.boolean() }),
    cuts: [],
  }),
  start: (start) => stoolAt(Math.round(start.room.length / 2), -WIDE_MM / 2, start),
  // at a side of what is free, so that one gets past it
  inGap: (gap, start) =>
    gap.where === 'middle' && gap.x1 - gap.x0 >= WIDE_MM && gap.deep >= WIDE_MM + PAST_MM
      ? { unit: stoolAt(gap.x1 - WIDE_MM, Math.ceil(-gap.deep / 2), start), fits: 0.2 }
      : null,
  skeleton: (unit, { inner, book }) => {
    const board = materialOf(book, unit.materials['board'] ?? '');
    const { body } = unit;
    if (!board || body.stands !== 'free') return nothingButProblems([]);
    const t = board.thickness;
    const box = {
      x0: body.x,
      x1: endOf(unit),
      y0: body.y,
      y1: body.y + body.width,
      z0: inner.floor,
      z1: inner.floor + body.to - t,
    };
    if (box.z1 - box.z0 < 50 || body.length < 4 * t || body.width < 4 * t)
      return nothingButProblems([{ place: unit.id, said: message('furniture.low', { unit: unit.name }) }]);
    const side = { role: 'stool-side', material: board, grain: 'z' as const };
    const boards: Board[] = [
      boardIn({ ...box, x1: box.x0 + t }, 'x', { ...side, name: 'side-front', good: -1 }),
      boardIn({ ...box, x0: box.x1 - t }, 'x', { ...side, name: 'side-rear', good: 1 }),
      boardIn({ ...box, x0: box.x0 + t, x1: box.x1 - t, y1: box.y0 + t }, 'y', {
        ...side,
        name: 'side-left',
        good: -1,
      }),
      boardIn({ ...box, x0: box.x0 + t, x1: box.x1 - t, y0: box.y1 - t }, 'y', {
        ...side,
        name: 'side-right',
        good: 1,
      }),
      boardIn({ ...box, z0: box.z1, z1: box.z1 + t }, 'z', {
        name: 'seat',
        role: 'stool-top',
        material: board,
        grain: 'x',
        good: 1,
      }),
    ];
    return {
      boards,
      contacts: contactsOf(boards),
      comesApart: false,
      problems: [],
      motions: [
        {
          of: `${unit.id}.away`,
          name: message('motion.away', { unit: { unit: unit.id } }),
          kind: 'lift-off',
          to: null,
          part: false,
          shut: { ...box, z1: box.z1 + t },
          latch: unit.options['latch'] === true,
          before: 0,
        },
      ],
    };
  },
  sits: (unit) => {
    const { body } = unit;
    if (body.stands !== 'free') return [];
    const { sitters } = unit.options;
    return [
      {
        top: body.to,
        cushion: numberOption(unit, 'cushion'),
        deep: body.width,
        wide: body.length,
        at: [body.x + body.length / 2, body.y],
        looks: [0, -1],
        sitters: Array.isArray(sitters) ? sitters : [],
        loose: true,
      },
    ];
  },
  rules: [],
};
