import { familyNamed } from '../document/kit.js';
import type { Unit } from '../document/unit-schema.js';
import type { Point } from '../numeric/plane.js';
import type { Shell } from '../shell/shell.js';
import { FAMILIES } from './families/index.js';
import { boardBox } from './skeleton.js';
import { bodyFromAbove } from './solid.js';
import type { Surroundings } from './surroundings.js';

/** A board seen square from the front or from a side: along the vehicle and up, mm. */
export interface SeenBoard {
  readonly x0: number;
  readonly x1: number;
  readonly z0: number;
  readonly z1: number;
}

/** The boards of a unit as they stand, seen along the way across: those nearer the one who looks come last. */
export function silhouetteOf(unit: Unit, room: Surroundings): readonly SeenBoard[] {
  const skeleton = familyNamed(FAMILIES, unit.family)?.skeleton(unit, room);
  return (skeleton?.boards ?? [])
    .map((board) => boardBox(board))
    .sort(
      (a, b) => Math.min(Math.abs(b.low[1]), Math.abs(b.high[1])) - Math.min(Math.abs(a.low[1]), Math.abs(a.high[1])),
    )
    .map(({ low, high }) => ({ x0: low[0], x1: high[0], z0: low[2], z1: high[2] }));
}

/** A unit seen from above: its body to the wall's true curve, with what its family puts to it, mm. */
export function outlineFromAbove(unit: Unit, inner: Shell): readonly Point[] {
  const plain = bodyFromAbove(unit, inner);
  return familyNamed(FAMILIES, unit.family)?.above?.(unit, plain) ?? plain;
}
