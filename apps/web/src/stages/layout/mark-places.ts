import type { LabelPlace } from '../../foldout/label-place.js';

export const MARK_PX = 12;
/** Between the middles of two marks, px. */
const APART_PX = 26;
const STEP_PX = 14;
/** A mark goes no farther from its place than this, px: there it covers what it has to. */
const FARTHEST_PX = 112;

type Place = readonly [number, number];
/** The places round a point, from near to far. */
const ROUND: readonly Place[] = Array.from({ length: FARTHEST_PX / STEP_PX }, (_, ring) => ring + 1).reduce<Place[]>(
  (all, ring) => {
    const count = 6 * ring;
    for (let i = 0; i < count; i += 1) {
      const angle = (2 * Math.PI * i) / count;
      all.push([ring * STEP_PX * Math.cos(angle), ring * STEP_PX * Math.sin(angle)]);
    }
    return all;
  },
  [[0, 0]],
);

const clearOf = ([x, y]: Place, { x0, x1, y0, y1 }: LabelPlace['box']): boolean =>
  Math.hypot(Math.max(x0 - x, 0, x - x1), Math.max(y0 - y, 0, y - y1)) >= MARK_PX;

/**
 * Where numbered marks are drawn: each as near to its own place as it can be without covering another mark, or a name.
 * @param wanted where each would be, px, the first first
 * @param names the room that names take, px
 */
export function markPlaces(wanted: readonly Place[], names: readonly LabelPlace['box'][]): Place[] {
  const taken: Place[] = [];
  for (const [x, y] of wanted) {
    const apart = ([a, b]: Place): boolean => taken.every(([c, d]) => Math.hypot(a - c, b - d) >= APART_PX);
    const places = ROUND.map(([dx, dy]): Place => [x + dx, y + dy]);
    taken.push(
      places.find((place) => apart(place) && names.every((box) => clearOf(place, box))) ?? places.find(apart) ?? [x, y],
    );
  }
  return taken;
}
