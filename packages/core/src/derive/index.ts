/** Everything that follows from a document, worked out and remembered. */
export { vehicleMeasures, type VehicleMeasures } from './compare-vehicles.js';
export {
  knockOnOf,
  type LayoutCase,
  layoutCases,
  layoutDifferences,
  layoutFigures,
  type LayoutFigures,
} from './compare-layouts.js';
export { createDeriver, derive, DERIVED_KEYS, SHAPE_KEYS } from './derive.js';
export { DERIVE_KIT } from './kit.js';
export type { Derived, DerivedShape } from './derived.js';
export { eachFloorWay, type FloorWay } from './floor-ways.js';
export { eachLining, type LiningCase } from './lining-ways.js';
export { type Moved, whatMoved } from './moved.js';
export { smallFoldOut, type SmallFoldOut } from './small-foldout.js';
export { mendAll, type MendedAll, mendSearch } from './mend-all.js';
export { sceneOf } from './scene-of.js';
export { type Worse, worsenedBy } from './side-effects.js';
export { type Suggested, suggestSearch, takeProposal, type Wishes, wishesSchema } from './suggest.js';
