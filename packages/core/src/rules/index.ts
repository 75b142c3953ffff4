/** The rules that a layout is held against. */
export { roadLoadRule } from './road.js';
export { backOfKnee, SHOULDERS, SITTING_SHARE } from './people.js';
export { worksAt } from './sitting.js';
