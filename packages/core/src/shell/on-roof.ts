import type { Survey } from '../document/schema.js';
import { boundsOf } from '../measure/keep-outs.js';
import { boxOf } from '../numeric/plane.js';
import { openingRing, placedOpenings } from './openings.js';

/** An opening of the roof that would be cut where something is on it: how far they lie over each other, mm. */
export interface OnRoof {
  readonly opening: string;
  readonly name: string;
  readonly against: string;
  readonly over: number;
}

/** Hatches and fans that run into what is on top of the roof. */
export function roofClashes(survey: Survey): OnRoof[] {
  const kept = boundsOf(survey, 'roof');
  return placedOpenings(survey)
    .filter(({ opening }) => opening.surface === 'roof')
    .flatMap((placed) => {
      const box = boxOf(openingRing(placed, 0, 0));
      return kept.flatMap((area): OnRoof[] => {
        const over = Math.min(
          Math.min(box.maxX, area.to) - Math.max(box.minX, area.from),
          Math.min(box.maxY, area.right) - Math.max(box.minY, area.left),
        );
        return over > 0.5 ? [{ opening: placed.opening.id, name: placed.opening.name, against: area.name, over }] : [];
      });
    });
}
