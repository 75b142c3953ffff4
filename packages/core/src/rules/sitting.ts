import { z } from 'zod';
import { message, mm, type Message } from '../words/message.js';
import { atLeast, atMost, defineRule, figure, graded, type Grade, type Verdict, worstOf } from './rule.js';
import { CUSHION_GIVES } from './people.js';

const length = z.number().min(-100_000).max(100_000).meta({ unit: 'mm' });
const who = z.string().default('');
const name = z.string().default('seat');

/** A figure that is to lie between two bounds: verdict by how far it is from the middle. */
const within = (
  figure: number,
  middle: number,
  good: number,
  tight: number,
  said: Parameters<typeof atMost>[3],
): ReturnType<typeof atMost> => atMost(Math.abs(figure - middle), good, tight, said);

export const seatHeightRule = defineRule({
  name: 'seat-height',
  title: 'Seat height',
  formula:
    'height = boards + 0.75 x cushion; good: back of knee +- 30; tight: +- 60; a foot that does not reach the floor is worse than knees that are high',
  reason: 'Feet rest on the floor and the edge does not press under the thigh.',
  input: z.strictObject({ boards: length, cushion: length, backOfKnee: length, who, name }),
  run: ({ boards, cushion, backOfKnee, who: person, name: seat }) => {
    const height = boards + (1 - CUSHION_GIVES) * cushion;
    return within(height, backOfKnee, 30, 60, (grade) =>
      graded(`rule.seatHeight`, {
        who: person,
        name: seat,
        height: mm(height),
        wants: mm(backOfKnee),
        off: mm(Math.abs(height - backOfKnee)),
        way: { word: height > backOfKnee ? 'seat.high' : 'seat.low' },
      })(grade),
    );
  },
});

export const seatDepthRule = defineRule({
  name: 'seat-depth',
  title: 'Seat depth to the backrest',
  formula: 'good: 400 to 520; tight: 360 to 560',
  reason: 'Less does not carry the thigh; more and the back finds nothing.',
  figures: {
    least: figure('least, good', 400),
    tightLeast: figure('least, tight', 360),
    most: figure('most, good', 520),
    tightMost: figure('most, tight', 560),
  },
  input: z.strictObject({ deep: length, name }),
  run: ({ deep, name: seat }, { least, tightLeast, most, tightMost }) => {
    const say = graded('rule.seatDepth', {
      name: seat,
      deep: mm(Math.max(0, deep)),
      least: mm(least),
      most: mm(most),
    });
    return worstOf([atLeast(deep, least, tightLeast, say), atMost(deep, most, tightMost, say)]);
  },
});

export const tableHeightRule = defineRule({
  name: 'table-height',
  title: 'Table above the seat',
  formula: 'above = table - (boards + 0.75 x cushion); good: 250 to 310; tight: 220 to 340',
  reason: 'Elbows rest on it and knees go under it.',
  figures: {
    least: figure('least, good', 250),
    tightLeast: figure('least, tight', 220),
    most: figure('most, good', 310),
    tightMost: figure('most, tight', 340),
  },
  input: z.strictObject({ table: length, boards: length, cushion: length, name, seat: z.string().default('') }),
  run: ({ table, boards, cushion, name: top, seat }, { least, tightLeast, most, tightMost }) => {
    const above = table - boards - (1 - CUSHION_GIVES) * cushion;
    const say = (grade: Grade): Message =>
      message(above < 0 ? 'rule.tableHeight.below' : `rule.tableHeight.${grade}`, {
        name: top,
        seat,
        above: mm(Math.abs(above)),
        least: mm(least),
        most: mm(most),
      });
    return worstOf([atLeast(above, least, tightLeast, say), atMost(above, most, tightMost, say)]);
  },
});

export const kneeRoomRule = defineRule({
  name: 'knee-room',
  title: 'Room for knees under a table',
  formula: 'good: >= 600 wide and 400 deep; tight: >= 550 and 350',
  reason: 'Knees and feet go under it without straddling a leg.',
  figures: {
    wideGood: figure('wide, good', 600),
    wideTight: figure('wide, tight', 550),
    deepGood: figure('deep, good', 400),
    deepTight: figure('deep, tight', 350),
  },
  input: z.strictObject({ wide: length, deep: length, name }),
  run: ({ wide, deep, name: top }, { wideGood, wideTight, deepGood, deepTight }) => {
    const say = graded('rule.kneeRoom', { name: top, wide: mm(wide), deep: mm(deep) });
    return worstOf([atLeast(wide, wideGood, wideTight, say), atLeast(deep, deepGood, deepTight, say)]);
  },
});

