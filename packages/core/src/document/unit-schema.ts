import { z } from 'zod';
import { gapSchema, idSchema, nameSchema, positionSchema, sizeSchema } from './schema-base.js';

/** Where a unit stands in the room: lengths in mm from the front datum, the centre line and the finished floor. */
export const bodySchema = z.discriminatedUnion('stands', [
  /** With its back to a side wall and its front on a line parallel to the centre line. */
  z.strictObject({
    stands: z.enum(['left', 'right']),
    x: positionSchema,
    length: sizeSchema,
    /** From the centre line to the front. */
    front: positionSchema,
    from: gapSchema,
    to: sizeSchema,
  }),
  /** From wall to wall. */
  z.strictObject({
    stands: z.literal('across'),
    x: positionSchema,
    length: sizeSchema,
    from: gapSchema,
    to: sizeSchema,
  }),
]);

/** How a face of the body meets the vehicle. */
export const meetSchema = z.discriminatedUnion('how', [
  /** Cut to the true curve; so much is left on, to be taken off when it is fitted, mm. */
  z.strictObject({ how: z.literal('scribed'), allowance: gapSchema }),
  /** Stands close on it over its whole area. */
  z.strictObject({ how: z.literal('square') }),
  /** No board there: air and hands pass. */
  z.strictObject({ how: z.literal('open') }),
]);
export const FACES = ['back', 'left', 'right', 'end-front', 'end-rear', 'top', 'foot'] as const;
export const meetsSchema = z.partialRecord(z.enum(FACES), meetSchema);

/** What a bay holds. */
export const contentSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('open') }),
  /** So many shelves, evenly spaced. */
  z.strictObject({ kind: z.literal('shelves'), count: z.int().min(1).max(8) }),
]);
/** What closes a bay. */
export const frontSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('none') }),
  /** Hinged doors of one width side by side. */
  z.strictObject({ kind: z.literal('doors'), count: z.int().min(1).max(6) }),
]);
export const baySchema = z.strictObject({
  /** Lasts: what is cut for it, waited for or logged keeps pointing at it. */
  name: idSchema,
  holds: contentSchema,
  front: frontSchema,
});
const sizeOrShareSchema = z.union([sizeSchema, z.strictObject({ share: z.number().positive().max(100) })]);

export type Bay = z.infer<typeof baySchema>;
/** A bay, or a cut into several: `along` by uprights, `up` by levels. Sizes are clear, in mm or in shares of what is left. */
export type Division =
  | Bay
  | {
      cut: 'along' | 'up';
      divider: 'board' | 'none';
      sizes: (number | { share: number })[];
      parts: Division[];
    };
export const divisionSchema: z.ZodType<Division> = z.lazy(() =>
  z.union([
    baySchema,
    z.strictObject({
      cut: z.enum(['along', 'up']),
      divider: z.enum(['board', 'none']),
      sizes: z.array(sizeOrShareSchema).min(2).max(12),
      parts: z.array(divisionSchema).min(2).max(12),
    }),
  ]),
);

export const optionSchema = z.union([z.number(), z.boolean(), z.string().max(80), z.array(idSchema).max(40)]);
/** One piece of furniture or joinery. What its family adds stands in `options` and is checked by the family. */
export const unitSchema = z.strictObject({
  id: idSchema,
  family: idSchema,
  name: nameSchema,
  body: bodySchema,
  meets: meetsSchema,
  division: divisionSchema,
  /** How it is made. */
  school: idSchema,
  /** What it is made of, by what the material is for. */
  materials: z.record(idSchema, idSchema),
  options: z.record(idSchema, optionSchema),
});
/** The furniture as it stands: later also its modes and the things in it. */
export const layoutSchema = z.strictObject({ units: z.array(unitSchema).max(200) });

export type Body = z.infer<typeof bodySchema>;
export type Meet = z.infer<typeof meetSchema>;
export type Face = (typeof FACES)[number];
export type Content = z.infer<typeof contentSchema>;
export type BayFront = z.infer<typeof frontSchema>;
export type OptionValue = z.infer<typeof optionSchema>;
export type Unit = z.infer<typeof unitSchema>;
export type Layout = z.infer<typeof layoutSchema>;
