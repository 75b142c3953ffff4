import { z } from 'zod';
import { baysOf, endOf } from '../../document/body.js';
import type { Field } from '../../document/kit.js';
import { gapSchema } from '../../document/schema-base.js';
import type { Unit } from '../../document/unit-schema.js';
import { materialOf } from '../../materials/material.js';
import { tiePointsRule } from '../../rules/road.js';
import type { SolidBox } from '../../rules/room.js';
import { message } from '../../words/message.js';
import { nothingButProblems } from '../carcass.js';
import { divide } from '../division.js';
import {
  bodyField,
  choiceField,
  countField,
  faultsBy,
  freeField,
  fromField,
  materialField,
  numberOption,
  optionField,
  sheetAbout,
  yesNoField,
  type Family,
  type Start,
  type Surroundings,
} from '../family.js';
import { appliesTo } from '../scene.js';
import { boardIn } from '../simple-boards.js';
import { contactsOf, type BayRoom, type Board, type Skeleton } from '../skeleton.js';

const OPEN = ['left', 'right', 'rear'] as const;
const MOST_LEVELS = 6;
/** It is put so far off the wall, which is nowhere quite straight, mm. */
const OFF_WALL_MM = 10;
/** It slides out by this share of its depth: a heavy slide seldom opens further, and the rest stays on it. */
const SLIDES_SHARE = 0.8;

const levelsOf = ({ division }: Unit): number => ('cut' in division ? division.parts.length : 1);
/** So many levels of equal height, each a bay of its own. */
function withLevels(unit: Unit, count: number): Unit {
  const bay = (i: number) => ({
    name: `level-${i + 1}`,
    holds: { kind: 'hold' as const },
    front: { kind: 'none' as const },
  });
  const had = baysOf(unit.division);
  const parts = Array.from({ length: count }, (_, i) => had[i] ?? bay(i));
  const [first] = parts;
  return {
    ...unit,
    division:
      count > 1 || !first ? { cut: 'up', divider: 'board', sizes: parts.map(() => ({ share: 1 })), parts } : first,
  };
}
const levelsField: Field = {
  name: 'levels',
  kind: 'count',
  group: 'made',
  least: 1,
  most: MOST_LEVELS,
  get: levelsOf,
  set: (unit, value) => withLevels(unit, Math.max(1, Math.min(MOST_LEVELS, Number(value)))),
};
const tied = appliesTo(tiePointsRule, {
  ofUnit: (unit, { stored }) => {
    const { body } = unit;
    if (body.stands !== 'free') return [];
    const kept = stored.filter(({ kept: at }) => at?.unit === unit.id);
    const listed = kept.reduce((sum, { mass, count }) => sum + mass * count, 0);
    const load = Math.max(numberOption(unit, 'load'), listed);
    return [
      {
        id: `tie-points:${unit.id}`,
        input: {
          load: load > 0 ? load : null,
          eyes: numberOption(unit, 'eyes'),
          holds: numberOption(unit, 'eyeHolds'),
          name: unit.name,
        },
        pin: { unit: unit.id, person: null, x: body.x + body.length / 2, y: body.y + body.width / 2 },
        mend: ({ good }) => {
          const each = numberOption(unit, 'eyeHolds');
          const eyes = each > 0 ? Math.ceil(good / each) : Infinity;
          return load > 0 && eyes <= 12
            ? {
                said: message('mend.tiePoints', { eyes }),
                operations: [{ name: 'changeUnit', payload: { id: unit.id, changes: { eyes } } }],
              }
            : null;
        },
      },
    ];
  },
});

const opensOf = ({ options: { opens } }: Unit): (typeof OPEN)[number] => OPEN.find((one) => one === opens) ?? 'right';
/** A box less so much at both its ends along an axis. */
const inset = (box: SolidBox, axis: 'x' | 'y', by: number): SolidBox =>
  axis === 'x' ? { ...box, x0: box.x0 + by, x1: box.x1 - by } : { ...box, y0: box.y0 + by, y1: box.y1 - by };
