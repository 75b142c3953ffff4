import { z } from 'zod';
import { spread } from '../numeric/plane.js';
import { message, mm } from '../words/message.js';
import { atLeast, atMost, defineRule, type Grade, figure, figureOf, type OwnFigures } from './rule.js';

const length = z.number().min(-100_000).max(100_000).meta({ unit: 'mm' });
const stature = z.number().min(400).max(2500).meta({ unit: 'mm' });
const who = z.string().default('');

/** Width of the shoulders estimated from stature where it was not measured. */
export const SHOULDERS = 0.26;
/** Sitting height estimated from stature where it was not measured. */
export const SITTING_SHARE = 0.52;
/** Eyes are under the crown by this share of stature, standing and sitting (Drillis and Contini, 1966). */
export const EYES_BELOW_CROWN = 0.064;
/** Back-of-knee height estimated from stature, with a shoe, mm. */
export const backOfKnee = (tall: number): number => 0.245 * tall + 25;

export const bedLengthRule = defineRule({
  name: 'bed-length',
  title: 'Bed length along the body',
  formula: 'good: clear length >= stature + 120; tight: >= stature + 50',
  reason: 'A sleeper points the toes and has a pillow; feet against cold metal end the night.',
  figures: { good: figure('over the stature, good', 120), tight: figure('over the stature, tight', 50) },
  input: z.strictObject({ clear: length.nullable(), stature, who, along: z.enum(['x', 'y']).default('y') }),
  run: ({ clear, stature: tall, who: name, along }, { good, tight }) =>
    atLeast(clear, tall + good, tall + Math.min(good, tight), (grade, spare) =>
      message(`rule.bedLength.${grade}`, {
        who: name,
        way: { word: along === 'x' ? 'lying.along' : 'lying.across' },
        own: mm(tall),
        clear: mm(clear ?? 0),
        wants: mm(tall + good),
        short: mm(-(spare ?? 0)),
        spare: mm(spare ?? 0),
      }),
    ),
});

const BED_WIDTH: Readonly<Record<1 | 2, readonly [number, number]>> = { 1: [700, 600], 2: [1300, 1150] };
export const bedWidthRule = defineRule({
  name: 'bed-width',
  title: 'Bed width for one or two',
  formula:
    'one: good >= 700, tight >= 600; two: good >= 1300, tight >= 1150; each further sleeper adds 600 and 550; and each has shoulders + 100 for good, shoulders for tight, where they were measured',
  reason: 'Shoulders and turning over.',
  input: z.strictObject({
    width: length,
    sleepers: z.int().min(1).max(6),
    shoulders: z.array(length).default([]),
  }),
  run: ({ width, sleepers, shoulders }) => {
    const broad = shoulders.reduce((sum, own) => sum + own, 0);
    const [usualGood, usualTight] =
      sleepers === 1 ? BED_WIDTH[1] : [BED_WIDTH[2][0] + 600 * (sleepers - 2), BED_WIDTH[2][1] + 550 * (sleepers - 2)];
    const good = Math.max(usualGood, broad + 100 * shoulders.length);
    const tight = Math.max(usualTight, broad);
    return atLeast(width, good, tight, (grade, spare) =>
      message(`rule.bedWidth.${grade}`, { sleepers, width: mm(width), wants: mm(good), short: mm(-(spare ?? 0)) }),
    );
  },
});

