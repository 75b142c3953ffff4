import { z } from 'zod';
import { CUTS, DIVIDERS } from './unit-schema.js';
import {
  addressSchema,
  angleSchema,
  archSchema,
  beforeSchema,
  buildUpVariantSchema,
  comfortSchema,
  cuttingSettingsSchema,
  foundSchema,
  idSchema,
  keepOutSchema,
  keptPlanSchema,
  offcutSchema,
  waitSchema,
  wasteSchema,
  layerSchema,
  leakTestSchema,
  lookTopicSchema,
  boxesSchema,
  cornerSchema,
  doorLiningSchema,
  fittingSchema,
  floorChoiceSchema,
  floorHatchSchema,
  headerSchema,
  liningSchema,
  patternSchema,
  reservedSchema,
  scribeSchema,
  jointSchema,
  logEntrySchema,
  openingSchema,
  overruledSchema,
  placeSurfaceSchema,
  penetrationSchema,
  personSchema,
  petSchema,
  denSchema,
  contentSchema,
  frontSchema,
  ventsSchema,
  optionSchema,
  projectSchema,
  readingSchema,
  ribSchema,
  settingsSchema,
  stationSchema,
  surveySchema,
  unitSchema,
  modeSchema,
  asideSchema,
  runSchema,
  tapedSchema,
  variantSchema,
  thingSchema,
  storedSchema,
  limitsSchema,
  wishSchema,
  workedSchema,
} from './schema.js';

const newStation = stationSchema.extend({ planned: z.boolean().default(true) }).strict();
const named = z.strictObject({ id: idSchema });
/** A task as it is touched: what it is, when, and by whom. */
const touched = workedSchema
  .pick({ task: true, title: true, kind: true, estimate: true, by: true })
  .extend({ at: z.iso.datetime() })
  .strict();
const baySize = z.number().min(1).max(100_000);

