import { z } from 'zod';
import { positionSchema, sizeSchema } from '../../document/schema-base.js';
import type { Unit } from '../../document/unit-schema.js';
import { materialOf } from '../../materials/material.js';
import { boxOf, rectangle, spread, type Ring } from '../../numeric/plane.js';
import { clipTo, cutOut, simplify } from '../../numeric/shapes.js';
import { boardAcross, roomAcross } from '../../parts/along-shell.js';
import type { SolidBox } from '../../rules/room.js';
import { archFace, archSpan } from '../../shell/arch.js';
import { halfWidth, roofHeight, wallTop, type Shell } from '../../shell/shell.js';
import { lintelRule } from '../../rules/people.js';
import { wholeUp } from '../../numeric/tolerance.js';
import { message, mm } from '../../words/message.js';
import { allowanceAt } from '../bed-boards.js';
import { scribedEdges } from '../carcass-boards.js';
import { nothingButProblems } from '../carcass.js';
import {
  bodyField,
  choiceField,
  faultsBy,
  materialField,
  numberOption,
  optionField,
  scribeField,
  sheetAbout,
  type Family,
  type Start,
  type Surroundings,
} from '../family.js';
import { OPENS, type Motion } from '../motions.js';
import { offer } from '../offer.js';
import { appliesTo } from '../scene.js';
import { boardIn } from '../simple-boards.js';
import { boxRound, contactsOf, type Board, type FurnitureProblem } from '../skeleton.js';

const CHORD_MM = 0.05;
const ARCH_CLEARANCE_MM = 10;
const UNDER_ROOF_MM = 4;
/** A piece narrower than this is joined to the next, mm. */
const NARROWEST_MM = 60;
const LARGEST_MM = 100_000;

/** Its door opening across, mm from the centre line; null where it has none. */
function doorOf(unit: Unit): { readonly from: number; readonly to: number; readonly high: number } | null {
  if (unit.options['door'] === 'none') return null;
  const from = numberOption(unit, 'doorAt');
  return { from, to: from + numberOption(unit, 'doorWidth'), high: numberOption(unit, 'doorHeight') };
}

/** The upright strips it is made of: beside the door and over it, none wider than a sheet gives. */
function strips(
  unit: Unit,
  left: number,
  right: number,
  top: number,
): { y0: number; y1: number; z0: number; name: string }[] {
  const door = doorOf(unit);
  const widest = numberOption(unit, 'widest');
  const cut = (from: number, to: number, name: string) => {
    if (to - from < NARROWEST_MM) return [];
    const count = Math.max(1, Math.ceil((to - from) / widest));
    const ys = spread(from, to, count + 1);
    return ys.slice(1).map((y1, i) => ({ y0: ys[i] ?? from, y1, z0: 0, name: `${name}-${i + 1}` }));
  };
  if (!door) return cut(left, right, 'panel');
  const [from, to] = [Math.max(left, door.from), Math.min(right, door.to)];
  return [
    ...cut(left, from, 'left'),
    ...cut(to, right, 'right'),
    ...(top - door.high > NARROWEST_MM && to > from ? [{ y0: from, y1: to, z0: door.high, name: 'over-door' }] : []),
  ];
}

/** A strip that joins two panels that stand edge to edge lies so far over each, and is no shorter than this, mm. */
const STRIP_OVER_MM = 40;
const STRIP_LEAST_MM = 80;
/** Where the strip stands that joins two panels, across and from one height over the floor to another: over both from end to end. */
function stripsBetween(
  panels: ReturnType<typeof strips>,
): { readonly y: number; readonly from: number; readonly between: string }[] {
  const inOrder = [...panels].sort((a, b) => a.y0 - b.y0);
  return inOrder.slice(1).flatMap((panel, i) => {
    const before = inOrder[i];
    return before && Math.abs(before.y1 - panel.y0) < 0.5
      ? [{ y: panel.y0, from: Math.max(before.z0, panel.z0), between: `${before.name}-${panel.name}` }]
      : [];
  });
}

