import { z } from 'zod';
import { cuttingSettingsSchema, keptPlanSchema, offcutSchema, waitSchema, wasteSchema } from './cutting-schema.js';
import {
  boxesSchema,
  cornerSchema,
  doorLiningSchema,
  fittingSchema,
  floorChoiceSchema,
  floorHatchSchema,
  headerSchema,
  liningSchema,
  measuredSchema,
  patternSchema,
  reservedSchema,
  scribeSchema,
} from './lining-schema.js';
import { recordSchema } from './record-schema.js';
import type { KnownSurface } from './surfaces.js';
import { limitsSchema, storedSchema, thingSchema, wishSchema } from './thing-schema.js';
import { layoutSchema, RUN_KINDS, variantSchema } from './unit-schema.js';
import {
  idSchema,
  nameSchema,
  sizeSchema,
  thicknessSchema,
  gapSchema,
  moneySchema,
  positionSchema,
  contentsSchema,
  pitchOrNoneSchema,
  spacingSchema,
  stockSizeSchema,
} from './schema-base.js';

export * from './cutting-schema.js';
export * from './lining-schema.js';
export * from './record-schema.js';
export * from './thing-schema.js';
export * from './unit-schema.js';
export { layersOn, SURFACE_LIST, type KnownSurface, type SurfaceKind, type SurfaceTraits } from './surfaces.js';
export { idSchema, gapSchema } from './schema-base.js';

/**
 * The project document. Every length is in millimetres, money in minor units, times in ISO 8601.
 * The published JSON Schema in docs/formats is made from these definitions.
 */
export const PROJECT_FORMAT = 'nest-plank-project';
export const PROJECT_VERSION = 5;

export const sideSchema = z.enum(['left', 'right']);
export const methodSchema = z.enum(['tape', 'laser', 'template', 'angle-finder', 'estimate']);
export const addressSchema = z
  .string()
  .regex(/^[a-z]+(\/[A-Za-z0-9_.-]+)+$/, 'a place such as station/s1/left/700')
  .max(120);

/** No reading lies further from any datum than this, mm or degrees: the largest of the ranges of `allowedRange`. */
const READING_LARGEST = 20_000;
const readingValueSchema = z.number().min(-READING_LARGEST).max(READING_LARGEST);
export const readingSchema = z.strictObject({
  value: readingValueSchema,
  method: methodSchema,
  at: z.iso.datetime(),
  /** A photo of the tape where it was read. */
  photo: z.string().max(60).optional(),
  repeats: z.array(readingValueSchema).max(20).optional(),
});

/**
 * About where something was seen before the tape came out, as shares: 0 at the front to 1 at the rear; and up a wall from 0 to
 * 1, or across floor, ceiling and ends from -1 at the left to 1. Only drawn, never reckoned with.
 */
export const roughSchema = z.strictObject({ x: z.number().min(0).max(1), along: z.number().min(-1).max(1) });
/** What is asked in the look round before the walk. */
export const lookTopicSchema = z.enum(['ribs', 'openings', 'standing', 'under', 'people']);
/** When each was answered. */
export const lookedSchema = z.partialRecord(lookTopicSchema, z.iso.datetime());

/** A station that is not planned is read only where the walk was asked to: at one or two places that help most. */
export const stationSchema = z.strictObject({ id: idSchema, name: nameSchema, planned: z.boolean() });
/** Whatever stands into the room or under the floor's level: wheel arches, steps, tank humps, pillars, ducts. */
export const archSchema = z.strictObject({
  id: idSchema,
  name: nameSchema,
  side: sideSchema,
  kind: z.enum(['arch', 'step', 'hump', 'pillar', 'duct']),
  shape: z.enum(['box', 'rounded', 'tapered']),
  rough: roughSchema.optional(),
});
/** A ring runs round walls and roof at one x; a rib of the floor or roof alone belongs there. */
export const ribSchema = z.strictObject({
  id: idSchema,
  name: nameSchema,
  on: z.enum(['ring', 'left', 'right', 'roof', 'floor']),
  flat: z.boolean(),
  /** It leans along the vehicle or widens: its place and width are read a second time, at a height of its own. */
  leans: z.boolean().optional(),
  /** Its flanks taper: its width where it meets the skin is read too. */
  tapers: z.boolean().optional(),
  rough: roughSchema.optional(),
});
export const openingSchema = z.strictObject({
  id: idSchema,
  name: nameSchema,
  kind: z.enum(['window', 'door', 'hatch', 'fan']),
  surface: z.enum(['left', 'right', 'rear', 'front', 'roof']),
  cornerRadius: gapSchema,
  swing: z.enum(['fixed', 'slides', 'hinged', 'pair']),
  /** Where it is hinged, or which way it slides. */
  hand: z.enum(['none', 'front', 'rear', 'left', 'right', 'up']),
  /** Its upright sides lean: they are read at the head as well. */
  slanted: z.boolean(),
  /** A lining will meet its frame: the depth of the frame is read at its corners. */
  framed: z.boolean(),
  /** How far a sash, a blind or a hinged window comes into the room, mm; left out where nothing does. */
  sweep: gapSchema.nullable().optional(),
  /** Depth of the trim ring that was made or bought for it, mm; null when there is none yet. */
  ring: gapSchema.nullable(),
  rough: roughSchema.optional(),
});

