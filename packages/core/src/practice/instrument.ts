import { normalFrom } from '../numeric/normal.js';
import { seededRandom } from '../numeric/random.js';

/** What happens when a simulated instrument is clicked. */
export type Click =
  | { readonly kind: 'reading'; readonly value: number }
  | { readonly kind: 'missed'; readonly why: 'no-return' | 'lost' | 'nothing-there' | 'off' };

export interface InstrumentCharge {
  readonly battery: number;
  readonly low: boolean;
  readonly linked: boolean;
}

/** Spread of a figure, mm or degrees, and its smallest step. */
const NOISE = { laser: { spread: 1, step: 0.5 }, 'angle-finder': { spread: 0.08, step: 0.1 } } as const;
/** One click takes this much of the battery, per cent; below `LOW` figures scatter three times as much. */
const CLICK_COSTS = 0.6;
const LOW = 15;
/** Out of a hundred clicks: no beam comes back (dark, bright or slanted faces), and the link breaks. */
const NO_RETURN = 4;
const LINK_BREAKS = 1;

/**
 * An instrument made of chance: it knows nothing of vehicles, only how it blurs a true value, misses, runs down and loses
 * its link. The same seed gives the same luck.
 */
export function simulatedInstrument(
  kind: keyof typeof NOISE,
  seed: number,
  faults = 1,
  battery = 100,
): {
  readonly charge: () => InstrumentCharge;
  readonly click: (truth: number | null) => Click;
  readonly relink: () => void;
} {
  const random = seededRandom(seed);
  const normal = normalFrom(random);
  const { spread, step } = NOISE[kind];
  let left = battery;
  let linked = true;
  const chance = (percent: number): boolean => random() * 100 < percent * faults;
  return {
    charge: () => ({ battery: Math.max(0, Math.round(left)), low: left < LOW, linked }),
    relink: () => {
      if (left <= 0) left = 100;
      linked = true;
    },
    click: (truth) => {
      if (left <= 0) return { kind: 'missed', why: 'off' };
      if (!linked) return { kind: 'missed', why: 'lost' };
      left -= CLICK_COSTS;
      if (chance(LINK_BREAKS)) {
        linked = false;
        return { kind: 'missed', why: 'lost' };
      }
      if (chance(NO_RETURN)) return { kind: 'missed', why: 'no-return' };
      if (truth === null) return { kind: 'missed', why: 'nothing-there' };
      const blurred = truth + normal() * spread * (left < LOW ? 3 : 1);
      return { kind: 'reading', value: Math.round(Math.round(blurred / step) * step * 1e6) / 1e6 };
    },
  };
}
