import { z } from 'zod';
import { idSchema, moneySchema, positionSchema } from './schema-base.js';

/** A task by its name in the order of work. */
const taskIdSchema = z.string().min(1).max(120);
const saidSchema = z.string().trim().max(400);
/** Who did it, as they call themselves; empty where nobody said. */
const whoSchema = z.string().trim().max(80);
/** No task takes longer than this, minutes. */
const minutesSchema = z.number().min(0).max(100_000);

/** What became of one task: it stays, whatever becomes of the design. */
export const workedSchema = z.strictObject({
  task: taskIdSchema,
  /** What it was called when it was last touched. */
  title: saidSchema,
  /** What kind of work it is, for what its hours teach. */
  kind: idSchema,
  /** What it was thought to take when it was last touched, minutes. */
  estimate: minutesSchema,
  /** Since when it is being worked on; null while nobody does. */
  since: z.iso.datetime().nullable(),
  /** Worked on before that, minutes. */
  minutes: minutesSchema,
  done: z.iso.datetime().nullable(),
  /** Not before this day; null where nobody put it off. */
  notBefore: z.iso.date().nullable(),
  by: whoSchema,
  /** A fingerprint of what it was made of when it was ticked; empty while it is not. */
  covers: z.string().max(40),
});

/** What an entry of the logbook is. */
export const LOG_KINDS = [
  'note',
  'photo',
  'reading',
  'hours',
  'money',
  'decision',
  'mistake',
  'snag',
  'test',
  'lesson',
] as const;
/** One entry of the logbook: nothing is taken out of it, but it can be struck through for a reason. */
export const logEntrySchema = z.strictObject({
  id: idSchema,
  kind: z.enum(LOG_KINDS),
  at: z.iso.datetime(),
  text: z.string().trim().max(2000),
  by: whoSchema,
  /** What it is about: a task, a part, a place along the vehicle (mm from the front datum); null where it is about none. */
  task: taskIdSchema.nullable(),
  /** Of which kind of work that task was: a lesson comes up again with it. */
  work: idSchema.nullable(),
  part: z.string().min(1).max(80).nullable(),
  x: positionSchema.nullable(),
  minutes: minutesSchema.nullable(),
  money: moneySchema.nullable(),
  photo: z.string().max(60).nullable(),
  /** Of a test: whether it was passed. */
  passed: z.boolean().nullable(),
  struck: z.strictObject({ reason: saidSchema.min(1), at: z.iso.datetime() }).nullable(),
});

/** What was done and what was written down: the tasks touched, and the logbook in the order it was written. */
export const recordSchema = z.strictObject({
  tasks: z.array(workedSchema).max(5000),
  log: z.array(logEntrySchema).max(10_000),
});

export type Worked = z.output<typeof workedSchema>;
export type LogEntry = z.output<typeof logEntrySchema>;
export type LogKind = LogEntry['kind'];
/** What was done and what was written down. */
export type BuildRecord = z.output<typeof recordSchema>;
