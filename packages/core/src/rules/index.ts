/** The rules that a layout is held against. */
export { backOfKnee, SHOULDERS, SITTING_SHARE } from './people.js';
