import { z } from 'zod';
import { endOf } from '../../document/body.js';
import type { PriceItem, Side } from '../../document/schema.js';
import { gapSchema, idSchema } from '../../document/schema-base.js';
import type { Unit } from '../../document/unit-schema.js';
import { materialOf } from '../../materials/material.js';
import { spread } from '../../numeric/plane.js';
import { MATTRESS_GIVES, SITTING_SHARE } from '../../rules/people.js';
import type { SolidBox } from '../../rules/room.js';
import { archTop } from '../../shell/arch.js';
import { halfWidth, roofHeight } from '../../shell/shell.js';
import { message, mm, type Message } from '../../words/message.js';
import { bedBoards, boardStrips, jointsOf, SPLITS } from '../bed-boards.js';
import { nothingButProblems } from '../carcass.js';
import {
  bodyField,
  choiceField,
  faultsBy,
  materialField,
  numberOption,
  optionField,
  peopleField,
  scribeField,
  sheetAbout,
  type Family,
  type Start,
} from '../family.js';
import { boardIn, outward } from '../simple-boards.js';
import { bedInGap, DOUBLE_MM, SINGLE_MM, sleepersAcross } from '../sleepers.js';
import { contactsOf, type Board, type HangsOn } from '../skeleton.js';
import type { Surroundings } from '../surroundings.js';

/** The bearers stand on edge between the rails, so high, and kept off them by this, mm. */
const BEARER_MM = 120;
const WALL_GAP_MM = 5;
/** A rail is so wide, and stands off the wall by this where nothing else is said, mm. */
const RAIL_WIDE_MM = 30;
const RAIL_MM = 20;
/** Less than this of a rail under its bearer is no hold, mm. */
const LEAST_RAIL_MM = 100;

/** It is hung this high where everybody sits up on it, and no lower than that without need; in steps, mm. */
const HIGH_MM = 900;
const LOW_MM = 500;
const STEP_MM = 50;
const MATTRESS_MM = 100;
/** Free over the head of who sits up, which is so far from the centre line where one leans on the wall, mm. */
const OVER_HEAD_MM = 50;
const HEAD_MM = 600;

function bedAt(x: number, length: number, start: Start): Unit {
  const { room, people } = start;
  // whoever is tallest sits up under the roof where it is lowest
  const crowns = people.map(({ stature, sittingHeight }) => sittingHeight ?? SITTING_SHARE * stature);
  const sits = Math.max(0, ...crowns) + OVER_HEAD_MM + (1 - MATTRESS_GIVES) * MATTRESS_MM;
  const roof = Math.min(
    ...spread(x, x + length, 5).flatMap((at) => [-HEAD_MM, 0, HEAD_MM].map((y) => roofHeight(room, at, y))),
  );
  const to = Math.max(LOW_MM, Math.min(HIGH_MM, Math.floor((roof - room.floor - sits) / STEP_MM) * STEP_MM));
  const sleepers = sleepersAcross(people, room, x, x + length, to, MATTRESS_MM);
  return {
    id: start.id,
    family: 'bed-on-rails',
    name: start.name,
    body: { stands: 'across', x, length, from: 0, to },
    meets: { left: { how: 'scribed', allowance: 20 }, right: { how: 'scribed', allowance: 20 }, foot: { how: 'open' } },
    division: { name: 'hold', holds: { kind: 'hold' }, front: { kind: 'none' } },
    school: 'plywood',
    materials: { board: sheetAbout(start.book, 12), support: sheetAbout(start.book, 18) },
    options: {
      mattress: MATTRESS_MM,
      sleepers: length < DOUBLE_MM ? sleepers.slice(0, 1) : [...sleepers],
      split: 'equal',
      boardWidth: 620,
      bearers: 3,
      step: STEP_MM,
      rail: RAIL_MM,
    },
  };
}

