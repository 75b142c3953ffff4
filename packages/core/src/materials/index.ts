/** Price book entries: what they are and measure. */
export { bookAsBought, buildUpsAsBought } from './as-bought.js';
export { isBar } from './bars.js';
export { materialOf } from './material.js';
export { blankMaterial, copied, repriced } from './reprice.js';
export { startPriceBook, usualHardware } from './start-book.js';
