import type { Mode, Pet } from '../../document/schema.js';
import type { Den } from '../../document/unit-schema.js';
import { appliesTo, type Mend, type Scene } from '../../furniture/scene.js';
import { petPlaceRule, petRoadRule } from '../../rules/pets.js';
import { message, mm } from '../../words/message.js';
import { acrossAt } from './room.js';
import { nearestDen, petRoom, type PetRoom } from '../pets.js';

const denOf = (pet: Pet, scene: Scene): Den['at'] | null => scene.dens.find((den) => den.pet === pet.id)?.at ?? null;

/** Somewhere it has room in every mode: as near as can be to where it lies, or to the middle of the vehicle. */
function laid(pet: Pet, room: PetRoom | null, scene: Scene): Mend | null {
  const { inner } = scene;
  const at = nearestDen(pet, room ? [room.x, room.y] : [(inner.start + inner.length) / 2, 0], scene);
  if (!at || !('x' in at)) return null;
  return {
    said: message(at.turned ? 'mend.layAcross' : 'mend.layAlong', {
      who: pet.name,
      x: mm(at.x),
      across: acrossAt(at.y),
    }),
    operations: [{ name: 'layPet', payload: { pet: pet.id, at } }],
  };
}

const place = appliesTo(petPlaceRule, {
  ofRoom: (scene) =>
    scene.pets.flatMap((pet) => {
      const at = denOf(pet, scene);
      const shut = at && petRoom(pet, at, scene);
      const { length, width, height, name } = pet;
      const said = (room: PetRoom | null, mode: Mode | null) => ({
        id: mode ? `pet-place:${mode.id}:${pet.id}` : `pet-place:${pet.id}`,
        input: {
          length,
          width,
          height,
          name,
          free: room && { long: room.long, wide: room.wide, high: room.high },
          shut: room?.shut ?? false,
          door: room?.door ?? null,
        },
        pin: {
          unit: at && 'unit' in at ? at.unit : null,
          person: null,
          x: room?.x ?? (scene.inner.start + scene.inner.length) / 2,
          y: room?.y ?? 0,
        },
        ...(mode ? { mode: mode.id } : {}),
        mend: () => laid(pet, room, scene),
      });
      // what is moved in a mode may come to where it lies
      const moved = scene.modes.flatMap((mode) => {
        const then = at && shut && petRoom(pet, at, scene, mode.states);
        return then && (then.long < shut.long || then.wide < shut.wide || then.high < shut.high)
          ? [{ ...said(then, mode), quiet: true }]
          : [];
      });
      return [said(shut, null), ...moved];
    }),
});

const road = appliesTo(petRoadRule, {
  ofRoom: (scene) =>
    scene.pets.map((pet) => {
      const at = denOf(pet, scene);
      const room = at && petRoom(pet, at, scene);
      return {
        id: `pet-road:${pet.id}`,
        input: { mass: pet.mass ?? null, rides: pet.rides ?? null, name: pet.name },
        pin: {
          unit: null,
          person: null,
          x: room?.x ?? (scene.inner.start + scene.inner.length) / 2,
          y: room?.y ?? 0,
        },
      };
    }),
});

/** Animals: where they lie, and what holds them on the road. */
export const PET_CHECKS = [place, road];