/** How thick it is as it is made: its panels, the strips that join them, and the door that slides behind those, mm. */
function madeThick(unit: Unit, book: Surroundings['book']): number {
  const t = materialOf(book, unit.materials['board'] ?? '')?.thickness ?? 0;
  return t * (unit.options['door'] === 'sliding' ? 3 : 2);
}

function boardsOf(unit: Unit, { inner, arches, book }: Surroundings): Board[] | 'low' {
  const material = materialOf(book, unit.materials['board'] ?? '');
  if (!material) return [];
  const { x } = unit.body;
  const t = material.thickness;
  const roof = Math.min(
    ...spread(-400, 400, 5).map((y) => Math.min(roofHeight(inner, x, y), roofHeight(inner, x + t, y))),
  );
  const [z0, z1] = [inner.floor + unit.body.from, Math.min(inner.floor + unit.body.to, roof - UNDER_ROOF_MM + 200)];
  if (z1 - z0 < NARROWEST_MM) return 'low';
  const reach = (side: 'left' | 'right'): number =>
    Math.max(
      ...spread(z0, z1, 15).map((z) => Math.min(halfWidth(inner, side, x, z), halfWidth(inner, side, x + t, z))),
    );
  const [left, right] = [-reach('left'), reach('right')];
  const bumps = arches.flatMap((arch): Ring[] => {
    const span = archSpan(arch, Math.max(inner.floor, arch.bottom));
    if (!span || span[0] - ARCH_CLEARANCE_MM > x + t || span[1] + ARCH_CLEARANCE_MM < x) return [];
    const sign = arch.side === 'left' ? -1 : 1;
    const [a, b] = [sign * (archFace(arch, inner.floor) - ARCH_CLEARANCE_MM), sign * 5000];
    return [rectangle(Math.min(a, b), inner.floor - 1, Math.max(a, b), arch.height + ARCH_CLEARANCE_MM)];
  });
  const all = strips(unit, left, right, z1 - inner.floor);
  // on the rear face, cut to the roof there as the panels are
  const behind = roomAcross(inner, x + t, t);
  const joining = stripsBetween(all).flatMap(({ y, from, between }): Board[] => {
    const over = rectangle(y - STRIP_OVER_MM, Math.max(z0, inner.floor + from), y + STRIP_OVER_MM, z1);
    const [piece] = behind
      .flatMap((ring) => clipTo({ outer: ring, holes: [] }, over))
      .flatMap((shape) => cutOut(shape, bumps));
    if (!piece) return [];
    const { minY, maxY } = boxOf(piece.outer);
    return maxY - minY < STRIP_LEAST_MM
      ? []
      : [
          {
            name: `strip-${between}`,
            role: 'partition-strip',
            material: material.id,
            normal: 'x',
            at: x + t,
            thickness: t,
            outline: { outer: simplify([...piece.outer], CHORD_MM), holes: piece.holes },
            grain: 'z',
            good: 1,
            edges: [],
            held: 'fixed',
          },
        ];
  });
  const panels = all.flatMap(({ y0, y1, z0: from, name }): Board[] => {
    // those beside a wall go as far as it does
    const [low, high] = [y0 <= left + 0.5 ? -LARGEST_MM : y0, y1 >= right - 0.5 ? LARGEST_MM : y1];
    const made = boardAcross(inner, {
      x,
      thick: t,
      free: rectangle(low, Math.max(z0, inner.floor + from), high, z1),
      cuts: bumps,
      allowance: (side) => allowanceAt(unit, side),
    });
    return made
      ? [
          {
            name,
            role: 'partition',
            material: material.id,
            normal: 'x',
            at: x,
            thickness: t,
            outline: made.outline,
            grain: 'z',
            good: -1,
            edges: scribedEdges(made.edges),
            held: 'fixed',
          },
        ]
      : [];
  });
  return [...panels, ...joining];
}

