import { z } from 'zod';
import { endOf } from '../../document/body.js';
import { gapSchema } from '../../document/schema-base.js';
import type { Unit } from '../../document/unit-schema.js';
import { materialOf } from '../../materials/material.js';
import { CUSHION_GIVES } from '../../rules/people.js';
import type { SolidBox } from '../../rules/room.js';
import type { Shell } from '../../shell/shell.js';
import { message } from '../../words/message.js';
import { nothingButProblems } from '../carcass.js';
import {
  bodyField,
  choiceField,
  faultsBy,
  freeField,
  materialField,
  numberOption,
  optionField,
  sheetAbout,
  yesNoField,
  type Family,
  type Gap,
  type Surroundings,
} from '../family.js';
import type { Motion } from '../motions.js';
import { boardIn } from '../simple-boards.js';
import { contactsOf, type Board } from '../skeleton.js';

/** A pedestal of two boards in a cross, so wide, mm. */
const PEDESTAL_MM = 300;
/** Two legs of boards stand so far in from the ends, mm: nearer to them where knees want the room between. */
const LEG_IN_MM = { most: 80, least: 20 };
/** Knees between two legs have so much room, and are tight in so much, mm. */
const KNEES_MM = { good: 600, tight: 550 };
const legIn = (length: number, thick: number): number =>
  Math.min(LEG_IN_MM.most, Math.max(LEG_IN_MM.least, (length - KNEES_MM.good) / 2 - thick));

const freeBody = (unit: Unit): { x: number; length: number; y: number; width: number; to: number } | null =>
  unit.body.stands === 'free' ? unit.body : null;

function boxOf(unit: Unit, inner: Shell): SolidBox | null {
  const body = freeBody(unit);
  return (
    body && {
      x0: body.x,
      x1: endOf(unit),
      y0: body.y,
      y1: body.y + body.width,
      z0: inner.floor + unit.body.from,
      z1: inner.floor + body.to,
    }
  );
}

function legsOf(unit: Unit, inner: Shell, thick: number): SolidBox[] {
  const box = boxOf(unit, inner);
  if (!box) return [];
  const [cx, cy] = [(box.x0 + box.x1) / 2, (box.y0 + box.y1) / 2];
  const z1 = box.z1 - thick;
  const half = Math.min(PEDESTAL_MM, box.x1 - box.x0, box.y1 - box.y0) / 2;
  const across = (x: number): SolidBox => ({
    ...box,
    x0: x,
    x1: x + thick,
    y0: cy - half,
    y1: cy + half,
    z0: inner.floor,
    z1,
  });
  if (unit.options['stand'] === 'pedestal')
    return [
      across(cx - thick / 2),
      { ...box, x0: cx + thick / 2, x1: cx + half, y0: cy - thick / 2, y1: cy + thick / 2, z0: inner.floor, z1 },
      { ...box, x0: cx - half, x1: cx - thick / 2, y0: cy - thick / 2, y1: cy + thick / 2, z0: inner.floor, z1 },
    ];
  if (unit.options['stand'] === 'legs') {
    const inward = legIn(box.x1 - box.x0, thick);
    return [across(box.x0 + inward), across(box.x1 - inward - thick)];
  }
  return [];
}

/** Thickness of its top, mm; of a material that is not known, as one usually is. */
const thickOf = (unit: Unit, { book }: Surroundings): number =>
  materialOf(book, unit.materials['board'] ?? '')?.thickness ?? USUAL_MM;
const USUAL_MM = 18;

/** How long a table is, how wide at most and at least, and what is left to get past it, mm. */
const LONG_MM = 800;
const WIDE_MM = 700;
/** At least so wide, and where there is little room. */
const NARROW_MM = { good: 450, tight: 350 };
/** So much is left beside a narrow one, and where there is little room. */
const SQUEEZED_MM = { good: 550, tight: 450 };
const PAST_MM = 620;
/** How high it is over a seat with somebody on it, and where there is none, mm. */
const OVER_SEAT_MM = 280;
const USUAL_HIGH_MM = 700;
const HIGHEST_MM = 760;
/** What is so high can be sat on, mm. */
const SAT_ON_MM = [250, 560] as const;

