/** Everything that is drawn in the round, as closed bodies in mm: for the page and for files. */
export { bentGeometry, liningBodies, type LiningBody } from './bent.js';
export { furnitureIn, hangersOf, liningIn, softsOf, type Shown } from './drawn.js';
export {
  blockGeometry,
  flatGeometry,
  inkedEdges,
  lineGeometry,
  matrixOf,
  middleOf,
  partGeometry,
  revealGeometry,
  skinGeometry,
} from './shapes.js';
export { tubeGeometry } from './tubes.js';