const textSchema = z.string().trim().max(400);
export const placeSurfaceSchema = z.enum(['floor', 'left', 'right', 'rear', 'ceiling']);
export const keepOutSchema = z.strictObject({
  id: idSchema,
  name: nameSchema,
  reason: z.enum(['tank', 'axle', 'exhaust', 'beam', 'cable', 'other']),
  /** Under the floor, or on top of the roof; under the floor while nothing is said. */
  on: z.enum(['floor', 'roof']).optional(),
  note: textSchema,
  rough: roughSchema.optional(),
});
/** A hole that a service needs; until it is decided it has a place that may move. */
export const penetrationSchema = z.strictObject({
  id: idSchema,
  name: nameSchema,
  surface: placeSurfaceSchema,
  purpose: z.enum(['waste-water', 'gas', 'heater', 'drain', 'cable', 'air', 'other']),
  decided: z.boolean(),
  sealing: textSchema,
});
/** A surface whose slope is read with an angle finder. */
export const angleSchema = z.strictObject({ id: idSchema, name: nameSchema, surface: placeSurfaceSchema });
/** Something that was there before the build: with its place on the shell, and what is to become of it. */
export const foundSchema = z.strictObject({
  id: idSchema,
  name: nameSchema,
  kind: z.enum(['lining', 'wiring', 'hole', 'rust', 'leak', 'anchor', 'vent', 'protrusion', 'other']),
  surface: placeSurfaceSchema,
  /** Along the vehicle, mm; and up a wall or to the right of the centre line, mm. */
  x: positionSchema,
  along: positionSchema,
  size: gapSchema,
  decision: z.enum(['keep', 'redo', 'remove']),
  status: z.enum(['open', 'done']),
  method: textSchema,
  cost: moneySchema,
  /** Work to redo or remove it, hours. */
  hours: z.number().min(0).max(500).optional(),
  photo: z.string().max(60).nullable(),
});
/** A joint of gas or water that will be out of sight: tried under pressure before something covers it. */
export const jointSchema = z.strictObject({
  id: idSchema,
  name: nameSchema,
  kind: z.enum(['gas', 'water']),
  surface: placeSurfaceSchema,
  tested: z.boolean(),
});
/** A point that holds a task, put aside with a reason that stays. */
export const overruledSchema = z.strictObject({
  point: z.string().min(1).max(120),
  reason: textSchema.min(1),
  at: z.iso.datetime(),
});
/** What is done and kept before surfaces are covered. */
export const beforeSchema = z.strictObject({
  /** When somebody looked everywhere and found nothing; null while that is not said. */
  nothingFound: z.iso.datetime().nullable(),
  /** A photo of each bare surface, by its name. */
  photos: z.partialRecord(placeSurfaceSchema, z.string().max(60)),
  joints: z.array(jointSchema).max(100),
  overruled: z.array(overruledSchema).max(500),
});
export const leakTestSchema = z.strictObject({
  state: z.enum(['open', 'passed', 'overruled']),
  reason: textSchema,
  at: z.iso.datetime().nullable(),
});

