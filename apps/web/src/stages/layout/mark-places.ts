import type { LabelPlace } from '../../foldout/label-place.js';

/** How large a mark is from its middle, px; a lesser one where there are many is smaller. */
export const MARK_PX = 12;
export const LESSER_PX = 9;
/** So many marks are drawn alike; of more, those of the lesser notes are smaller. */
const MANY = 12;
/** Between two marks, px. */
const BETWEEN_PX = 2;
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

/**
 * How large each mark is from its middle, px.
 * @param narrow on a small drawing every mark is as small as the lesser ones
 */
export const markSizes = (lesser: readonly boolean[], narrow = false): number[] =>
  lesser.map((one) => (narrow || (one && lesser.length > MANY) ? LESSER_PX : MARK_PX));

const clearOf = ([x, y]: Place, { x0, x1, y0, y1 }: LabelPlace['box'], size: number): boolean =>
  Math.hypot(Math.max(x0 - x, 0, x - x1), Math.max(y0 - y, 0, y - y1)) >= size;

/**
 * Where numbered marks are drawn: each as near to its own place as it can be without covering another mark, or a name.
 * @param wanted where each would be, px, the first first
 * @param names the room that names take, px
 * @param sizes how large each is from its middle, px
 */
export function markPlaces(
  wanted: readonly Place[],
  names: readonly LabelPlace['box'][],
  sizes: readonly number[] = wanted.map(() => MARK_PX),
): Place[] {
  const taken: Place[] = [];
  for (const [i, [x, y]] of wanted.entries()) {
    const size = sizes[i] ?? MARK_PX;
    const apart = ([a, b]: Place): boolean =>
      taken.every(([c, d], j) => Math.hypot(a - c, b - d) >= size + (sizes[j] ?? MARK_PX) + BETWEEN_PX);
    const places = ROUND.map(([dx, dy]): Place => [x + dx, y + dy]);
    taken.push(
      places.find((place) => apart(place) && names.every((box) => clearOf(place, box, size))) ??
        places.find(apart) ?? [x, y],
    );
  }
  return taken;
}
