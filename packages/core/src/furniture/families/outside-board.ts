import { z } from 'zod';
import { endOf, frontLineOf } from '../../document/body.js';
import type { Unit } from '../../document/unit-schema.js';
import { materialOf } from '../../materials/material.js';
import { spread } from '../../numeric/plane.js';
import { halfWidth } from '../../shell/shell.js';
import { message, mm } from '../../words/message.js';
import { nothingButProblems } from '../carcass.js';
import {
  bodyField,
  choiceField,
  faultsBy,
  freePlace,
  fromField,
  materialField,
  sheetAbout,
  sideField,
  type Family,
  type Start,
  type Surroundings,
} from '../family.js';
import { boardIn, outward } from '../simple-boards.js';
import { contactsOf } from '../skeleton.js';

/** Kept between the board and the door that is shut behind it, mm. */
const DOOR_GAP_MM = 5;
/** Left free all round it within the door, mm. */
const FREE_MM = 20;
const LEAST_LONG_MM = 300;
/** What a door keeps free to be good. */
const WAY_IN_MM = 550;
const HINGES = ['foot', 'head'] as const;
const hingeOf = ({ options }: Unit): (typeof HINGES)[number] => (options['hinge'] === 'head' ? 'head' : 'foot');

/** From the centre line to a door that is shut, the least over a stretch and between two heights, mm. */
const doorAt = (
  room: Surroundings['inner'],
  side: 'left' | 'right',
  x: number,
  length: number,
  from: number,
  to: number,
): number =>
  Math.min(
    ...spread(x, x + length, 9).flatMap((at) =>
      spread(room.floor + from, room.floor + to, 5).map((height) => halfWidth(room, side, at, height)),
    ),
  );

interface Lies {
  readonly thick: number;
  /** From the centre line to its outer face, and to the door that is shut, mm. */
  readonly outer: number;
  readonly door: number;
}
function liesOf(unit: Unit, { inner, book }: Surroundings): Lies | null {
  const line = frontLineOf(unit);
  const board = materialOf(book, unit.materials['board'] ?? '');
  if (!line || !board) return null;
  const { x, length, from, to } = unit.body;
  return {
    thick: board.thickness,
    outer: line.front + board.thickness,
    door: doorAt(inner, line.side, x, length, from, to),
  };
}

/** How high its edges are where nothing says otherwise, mm. */
const FROM_MM = 500;
const HIGH_MM = 400;
function boardAt(
  x: number,
  length: number,
  side: 'left' | 'right',
  [from, to]: readonly [number, number],
  { id, name, book, room }: Start,
): Unit {
  const board = sheetAbout(book, 15);
  const front = doorAt(room, side, x, length, from, to) - DOOR_GAP_MM - (materialOf(book, board)?.thickness ?? 0);
  return {
    id,
    family: 'outside-board',
    name,
    body: { stands: side, x, length, front: Math.floor(front), from, to },
    meets: { foot: { how: 'open' } },
    division: { name: 'none', holds: { kind: 'open' }, front: { kind: 'none' } },
    school: 'plywood',
    materials: { board },
    options: { hinge: 'foot' },
  };
}

