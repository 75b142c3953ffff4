import type { Person } from '@nestplank/core/document';
import type { PetLain, PetRoom } from '@nestplank/core/layout';
import { lyingAnimal, standing } from '../kit/body.js';

/** A place in the vehicle: along, across and up, mm. */
type Place = readonly [number, number, number];

/** A limb in the vehicle: round at both ends, so thick on either side of its line, mm. */
export interface Limb {
  readonly from: Place;
  readonly to: Place;
  readonly radius: number;
}
/** An animal, and where it lies. */
interface Lain extends Pick<PetLain, 'pet'> {
  readonly room: Pick<PetRoom, 'x' | 'y' | 'foot' | 'turned'>;
}

/** Somebody who stands at a place of the vehicle, facing the front: as on the other drawings. */
export const somebodyLimbs = (person: Person, [x, y, floor]: Place): readonly Limb[] =>
  standing(person).map(({ from, to, radius }) => ({
    from: [x, y + from[0], floor + from[1]],
    to: [x, y + to[0], floor + to[1]],
    radius,
  }));

/**
 * An animal that lies stretched out, each limb on what it lies on: the head to the front, or to the left where it lies across,
 * as on the fold-out.
 */
export function animalLimbs({ pet, room: { x, y, foot, turned } }: Lain): readonly Limb[] {
  const half = pet.length / 2;
  return lyingAnimal(pet).map(({ from, to, radius }) => {
    const at = ([along, across]: readonly [number, number]): Place =>
      turned ? [x + across, y - half + along, foot + radius] : [x - half + along, y + across, foot + radius];
    return { from: at(from), to: at(to), radius };
  });
}
