import { z } from 'zod';
import { mm } from '../words/message.js';
import { atLeast, atMost, defineRule, graded, type Verdict, figure } from './rule.js';
import { SHOULDERS } from './people.js';

const length = z.number().min(-100_000).max(100_000).meta({ unit: 'mm' });
const who = z.string().default('');
const name = z.string().default('');

/** Somebody who stands sideways against a wall takes so much of the way, mm: a chest and some air. */
const SIDEWAYS_MM = 350;
export const passingRule = defineRule({
  name: 'passing',
  title: 'Two people pass each other',
  formula:
    'the widest place of the way, good: >= shoulders of the broader + 350 for one who stands sideways; shoulders = 0.26 x stature where not measured; tight: less, one of them waits; never fails',
  reason: 'A cook and somebody on the way to the door meet every day.',
  input: z.strictObject({
    widest: length,
    stature: length,
    shoulders: length.optional(),
    who,
    other: who,
  }),
  run: ({ widest, stature, shoulders, who: one, other }) => {
    const good = (shoulders ?? SHOULDERS * stature) + SIDEWAYS_MM;
    return atLeast(widest, good, -Infinity, (grade, spare) =>
      graded('rule.passing', { who: one, other, widest: mm(widest), wants: mm(good), short: mm(-(spare ?? 0)) })(grade),
    );
  },
});

/** On hands and knees over somebody who lies, and only sliding, mm. */
const CRAWLS_MM = 650;
const SLIDES_MM = 400;
export const gettingPastRule = defineRule({
  name: 'getting-past',
  title: 'Out of bed past the other',
  formula:
    'clear = roof or cupboard over the one who lies at the open side - platform - 0.85 x mattress; good: >= 650, on hands and knees; tight: >= 400, sliding',
  reason: 'Who sleeps at the closed side gets up at night over the other.',
  figures: { good: figure('good', CRAWLS_MM), tight: figure('tight', SLIDES_MM) },
  input: z.strictObject({ clear: length, who, other: who }),
  run: ({ clear, who: one, other }, { good, tight }) =>
    atLeast(clear, good, tight, (grade, spare) =>
      graded('rule.gettingPast', { who: one, other, clear: mm(Math.max(0, clear)), short: mm(-(spare ?? 0)) })(grade),
    ),
});

export const eyeLineRule = defineRule({
  name: 'eye-line',
  title: 'Looking out while sitting',
  formula:
    'eyes = seat + sitting height - 0.064 x stature; good: some window reaches from 30 under to 30 over the eyes; tight: none does; never fails',
  reason: 'A window one cannot look out of while sitting is half a window.',
  figures: {
    good: figure('good', 30),
  },
  input: z.strictObject({ eyes: length, sill: length, head: length, who, name, window: name }),
  run: ({ eyes, sill, head, who: one, name: seat, window }, { good }) =>
    atLeast(Math.min(eyes - sill, head - eyes), good, -Infinity, (grade) =>
      graded('rule.eyeLine', { who: one, name: seat, window, eyes: mm(eyes), sill: mm(sill), head: mm(head) })(grade),
    ),
});

export const levelBedRule = defineRule({
  name: 'level-bed',
  title: 'Table and seats make one level',
  formula: 'step between the lowered top and the boards of the seat, good: <= 3; tight: <= 12, under a mattress',
  reason: 'A step under the back wakes whoever lies across it.',
  figures: {
    good: figure('good', 3),
    tight: figure('tight', 12),
  },
  input: z.strictObject({ step: length, name, seat: name }),
  run: ({ step, name: top, seat }, { good, tight }): Verdict =>
    atMost(Math.abs(step), good, tight, (grade) =>
      graded('rule.levelBed', {
        name: top,
        seat,
        step: mm(Math.abs(step)),
        way: { word: step > 0 ? 'level.above' : 'level.below' },
      })(grade),
    ),
});

export const ledgesRule = defineRule({
  name: 'table-ledges',
  title: 'What a table on ledges hangs on',
  formula:
    'beside how many edges of its top something stands at its height, within 120; good: two opposite ones; tight: one, and a leg at the other; fails: none',
  reason: 'A ledge is screwed to a seat, a cupboard or the wall. Where none is there the top hangs in the air.',
  input: z.strictObject({ sides: z.int().min(0).max(2), name: z.string().default('') }),
  run: ({ sides, name: unit }) => atLeast(sides, 2, 1, (grade) => graded('rule.ledges', { name: unit })(grade)),
});
