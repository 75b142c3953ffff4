/** Points, boxes and curves. */
export { monotoneCurve } from './curve.js';
export { boxOf, type Point, spread } from './plane.js';
