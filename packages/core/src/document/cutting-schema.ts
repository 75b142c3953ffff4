import { z } from 'zod';
import { gapSchema, idSchema, moneySchema, sizeSchema } from './schema-base.js';

export const cuttingSettingsSchema = z.strictObject({
  kerf: z.number().min(0).max(20),
  trim: z.number().min(0).max(200),
  smallestOffcut: z.number().min(0).max(5000),
  /** Straight cuts from edge to edge, or true outlines cut out one by one. */
  method: z.enum(['guillotine', 'free']),
  /** What one person is to carry at most: kg, and the longest side in mm. */
  carry: z.strictObject({ mass: z.number().min(1).max(200), length: sizeSchema }),
  /** The largest piece that goes home from the merchant, mm. */
  car: z.strictObject({ length: sizeSchema, width: sizeSchema }),
});

export const placementSchema = z.strictObject({
  part: z.string(),
  x: z.number(),
  y: z.number(),
  turned: z.boolean(),
  /** Where places are free: how far the outline is turned about its rectangle, degrees anticlockwise. */
  angle: z.union([z.literal(0), z.literal(90), z.literal(180), z.literal(270)]).optional(),
  /** A bar part turned over about its length, so that its edges change places. */
  flipped: z.boolean().optional(),
});
/** How far the ends of a bar part are off square, degrees: positive where the long point is at the far edge. */
export const barEndsSchema = z.strictObject({ start: z.number().min(-80).max(80), end: z.number().min(-80).max(80) });
export const cutSchema = z.strictObject({
  axis: z.enum(['rip', 'crosscut']),
  at: z.number(),
  from: z.number(),
  to: z.number(),
  level: z.int(),
  /** Where the piece that is cut begins and ends across the cut; at - edge is what the fence is set to. */
  edge: z.number(),
  far: z.number(),
  /** A cut across a bar that is not square: degrees it leans to the bar's end; `at` is then at the near edge. */
  angle: z.number().optional(),
});
export const planSheetSchema = z.strictObject({
  stock: z.string(),
  placements: z.array(placementSchema),
  cuts: z.array(cutSchema),
  offcuts: z.array(z.strictObject({ x: z.number(), y: z.number(), length: z.number(), width: z.number() })),
});
export const cutPlanSchema = z.strictObject({
  format: z.literal('cut-plan'),
  version: z.literal(1),
  sheets: z.array(planSheetSchema),
  unplaced: z.array(
    z.strictObject({ part: z.string(), quantity: z.int(), why: z.enum(['turn', 'longer', 'wider', 'both', 'stock']) }),
  ),
  cost: z.number(),
  bound: z.number(),
  proved: z.boolean(),
  seconds: z.number(),
});

/** The outline of a part and the openings in it, each as its corners in a row: x, y, x, y, mm. None for a plain rectangle. */
export const drawnShapeSchema = z.array(z.array(z.number().min(-100_000).max(100_000)).max(1000)).max(200);
/** A part on a sheet of a kept plan, with the size it was laid out at: what is cut is cut, whatever the design does later. */
export const keptPlacementSchema = placementSchema.extend({
  length: sizeSchema,
  width: sizeSchema,
  /** A spoiled piece was cut wrong: it is no part any more. */
  spoiled: z.boolean(),
  locked: z.boolean(),
  /** The angles of a bar part's ends where they are not square. */
  ends: barEndsSchema.optional(),
  /** What was drawn on it when it was sawn. */
  shape: drawnShapeSchema.optional(),
});
export const keptSheetSchema = z.strictObject({
  id: idSchema,
  stock: z.string().max(80),
  /** Usable size, trims taken off, mm. */
  length: sizeSchema,
  width: sizeSchema,
  trim: gapSchema,
  price: moneySchema,
  /** The offcut it is, when it is no new sheet. */
  offcut: z.string().max(80).nullable(),
  placements: z.array(keptPlacementSchema).max(2000),
  cuts: z.array(cutSchema).max(4000),
  left: z.array(z.strictObject({ x: z.number(), y: z.number(), length: z.number(), width: z.number() })).max(4000),
  /** Steps that are done, by their names. */
  done: z.array(z.string().max(120)).max(4000),
});
export const keptPlanSchema = z.strictObject({
  material: idSchema,
  /** Fingerprint of the job it was found for. */
  job: z.string().max(64),
  sheets: z.array(keptSheetSchema).max(400),
  bound: moneySchema,
  proved: z.boolean(),
});
/** A piece left over that is worth keeping, and where it stands. */
export const offcutSchema = z.strictObject({
  id: idSchema,
  material: idSchema,
  length: sizeSchema,
  width: sizeSchema,
  place: z.string().trim().max(80),
});
/** A part that is not cut before its real gap was read; with its size once it was. */
export const waitSchema = z.strictObject({
  part: z.string().min(1).max(80),
  read: z.strictObject({ length: sizeSchema, width: sizeSchema }).nullable(),
});
/** Something that was cut or bought and cannot be used, and why. */
export const wasteSchema = z.strictObject({
  id: idSchema,
  material: idSchema,
  part: z.string().max(80),
  length: sizeSchema,
  width: sizeSchema,
  cost: moneySchema,
  reason: z.string().trim().min(1).max(200),
  remedy: z.enum(['patch', 'recut', 'smaller']),
  date: z.iso.date(),
});

export type DrawnShape = z.infer<typeof drawnShapeSchema>;
export type KeptPlan = z.infer<typeof keptPlanSchema>;
export type KeptSheet = z.infer<typeof keptSheetSchema>;
export type KeptPlacement = z.infer<typeof keptPlacementSchema>;
export type Offcut = z.infer<typeof offcutSchema>;
export type Wait = z.infer<typeof waitSchema>;
export type Waste = z.infer<typeof wasteSchema>;
export type CutPlan = z.infer<typeof cutPlanSchema>;
export type PlanSheet = z.infer<typeof planSheetSchema>;
export type BarEnds = z.infer<typeof barEndsSchema>;
export type SawCut = z.infer<typeof cutSchema>;
