export * from './words/message.js';
export { EN, type WordKey, type Words } from './words/en.js';
export { formatMoney, PLAIN_VOICE, say, type Voice } from './words/say.js';
export * from './measure/length.js';
export * from './measure/address.js';
export { progressOf, walkOf, type Progress } from './measure/walk.js';
export {
  expectedAt,
  likelySlip,
  uncertaintyOf,
  type Closure,
  type Expectation,
  type Outlier,
} from './measure/quality.js';
export * from './numeric/plane.js';
export { evaluate, monotoneCurve, slopeAt, type Curve } from './numeric/curve.js';
export * from './shell/shell.js';
export { archFootprint, archProfile, archSpan, type ArchShape } from './shell/arch.js';
export { BED_HEIGHT_MM, type Figure, type RoomFigures } from './shell/room.js';
export {
  floorLayerHeights,
  materialOf,
  thermalTransmittance,
  type BuildUpDepth,
  type BuildUpDepths,
  type LayerDepth,
} from './layers/buildup.js';
export { blankOf, partMass, type Part, type PartEdge, type PartRole } from './joinery/part.js';
export { bedLevels } from './joinery/platform-bed.js';
export { unitBoxes } from './layout/unit-box.js';
export { RULES, ruleNamed } from './layout/rules/registry.js';
export { type Grade, type Rule, type Verdict } from './layout/rules/rule.js';
export { backOfKnee, SITTING_SHARE } from './layout/rules/people.js';
export { type Check, type Mend } from './layout/checks.js';
export { type Subfloor } from './lining/subfloor.js';
export { startPriceBook } from './costing/price-book.js';
export { BATTEN_SPACING_MM, type BuyLine, type Shopping } from './costing/shopping.js';
export { type MassFigures } from './mass/mass.js';
export { type PlannedTask, type Schedule, type Stretch } from './work/schedule.js';
export { type Task } from './work/tasks.js';
export * from './project/schema.js';
export {
  OPERATION_NAMES,
  OPERATION_PAYLOADS,
  type Operation,
  type OperationName,
  type OperationOf,
} from './project/operation.js';
export {
  applyOperation,
  isProject,
  OperationError,
  patchProject,
  readOperation,
  type Edit,
  type Patch,
} from './project/edit.js';
export { createProject, startSettings, type NewProject, type VehicleKind } from './project/create.js';
export {
  createDeriver,
  derive,
  type Derived,
  type DerivedShape,
  type Deriver,
  type MaterialPlan,
  type Problem,
} from './project/derive.js';
