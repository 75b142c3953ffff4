import { z } from 'zod';
import { baysOf, endOf, frontLineOf } from '../../document/body.js';
import { sizeSchema } from '../../document/schema-base.js';
import type { Unit } from '../../document/unit-schema.js';
import { materialOf } from '../../materials/material.js';
import { rectangle, spread } from '../../numeric/plane.js';
import { halfWidth } from '../../shell/shell.js';
import { message } from '../../words/message.js';
import { archIn, notchedBy, overArchField } from '../against-wall.js';
import { facingBoard, frameOf, grainIn, upright, VISIBLE_FRONT } from '../carcass-boards.js';
import { nothingButProblems, roofOver } from '../carcass.js';
import {
  bodyField,
  choiceField,
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
import { OPENS, type Motion } from '../motions.js';
import { outward } from '../simple-boards.js';
import { contactsOf, type Board } from '../skeleton.js';

const UNDER_ROOF_MM = 6;
/** Left of the front beside the door, mm. */
const POST_MM = 60;
/** Left round a door that turns, and under every one; what a door that slides covers beside its opening and over it, mm. */
const GAP_MM = 3;
const UNDER_DOOR_MM = 10;
const SLID_OVER_MM = 20;
/** Whether its front is long enough for its door. */
const holdsDoor = (unit: Unit): boolean => numberOption(unit, 'doorWidth') + 2 * POST_MM <= unit.body.length + 0.5;

function roomAt(x: number, length: number, side: 'left' | 'right', front: number, start: Start): Unit {
  const sign = side === 'left' ? -1 : 1;
  const probe = { body: { stands: side, x, length, front, from: 0, to: 1 } } as Unit;
  const to = Math.floor(roofOver(start.room, probe, sign * front) - start.room.floor) - UNDER_ROOF_MM;
  return {
    id: start.id,
    family: 'wash-room',
    name: start.name,
    body: { stands: side, x, length, front, from: 0, to: Math.max(300, to) },
    meets: { back: { how: 'scribed', allowance: 10 }, foot: { how: 'square' } },
    division: { name: 'tray', holds: { kind: 'open' }, front: { kind: 'none' } },
    school: 'plywood',
    materials: { board: sheetAbout(start.book, 12) },
    options: {
      door: 'hinged',
      doorWidth: Math.max(300, Math.round(Math.min(550, length - 2 * POST_MM))),
      doorHeight: Math.max(200, Math.min(1700, to - 40)),
      tray: 60,
    },
  };
}

/** A small room to wash in: three walls to the vehicle's own, a tray, a door or a curtain. */
export const washRoom: Family = {
  id: 'wash-room',
  words: {
    name: 'Wash room',
    add: 'Wash room',
    start: 'Wash room',
    noun: 'wash-room',
    fields: {
      board: 'Walls of',
      door: 'Door',
      doorWidth: 'Door wide',
      doorHeight: 'Door high',
      tray: 'Tray high',
    },
    roles: { 'wash-wall': 'wall', 'wash-post': 'post', 'wash-door': 'door' },
  },
  schools: ['plywood'],
  cuts: [],
  fields: [
    bodyField('x', 'x'),
    bodyField('length', 'length'),
    bodyField('height', 'to'),
    bodyField('front', 'front'),
    sideField,
    choiceField('door', ['hinged', 'sliding', 'curtain']),
    optionField('doorWidth', { group: 'place', least: 200, most: 2000 }),
    optionField('doorHeight', { group: 'place', least: 200, most: 3000 }),
    optionField('tray', { group: 'place', least: 0, most: 400 }),
    materialField('board'),
    overArchField,
    scribeField(['back']),
  ],
  faults: faultsBy({
    stands: ['left', 'right'],
    materials: ['board'],
    options: z.strictObject({
      door: z.enum(['hinged', 'sliding', 'curtain']),
      doorWidth: sizeSchema,
      doorHeight: sizeSchema,
      tray: z.number().min(0).max(400),
      overArch: z.boolean().optional(),
    }),
    cuts: [],
  }),
  start: (start) => {
    const { side, x } = freePlace(start, 800);
    const wall = Math.min(...[x, x + 800].map((at) => halfWidth(start.room, side, at, start.room.floor + 900)));
    return roomAt(x, 800, side, Math.max(0, Math.round(wall - 750)), start);
  },
  inGap: (gap, start) => {
    const room = gap.x1 - gap.x0;
    if (gap.zone !== 'floor' || gap.where === 'middle' || room < 650 || gap.deep < 620 || gap.z1 < 1500) return null;
    const deep = Math.min(gap.deep, 800);
    return {
      unit: roomAt(gap.x0, Math.round(Math.min(room, 850)), gap.where, Math.round(gap.wall - deep), start),
      fits: 0.5,
    };
  },
  makes: holdsDoor,
  skeleton: (unit, room) => {
    const line = frontLineOf(unit);
    const board = materialOf(room.book, unit.materials['board'] ?? '');
    const [bay] = baysOf(unit.division);
    if (!line || !board || !bay) return nothingButProblems([]);
    const { inner } = room;
    const { floor } = inner;
    const t = board.thickness;
    const kind = unit.options['door'];
    // a door that slides runs before the posts
    const near = line.front + (kind === 'sliding' ? t : 0);
    const top = Math.min(floor + unit.body.to, roofOver(inner, unit, line.sign * (near + t)));
    const roofBehind = roofOver(inner, unit, line.sign * (near + 2 * t));
    const [x0, x1] = [unit.body.x, endOf(unit)];
    const wide = numberOption(unit, 'doorWidth');
    const high = numberOption(unit, 'doorHeight');
    const say = (key: 'furniture.doorWide' | 'furniture.low') =>
      nothingButProblems([{ place: unit.id, said: message(key, { unit: unit.name }) }]);
    if (!holdsDoor(unit)) return say('furniture.doorWide');
    if (floor + high + 20 > Math.min(top, roofBehind)) return say('furniture.low');
    const frame = frameOf({
      unit,
      room,
      side: line.side,
      sign: line.sign,
      front: near,
      foot: floor,
      bottom: floor,
      carcassTop: top,
      board,
      facing: board,
      top: null,
      head: 'open',
      seenBelow: false,
      notched: notchedBy(unit, room),
    });
    const from = (x0 + x1 - wide) / 2;
    const face = (
      name: string,
      role: string,
      a: number,
      b: number,
      low: number,
      up: number,
      { held = 'fixed', moves, front = near }: { held?: Board['held']; moves?: string; front?: number } = {},
    ): Board =>
      facingBoard(frame, {
        name,
        role,
        material: board,
        front,
        outline: { outer: rectangle(a, low, b, up), holes: [] },
        grain: grainIn(board, { along: b - a, up: up - low }, 'z'),
        edges: [VISIBLE_FRONT],
        held,
        ...(moves === undefined ? {} : { moves }),
      });
    const end = (name: string, x: number, good: 1 | -1): Board[] =>
      upright(frame, { name, role: 'wash-wall', x, from: floor, to: top, scribed: true, good });
    const [a, b] = [from, from + wide];
    const foot = floor + UNDER_DOOR_MM;
    const doors =
      kind === 'hinged'
        ? [
            face('door', 'wash-door', a + GAP_MM, b - GAP_MM, foot, floor + high - GAP_MM, {
              held: 'hung',
              moves: 'door',
            }),
          ]
        : kind === 'sliding'
          ? [
              face('door', 'wash-door', a - SLID_OVER_MM, b + SLID_OVER_MM, foot, floor + high + SLID_OVER_MM, {
                held: 'loose',
                moves: 'door',
                front: line.front,
              }),
            ]
          : [];
    const boards: Board[] = [
      ...end('end-front', x0, 1),
      ...end('end-rear', x1 - t, -1),
      face('post-front', 'wash-post', x0, a, floor, top),
      face('post-rear', 'wash-post', b, x1, floor, top),
      // behind the posts, from wall to wall: they are screwed together flat
      face('over-door', 'wash-post', x0 + t, x1 - t, floor + high, Math.min(top, roofBehind), { front: near + t }),
      ...doors,
    ];
    const slidOver = kind === 'sliding' ? SLID_OVER_MM : 0;
    const shut = {
      x0: a - slidOver,
      x1: b + slidOver,
      ...outward(line.sign, line.front, line.front + t),
      z0: floor,
      z1: floor + high + slidOver,
    };
    // it runs to where there is more room
    const run = inner.length - shut.x1 >= shut.x0 - inner.start ? wide + slidOver : -wide - slidOver;
    const plain = {
      of: `${unit.id}.door`,
      name: message('motion.washDoor', { unit: { unit: unit.id } }),
      shut,
      latch: true,
      before: 0,
    };
    const motions: Motion[] =
      kind === 'hinged'
        ? [
            {
              ...plain,
              kind: 'hinge',
              about: 'z',
              at: [from, line.sign * line.front],
              range: [0, -line.sign * OPENS],
              reach: wide,
            },
          ]
        : kind === 'sliding'
          ? [{ ...plain, kind: 'slide', by: [run, 0, 0] }]
          : [];
    const deep =
      Math.min(
        ...spread(x0 + t, x1 - t, 5).flatMap((x) =>
          spread(floor, floor + 1200, 5).map((z) => halfWidth(inner, line.side, x, z)),
        ),
      ) -
      near -
      t;
    return {
      boards,
      contacts: contactsOf(boards),
      comesApart: false,
      problems: [],
      motions,
      bays: [
        {
          bay,
          room: {
            x0: x0 + t,
            x1: x1 - t,
            ...outward(line.sign, near + t, near + t + Math.max(0, deep)),
            z0: floor + numberOption(unit, 'tray'),
            z1: top,
          },
          into: line.sign,
          deepLow: Math.max(0, deep),
          deepHigh: Math.max(0, deep),
        },
      ],
    };
  },
  standsIn: () => true,
  rules: [archIn],
};
