import { z } from 'zod';
import { gapSchema, idSchema, moneySchema, nameSchema, sizeSchema } from './schema-base.js';

/** What a thing has to be connected to. */
export const CONNECTIONS = ['12 V', 'mains', 'water', 'waste', 'gas', 'air', 'flue', 'fuel'] as const;
/** A face of a thing as one stands before it. */
export const THING_FACES = ['front', 'back', 'left', 'right', 'top', 'foot'] as const;
const faceSchema = z.enum(THING_FACES);

/** An appliance or another thing of a fixed size, as its data sheet states: what is not stated is null. Sizes in mm. */
export const thingSchema = z.strictObject({
  id: idSchema,
  name: nameSchema,
  kind: z.enum([
    'sink',
    'cooker',
    'oven',
    'cold-box',
    'heater',
    'water',
    'tank',
    'battery',
    'electric',
    'gas',
    'toilet',
    'fan',
    'lamp',
    'socket',
    'own',
  ]),
  /** Along the front, from front to back, and up. */
  width: sizeSchema,
  depth: sizeSchema,
  height: sizeSchema,
  /** Empty, kg. */
  mass: z.number().min(0).max(1000),
  /** What it holds when full, kg. */
  holds: z.number().min(0).max(1000),
  /** How it opens: a lid at the top, a door at the front with its hinges at one side, a flap, or something pulled out. */
  opens: z.enum(['no', 'lid', 'door-left', 'door-right', 'flap', 'drawer']),
  /** Kept free round it, mm. */
  clear: z.strictObject({ side: gapSchema, back: gapSchema, top: gapSchema, front: gapSchema }),
  connects: z.array(z.enum(CONNECTIONS)).max(8),
  /** The faces from which it is looked after. */
  service: z.array(faceSchema).max(6),
  /** Heat it gives off where it stands, W. */
  heat: z.number().min(0).max(20_000),
  /** Openings for air in and out that its sheet asks for, cm2; null where it states none. */
  air: z.strictObject({ inlet: z.number().min(0).max(2000), outlet: z.number().min(0).max(2000) }).nullable(),
  /** The opening it hangs in, in a worktop or front. */
  cutOut: z.strictObject({ length: sizeSchema, width: sizeSchema, radius: gapSchema }).nullable(),
  /** What it draws, W, and for how many hours of a day. */
  draws: z.number().min(0).max(10_000),
  hours: z.number().min(0).max(24),
  /** What it gives at mains for long, W, as the sheet of an inverter states it; 0 for what gives none; left out or null where nobody looked it up. */
  gives: z.number().min(0).max(20_000).nullable().optional(),
  /** What it costs, minor units: nothing for what is there already; left out or null while nobody knows. */
  price: moneySchema.nullable().optional(),
  /** Where the figures are from. */
  source: z.string().trim().max(120),
});

/** A thing that is kept in the vehicle: its size, how many, and in which bay. */
export const storedSchema = z.strictObject({
  id: idSchema,
  name: nameSchema,
  length: sizeSchema,
  width: sizeSchema,
  height: sizeSchema,
  mass: z.number().min(0).max(500),
  count: z.int().min(1).max(500),
  /** Whether it may be turned on its side. */
  turns: z.boolean(),
  /** Where it is kept; null while nobody has said. */
  kept: z.strictObject({ unit: idSchema, bay: idSchema }).nullable(),
});

/** The masses that the papers allow, kg, and where the axles stand; null where they were not looked up. */
export const limitsSchema = z.strictObject({
  /** The most it may weigh with everything, and what it weighs bare. */
  most: z.number().positive().max(60_000).nullable(),
  bare: z.number().positive().max(60_000).nullable(),
  /** From the front datum, mm: the front axle of a van lies before it. A trailer has its coupling in its place. */
  frontAxle: z.number().min(-10_000).max(20_000).nullable(),
  rearAxle: z.number().min(-10_000).max(20_000).nullable(),
  mostFront: z.number().positive().max(60_000).nullable(),
  mostRear: z.number().positive().max(60_000).nullable(),
  /** What the front axle, or the coupling, carries bare. */
  bareFront: z.number().min(0).max(60_000).nullable(),
  /** For a trailer: least and most share of its mass on the coupling. */
  nose: z.strictObject({ least: z.number().min(0).max(0.5), most: z.number().min(0).max(0.5) }).nullable(),
});

/** What a client or partner wants, tied to a check or signed off by hand. */
export const wishSchema = z.strictObject({
  id: idSchema,
  text: z.string().trim().min(1).max(400),
  who: z.string().trim().max(80),
  /** The unit it concerns, and the rule that decides it; null where somebody signs it off. */
  unit: idSchema.nullable(),
  rule: idSchema.nullable(),
  signed: z.iso.datetime().nullable(),
});

export type Thing = z.infer<typeof thingSchema>;
export type Stored = z.infer<typeof storedSchema>;
export type Limits = z.infer<typeof limitsSchema>;
export type Wish = z.infer<typeof wishSchema>;
export type Connection = (typeof CONNECTIONS)[number];
export type ThingFace = (typeof THING_FACES)[number];
