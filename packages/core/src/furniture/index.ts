/** The model of furniture: families, their fields and words. */
export { FAMILIES } from './families/index.js';
export { movableDividers, type Movable } from './division.js';
export { type Family, freeUnitId, type Gap, type Start } from './family.js';
export { applyOperation, materialsOf } from './kit.js';
export type { MadeUnit } from './make.js';
export { UPHOLSTERY_KG_M3 } from './mass-point.js';
export { leavesPlace, type Motion, type Prism, standsMoved, sweptFromAbove } from './motions.js';
export { type Rigid, rigidOf } from './moved.js';
export { followed, movesOf, partsIn, rigidIn } from './parts-moved.js';
export type { Goes } from './goes-with.js';
export type { PlacedRun } from './runs.js';
export type { Check } from './scene.js';

export { START_THINGS } from './start-things.js';
export { type Board, boardBox } from './skeleton.js';
export { outlineFromAbove, silhouetteOf } from './silhouette.js';
export type { Scene } from './scene.js';
