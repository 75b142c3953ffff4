import type { Mode } from '../document/schema.js';
import type { Part, Vector } from '../parts/part.js';
import type { MadeUnit } from './make.js';
import { moved, rigidOf, type Rigid } from './moved.js';

type Made = Pick<MadeUnit, 'unit' | 'skeleton'>;

/** What each part of furniture moves with, by the part's id. */
export const movesOf = (made: readonly Made[]): ReadonlyMap<string, string> =>
  new Map(
    made.flatMap(({ unit, skeleton }) =>
      (skeleton?.boards ?? []).flatMap(({ name, moves }): [string, string][] =>
        moves === undefined ? [] : [[`${unit}.${name}`, `${unit}.${moves}`]],
      ),
    ),
  );

/** A part where a move brings it: its shape stays, its place is turned and carried. */
export function partMoved(part: Part, rigid: Rigid): Part {
  const { origin, along, across, thick } = part.place;
  const turned = (way: Vector): Vector => moved({ ...rigid, about: [0, 0, 0], by: [0, 0, 0] }, way);
  return {
    ...part,
    place: {
      origin: moved(rigid, origin),
      along: turned(along),
      across: turned(across),
      thick: turned(thick),
    },
  };
}

/**
 * Parts where they stand while some of what moves is moved; what is stowed out of the room is left out.
 * @param states how far each motion is moved, 0 to 1, by its name; what is not named is shut
 */
export function partsIn(parts: readonly Part[], made: readonly Made[], states: Mode['states']): readonly Part[] {
  const motions = new Map(
    made.flatMap(({ skeleton }) => (skeleton?.motions ?? []).map((motion) => [motion.of, motion] as const)),
  );
  const moving = movesOf(made);
  if (!Object.values(states).some((share) => share > 0)) return parts;
  return parts.flatMap((part) => {
    const motion = motions.get(moving.get(part.id) ?? '');
    const share = motion ? (states[motion.of] ?? 0) : 0;
    if (!motion || share <= 0) return [part];
    const rigid = rigidOf(motion, share);
    return rigid ? [partMoved(part, rigid)] : [];
  });
}