export const surveySchema = z.strictObject({
  heights: z.array(z.number().min(0).max(5000)).min(1).max(40),
  roofOffsets: z.array(z.number().min(-3000).max(3000)).min(1).max(20),
  symmetric: z.boolean(),
  /** A box: the walls run straight on up to a flat roof, as in a trailer. */
  boxed: z.boolean(),
  /** Walls are read from the centre line, or from wall to wall. */
  reference: z.enum(['centre', 'wall']),
  /** One station is read at more heights: the others take their shape between readings from it. */
  profile: z.strictObject({
    station: idSchema.nullable(),
    heights: z.array(z.number().min(0).max(5000)).max(40),
    roofOffsets: z.array(z.number().min(-3000).max(3000)).max(20),
  }),
  /** What the survey is to be good to where units stand, mm: the walk asks for more readings until it is. */
  goal: z.number().min(1).max(100),
  stations: z.array(stationSchema).max(60),
  ribs: z.array(ribSchema).max(60),
  arches: z.array(archSchema).max(24),
  openings: z.array(openingSchema).max(60),
  keepOuts: z.array(keepOutSchema).max(60),
  penetrations: z.array(penetrationSchema).max(100),
  angles: z.array(angleSchema).max(60),
  found: z.array(foundSchema).max(300),
  leakTest: leakTestSchema,
  before: beforeSchema.optional(),
  /** What was looked at before the walk, and whether there was any. */
  looked: lookedSchema.optional(),
  skipped: z.array(addressSchema).max(500),
  /** Readings asked for beyond the plan, such as the next best one. */
  extra: z.array(addressSchema).max(500),
  readings: z.record(addressSchema, z.array(readingSchema).min(1).max(50)),
});

export const layerSchema = z.strictObject({
  id: idSchema,
  material: idSchema,
  thickness: thicknessSchema,
  place: z.enum(['in-ribs', 'rib-battens', 'battens', 'between-battens', 'continuous', 'patches']),
  /** Share of the surface that patches cover; 1 for everything else. */
  share: z.number().min(0).max(1),
  /** What the bought material really measures, mm; null until it was measured. It then stands for the thickness. */
  measured: thicknessSchema.nullable(),
  board: z.boolean(),
});

export const personSchema = z.strictObject({
  id: idSchema,
  name: nameSchema,
  stature: z.number().min(400).max(2500),
  /** Measured, mm and kg; what was not is estimated from the stature, or not known. */
  sittingHeight: z.number().min(200).max(1500).optional(),
  backOfKnee: z.number().min(100).max(800).optional(),
  shoulderWidth: z.number().min(150).max(900).optional(),
  mass: z.number().min(2).max(300).optional(),
});

/** An animal that travels along, mm and kg: from the nose to the root of the tail, over the shoulders, to the top of its head where it stands. */
export const petSchema = z.strictObject({
  id: idSchema,
  name: nameSchema,
  length: z.number().min(100).max(2000),
  width: z.number().min(40).max(900),
  height: z.number().min(60).max(1500),
  mass: z.number().min(0.1).max(150).optional(),
  /** What holds it on the road; left out while nobody has said. */
  rides: z.enum(['crate', 'harness']).optional(),
});

/** The night the warmth is worked out for: degrees Celsius and per cent. */
export const climateSchema = z.strictObject({
  inside: z.number().min(-10).max(40),
  outside: z.number().min(-50).max(30),
  humidity: z.number().min(5).max(100),
});
export const settingsSchema = z.strictObject({
  units: z.enum(['mm', 'in']),
  fraction: z.union([z.literal(16), z.literal(32)]),
  budget: moneySchema,
  startDate: z.iso.date(),
  hoursPerDay: z.number().min(0.5).max(24),
  workTemperature: z.number().min(-20).max(45),
  floorClearance: gapSchema,
  floorCornerRadius: gapSchema,
  floorMeets: z.enum(['lining', 'shell']),
  wasteShare: z.number().min(0).max(1),
  /** What an hour of work is worth when build-ups are compared, minor units. */
  hourValue: moneySchema,
  climate: climateSchema,
  floorBattens: z.strictObject({ spacing: spacingSchema, clearance: gapSchema }),
  cutting: cuttingSettingsSchema,
  /** Own figures of rules, by the rule's and the figure's name; what is left out is as usual. */
  figures: z.record(idSchema, z.record(idSchema, z.number().min(-10_000).max(10_000))).optional(),
});

const layersSchema = z.array(layerSchema).max(20);
/** Layers from the metal inward, by the surface they lie on; a surface nobody has said anything of is bare. */
export const buildUpsSchema = z.record(idSchema, layersSchema);
/** Other layers, kept to be compared with or returned to. */
export const buildUpVariantSchema = z.strictObject({ id: idSchema, name: nameSchema, buildUps: buildUpsSchema });
/** What was heard and felt at one point of the build. */
export const comfortSchema = z.strictObject({
  id: idSchema,
  when: z.iso.datetime(),
  after: nameSchema,
  decibels: z.number().min(0).max(140).nullable(),
  celsius: z.number().min(-60).max(80).nullable(),
  moisture: z.number().min(0).max(100).nullable(),
});
/** The invented vehicle whose true shape the simulated instruments read. */
export const practiceSchema = z.strictObject({
  vehicle: z.enum(['van', 'bus', 'trailer', 'wren', 'bulrush', 'thimble']),
  seed: z.int().min(0).max(1e9),
});

