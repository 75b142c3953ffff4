export * from './words/message.js';
export { EN, type WordKey, type Words } from './words/en.js';
export { formatMoney, PLAIN_VOICE, say, type Voice } from './words/say.js';
export { fillText } from './words/fill.js';
export * from './words/length.js';
export * from './document/address.js';
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
export { formatAngle, parseAngle, riseOver } from './words/angle.js';
export { datumOf, settingOut, type Datum, type SetOutPoint, type WallStraightness } from './layout/datum.js';
export { levelOf, type Level } from './measure/level.js';
export { likeStations, uprightPlanes, type UprightPlane } from './shell/likeness.js';
export { type CavityGroup, type RibMap } from './shell/ribs.js';
export { type LayerWarning } from './layers/warnings.js';
export { boundsOf, type KeepOutBounds } from './measure/keep-outs.js';
export { holeClearances, openBefore, type HoleClearance, type OpenPoint } from './measure/cover-gate.js';
export { surveyQuality, type DoubtGrid, type NextBest, type SurveyQuality } from './measure/next-reading.js';
export { surfaceModel, type SurfaceModel } from './measure/surface-model.js';
export { buildShell, type ShellResult } from './shell/build.js';
export { coveredAreas, type CoveredAreas } from './layers/areas.js';
export { openingArea, placedOpenings, type PlacedOpening } from './shell/openings.js';
export {
  dampOf,
  GLASS_U,
  heatLoss,
  ribShare,
  thermalTransmittance,
  type Damp,
  type HeatLoss,
} from './layers/warmth.js';
export { dewPoint, saturation } from './rules/damp.js';
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
export { type PersonFigure, type RoomLeft } from './layout/room-left.js';
export { type FloorBatten, type FloorBattens } from './lining/floor/floor-battens.js';
export { whatMoved, type Moved } from './derive/moved.js';
export { vehicleMeasures, type VehicleMeasures } from './derive/compare-vehicles.js';
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
  coverOf,
  floorLayerHeights,
  plainLayer,
  thicknessOf,
  type BuildUpDepth,
  type BuildUpDepths,
  type LayerDepth,
} from './layers/buildup.js';
export { materialOf } from './materials/material.js';
export { blankOf, partMass, type Part, type PartEdge, type PartMarks } from './parts/part.js';
export { RULES, ruleNamed } from './layout/rules.js';
export { type Grade, type Rule, type Verdict } from './rules/rule.js';
export { backOfKnee, SITTING_SHARE } from './rules/people.js';
export type { Check, Mend, SceneRule } from './furniture/scene.js';
export type { Family, Start } from './furniture/family.js';
export { freeUnitId } from './furniture/family.js';
export { FAMILIES } from './furniture/families/index.js';
export { SCHOOLS } from './furniture/schools/index.js';
export { applyOperation, faultsIn, materialsOf, KIT, type Kit } from './furniture/kit.js';
export { boardBox, type Board, type Skeleton } from './furniture/skeleton.js';
export { outlineFromAbove, solidBox } from './furniture/solid.js';
export { motionsOf, sweptFromAbove, type Motion } from './furniture/motions.js';
export type { MadeUnit } from './furniture/make.js';
export { baysOf, closesFloor, endOf, frontLineOf, isAt, standsAt } from './document/body.js';
export { familyNamed, fieldNamed, type Field } from './document/kit.js';
export { lyingPlaces, strip, type LyingPlace } from './layout/lying.js';
export { liningOn } from './document/create.js';
export { type Subfloor } from './lining/floor/subfloor.js';
export { startPriceBook } from './materials/start-book.js';
export { type BuyLine, type Shopping } from './costing/shopping.js';
export { type MassFigures } from './mass/mass.js';
export { type PlannedTask, type Schedule, type Stretch } from './work/schedule.js';
export { type Task } from './work/tasks.js';
export * from './document/schema.js';
export {
  OPERATION_NAMES,
  OPERATION_PAYLOADS,
  type Operation,
  type OperationName,
  type OperationOf,
} from './document/operation.js';
export { isProject, OperationError, patchProject, readOperation, type Edit, type Patch } from './document/editing.js';
export { createProject, startSettings, surveyAsStart, type NewProject, type VehicleKind } from './document/create.js';
export { createDeriver, derive, DERIVED_KEYS, SHAPE_KEYS, type Deriver } from './derive/derive.js';
export type { Derived, DerivedShape, Problem } from './derive/derived.js';

export { costWith, keepingFirst, keptFrom, keptNow, type MaterialPlan } from './cutting/plan/cutting-room.js';
export type { CutConflict, PlannedSheet } from './cutting/plan/planned.js';
export { fenceOrder, secondsPerCut, settingStep, type FenceSetting } from './cutting/plan/fence.js';
export { eachFloorWay, type FloorWay } from './derive/floor-ways.js';
export { templateParts, type LinedFloor } from './lining/floor/floor.js';
export { floorCoats, type FloorCoats } from './lining/floor/floor-coats.js';
export { finishWays, type FinishWay } from './lining/floor/finish-ways.js';
export { curtainAcross, type Curtain } from './lining/boxes/curtain.js';
export { grooveSpans, type Grooves } from './lining/surface/grooves.js';
export type { CornerPiece } from './lining/boxes/corner.js';
export type { HeaderBox } from './lining/boxes/header-box.js';
export type { DoorLinings, DoorPanel } from './lining/surface/door-lining.js';
export type { FittingStep } from './lining/surface/fitting-order.js';
export { footprints as footprintsOf } from './lining/floor/floor-finish.js';
export { type FloorFinish } from './lining/floor/finish.js';
export { eachLining, type LiningCase } from './derive/lining-ways.js';
export { schoolOf, type Lining, type LiningPiece } from './lining/surface/lining.js';
export { foundSeams, seamFigures, type SeamFigures } from './lining/surface/seam-figures.js';
export type { Seam } from './lining/surface/seams.js';
export { createLinedRoom, LINED, type LinedRoom } from './lining/room.js';
export { asSeen, outlineOf, reachOf, toPlace, type Unrolled } from './lining/surface/unrolled.js';
export type { WindowBox } from './lining/boxes/box.js';
export type { ArchBox } from './lining/boxes/arch-box.js';
export { isBar } from './materials/bars.js';
export { bookAsBought } from './materials/as-bought.js';
export { learntAllowance, patternState, scribeLine, shapeOf, takenOff, type ScribeLine } from './parts/scribing.js';
export { footprintOf } from './cutting/plan/footprint.js';
export { barOutline } from './cutting/job/mitres.js';
export { cutName, stepsOf, type Step } from './cutting/plan/steps.js';
export { movePart, placesFor, type FreePlace, type MoveRefusal } from './cutting/plan/by-hand.js';
export { boardMass, heavyParts, merchantCuts, type HeavyPart, type MerchantCuts } from './cutting/plan/carrying.js';
export { planFaults } from './cutting/job/verify.js';
export type { CutJob } from './cutting/job/job.js';
export { sheetLetter } from './cutting/plan/letters.js';
export { faceToward, isHanded, otherHand, type Toward } from './parts/hand.js';
