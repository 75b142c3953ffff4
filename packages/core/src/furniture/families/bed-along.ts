import { z } from 'zod';
import { baysOf, endOf, frontLineOf } from '../../document/body.js';
import { gapSchema, idSchema } from '../../document/schema-base.js';
import type { Unit } from '../../document/unit-schema.js';
import type { PriceItem } from '../../document/schema.js';
import { materialOf } from '../../materials/material.js';
import { rectangle, spread, type Point } from '../../numeric/plane.js';
import { halfWidth } from '../../shell/shell.js';
import { message } from '../../words/message.js';
import { archIn, notchedBy, overArchField } from '../against-wall.js';
import { deepBehind, facingBoard, frameOf, level, upright, VISIBLE_FRONT } from '../carcass-boards.js';
import { nothingButProblems } from '../carcass.js';
import {
  bodyField,
  choiceField,
  faultsBy,
  freePlace,
  fromField,
  materialField,
  numberOption,
  optionField,
  peopleField,
  scribeField,
  sheetAbout,
  sideField,
  type Family,
  type Start,
} from '../family.js';
import { BOARD_GAP_MM, LEAST_STRIP_MM, SPLITS, stripsOver, widestBoard, type Strip } from '../bed-boards.js';
import { boardIn, outward } from '../simple-boards.js';
import { contactsOf, type Board } from '../skeleton.js';

/** The rails along it and the bearers between them that carry it, and the brackets of one that hangs, mm. */
const RAIL_MM = 100;
/** The rail at the wall is kept off it by this, and nothing the boards lie on is farther apart, mm. */
const WALL_GAP_MM = 10;
const SPAN_MM = 650;
const WAYS = ['none', ...SPLITS] as const;

/**
 * From where to where along the vehicle each of its boards lies: one, boards of one width that a sheet gives, or whole sheets
 * and a strip, mm. A bed deeper than a sheet is wide has its boards across the sheet's length.
 */
function boardsAlong(unit: Unit, board: PriceItem): readonly Strip[] {
  const { x, length } = unit.body;
  const wide = widestBoard(board);
  const { split } = unit.options;
  if ((split !== 'equal' && split !== 'sheet') || wide < LEAST_STRIP_MM) return [{ from: x, to: x + length }];
  // two at least, where one would do
  const most = Math.min(wide, length - BOARD_GAP_MM - LEAST_STRIP_MM);
  return stripsOver(unit.body, most, split === 'sheet' && wide < length);
}

/** Less deep than this there is no bed, mm. */
const LEAST_DEEP_MM = 200;
/** Left open in a guard to get in and out by, mm. */
const WAY_IN_MM = 500;

function bedAt(x: number, length: number, side: 'left' | 'right', front: number, start: Start): Unit {
  return {
    id: start.id,
    family: 'bed-along',
    name: start.name,
    body: { stands: side, x, length, front, from: 0, to: 450 },
    meets: { back: { how: 'scribed', allowance: 20 }, foot: { how: 'open' } },
    division: { name: 'hold', holds: { kind: 'hold' }, front: { kind: 'none' } },
    school: 'plywood',
    materials: { board: sheetAbout(start.book, 12), support: sheetAbout(start.book, 15) },
    options: { split: 'none', mattress: 100, guard: 0, sleepers: start.people.slice(0, 1).map(({ id }) => id) },
  };
}