/** A board inside a door of a side wall that turns out through it and lies level outside: to cook, to sell, to eat at. */
export const outsideBoard: Family = {
  id: 'outside-board',
  words: {
    name: 'Outside board',
    add: 'Board out through a door',
    start: 'Outside board',
    noun: 'outside-board',
    fields: { board: 'Board of', hinge: 'Hinged at its' },
    roles: { 'outside-board': 'outside board' },
  },
  schools: ['plywood'],
  cuts: [],
  fields: [
    bodyField('x', 'x'),
    bodyField('length', 'length'),
    fromField,
    bodyField('height', 'to'),
    bodyField('front', 'front'),
    sideField,
    choiceField('hinge', HINGES),
    materialField('board'),
  ],
  faults: faultsBy({
    stands: ['left', 'right'],
    materials: ['board'],
    options: z.strictObject({ hinge: z.enum(HINGES) }),
    cuts: [],
  }),
  start: (start) => {
    const length = Math.round(Math.min(start.room.length / 2, 800));
    const { side, x } = freePlace(start, length, ['right', 'left']);
    return boardAt(x, length, side, [FROM_MM, FROM_MM + HIGH_MM], start);
  },
  flat: true,
  inGap: (gap, start) => {
    const [long, high] = [gap.x1 - gap.x0 - 2 * FREE_MM, gap.z1 - gap.z0 - 2 * FREE_MM];
    if (gap.zone !== 'door' || gap.where === 'middle' || long < LEAST_LONG_MM || high < 300) return null;
    // beside it one still gets in and out
    const length = Math.round(Math.min(long, 800, Math.max(LEAST_LONG_MM, long - WAY_IN_MM)));
    const x = Math.floor(gap.x1 - FREE_MM - length);
    const from = Math.max(Math.round(gap.z0 + FREE_MM), Math.min(FROM_MM, Math.round(gap.z1 - FREE_MM - HIGH_MM)));
    const to = Math.min(from + HIGH_MM, Math.floor(gap.z1 - FREE_MM));
    return { unit: boardAt(x, length, gap.where, [from, to], start), fits: Math.min(1, long / 800) * 0.5 };
  },
  makes: (unit, room) => {
    const lies = liesOf(unit, room);
    return !lies || lies.outer <= lies.door;
  },
  skeleton: (unit, room) => {
    const line = frontLineOf(unit);
    const board = materialOf(room.book, unit.materials['board'] ?? '');
    const lies = liesOf(unit, room);
    if (!line || !board || !lies) return nothingButProblems([], true);
    if (lies.outer > lies.door)
      return nothingButProblems(
        [
          {
            place: unit.id,
            said: message('outside.door', { unit: unit.name, short: mm(lies.outer - lies.door) }),
          },
        ],
        true,
      );
    const { from, to } = unit.body;
    const [z0, z1] = [room.inner.floor + from, room.inner.floor + to];
    const along = { x0: unit.body.x, x1: endOf(unit) };
    const shut = { ...along, ...outward(line.sign, line.front, lies.outer), z0, z1 };
    const out = outward(line.sign, lies.outer, lies.outer + to - from);
    const open =
      hingeOf(unit) === 'foot'
        ? { ...along, ...out, z0, z1: z0 + lies.thick }
        : { ...along, ...out, z0: z1 - lies.thick, z1 };
    const boards = [
      boardIn(shut, 'y', {
        name: 'board',
        role: 'outside-board',
        material: board,
        grain: 'x',
        good: line.sign > 0 ? -1 : 1,
        held: 'hung',
        moves: 'board',
      }),
    ];
    return {
      boards,
      contacts: contactsOf(boards),
      comesApart: true,
      problems: [],
      motions: [
        {
          of: `${unit.id}.board`,
          name: message('motion.outside', { unit: { unit: unit.id } }),
          kind: 'hinge',
          about: 'level',
          shut,
          open,
          through: { ...along, ...outward(line.sign, line.front, lies.outer + to - from), z0, z1 },
          latch: true,
          before: 0,
        },
      ],
    };
  },
  tells: (unit, room) => {
    const lies = liesOf(unit, room);
    if (!lies || lies.outer > lies.door) return [];
    const { from, to } = unit.body;
    return [
      message('outside.lies', { height: mm(hingeOf(unit) === 'foot' ? from + lies.thick : to), deep: mm(to - from) }),
      message('outside.gap', { gap: mm(lies.door - lies.outer) }),
    ];
  },
  // only the board: what stands before it stands before it
  solids: (unit, room) => {
    const line = frontLineOf(unit);
    const lies = liesOf(unit, room);
    if (!line || !lies) return [];
    return [
      {
        x0: unit.body.x,
        x1: endOf(unit),
        ...outward(line.sign, line.front, lies.outer),
        z0: room.inner.floor + unit.body.from,
        z1: room.inner.floor + unit.body.to,
      },
    ];
  },
  rules: [],
};
