import { sceneOf } from '@nestplank/core/derive';
import type { Mode } from '@nestplank/core/document';
import {
  FAMILIES,
  standsMoved,
  sweptFromAbove,
  type MadeUnit,
  type Motion,
  type Prism,
} from '@nestplank/core/furniture';
import { stepsBetween } from '@nestplank/core/layout';
import type { Scene } from '../../state/scene.js';

/** Something moved in a mode: what it is, how far, and where it then is; null where it is stowed. */
export interface MovedPart {
  readonly motion: Motion;
  readonly unit: string;
  readonly share: number;
  readonly prism: Prism | null;
}

/** How the parts of a unit move, once it is made. */
export const motionsIn = (scene: Scene, unit: string): readonly Motion[] =>
  scene.shape.made.find((made) => made.unit === unit)?.skeleton?.motions ?? [];

/** How far behind the rear end anything is drawn out, mm; 0 where all stays inside. */
export const behindRear = (made: readonly MadeUnit[], length: number): number =>
  Math.max(
    0,
    ...made.flatMap(({ skeleton }) =>
      (skeleton?.motions ?? []).flatMap((motion) => sweptFromAbove(motion).map(([x]) => Math.ceil(x - length))),
    ),
  );

/** Everything that is moved in a mode. */
export const movedParts = (scene: Scene, states: Mode['states']): readonly MovedPart[] =>
  scene.project.layout.units.flatMap((unit) =>
    motionsIn(scene, unit.id).flatMap((motion): MovedPart[] => {
      const share = states[motion.of] ?? 0;
      return share > 0 ? [{ motion, unit: unit.id, share, prism: standsMoved(motion, share) }] : [];
    }),
  );

/** What moves between two modes, in its order. */
export function stepsOf({ project, derived, book }: Scene, from: Mode, to: Mode): ReturnType<typeof stepsBetween> {
  const scene = sceneOf(project, derived, book, FAMILIES);
  return scene ? stepsBetween(scene, from.states, to.states) : [];
}