export const projectSchema = z.strictObject({
  format: z.literal(PROJECT_FORMAT),
  version: z.literal(PROJECT_VERSION),
  id: idSchema,
  name: nameSchema,
  vehicle: z.strictObject({ kind: z.enum(['van', 'bus', 'trailer']), model: z.string().trim().max(80) }),
  settings: settingsSchema,
  people: z.array(personSchema).max(12),
  /** Animals that travel along; where each lies stands in the layout. */
  pets: z.array(petSchema).max(12).optional(),
  survey: surveySchema,
  buildUps: buildUpsSchema,
  buildUpVariants: z.array(buildUpVariantSchema).max(12),
  comfort: z.array(comfortSchema).max(200),
  practice: practiceSchema.nullable(),
  layout: layoutSchema,
  /** Other layouts of the same vehicle. */
  variants: z.array(variantSchema).max(12).optional(),
  /** Appliances and other things with data sheets. */
  things: z.array(thingSchema).max(300).optional(),
  /** What is to be kept in the vehicle. */
  stored: z.array(storedSchema).max(500).optional(),
  limits: limitsSchema.optional(),
  wishes: z.array(wishSchema).max(200).optional(),
  keptPlans: z.array(keptPlanSchema).max(60),
  offcuts: z.array(offcutSchema).max(500),
  waits: z.array(waitSchema).max(500),
  waste: z.array(wasteSchema).max(2000),
  /** How long the last cuts took, seconds. */
  cutSeconds: z.array(z.number().min(1).max(3600)).max(200),
  /** How surfaces are lined, by surface. */
  linings: z.record(idSchema, liningSchema),
  boxes: boxesSchema,
  floor: floorChoiceSchema,
  doorLining: doorLiningSchema,
  reserved: z.array(reservedSchema).max(40),
  headers: z.array(headerSchema).max(20),
  corners: z.array(cornerSchema).max(40),
  fittings: z.array(fittingSchema).max(200),
  floorHatches: z.array(floorHatchSchema).max(20),
  measured: z.array(measuredSchema).max(200),
  scribes: z.array(scribeSchema).max(1000),
  patterns: z.array(patternSchema).max(200),
  /** What was done of the work, and the logbook. */
  record: recordSchema.optional(),
});

export const priceStockSchema = z.strictObject({
  id: idSchema,
  length: stockSizeSchema,
  width: stockSizeSchema,
  price: moneySchema,
  quantity: z.int().min(0).nullable(),
});
export const pricePackSchema = z.strictObject({
  contents: contentsSchema,
  unit: z.enum(['piece', 'ml', 'm2', 'm']),
  price: moneySchema,
});
export const fastenerSchema = z.strictObject({
  kind: z.enum(['wood', 'metal', 'brad']),
  diameter: sizeSchema,
  length: sizeSchema,
});
/** What doors, lids, drawers and sliding panels hang and run on, and what a bed hangs on between the walls. */
export const MOVING_HARDWARE = [
  'cup-hinge',
  'butt-hinge',
  'slides',
  'strut',
  'stay',
  'channel',
  'catch',
  'strap',
  'wall-rail',
  'rail-bracket',
] as const;
/**
 * What moving parts hang and run on, and what cables, pipes and ducts are made of. Slides are rated by the pair, kg, struts
 * each, N. Pipes and ducts are as wide outside as they are, mm; a cable has so much copper in each of its two cores, mm2.
 */
