/** Linings of walls and ceiling, the floor, boxes. */
export { rowLengths } from './floor/finish.js';
export { finishWays } from './floor/finish-ways.js';
export type { FloorBattens } from './floor/floor-battens.js';
export { footprints as footprintsOf } from './floor/floor-finish.js';
export { STAGGER_MM } from './floor/subfloor.js';
export { type LinedFloor, templateParts } from './floor/floor.js';
export { bendingIn } from './linings.js';
export type { Bent } from './surface/on-surface.js';
export { jointLines } from './surface/joint-lines.js';
export { supportAt } from './surface/lined-surface.js';
export { grooveSpans } from './surface/grooves.js';
export type { Lining } from './surface/lining.js';
export { foundSeams, justTooNarrow, seamFigures } from './surface/seam-figures.js';
export { asSeen, reachOf, toPlace } from './surface/unrolled.js';
