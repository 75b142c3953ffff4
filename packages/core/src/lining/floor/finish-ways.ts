import type { Shadow } from '../../document/body.js';
import type { FloorChoice, PriceBook } from '../../document/schema.js';
import type { Outline } from '../../numeric/plane.js';
import { finishAmount, floorFinish } from './floor-finish.js';
import { type FloorFinish } from './finish.js';
import { wholeUp } from '../../numeric/tolerance.js';

/** What one finish laid in one extent comes to. */
export interface FinishWay {
  readonly material: string;
  readonly name: string;
  readonly laid: FloorFinish['laid'];
  readonly where: FloorChoice['finish'];
  readonly packs: number;
  /** minor units */
  readonly cost: number;
  readonly mass: number;
  readonly hours: number;
  readonly thickness: number;
  /** Share of what is bought that is not laid. */
  readonly waste: number;
  readonly awkward: number;
  readonly legal: boolean;
}

/** Every finish that the price book sells, everywhere and only where feet go. */
export function finishWays(
  room: Outline,
  book: PriceBook,
  units: readonly Shadow[],
  choice: FloorChoice,
): readonly FinishWay[] {
  return book.items.flatMap((item) =>
    (['everywhere', 'seen'] as const).flatMap((where): FinishWay[] => {
      const finish = floorFinish(room, item, units, { ...choice, finish: where });
      const { pack } = item;
      if (!finish || !pack) return [];
      const amount = finishAmount(finish, item);
      const packs = wholeUp(amount / pack.contents);
      const bought = pack.unit === 'm' ? (packs * pack.contents * item.width) / 1000 : packs * pack.contents;
      return [
        {
          material: item.id,
          name: item.name,
          laid: finish.laid,
          where,
          packs,
          cost: packs * pack.price,
          mass: (finish.covered * item.thickness * item.density) / 1000,
          hours: finish.covered * item.hours,
          thickness: item.thickness,
          waste: bought > 0 ? Math.max(0, 1 - finish.covered / bought) : 0,
          awkward: finish.awkward.length,
          legal: finish.legal,
        },
      ];
    }),
  );
}
