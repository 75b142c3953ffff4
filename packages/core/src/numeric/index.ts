/** Points, boxes and curves. */
export { monotoneCurve } from './curve.js';
export { boxOf, type Outline, type Point, spread } from './plane.js';
