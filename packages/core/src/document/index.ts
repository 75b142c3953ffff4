/** The project as data: what it holds, how it is changed, when it is sound. */
export { describeAddress, isSectionPlace, parseAddress, type Place, unitOf, valueAt } from './address.js';
export { baysOf, endOf, frontLineOf, isAt, spansWalls, standsAt } from './body.js';
export { thingIn } from './layout-changes.js';
export { createProject, liningOn, surveyAsStart, type VehicleKind } from './create.js';
export type { CutPlan } from './cutting-schema.js';
export { OperationError, type Patch, patchProject, readOperation } from './editing.js';
export { familyNamed, type Field, fieldNamed } from './kit.js';
export type {
  BoxChoice,
  Corner,
  Fitting,
  FloorChoice,
  FloorHatch,
  Header,
  Lined,
  LiningChoice,
  Pattern,
  Reserved,
  ScribePass,
} from './lining-schema.js';
export { LOG_KINDS, type LogEntry, type LogKind, type Worked } from './record-schema.js';
export { type Operation, OPERATION_NAMES, type OperationName, type OperationOf } from './operation.js';
export { idSchema } from './schema-base.js';
export {
  type Climate,
  type Comfort,
  type Covered,
  type Found,
  type Layer,
  type LeakTest,
  type LookTopic,
  MOVING_HARDWARE,
  type ServiceJoint,
  type Person,
  personSchema,
  type PlaceSurface,
  practiceSchema,
  type PriceBook,
  priceBookSchema,
  type Pet,
  type PriceItem,
  priceItemSchema,
  type Project,
  type ProjectFile,
  projectSchema,
  type Reading,
  type Rough,
  type Settings,
  settingsSchema,
  type Side,
  type Survey,
} from './schema.js';
export { CONNECTIONS, type Limits, type Stored, type Thing, THING_FACES, type Wish } from './thing-schema.js';
export { layersOn, SURFACE_LIST, type SurfaceTraits } from './surfaces.js';
export {
  MOST_VENT,
  type Bay,
  type Division,
  type Mode,
  type Den,
  type Run,
  RUN_KINDS,
  type RunEnd,
  type Taped,
  type Unit,
} from './unit-schema.js';
