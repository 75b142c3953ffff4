import { z } from 'zod';
import { message, mm } from '../words/message.js';
import { atLeast, atMost, defineRule, either, figure, graded, type Verdict } from './rule.js';

const length = z.number().min(-100_000).max(100_000).meta({ unit: 'mm' });

export const doorwayRule = defineRule({
  name: 'doorway',
  title: 'The way through a door',
  formula: 'free = widest stretch of the door that no unit stands in; good: >= 550; tight: >= 400',
  reason: 'A door that furniture stands in is no way in, and no way out when it matters.',
  // one passes with a box in the arms, or squeezes through
  figures: { good: figure('wide, good', 550), tight: figure('wide, tight', 400) },
  input: z.strictObject({ free: length, width: length, name: z.string().default(''), by: z.string().default('') }),
  run: ({ free, width, name, by }, { good, tight }): Verdict =>
    // a door narrower than that is judged by its own width
    atLeast(free, Math.min(good, width), Math.min(good, tight, width), (grade, spare) =>
      message(`rule.doorway.${grade}`, { name, by, free: mm(free), short: mm(-(spare ?? 0)) }),
    ),
});

export const doorHeadRule = defineRule({
  name: 'door-head',
  title: 'What hangs in a door',
  formula:
    'free = underside of what hangs - sill of the door; good: all of its height; tight: >= 1300, or all of its height',
  reason: 'Whoever comes in with a box in the arms does not see what hangs at the head.',
  // one comes in bent
  figures: { tight: figure('high, tight', 1300) },
  input: z.strictObject({ free: length, high: length, name: z.string().default(''), by: z.string().default('') }),
  run: ({ free, high, name, by }, { tight }): Verdict =>
    atLeast(free, high, Math.min(tight, high), (grade, spare) =>
      message(`rule.doorHead.${grade}`, { name, by, free: mm(free), short: mm(-(spare ?? 0)) }),
    ),
});

export const outboardRule = defineRule({
  name: 'outboard',
  title: 'What goes out through a door',
  formula:
    'clear = least distance of the room it passes through from the sides, sill and head of the door; good: >= 20; tight: >= 5; fails where no door is behind it, or where it turns farther before the door than 150',
  reason:
    'What swings or is drawn out meets the frame, its seal or the leaf that stands open beside it. What turns far before a door stays inside with a part of it.',
  figures: {
    good: figure('clear, good', 20),
    tight: figure('clear, tight', 5),
    before: figure('before the door, at most', 150),
  },
  input: z.strictObject({
    clear: length.nullable(),
    before: length.default(0),
    way: z.enum(['beside', 'under', 'above']).default('beside'),
    name: z.string().default(''),
    door: z.string().default(''),
  }),
  run: ({ clear, before, way, name, door }, { good, tight, before: most }): Verdict =>
    clear === null
      ? either(false, graded('rule.outboardNone', { name }))
      : before > most
        ? either(false, graded('rule.outboardFar', { name, door, before: mm(before) }))
        : atLeast(clear, good, tight, (grade, spare) =>
            message(`rule.outboard.${grade}`, {
              name,
              door,
              way: { word: `outboard.${way}` },
              clear: mm(clear),
              short: mm(-(spare ?? 0)),
            }),
          ),
});

export const overStepRule = defineRule({
  name: 'over-step',
  title: 'What stands over a step',
  formula: 'overlap of a unit and a step along and across; fails when both exceed 0.5 mm',
  reason: 'A step is stood in; a unit over it has no floor under it, and takes the way in.',
  input: z.strictObject({ along: length, across: length, name: z.string().default(''), step: z.string().default('') }),
  run: ({ along, across, name, step }): Verdict => {
    const least = Math.min(along, across);
    const stands = least > 0.5;
    return {
      grade: stands ? 'fails' : 'good',
      spare: -Math.max(0, least),
      figure: Math.max(0, least),
      good: 0,
      tight: 0,
      said: message(stands ? 'rule.overStep.fails' : 'rule.overStep.good', {
        name,
        step,
        along: mm(along),
        across: mm(across),
      }),
    };
  },
});

export const sashRule = defineRule({
  name: 'window-sash',
  title: 'Room for a sash, a blind or a hinged window',
  formula:
    'clear = distance from the window into the room to what stands there; good: >= its sweep + 20; tight: >= its sweep',
  reason: 'A window that strikes a cupboard is opened once.',
  input: z.strictObject({
    clear: length.nullable(),
    sweep: length,
    name: z.string().default(''),
    by: z.string().default(''),
  }),
  run: ({ clear, sweep, name, by }): Verdict =>
    atLeast(clear, sweep + 20, sweep, (grade, spare) =>
      message(`rule.sash.${grade}`, { name, by, clear: mm(clear ?? 0), sweep: mm(sweep), short: mm(-(spare ?? 0)) }),
    ),
});

/** Room to take a pane and its gasket out from inside, and to see that it is dry, mm. */
export const GLASS_GOOD_MM = 30;
export const GLASS_TIGHT_MM = 15;

export const glassGapRule = defineRule({
  name: 'glass-gap',
  title: 'Room between glass and what stands before it',
  formula:
    'clear = least depth of the frame behind the finished face, and what a unit is kept off; good: >= 30; tight: >= 15',
  reason: 'Glass breaks and gaskets leak: with a unit hard against them neither can be reached, and damp stays.',
  input: z.strictObject({ clear: length.nullable(), name: z.string().default(''), by: z.string().default('') }),
  run: ({ clear, name, by }): Verdict =>
    atLeast(clear, GLASS_GOOD_MM, GLASS_TIGHT_MM, (grade, spare) =>
      message(`rule.glassGap.${grade}`, { name, by, clear: mm(clear ?? 0), short: mm(-(spare ?? 0)) }),
    ),
});

/** What a pair of hinges takes up, and what a drawer's runners do, mm. */
export const HINGES_TAKE_MM = 2;
export const RUNNERS_TAKE_MM = 1;

export const squareRule = defineRule({
  name: 'square',
  title: 'How far an opening or a box is out of square',
  formula:
    'expected diagonal = sqrt(length^2 + height^2); out = |a^2 - b^2| / (4 length), over the height; good: <= 1 (runners take it up); tight: <= 2 (hinges do)',
  reason: 'A door on an opening that is out of square binds at one corner; hinges and runners take up little of it.',
  input: z.strictObject({ length, height: length, a: length, b: length, name: z.string().default('') }),
  run: ({ length: long, height, a, b, name }): Verdict & { readonly expected: number } => {
    const out = long > 0 ? Math.abs(a * a - b * b) / (4 * long) : null;
    const expected = Math.hypot(long, height);
    return {
      ...atMost(out, RUNNERS_TAKE_MM, HINGES_TAKE_MM, (grade) =>
        message(`rule.square.${grade}`, { name, out: mm(out ?? 0), expected: mm(expected) }),
      ),
      expected,
    };
  },
});
