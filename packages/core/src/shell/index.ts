/** The measured shell and the room inside it. */
export { archFace, archProfile, type ArchShape, archSpan } from './arch.js';
export { buildShell } from './build.js';
export { likeStations, uprightPlanes } from './likeness.js';
export { openingRing, type PlacedOpening, placedOpenings } from './openings.js';
export { type PlacedRib, RIBBED, ribAt, ribMap, ribPlaces, ribShares } from './ribs.js';
export { sketchShell } from './sketch.js';
export { squareness } from './square.js';
export { BED_HEIGHT_MM, type RoomFigures } from './room.js';
export {
  developedHeight,
  halfWidth,
  roofHeight,
  sectionAcross,
  type Shell,
  sideAlong,
  wallLine,
  wallTop,
} from './shell.js';
export { type Facet, type Reveal, revealsOf, type Skin, skinsOf } from './skin.js';
