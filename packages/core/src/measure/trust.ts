import type { Reading } from '../document/schema.js';

/** Half-width of the interval a single reading is trusted to, mm, by method: handling of a tape, a laser dot, a card pattern. */
const TRUST_MM: Readonly<Record<Reading['method'], number>> = {
  tape: 2,
  laser: 1.5,
  template: 1,
  'angle-finder': 3,
  estimate: 25,
};

/** How far a reading can be trusted, mm: its method's, or half the spread of its repeats when that is more. */
export function uncertaintyOf(reading: Reading): number {
  const all = [reading.value, ...(reading.repeats ?? [])];
  return Math.max(TRUST_MM[reading.method], (Math.max(...all) - Math.min(...all)) / 2);
}
