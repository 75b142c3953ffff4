/**
 * Lengths nearer than this are one length, mm: far below what is measured or cut, far above what sums of doubles lose.
 */
export const HAIR_MM = 1e-6;

/** Two numbers without a unit, or in hours, squares or money, nearer than this are one: what sums of doubles lose. */
export const ROUNDING = 1e-9;

/** Whole numbers that are enough: 3 for 3.0000000001, 4 for 3.01. */
export const wholeUp = (value: number): number => Math.ceil(value - ROUNDING);

/** Lengths that are enough, in whole steps of what one measures with: 3 for 2.4 in millimetres, 3.175 (an eighth of an inch) in inches. */
export const stepUp = ({ step }: { readonly step: number }, value: number): number =>
  step === 1 ? wholeUp(value) : Math.ceil(value / step - ROUNDING) * step;
