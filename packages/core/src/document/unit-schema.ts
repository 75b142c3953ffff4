import { z } from 'zod';
import { gapSchema, idSchema, nameSchema, positionSchema, sizeSchema } from './schema-base.js';

/** A height above the finished floor at which something begins, mm. */
const heightSchema = z.number().min(0).max(5000);

/** Where a unit stands in the room: lengths in mm from the front datum, the centre line and the finished floor. */
export const bodySchema = z.discriminatedUnion('stands', [
  /** With its back to a side wall and its front on a line parallel to the centre line. */
  z.strictObject({
    stands: z.enum(['left', 'right']),
    x: positionSchema,
    length: sizeSchema,
    /** From the centre line to the front. */
    front: positionSchema,
    from: heightSchema,
    to: sizeSchema,
  }),
  /** From wall to wall. */
  z.strictObject({
    stands: z.literal('across'),
    x: positionSchema,
    length: sizeSchema,
    from: heightSchema,
    to: sizeSchema,
  }),
  /** Free in the room: a table, an island, a thing that stands alone. */
  z.strictObject({
    stands: z.literal('free'),
    x: positionSchema,
    length: sizeSchema,
    /** Its left side from the centre line, right positive, and how wide it is across. */
    y: positionSchema,
    width: sizeSchema,
    from: heightSchema,
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
  /** A stack of drawers of one height; a latch holds them shut on the road. */
  z.strictObject({ kind: z.literal('drawers'), count: z.int().min(1).max(8), latch: z.boolean() }),
  /** A frame that slides out of the bay with what stands on it. */
  z.strictObject({ kind: z.literal('pull-out'), thing: idSchema.nullable(), travel: sizeSchema, latch: z.boolean() }),
  /** A rail to hang clothes on, across the bay or pulled out along its depth. */
  z.strictObject({ kind: z.literal('rail'), along: z.enum(['bay', 'depth']) }),
  /** An appliance or another thing with a data sheet. */
  z.strictObject({ kind: z.literal('thing'), thing: idSchema }),
  /** Cables, ducts and pipes run here. */
  z.strictObject({ kind: z.literal('chase') }),
  /** Goods stand on the floor of it. */
  z.strictObject({ kind: z.literal('hold') }),
]);
/** What closes a bay. */
export const frontSchema = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('none') }),
  /** Hinged doors of one width side by side. */
  z.strictObject({ kind: z.literal('doors'), count: z.int().min(1).max(6), latch: z.boolean().optional() }),
  /** Hinged at its foot, it comes down; or at its head, held up by struts. */
  z.strictObject({ kind: z.enum(['flap-down', 'lift-up']), latch: z.boolean() }),
  /** Screwed on in sight: it comes off with a driver. */
  z.strictObject({ kind: z.literal('panel') }),
  /** Two in channels, one before the other. */
  z.strictObject({ kind: z.literal('sliding'), latch: z.boolean() }),
  z.strictObject({ kind: z.literal('curtain') }),
]);
/** No opening for air is larger, cm2. */
export const MOST_VENT = 3000;
export const ventsSchema = z.strictObject({
  low: z.number().min(0).max(MOST_VENT),
  high: z.number().min(0).max(MOST_VENT),
  /** What a fan in one of them moves while the thing is warm, m3 an hour; left out where there is none. */
  fan: z.number().min(0).max(2000).optional(),
});

export const baySchema = z.strictObject({
  /** Lasts: what is cut for it, waited for or logged keeps pointing at it. */
  name: idSchema,
  holds: contentSchema,
  front: frontSchema,
  /** Openings for air cut in its front, at its foot and at its head, cm2. */
  vents: ventsSchema.optional(),
});
const sizeOrShareSchema = z.union([
  sizeSchema,
  z.strictObject({ share: z.number().positive().max(100) }),
  /** As the thing in it needs, by its data sheet. */
  z.literal('as needed'),
]);
export type BaySize = z.infer<typeof sizeOrShareSchema>;

export type Bay = z.infer<typeof baySchema>;
/** Which way a bay is cut: `along` by uprights, `up` by levels, `deep` from its front backward. */
export const CUTS = ['along', 'up', 'deep'] as const;
export type CutWay = (typeof CUTS)[number];
/** What stands between the parts of a cut: a whole board, one with a large opening, or nothing. */
export const DIVIDERS = ['board', 'frame', 'none'] as const;
/** A bay, or a cut into several. Sizes are clear, in mm or in shares of what is left. */
export type Division =
  | Bay
  | {
      cut: CutWay;
      divider: (typeof DIVIDERS)[number];
      sizes: BaySize[];
      parts: Division[];
    };
export const divisionSchema: z.ZodType<Division> = z.lazy(() =>
  z.union([
    baySchema,
    z.strictObject({
      cut: z.enum(CUTS),
      divider: z.enum(DIVIDERS),
      sizes: z.array(sizeOrShareSchema).min(2).max(12),
      parts: z.array(divisionSchema).min(2).max(12),
    }),
  ]),
);