/** Left of the wall over its door, mm. */
const OVER_DOOR_MM = 60;
/** Whether the tallest gets through its door upright. */
const lintel = appliesTo(lintelRule, {
  ofUnit: (unit, scene) => {
    const door = doorOf(unit);
    const tallest = [...scene.people].sort((a, b) => b.stature - a.stature)[0];
    if (!door || !tallest) return [];
    const input = { high: door.high, stature: tallest.stature, who: tallest.name, name: unit.name };
    return [
      {
        id: `lintel:${unit.id}`,
        input,
        pin: { unit: unit.id, person: tallest.id, x: unit.body.x, y: (door.from + door.to) / 2 },
        quiet: true,
        mend: ({ grade, good }) => {
          const to = Math.floor(Math.min(unit.body.to - OVER_DOOR_MM, wholeUp(good)));
          const then = lintelRule.run({ ...input, high: to }, scene.figures[lintelRule.name]).grade;
          return to > door.high && then !== grade
            ? offer(unit, scene, { doorHeight: to }, message('mend.doorHigh', { name: unit.name, to: mm(to) }))
            : null;
        },
      },
    ];
  },
});

/** Room round a hinged door and under it, and how far a sliding one covers the wall beside its opening, mm. */
const DOOR_GAP_MM = 3;
const UNDER_DOOR_MM = 10;
const SLID_OVER_MM = 20;

/** What of its door would stand in the wall or the roof. A leaf is a rectangle: it has to stand within them as a whole. */
function beyondShell(unit: Unit, inner: Shell): FurnitureProblem[] {
  const door = doorOf(unit);
  if (!door) return [];
  const leaf = unit.options['door'] === 'hinged' || unit.options['door'] === 'sliding';
  const wall = (side: 'left' | 'right'): number => {
    // above the wall's top it is the roof that it meets
    const top = Math.min(inner.floor + door.high, wallTop(inner, side, unit.body.x));
    const reaches = spread(inner.floor, top, 9).map((z) => halfWidth(inner, side, unit.body.x, z));
    return leaf ? Math.min(...reaches) : Math.max(...reaches);
  };
  const out = Math.max(door.to - wall('right'), -door.from - wall('left'));
  const roof = Math.min(...spread(door.from, door.to, 9).map((y) => roofHeight(inner, unit.body.x, y)));
  const up = leaf ? inner.floor + door.high - roof : 0;
  const said = (key: 'furniture.doorWall' | 'furniture.doorRoof', by: number): FurnitureProblem => ({
    place: unit.id,
    said: message(key, { unit: unit.name, by: mm(wholeUp(by)) }),
  });
  if (out > TOLERATED_MM) return [said('furniture.doorWall', out)];
  return up > TOLERATED_MM ? [said('furniture.doorRoof', up)] : [];
}
/** Less than this is cut off a leaf without a word, mm. */
const TOLERATED_MM = 0.5;

/** The leaf of its door: in the opening where it is hinged, behind the strips of the rear face where it slides; none where it is open. */
function leafOf(unit: Unit, { inner, book }: Surroundings): Board[] {
  const door = doorOf(unit);
  const kind = unit.options['door'];
  const material = materialOf(book, unit.materials['board'] ?? '');
  if (!door || !material || (kind !== 'hinged' && kind !== 'sliding')) return [];
  const over = kind === 'hinged' ? -DOOR_GAP_MM : SLID_OVER_MM;
  const x0 = unit.body.x + (kind === 'hinged' ? 0 : 2 * material.thickness);
  const box = {
    x0,
    x1: x0 + material.thickness,
    y0: door.from - over,
    y1: door.to + over,
    z0: inner.floor + UNDER_DOOR_MM,
    z1: inner.floor + door.high + over,
  };
  if (box.y1 - box.y0 < NARROWEST_MM || box.z1 - box.z0 < NARROWEST_MM) return [];
  return [
    boardIn(box, 'x', {
      name: 'door',
      role: 'partition-door',
      material,
      grain: 'z',
      good: -1,
      held: kind === 'hinged' ? 'hung' : 'loose',
      moves: 'door',
    }),
  ];
}

