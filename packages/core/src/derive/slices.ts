import type { Before, Settings, Survey } from '../document/schema.js';

/**
 * Keeps a copy of an object with some of its fields put to rest, for as long as the others stay what they are: what hangs
 * on it is not worked out again because one of the resting ones changed.
 */
export function resting<T extends object>(rest: Partial<T>): (whole: T) => T {
  let last: { readonly whole: T; readonly kept: T } | null = null;
  return (whole) => {
    const before = last;
    const same =
      before !== null &&
      (before.whole === whole ||
        (Object.keys(whole) as (keyof T)[]).every((key) => key in rest || whole[key] === before.whole[key]));
    last = { whole, kept: same ? before.kept : { ...whole, ...rest } };
    return last.kept;
  };
}

const BEFORE: Before = { nothingFound: null, photos: {}, joints: [], overruled: [] };

/** The survey as the shape of the vehicle is read from it: without what was found, left out or asked for. */
export const createGeometry = (): ((survey: Survey) => Survey) =>
  resting<Survey>({
    found: [],
    leakTest: { state: 'open', reason: '', at: null },
    before: BEFORE,
    skipped: [],
    extra: [],
  });

/** The survey as its next reading is chosen: without what was found. */
export const createAsked = (): ((survey: Survey) => Survey) =>
  resting<Survey>({ found: [], leakTest: { state: 'open', reason: '', at: null }, before: BEFORE });

/** The settings as sizes are made from them: without money, dates and the reader's units. */
export const createMaking = (): ((settings: Settings) => Settings) =>
  resting<Settings>({ units: 'mm', fraction: 16, budget: 0, startDate: '2000-01-01', hoursPerDay: 1, hourValue: 0 });