export const hardwareSchema = z.strictObject({
  kind: z.enum([...MOVING_HARDWARE, ...RUN_KINDS]),
  length: sizeSchema.nullable(),
  bears: z.number().positive().max(10_000).nullable(),
  across: sizeSchema.optional(),
  copper: z.number().positive().max(200).optional(),
});
const bendingSchema = z.strictObject({ modulus: z.number().positive(), strength: z.number().positive() });
export const priceItemSchema = z.strictObject({
  id: idSchema,
  name: nameSchema,
  group: z.enum(['sheet', 'insulation', 'timber', 'lining', 'adhesive', 'fixing']),
  hatch: z.enum(['birch', 'pine', 'poplar', 'foam', 'wool', 'grey']),
  supplier: nameSchema,
  priceDate: z.iso.date(),
  thickness: z.number().min(0).max(500),
  width: pitchOrNoneSchema,
  /** Length of one piece of what is sold by area in pieces, such as planks, mm; 0 when it comes in none. */
  pieceLength: z.union([z.literal(0), z.number().min(50).max(10_000)]),
  /** A floor finish: laid in staggered planks, in tiles, or off a roll as wide as its width. */
  laid: z.enum(['planks', 'tiles', 'roll']).nullable(),
  /** A paint or varnish: hours after which it may be coated again, and after which it must be sanded first. */
  recoat: z.strictObject({ from: z.number().min(0).max(500), to: z.number().min(0).max(2000) }).nullable(),
  /** What a litre of a paint, varnish or sealer covers in one coat, m2, as its data sheet states; null or left out when it does not. */
  coverage: z.number().min(0.5).max(100).nullable().optional(),
  density: z.number().min(0).max(10_000),
  conductivity: z.number().min(0).max(500),
  grain: z.boolean(),
  cureHours: z.number().min(0).max(2000),
  /** How much harder than air vapour finds it; 0 when not known. */
  vapour: z.number().min(0).max(1e7),
  /** Work to fit a square metre, or a metre of batten, hours. */
  hours: z.number().min(0).max(50),
  /** Quietens the panel it is stuck to. */
  deadening: z.boolean(),
  /** The size it is sold under where that is not its real one, such as 2 x 2. */
  soldAs: z.string().trim().max(40),
  fastener: fastenerSchema.nullable(),
  /** A hinge, a pair of slides, a strut …; left out for everything else. */
  hardware: hardwareSchema.optional(),
  /** Stiffness and strength in bending along the grain and across it, N/mm2; null when not known. */
  bending: z.strictObject({ along: bendingSchema, across: bendingSchema }).nullable(),
  /** Where the price and the figures are from: a yard's list, a data sheet. */
  source: z.string().trim().max(120).optional(),
  /** Share that is added for waste where this is cut from rolls and lengths; the project's own where it is left out. */
  waste: z.number().min(0).max(0.9).optional(),
  stocks: z.array(priceStockSchema).max(20),
  pack: pricePackSchema.nullable(),
});
export const priceBookSchema = z.strictObject({
  currency: z.string().regex(/^[A-Z]{3}$/),
  items: z.array(priceItemSchema).max(2000),
});

export const projectFileSchema = z.strictObject({
  format: z.literal('nest-plank-file'),
  version: z.literal(PROJECT_VERSION),
  project: projectSchema,
  priceBook: priceBookSchema,
});

export type Side = z.infer<typeof sideSchema>;
export type Reading = z.infer<typeof readingSchema>;
export type Survey = z.infer<typeof surveySchema>;
export type Arch = z.infer<typeof archSchema>;
export type Rib = z.infer<typeof ribSchema>;
export type Opening = z.infer<typeof openingSchema>;
/** A surface that layers lie on. */
export type Covered = KnownSurface;
export type Surface = Exclude<KnownSurface, 'doors' | 'windows'>;
export type PlaceSurface = z.infer<typeof placeSurfaceSchema>;
export type Rough = z.infer<typeof roughSchema>;
export type LookTopic = z.infer<typeof lookTopicSchema>;
export type KeepOut = z.infer<typeof keepOutSchema>;
export type Penetration = z.infer<typeof penetrationSchema>;
export type AnglePlace = z.infer<typeof angleSchema>;
export type Found = z.infer<typeof foundSchema>;
export type ServiceJoint = z.infer<typeof jointSchema>;
export type Before = z.infer<typeof beforeSchema>;
export type LeakTest = z.infer<typeof leakTestSchema>;
export type BuildUpVariant = z.infer<typeof buildUpVariantSchema>;
export type Comfort = z.infer<typeof comfortSchema>;
export type Practice = z.infer<typeof practiceSchema>;
export type Climate = z.infer<typeof climateSchema>;
export type Fastener = z.infer<typeof fastenerSchema>;
export type Layer = z.infer<typeof layerSchema>;
export type BuildUps = z.infer<typeof projectSchema>['buildUps'];
export type Person = z.infer<typeof personSchema>;
export type Pet = z.infer<typeof petSchema>;
export type Settings = z.infer<typeof settingsSchema>;
export type Project = z.infer<typeof projectSchema>;
export type PriceItem = z.infer<typeof priceItemSchema>;
export type PriceBook = z.infer<typeof priceBookSchema>;
export type ProjectFile = z.infer<typeof projectFileSchema>;