const isSatOn = ({ stands, from, to }: Unit['body']): boolean =>
  (stands === 'left' || stands === 'right') && from === 0 && to >= SAT_ON_MM[0] && to <= SAT_ON_MM[1];
/** How much of a stretch a body stands along, mm. */
const sharedBy = ({ x, length }: Unit['body'], { x0, x1 }: Gap): number => Math.min(x + length, x1) - Math.max(x, x0);

/** A table that stands free: on a pedestal, on legs, or on ledges of the seats beside it, where it makes a bed of them. */
export const table: Family = {
  id: 'table',
  words: {
    name: 'Table',
    add: 'Table',
    start: 'Table',
    noun: 'table',
    fields: {
      board: 'Top of',
      y: 'Left edge from the centre line',
      width: 'Across',
      stand: 'Stands on',
      low: 'Lowered to',
      loose: 'Can be taken away',
      latch: 'Held on the road',
    },
    roles: { 'table-top': 'top', 'table-leg': 'leg' },
  },
  schools: ['plywood'],
  cuts: [],
  fields: [
    bodyField('x', 'x'),
    bodyField('length', 'length'),
    freeField('y', 'y'),
    freeField('width', 'width'),
    bodyField('height', 'to'),
    choiceField('stand', ['pedestal', 'legs', 'ledges']),
    optionField('low', { group: 'place', least: 0, most: 1000 }),
    yesNoField('loose', 'place'),
    yesNoField('latch', 'place'),
    materialField('board'),
  ],
  faults: faultsBy({
    stands: ['free'],
    materials: ['board'],
    options: z.strictObject({
      stand: z.enum(['pedestal', 'legs', 'ledges']),
      low: gapSchema,
      loose: z.boolean(),
      latch: z.boolean(),
    }),
    cuts: [],
  }),
  start: ({ id, name, room, book }) => ({
    id,
    family: 'table',
    name,
    body: {
      stands: 'free',
      x: Math.round(room.length / 2) - 300,
      length: 600,
      y: -225,
      width: 450,
      from: 0,
      to: USUAL_HIGH_MM,
    },
    meets: {},
    division: { name: 'under', holds: { kind: 'open' }, front: { kind: 'none' } },
    school: 'plywood',
    materials: { board: sheetAbout(book, 18) },
    options: { stand: 'pedestal', low: 0, loose: true, latch: true },
  }),
  inGap: (gap, { id, name, layout, book }) => {
    const room = gap.x1 - gap.x0;
    const { walked = gap.deep } = gap;
    if (gap.where !== 'middle' || room < 600 || walked < NARROW_MM.tight + SQUEEZED_MM.tight) return null;
    // along one side of what is free, so that one gets past it; as wide as that lets it be
    const narrow = Math.min(NARROW_MM.good, Math.max(NARROW_MM.tight, walked - SQUEEZED_MM.good));
    const width = Math.floor(Math.min(Math.max(walked - PAST_MM, narrow), WIDE_MM));
    const length = Math.round(Math.min(room, LONG_MM));
    // before a seat, where one stands at a side of it
    const beside = (side: 'left' | 'right', from: number, to: number): Unit[] =>
      layout.units.filter(({ body }) => body.stands === side && body.x < to && body.x + body.length > from);
    const seat = layout.units
      .filter(({ body }) => isSatOn(body) && sharedBy(body, gap) > 0)
      .sort((a, b) => sharedBy(b.body, gap) - sharedBy(a.body, gap))[0];
    const middle = seat ? seat.body.x + seat.body.length / 2 : gap.x0 + length / 2;
    const x = Math.round(Math.min(Math.max(middle - length / 2, gap.x0), gap.x1 - length));
    // else where nothing is opened behind it
    const taken = (['left', 'right'] as const).map((side) => beside(side, x, x + length).length > 0);
    const soft = seat?.options['cushion'] ?? seat?.options['mattress'];
    const cushion = typeof soft === 'number' ? soft : 0;
    const sheet = sheetAbout(book, 18);
    const legs = length - 2 * (LEG_IN_MM.least + (materialOf(book, sheet)?.thickness ?? USUAL_MM)) >= KNEES_MM.tight;
    // a pedestal is straddled by nobody
    if (seat && !legs) return null;
    const high = seat
      ? Math.min(HIGHEST_MM, Math.round(seat.body.to + (1 - CUSHION_GIVES) * cushion + OVER_SEAT_MM))
      : USUAL_HIGH_MM;
    const side = (seat ? seat.body.stands === 'right' : taken[0] === true && taken[1] === false) ? 1 : -1;
    const y = Math.round(side < 0 ? -gap.deep / 2 : gap.deep / 2 - width);
    return {
      unit: {
        id,
        family: 'table',
        name,
        body: { stands: 'free', x, length, y, width, from: 0, to: high },
        meets: {},
        division: { name: 'under', holds: { kind: 'open' }, front: { kind: 'none' } },
        school: 'plywood',
        materials: { board: sheet },
        // knees go between two legs
        options: { stand: legs ? 'legs' : 'pedestal', low: 0, loose: true, latch: true },
      },
      // at a seat it is of use
      fits: seat ? 0.9 * Math.min(1, sharedBy(seat.body, gap) / length) : 0.5,
    };
  },
  skeleton: (unit, { inner, book }) => {
    const board = materialOf(book, unit.materials['board'] ?? '');
    const box = boxOf(unit, inner);
    if (!board || !box) return nothingButProblems([], true);
    const t = board.thickness;
    if (box.z1 - t <= inner.floor)
      return nothingButProblems([{ place: unit.id, said: message('furniture.low', { unit: unit.name }) }], true);
    const boards: Board[] = [
      boardIn({ ...box, z0: box.z1 - t }, 'z', {
        name: 'top',
        role: 'table-top',
        material: board,
        grain: box.x1 - box.x0 >= box.y1 - box.y0 ? 'x' : 'y',
        good: 1,
        moves: 'top',
      }),
      ...legsOf(unit, inner, t).map((leg, i) =>
        boardIn(leg, leg.x1 - leg.x0 <= t + 0.01 ? 'x' : 'y', {
          name: `leg-${i + 1}`,
          role: 'table-leg',
          material: board,
          grain: 'z',
          good: 1,
          moves: 'top',
        }),
      ),
    ];
    const low = numberOption(unit, 'low');
    const shut: SolidBox = { ...box, z0: box.z1 - t };
    const plain = { shut, latch: unit.options['latch'] === true, before: 0 };
    const motions: Motion[] = [
      ...(low > 0 && low < unit.body.to
        ? [
            {
              ...plain,
              of: `${unit.id}.low`,
              name: message('motion.lower', { unit: { unit: unit.id } }),
              kind: 'slide' as const,
              whole: true as const,
              // it comes down on what is lower, without what carries it by day
              off: boards.filter(({ role }) => role === 'table-leg').map((leg) => leg.name),
              by: [0, 0, low - unit.body.to] as const,
            },
          ]
        : []),
      ...(unit.options['loose'] === true
        ? [
            {
              ...plain,
              of: `${unit.id}.away`,
              name: message('motion.away', { unit: { unit: unit.id } }),
              kind: 'lift-off' as const,
              to: null,
              part: false,
            },
          ]
        : []),
    ];
    return { boards, contacts: contactsOf(boards), comesApart: true, problems: [], motions };
  },
  table: (unit, room) => {
    const box = boxOf(unit, room.inner);
    const t = thickOf(unit, room);
    return box && { box: { ...box, z0: box.z1 - t }, legs: legsOf(unit, room.inner, t) };
  },
  solids: (unit, room) => {
    const box = boxOf(unit, room.inner);
    const t = thickOf(unit, room);
    return box ? [{ ...box, z0: box.z1 - t }, ...legsOf(unit, room.inner, t)] : [];
  },
  rules: [],
};
