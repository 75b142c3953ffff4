import { z } from 'zod';
import { endOf, frontLineOf } from '../../document/body.js';
import { gapSchema, idSchema } from '../../document/schema-base.js';
import type { Unit } from '../../document/unit-schema.js';
import { materialOf } from '../../materials/material.js';
import { spread, type Ring } from '../../numeric/plane.js';
import { halfWidth, type Shell } from '../../shell/shell.js';
import { message } from '../../words/message.js';
import { archIn, notchedBy, overArchField } from '../against-wall.js';
import { facingBoard, frameOf, upright } from '../carcass-boards.js';
import { nothingButProblems } from '../carcass.js';
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
  type Surroundings,
} from '../family.js';
import { seatHeight } from './seat.js';
import { boardIn, outward } from '../simple-boards.js';
import { contactsOf, type Board } from '../skeleton.js';

const RAIL_MM = 90;
/** A foot of what is drawn out is so wide, and is kept off the floor by its glide, mm. */
const FOOT_MM = 90;
const UNDER_FOOT_MM = 5;
/** The wall is kept off by the fixed slats, mm. */
const WALL_GAP_MM = 10;

/** From its front to the wall at the height of its slats, the least over its length, mm. */
function deepIn(unit: Unit, inner: Shell): number {
  const line = frontLineOf(unit);
  if (!line) return 0;
  const z = inner.floor + unit.body.to;
  return Math.min(...spread(unit.body.x, endOf(unit), 7).map((x) => halfWidth(inner, line.side, x, z))) - line.front;
}

/** Whether its two sets lie on each other's bearers when they are out. */
const heldOut = (unit: Unit, { inner }: Surroundings): boolean =>
  numberOption(unit, 'out') <= deepIn(unit, inner) - WALL_GAP_MM - RAIL_MM;

/** How deep it is by day and how far it is drawn out: for two it is wide enough to lie on and just shallow enough to sit on, mm. */
const FOR_TWO = { deep: 645, out: 510 };
const FOR_ONE = { deep: 545, out: 320 };
const MATTRESS_MM = 90;

/** One at a wall, at most so deep; for two where it is deep enough. */
function bedAt(x: number, length: number, side: 'left' | 'right', most: number, start: Start): Unit {
  const to = seatHeight(start.people, MATTRESS_MM);
  const wall = Math.min(
    ...spread(x, x + length, 7).map((at) => halfWidth(start.room, side, at, start.room.floor + to)),
  );
  const { deep, out } = start.people.length > 1 && most >= FOR_TWO.deep ? FOR_TWO : FOR_ONE;
  const front = Math.round(wall - Math.min(deep, most));
  return {
    id: start.id,
    family: 'slide-out-bed',
    name: start.name,
    body: { stands: side, x, length, front, from: 0, to },
    meets: { back: { how: 'scribed', allowance: 20 }, foot: { how: 'open' } },
    division: { name: 'hold', holds: { kind: 'hold' }, front: { kind: 'none' } },
    school: 'plywood',
    materials: { board: sheetAbout(start.book, 15), support: sheetAbout(start.book, 15) },
    options: {
      mattress: MATTRESS_MM,
      out,
      slat: 60,
      play: 3,
      latch: true,
      sleepers: start.people.slice(0, deep === FOR_TWO.deep ? 2 : 1).map(({ id }) => id),
    },
  };
}

