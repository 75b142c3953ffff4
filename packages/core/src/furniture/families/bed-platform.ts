import { z } from 'zod';
import { baysOf, endOf } from '../../document/body.js';
import { gapSchema, idSchema } from '../../document/schema-base.js';
import type { Unit } from '../../document/unit-schema.js';
import { materialOf } from '../../materials/material.js';
import { roundInsideCorners } from '../../numeric/shapes.js';
import { rectangle, roundedRectangle, spread, type Ring } from '../../numeric/plane.js';
import { boardAcross } from '../../parts/along-shell.js';
import { archUnderRule } from '../../rules/room.js';
import { clearHalfWidth } from '../../shell/arch.js';
import { message, mm } from '../../words/message.js';
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
  type Surroundings,
} from '../family.js';
import { offer } from '../offer.js';
import { appliesTo } from '../scene.js';
import { stepUp } from '../../numeric/tolerance.js';
import { scribedEdges } from '../carcass-boards.js';
import {
  allowanceAt,
  bedBoards,
  boardStrips,
  INSIDE_CORNER_MM,
  isWhole,
  jointsOf,
  SPLITS,
  type Levels,
} from '../bed-boards.js';
import { bedInGap, DOUBLE_MM, SINGLE_MM, sleepersAcross } from '../sleepers.js';
import { contactsOf, type BayRoom, type Board, type FurnitureProblem } from '../skeleton.js';

/** Surroundings kept between a support and an arch or wall, mm. */
const SUPPORT_CLEARANCE_MM = 10;
const ARCH_CLEARANCE_MM = 10;
/** Frame left round the access openings of the front, mm. */
const FRONT_FRAME_MM = 80;
const SMALLEST_ACCESS_MM = 200;
/** Everything is nearer than this, mm. */
const FAR_MM = 100_000;

type Side = 'left' | 'right';

/** The y at which the supports' middles stand: outermost clear of arches and walls, the rest so that no board spans further than allowed. */
function supportLines(unit: Unit, { inner, arches }: Surroundings, levels: Levels): number[] {
  const clear = (side: Side): number =>
    clearHalfWidth(inner, arches, side, unit.body.x, endOf(unit), levels.floor, levels.underside) -
    SUPPORT_CLEARANCE_MM -
    levels.support / 2;
  const [from, to] = [-clear('left'), clear('right')];
  if (from >= to) return [];
  return spread(from, to, Math.max(1, Math.ceil((to - from) / numberOption(unit, 'span'))) + 1);
}

function supports(unit: Unit, lines: readonly number[], levels: Levels): Board[] {
  const from = unit.body.x + levels.support;
  return lines.map((y, i): Board => ({
    name: `support-${i + 1}`,
    role: 'bed-support',
    material: unit.materials['support'] ?? '',
    normal: 'y',
    at: y - levels.support / 2,
    thickness: levels.support,
    outline: { outer: rectangle(from, levels.floor, endOf(unit), levels.underside), holes: [] },
    grain: 'x',
    good: y < 0 ? 1 : -1,
    edges: [],
    held: 'fixed',
  }));
}

/** How high a bearer under a joint is, mm. */
const BEARER_MM = 100;

/** Where whole sheets and a strip meet they lie on a bearer of their own, from support to support. */
function bearers(unit: Unit, { book }: Surroundings, lines: readonly number[], levels: Levels): Board[] {
  if (!isWhole(unit) || levels.underside - levels.floor <= BEARER_MM) return [];
  const t = levels.support;
  return jointsOf(boardStrips(unit, materialOf(book, unit.materials['board'] ?? ''))).flatMap((joint, i) =>
    joint - t / 2 < unit.body.x + t || joint + t / 2 > endOf(unit)
      ? []
      : lines.slice(1).map((y, k): Board => ({
          name: `bearer-${i + 1}-${k + 1}`,
          role: 'bed-bearer',
          material: unit.materials['support'] ?? '',
          normal: 'x',
          at: joint - t / 2,
          thickness: t,
          outline: {
            outer: rectangle((lines[k] ?? y) + t / 2, levels.underside - BEARER_MM, y - t / 2, levels.underside),
            holes: [],
          },
          grain: 'y',
          good: -1,
          edges: [],
          held: 'fixed',
        })),
  );
}