/** The two boards that stand at the ends of a box along an axis, within it, good side out. */
const sidesOf = (
  box: SolidBox,
  axis: 'x' | 'y',
  thick: number,
): readonly { readonly name: string; readonly at: SolidBox; readonly good: 1 | -1 }[] =>
  axis === 'x'
    ? [
        { name: 'front', at: { ...box, x1: box.x0 + thick }, good: -1 },
        { name: 'rear', at: { ...box, x0: box.x1 - thick }, good: 1 },
      ]
    : [
        { name: 'left', at: { ...box, y1: box.y0 + thick }, good: -1 },
        { name: 'right', at: { ...box, y0: box.y1 - thick }, good: 1 },
      ];

function skeletonOf(unit: Unit, { inner, book }: Surroundings): Skeleton {
  const [board, lip] = ['board', 'lip'].map((role) => materialOf(book, unit.materials[role] ?? ''));
  const { body } = unit;
  if (!board || !lip || body.stands !== 'free') return nothingButProblems([]);
  const t = board.thickness;
  const [z0, z1] = [inner.floor + body.from, inner.floor + body.to];
  const box: SolidBox = { x0: body.x, x1: endOf(unit), y0: body.y, y1: body.y + body.width, z0, z1 };
  const high = numberOption(unit, 'lipHigh');
  const say = (key: 'furniture.low' | 'furniture.narrow') =>
    nothingButProblems([{ place: unit.id, said: message(key, { unit: unit.name }) }]);
  if (body.length < 6 * t || body.width < 6 * t) return say('furniture.narrow');
  if (z1 - z0 < t + high + 20) return say('furniture.low');
  const opens = opensOf(unit);
  // its ends stand beside what is loaded, the lips before and behind it
  const [ends, lips] = opens === 'rear' ? (['y', 'x'] as const) : (['x', 'y'] as const);
  const between = inset(box, ends, t);
  const inside = { x0: between.x0, x1: between.x1, z0: z0 + t, z1 };
  const { bays, dividers, problems } = divide(unit, {
    inside,
    front: inside,
    thickness: t,
    reveal: 0,
    need: () => null,
    deep: () => body.width,
  });
  const floors = [{ name: 'bottom', at: z0 }, ...dividers.map(({ name, at }) => ({ name, at }))];
  const lipsOf = (floor: { name: string; at: number }): Board[] =>
    high < 1
      ? []
      : sidesOf({ ...between, z0: floor.at + t, z1: floor.at + t + high }, lips, lip.thickness).map(
          ({ name, at, good }) =>
            boardIn(at, lips, {
              name: `${floor.name}.lip-${name}`,
              role: 'lip',
              material: lip,
              grain: ends,
              good,
            }),
        );
  const boards: Board[] = [
    ...sidesOf(box, ends, t).map(({ name, at, good }) =>
      boardIn(at, ends, { name: `end-${name}`, role: 'rack-end', material: board, grain: 'z', good }),
    ),
    ...floors.map(({ name, at }) =>
      boardIn({ ...between, z0: at, z1: at + t }, 'z', {
        name,
        role: 'tray',
        material: board,
        grain: ends,
        good: 1,
      }),
    ),
    ...floors.flatMap(lipsOf),
  ];
  const out = SLIDES_SHARE * (lips === 'x' ? body.length : body.width);
  const held = inset(between, lips, lip.thickness);
  const deep = lips === 'x' ? held.x1 - held.x0 : held.y1 - held.y0;
  return {
    boards,
    contacts: contactsOf(boards),
    comesApart: false,
    problems,
    bays: bays.map(({ bay, inside: own }): BayRoom => ({
      bay,
      room: { ...held, z0: own.z0, z1: own.z1 },
      into: opens === 'rear' ? 0 : opens === 'left' ? 1 : -1,
      deepLow: deep,
      deepHigh: deep,
      // over the lip
      through: [ends === 'x' ? between.x1 - between.x0 : between.y1 - between.y0, Math.max(0, own.z1 - own.z0 - high)],
    })),
    motions:
      unit.options['slides'] === true
        ? [
            {
              of: `${unit.id}.slide`,
              name: message('motion.rack', { unit: { unit: unit.id } }),
              kind: 'slide',
              whole: true,
              on: { long: lips === 'x' ? body.length : body.width, load: numberOption(unit, 'load') },
              by: opens === 'rear' ? [out, 0, 0] : [0, opens === 'left' ? -out : out, 0],
              outside: true,
              shut: box,
              latch: unit.options['latch'] === true,
              before: 450,
            },
          ]
        : [],
  };
}

