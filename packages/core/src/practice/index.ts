/** Invented vehicles whose true shape is known, to practise on and to measure the survey by. */
export { accuracyOf, nearnessOf, slipTrial, STANDING_MM, type Nearness } from './accuracy.js';
export { hiddenShape, trueValue } from './hidden.js';
export { simulatedInstrument } from './instrument.js';