export const seatsRule = defineRule({
  name: 'seat-width',
  title: 'Places on a seat',
  formula: 'each sitter has 550 for good, 450 for tight; and shoulders where they were measured',
  reason: 'Shoulders are wider than hips.',
  input: z.strictObject({
    wide: length,
    sitters: z.int().min(1).max(12),
    shoulders: z.array(length).default([]),
    name,
  }),
  run: ({ wide, sitters, shoulders, name: seat }) => {
    const broad = shoulders.reduce((sum, own) => sum + own, 0);
    const good = Math.max(sitters * 550, broad);
    return atLeast(wide, good, Math.max(sitters * 450, broad * 0.95), (grade, spare) =>
      graded('rule.seatWidth', { name: seat, wide: mm(wide), sitters, wants: mm(good), short: mm(-(spare ?? 0)) })(
        grade,
      ),
    );
  },
});

export const facingRule = defineRule({
  name: 'facing-seats',
  title: 'Seats that face each other',
  formula: 'between the fronts of the seats good: >= 450; tight: >= 300',
  reason: 'Two pairs of knees meet there.',
  figures: {
    good: figure('good', 450),
    tight: figure('tight', 300),
  },
  input: z.strictObject({ between: length, name, other: z.string().default('') }),
  run: ({ between, name: seat, other }, { good, tight }) =>
    atLeast(between, good, tight, (grade, spare) =>
      graded('rule.facing', { name: seat, other, between: mm(between), short: mm(-(spare ?? 0)) })(grade),
    ),
});

/** Eye height of somebody who stands, as a share of stature, and how far the head comes forward when leaning 25 degrees from the hip. */
export const EYE_SHARE = 0.936;
const HIP_SHARE = 0.52;
const LEAN_DEGREES = 25;
/** How far the forehead of a person who leans over by 25 degrees comes before their hip, mm: they stand 100 before the worktop. */
export const leansOver = (stature: number): { readonly forward: number; readonly height: number } => {
  const lean = (LEAN_DEGREES * Math.PI) / 180;
  const trunk = (1 - HIP_SHARE) * stature;
  return { forward: trunk * Math.sin(lean), height: HIP_SHARE * stature + trunk * Math.cos(lean) };
};

/** Somebody who works stands so far before a top, mm. */
const STANDS_OFF_MM = 100;
const SHOULDER_SHARE = 0.818;
const REACH_SHARE = 0.44;
/**
 * Who leans over moves the hips back so that the feet stay under the middle: with six tenths of the mass above the hips, b from
 * 0.6 (f / 2 - b) = 0.4 b / 2 is 0.375 of how far the head would go, f.
 */
const HIPS_BACK = 0.375;
/** Heights and arcs of somebody who works at a top, mm: the head goes round the hip, the hand round the shoulder; common shares of stature. */
export const worksAt = (
  stature: number,
): {
  /** From the hip to the front of the top, standing upright. */
  readonly off: number;
  readonly shoulder: number;
  readonly reach: number;
  /** Where the crown is, before where it is upright and above the floor, leaning by a share of 25 degrees. */
  readonly crown: (share: number) => { readonly forward: number; readonly height: number };
} => ({
  off: STANDS_OFF_MM,
  shoulder: SHOULDER_SHARE * stature,
  reach: REACH_SHARE * stature,
  crown: (share) => {
    const lean = (share * LEAN_DEGREES * Math.PI) / 180;
    const trunk = (1 - HIP_SHARE) * stature;
    return {
      forward: (1 - HIPS_BACK) * trunk * Math.sin(lean),
      height: HIP_SHARE * stature + trunk * Math.cos(lean),
    };
  },
});

