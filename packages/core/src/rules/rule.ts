import { z } from 'zod';
import { HAIR_MM } from '../numeric/tolerance.js';
import type { WordKey } from '../words/en.js';
import { message, type Message, type MessageParam } from '../words/message.js';

export type Grade = 'good' | 'tight' | 'fails' | 'unknown';

/** What a rule says of one case. */
export interface Verdict {
  readonly grade: Grade;
  /** How far the figure is beyond the limit for good; negative is how much is missing. Null when something needed is unknown. */
  readonly spare: number | null;
  /** The figure that was judged, and the least (or most) that is good and tight. */
  readonly figure: number | null;
  readonly good: number;
  readonly tight: number;
  readonly said: Message;
}

/** One rule or formula: a pure function of its inputs, with what it asks, how it is worked out and why. */
export interface Rule<Input extends z.ZodType = z.ZodType, Result = unknown> {
  readonly name: string;
  readonly title: string;
  readonly formula: string;
  readonly reason: string;
  readonly input: Input;
  readonly run: (input: z.output<Input>) => Result;
}

/** Keeps a rule's input type while it is written down. */
export function defineRule<Input extends z.ZodType, Result>(rule: Rule<Input, Result>): Rule<Input, Result> {
  return rule;
}

/** Judges a figure that should be large enough. */
export function atLeast(
  figure: number | null,
  good: number,
  tight: number,
  said: (grade: Grade, spare: number | null) => Message,
): Verdict {
  if (figure === null) return { grade: 'unknown', spare: null, figure, good, tight, said: said('unknown', null) };
  const spare = figure - good;
  const grade: Grade = spare >= -HAIR_MM ? 'good' : figure >= tight - HAIR_MM ? 'tight' : 'fails';
  return { grade, spare, figure, good, tight, said: said(grade, spare) };
}

/** Judges a figure that should be small enough. */
export function atMost(
  figure: number | null,
  good: number,
  tight: number,
  said: (grade: Grade, spare: number | null) => Message,
): Verdict {
  if (figure === null) return { grade: 'unknown', spare: null, figure, good, tight, said: said('unknown', null) };
  const spare = good - figure;
  const grade: Grade = spare >= -HAIR_MM ? 'good' : figure <= tight + HAIR_MM ? 'tight' : 'fails';
  return { grade, spare, figure, good, tight, said: said(grade, spare) };
}

/** What a rule says, by grade: of a stem `rule.x` the sentences `rule.x.good`, `.tight`, `.fails` and `.unknown`. */
export const graded =
  (stem: string, params: Record<string, MessageParam>) =>
  (grade: Grade): Message =>
    message(`${stem}.${grade}` as WordKey, params);

/** A verdict that is only yes or no. */
export const either = (holds: boolean, said: (grade: Grade) => Message): Verdict => ({
  grade: holds ? 'good' : 'fails',
  spare: null,
  figure: null,
  good: 0,
  tight: 0,
  said: said(holds ? 'good' : 'fails'),
});

/** The worse of several verdicts: a figure that is not known is worse than a tight one. */
export function worstOf(verdicts: readonly [Verdict, ...Verdict[]]): Verdict {
  const order: readonly Grade[] = ['good', 'tight', 'unknown', 'fails'];
  return verdicts.reduce((worst, next) => (order.indexOf(next.grade) > order.indexOf(worst.grade) ? next : worst));
}

/** What a rule speaks of, by its name or by a sentence part that is said in the reader's words. */
export const spokenOf = z.union([
  z.string(),
  z.strictObject({ key: z.string(), params: z.record(z.string(), z.unknown()) }),
]);
export const asParam = (spoken: z.output<typeof spokenOf>): MessageParam => spoken as MessageParam;
