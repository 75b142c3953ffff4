/** Readings: what is asked for, what they say of each other, what comes next. */
export type { Closure } from './closure.js';
export { holeClearances, openBefore, type OpenPoint } from './cover-gate.js';
export { boundsOf } from './keep-outs.js';
export {
  type Missing,
  openTopics,
  SEEN,
  type Seen,
  type SeenOn,
  seenOn,
  seenOperation,
  type SeenTopic,
} from './look-round.js';
export { repeatOpening } from './repeat.js';
export { levelOf } from './level.js';
export { type DoubtGrid, surveyQuality } from './next-reading.js';
export { expectedAt, type Outlier } from './quality.js';
export { surfaceModel } from './surface-model.js';
export { furtherReadings, type Progress, progressOf, walkOf, walkSteps } from './walk.js';
