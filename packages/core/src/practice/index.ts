/** Invented vehicles whose true shape is known, to practise on and to measure the survey by. */
export {
  accuracyOf,
  nearnessOf,
  slipTrial,
  walkThrough,
  STANDING_MM,
  type AccuracyRow,
  type Nearness,
} from './accuracy.js';
export { hiddenShape, trueHalf, trueRoof, trueValue, type HiddenShape } from './hidden.js';
export { simulatedInstrument, type Click, type InstrumentCharge } from './instrument.js';
