import { z } from 'zod';
import { endOf, frontLineOf } from '../../document/body.js';
import type { Unit } from '../../document/unit-schema.js';
import { materialOf } from '../../materials/material.js';
import type { SolidBox } from '../../rules/room.js';
import { halfWidth, type Shell } from '../../shell/shell.js';
import { message } from '../../words/message.js';
import { frameOf, level, upright } from '../carcass-boards.js';
import { nothingButProblems } from '../carcass.js';
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
  yesNoField,
  type Family,
  type Surroundings,
} from '../family.js';
import { boardIn, outward } from '../simple-boards.js';
import { contactsOf, type Board } from '../skeleton.js';

const BRACKET_MM = 220;
/** The leaf hangs so far off the front of the shelf, mm. */
const HINGE_MM = 3;

/** The box of a leaf beside its shelf: hanging, or raised. */
function leafOf(unit: Unit, inner: Shell, thick: number): { readonly shut: SolidBox; readonly open: SolidBox } | null {
  const line = frontLineOf(unit);
  if (!line) return null;
  const top = inner.floor + unit.body.to;
  const leaf = numberOption(unit, 'leaf');
  const [x0, x1] = [unit.body.x, endOf(unit)];
  return {
    shut: {
      x0,
      x1,
      ...outward(line.sign, line.front - thick - HINGE_MM, line.front - HINGE_MM),
      z0: top - leaf,
      z1: top,
    },
    open: {
      x0,
      x1,
      ...outward(line.sign, line.front - HINGE_MM - leaf, line.front - HINGE_MM),
      z0: top - thick,
      z1: top,
    },
  };
}

/** Thickness of its boards, mm; of a material that is not known, as they usually are. */
const thickOf = (unit: Unit, { book }: Surroundings): number =>
  materialOf(book, unit.materials['board'] ?? '')?.thickness ?? USUAL_MM;
const USUAL_MM = 15;

