import type { Point } from '@nestplank/core';

/** Drawing coordinates: y to the right, height upward. */
export interface View {
  readonly at: (y: number, z: number) => Point;
  readonly scale: number;
}