/** How far from its ends the outermost bearers hang, mm. */
const END_MM = 60;
/** Where the middles of its bearers are: near both ends and under each joint of its boards, and between those as many as are asked for. */
function bearerLines(unit: Unit, thick: number, board: PriceItem): readonly number[] {
  const joints = jointsOf(boardStrips(unit, board));
  const lines = [unit.body.x + END_MM + thick / 2, ...joints, endOf(unit) - END_MM - thick / 2];
  while (lines.length < numberOption(unit, 'bearers')) {
    const gaps = lines.slice(1).map((at, i) => at - (lines[i] ?? at));
    const widest = gaps.indexOf(Math.max(...gaps));
    lines.splice(widest + 1, 0, ((lines[widest] ?? 0) + (lines[widest + 1] ?? 0)) / 2);
  }
  return lines;
}

/** Whether its height is one of the steps of its rails. */
function onStep(unit: Unit): boolean {
  const step = numberOption(unit, 'step');
  const off = unit.body.to % step;
  return off < 0.5 || step - off < 0.5;
}

/** How far its rails stand off the wall, mm. */
const railOf = ({ options }: Unit): number => (typeof options['rail'] === 'number' ? options['rail'] : RAIL_MM);

/** One rail: upright on the wall behind an end of a bearer, from the floor or from the arch that stands there, up to the boards. */
function railAt(unit: Unit, { inner, arches }: Surroundings, side: Side, x: number, underside: number): SolidBox {
  const [x0, x1] = [x - RAIL_WIDE_MM / 2, x + RAIL_WIDE_MM / 2];
  const wall = Math.min(
    ...spread(underside - BEARER_MM, underside, 5).flatMap((z) => [x0, x1].map((at) => halfWidth(inner, side, at, z))),
  );
  const rail = railOf(unit);
  const foot = Math.max(
    inner.floor,
    ...arches.flatMap((arch) =>
      arch.side === side && (arch.far === null || arch.far > wall - rail) ? (archTop(arch, x0, x1) ?? []) : [],
    ),
  );
  const sign = side === 'left' ? -1 : 1;
  return { x0, x1, ...outward(sign, wall - rail, wall), z0: Math.min(foot, underside), z1: underside };
}

/** Rails of one length are bought as one. */
function hungOnRails(rails: readonly SolidBox[], brackets: number): readonly HangsOn[] {
  const byLength = new Map<number, SolidBox[]>();
  for (const rail of rails) {
    const each = Math.ceil(rail.z1 - rail.z0 - 0.001);
    byLength.set(each, [...(byLength.get(each) ?? []), rail]);
  }
  return [
    ...[...byLength].map(([each, at]): HangsOn => ({ kind: 'wall-rail', count: at.length, each, at })),
    { kind: 'rail-bracket', count: brackets },
  ];
}

