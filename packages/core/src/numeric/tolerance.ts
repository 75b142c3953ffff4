/**
 * Lengths nearer than this are one length, mm: far below what is measured or cut, far above what sums of doubles lose.
 */
export const HAIR_MM = 1e-6;

/** Two numbers without a unit, or in hours, squares or money, nearer than this are one: what sums of doubles lose. */
export const ROUNDING = 1e-9;

/** Whole numbers that are enough: 3 for 3.0000000001, 4 for 3.01. */
export const wholeUp = (value: number): number => Math.ceil(value - ROUNDING);