function rackAt(x: number, length: number, y: number, width: number, to: number, { id, name, book }: Start): Unit {
  return withLevels(
    {
      id,
      family: 'rack',
      name,
      body: { stands: 'free', x, length, y, width, from: 0, to },
      meets: { foot: { how: 'square' } },
      division: { name: 'level-1', holds: { kind: 'hold' }, front: { kind: 'none' } },
      school: 'plywood',
      materials: { board: sheetAbout(book, 12), lip: sheetAbout(book, 9) },
      options: { lipHigh: 60, opens: 'right', slides: false, latch: true, load: 0, eyes: 4, eyeHolds: 1000 },
    },
    2,
  );
}

/** A tray or a rack with lips for what is carried: crates, a press, a wheel; it may slide out, and is tied down. */
export const rack: Family = {
  id: 'rack',
  words: {
    name: 'Rack or tray',
    add: 'Rack or tray for a load',
    start: 'Rack',
    noun: 'rack',
    fields: {
      y: 'Left edge from the centre line',
      width: 'Across',
      from: 'Stands at',
      board: 'Boards of',
      lipHigh: 'Lips, high',
      lip: 'Lips of',
      levels: 'Levels',
      opens: 'Loaded from the',
      slides: 'Slides out',
      latch: 'Held on the road',
      load: 'Load, kg',
      eyes: 'Tie points',
      eyeHolds: 'One tie point holds, N',
    },
    roles: { 'rack-end': 'end', tray: 'tray', lip: 'lip' },
  },
  schools: ['plywood'],
  cuts: [],
  fields: [
    bodyField('x', 'x'),
    bodyField('length', 'length'),
    freeField('y', 'y'),
    freeField('width', 'width'),
    fromField,
    bodyField('height', 'to'),
    levelsField,
    optionField('lipHigh', { group: 'made', least: 0, most: 300 }),
    choiceField('opens', OPEN),
    yesNoField('slides', 'place'),
    yesNoField('latch', 'place'),
    countField('load', 0, 1000),
    countField('eyes', 0, 12),
    countField('eyeHolds', 0, 20_000),
    materialField('board'),
    materialField('lip'),
  ],
  faults: faultsBy({
    stands: ['free'],
    materials: ['board', 'lip'],
    options: z.strictObject({
      lipHigh: gapSchema,
      opens: z.enum(OPEN),
      slides: z.boolean(),
      latch: z.boolean(),
      load: z.number().min(0).max(1000),
      eyes: z.int().min(0).max(12),
      eyeHolds: z.number().min(0).max(20_000),
    }),
    cuts: ['up'],
  }),
  start: (start) => rackAt(Math.round(start.room.length - 700), 600, -250, 500, 700, start),
  inGap: (gap, start) => {
    const room = gap.x1 - gap.x0;
    if (gap.zone !== 'floor' || room < 400 || gap.deep < 300 || gap.z1 < 300) return null;
    const width = Math.round(Math.min(gap.deep, 500));
    // against a wall, or in the middle
    const y =
      gap.where === 'middle'
        ? -width / 2
        : gap.where === 'left'
          ? OFF_WALL_MM - gap.wall
          : gap.wall - width - OFF_WALL_MM;
    const high = Math.round(Math.min(gap.z1, 700));
    return {
      unit: rackAt(gap.x0, Math.round(Math.min(room, 600)), Math.round(y), width, high, start),
      fits: 0.45 * Math.min(1, room / 600) * Math.min(1, width / 500),
    };
  },
  skeleton: skeletonOf,
  rules: [tied],
};