/** How its door moves: hinged at its left edge, or slid before the board beside it, to the side that has more room. */
function motionsOf(unit: Unit, leaf: Board | undefined, inner: Shell): Motion[] {
  const door = doorOf(unit);
  const kind = unit.options['door'];
  if (!door || (kind !== 'hinged' && kind !== 'sliding')) return [];
  const { x, length } = unit.body;
  const opening: SolidBox = {
    x0: x,
    x1: x + length,
    y0: door.from,
    y1: door.to,
    z0: inner.floor,
    z1: inner.floor + door.high,
  };
  // while there is no leaf its opening is what is known of it
  const made = leaf ? boxRound([leaf]) : null;
  const shut: SolidBox = made ? { ...opening, x0: made.x0, x1: made.x1 } : opening;
  const plain = {
    of: `${unit.id}.door`,
    name: message('motion.partition', { unit: { unit: unit.id } }),
    shut,
    latch: true,
    before: 0,
  };
  return kind === 'hinged'
    ? [
        {
          ...plain,
          kind: 'hinge',
          about: 'z',
          at: [shut.x1, door.from],
          range: [90, 90 - OPENS],
          reach: door.to - door.from,
        },
      ]
    : // before the board, to the side where the wall is farther off, until it is clear of its opening
      [
        {
          ...plain,
          ...(made ? { shut: made } : {}),
          kind: 'slide',
          by: [0, (door.to + door.from > 0 ? -1 : 1) * (door.to - door.from + SLID_OVER_MM), 0],
        },
      ];
}

/** Where less than this stands before the walls, it is free from one to the other, mm. */
const BESIDE_MM = 50;
/** In a stretch that is no longer than this nobody passes from one side of it to the other, mm. */
const PASSES_MM = 600;
/** How wide its door is made, and at least, mm. */
const DOOR_MM = 600;
const LEAST_DOOR_MM = 500;
/** How high it is made, or as high as who walks through it, mm. */
const DOOR_HIGH_MM = 1800;

/** One as it is usually made, whose front face is at a place along. */
function partitionAt(x: number, { id, name, room, book, people }: Start): Unit {
  const tallest = Math.max(0, ...people.map(({ stature }) => stature));
  const to = Math.floor(roofHeight(room, x, 0) - room.floor) - UNDER_ROOF_MM;
  const sheet = sheetAbout(book, 12);
  return {
    id,
    family: 'partition',
    name,
    body: {
      stands: 'across',
      x,
      length: 2 * (materialOf(book, sheet)?.thickness ?? 12),
      from: 0,
      to: Math.max(100, to),
    },
    meets: { left: { how: 'scribed', allowance: 20 }, right: { how: 'scribed', allowance: 20 } },
    division: { name: 'wall', holds: { kind: 'open' }, front: { kind: 'none' } },
    school: 'plywood',
    materials: { board: sheet },
    options: {
      door: 'open',
      doorAt: -DOOR_MM / 2,
      doorWidth: DOOR_MM,
      doorHeight: Math.min(Math.max(DOOR_HIGH_MM, tallest + 30), Math.max(200, to - OVER_DOOR_MM)),
      widest: 1180,
    },
  };
}

