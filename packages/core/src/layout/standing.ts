import type { Unit } from '../document/schema.js';
import type { Scene, SceneFamily } from '../furniture/scene.js';
import { solidsOf } from '../furniture/solid.js';
import type { Surroundings } from '../furniture/surroundings.js';
import type { SolidBox } from '../rules/room.js';
import { memoFew } from '../numeric/memo.js';

/** A box of a unit where it stands. */
export interface Standing {
  readonly unit: Unit;
  readonly box: SolidBox;
}
/** A room with what stands in it. */
export type Stood = Surroundings & Pick<Scene, 'units'> & { readonly families: readonly SceneFamily[] };

const ofUnits = new WeakMap<Unit, { readonly boxes: readonly SolidBox[]; readonly standing: readonly Standing[] }>();
/** The boxes of one unit, with whose they are: the same for as long as it stands there. */
export function standingOf(unit: Unit, room: Surroundings, families: readonly SceneFamily[]): readonly Standing[] {
  const boxes = solidsOf(unit, room, families);
  const before = ofUnits.get(unit);
  if (before?.boxes === boxes) return before.standing;
  const standing = boxes.map((box): Standing => ({ unit, box }));
  ofUnits.set(unit, { boxes, standing });
  return standing;
}

/** Everything that stands in the room, once for each scene. */
export const standingIn = memoFew((scene: Stood): readonly Standing[] => {
  const all: Standing[] = [];
  const { units, families } = scene;
  for (let i = 0; i < units.length; i += 1) {
    const own = standingOf(units[i] as Unit, scene, families);
    for (let k = 0; k < own.length; k += 1) all.push(own[k] as Standing);
  }
  return all;
});
