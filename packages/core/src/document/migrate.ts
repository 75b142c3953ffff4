import { emptyLinings, emptySurveyParts, startSettings } from './create.js';

/** A document as it came from a file or the database: its shape is not known yet. */
type Raw = Record<string, unknown>;
const isRaw = (value: unknown): value is Raw => typeof value === 'object' && value !== null && !Array.isArray(value);
const each = (list: unknown, with_: Raw): unknown =>
  Array.isArray(list) ? list.map((item: unknown) => (isRaw(item) ? { ...with_, ...item } : item)) : list;

const LAYER: Raw = { share: 1, measured: null };
const ITEM: Raw = {
  vapour: 0,
  hours: 0,
  deadening: false,
  soldAs: '',
  fastener: null,
  bending: null,
  pieceLength: 0,
  laid: null,
  recoat: null,
};

/**
 * Brings a project document of an earlier version to the present one: what is new gets what it meant before it could be
 * said. A document of the present version, or something that is no project at all, is given back as it is.
 */
export function migrateProject(raw: unknown): unknown {
  return toFourth(toThird(toSecond(raw)));
}

/** Linings are cut into panels and boards. */
function toFourth(raw: unknown): unknown {
  return isRaw(raw) && raw['version'] === 3 ? { ...emptyLinings(), ...raw, version: 4 } : raw;
}

/** Cutting learned to keep what is done. A plan kept before that said nothing of what is cut, and is found again. */
function toThird(raw: unknown): unknown {
  if (!isRaw(raw) || raw['version'] !== 2) return raw;
  const settings = isRaw(raw['settings']) ? raw['settings'] : {};
  const cutting = isRaw(settings['cutting']) ? settings['cutting'] : {};
  const { method, carry, car } = startSettings('mm', '2026-01-01').cutting;
  return {
    offcuts: [],
    waits: [],
    waste: [],
    cutSeconds: [],
    ...raw,
    version: 3,
    keptPlans: [],
    settings: { ...settings, cutting: { method, carry, car, ...cutting } },
  };
}

function toSecond(raw: unknown): unknown {
  if (!isRaw(raw) || raw['version'] !== 1) return raw;
  const survey = isRaw(raw['survey']) ? raw['survey'] : {};
  const settings = isRaw(raw['settings']) ? raw['settings'] : {};
  const buildUps = isRaw(raw['buildUps']) ? raw['buildUps'] : {};
  const { hourValue, climate, floorBattens } = startSettings('mm', '2026-01-01');
  return {
    buildUpVariants: [],
    comfort: [],
    practice: null,
    ...raw,
    version: 2,
    settings: { hourValue, climate, floorBattens, ...settings },
    survey: {
      ...emptySurveyParts(),
      ...survey,
      stations: each(survey['stations'], { planned: true }),
      ribs: each(survey['ribs'], { on: 'ring', flat: true }),
      arches: each(survey['arches'], { kind: 'arch' }),
      openings: each(survey['openings'], { hand: 'none', slanted: false, framed: false, ring: null }),
    },
    buildUps: Object.fromEntries(
      ['floor', 'left', 'right', 'ceiling', 'doors', 'windows'].map((surface) => [
        surface,
        each(buildUps[surface] ?? [], LAYER),
      ]),
    ),
  };
}

/** The same for one line of a price book. */
export function migratePriceItem(raw: unknown): unknown {
  return isRaw(raw) ? { ...ITEM, ...raw } : raw;
}

/** The same for a whole file. */
export function migrateFile(raw: unknown): unknown {
  if (!isRaw(raw) || ![1, 2, 3].includes(raw['version'] as number)) return raw;
  const book = isRaw(raw['priceBook']) ? raw['priceBook'] : {};
  const items = book['items'];
  return {
    ...raw,
    version: 4,
    project: migrateProject(raw['project']),
    priceBook: { ...book, items: Array.isArray(items) ? items.map(migratePriceItem) : items },
  };
}
