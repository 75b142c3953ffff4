/** The rules that a layout is held against. */
export { SITTING_SHARE } from './people.js';
