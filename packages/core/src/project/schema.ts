import { z } from 'zod';

/**
 * The project document. Every length is in millimetres, money in minor units, times in ISO 8601.
 * The published JSON Schema in docs/formats is made from these definitions.
 */
export const PROJECT_FORMAT = 'nest-plank-project';
export const PROJECT_VERSION = 1;
const LARGEST = 100_000;

export const idSchema = z.string().regex(/^[A-Za-z0-9][A-Za-z0-9_-]{0,59}$/, 'an id of letters, digits, - and _');
const nameSchema = z.string().trim().min(1).max(80);
const positionSchema = z.number().min(-LARGEST).max(LARGEST);
const sizeSchema = z.number().positive().max(LARGEST);
const thicknessSchema = z.number().positive().max(500);
const gapSchema = z.number().min(0).max(1000);
const moneySchema = z.int().min(0).max(1e12);

export const sideSchema = z.enum(['left', 'right']);
export const methodSchema = z.enum(['tape', 'laser', 'template', 'angle-finder', 'estimate']);
export const addressSchema = z
  .string()
  .regex(/^[a-z]+(\/[A-Za-z0-9_.-]+)+$/, 'a place such as station/s1/left/700')
  .max(120);

export const readingSchema = z.strictObject({
  value: positionSchema,
  method: methodSchema,
  at: z.iso.datetime(),
  repeats: z.array(positionSchema).max(20).optional(),
});

export const stationSchema = z.strictObject({ id: idSchema, name: nameSchema });
export const archSchema = z.strictObject({
  id: idSchema,
  name: nameSchema,
  side: sideSchema,
  shape: z.enum(['box', 'rounded']),
});
export const ribSchema = z.strictObject({ id: idSchema, name: nameSchema });
export const openingSchema = z.strictObject({
  id: idSchema,
  name: nameSchema,
  kind: z.enum(['window', 'door', 'hatch', 'fan']),
  surface: z.enum(['left', 'right', 'rear', 'roof']),
  cornerRadius: gapSchema,
  swing: z.enum(['fixed', 'slides', 'hinged', 'pair']),
});

export const surveySchema = z.strictObject({
  heights: z.array(z.number().min(0).max(5000)).min(1).max(40),
  roofOffsets: z.array(z.number().min(-3000).max(3000)).min(1).max(20),
  symmetric: z.boolean(),
  stations: z.array(stationSchema).max(60),
  ribs: z.array(ribSchema).max(60),
  arches: z.array(archSchema).max(12),
  openings: z.array(openingSchema).max(60),
  skipped: z.array(addressSchema).max(500),
  readings: z.record(addressSchema, z.array(readingSchema).min(1).max(50)),
});

export const surfaceSchema = z.enum(['floor', 'left', 'right', 'ceiling']);
export const layerSchema = z.strictObject({
  id: idSchema,
  material: idSchema,
  thickness: thicknessSchema,
  place: z.enum(['in-ribs', 'battens', 'between-battens', 'continuous']),
  board: z.boolean(),
});

export const platformBedSchema = z.strictObject({
  kind: z.literal('platform-bed'),
  id: idSchema,
  name: nameSchema,
  x: positionSchema,
  length: sizeSchema,
  height: sizeSchema,
  mattress: gapSchema,
  sleepers: z.array(idSchema).max(6),
  board: idSchema,
  support: idSchema,
  boardWidth: sizeSchema,
  span: sizeSchema,
  scribe: gapSchema,
});
export const baseCupboardSchema = z.strictObject({
  kind: z.literal('base-cupboard'),
  id: idSchema,
  name: nameSchema,
  side: sideSchema,
  x: positionSchema,
  length: sizeSchema,
  front: positionSchema,
  height: sizeSchema,
  toeKick: gapSchema,
  shelves: z.int().min(0).max(8),
  doors: z.int().min(0).max(6),
  carcass: idSchema,
  facing: idSchema,
  top: idSchema,
  overhang: gapSchema,
  scribe: gapSchema,
});
export const unitSchema = z.discriminatedUnion('kind', [platformBedSchema, baseCupboardSchema]);

export const personSchema = z.strictObject({
  id: idSchema,
  name: nameSchema,
  stature: z.number().min(400).max(2500),
  sittingHeight: z.number().min(200).max(1500).optional(),
});

