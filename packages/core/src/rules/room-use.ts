import { z } from 'zod';
import { message, mm } from '../words/message.js';
import { atLeast, atMost, defineRule, graded, worstOf, type Verdict, figure } from './rule.js';

const length = z.number().min(-100_000).max(100_000).meta({ unit: 'mm' });
const kilos = z.number().min(0).max(100_000).meta({ unit: 'kg' });
const part = z.number().min(0).max(1).meta({ unit: '1' });
const name = z.string().default('');

export const glassRule = defineRule({
  name: 'glass-free',
  title: 'Windows kept free',
  formula: 'share of the glass behind units good: <= 0.2; tight: above; never fails: it is for you to say',
  reason: 'Glass that is built over gives neither light nor view, and is hard to reach.',
  figures: {
    good: figure('hidden at most', 20, '%'),
  },
  input: z.strictObject({ share: z.number().min(0).max(1).meta({ unit: '1' }), name, by: name }),
  run: ({ share, name: window, by }, { good }) =>
    atMost(share, good / 100, 1, (grade) =>
      graded('rule.glass', { name: window, by, share: Math.round(share * 100) })(grade),
    ),
});

export const waysOutRule = defineRule({
  name: 'ways-out',
  title: 'A second way out',
  formula: 'openings of 450 x 450 and more that can be got to and through: good: >= 2; tight: 1; fails: none',
  reason: 'A fire between a sleeper and the door leaves no other way. Local code may ask for more.',
  input: z.strictObject({ ways: z.int().min(0), which: name }),
  run: ({ ways, which }) => atLeast(ways, 2, 1, graded('rule.waysOut', { ways, which })),
});

/** A step of more than this between neighbours is meant, mm. */
export const MEANT_STEP_MM = 30;

export const alignRule = defineRule({
  name: 'in-one-line',
  title: 'Fronts and tops in one line',
  formula: 'neighbours whose fronts or tops differ by 1 to 30: tight; no difference, or a clear step, is good',
  reason: 'A small step between neighbours looks like a mistake and catches sleeves.',
  figures: {
    good: figure('good', 1),
  },
  input: z.strictObject({ off: length, name, other: name, what: z.enum(['front', 'top']) }),
  run: ({ off, name: unit, other, what }, { good }) =>
    atMost(off, good, MEANT_STEP_MM, (grade) =>
      graded('rule.align', {
        name: unit,
        other,
        off: mm(off),
        what: { word: what === 'front' ? 'align.front' : 'align.top' },
      })(grade),
    ),
});

export const carryRule = defineRule({
  name: 'carry-in',
  title: 'Through the door',
  formula:
    'the two smaller sizes of the box round it, straight or tilted, pass the largest door with 20 to spare, or its largest part does and it is put together inside; else it fails',
  reason: 'What was built outside has to come in.',
  input: z.strictObject({
    sizes: z.tuple([length, length, length]),
    parts: z.tuple([length, length]).nullable(),
    door: z.tuple([length, length]),
    room: z.tuple([length, length, length]),
    name,
  }),
  run: ({ sizes, parts, door, room, name: unit }): Verdict => {
    const [a = 0, b = 0, c = 0] = [...sizes].sort((p, q) => p - q);
    const [small, large] = [...door].sort((p, q) => p - q) as [number, number];
    // square through, or the smallest face turned in the opening
    const passes = (p: number, q: number): number => Math.min(small - p, large - q);
    const tilted = Math.hypot(small, large) - Math.hypot(a, b);
    const whole = Math.max(passes(a, b), a < small * 0.6 ? Math.min(small - a, tilted) : -Infinity);
    const turns = Math.max(...room) - c;
    const params = {
      name: unit,
      spare: mm(Math.min(whole, turns)),
      short: mm(Math.max(0, 20 - whole)),
      door: mm(small),
      high: mm(large),
    };
    const say = graded('rule.carry', params);
    if (whole >= 20 && turns >= 0)
      return { grade: 'good', spare: whole, figure: whole, good: 20, tight: 20, said: say('good') };
    // a board goes through edge first, upright or slanting from corner to corner
    const inParts =
      parts === null
        ? -Infinity
        : Math.max(
            passes(Math.min(...parts), Math.max(...parts)),
            Math.hypot(small, large) - Math.max(...parts) - Math.min(...parts),
          );
    return inParts > 0 && parts !== null
      ? { grade: 'good', spare: null, figure: whole, good: 20, tight: 20, said: message('rule.carry.inParts', params) }
      : { grade: 'fails', spare: whole - 20, figure: whole, good: 20, tight: 20, said: say('fails') };
  },
});

export const payloadRule = defineRule({
  name: 'payload',
  title: 'What it may weigh',
  formula: 'total = bare + all that is built in, kept and seated; good: <= 0.95 of the most; tight: <= the most',
  reason: 'Limits are those of the registration papers. Weigh it on a public weighbridge.',
  input: z.strictObject({ total: kilos.nullable(), most: kilos }),
  run: ({ total, most }) =>
    atMost(total, 0.95 * most, most, (grade) =>
      graded('rule.payload', {
        total: total === null ? '–' : Math.round(total),
        most: Math.round(most),
        over: total === null ? '–' : Math.round(total - most),
      })(grade),
    ),
});

export const axleRule = defineRule({
  name: 'axle-load',
  title: 'What an axle may carry',
  formula: 'load of each axle by moments about the other; good: <= 0.95 of the most; tight: <= the most',
  reason: 'An axle can be over its limit while the whole is not. Weigh it axle by axle.',
  input: z.strictObject({ load: kilos.nullable(), most: kilos, axle: z.enum(['front', 'rear']) }),
  run: ({ load, most, axle }) =>
    atMost(load, 0.95 * most, most, (grade) =>
      graded('rule.axle', {
        load: load === null ? '–' : Math.round(load),
        most: Math.round(most),
        axle: { word: axle === 'front' ? 'axle.front' : 'axle.rear' },
      })(grade),
    ),
});

export const balanceRule = defineRule({
  name: 'left-and-right',
  title: 'Left against right',
  formula:
    'difference between the sides of what is built in and kept, as a share of the whole vehicle; good: <= 0.04; tight: <= 0.08',
  reason: 'A vehicle that leans steers and brakes to one side.',
  figures: {
    good: figure('good', 4, '%'),
    tight: figure('tight', 8, '%'),
  },
  input: z.strictObject({ left: kilos, right: kilos, total: kilos.nullable() }),
  run: ({ left, right, total }, { good, tight }) => {
    const share = total === null || total <= 0 ? null : Math.abs(left - right) / total;
    return atMost(share, good / 100, tight / 100, (grade) =>
      graded('rule.balance', {
        left: Math.round(left),
        right: Math.round(right),
        share: share === null ? '–' : Math.round(share * 1000) / 10,
      })(grade),
    );
  },
});

export const noseRule = defineRule({
  name: 'nose-load',
  title: 'Load on the coupling of a trailer',
  formula: 'share of its whole mass on the coupling between the least and the most that were picked',
  reason: 'Too little and it sways, too much and the car lifts its front wheels. The limits of drawbar and car win.',
  input: z.strictObject({ share: z.number().min(-1).max(2).meta({ unit: '1' }), least: part, most: part }),
  run: ({ share, least, most }) => {
    const percent = (value: number): number => Math.round(value * 1000) / 10;
    const say = graded('rule.nose', { share: percent(share), least: percent(least), most: percent(most) });
    return worstOf([atLeast(share, least, least, say), atMost(share, most, most, say)]);
  },
});
