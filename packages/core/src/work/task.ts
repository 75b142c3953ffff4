import type { Message } from '../words/message.js';

/** Kinds of work: what the hours of one teach, goes for the next of its kind. */
export const TASK_KINDS = [
  'find',
  'test',
  'hole',
  'run',
  'wire',
  'back',
  'batten',
  'insulate',
  'line',
  'cut',
  'trial',
  'seal',
  'glue',
  'lay',
  'coat',
  'sand',
  'assemble',
  'fit',
] as const;
export type TaskKind = (typeof TASK_KINDS)[number];

/** One piece of work, the work it waits for, and the time that must pass before what follows. */
export interface Task {
  readonly id: string;
  readonly kind: TaskKind;
  readonly title: Message;
  /** What was written at what it is about, in the person's own words. */
  readonly note?: string;
  /** The surface of the vehicle it is done on, by its id, or the unit; both left out where it is neither. */
  readonly surface?: string;
  readonly unit?: string;
  /** The parts that are worked on, by their ids. */
  readonly parts?: readonly string[];
  /** Fixings and hardware that go into it: book entries, and how many of each. */
  readonly fixings?: readonly { readonly item: string; readonly amount: number }[];
  readonly minutes: number;
  /** Waiting time after it that is not work: curing, drying. Hours. */
  readonly lagHours: number;
  readonly lagWhy: Message | null;
  readonly after: readonly string[];
  readonly caution: Message | null;
  /** What to have at hand. */
  readonly tools: Message;
  /** What has to be decided, done or read before it: it covers something for good. */
  readonly open: readonly Message[];
  /** It is done in one go, not broken off for the night. */
  readonly unbroken?: boolean;
  /** It begins no later than so many hours after the work of another ended; where it would, other work goes before it. */
  readonly within?: { readonly after: string; readonly hours: number; readonly else: Task };
}