export const cuttingSettingsSchema = z.strictObject({
  kerf: z.number().min(0).max(20),
  trim: z.number().min(0).max(200),
  smallestOffcut: z.number().min(0).max(5000),
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
  cutting: cuttingSettingsSchema,
});

export const placementSchema = z.strictObject({ part: z.string(), x: z.number(), y: z.number(), turned: z.boolean() });
export const cutSchema = z.strictObject({
  axis: z.enum(['rip', 'crosscut']),
  at: z.number(),
  from: z.number(),
  to: z.number(),
  level: z.int(),
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

export const projectSchema = z.strictObject({
  format: z.literal(PROJECT_FORMAT),
  version: z.literal(PROJECT_VERSION),
  id: idSchema,
  name: nameSchema,
  vehicle: z.strictObject({ kind: z.enum(['van', 'bus', 'trailer']), model: z.string().trim().max(80) }),
  settings: settingsSchema,
  people: z.array(personSchema).max(12),
  survey: surveySchema,
  buildUps: z.strictObject({
    floor: z.array(layerSchema).max(20),
    left: z.array(layerSchema).max(20),
    right: z.array(layerSchema).max(20),
    ceiling: z.array(layerSchema).max(20),
  }),
  units: z.array(unitSchema).max(200),
  keptPlans: z.array(z.strictObject({ material: idSchema, job: z.string(), plan: cutPlanSchema })).max(60),
});

export const priceStockSchema = z.strictObject({
  id: idSchema,
  length: sizeSchema,
  width: sizeSchema,
  price: moneySchema,
  quantity: z.int().min(0).nullable(),
});
export const pricePackSchema = z.strictObject({
  contents: z.number().positive(),
  unit: z.enum(['piece', 'ml', 'm2', 'm']),
  price: moneySchema,
});
export const priceItemSchema = z.strictObject({
  id: idSchema,
  name: nameSchema,
  group: z.enum(['sheet', 'insulation', 'timber', 'lining', 'adhesive', 'fixing']),
  hatch: z.enum(['birch', 'pine', 'poplar', 'foam', 'wool', 'grey']),
  supplier: nameSchema,
  priceDate: z.iso.date(),
  thickness: z.number().min(0).max(500),
  width: z.number().min(0).max(5000),
  density: z.number().min(0).max(10_000),
  conductivity: z.number().min(0).max(500),
  grain: z.boolean(),
  cureHours: z.number().min(0).max(2000),
  stocks: z.array(priceStockSchema).max(20),
  pack: pricePackSchema.nullable(),
});
export const priceBookSchema = z.strictObject({
  currency: z.string().regex(/^[A-Z]{3}$/),
  items: z.array(priceItemSchema).max(2000),
});

export const projectFileSchema = z.strictObject({
  format: z.literal('nest-plank-file'),
  version: z.literal(1),
  project: projectSchema,
  priceBook: priceBookSchema,
});

export type Side = z.infer<typeof sideSchema>;
export type Surface = z.infer<typeof surfaceSchema>;
export type Reading = z.infer<typeof readingSchema>;
export type Survey = z.infer<typeof surveySchema>;
export type Arch = z.infer<typeof archSchema>;
export type Rib = z.infer<typeof ribSchema>;
export type Opening = z.infer<typeof openingSchema>;
export type Layer = z.infer<typeof layerSchema>;
export type BuildUps = z.infer<typeof projectSchema>['buildUps'];
export type PlatformBed = z.infer<typeof platformBedSchema>;
export type BaseCupboard = z.infer<typeof baseCupboardSchema>;
export type Unit = z.infer<typeof unitSchema>;
export type Person = z.infer<typeof personSchema>;
export type Settings = z.infer<typeof settingsSchema>;
export type Project = z.infer<typeof projectSchema>;
export type PriceItem = z.infer<typeof priceItemSchema>;
export type PriceBook = z.infer<typeof priceBookSchema>;
export type ProjectFile = z.infer<typeof projectFileSchema>;
export type CutPlan = z.infer<typeof cutPlanSchema>;
export type PlanSheet = z.infer<typeof planSheetSchema>;
export type SawCut = z.infer<typeof cutSchema>;
