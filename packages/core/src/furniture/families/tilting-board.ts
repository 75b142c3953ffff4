import { z } from 'zod';
import { endOf, frontLineOf } from '../../document/body.js';
import { gapSchema, idSchema } from '../../document/schema-base.js';
import type { Unit } from '../../document/unit-schema.js';
import { materialOf } from '../../materials/material.js';
import { spread } from '../../numeric/plane.js';
import { halfWidth, roofHeight } from '../../shell/shell.js';
import { message, mm, type Message } from '../../words/message.js';
import { BACK_GAP_MM } from '../carcass-boards.js';
import { nothingButProblems } from '../carcass.js';
import {
  bodyField,
  faultsBy,
  freePlace,
  materialField,
  numberOption,
  optionField,
  peopleField,
  sheetAbout,
  sideField,
  type Family,
  type Start,
  type Surroundings,
} from '../family.js';
import type { Motion } from '../motions.js';
import { boardIn, outward } from '../simple-boards.js';
import { contactsOf } from '../skeleton.js';

/** The batten at the wall that its back edge is hinged to, mm. */
const LEDGE_HIGH_MM = 70;
/** Kept between what tilts and what it would meet, mm. */
const CLEAR_MM = 10;
/** It is looked at every so many degrees. */
const STEP_DEGREES = 1;
const MOST_KNOTS = 8;
const DEGREES = 180 / Math.PI;

/** One way the board is held: its knot, counted from the level one, how far it is tilted and how high its free edge then is. */
interface Knot {
  readonly knot: number;
  readonly degrees: number;
  readonly height: number;
}
interface Tilts {
  /** From the centre line to the line its back edge turns about, and how high that is in the vehicle, mm. */
  readonly hinge: number;
  readonly at: number;
  readonly wide: number;
  /** From the free edge to where its rope hangs, when it is level, mm. */
  readonly rope: number;
  /** So far it tilts before it meets something, degrees, and what; a right angle where it meets nothing. */
  readonly most: number;
  readonly meets: 'wall' | 'roof' | null;
  readonly knots: readonly Knot[];
  /** A rope a little shorter lifts the free edge. */
  readonly lifts: boolean;
}

/**
 * How a board hinged at the wall tilts when its ropes are hung in by the next knot. With w its width, D from the hinge to the
 * anchor and a that line's angle, the rope is L long at a tilt t by L2 = w2 + D2 - 2 w D cos(a - t).
 * @returns null when it has no room behind its front
 */
function tiltsOf(unit: Unit, { inner, book }: Surroundings): Tilts | null {
  const line = frontLineOf(unit);
  const board = materialOf(book, unit.materials['board'] ?? '');
  if (!line || !board) return null;
  const at = inner.floor + unit.body.to - board.thickness;
  const xs = spread(unit.body.x, endOf(unit), 9);
  const wallAt = (z: number): number => Math.min(...xs.map((x) => halfWidth(inner, line.side, x, z)));
  const roofAt = (y: number): number => Math.min(...xs.map((x) => roofHeight(inner, x, line.sign * y)));
  const ledge = materialOf(book, unit.materials['ledge'] ?? '')?.thickness ?? board.thickness;
  const hinge = Math.min(wallAt(at), wallAt(at - LEDGE_HIGH_MM)) - ledge;
  const wide = hinge - line.front;
  if (wide < 100) return null;
  // from the hinge: inwards and up
  const anchorIn = hinge - numberOption(unit, 'anchorAt');
  const anchorUp = inner.floor + numberOption(unit, 'anchorHeight') - at;
  const far = Math.hypot(anchorIn, anchorUp);
  const angle = Math.atan2(anchorUp, anchorIn);
  const rope = Math.hypot(wide - anchorIn, anchorUp);
  let most = 0;
  let meets: Tilts['meets'] = null;
  for (let degrees = STEP_DEGREES; degrees <= 90 && meets === null; degrees += STEP_DEGREES) {
    const t = degrees / DEGREES;
    for (const r of [0.25, 0.5, 0.75, 1].map((share) => share * wide)) {
      const [out, z] = [hinge - r * Math.cos(t), at + r * Math.sin(t) + board.thickness];
      if (z > roofAt(out) - CLEAR_MM) meets = 'roof';
      else if (out > wallAt(z) - CLEAR_MM + BACK_GAP_MM) meets = 'wall';
    }
    if (meets === null) most = degrees;
  }
  const tiltAt = (length: number): number | null => {
    const cosine = (wide * wide + far * far - length * length) / (2 * wide * far);
    return Math.abs(cosine) > 1 ? null : (angle - Math.acos(cosine)) * DEGREES;
  };
  const knots: Knot[] = [];
  const wanted = Math.min(MOST_KNOTS, Math.round(numberOption(unit, 'knots')));
  for (let knot = 1; knot <= wanted; knot += 1) {
    const degrees = tiltAt(rope - knot * numberOption(unit, 'step'));
    if (degrees === null || degrees <= 0 || degrees > most + STEP_DEGREES / 2) break;
    knots.push({ knot, degrees, height: unit.body.to + wide * Math.sin(degrees / DEGREES) });
  }
  return { hinge, at, wide, rope, most, meets, knots, lifts: (tiltAt(rope - 1) ?? 0) > 0 };
}