/** A mattress gives this share of its thickness under a sitting person. */
export const MATTRESS_GIVES = 0.15;
/** A cushion under somebody who sits gives this share of its thickness. */
export const CUSHION_GIVES = 0.25;
export const sittingUpRule = defineRule({
  name: 'sitting-up',
  title: 'Sitting up on the bed',
  formula:
    'clear = ceiling - platform - 0.85 x mattress; good: >= sitting height + 50; tight: >= sitting height + 15, a head that touches fails; sitting height = 0.52 x stature where not measured',
  reason: 'Dressing and reading in bed need an upright back.',
  figures: {
    good: figure('over the head, good', 50, 'mm', { least: 1 }),
    // a head that touches fails, whatever is typed
    tight: figure('over the head, tight', 15, 'mm', { least: 1 }),
  },
  input: z.strictObject({
    ceiling: length,
    platform: length,
    mattress: length,
    stature,
    sittingHeight: length.optional(),
    who,
  }),
  run: ({ ceiling, platform, mattress, stature: tall, sittingHeight, who: name }, own) => {
    const clear = ceiling - platform - (1 - MATTRESS_GIVES) * mattress;
    const sitting = sittingHeight ?? SITTING_SHARE * tall;
    const [good, tight] = [sitting + own.good, sitting + Math.min(own.good, own.tight)];
    return atLeast(clear, good, tight, (grade, spare) =>
      message(`rule.sittingUp.${grade}`, {
        who: name,
        clear: mm(Math.max(0, clear)),
        own: mm(sitting),
        // against their own height first, then against good
        head: mm(Math.abs(clear - sitting)),
        wants: mm(good),
        short: mm(good - clear),
        spare: mm(spare ?? clear - good),
      }),
    );
  },
});

export const bedEdgeRule = defineRule({
  name: 'bed-edge',
  title: 'Getting off the bed',
  formula:
    'edge = platform + 0.85 x mattress; good: <= back of knee + 150; tight: <= 1000 with a step; back of knee = 0.245 x stature + 25 where not measured',
  reason: 'Feet should find the floor or a step.',
  figures: { over: figure('over the back of the knee, good', 150), tight: figure('tight', 1000) },
  input: z.strictObject({ platform: length, mattress: length, stature, backOfKnee: length.optional(), who }),
  run: ({ platform, mattress, stature: tall, backOfKnee: measured, who: name }, { over, tight }) => {
    const knee = measured ?? backOfKnee(tall);
    const edge = platform + (1 - MATTRESS_GIVES) * mattress;
    return atMost(edge, knee + over, tight, (grade, spare) =>
      message(`rule.bedEdge.${grade}`, {
        who: name,
        edge: mm(edge),
        wants: mm(knee + over),
        over: mm(-(spare ?? 0)),
      }),
    );
  },
});

export const standingRule = defineRule({
  name: 'standing-height',
  title: 'Standing height on the way through',
  formula: 'good: >= stature + 40; tight: >= stature - 20',
  reason: 'Shoes, hair and a swaying floor; a little less means a bent neck.',
  figures: {
    good: figure('over the stature, good', 40),
    tight: figure('under the stature, tight', 20, 'mm', { most: 200 }),
  },
  input: z.strictObject({ height: length, stature, who }),
  run: ({ height, stature: tall, who: name }, { good, tight }) =>
    atLeast(height, tall + good, tall - tight, (grade, spare) =>
      message(`rule.standing.${grade}`, {
        who: name,
        height: mm(height),
        wants: mm(tall + good),
        short: mm(-(spare ?? 0)),
        spare: mm(spare ?? 0),
      }),
    ),
});

/** One ducks under what is no lower than this share of the stature. */
const DUCKED_SHARE = 0.8;
export const lintelRule = defineRule({
  name: 'lintel',
  title: 'The head of a door in a partition',
  formula: 'high = head of the door over the floor; good: >= stature + 20; tight: >= 0.8 x stature; else fails',
  reason: 'A head that is met at every pass is met in the dark too; lower than that one crawls.',
  figures: { good: figure('over the stature, good', 20) },
  input: z.strictObject({ high: length, stature, who, name: z.string().default('') }),
  run: ({ high, stature: tall, who: person, name }, { good }) =>
    atLeast(high, tall + good, DUCKED_SHARE * tall, (grade, spare) =>
      message(`rule.lintel.${grade}`, { who: person, name, high: mm(high), short: mm(-(spare ?? 0)) }),
    ),
});

