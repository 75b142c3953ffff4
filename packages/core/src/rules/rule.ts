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

/** A default figure of a rule, which a project may change; where it guards against harm, to the stricter side only. */
export interface RuleFigure {
  readonly label: string;
  readonly value: number;
  readonly unit: 'mm' | '%' | 'mm a metre';
  /** No smaller, or no larger. */
  readonly least: number;
  readonly most: number;
}
/** A project's own figures of one rule, by their names; those left out are as usual. */
export type OwnFigures = Readonly<Record<string, number>>;

/** One rule or formula: a pure function of its inputs, with what it asks, how it is worked out and why. */
export interface Rule<Input extends z.ZodType = z.ZodType, Result = unknown> {
  readonly name: string;
  readonly title: string;
  readonly formula: string;
  readonly reason: string;
  readonly input: Input;
  /** Its defaults that can be changed, by name. */
  readonly figures?: Readonly<Record<string, RuleFigure>>;
  readonly run: (input: z.output<Input>, own?: OwnFigures) => Result;
}

/** Keeps a rule's input type while it is written down, and puts a project's own figures, within their limits, over its defaults. */
export function defineRule<Input extends z.ZodType, Result, Names extends string = never>({
  figures,
  run,
  ...rule
}: Omit<Rule<Input, Result>, 'run' | 'figures'> & {
  readonly figures?: Readonly<Record<Names, RuleFigure>>;
  readonly run: (input: z.output<Input>, figures: Readonly<Record<Names, number>>) => Result;
}): Rule<Input, Result> {
  if (!figures) return { ...rule, run: (input) => run(input, {} as Record<Names, number>) };
  const defaults = merged(figures);
  return { ...rule, figures, run: (input, own) => run(input, own ? merged(figures, own) : defaults) };
}

/** Figures with a project's own, within their limits, over the usual ones. */
function merged<Names extends string>(
  figures: Readonly<Record<Names, RuleFigure>>,
  own: OwnFigures = {},
): Record<Names, number> {
  const names = Object.keys(figures) as Names[];
  return Object.fromEntries(
    names.map((name) => {
      const { value, least, most } = figures[name];
      return [name, Math.min(most, Math.max(least, own[name] ?? value))];
    }),
  ) as Record<Names, number>;
}
/** The figure of a rule as a project has it; NaN where the rule has none of that name. */
export const figureOf = (rule: Rule, name: string, own: Readonly<Record<string, OwnFigures>>): number =>
  merged(rule.figures ?? {}, own[rule.name])[name] ?? NaN;

/** A default length, or another figure, that can be changed freely within what makes sense. */
export const figure = (
  label: string,
  value: number,
  unit: RuleFigure['unit'] = 'mm',
  { least = 0, most = unit === 'mm' ? 5000 : unit === '%' ? 100 : 1000 }: { least?: number; most?: number } = {},
): RuleFigure => ({ label, value, unit, least, most });
/** One that guards against harm: it can be made larger, never smaller. */
export const guard = (label: string, value: number): RuleFigure => figure(label, value, 'mm', { least: value });

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
