/** The model of furniture: families, their fields and words. */
export { FAMILIES } from './families/index.js';
export { type Family, freeUnitId } from './family.js';
export { applyOperation, materialsOf } from './kit.js';
export { type Motion, motionsOf, sweptFromAbove } from './motions.js';
export type { Check } from './scene.js';
export { outlineFromAbove } from './solid.js';