/** A bed over a hold, on bearers that hang between the walls on rails: its height can be changed in steps. */
export const bedOnRails: Family = {
  id: 'bed-on-rails',
  words: {
    name: 'Bed on rails',
    add: 'Bed over a hold, on rails',
    start: 'Bed',
    noun: 'bed',
    fields: {
      length: 'Width of the bed',
      board: 'Boards',
      support: 'Bearers',
      boardWidth: 'Widest board',
      split: 'Divided',
      bearers: 'Bearers, at least',
      step: 'Step of the rails',
      rail: 'Rails stand off the wall',
    },
    roles: { 'bed-board': 'board', bearer: 'bearer' },
  },
  schools: ['plywood'],
  cuts: [],
  fields: [
    bodyField('x', 'x'),
    bodyField('length', 'length'),
    bodyField('height', 'to'),
    optionField('mattress', { group: 'place' }),
    peopleField('sleepers'),
    optionField('step', { group: 'place', least: 10, most: 300 }),
    {
      ...optionField('rail', { group: 'made', least: 5, most: 60 }),
      get: railOf,
      set: (unit, value) => (value === railOf(unit) ? unit : { ...unit, options: { ...unit.options, rail: value } }),
    },
    materialField('board'),
    materialField('support'),
    choiceField('split', SPLITS, 'made'),
    optionField('boardWidth', { group: 'made', least: 50, most: 5000 }),
    { ...optionField('bearers', { group: 'made', least: 2, most: 8 }), kind: 'count' },
    scribeField(['left', 'right']),
  ],
  faults: faultsBy({
    stands: ['across'],
    materials: ['board', 'support'],
    options: z.strictObject({
      mattress: gapSchema,
      sleepers: z.array(idSchema).max(6),
      boardWidth: z.number().min(50).max(5000),
      bearers: z.int().min(2).max(8),
      step: z.number().min(10).max(300),
      rail: z.number().min(5).max(60).optional(),
      split: z.enum(SPLITS).optional(),
    }),
    cuts: [],
  }),
  start: (start) => {
    const length = Math.round(Math.min(start.people.length === 1 ? SINGLE_MM : DOUBLE_MM, start.room.length));
    const unit = bedAt(Math.round(start.room.length - length), length, start);
    return { ...unit, options: { ...unit.options, sleepers: start.people.slice(0, 2).map(({ id }) => id) } };
  },
  inGap: (gap, start) => bedInGap(gap, start, (x, length) => bedAt(x, length, start), 0.9),
  makes: onStep,
  skeleton: (unit, room) => {
    const [board, support] = ['board', 'support'].map((role) => materialOf(room.book, unit.materials[role] ?? ''));
    if (!board || !support) return nothingButProblems([], true);
    const { floor } = room.inner;
    const top = floor + unit.body.to;
    const underside = top - board.thickness;
    if (underside - floor < BEARER_MM + 50)
      return nothingButProblems([{ place: unit.id, said: message('furniture.low', { unit: unit.name }) }], true);
    const step = numberOption(unit, 'step');
    const reach = (side: 'left' | 'right', x: number): number =>
      Math.min(...spread(underside - BEARER_MM, underside, 5).map((z) => halfWidth(room.inner, side, x, z))) -
      railOf(unit) -
      WALL_GAP_MM;
    const lines = bearerLines(unit, support.thickness, board);
    const bearers = lines.map((middle, i): Board => {
      const x = middle - support.thickness / 2;
      return boardIn(
        {
          x0: x,
          x1: x + support.thickness,
          y0: -Math.min(reach('left', x), reach('left', x + support.thickness)),
          y1: Math.min(reach('right', x), reach('right', x + support.thickness)),
          z0: underside - BEARER_MM,
          z1: underside,
        },
        'x',
        { name: `bearer-${i + 1}`, role: 'bearer', material: support, grain: 'y', good: 1 },
      );
    });
    const boards = [
      ...bedBoards(unit, room, { top, underside, floor, board: board.thickness, support: support.thickness }),
      ...bearers,
    ];
    // one at each end of each bearer, as high as the bed lies: it can be hung lower, and what it stands on carries it
    const rails = (['left', 'right'] as const).flatMap((side) =>
      lines.map((x) => railAt(unit, room, side, x, underside)),
    );
    const short = rails.filter(({ z0, z1 }) => z1 - z0 < LEAST_RAIL_MM);
    const told = (said: Message) => ({ place: unit.id, said });
    return {
      boards,
      contacts: contactsOf(boards),
      comesApart: true,
      hangsOn: hungOnRails(
        rails.filter((rail) => !short.includes(rail)),
        rails.length,
      ),
      problems: [
        ...(onStep(unit)
          ? []
          : [told(message('furniture.railStep', { unit: unit.name, to: mm(unit.body.to), step: mm(step) }))]),
        ...(short[0]
          ? [
              told(
                message('furniture.railShort', {
                  unit: unit.name,
                  n: short.length,
                  top: mm(short[0].z0 - floor),
                  least: mm(LEAST_RAIL_MM + board.thickness + short[0].z0 - floor),
                }),
              ),
            ]
          : []),
      ],
    };
  },
  lies: (unit) => {
    const { sleepers } = unit.options;
    return { mattress: numberOption(unit, 'mattress'), sleepers: Array.isArray(sleepers) ? sleepers : [] };
  },
  solids: (unit, { inner }) => {
    const { x } = unit.body;
    const top = inner.floor + unit.body.to;
    const wide = (side: 'left' | 'right'): number =>
      Math.max(...spread(x, endOf(unit), 5).map((at) => halfWidth(inner, side, at, top)));
    // what is under it is free
    return [
      {
        x0: x,
        x1: endOf(unit),
        y0: -wide('left'),
        y1: wide('right'),
        z0: top - BEARER_MM - 20,
        z1: top + numberOption(unit, 'mattress'),
      },
    ];
  },
  rules: [],
};
