/** Build-ups: thickness, warmth, damp, what they do to the room. */
export { BATTEN_SPACING_MM, type BuildUpDepth, type BuildUpDepths, type LayerDepth, plainLayer } from './buildup.js';
export { buildUpFigures, type BuildUpFigures, priceOfArea } from './compare.js';
export {
  FLOOR_SCHOOLS,
  floorSchool,
  LINING_SCHOOLS,
  WALL_SCHOOLS,
  wallSchool,
  type WholeSchool,
  wholeSchool,
} from './schools.js';
export { GOOD_BITE_MM } from '../rules/fasteners.js';
export { type Damp, dampOf, surfaceU } from './warmth.js';