/** A shelf on the wall with a leaf that is raised from it: a desk that takes no room when it hangs. */
export const leafTable: Family = {
  id: 'leaf-table',
  words: {
    name: 'Drop-leaf desk',
    add: 'Drop-leaf desk',
    start: 'Desk',
    noun: 'desk',
    fields: { board: 'Boards of', leaf: 'Leaf', latch: 'Held on the road' },
    roles: { 'desk-shelf': 'shelf', 'desk-leaf': 'leaf', 'desk-bracket': 'bracket' },
  },
  schools: ['plywood'],
  cuts: [],
  fields: [
    bodyField('x', 'x'),
    bodyField('length', 'length'),
    bodyField('height', 'to'),
    bodyField('front', 'front'),
    sideField,
    optionField('leaf', { group: 'place', least: 50, most: 1000 }),
    yesNoField('latch', 'place'),
    materialField('board'),
    scribeField(['back']),
  ],
  faults: faultsBy({
    stands: ['left', 'right'],
    materials: ['board'],
    options: z.strictObject({ leaf: z.number().min(50).max(1000), latch: z.boolean() }),
    cuts: [],
  }),
  start: ({ layout, room, id, name, book }) => {
    const { side, x } = freePlace({ layout, room }, 800, ['right', 'left']);
    const wall = Math.min(...[x, x + 800].map((at) => halfWidth(room, side, at, room.floor + 700)));
    return {
      id,
      family: 'leaf-table',
      name,
      body: { stands: side, x, length: 800, front: Math.round(wall - 180), from: 0, to: 720 },
      meets: { back: { how: 'scribed', allowance: 20 } },
      division: { name: 'under', holds: { kind: 'open' }, front: { kind: 'none' } },
      school: 'plywood',
      materials: { board: sheetAbout(book, 15) },
      options: { leaf: 450, latch: true },
    };
  },
  inGap: (gap, { id, name, book }) => {
    const room = gap.x1 - gap.x0;
    if (gap.zone !== 'floor' || gap.where === 'middle' || room < 500 || gap.deep < 180) return null;
    return {
      unit: {
        id,
        family: 'leaf-table',
        name,
        body: {
          stands: gap.where,
          x: gap.x0,
          length: Math.round(Math.min(room, 900)),
          front: Math.round(gap.wall - 180),
          from: 0,
          to: 720,
        },
        meets: { back: { how: 'scribed', allowance: 20 } },
        division: { name: 'under', holds: { kind: 'open' }, front: { kind: 'none' } },
        school: 'plywood',
        materials: { board: sheetAbout(book, 15) },
        options: { leaf: 450, latch: true },
      },
      fits: 0.55,
    };
  },
  skeleton: (unit, room) => {
    const line = frontLineOf(unit);
    const board = materialOf(room.book, unit.materials['board'] ?? '');
    const leaf = board && leafOf(unit, room.inner, board.thickness);
    if (!line || !board || !leaf) return nothingButProblems([], true);
    const { floor } = room.inner;
    const top = floor + unit.body.to;
    const t = board.thickness;
    const say = (key: 'furniture.low' | 'furniture.narrow'): ReturnType<typeof nothingButProblems> =>
      nothingButProblems([{ place: unit.id, said: message(key, { unit: unit.name }) }], true);
    if (leaf.shut.z0 < floor) return say('furniture.low');
    if (unit.body.length < 3 * t) return say('furniture.narrow');
    const frame = frameOf({
      unit,
      room,
      side: line.side,
      sign: line.sign,
      front: line.front - t,
      foot: top - t - BRACKET_MM,
      bottom: top - t - BRACKET_MM,
      carcassTop: top - t,
      board,
      facing: board,
      top: null,
      head: 'open',
      seenBelow: false,
      notched: [],
    });
    const bracket = (name: string, x: number): Board[] =>
      upright(frame, { name, role: 'desk-bracket', x, from: frame.foot, to: top - t, scribed: true, good: 1 });
    const boards: Board[] = [
      level(frame, {
        name: 'shelf',
        role: 'desk-shelf',
        material: board,
        z: top - t,
        from: unit.body.x,
        to: endOf(unit),
        front: line.front,
        scribed: true,
      }),
      ...bracket('bracket-front', unit.body.x),
      ...bracket('bracket-rear', endOf(unit) - t),
      boardIn(leaf.shut, 'y', {
        name: 'leaf',
        role: 'desk-leaf',
        material: board,
        grain: 'x',
        good: line.sign > 0 ? -1 : 1,
        held: 'hung',
        moves: 'leaf',
      }),
    ];
    return {
      boards,
      contacts: contactsOf(boards),
      comesApart: true,
      problems: [],
      motions: [
        {
          of: `${unit.id}.leaf`,
          name: message('motion.leaf', { unit: { unit: unit.id } }),
          kind: 'hinge',
          about: 'level',
          shut: leaf.shut,
          open: leaf.open,
          through: { ...leaf.shut, y0: Math.min(leaf.shut.y0, leaf.open.y0), y1: Math.max(leaf.shut.y1, leaf.open.y1) },
          latch: unit.options['latch'] === true,
          before: 0,
        },
      ],
    };
  },
  table: (unit, room) => {
    const leaf = leafOf(unit, room.inner, thickOf(unit, room));
    return leaf && { box: leaf.open, legs: [] };
  },
  solids: (unit, room) => {
    const { inner } = room;
    const line = frontLineOf(unit);
    const t = thickOf(unit, room);
    const leaf = leafOf(unit, inner, t);
    if (!line || !leaf) return [];
    const top = inner.floor + unit.body.to;
    const wall = halfWidth(inner, line.side, unit.body.x + unit.body.length / 2, top);
    return [{ ...leaf.shut, ...outward(line.sign, line.front, wall), z0: top - t - BRACKET_MM, z1: top }, leaf.shut];
  },
  rules: [],
};
