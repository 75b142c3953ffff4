import { z } from 'zod';
import { mm } from '../words/message.js';
import { asParam, atLeast, atMost, defineRule, either, graded, spokenOf, figure } from './rule.js';

const length = z.number().min(-100_000).max(100_000).meta({ unit: 'mm' });
const name = z.string().default('');
const what = spokenOf;

export const sweepRule = defineRule({
  name: 'room-to-move',
  title: 'Room for what moves',
  formula: 'clear = from where it is shut to the first thing in its way; fails when that is less than it needs',
  reason: 'A door, drawer, lid or bed that meets something cannot be used.',
  input: z.strictObject({ clear: length, needs: length, what, by: name }),
  run: ({ clear, needs, what: part, by }) =>
    atLeast(clear, needs, needs, (grade, spare) =>
      graded('rule.sweep', { what: asParam(part), by, clear: mm(clear), needs: mm(needs), short: mm(-(spare ?? 0)) })(
        grade,
      ),
    ),
});

export const beforeRule = defineRule({
  name: 'room-to-use',
  title: 'Room before what is pulled out',
  formula: 'beyond it when it is open good: >= 450; tight: >= 250',
  reason: 'Somebody stands or kneels there.',
  figures: {
    good: figure('good', 450),
    tight: figure('tight', 250),
  },
  input: z.strictObject({ room: length, what, by: name }),
  run: ({ room, what: part, by }, { good, tight }) =>
    atLeast(room, good, tight, (grade, spare) =>
      graded('rule.before', { what: asParam(part), by, room: mm(room), short: mm(-(spare ?? 0)) })(grade),
    ),
});

export const latchRule = defineRule({
  name: 'travel-latch',
  title: 'Held on the road',
  formula: 'fails when anything that can move has no latch',
  reason: 'On the road nothing may open, slide or fall.',
  input: z.strictObject({ loose: z.int().min(0), of: z.int().min(0), name, which: z.string().default('') }),
  run: ({ loose, of, name: unit, which }) =>
    atMost(loose, 0, 0, (grade) => graded('rule.latch', { name: unit, loose, of, which })(grade)),
});

export const clashRule = defineRule({
  name: 'mode-clash',
  title: 'Two things in one place in a mode',
  formula: 'fails when what is moved in a mode stands where something else stands in that mode',
  reason: 'A mode has to be possible as a whole.',
  input: z.strictObject({ by: length, what, other: what, mode: name }),
  run: ({ by, what: part, other, mode }) =>
    atMost(by, 0.5, 0.5, (grade) =>
      graded('rule.clash', { what: asParam(part), other: asParam(other), mode, by: mm(by) })(grade),
    ),
});

export const shutRule = defineRule({
  name: 'shut-to-drive',
  title: 'Shut and put away to drive',
  formula: 'fails when a mode for driving has anything open',
  reason: 'What stands open on the road becomes loose.',
  input: z.strictObject({ what, mode: name, share: z.number().min(0).max(1).meta({ unit: '1' }) }),
  run: ({ what: part, mode, share }) => either(share === 0, graded('rule.shut', { what: asParam(part), mode })),
});