/** Shoulders of who stands, kneels upright, and sits on the heels, over the floor as shares of stature. */
const SHOULDERS_AT = [SHOULDER_SHARE, 0.53, 0.4];
export const reachBackRule = defineRule({
  name: 'reach-back',
  title: 'The back of a cupboard in reach',
  formula:
    'needs = from the shoulder, 100 before whatever one stands at, to the middle of the back of the bay, the least of standing (0.818 of stature), kneeling (0.53) and sitting on the heels (0.4); good: <= 0.44 of stature; tight: more, it is reached with the head inside, or by taking out what stands before; never fails',
  reason: 'What stands at the back is used only as often as it can be taken out.',
  input: z.strictObject({
    deep: length,
    height: length,
    stature: length,
    who: z.string().default(''),
    name: z.string().default(''),
  }),
  run: ({ deep, height, stature, who, name: bay }) => {
    const needs = Math.min(...SHOULDERS_AT.map((share) => Math.hypot(STANDS_OFF_MM + deep, height - share * stature)));
    return atMost(needs, REACH_SHARE * stature, Infinity, (grade, spare) =>
      graded('rule.reachBack', { who, name: bay, short: mm(-(spare ?? 0)) })(grade),
    );
  },
});

export const headStrikeRule = defineRule({
  name: 'head-strike',
  title: 'High cupboard over a place where one stands and works',
  formula:
    'good: its front stands back >= 150 from the worktop front, or its underside is >= eye height + 100; tight: back >= 100, or a head that leans 25 degrees from the hip passes under it',
  reason: 'Whoever bends over the sink meets the edge with the forehead.',
  input: z.strictObject({
    setBack: length,
    underside: length,
    stature: z.number().min(400).max(2500).meta({ unit: 'mm' }),
    who,
    name,
  }),
  run: ({ setBack, underside, stature, who: person, name: high }): Verdict => {
    const say = graded('rule.headStrike', {
      who: person,
      name: high,
      back: mm(setBack),
      underside: mm(underside),
      wants: mm(150),
      clear: mm(EYE_SHARE * stature + 100),
      short: mm(Math.max(0, 150 - setBack)),
    });
    const over = underside - (EYE_SHARE * stature + 100);
    if (over >= 0)
      return {
        grade: 'good',
        spare: over,
        figure: underside,
        good: EYE_SHARE * stature + 100,
        tight: 0,
        said: say('good'),
      };
    const head = leansOver(stature).height + 0.05 * stature;
    return atLeast(setBack, 150, underside >= head ? -Infinity : 100, say);
  },
});

export const hangingRule = defineRule({
  name: 'hanging-clothes',
  title: 'Room for clothes on hangers',
  formula: 'square to the rail good: >= 550 clear; tight: >= 480',
  reason: 'A hanger is 450 wide, with sleeves on it.',
  figures: {
    good: figure('good', 550),
    tight: figure('tight', 480),
  },
  input: z.strictObject({ clear: length, name, rail: z.enum(['bay', 'depth']) }),
  run: ({ clear, name: bay, rail }, { good, tight }) =>
    atLeast(clear, good, tight, (grade, spare) =>
      graded('rule.hanging', {
        name: bay,
        clear: mm(clear),
        short: mm(-(spare ?? 0)),
        rail: { word: rail === 'bay' ? 'rail.bay' : 'rail.depth' },
      })(grade),
    ),
});

export const washRule = defineRule({
  name: 'wash-room',
  title: 'Room to wash standing',
  formula: 'good: >= 600 x 600 clear and stature + 40 high; tight: >= 500 x 600 seated',
  reason: 'Elbows and knees need room, and the walls are wet.',
  input: z.strictObject({
    along: length,
    deep: length,
    high: length,
    stature: z.number().min(400).max(2500).meta({ unit: 'mm' }),
    who,
    name,
  }),
  run: ({ along, deep, high, stature, who: person, name: room }) => {
    const say = graded('rule.wash', {
      who: person,
      name: room,
      along: mm(along),
      deep: mm(deep),
      high: mm(high),
      wants: mm(stature + 40),
    });
    const [least, most] = [Math.min(along, deep), Math.max(along, deep)];
    return worstOf([
      atLeast(least, 600, 500, say),
      atLeast(most, 600, 600, say),
      atLeast(high, stature + 40, 0.75 * stature, say),
    ]);
  },
});

export const guardRule = defineRule({
  name: 'bunk-guard',
  title: 'Guard of a high bed',
  formula: 'a bed whose edge is over 800 above the floor has a guard: good >= 160 above the mattress; tight >= 100',
  reason: 'Whoever sleeps up there turns over in the night.',
  input: z.strictObject({ edge: length, guard: length, name }),
  run: ({ edge, guard, name: bed }) => {
    const say = graded('rule.guard', { name: bed, edge: mm(edge), guard: mm(guard), wants: mm(160) });
    return edge <= 800 ? atLeast(guard, -1, -1, say) : atLeast(guard, 160, 100, say);
  },
});
