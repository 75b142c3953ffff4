import { PROJECT_VERSION } from '../schema.js';
import { isRaw, rawIn, type Raw } from './raw.js';
import { fromFirst } from './v1.js';
import { fromSecond } from './v2.js';
import { fromThird } from './v3.js';
import { fromFourth } from './v4.js';

/** One step for each version, in order: the first takes version 1 to 2. Each is frozen once it is out. */
const STEPS: readonly ((raw: Raw) => Raw)[] = [fromFirst, fromSecond, fromThird, fromFourth];

/** What a line of a price book did not say before it could. Frozen as versions 1 to 4 meant it. */
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

/** The version a document says it has; null when it says none. */
export const versionOf = (raw: unknown): number | null => {
  const version = rawIn(raw)['version'];
  return typeof version === 'number' && Number.isInteger(version) ? version : null;
};

/**
 * Brings a project document of an earlier version to the present one. A document of the present version, or something
 * that is no project at all, is given back as it is.
 */
export function migrateProject(raw: unknown): unknown {
  const version = versionOf(raw);
  if (!isRaw(raw) || version === null || version < 1 || version >= PROJECT_VERSION) return raw;
  return STEPS.slice(version - 1).reduce<Raw>((document, step) => step(document), raw);
}

/** The same for one line of a price book. */
export const migratePriceItem = (raw: unknown): unknown => (isRaw(raw) ? { ...ITEM, ...raw } : raw);

/** The same for a whole file. */
export function migrateFile(raw: unknown): unknown {
  const version = versionOf(raw);
  if (!isRaw(raw) || version === null || version < 1 || version >= PROJECT_VERSION) return raw;
  const book = rawIn(raw['priceBook']);
  const items = book['items'];
  return {
    ...raw,
    version: PROJECT_VERSION,
    project: migrateProject(raw['project']),
    priceBook: { ...book, items: Array.isArray(items) ? items.map(migratePriceItem) : items },
  };
}