/** Wide enough for one where the wall leans in, mm. */
const WIDE_MM = 730;
/** As long as whoever lies on it needs, mm. */
const longFor = ({ people }: Start): number => (people[0]?.stature ?? 1750) + 120;

function boardAt(x: number, length: number, side: 'left' | 'right', front: number, start: Start): Unit {
  const { room } = start;
  const roof = Math.min(...[x, x + length].map((at) => roofHeight(room, at, side === 'left' ? -front : front)));
  return {
    id: start.id,
    family: 'tilting-board',
    name: start.name,
    body: { stands: side, x, length, front, from: 0, to: 450 },
    meets: { foot: { how: 'open' } },
    division: { name: 'under', holds: { kind: 'open' }, front: { kind: 'none' } },
    school: 'plywood',
    materials: { board: sheetAbout(start.book, 15), ledge: sheetAbout(start.book, 18) },
    options: {
      mattress: 80,
      sleepers: start.people.slice(0, 1).map(({ id }) => id),
      anchorAt: Math.max(0, front),
      anchorHeight: Math.max(500, Math.floor(roof - room.floor) - 60),
      step: 120,
      knots: 4,
    },
  };
}

/** A bed board hinged along a wall, held by ropes with knots: level to lie on, tilted by knot to lean on or to reach under it. */
export const tiltingBoard: Family = {
  id: 'tilting-board',
  words: {
    name: 'Tilting board',
    add: 'Tilting board on ropes',
    start: 'Tilting board',
    noun: 'tilting-board',
    fields: {
      board: 'Board of',
      ledge: 'Batten at the wall',
      anchorAt: 'Ropes from centre',
      anchorHeight: 'Ropes hang at',
      step: 'From knot to knot',
      knots: 'Knots above level',
    },
    roles: { 'tilting-board': 'board', 'tilting-ledge': 'batten' },
  },
  schools: ['plywood'],
  cuts: [],
  fields: [
    bodyField('x', 'x'),
    bodyField('length', 'length'),
    bodyField('height', 'to'),
    bodyField('front', 'front'),
    sideField,
    optionField('mattress', { group: 'place' }),
    optionField('anchorAt', { group: 'place', least: 0, most: 2000 }),
    optionField('anchorHeight', { group: 'place', least: 0, most: 4000 }),
    optionField('step', { group: 'place', least: 10, most: 1000 }),
    { ...optionField('knots', { group: 'place', least: 1, most: MOST_KNOTS }), kind: 'count' },
    peopleField('sleepers'),
    materialField('board'),
    materialField('ledge'),
  ],
  faults: faultsBy({
    stands: ['left', 'right'],
    materials: ['board', 'ledge'],
    options: z.strictObject({
      mattress: gapSchema,
      sleepers: z.array(idSchema).max(2),
      anchorAt: z.number().min(0).max(2000),
      anchorHeight: z.number().min(0).max(4000),
      step: z.number().min(10).max(1000),
      knots: z.int().min(1).max(MOST_KNOTS),
    }),
    cuts: [],
  }),
  start: (start) => {
    const length = Math.round(Math.min(start.room.length, longFor(start)));
    const { side, x } = freePlace(start, length, ['right', 'left']);
    const wall = Math.min(...[x, x + length].map((at) => halfWidth(start.room, side, at, start.room.floor + 450)));
    return boardAt(x, length, side, Math.round(wall - WIDE_MM), start);
  },
  inGap: (gap, start) => {
    const room = gap.x1 - gap.x0;
    if (gap.zone !== 'floor' || gap.where === 'middle' || room < longFor(start) - 70 || gap.deep < 620) return null;
    return {
      unit: boardAt(
        gap.x0,
        Math.round(Math.min(room, longFor(start))),
        gap.where,
        Math.round(gap.wall - Math.min(gap.deep, WIDE_MM)),
        start,
      ),
      fits: 0.5,
    };
  },
  skeleton: (unit, room) => {
    const line = frontLineOf(unit);
    const [board, ledge] = ['board', 'ledge'].map((role) => materialOf(room.book, unit.materials[role] ?? ''));
    const tilts = tiltsOf(unit, room);
    const say = (key: 'furniture.shallow' | 'furniture.low'): ReturnType<typeof nothingButProblems> =>
      nothingButProblems([{ place: unit.id, said: message(key, { unit: unit.name }) }], true);
    if (!line || !board || !ledge) return nothingButProblems([], true);
    if (!tilts) return say('furniture.shallow');
    if (tilts.at - LEDGE_HIGH_MM < room.inner.floor) return say('furniture.low');
    const [x0, x1] = [unit.body.x, endOf(unit)];
    const shut = {
      x0,
      x1,
      ...outward(line.sign, line.front, tilts.hinge),
      z0: tilts.at,
      z1: tilts.at + board.thickness,
    };
    const boards = [
      boardIn(shut, 'z', {
        name: 'board',
        role: 'tilting-board',
        material: board,
        grain: 'x',
        good: 1,
        held: 'hung',
        moves: 'board',
      }),
      boardIn(
        {
          x0,
          x1,
          ...outward(line.sign, tilts.hinge, tilts.hinge + ledge.thickness),
          z0: tilts.at - LEDGE_HIGH_MM,
          z1: tilts.at,
        },
        'y',
        { name: 'ledge', role: 'tilting-ledge', material: ledge, grain: 'x', good: line.sign > 0 ? -1 : 1 },
      ),
    ];
    const last = tilts.knots.at(-1);
    const motion = (highest: Knot): Motion => {
      const turn = highest.degrees / DEGREES;
      const rises = tilts.wide * Math.sin(turn) + board.thickness;
      return {
        of: `${unit.id}.board`,
        name: message('motion.tilt', { unit: { unit: unit.id } }),
        kind: 'hinge',
        about: 'level',
        shut,
        through: { ...shut, z1: tilts.at + rises },
        open: {
          ...shut,
          ...outward(line.sign, tilts.hinge - tilts.wide * Math.cos(turn), tilts.hinge),
          z1: tilts.at + rises,
        },
        // at the left wall the free edge lies to the right of the hinge and turns up from right to left
        tilt: { about: [line.sign * tilts.hinge, tilts.at], degrees: -line.sign * highest.degrees },
        latch: true,
        before: 0,
        stops: tilts.knots.map(({ knot, degrees }) => ({
          share: degrees / highest.degrees,
          name: message('motion.knot', { knot }),
        })),
      };
    };
    return {
      boards,
      contacts: contactsOf(boards),
      comesApart: true,
      problems: last
        ? []
        : [
            {
              place: unit.id,
              said: !tilts.lifts
                ? message('tilting.anchor', { unit: unit.name })
                : tilts.meets === null
                  ? message('tilting.tight', { unit: unit.name })
                  : message('tilting.short', {
                      unit: unit.name,
                      most: tilts.most,
                      what: { word: tilts.meets === 'roof' ? 'tilting.roof' : 'tilting.wall' },
                    }),
            },
          ],
      motions: last ? [motion(last)] : [],
    };
  },
  tells: (unit, room) => {
    const tilts = tiltsOf(unit, room);
    if (!tilts || tilts.knots.length === 0) return [];
    const heights = [unit.body.to, ...tilts.knots.map(({ height }) => height)];
    const rises = heights.slice(1).map((height, i) => height - (heights[i] ?? height));
    return [
      ...tilts.knots.map(({ knot, degrees, height }): Message =>
        message('tilting.knot', { knot, degrees: Math.round(degrees), height: mm(height) }),
      ),
      message('tilting.steps', { rope: mm(tilts.rope), least: mm(Math.min(...rises)), most: mm(Math.max(...rises)) }),
      tilts.meets === null
        ? message('tilting.all')
        : message('tilting.clear', {
            degrees: tilts.most,
            what: { word: tilts.meets === 'roof' ? 'tilting.roof' : 'tilting.wall' },
          }),
    ];
  },
  lies: (unit) => {
    const { sleepers } = unit.options;
    return {
      mattress: numberOption(unit, 'mattress'),
      sleepers: Array.isArray(sleepers) ? sleepers : [],
      along: 'x',
    };
  },
  // under it there is room: it is a board on ropes and a batten
  solids: (unit, room) => {
    const line = frontLineOf(unit);
    const tilts = tiltsOf(unit, room);
    if (!line || !tilts) return [];
    return [
      {
        x0: unit.body.x,
        x1: endOf(unit),
        ...outward(line.sign, line.front, tilts.hinge),
        z0: tilts.at - LEDGE_HIGH_MM,
        z1: room.inner.floor + unit.body.to + numberOption(unit, 'mattress'),
      },
    ];
  },
  rules: [],
};