function front(unit: Unit, { inner, arches }: Surroundings, levels: Levels, lines: readonly number[]): Board[] {
  const { x } = unit.body;
  const thickness = levels.support;
  const openings = lines.slice(1).flatMap((to, i): Ring[] => {
    const from = (lines[i] ?? to) + FRONT_FRAME_MM / 2 + thickness / 2;
    const end = to - FRONT_FRAME_MM / 2 - thickness / 2;
    const [low, high] = [levels.floor + FRONT_FRAME_MM, levels.underside - FRONT_FRAME_MM];
    return end - from >= SMALLEST_ACCESS_MM && high - low >= SMALLEST_ACCESS_MM
      ? [roundedRectangle(from, low, end, high, 40)]
      : [];
  });
  const bites = arches
    .filter((arch) => arch.from - ARCH_CLEARANCE_MM < x + thickness && arch.to + ARCH_CLEARANCE_MM > x)
    .map((arch): Ring => {
      const sign = arch.side === 'left' ? -1 : 1;
      const [a, b] = [sign * (arch.face - ARCH_CLEARANCE_MM), sign * 3000];
      return rectangle(Math.min(a, b), levels.floor - 1, Math.max(a, b), arch.height + ARCH_CLEARANCE_MM);
    });
  const body = boardAcross(inner, {
    x,
    thick: thickness,
    free: rectangle(-FAR_MM, levels.floor, FAR_MM, levels.underside),
    cuts: bites,
    allowance: (side) => allowanceAt(unit, side),
  });
  if (!body) return [];
  return [
    {
      name: 'front',
      role: 'bed-front',
      material: unit.materials['support'] ?? '',
      normal: 'x',
      at: x,
      thickness,
      outline: {
        outer: bites.length > 0 ? roundInsideCorners(body.outline.outer, INSIDE_CORNER_MM) : body.outline.outer,
        holes: openings,
      },
      grain: 'y',
      good: -1,
      edges: scribedEdges(body.edges),
      held: 'fixed',
    },
  ];
}

function levelsOf(unit: Unit, { inner, book }: Surroundings): Levels | null {
  const [board, support] = [
    materialOf(book, unit.materials['board'] ?? ''),
    materialOf(book, unit.materials['support'] ?? ''),
  ];
  if (!board || !support) return null;
  const top = inner.floor + unit.body.to;
  return {
    top,
    underside: top - board.thickness,
    floor: inner.floor,
    board: board.thickness,
    support: support.thickness,
  };
}

/** A bed may be raised over an arch that comes up through its boards. */
const archUnder = appliesTo(archUnderRule, {
  ofUnit: (unit, scene) => {
    const { inner, arches, book } = scene;
    const levels = levelsOf(unit, { inner, arches, book, things: [] });
    if (!levels) return [];
    return arches
      .filter((arch) => arch.to > unit.body.x && arch.from < endOf(unit))
      .map((arch) => ({
        id: `arch:${unit.id}:${arch.id}`,
        input: { underside: levels.underside, arch: arch.height, name: unit.name, archName: arch.name },
        pin: {
          unit: unit.id,
          person: null,
          x: (arch.from + arch.to) / 2,
          y: (arch.side === 'left' ? -1 : 1) * arch.face,
        },
        mend: ({ spare }) => {
          const by = stepUp(scene, -(spare ?? 0));
          return offer(unit, scene, { height: unit.body.to + by }, message('mend.raiseBed', { by: mm(by) }));
        },
      }));
  },
});

/**
 * The hold under it: between its outer supports, reached through the widest opening of its front.
 * @param hangs how far bearers hang into it, mm
 */
function holdUnder(unit: Unit, levels: Levels, lines: readonly number[], hangs: number): BayRoom[] {
  const bay = baysOf(unit.division)[0];
  const [first, last] = [lines[0], lines.at(-1)];
  if (!bay || first === undefined || last === undefined || last - first < SMALLEST_ACCESS_MM) return [];
  const apart = Math.max(...lines.slice(1).map((y, i) => y - (lines[i] ?? y)));
  const high = levels.underside - levels.floor;
  return [
    {
      bay,
      room: {
        x0: unit.body.x + levels.support,
        x1: endOf(unit),
        y0: first + levels.support / 2,
        y1: last - levels.support / 2,
        z0: levels.floor,
        z1: levels.underside - hangs,
      },
      into: 0,
      end: 'front',
      lifts: true,
      deepLow: apart - levels.support,
      deepHigh: apart - levels.support,
      through: [Math.max(0, apart - FRONT_FRAME_MM - levels.support), Math.max(0, high - 2 * FRONT_FRAME_MM)],
    },
  ];
}

