import type { PriceBook, PriceItem } from '../document/schema.js';
import { fixingRule } from './fixings.js';

/** What a fastener goes through and bites into, mm. */
export interface Fixing {
  readonly passed: number;
  readonly gap: number;
  readonly into: 'wood' | 'steel';
  readonly depth: number;
  /** Left before its point comes out, mm; as for a face that is seen when nothing is said. */
  readonly spare?: number;
}

/** The stocked fastener that fits, and the lengths between which one does, mm. */
export interface Picked {
  readonly item: PriceItem | null;
  readonly least: number;
  readonly most: number;
  /** Even the thinnest stocked one splits the edge it goes into: then there is none. */
  readonly splits: boolean;
  /** No thicker than this may it be, mm, where a stocked one is long enough and only too thick; null else. */
  readonly thinner: number | null;
}

/** A screw into the edge of a board is no thicker than this share of it, so that it does not split. */
export const SHARE_OF_EDGE = 0.3;
/** A drilled one may be as thick as this share; a thicker one splits it all the same. */
const MOST_OF_EDGE = 0.45;

const picked = new WeakMap<PriceBook, Map<string, Picked | null>>();
/** So many answers are kept for one price book. */
const KEPT = 2000;

/**
 * The shortest stocked fastener that bites deep enough and does not come out; of equal lengths the thinnest. None where even
 * the thinnest splits the edge it goes into. The limits
 * are those of rule *fixing-length* for it, or for the shortest one there is.
 * @param edge thickness of the board whose edge it goes into, mm; null where it goes into a face
 * The same question to the same book is answered from memory: hundreds of joints ask a few.
 * @returns null when the price book has no fastener of the kind
 */
export function pickFastener(book: PriceBook, fixing: Fixing, edge: number | null = null): Picked | null {
  const { passed, gap, into, depth, spare } = fixing;
  const key = `${passed} ${gap} ${into} ${depth} ${spare} ${edge}`;
  const ofBook = picked.get(book) ?? new Map<string, Picked | null>();
  picked.set(book, ofBook);
  const before = ofBook.get(key);
  if (before !== undefined) return before;
  if (ofBook.size >= KEPT) ofBook.clear();
  const answer = shortestThatFits(book, fixing, edge);
  ofBook.set(key, answer);
  return answer;
}

function shortestThatFits(book: PriceBook, fixing: Fixing, edge: number | null): Picked | null {
  const kind = fixing.into === 'wood' ? 'wood' : 'metal';
  const stocked = book.items.flatMap((item) =>
    item.fastener?.kind === kind ? [{ item, diameter: item.fastener.diameter, length: item.fastener.length }] : [],
  );
  const thin = edge === null ? stocked : stocked.filter(({ diameter }) => diameter <= SHARE_OF_EDGE * edge);
  const thinnest = Math.min(...stocked.map(({ diameter }) => diameter));
  const splits = edge !== null && stocked.length > 0 && thinnest > MOST_OF_EDGE * edge;
  const tried = (thin.length > 0 ? thin : stocked.filter(({ diameter }) => diameter === thinnest))
    .map(({ item, diameter, length }) => ({
      item,
      diameter,
      length,
      result: fixingRule.run({ ...fixing, diameter, stocked: [length] }),
    }))
    .sort((a, b) => a.length - b.length || a.diameter - b.diameter);
  const fits = splits ? undefined : tried.find(({ result }) => result.pick !== null);
  const shown = fits ?? tried[0];
  if (!shown) return null;
  const long = stocked.some(
    ({ diameter, length }) => fixingRule.run({ ...fixing, diameter, stocked: [length] }).pick !== null,
  );
  return {
    item: fits?.item ?? null,
    least: shown.result.least,
    most: shown.result.most,
    splits,
    thinner: !fits && !splits && edge !== null && long ? SHARE_OF_EDGE * edge : null,
  };
}

/** A brad bites well from this deep on, weakly from that, mm; in timber that is hidden so much is left before it comes out. */
export const GOOD_BITE_MM = 8;
export const WEAK_BITE_MM = 4;
export const HIDDEN_LEFT_MM = 1;

/**
 * The brad that holds a thin face on a hidden batten: the shortest that bites well and does not come through, else the one
 * that bites deepest, no less than weakly.
 * @returns null when none of the price book does
 */
export function pickBrad(
  book: PriceBook,
  { passed, depth }: Pick<Fixing, 'passed' | 'depth'>,
): { readonly item: PriceItem; readonly bite: number } | null {
  const fit = book.items
    .flatMap((item) => (item.fastener?.kind === 'brad' ? [{ item, bite: item.fastener.length - passed }] : []))
    .filter(({ bite }) => bite >= WEAK_BITE_MM && depth - bite >= HIDDEN_LEFT_MM)
    .sort((a, b) => a.bite - b.bite);
  return fit.find(({ bite }) => bite >= GOOD_BITE_MM) ?? fit.at(-1) ?? null;
}
