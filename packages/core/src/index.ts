export * from './words/message.js';
export { EN, type WordKey, type Words } from './words/en.js';
export { formatMoney, PLAIN_VOICE, say, type Voice } from './words/say.js';
export * from './measure/length.js';
export * from './measure/address.js';
export {
  furtherReadings,
  heightsOf,
  LEGS,
  progressOf,
  roofOffsetsOf,
  walkOf,
  walkSteps,
  type Leg,
  type Progress,
  type WalkStep,
} from './measure/walk.js';
export { formatAngle, parseAngle, riseOver } from './measure/angle.js';
export { datumOf, settingOut, type Datum, type SetOutPoint, type WallStraightness } from './measure/datum.js';
export { levelOf, type Level } from './measure/level.js';
export { likeStations, uprightPlanes, type UprightPlane } from './shell/likeness.js';
export { type CavityGroup, type RibMap } from './shell/ribs.js';
export { type LayerWarning } from './layers/warnings.js';
export { boundsOf, type KeepOutBounds } from './measure/keep-outs.js';
export { holeClearances, openBefore, type HoleClearance, type OpenPoint } from './measure/cover-gate.js';
export { surveyQuality, type DoubtGrid, type NextBest, type SurveyQuality } from './measure/next-reading.js';
export { surfaceModel, type SurfaceModel } from './measure/surface-model.js';
export { buildShell, type ShellResult } from './shell/build.js';
export { coveredAreas, openingArea, placedOpenings, type CoveredAreas, type PlacedOpening } from './layers/areas.js';
export {
  dampOf,
  dewPoint,
  GLASS_U,
  heatLoss,
  ribShare,
  saturation,
  thermalTransmittance,
  type Damp,
  type HeatLoss,
} from './layers/warmth.js';
export {
  FLOOR_SCHOOLS,
  floorSchool,
  LINING_SCHOOLS,
  WALL_SCHOOLS,
  wallSchool,
  type FloorSchool,
  type LiningSchool,
  type WallSchool,
} from './layers/schools.js';
export { buildUpFigures, priceOfArea, type BuildUpFigures } from './layers/compare.js';
export { type FaceFixing, type Reveal } from './layers/knock-on.js';
export { type PersonFigure, type RoomLeft } from './layers/room-left.js';
export { type FloorBatten, type FloorBattens } from './lining/floor-battens.js';
export { whatMoved, type Moved } from './project/moved.js';
export { vehicleMeasures, type VehicleMeasures } from './project/compare-vehicles.js';
export { type Closure } from './measure/closure.js';
export { uncertaintyOf } from './measure/trust.js';
export { expectedAt, likelySlip, type Expectation, type Outlier } from './measure/quality.js';
export * from './numeric/plane.js';
export { evaluate, monotoneCurve, slopeAt, type Curve } from './numeric/curve.js';
export * from './shell/shell.js';
export { archFace, archFootprint, archProfile, archSpan, type ArchShape } from './shell/arch.js';
export { BED_HEIGHT_MM, type Figure, type RoomFigures } from './shell/room.js';
export {
  BATTEN_SPACING_MM,
  buildUpDepth,
  COVERED,
  coverOf,
  floorLayerHeights,
  materialOf,
  plainLayer,
  SURFACES,
  thicknessOf,
  type BuildUpDepth,
  type BuildUpDepths,
  type LayerDepth,
} from './layers/buildup.js';
export { blankOf, partMass, type Part, type PartEdge, type PartMarks, type PartRole } from './joinery/part.js';
export { bedLevels } from './joinery/platform-bed.js';
export { unitBoxes } from './layout/unit-box.js';
export { RULES, ruleNamed } from './layout/rules/registry.js';
export { type Grade, type Rule, type Verdict } from './layout/rules/rule.js';
export { backOfKnee, SITTING_SHARE } from './layout/rules/people.js';
export { type Check, type Mend } from './layout/checks.js';
export { type Subfloor } from './lining/subfloor.js';
export { startPriceBook } from './costing/price-book.js';
export { type BuyLine, type Shopping } from './costing/shopping.js';
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
export { createProject, startSettings, surveyAsStart, type NewProject, type VehicleKind } from './project/create.js';
export { createDeriver, derive, type Deriver } from './project/derive.js';
export type { Derived, DerivedShape, Problem } from './project/derived.js';

export { costWith, keptFrom, keptNow, type MaterialPlan } from './cutting/cutting-room.js';
export type { CutConflict, PlannedSheet } from './cutting/planned.js';
export { fenceOrder, secondsPerCut, settingStep, type FenceSetting } from './cutting/fence.js';
export { eachFloorWay, type FloorWay } from './lining/floor-ways.js';
export { templateParts, type LinedFloor } from './lining/floor.js';
export { floorCoats, type FloorCoats } from './lining/floor-coats.js';
export { finishWays, type FinishWay } from './lining/finish-ways.js';
export { curtainAcross, type Curtain } from './lining/curtain.js';
export { grooveSpans, type Grooves } from './lining/grooves.js';
export type { CornerPiece } from './lining/corner.js';
export type { HeaderBox } from './lining/header-box.js';
export type { DoorLinings, DoorPanel } from './lining/door-lining.js';
export type { FittingStep } from './lining/fitting-order.js';
export { footprints as footprintsOf, type FloorFinish } from './lining/floor-finish.js';
export { eachLining, type LiningCase } from './lining/compare.js';
export { schoolOf, type Lining, type LiningPiece } from './lining/lining.js';
export { foundSeams, seamFigures, type SeamFigures } from './lining/seam-figures.js';
export type { Seam } from './lining/seams.js';
export { createLinedRoom, LINED, type LinedRoom } from './lining/room.js';
export { asSeen, outlineOf, reachOf, toPlace, type Unrolled } from './lining/unrolled.js';
export type { WindowBox } from './lining/window-box.js';
export type { ArchBox } from './lining/arch-box.js';
export { isBar } from './cutting/from-parts.js';
export { bookAsBought } from './layers/as-bought.js';
export { learntAllowance, patternState, scribeLine, shapeOf, takenOff, type ScribeLine } from './joinery/scribing.js';
export { footprintOf } from './cutting/footprint.js';
export { barOutline } from './cutting/mitres.js';
export { cutName, stepsOf, type Step } from './cutting/steps.js';
export { movePart, placesFor, type FreePlace, type MoveRefusal } from './cutting/by-hand.js';
export { boardMass, heavyParts, merchantCuts, type HeavyPart, type MerchantCuts } from './cutting/carrying.js';
export { planFaults } from './cutting/verify.js';
export type { CutJob } from './cutting/job.js';
export { sheetLetter } from './cutting/letters.js';
export { isHanded, otherHand } from './joinery/hand.js';