const optionsSchema = z.strictObject({
  mattress: gapSchema,
  sleepers: z.array(idSchema).max(6),
  boardWidth: z.number().min(50).max(5000),
  span: z.number().min(100).max(5000),
  split: z.enum(SPLITS).optional(),
});

/** A bed from wall to wall on boards, with a hold under it. */
export const bedPlatform: Family = {
  id: 'bed-platform',
  words: {
    name: 'Bed platform',
    add: 'Bed across the rear',
    start: 'Bed',
    noun: 'bed',
    fields: { length: 'Width of the bed', board: 'Boards', support: 'Supports and front', split: 'Divided' },
    roles: { 'bed-board': 'board', 'bed-support': 'support', 'bed-front': 'front', 'bed-bearer': 'bearer' },
  },
  schools: ['plywood'],
  cuts: [],
  fields: [
    bodyField('x', 'x'),
    bodyField('length', 'length'),
    bodyField('height', 'to'),
    optionField('mattress', { group: 'place' }),
    peopleField('sleepers'),
    materialField('board'),
    materialField('support'),
    choiceField('split', SPLITS, 'made'),
    optionField('boardWidth', { group: 'made', least: 50, most: 5000 }),
    optionField('span', { group: 'made', least: 100, most: 5000 }),
    scribeField(['left', 'right']),
  ],
  faults: faultsBy({
    stands: ['across'],
    materials: ['board', 'support'],
    options: optionsSchema,
    cuts: [],
  }),
  start: (start) => {
    const { people, room } = start;
    const length = Math.min(people.length === 1 ? SINGLE_MM : DOUBLE_MM, room.length);
    const unit = bedIn(Math.round(room.length - length), Math.round(length), start);
    // whoever is too tall for it is told so
    const sleepers = people.slice(0, 2).map(({ id }) => id);
    return { ...unit, options: { ...unit.options, sleepers } };
  },
  inGap: (gap, start) => bedInGap(gap, start, (x, length) => bedIn(x, length, start), 1),
  skeleton: (unit, room) => {
    const levels = levelsOf(unit, room);
    const problems: FurnitureProblem[] = [];
    const say = (key: 'furniture.low' | 'furniture.noSupport'): void =>
      void problems.push({ place: unit.id, said: message(key, { unit: unit.name }) });
    if (!levels) return { boards: [], contacts: [], comesApart: true, problems };
    if (levels.underside <= levels.floor) {
      say('furniture.low');
      return { boards: [], contacts: [], comesApart: true, problems };
    }
    const lines = supportLines(unit, room, levels);
    if (lines.length === 0) say('furniture.noSupport');
    const between = bearers(unit, room, lines, levels);
    const made = [
      ...bedBoards(unit, room, levels),
      ...(unit.body.length > levels.support ? supports(unit, lines, levels) : []),
      ...front(unit, room, levels, lines),
      ...between,
    ];
    return {
      boards: made,
      contacts: contactsOf(made),
      comesApart: true,
      problems,
      bays: holdUnder(unit, levels, lines, between.length > 0 ? BEARER_MM : 0),
    };
  },
  lies: (unit) => {
    const { sleepers } = unit.options;
    return { mattress: numberOption(unit, 'mattress'), sleepers: Array.isArray(sleepers) ? sleepers : [] };
  },
  rules: [archUnder],
};

/** Across the rear for everybody who is known, on a height that leaves a hold under it. */
const TOP_MM = 700;
const MATTRESS_MM = 100;

/** A platform from wall to wall, for those who fit across it there. */
function bedIn(x: number, length: number, { id, name, people, room, book }: Start): Unit {
  const sleepers = sleepersAcross(people, room, x, x + length, TOP_MM, MATTRESS_MM);
  return {
    id,
    family: 'bed-platform',
    name,
    body: { stands: 'across', x, length, from: 0, to: TOP_MM },
    meets: {
      left: { how: 'scribed', allowance: 20 },
      right: { how: 'scribed', allowance: 20 },
      foot: { how: 'open' },
    },
    division: { name: 'hold', holds: { kind: 'open' }, front: { kind: 'none' } },
    school: 'plywood',
    materials: { board: sheetAbout(book, 12), support: sheetAbout(book, 15) },
    options: {
      mattress: MATTRESS_MM,
      sleepers: [...(length < DOUBLE_MM ? sleepers.slice(0, 1) : sleepers)],
      split: 'equal',
      boardWidth: 620,
      span: 650,
    },
  };
}