/** What each named operation carries. Everything that changes a project is one of these. */
export const OPERATION_PAYLOADS = {
  renameProject: z.strictObject({ name: projectSchema.shape.name, model: projectSchema.shape.vehicle.shape.model }),
  changeSettings: z.strictObject({ changes: settingsSchema.omit({ cutting: true, figures: true }).partial().strict() }),
  /** A rule's own figure of this project; null takes the usual one again. */
  setFigure: z.strictObject({
    rule: idSchema,
    figure: idSchema,
    value: z.number().min(-10_000).max(10_000).nullable(),
  }),
  changeCutting: z.strictObject({ changes: cuttingSettingsSchema.partial().strict() }),
  putPerson: z.strictObject({ person: personSchema }),
  removePerson: named,
  putPet: z.strictObject({ pet: petSchema }),
  removePet: named,
  /** Says where an animal lies; nowhere where that is null. */
  layPet: z.strictObject({ pet: idSchema, at: denSchema.shape.at.nullable() }),
  takeReading: z.strictObject({ address: addressSchema, reading: readingSchema }),
  /** A photo of the tape where a reading was taken; null takes it away. */
  photoReading: z.strictObject({
    address: addressSchema,
    index: z.int().min(0),
    photo: z.string().max(60).nullable(),
  }),
  removeReading: z.strictObject({ address: addressSchema, index: z.int().min(0) }),
  /** Many readings at once, as a file gives them; stations it names that are not there yet are put in. */
  takeReadings: z.strictObject({
    stations: z.array(newStation).max(60),
    readings: z.array(z.strictObject({ address: addressSchema, reading: readingSchema })).max(3000),
  }),
  askReading: z.strictObject({ address: addressSchema }),
  skipReading: z.strictObject({ address: addressSchema }),
  planSurvey: z.strictObject({
    changes: surveySchema
      .pick({
        heights: true,
        roofOffsets: true,
        symmetric: true,
        boxed: true,
        reference: true,
        profile: true,
        goal: true,
      })
      .partial()
      .strict(),
  }),
  putStation: z.strictObject({ station: newStation }),
  removeStation: named,
  putRib: z.strictObject({ rib: ribSchema }),
  removeRib: named,
  putArch: z.strictObject({ arch: archSchema }),
  removeArch: named,
  putOpening: z.strictObject({ opening: openingSchema }),
  removeOpening: named,
  putKeepOut: z.strictObject({ keepOut: keepOutSchema }),
  removeKeepOut: named,
  putPenetration: z.strictObject({ penetration: penetrationSchema }),
  removePenetration: named,
  putAngle: z.strictObject({ angle: angleSchema }),
  removeAngle: named,
  putFound: z.strictObject({ found: foundSchema }),
  removeFound: named,
  setLeakTest: z.strictObject({ leakTest: leakTestSchema }),
  /** When nothing was found anywhere; null takes that back. */
  /** Somebody looked for something of a kind, and all there is of it is entered; null takes that back. */
  sayLooked: z.strictObject({ topic: lookTopicSchema, at: z.iso.datetime().nullable() }),
  sayNothingFound: z.strictObject({ at: beforeSchema.shape.nothingFound }),
  /** A photo of a bare surface; null takes it away. */
  photoSurface: z.strictObject({ surface: placeSurfaceSchema, photo: z.string().max(60).nullable() }),
  putJoint: z.strictObject({ joint: jointSchema }),
  removeJoint: named,
  /** Lets a task go on over a point that holds it, for a reason that is kept. */
  overrulePoint: overruledSchema,
  holdPoint: z.strictObject({ point: overruledSchema.shape.point }),
  putLayer: z.strictObject({ surface: idSchema, layer: layerSchema, at: z.int().min(0).optional() }),
  removeLayer: z.strictObject({ surface: idSchema, id: idSchema }),
  replaceLayers: z.strictObject({ surface: idSchema, layers: z.array(layerSchema).max(20) }),
  keepBuildUps: buildUpVariantSchema.pick({ id: true, name: true }),
  useBuildUps: named,
  removeBuildUps: named,
  putComfort: z.strictObject({ comfort: comfortSchema }),
  removeComfort: named,
  placeUnit: z.strictObject({ unit: unitSchema }),
  /** Fields of a unit by their names, as its family has them. */
  changeUnit: z.strictObject({ id: idSchema, changes: z.record(idSchema, optionSchema) }),
  /** Cuts a bay into equal ones; the first keeps its name. */
  divideBay: z.strictObject({
    id: idSchema,
    bay: idSchema,
    cut: z.enum(CUTS),
    into: z.int().min(2).max(12),
  }),
  /** Takes out the dividers of the cut that a bay is in: it alone is left. */
  joinBays: z.strictObject({ id: idSchema, bay: idSchema }),
  /** What stands between the parts of the cut that a bay is in. */
  changeDividers: z.strictObject({ id: idSchema, bay: idSchema, divider: z.enum(DIVIDERS) }),
  /**
   * The clear size of a bay in the cut it is in, in mm; null for an equal share of what is left. Where nobody shares what is
   * left, the part beside it does.
   */
  sizeBay: z.strictObject({
    id: idSchema,
    bay: idSchema,
    size: baySize.nullable(),
    /** Not the bay alone but what it lies in is sized, so many cuts further out. */
    outward: z.int().min(0).max(12).optional(),
    /** Its divider on this side is moved: the part there gives what it takes, and has this size after, mm. */
    beside: z.strictObject({ side: z.enum(['before', 'after']), size: baySize }).optional(),
  }),
  changeBay: z.strictObject({
    id: idSchema,
    bay: idSchema,
    holds: contentSchema.optional(),
    front: frontSchema.optional(),
    vents: ventsSchema.optional(),
  }),
  removeUnit: named,
  /** A unit as another one: what a mend or a mirror makes of it. It keeps its id. */
  replaceUnit: z.strictObject({ unit: unitSchema }),
  putMode: z.strictObject({ mode: modeSchema }),
  removeMode: named,
  /** Puts what a rule says aside, for a reason that is kept. */
  setAside: asideSchema,
  takeUp: z.strictObject({ check: asideSchema.shape.check }),
  putTaped: tapedSchema,
  removeTaped: z.strictObject({ unit: idSchema }),
  putRun: z.strictObject({ run: runSchema }),
  removeRun: named,
  keepLayout: variantSchema.pick({ id: true, name: true }),
  /** Takes a kept layout in the place of the one that stands; what stood is kept under its name where one is given. */
  useLayout: z.strictObject({ id: idSchema, keep: variantSchema.pick({ id: true, name: true }).nullable() }),
  removeLayout: named,
  putThing: z.strictObject({ thing: thingSchema }),
  removeThing: named,
  putStored: z.strictObject({ stored: storedSchema }),
  removeStored: named,
  changeLimits: z.strictObject({ changes: limitsSchema.partial().strict() }),
  putWish: z.strictObject({ wish: wishSchema }),
  removeWish: named,
  keepPlan: keptPlanSchema,
  forgetPlan: z.strictObject({ material: idSchema }),
  /** A cut that is made, or was not after all. The plan has to be kept before. */
  tickCut: z.strictObject({
    material: idSchema,
    sheet: idSchema,
    step: z.string().min(1).max(120),
    done: z.boolean(),
    /** How long it took; null when nobody was looking. */
    seconds: z.number().min(1).max(3600).nullable(),
  }),
  spoilPart: z.strictObject({
    waste: wasteSchema,
    /** The piece as an offcut, when it is to be used for something smaller. */
    offcut: offcutSchema.nullable(),
  }),
  lockPart: z.strictObject({ material: idSchema, part: z.string().min(1).max(80), locked: z.boolean() }),
  putOffcut: z.strictObject({ offcut: offcutSchema }),
  removeOffcut: named,
  putWait: z.strictObject({ wait: waitSchema }),
  removeWait: z.strictObject({ part: z.string().min(1).max(80) }),
  removeWaste: named,
  changeLining: z.strictObject({ surface: idSchema, changes: liningSchema.partial().strict() }),
  changeBoxes: z.strictObject({ changes: boxesSchema.partial().strict() }),
  changeFloor: z.strictObject({ changes: floorChoiceSchema.partial().strict() }),
  changeDoors: z.strictObject({ changes: doorLiningSchema.partial().strict() }),
  putReserved: z.strictObject({ reserved: reservedSchema }),
  removeReserved: named,
  putHeader: z.strictObject({ header: headerSchema }),
  removeHeader: named,
  putCorner: z.strictObject({ corner: cornerSchema }),
  removeCorner: named,
  putFitting: z.strictObject({ fitting: fittingSchema }),
  removeFitting: named,
  putFloorHatch: z.strictObject({ hatch: floorHatchSchema }),
  removeFloorHatch: named,
  /** What a material bought measures; null when that is not known any more. */
  measureMaterial: z.strictObject({
    material: idSchema,
    thickness: z.number().min(0.1).max(200).nullable(),
    width: z.number().min(1).max(3000).optional(),
    bowed: z.boolean().optional(),
  }),
  logScribe: z.strictObject({ scribe: scribeSchema }),
  removeScribe: named,
  /** Leaves so much on every edge that is scribed: units, linings and boxes that leave something on now. */
  leaveToScribe: z.strictObject({ allowance: z.number().min(0).max(100) }),
  putPattern: z.strictObject({ pattern: patternSchema }),
  removePattern: named,
  /** Begins a task, or goes on with it; what the same person has in hand is paused. */
  startTask: touched,
  pauseTask: z.strictObject({ task: workedSchema.shape.task, at: z.iso.datetime() }),
  /** Ticks a task. The minutes it took in all; null for those that were counted. */
  finishTask: touched
    .extend({ minutes: workedSchema.shape.minutes.nullable(), covers: workedSchema.shape.covers })
    .strict(),
  /** It was not done after all. */
  reopenTask: z.strictObject({ task: workedSchema.shape.task }),
  /** Not before a day; null takes that back. */
  putOffTask: touched.extend({ until: z.iso.date().nullable() }).strict(),
  writeLog: z.strictObject({ entry: logEntrySchema }),
  /** Strikes an entry through, for a reason that stays beside it. */
  strikeLog: z.strictObject({ id: idSchema, reason: z.string().trim().min(1).max(400), at: z.iso.datetime() }),
  restore: z.strictObject({ project: projectSchema }),
  /** Several changes that one press makes: all are done or none, and one undo takes all of them back. Each is read as an operation. */
  together: z.strictObject({
    operations: z
      .array(z.strictObject({ name: z.string(), payload: z.unknown() }))
      .min(1)
      .max(2000),
  }),
} as const;

export type OperationName = keyof typeof OPERATION_PAYLOADS;
export type OperationOf<Name extends OperationName> = {
  readonly name: Name;
  readonly payload: z.output<(typeof OPERATION_PAYLOADS)[Name]>;
};
/** A named change of a project. */
export type Operation = { [Name in OperationName]: OperationOf<Name> }[OperationName];

export const OPERATION_NAMES = Object.keys(OPERATION_PAYLOADS) as OperationName[];