export const wayThroughRule = defineRule({
  name: 'way-through',
  title: 'Way through at hip and at shoulder height',
  formula: 'at hip height good: >= 550; tight: >= 450; at shoulder height good: >= 600; tight: >= 500',
  reason: 'One person walks through without turning sideways.',
  figures: {
    hipGood: figure('at hip height, good', 550),
    hipTight: figure('at hip height, tight', 450),
    shoulderGood: figure('at shoulder height, good', 600),
    shoulderTight: figure('at shoulder height, tight', 500),
  },
  input: z.strictObject({ width: length, at: z.enum(['hip', 'shoulder']).default('hip') }),
  run: ({ width, at }, { hipGood, hipTight, shoulderGood, shoulderTight }) => {
    const [good, tight] = at === 'hip' ? [hipGood, hipTight] : [shoulderGood, shoulderTight];
    return atLeast(width, good, tight, (grade, spare) =>
      message(`rule.way.${grade}`, {
        width: mm(width),
        wants: mm(good),
        short: mm(-(spare ?? 0)),
        at: { word: at === 'hip' ? 'way.hip' : 'way.shoulder' },
      }),
    );
  },
});

/** Worktop height against one person's stature: good 0.53 to 0.56, tight 0.50 to 0.58. */
export const worktopRule = defineRule({
  name: 'worktop-height',
  title: 'Worktop height',
  formula: 'good: 0.53 to 0.56 of stature; tight: 0.50 to 0.58',
  reason: 'Elbows a little above the work; lower strains the back, higher the shoulders.',
  figures: {
    low: figure('of the stature, good from', 53, '%'),
    high: figure('of the stature, good to', 56, '%'),
    tightLow: figure('of the stature, tight from', 50, '%'),
    tightHigh: figure('of the stature, tight to', 58, '%'),
  },
  input: z.strictObject({ height: length, stature, who }),
  run: ({ height, stature: tall, who: name }, own) => {
    const of = (percent: number): number => (percent / 100) * tall;
    const [low, high] = [of(Math.min(own.low, own.high)), of(Math.max(own.low, own.high))];
    const middle = (low + high) / 2;
    const params = { who: name, height: mm(height), low: mm(low), high: mm(high) };
    const say = (grade: Grade) => message(`rule.worktop.${grade}`, params);
    return height <= middle
      ? atLeast(height, low, Math.min(low, of(own.tightLow)), say)
      : atMost(height, high, Math.max(high, of(own.tightHigh)), say);
  },
});

/** Who is smaller is a child: seats and worktops are made for them only where they are named, mm. */
const GROWN_MM = 1450;
/** Those who are grown. */
export const grownIn = <Someone extends { readonly stature: number }>(people: readonly Someone[]): readonly Someone[] =>
  people.filter(({ stature: tall }) => tall >= GROWN_MM);

type OwnOfRules = Readonly<Record<string, OwnFigures>>;
/** The middle of what is a good height of a top for one, mm. */
export const middleTop = ({ stature: tall }: { readonly stature: number }, figures: OwnOfRules): number =>
  ((figureOf(worktopRule, 'low', figures) + figureOf(worktopRule, 'high', figures)) / 200) * tall;
/** The height of a top that is good for most who work at it, and where it is good for as many for those between, mm; as is usual where nobody does. */
export function bestTop(people: readonly { readonly stature: number }[], figures: OwnOfRules): number {
  if (people.length === 0) return USUAL_TOP_MM;
  const middles = people.map((person) => middleTop(person, figures));
  const heights = spread(Math.min(...middles), Math.max(...middles), 41).map(Math.round);
  const worth = (height: number): number =>
    people.reduce((sum, person) => {
      const { grade } = worktopRule.run({ height, stature: person.stature, who: '' }, figures[worktopRule.name]);
      return (
        sum +
        (grade === 'good' ? 100 : grade === 'tight' ? 40 : 0) -
        Math.abs(height - middleTop(person, figures)) / 100
      );
    }, 0);
  return heights.reduce((best, next) => (worth(next) > worth(best) ? next : best), heights[0] ?? USUAL_TOP_MM);
}
/** A top is so high where nobody is known who works at it, mm. */
const USUAL_TOP_MM = 900;
