import { z } from 'zod';
import { endOf, frontLineOf } from '../../document/body.js';
import type { PriceItem } from '../../document/schema.js';
import type { Unit } from '../../document/unit-schema.js';
import { materialOf } from '../../materials/material.js';
import { spread } from '../../numeric/plane.js';
import type { SolidBox } from '../../rules/room.js';
import { halfWidth } from '../../shell/shell.js';
import { message, mm } from '../../words/message.js';
import { nothingButProblems } from '../carcass.js';
import {
  bodyField,
  choiceField,
  faultsBy,
  freeField,
  freePlace,
  fromField,
  materialField,
  sheetAbout,
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

/** The walls a door is in that it turns out through. */
const SIDES = ['left', 'right', 'rear'] as const;
type OutSide = (typeof SIDES)[number];
const sideOf = ({ body: { stands } }: Unit): OutSide => (stands === 'left' || stands === 'right' ? stands : 'rear');
const atSide = (unit: Unit): boolean => frontLineOf(unit) !== null;
const atRear = (unit: Unit): boolean => !atSide(unit);

/** How a board lies in its door: shut, open outside, all it passes through, and what is left to the door that is shut. */
interface Lies {
  readonly material: PriceItem;
  readonly side: OutSide;
  readonly shut: SolidBox;
  readonly open: SolidBox;
  readonly through: SolidBox;
  /** From its outer face to the door, mm: below nothing where it stands out through it. */
  readonly gap: number;
}
function liesOf(unit: Unit, { inner, book }: Surroundings): Lies | null {
  const material = materialOf(book, unit.materials['board'] ?? '');
  if (!material) return null;
  const { body } = unit;
  const { x, length, from, to } = body;
  const [thick, deep] = [material.thickness, to - from];
  const [z0, z1] = [inner.floor + from, inner.floor + to];
  const level = hingeOf(unit) === 'foot' ? { z0, z1: z0 + thick } : { z0: z1 - thick, z1 };
  const line = frontLineOf(unit);
  if (line) {
    const outer = line.front + thick;
    const along = { x0: x, x1: endOf(unit) };
    return {
      material,
      side: line.side,
      shut: { ...along, ...outward(line.sign, line.front, outer), z0, z1 },
      open: { ...along, ...outward(line.sign, outer, outer + deep), ...level },
      through: { ...along, ...outward(line.sign, line.front, outer + deep), z0, z1 },
      gap: doorAt(inner, line.side, x, length, from, to) - outer,
    };
  }
  if (body.stands !== 'free') return null;
  const [outer, across] = [x + thick, { y0: body.y, y1: body.y + body.width }];
  return {
    material,
    side: 'rear',
    shut: { ...across, x0: x, x1: outer, z0, z1 },
    open: { ...across, x0: outer, x1: outer + deep, ...level },
    through: { ...across, x0: x, x1: outer + deep, z0, z1 },
    gap: inner.length - outer,
  };
}

/** At a side wall it is as long as it was wide across the rear, and the other way round; where it stood it stands on. */
function turnedTo(unit: Unit, side: OutSide): Unit {
  const { body } = unit;
  if (side === sideOf(unit)) return unit;
  const { x, length, from, to } = body;
  if (side !== 'rear')
    return {
      ...unit,
      body:
        body.stands === 'left' || body.stands === 'right'
          ? { ...body, stands: side }
          : {
              stands: side,
              x,
              length: body.stands === 'free' ? body.width : length,
              front: body.stands === 'free' ? Math.max(0, side === 'left' ? -body.y : body.y + body.width) : 0,
              from,
              to,
            },
    };
  return { ...unit, body: { stands: 'free', x, length: ABOUT_THICK_MM, y: -length / 2, width: length, from, to } };
}
/** A board across the rear takes so much along, about: mm. */
const ABOUT_THICK_MM = 15;

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

/** A board inside a door of a side wall or of the rear that turns out through it and lies level outside: to cook, to sell, to eat at. */
export const outsideBoard: Family = {
  id: 'outside-board',
  words: {
    name: 'Outside board',
    add: 'Board out through a door',
    start: 'Outside board',
    noun: 'outside-board',
    fields: {
      board: 'Board of',
      hinge: 'Hinged at its',
      side: 'Door of',
      y: 'Left edge from the centre line',
      width: 'Across',
    },
    roles: { 'outside-board': 'outside board' },
  },
  schools: ['plywood'],
  cuts: [],
  fields: [
    {
      name: 'side',
      kind: 'choice',
      group: 'place',
      choices: SIDES,
      get: sideOf,
      set: (unit, value) => turnedTo(unit, SIDES.find((side) => side === value) ?? 'left'),
    },
    bodyField('x', 'x'),
    { ...bodyField('length', 'length'), when: atSide },
    fromField,
    bodyField('height', 'to'),
    { ...bodyField('front', 'front'), when: atSide },
    { ...freeField('y', 'y'), when: atRear },
    { ...freeField('width', 'width'), when: atRear },
    choiceField('hinge', HINGES),
    materialField('board'),
  ],
  faults: faultsBy({
    stands: ['left', 'right', 'free'],
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
  makes: (unit, room) => (liesOf(unit, room)?.gap ?? 0) >= 0,
  skeleton: (unit, room) => {
    const lies = liesOf(unit, room);
    if (!lies) return nothingButProblems([], true);
    if (lies.gap < 0)
      return nothingButProblems(
        [{ place: unit.id, said: message('outside.door', { unit: unit.name, short: mm(-lies.gap) }) }],
        true,
      );
    const { material, side, shut, open, through } = lies;
    const boards = [
      boardIn(shut, side === 'rear' ? 'x' : 'y', {
        name: 'board',
        role: 'outside-board',
        material,
        grain: side === 'rear' ? 'y' : 'x',
        good: side === 'left' ? 1 : -1,
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
          outside: side,
          shut,
          open,
          through,
          latch: true,
          before: 0,
        },
      ],
    };
  },
  tells: (unit, room) => {
    const lies = liesOf(unit, room);
    if (!lies || lies.gap < 0) return [];
    const { from, to } = unit.body;
    return [
      message('outside.lies', {
        height: mm(hingeOf(unit) === 'foot' ? from + lies.material.thickness : to),
        deep: mm(to - from),
      }),
      message('outside.gap', { gap: mm(lies.gap) }),
    ];
  },
  // only the board: what stands before it stands before it
  solids: (unit, room) => {
    const lies = liesOf(unit, room);
    return lies ? [lies.shut] : [];
  },
  rules: [],
};
