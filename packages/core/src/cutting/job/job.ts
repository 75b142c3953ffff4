import { toUnits, UNITS_PER_MM } from './units.js';
import { z } from 'zod';
import { FINE, outlineArea, type Dot, type Outline } from './outline.js';
import { barEndsSchema, cutPlanSchema, type CutPlan } from '../../document/schema.js';
import type { Mitred } from './mitred.js';

const size = z.number().positive().max(100_000);
const gap = z.number().min(0).max(1000);

/** The open cut-job format, version 1. Lengths in mm, prices in minor units; grain runs along a sheet's length. */
export const cutJobSchema = z.strictObject({
  format: z.literal('cut-job'),
  version: z.literal(1),
  kind: z.enum(['sheet', 'bar']),
  kerf: z.number().min(0).max(100),
  trim: z.union([gap, z.strictObject({ length: gap, width: gap })]).default(0),
  endTrim: gap.default(0),
  method: z.enum(['guillotine', 'free']).default('guillotine'),
  stock: z
    .array(
      z.strictObject({
        id: z.string().min(1),
        length: size,
        width: size.optional(),
        quantity: z.int().min(0).nullable().default(null),
        price: z.int().min(0),
        offcut: z.boolean().default(false),
      }),
    )
    .min(1)
    .max(1000),
  parts: z
    .array(
      z.strictObject({
        id: z.string().min(1),
        length: size,
        width: size.optional(),
        quantity: z.int().min(1).max(5000).default(1),
        mayTurn: z.boolean().default(false),
        outline: z
          .array(z.tuple([z.number(), z.number()]))
          .min(3)
          .optional(),
        /** Bars only: angles of the ends; the length is then between the long points, and a width is needed. */
        ends: barEndsSchema.optional(),
      }),
    )
    .max(2000),
});
export type CutJob = z.output<typeof cutJobSchema>;
export { cutPlanSchema, type CutPlan };

/** The width every bar and bar part is given, so that bars are sheets one part wide. */
const BAR_WIDTH_MM = 1;

export interface EngineStock {
  readonly id: string;
  readonly length: number;
  readonly width: number;
  readonly price: number;
  /** How many there are; Infinity when as many as wanted can be bought. */
  readonly quantity: number;
}
/** Parts of one size, however they are named: the engine sees sizes. */
export interface EnginePart {
  /** One id for each piece, in the order in which they are handed out. */
  readonly ids: readonly string[];
  readonly length: number;
  readonly width: number;
  readonly quantity: number;
  readonly mayTurn: boolean;
  /** True outline in thousandths of a millimetre, where places are free and the part is no rectangle. */
  readonly outline?: Outline;
  /** Bars: a part whose ends are not square. Its length is then the one along its middle. */
  readonly ends?: Mitred;
}
/** A job in the engine's units, trims taken off. Parts that no stock can give are set apart. */
export interface EngineJob {
  /** Bars: everything is one part wide. */
  readonly bars: boolean;
  /** Bars of which some parts have ends that are not square. */
  readonly mitred: boolean;
  /** Parts may lie anywhere, by their true outlines. */
  readonly free: boolean;
  readonly kerf: number;
  readonly stock: readonly EngineStock[];
  readonly parts: readonly EnginePart[];
  readonly tooLarge: CutPlan['unplaced'];
}

/** Whether a part's rectangle fits a sheet upright or, if it may, turned. */
export function fits(
  part: Pick<EnginePart, 'length' | 'width' | 'mayTurn' | 'ends'>,
  stock: { length: number; width: number },
): boolean {
  if (part.ends) return part.ends.long <= stock.length;
  return (
    (part.length <= stock.length && part.width <= stock.width) ||
    (part.mayTurn && part.width <= stock.length && part.length <= stock.width)
  );
}

function whyTooLarge(part: EnginePart, stock: readonly EngineStock[]): CutPlan['unplaced'][number]['why'] {
  if (part.ends) return 'longer';
  if (stock.some((s) => part.width <= s.length && part.length <= s.width)) return 'turn';
  if (stock.every((s) => part.length > s.length)) return stock.every((s) => part.width > s.width) ? 'both' : 'longer';
  return 'wider';
}