/** What moves, by its lasting name: `kitchen.bay-2.door-1`. */
export const motionIdSchema = z.string().regex(/^[A-Za-z0-9][A-Za-z0-9_.-]{0,179}$/, 'the name of a part that moves');

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
/** What a layout is used for at one time, and how far everything that moves is then moved: 0 shut or put away, 1 fully. */
export const modeSchema = z.strictObject({
  id: idSchema,
  name: nameSchema,
  use: z.enum(['night', 'day', 'meal', 'drive', 'own']),
  states: z.record(motionIdSchema, z.number().min(0).max(1)),
});

/** A check that is put aside, with the reason that stays beside it. */
export const asideSchema = z.strictObject({
  check: z.string().min(1).max(200),
  reason: z.string().trim().min(1).max(400),
  at: z.iso.datetime(),
});

const floorPointSchema = z.tuple([z.number().min(-50_000).max(50_000), z.number().min(-50_000).max(50_000)]);
/** A unit's outline as it was taped or laid out on the real floor: its four corners then, [from the front datum, right of the centre line], mm. */
export const tapedSchema = z.strictObject({
  unit: idSchema,
  corners: z.tuple([floorPointSchema, floorPointSchema, floorPointSchema, floorPointSchema]),
});

export const RUN_KINDS = ['cable', 'water', 'waste', 'gas', 'duct', 'flue', 'fuel'] as const;
const roomPointSchema = z.tuple([
  z.number().min(-50_000).max(50_000),
  z.number().min(-50_000).max(50_000),
  z.number().min(-5000).max(10_000),
]);
/** Where a run begins or ends: in a bay, or at a place in the vehicle, [from the front datum, right of the centre line, above the floor], mm. */
const runEndSchema = z.union([
  z.strictObject({ unit: idSchema, bay: idSchema }),
  z.strictObject({ at: roomPointSchema }),
]);
/** A cable, pipe or duct from one place to another: through every board that stands in its way goes a hole. */
export const runSchema = z.strictObject({
  id: idSchema,
  name: nameSchema,
  kind: z.enum(RUN_KINDS),
  /** Outside, of the bundle or the pipe, mm. */
  diameter: sizeSchema,
  /** Null while nobody has said where. */
  from: runEndSchema.nullable(),
  to: runEndSchema.nullable(),
  /** Places it goes by on its way; it finds its own way along the wall where there are none. */
  via: z.array(roomPointSchema).max(20),
  /** A cable's copper, mm2, its voltage, and the fuse it is behind, A; null while not known. */
  wire: z
    .strictObject({
      volts: z.number().positive().max(400),
      copper: z.number().positive().max(200).nullable(),
      fuse: z.number().positive().max(500).nullable(),
    })
    .optional(),
});

/** Where an animal lies: with its middle at a place on the finished floor, along the vehicle or turned across it; or in a bay. */
export const denSchema = z.strictObject({
  pet: idSchema,
  at: z.union([
    z.strictObject({
      x: z.number().min(-50_000).max(50_000),
      y: z.number().min(-50_000).max(50_000),
      turned: z.boolean(),
    }),
    z.strictObject({ unit: idSchema, bay: idSchema }),
  ]),
});

/** The furniture as it stands, its modes, and what was put aside of what the rules say. */
export const layoutSchema = z.strictObject({
  units: z.array(unitSchema).max(300),
  modes: z.array(modeSchema).max(20).optional(),
  aside: z.array(asideSchema).max(500).optional(),
  /** What is taped out on the real floor. */
  taped: z.array(tapedSchema).max(300).optional(),
  /** Cables, pipes and ducts through it. */
  runs: z.array(runSchema).max(200).optional(),
  /** Where animals lie. */
  dens: z.array(denSchema).max(12).optional(),
});
/** A layout kept to be compared with or returned to. */
export const variantSchema = z.strictObject({ id: idSchema, name: nameSchema, layout: layoutSchema });

export type Body = z.infer<typeof bodySchema>;
export type Meet = z.infer<typeof meetSchema>;
export type Face = (typeof FACES)[number];
export type Content = z.infer<typeof contentSchema>;
export type BayFront = z.infer<typeof frontSchema>;
export type OptionValue = z.infer<typeof optionSchema>;
export type Unit = z.infer<typeof unitSchema>;
export type Mode = z.infer<typeof modeSchema>;
export type Aside = z.infer<typeof asideSchema>;
export type Run = z.infer<typeof runSchema>;
export type RunEnd = z.infer<typeof runEndSchema>;
export type RunKind = Run['kind'];
export type Den = z.infer<typeof denSchema>;
export type Taped = z.infer<typeof tapedSchema>;
export type Variant = z.infer<typeof variantSchema>;
export type Layout = z.infer<typeof layoutSchema>;
