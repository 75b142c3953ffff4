/** Parts: their names, faces, edges and mass. */
export { faceToward, isHanded, otherHand } from './hand.js';
export { blankOf, type Part, type PartMarks, partMass } from './part.js';
export { sectionOf } from './section-of.js';
export { TEMPLATE_PAGES, templatePages } from './tiles.js';
export { depthOf } from './scribe.js';
export { learntAllowance, patternState, scribeLine, shapeOf, takenOff, twinPasses } from './scribing.js';
