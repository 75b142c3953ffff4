import type { Point } from '@nestplank/core/numeric';

/** Drawing coordinates: y to the right, height upward. */
export interface View {
  readonly at: (y: number, z: number) => Point;
  readonly scale: number;
}
