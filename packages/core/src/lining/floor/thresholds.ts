import type { Survey } from '../../document/schema.js';
import type { ArchShape } from '../../shell/arch.js';
import { placedOpenings } from '../../shell/openings.js';
import { roofHeight, type Shell } from '../../shell/shell.js';

/** How high one steps at a door or a step, before the floor is built up and after, mm. */
export interface Threshold {
  readonly id: string;
  readonly name: string;
  readonly kind: 'door' | 'step';
  /** From the sill up to the bare floor, or from the step; negative where the sill stands above the floor. */
  readonly before: number;
  readonly after: number;
  /** Under the door's head, from the bare floor and from the finished one; null at a step. */
  readonly headBefore: number | null;
  readonly headAfter: number | null;
}

/**
 * What the floor's layers do to every way in: the height one steps up from a sill or a step, and what is left under a door's
 * head, or under the ceiling where that is lower.
 * @param bare the shell as measured
 * @param inner the shell of the finished faces
 */
export function thresholdsOf(
  survey: Survey,
  arches: readonly ArchShape[],
  bare: Shell,
  inner: Shell,
): readonly Threshold[] {
  const doors = placedOpenings(survey)
    .filter(({ opening }) => opening.kind === 'door' && opening.surface !== 'roof')
    .map(({ opening, from, to, sill, head }): Threshold => {
      const x = opening.surface === 'rear' ? inner.length : opening.surface === 'front' ? inner.start : (from + to) / 2;
      return {
        id: opening.id,
        name: opening.name,
        kind: 'door',
        before: bare.floor - sill,
        after: inner.floor - sill,
        headBefore: Math.min(head, roofHeight(bare, x, 0)) - bare.floor,
        headAfter: Math.min(head, roofHeight(inner, x, 0)) - inner.floor,
      };
    });
  const steps = arches
    .filter((arch) => arch.kind === 'step')
    .map((arch): Threshold => ({
      id: arch.id,
      name: arch.name,
      kind: 'step',
      before: bare.floor - arch.bottom,
      after: inner.floor - arch.bottom,
      headBefore: null,
      headAfter: null,
    }));
  return [...doors, ...steps];
}
