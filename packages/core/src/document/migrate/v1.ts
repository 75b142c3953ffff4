import { rawIn, withDefaults, without, type Raw } from './raw.js';

/** Frozen: what version 2 added, as it meant before it could be said. Nothing here follows later defaults. */
const LAYER: Raw = { share: 1, measured: null };

/** From version 1 to 2: more things measured, layers with shares, sets of layers, comfort, practice vehicles. */
export function fromFirst(raw: Raw): Raw {
  const buildUps = rawIn(raw['buildUps']);
  // the first files said how sides are called; that is the reader's choice, not the vehicle's
  const settings = without(rawIn(raw['settings']), 'sideNames');
  return {
    buildUpVariants: [],
    comfort: [],
    practice: null,
    ...raw,
    version: 2,
    settings: {
      hourValue: 0,
      climate: { inside: 18, outside: -5, humidity: 60 },
      floorBattens: { spacing: 400, clearance: 40 },
      ...settings,
    },
    survey: surveyOf(rawIn(raw['survey'])),
    buildUps: Object.fromEntries(
      ['floor', 'left', 'right', 'ceiling', 'doors', 'windows'].map((surface) => [
        surface,
        withDefaults(buildUps[surface] ?? [], LAYER),
      ]),
    ),
  };
}

const surveyOf = (survey: Raw): Raw => ({
  boxed: false,
  reference: 'centre',
  profile: { station: null, heights: [], roofOffsets: [] },
  goal: 4,
  keepOuts: [],
  penetrations: [],
  angles: [],
  found: [],
  leakTest: { state: 'open', reason: '', at: null },
  extra: [],
  ...survey,
  stations: withDefaults(survey['stations'], { planned: true }),
  ribs: withDefaults(survey['ribs'], { on: 'ring', flat: true }),
  arches: withDefaults(survey['arches'], { kind: 'arch' }),
  openings: withDefaults(survey['openings'], { hand: 'none', slanted: false, framed: false, ring: null }),
});