/** A bed of two sets of slats that lie between each other: by day a seat, by night one set is drawn out. */
export const slideOutBed: Family = {
  id: 'slide-out-bed',
  words: {
    name: 'Slide-out bed',
    add: 'Slide-out bed',
    start: 'Slide-out bed',
    noun: 'slide-out-bed',
    fields: {
      board: 'Slats of',
      support: 'Frame of',
      out: 'Slides out by',
      slat: 'Width of a slat',
      play: 'Play on each side',
      latch: 'Latch',
    },
    roles: {
      slat: 'slat',
      'moving-slat': 'moving slat',
      'bed-end': 'end',
      'bed-rail': 'rail',
      'moving-front': 'moving front',
    },
  },
  schools: ['plywood'],
  cuts: [],
  fields: [
    bodyField('x', 'x'),
    bodyField('length', 'length'),
    bodyField('height', 'to'),
    bodyField('front', 'front'),
    sideField,
    optionField('out', { group: 'place', least: 50, most: 1500 }),
    optionField('mattress', { group: 'place' }),
    peopleField('sleepers'),
    materialField('board'),
    materialField('support'),
    optionField('slat', { group: 'made', least: 30, most: 200 }),
    optionField('play', { group: 'made', least: 1, most: 30 }),
    yesNoField('latch'),
    overArchField,
    scribeField(['back']),
  ],
  faults: faultsBy({
    stands: ['left', 'right'],
    materials: ['board', 'support'],
    options: z.strictObject({
      mattress: gapSchema,
      out: z.number().min(50).max(1500),
      slat: z.number().min(30).max(200),
      play: z.number().min(1).max(30),
      latch: z.boolean(),
      sleepers: z.array(idSchema).max(4),
      overArch: z.boolean().optional(),
    }),
    cuts: [],
  }),
  start: (start) => {
    const tallest = Math.max(1700, ...start.people.map(({ stature }) => stature));
    const length = Math.round(Math.min(start.room.length, tallest + 120));
    const { side, x } = freePlace(start, length, ['right', 'left']);
    return bedAt(x, length, side, FOR_TWO.deep, start);
  },
  inGap: (gap, start) => {
    const tallest = Math.max(1700, ...start.people.map(({ stature }) => stature));
    const room = gap.x1 - gap.x0;
    if (gap.zone !== 'floor' || gap.where === 'middle' || room < tallest + 50 || gap.deep < 500) return null;
    const length = Math.round(Math.min(room, tallest + 120));
    return {
      unit: bedAt(gap.x0, length, gap.where, gap.deep, start),
      fits: 0.7 * Math.min(1, gap.deep / FOR_TWO.deep),
    };
  },
  makes: heldOut,
  skeleton: (unit, room) => {
    const line = frontLineOf(unit);
    const [board, support] = ['board', 'support'].map((role) => materialOf(room.book, unit.materials[role] ?? ''));
    if (!line || !board || !support) return nothingButProblems([], true);
    const { floor } = room.inner;
    const { sign } = line;
    const [x0, x1] = [unit.body.x, endOf(unit)];
    const top = floor + unit.body.to;
    const underside = top - board.thickness;
    const [slat, play, out] = ['slat', 'play', 'out'].map((name) => numberOption(unit, name)) as [
      number,
      number,
      number,
    ];
    const deep = deepIn(unit, room.inner) - WALL_GAP_MM;
    const say = (key: 'furniture.low' | 'furniture.shallow' | 'furniture.slidesTooFar') =>
      nothingButProblems([{ place: unit.id, said: message(key, { unit: unit.name }) }], true);
    if (underside - floor < RAIL_MM) return say('furniture.low');
    if (deep < 200) return say('furniture.shallow');
    if (!heldOut(unit, room)) return say('furniture.slidesTooFar');
    const frame = frameOf({
      unit,
      room,
      side: line.side,
      sign,
      front: line.front,
      foot: floor,
      bottom: floor,
      carcassTop: underside - support.thickness,
      board: support,
      facing: support,
      top: null,
      head: 'open',
      seenBelow: false,
      notched: notchedBy(unit, room),
    });
    const pitch = 2 * (slat + play);
    const count = Math.floor((x1 - x0 + play) / pitch);
    const start = x0 + (x1 - x0 - (count * pitch - play * 2 + play)) / 2;
    const across = outward(sign, line.front, line.front + deep);
    const moves = 'slide';
    const slats = Array.from({ length: count }, (_, i) => i).flatMap((i): Board[] => {
      const at = start + i * pitch;
      const plain = { material: board, grain: 'y' as const, good: 1 as const };
      return [
        boardIn({ x0: at, x1: at + slat, ...across, z0: underside, z1: top }, 'z', {
          ...plain,
          name: `slat-${i + 1}`,
          role: 'slat',
        }),
        boardIn({ x0: at + slat + play, x1: at + 2 * slat + play, ...across, z0: underside, z1: top }, 'z', {
          ...plain,
          name: `moving-slat-${i + 1}`,
          role: 'moving-slat',
          moves,
        }),
      ];
    });
    const rail = (name: string, near: number): Board =>
      boardIn(
        {
          // between the ends, which carry it
          x0: x0 + support.thickness,
          x1: x1 - support.thickness,
          ...outward(sign, near, near + support.thickness),
          z0: underside - RAIL_MM,
          z1: underside,
        },
        'y',
        { name, role: 'bed-rail', material: support, grain: 'x', good: sign > 0 ? -1 : 1 },
      );
    // what is drawn out stands on two feet of its front
    const [low, high] = [underside - RAIL_MM, underside];
    const glide = floor + UNDER_FOOT_MM;
    const feet: Ring = [
      [x0, glide],
      [x0 + FOOT_MM, glide],
      [x0 + FOOT_MM, low],
      [x1 - FOOT_MM, low],
      [x1 - FOOT_MM, glide],
      [x1, glide],
      [x1, high],
      [x0, high],
    ];
    const movingFront = facingBoard(frame, {
      name: 'moving-front',
      role: 'moving-front',
      material: support,
      front: line.front,
      outline: { outer: feet, holes: [] },
      grain: 'x',
      edges: [],
      held: 'fixed',
      moves,
    });
    const end = (name: string, x: number, good: 1 | -1): Board[] =>
      upright(frame, { name, role: 'bed-end', x, from: floor, to: underside, scribed: true, good });
    const boards: Board[] = [
      ...end('end-front', x0, -1),
      ...end('end-rear', x1 - support.thickness, 1),
      rail('rail-back', line.front + deep - support.thickness),
      rail('rail-middle', line.front + support.thickness),
      movingFront,
      ...slats,
    ];
    return {
      boards,
      contacts: contactsOf(boards),
      comesApart: true,
      problems: [],
      motions: [
        {
          of: `${unit.id}.slide`,
          name: message('motion.slideBed', { unit: { unit: unit.id } }),
          kind: 'slide',
          by: [0, -sign * out, 0],
          shut: { x0, x1, ...across, z0: glide, z1: top + numberOption(unit, 'mattress') },
          latch: unit.options['latch'] === true,
          before: 0,
        },
      ],
    };
  },
  lies: (unit) => {
    const { sleepers } = unit.options;
    return {
      mattress: numberOption(unit, 'mattress'),
      sleepers: Array.isArray(sleepers) ? sleepers : [],
      along: 'x',
      out: { by: numberOption(unit, 'out'), motion: `${unit.id}.slide` },
    };
  },
  sits: (unit, { inner }) => {
    const line = frontLineOf(unit);
    if (!line) return [];
    return [
      {
        top: unit.body.to,
        cushion: numberOption(unit, 'mattress'),
        // the half of the mattress that is not lain on stands at its back by day
        deep: deepIn(unit, inner) - numberOption(unit, 'mattress'),
        wide: unit.body.length,
        at: [unit.body.x + unit.body.length / 2, line.sign * line.front],
        looks: [0, -line.sign],
        sitters: [],
      },
    ];
  },
  rules: [archIn],
};
