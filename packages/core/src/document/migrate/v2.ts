import { rawIn, type Raw } from './raw.js';

/**
 * From version 2 to 3: cutting learned to keep what is done. A plan kept before that said nothing of what is cut, and is
 * found again. Frozen.
 */
export function fromSecond(raw: Raw): Raw {
  const settings = rawIn(raw['settings']);
  return {
    offcuts: [],
    waits: [],
    waste: [],
    cutSeconds: [],
    ...raw,
    version: 3,
    keptPlans: [],
    settings: {
      ...settings,
      cutting: {
        method: 'guillotine',
        carry: { mass: 25, length: 2000 },
        car: { length: 2400, width: 1100 },
        ...rawIn(settings['cutting']),
      },
    },
  };
}