function mergeSizes(parts: readonly EnginePart[]): EnginePart[] {
  const bySize = new Map<string, EnginePart>();
  for (const part of parts) {
    const key = `${part.length}:${part.width}:${String(part.mayTurn)}:${part.outline?.join(' ') ?? ''}:${part.ends ? Object.values(part.ends).join(' ') : ''}`;
    const same = bySize.get(key);
    bySize.set(
      key,
      same ? { ...same, ids: [...same.ids, ...part.ids], quantity: same.quantity + part.quantity } : part,
    );
  }
  return [...bySize.values()];
}

/** A part's length; of a bar part with angled ends the one along its middle, which no two pieces can share. */
function lengthOf(part: CutJob['parts'][number], bar: boolean): Pick<EnginePart, 'length' | 'ends'> {
  const long = toUnits(part.length);
  const { ends } = part;
  if (!bar || !ends || (ends.start === 0 && ends.end === 0)) return { length: long };
  const width = toUnits(part.width ?? 0);
  const back = (angle: number): number => Math.round(width * Math.tan((angle * Math.PI) / 180));
  const [start, end] = [back(ends.start), back(ends.end)];
  return { length: Math.floor(long - (Math.abs(start) + Math.abs(end)) / 2), ends: { long, start, end, width } };
}

/** Turns a job into the engine's units. */
export function engineJob(job: CutJob): EngineJob {
  const trim = typeof job.trim === 'number' ? { length: job.trim, width: job.trim } : job.trim;
  const bar = job.kind === 'bar';
  const barWidth = job.stock[0]?.width ?? BAR_WIDTH_MM;
  const free = job.method === 'free' && !bar;
  const stock = job.stock.map((s): EngineStock => {
    const ends = s.offcut ? 0 : bar ? job.endTrim : trim.length;
    const edges = s.offcut || bar ? 0 : trim.width;
    return {
      id: s.id,
      length: toUnits(s.length - 2 * ends),
      width: toUnits((bar ? barWidth : (s.width ?? BAR_WIDTH_MM)) - 2 * edges),
      price: s.price,
      quantity: s.quantity ?? Infinity,
    };
  });
  const parts = mergeSizes(
    job.parts.map((p): EnginePart => ({
      ids: Array.from({ length: p.quantity }, () => p.id),
      ...lengthOf(p, bar),
      width: toUnits(bar ? barWidth : (p.width ?? BAR_WIDTH_MM)),
      quantity: p.quantity,
      mayTurn: p.mayTurn && (!bar || p.ends !== undefined),
      ...(free && p.outline
        ? { outline: p.outline.map(([x, y]): Dot => [Math.round(x * FINE), Math.round(y * FINE)]) }
        : {}),
    })),
  );
  const usable = stock.filter((s) => s.length > 0 && s.width > 0 && s.quantity > 0);
  const large = parts.filter((part) => !usable.some((s) => fits(part, s)));
  return {
    bars: bar,
    mitred: parts.some((part) => part.ends !== undefined),
    free,
    kerf: toUnits(job.kerf),
    stock: usable,
    parts: parts.filter((part) => !large.includes(part)),
    tooLarge: large.flatMap((part) =>
      [...new Set(part.ids)].map((id) => ({
        part: id,
        quantity: part.ids.filter((other) => other === id).length,
        why: whyTooLarge(part, usable),
      })),
    ),
  };
}

/**
 * The space a part takes up, in square engine units: its rectangle grown by a kerf, or where places are free the area
 * within its outline.
 */
export function areaOfPart(job: EngineJob, part: EnginePart): number {
  if (!job.free) return (part.length + job.kerf) * (part.width + job.kerf);
  return part.outline ? outlineArea(part.outline) * (UNITS_PER_MM / FINE) ** 2 : part.length * part.width;
}