/** A wall across the vehicle from floor to roof, cut to the section there, with or without a door. */
export const partition: Family = {
  id: 'partition',
  words: {
    name: 'Partition',
    add: 'Partition across',
    start: 'Partition',
    noun: 'partition',
    fields: {
      length: 'Room it takes along',
      board: 'Board',
      door: 'Door',
      doorAt: 'Door from the centre line',
      doorWidth: 'Door wide',
      doorHeight: 'Door high',
      widest: 'Widest board',
    },
    roles: { partition: 'panel', 'partition-door': 'door', 'partition-strip': 'joining strip' },
  },
  schools: ['plywood'],
  cuts: [],
  fields: [
    bodyField('x', 'x'),
    bodyField('length', 'length'),
    bodyField('height', 'to'),
    choiceField('door', ['none', 'open', 'hinged', 'sliding', 'curtain']),
    {
      ...optionField('doorAt', { group: 'place', least: -3000, most: 3000 }),
      when: (unit) => unit.options['door'] !== 'none',
    },
    {
      ...optionField('doorWidth', { group: 'place', least: 100, most: 3000 }),
      when: (unit) => unit.options['door'] !== 'none',
    },
    {
      ...optionField('doorHeight', { group: 'place', least: 100, most: 3000 }),
      when: (unit) => unit.options['door'] !== 'none',
    },
    materialField('board'),
    optionField('widest', { group: 'made', least: 200, most: 5000 }),
    scribeField(['left', 'right']),
  ],
  faults: faultsBy({
    stands: ['across'],
    materials: ['board'],
    options: z.strictObject({
      door: z.enum(['none', 'open', 'hinged', 'sliding', 'curtain']),
      doorAt: positionSchema,
      doorWidth: sizeSchema,
      doorHeight: sizeSchema,
      widest: z.number().min(200).max(5000),
    }),
    cuts: [],
  }),
  start: (start) => partitionAt(Math.round(start.room.length / 2), start),
  inGap: (gap, start) => {
    const { through } = gap;
    if (gap.where !== 'middle' || gap.zone !== 'floor' || gap.x1 - gap.x0 < PASSES_MM) return null;
    if (!through || through.to - through.from < LEAST_DOOR_MM || gap.deep < 2 * gap.wall - BESIDE_MM) return null;
    // its door where one gets through before and behind it
    const unit = partitionAt(gap.x0, start);
    const width = Math.floor(Math.min(DOOR_MM, through.to - through.from));
    const doorAt = Math.round(Math.min(Math.max(-width / 2, through.from), through.to - width));
    return { unit: { ...unit, options: { ...unit.options, doorAt, doorWidth: width } }, fits: 0.1 };
  },
  skeleton: (unit, room) => {
    const boards = boardsOf(unit, room);
    if (typeof boards === 'string' || boards.length === 0)
      return nothingButProblems([{ place: unit.id, said: message('furniture.low', { unit: unit.name }) }]);
    const leaf = leafOf(unit, room);
    const all = [...boards, ...leaf];
    return {
      boards: all,
      contacts: contactsOf(all),
      comesApart: true,
      problems: beyondShell(unit, room.inner),
      motions: motionsOf(unit, leaf[0], room.inner),
    };
  },
  solids: (unit, { inner, book }) => {
    const { x, from, to } = unit.body;
    // what is made of it takes its place, however little is left for it
    const length = Math.max(unit.body.length, madeThick(unit, book));
    const door = doorOf(unit);
    const wide = (side: 'left' | 'right'): number =>
      Math.max(
        ...spread(inner.floor + from, inner.floor + Math.min(to, 1200), 5).map((z) => halfWidth(inner, side, x, z)),
      );
    const box: SolidBox = {
      x0: x,
      x1: x + length,
      y0: -wide('left'),
      y1: wide('right'),
      z0: inner.floor + from,
      z1: inner.floor + to,
    };
    if (!door) return [box];
    return [
      { ...box, y1: door.from },
      { ...box, y0: door.to },
      ...(to > door.high ? [{ ...box, y0: door.from, y1: door.to, z0: inner.floor + door.high }] : []),
    ].filter(({ y0, y1 }) => y1 > y0);
  },
  rules: [lintel],
};