/** A bed along a side wall, on the floor or hung as a bunk: one lies the way the vehicle drives. */
export const bedAlong: Family = {
  id: 'bed-along',
  splits: { role: 'bunk-board', into: { split: 'equal' } },
  words: {
    name: 'Bed along a wall',
    add: 'Bed along a wall',
    start: 'Bunk',
    noun: 'bunk',
    fields: {
      board: 'Boards',
      support: 'Ends and rail',
      from: 'Hung from',
      guard: 'Guard above mattress',
      split: 'Its board',
    },
    roles: {
      'bunk-board': 'board',
      'bunk-end': 'end',
      'bunk-rail': 'rail',
      'bunk-bearer': 'bearer',
    },
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
    choiceField('split', WAYS, 'made'),
    optionField('mattress', { group: 'place' }),
    optionField('guard', { group: 'place', least: 0, most: 600 }),
    peopleField('sleepers'),
    materialField('board'),
    materialField('support'),
    overArchField,
    scribeField(['back']),
  ],
  faults: faultsBy({
    stands: ['left', 'right'],
    materials: ['board', 'support'],
    options: z.strictObject({
      mattress: gapSchema,
      guard: gapSchema,
      split: z.enum(WAYS).optional(),
      sleepers: z.array(idSchema).max(4),
      overArch: z.boolean().optional(),
    }),
    cuts: [],
  }),
  start: (start) => {
    const tallest = Math.max(1700, ...start.people.map(({ stature }) => stature));
    const length = Math.round(Math.min(start.room.length, tallest + 120));
    const { side, x } = freePlace(start, length, ['right', 'left']);
    const wall = Math.min(...[x, x + length].map((at) => halfWidth(start.room, side, at, start.room.floor + 450)));
    return bedAt(x, length, side, Math.round(wall - 700), start);
  },
  inGap: (gap, start) => {
    const shortest = Math.min(1700, ...start.people.map(({ stature }) => stature));
    const room = gap.x1 - gap.x0;
    if (gap.zone !== 'floor' || gap.where === 'middle' || room < shortest + 50 || gap.deep < 600) return null;
    const tallest = Math.max(1700, ...start.people.map(({ stature }) => stature));
    const length = Math.round(Math.min(room, tallest + 120));
    const deep = Math.min(gap.deep, 750);
    return {
      unit: bedAt(gap.x0, length, gap.where, Math.round(gap.wall - deep), start),
      fits: 0.85 * Math.min(1, room / (tallest + 120)) * Math.min(1, deep / 700),
    };
  },
  skeleton: (unit, room) => {
    const line = frontLineOf(unit);
    const [board, support] = ['board', 'support'].map((role) => materialOf(room.book, unit.materials[role] ?? ''));
    if (!line || !board || !support) return nothingButProblems([], true);
    const { floor } = room.inner;
    const underside = floor + unit.body.to - board.thickness;
    const foot = floor + Math.max(unit.body.from, 0);
    if (underside - foot < RAIL_MM)
      return nothingButProblems([{ place: unit.id, said: message('furniture.low', { unit: unit.name }) }], true);
    const frame = frameOf({
      unit,
      room,
      side: line.side,
      sign: line.sign,
      front: line.front,
      foot,
      bottom: foot,
      carcassTop: underside,
      board: support,
      facing: support,
      top: null,
      head: 'open',
      seenBelow: false,
      notched: notchedBy(unit, room),
    });
    const end = (name: string, x: number, good: 1 | -1): Board[] =>
      upright(frame, { name, role: 'bunk-end', x, from: foot, to: underside, scribed: true, good });
    const along = (name: string, role: string, x0: number, x1: number, z0: number, z1: number): Board =>
      facingBoard(frame, {
        name,
        role,
        material: support,
        front: frame.front,
        outline: { outer: rectangle(x0, z0, x1, z1), holes: [] },
        grain: 'x',
        edges: [VISIBLE_FRONT],
        held: 'fixed',
      });
    const [from, to] = [unit.body.x + support.thickness, endOf(unit) - support.thickness];
    const low = underside - RAIL_MM;
    const behind = deepBehind(frame, unit.body.x, endOf(unit), low, underside) - WALL_GAP_MM;
    if (behind < LEAST_DEEP_MM)
      return nothingButProblems([{ place: unit.id, said: message('furniture.shallow', { unit: unit.name }) }], true);
    const back = frame.carcassFront + behind;
    const plain = { material: support, good: line.sign > 0 ? (-1 as const) : (1 as const) };
    const boardsOf = boardsAlong(unit, board);
    // a joint lies on a bearer of its own, and nothing spans farther between them
    const joints = boardsOf.slice(1).map(({ from: at }) => at - BOARD_GAP_MM / 2);
    const stops = [from, ...joints, to];
    const bearers = stops
      .slice(1)
      .flatMap((stop, i) => {
        const start = stops[i] ?? from;
        return spread(start, stop, Math.max(1, Math.ceil((stop - start) / SPAN_MM)) + 1).slice(1);
      })
      .slice(0, -1)
      .map((x, i) =>
        boardIn(
          {
            x0: x - support.thickness / 2,
            x1: x + support.thickness / 2,
            ...outward(line.sign, frame.carcassFront, back - support.thickness),
            z0: low,
            z1: underside,
          },
          'x',
          { ...plain, name: `bearer-${i + 1}`, role: 'bunk-bearer', grain: 'y' },
        ),
      );
    const guard = numberOption(unit, 'guard');
    const top = floor + unit.body.to;
    // the guard is one board with the rail: between its ends and the mattress nothing else would hold it
    const guarded = (rail: Board): Board => {
      if (guard <= 0) return rail;
      const [x0, x1] = [unit.body.x, endOf(unit)];
      const until = Math.max(x0 + 100, x1 - WAY_IN_MM);
      const high = top + numberOption(unit, 'mattress') + guard;
      const outer: Point[] = [
        [x0, low],
        [x1, low],
        [x1, underside],
        [until, underside],
        [until, high],
        [x0, high],
      ];
      return { ...rail, outline: { outer, holes: [] } };
    };
    const boards: Board[] = [
      ...end('end-front', unit.body.x, -1),
      ...end('end-rear', endOf(unit) - support.thickness, 1),
      guarded(along('rail', 'bunk-rail', unit.body.x, endOf(unit), low, underside)),
      boardIn(
        { x0: from, x1: to, ...outward(line.sign, back - support.thickness, back), z0: low, z1: underside },
        'y',
        {
          ...plain,
          name: 'rail-back',
          role: 'bunk-rail',
          grain: 'x',
        },
      ),
      ...bearers,
      ...boardsOf.map((strip, i): Board => ({
        ...level(frame, {
          name: boardsOf.length > 1 ? `board-${i + 1}` : 'board',
          role: 'bunk-board',
          material: board,
          z: underside,
          ...strip,
          front: frame.carcassFront,
          scribed: true,
          held: 'loose',
        }),
        ...(boardsOf.length > 1 ? { grain: 'y' as const } : {}),
      })),
    ];
    const deep = Math.max(0, deepBehind(frame, unit.body.x, endOf(unit), foot, underside));
    const near = line.sign * frame.carcassFront;
    const bay = baysOf(unit.division)[0];
    return {
      boards,
      contacts: contactsOf(boards),
      comesApart: true,
      problems: [],
      // the hold under it is open at the front, below the rail
      bays: bay
        ? [
            {
              bay,
              room: {
                x0: unit.body.x + support.thickness,
                x1: endOf(unit) - support.thickness,
                y0: Math.min(near, near + line.sign * deep),
                y1: Math.max(near, near + line.sign * deep),
                z0: foot,
                z1: low,
              },
              into: line.sign,
              deepLow: deep,
              deepHigh: deep,
              through: [unit.body.length - 2 * support.thickness, Math.max(0, low - foot)],
            },
          ]
        : [],
    };
  },
  lies: (unit) => {
    const { sleepers } = unit.options;
    const guard = numberOption(unit, 'guard');
    return {
      mattress: numberOption(unit, 'mattress'),
      sleepers: Array.isArray(sleepers) ? sleepers : [],
      along: 'x',
      ...(guard > 0 ? { guard } : {}),
    };
  },
  rules: [archIn],
};
