import type { Mode } from '../document/schema.js';
import type { Part, Vector } from '../parts/part.js';
import type { MadeUnit } from './make.js';
import { goesWith, type Goes } from './goes-with.js';
import { moved, rigidOf, type Rigid } from './moved.js';

type Made = Pick<MadeUnit, 'unit' | 'skeleton'>;

/** What each part of furniture goes with, by the part's id; those that stand still are left out. */
export const movesOf = (made: readonly Made[]): ReadonlyMap<string, readonly Goes[]> =>
  new Map(
    made.flatMap(({ unit, skeleton }) => {
      const motions = skeleton?.motions ?? [];
      if (!skeleton || motions.length === 0) return [];
      return skeleton.boards.flatMap((board): [string, readonly Goes[]][] => {
        const goes = motions.flatMap((motion) => goesWith(unit, board, motion) ?? []);
        return goes.length === 0 ? [] : [[`${unit}.${board.name}`, goes]];
      });
    }),
  );

/** Which of its motions a part follows as they stand: what takes it away before what carries it; the first where none is moved. */
export function followed(goes: readonly Goes[], states: Mode['states']): Goes | null {
  const open = goes.filter(({ motion }) => (states[motion.of] ?? 0) > 0);
  return open.find(({ motion, off }) => off || rigidOf(motion, 1) === null) ?? open[0] ?? goes[0] ?? null;
}

/** How a part is moved by what it goes with, as that stands; null where it is taken off or stowed out of the room. */
export function rigidIn(goes: readonly Goes[], states: Mode['states']): Rigid | null {
  const one = followed(goes, states);
  const share = one ? (states[one.motion.of] ?? 0) : 0;
  if (!one || share <= 0) return STILL;
  return one.off ? null : rigidOf(one.motion, share);
}
const STILL: Rigid = { axis: 'z', about: [0, 0, 0], turn: 0, by: [0, 0, 0] };

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
  if (!Object.values(states).some((share) => share > 0)) return parts;
  const moving = movesOf(made);
  return parts.flatMap((part) => {
    const goes = moving.get(part.id);
    if (!goes) return [part];
    const rigid = rigidIn(goes, states);
    return rigid === STILL ? [part] : rigid ? [partMoved(part, rigid)] : [];
  });
}
