import { z } from 'zod';
import { endOf, frontLineOf } from '../../document/body.js';
import { gapSchema, idSchema } from '../../document/schema-base.js';
import { CUTS, type Unit } from '../../document/unit-schema.js';
import { materialOf } from '../../materials/material.js';
import { spread, type Point } from '../../numeric/plane.js';
import type { SolidBox } from '../../rules/room.js';
import { halfWidth, type Shell } from '../../shell/shell.js';
import { message } from '../../words/message.js';
import { archIn, CARCASS_ROLES, notchedBy, overArchField } from '../against-wall.js';
import { beforeCarcass } from '../carcass-boards.js';
import { carcassSkeleton, nothingButProblems } from '../carcass.js';
import {
  bodyField,
  choiceField,
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
import type { Motion } from '../motions.js';
import { boardIn, outward } from '../simple-boards.js';
import { contactsOf, type BayRoom, type Board } from '../skeleton.js';
import { seatHeight } from './seat.js';

const CUSHION_MM = 80;
const BACKREST_MM = 80;
const WINGS = ['front', 'rear', 'both'] as const;
type End = 'front' | 'rear';
/** A wing that comes out of the bench by less is none, mm. */
const LEAST_WING_MM = 200;
const LID_GAP_MM = 3;
/** As it is usually begun: along the wall, from the wall to its front, and a wing, mm. */
const LONG_MM = 1600;
const DEEP_MM = 530;
const WING_MM = 450;
/** A wing is so wide along, backrest and all, mm. */
const WING_WIDE_MM = 520;

/** Whether it is as long as its wings are wide. */
const holdsWings = (unit: Unit): boolean => endsOf(unit).length * numberOption(unit, 'wingWide') <= unit.body.length;
const endsOf = ({ options }: Unit): readonly End[] => {
  const { wings } = options;
  return wings === 'both' ? ['front', 'rear'] : wings === 'rear' ? ['rear'] : ['front'];
};
/** Where a wing's box stands: at one end, from the bench's front out into the room, mm. */
function wingBox(unit: Unit, end: End, inner: Shell): SolidBox | null {
  const line = frontLineOf(unit);
  if (!line) return null;
  const wide = numberOption(unit, 'wingWide');
  const out = numberOption(unit, 'wingOut');
  const far = line.front - out;
  return {
    x0: end === 'front' ? unit.body.x : endOf(unit) - wide,
    x1: end === 'front' ? unit.body.x + wide : endOf(unit),
    // past the centre line it goes on to the other side
    ...(far >= 0 ? outward(line.sign, far, line.front) : ordered(line.sign * far, line.sign * line.front)),
    z0: inner.floor,
    z1: inner.floor + unit.body.to,
  };
}
const ordered = (a: number, b: number): { readonly y0: number; readonly y1: number } => ({
  y0: Math.min(a, b),
  y1: Math.max(a, b),
});

/** A rail under a lid is so high, mm. */
const RAIL_HIGH_MM = 60;
/**
 * A wing as a box of its own: its back put to the face of the bench in the plane of its fronts, where it is screwed to the
 * rail, the bottom and the end behind it; two sides, an end, a bottom, a rail under its lid, and a lid that lifts off.
 */
function wingBoards(
  unit: Unit,
  end: End,
  box: SolidBox,
  { sign, front }: { readonly sign: 1 | -1; readonly front: number },
  { book }: Surroundings,
): { readonly boards: Board[]; readonly motion: Motion; readonly bay: BayRoom } | null {
  const [board, facing, top] = ['carcass', 'facing', 'top'].map((role) => materialOf(book, unit.materials[role] ?? ''));
  if (!board || !facing || !top) return null;
  const t = board.thickness;
  const name = `wing-${end}`;
  const z1 = box.z1 - top.thickness;
  // its end looks into the room, away from the wall
  const [e0, e1] = sign < 0 ? [box.y1 - facing.thickness, box.y1] : [box.y0, box.y0 + facing.thickness];
  // the face of the bench behind its fronts: there its back is
  const face = sign * (front + beforeCarcass(unit, facing));
  const [b0, b1] = sign < 0 ? [face, face + facing.thickness] : [face - facing.thickness, face];
  const [s0, s1] = sign < 0 ? [b1, e0] : [e1, b0];
  // the lid ends where those of the bench begin: a rail between the sides bears it there
  const [r0, r1] = sign < 0 ? [box.y0, box.y0 + t] : [box.y1 - t, box.y1];
  const side = (which: End): Board =>
    boardIn(
      {
        ...box,
        x0: which === 'front' ? box.x0 : box.x1 - t,
        x1: which === 'front' ? box.x0 + t : box.x1,
        y0: s0,
        y1: s1,
        z1,
      },
      'x',
      { name: `${name}.side-${which}`, role: 'side', material: board, grain: 'y', good: which === 'front' ? -1 : 1 },
    );
  const inside = { x0: box.x0 + t, x1: box.x1 - t, y0: s0, y1: s1, z0: box.z0 + t, z1 };
  const lid: SolidBox = { ...box, z0: z1, x0: box.x0 + LID_GAP_MM, x1: box.x1 - LID_GAP_MM };
  return {
    boards: [
      side('front'),
      side('rear'),
      boardIn({ ...box, y0: e0, y1: e1, z1 }, 'y', {
        name: `${name}.end`,
        role: 'panel-front',
        material: facing,
        grain: 'x',
        good: sign < 0 ? 1 : -1,
      }),
      boardIn({ ...box, y0: b0, y1: b1, z1 }, 'y', {
        name: `${name}.back`,
        role: 'back',
        material: facing,
        grain: 'x',
        good: sign < 0 ? 1 : -1,
      }),
      boardIn({ ...box, x0: box.x0 + t, x1: box.x1 - t, y0: r0, y1: r1, z0: z1 - RAIL_HIGH_MM, z1 }, 'y', {
        name: `${name}.rail`,
        role: 'rail',
        material: board,
        grain: 'x',
        good: sign < 0 ? 1 : -1,
      }),
      boardIn({ ...inside, z0: box.z0, z1: box.z0 + t }, 'z', {
        name: `${name}.bottom`,
        role: 'bottom',
        material: board,
        grain: 'x',
        good: 1,
      }),
      boardIn(lid, 'z', {
        name: `${name}.lid`,
        role: 'lid',
        material: top,
        grain: 'y',
        good: 1,
        held: 'loose',
        moves: `${name}.lid`,
      }),
    ],
    motion: {
      of: `${unit.id}.${name}.lid`,
      name: message('motion.wingLid', { unit: { unit: unit.id } }),
      kind: 'lift-off',
      to: null,
      part: true,
      shut: lid,
      latch: unit.options['latch'] === true,
      before: 0,
    },
    bay: {
      bay: { name, holds: { kind: 'hold' }, front: { kind: 'none' } },
      room: sign < 0 ? { ...inside, y0: Math.max(s0, r1) } : { ...inside, y1: Math.min(s1, r0) },
      into: 0,
      deepLow: z1 - inside.z0,
      deepHigh: z1 - inside.z0,
    },
  };
}

function seatAt(x: number, length: number, side: 'left' | 'right', front: number, start: Start): Unit {
  return {
    id: start.id,
    family: 'corner-seat',
    name: start.name,
    body: { stands: side, x, length, front, from: 0, to: seatHeight(start.people, CUSHION_MM) },
    meets: { back: { how: 'scribed', allowance: 20 }, foot: { how: 'square' } },
    division: { name: 'bay-1', holds: { kind: 'hold' }, front: { kind: 'panel' } },
    school: 'plywood',
    materials: {
      carcass: sheetAbout(start.book, 12),
      facing: sheetAbout(start.book, 12),
      top: sheetAbout(start.book, 15),
    },
    options: {
      wings: 'rear',
      wingOut: WING_MM,
      wingWide: WING_WIDE_MM,
      cushion: CUSHION_MM,
      backrest: BACKREST_MM,
      sitters: [],
      latch: true,
    },
  };
}

/** A bench with a wing at one end or at both, out into the room: an L or a U to sit round a table in. */
export const cornerSeat: Family = {
  id: 'corner-seat',
  words: {
    name: 'Seat round a corner',
    add: 'Seat round a corner (L or U)',
    start: 'Corner seat',
    noun: 'corner-seat',
    fields: {
      latch: 'Lids held on the road',
      top: 'Lids of',
      facing: 'Front of',
      height: 'Boards',
      wings: 'Wings',
      wingOut: 'Wing comes out',
      wingWide: 'Wing along',
    },
    roles: CARCASS_ROLES,
  },
  schools: ['plywood'],
  cuts: CUTS,
  fields: [
    bodyField('x', 'x'),
    bodyField('length', 'length'),
    bodyField('height', 'to'),
    bodyField('front', 'front'),
    sideField,
    choiceField('wings', WINGS),
    optionField('wingOut', { group: 'place', least: LEAST_WING_MM, most: 2000 }),
    optionField('wingWide', { group: 'place', least: LEAST_WING_MM, most: 1200 }),
    optionField('cushion', { group: 'place', least: 0, most: 300 }),
    optionField('backrest', { group: 'place', least: 0, most: 300 }),
    peopleField('sitters'),
    materialField('carcass'),
    materialField('facing'),
    materialField('top'),
    yesNoField('latch', 'place'),
    overArchField,
    scribeField(['back']),
  ],
  faults: faultsBy({
    stands: ['left', 'right'],
    materials: ['carcass', 'facing', 'top'],
    options: z.strictObject({
      wings: z.enum(WINGS),
      wingOut: gapSchema,
      wingWide: gapSchema,
      cushion: gapSchema,
      backrest: gapSchema,
      sitters: z.array(idSchema).max(8),
      latch: z.boolean().optional(),
      overArch: z.boolean().optional(),
    }),
    cuts: CUTS,
  }),
  start: (start) => {
    const { side, x } = freePlace(start, LONG_MM, ['right', 'left']);
    const wall = Math.min(...[x, x + LONG_MM].map((at) => halfWidth(start.room, side, at, start.room.floor + 430)));
    return seatAt(x, LONG_MM, side, Math.max(0, Math.round(wall - DEEP_MM)), start);
  },
  inGap: (gap, start) => {
    const room = gap.x1 - gap.x0;
    if (gap.zone !== 'floor' || gap.where === 'middle' || room < 1200 || gap.deep < DEEP_MM + LEAST_WING_MM)
      return null;
    const unit = seatAt(gap.x0, Math.round(Math.min(room, LONG_MM)), gap.where, Math.round(gap.wall - DEEP_MM), start);
    // the wing comes out only as far as the way stays free
    const wingOut = Math.min(WING_MM, Math.floor(gap.deep - DEEP_MM));
    return {
      unit: { ...unit, options: { ...unit.options, wingOut } },
      fits: 0.7 * Math.min(1, room / LONG_MM) * Math.min(1, wingOut / WING_MM),
    };
  },
  makes: holdsWings,
  skeleton: (unit, room) => {
    const line = frontLineOf(unit);
    const [board, top, facing] = ['carcass', 'top', 'facing'].map((role) =>
      materialOf(room.book, unit.materials[role] ?? ''),
    );
    if (!line || !board || !top || !facing) return nothingButProblems([]);
    const { floor } = room.inner;
    const ends = endsOf(unit);
    if (!holdsWings(unit) || unit.body.to <= top.thickness + board.thickness + 30)
      return nothingButProblems([
        {
          place: unit.id,
          said: message(holdsWings(unit) ? 'furniture.low' : 'furniture.wings', {
            unit: unit.name,
          }),
        },
      ]);
    const boxes = ends.flatMap((end) => {
      const box = wingBox(unit, end, room.inner);
      return box ? [{ end, box }] : [];
    });
    const bench = carcassSkeleton({
      unit,
      room,
      side: line.side,
      sign: line.sign,
      front: line.front,
      foot: floor,
      bottom: floor,
      carcassTop: floor + unit.body.to - top.thickness,
      board,
      facing,
      top: { material: top, overhang: 0, lids: true },
      head: 'rails',
      seenBelow: false,
      notched: notchedBy(unit, room),
      covered: boxes.map(({ box }) => ({ from: box.x0, to: box.x1 })),
    });
    if (bench.boards.length === 0) return bench;
    const wings = boxes.flatMap(({ end, box }) => wingBoards(unit, end, box, line, room) ?? []);
    const boards = [...bench.boards, ...wings.flatMap((wing) => wing.boards)];
    return {
      ...bench,
      boards,
      contacts: contactsOf(boards),
      motions: [...(bench.motions ?? []), ...wings.map(({ motion }) => motion)],
      bays: [...(bench.bays ?? []), ...wings.map(({ bay }) => bay)],
    };
  },
  solids: (unit, room) => {
    const line = frontLineOf(unit);
    if (!line) return [];
    const { inner } = room;
    const wall = Math.max(
      ...spread(unit.body.x, endOf(unit), 5).map((x) => halfWidth(inner, line.side, x, inner.floor + unit.body.to)),
    );
    return [
      {
        x0: unit.body.x,
        x1: endOf(unit),
        ...outward(line.sign, line.front, wall),
        z0: inner.floor,
        z1: inner.floor + unit.body.to,
      },
      ...endsOf(unit).flatMap((end) => wingBox(unit, end, inner) ?? []),
    ];
  },
  above: (unit, body) => {
    const line = frontLineOf(unit);
    if (!line) return body;
    const wide = numberOption(unit, 'wingWide');
    const [near, out] = [line.sign * line.front, line.sign * (line.front - numberOption(unit, 'wingOut'))];
    const [x, end] = [unit.body.x, endOf(unit)];
    const ends = endsOf(unit);
    // the body begins at the front end of its front line and ends at the rear one
    const rear: Point[] = ends.includes('rear')
      ? [
          [end, out],
          [end - wide, out],
          [end - wide, near],
        ]
      : [[end, near]];
    const front: Point[] = ends.includes('front')
      ? [
          [x + wide, near],
          [x + wide, out],
          [x, out],
        ]
      : [[x, near]];
    return [...body.slice(1, -1), ...rear, ...front];
  },
  sits: (unit, { inner }) => {
    const line = frontLineOf(unit);
    if (!line) return [];
    const { sitters } = unit.options;
    const people = Array.isArray(sitters) ? sitters : [];
    const ends = endsOf(unit);
    const wide = numberOption(unit, 'wingWide');
    const out = numberOption(unit, 'wingOut');
    const backrest = numberOption(unit, 'backrest');
    const cushion = numberOption(unit, 'cushion');
    const from = unit.body.x + (ends.includes('front') ? wide : 0);
    const to = endOf(unit) - (ends.includes('rear') ? wide : 0);
    const z = inner.floor + unit.body.to;
    const wall = Math.min(...spread(unit.body.x, endOf(unit), 7).map((x) => halfWidth(inner, line.side, x, z)));
    // one on each wing where they are named, the rest on the bench
    const onWings = people.slice(0, people.length > 1 ? ends.length : 0);
    return [
      {
        top: unit.body.to,
        cushion,
        deep: wall - line.front - backrest,
        wide: Math.max(0, to - from),
        at: [(from + to) / 2, line.sign * line.front],
        looks: [0, -line.sign],
        sitters: people.slice(onWings.length),
      },
      ...ends.map((end, i) => ({
        top: unit.body.to,
        cushion,
        // one leans against the end, or a board that stands on it
        deep: wide - backrest,
        wide: out + (wall - line.front),
        at: [
          end === 'front' ? unit.body.x + wide : endOf(unit) - wide,
          line.sign * ((wall + line.front - out) / 2),
        ] as const,
        looks: [end === 'front' ? 1 : -1, 0] as const,
        sitters: onWings.slice(i, i + 1),
        part: `wing-${end}`,
        deepBy: { field: 'wingWide', now: wide },
      })),
    ];
  },
  rules: [archIn],
};
