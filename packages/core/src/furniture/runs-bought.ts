import type { PriceBook, PriceItem } from '../document/schema.js';
import type { Run } from '../document/unit-schema.js';
import { message, type Message } from '../words/message.js';
import type { PlacedRun } from './runs.js';
import type { Hardware } from './school.js';

/** A pipe or duct is of a run's diameter when it is no further from it than this share, or this much, mm. */
const NEAR_SHARE = 0.1;
const NEAR_MM = 1;

/** What a run is bought as, and where nothing does, why. */
export interface RunBought {
  readonly run: string;
  readonly name: string;
  /** Null where the book has none, or where what it must have is not known. */
  readonly item: PriceItem | null;
  /** m */
  readonly metres: number;
  /** Corners it turns at: elbows or bends, which are not in the metres. */
  readonly bends: number;
  readonly problem: Message | null;
}

/** The stocked cable, pipe or duct of a run: of a cable the thinnest copper that is enough, of all else the nearest diameter. */
function stockedFor(run: Run, book: PriceBook): PriceItem | null {
  const kind = book.items.flatMap((item) =>
    item.hardware?.kind === run.kind && item.pack?.unit === 'm' ? [{ item, has: item.hardware }] : [],
  );
  if (run.kind === 'cable') {
    const copper = run.wire?.copper ?? null;
    if (copper === null) return null;
    const enough = kind.filter(({ has }) => has.copper !== undefined && has.copper >= copper - 1e-9);
    return [...enough].sort((a, b) => (a.has.copper ?? 0) - (b.has.copper ?? 0))[0]?.item ?? null;
  }
  const off = ({ across }: NonNullable<PriceItem['hardware']>): number =>
    across === undefined ? Infinity : Math.abs(across - run.diameter);
  const near = kind.filter(({ has }) => off(has) <= Math.max(NEAR_MM, NEAR_SHARE * run.diameter));
  return [...near].sort((a, b) => off(a.has) - off(b.has))[0]?.item ?? null;
}

/**
 * What every run that has both its ends is bought as, by the metre as it lies; bends, joints and what is left over at its ends
 * are not in it. What the book has none of is told at the run.
 */
export function runsBought(placed: readonly PlacedRun[], book: PriceBook): readonly RunBought[] {
  return placed
    .filter(({ points }) => points.length > 0)
    .map(({ run, length, bends }) => {
      const item = stockedFor(run, book);
      const unknown = run.kind === 'cable' && (run.wire?.copper ?? null) === null;
      return {
        run: run.id,
        name: run.name,
        item,
        metres: length / 1000,
        bends,
        problem: item
          ? null
          : unknown
            ? message('runs.none.copper', { run: run.name })
            : message(run.kind === 'cable' ? 'runs.none.cable' : 'runs.none.across', {
                run: run.name,
                copper: run.wire?.copper ?? 0,
                across: { mm: run.diameter },
              }),
      };
    });
}

/** The same as what a unit's school says is bought: for the unit it begins or ends in. */
export const runsHardware = (bought: readonly RunBought[], placed: readonly PlacedRun[]): readonly Hardware[] =>
  bought.flatMap(({ run, item, metres }) => {
    const own = placed.find((one) => one.run.id === run)?.run;
    const unit = [own?.from, own?.to].flatMap((end) => (end && 'unit' in end ? [end.unit] : []))[0];
    return item ? [{ item: item.id, amount: metres, for: unit ?? '' }] : [];
  });
