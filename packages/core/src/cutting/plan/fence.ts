import type { LengthStyle } from '../../words/length.js';
import type { KeptSheet } from '../../document/schema.js';
import { needs, stepsOf, type Step } from './steps.js';

/** Cuts made one after the other without touching the fence. */
export interface FenceSetting {
  /** What the fence is set to, mm. */
  readonly setting: number;
  readonly kind: Step['kind'];
  /** Degrees off square, whichever way it leans. */
  readonly angle: number;
  readonly steps: readonly Step[];
  /** Ids of the sheets it touches, in order. */
  readonly sheets: readonly string[];
}

/** Settings that read the same at the fence are one: tenths of a millimetre, or the fraction of an inch that is shown. */
export const settingStep = (style: Pick<LengthStyle, 'units' | 'fraction'>): number =>
  style.units === 'mm' ? 0.1 : 25.4 / style.fraction;

/**
 * The order of work at the saw. At every point the setting is taken that no later cut asks for again, if there is one,
 * else the one with most cuts ready; of equals rips before crosscuts and long before short, so that sheets keep their
 * support. A cut is ready when the piece it crosses has been parted from its sheet. What is done comes first.
 * @param step settings are one when they are equal in whole steps of this, mm
 */
export function fenceOrder(sheets: readonly KeptSheet[], step = 0.1): FenceSetting[] {
  const done = new Set(sheets.flatMap((sheet) => sheet.done.map((name) => `${sheet.id} ${name}`)));
  const all = sheets.flatMap(stepsOf);
  const isDone = (cut: Step): boolean => done.has(`${cut.sheet} ${cut.name}`);
  return [
    ...inOrder(all.filter(isDone), step),
    ...inOrder(
      all.filter((cut) => !isDone(cut)),
      step,
    ),
  ];
}

function inOrder(open: readonly Step[], apart: number): FenceSetting[] {
  const keyOf = (step: Step): string => `${step.kind}:${Math.round(step.setting / apart)}:${Math.abs(step.angle)}`;
  const order: FenceSetting[] = [];
  const blockers = new Map<Step, Set<Step>>();
  for (const sheet of new Set(open.map((step) => step.sheet))) {
    const own = open.filter((step) => step.sheet === sheet);
    for (const step of own) blockers.set(step, new Set(own.filter((other) => needs(step, other))));
  }
  const left = new Set(open);
  while (left.size > 0) {
    const ready = [...left].filter((step) => [...(blockers.get(step) ?? [])].every((other) => !left.has(other)));
    const groups = new Map<string, Step[]>();
    for (const step of ready) groups.set(keyOf(step), [...(groups.get(keyOf(step)) ?? []), step]);
    const asked = new Map<string, number>();
    for (const step of left) asked.set(keyOf(step), (asked.get(keyOf(step)) ?? 0) + 1);
    const choices = [...groups.entries()].map(([key, steps]) => ({ steps, last: asked.get(key) === steps.length }));
    choices.sort((a, b) => {
      const [p, q] = [a.steps[0], b.steps[0]];
      if (!p || !q) return 0;
      return (
        Number(b.last) - Number(a.last) ||
        (a.last ? 0 : b.steps.length - a.steps.length) ||
        Number(p.kind !== 'rip') - Number(q.kind !== 'rip') ||
        q.setting - p.setting
      );
    });
    const chosen = choices[0]?.steps ?? [];
    const [first] = chosen;
    if (!first) break;
    for (const step of chosen) left.delete(step);
    order.push({
      setting: first.setting,
      kind: first.kind,
      angle: Math.abs(first.angle),
      steps: chosen,
      sheets: [...new Set(chosen.map((step) => step.sheet))],
    });
  }
  return order;
}

/** Seconds a cut takes as far as nothing was learned yet. */
export const USUAL_CUT_SECONDS = 120;

/** What a cut takes, s: the middle one of those timed, or the usual figure while fewer than three were. */
export function secondsPerCut(timed: readonly number[]): { readonly seconds: number; readonly learned: number } {
  const sorted = [...timed].sort((a, b) => a - b);
  return timed.length < 3
    ? { seconds: USUAL_CUT_SECONDS, learned: timed.length }
    : { seconds: sorted[Math.floor(sorted.length / 2)] ?? USUAL_CUT_SECONDS, learned: timed.length };
}
