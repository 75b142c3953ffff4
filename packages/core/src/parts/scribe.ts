import { isSquareEnough, openBy } from '../rules/bevel.js';
import type { Side } from '../document/schema.js';
import { leanAlong, leanUp, type Shell } from '../shell/shell.js';
import type { Point } from '../numeric/plane.js';
import type { PartEdge } from './part.js';

const DEGREES = 180 / Math.PI;

/** The bevel of an edge from the lean of the wall along the panel's thickness. */
export function bevelOf(leans: readonly number[], thickness: number): Pick<PartEdge, 'bevel' | 'squareCut'> {
  const least = Math.min(...leans);
  const most = Math.max(...leans);
  const open = openBy(thickness, Math.max(Math.abs(least), Math.abs(most)));
  return { bevel: { least: least * DEGREES, most: most * DEGREES }, squareCut: isSquareEnough(open) };
}

/** Leans that an upright panel across the vehicle meets at its back edge: its thickness runs along x. */
export function leansAlong(shell: Shell, side: Side, x: number, heights: readonly number[]): number[] {
  return heights.map((z) => leanAlong(shell, side, x, z));
}

/** Leans that a level panel meets at its back edge: its thickness runs up. */
export function leansUp(shell: Shell, side: Side, z: number, xs: readonly number[]): number[] {
  return xs.map((x) => leanUp(shell, side, x, z));
}

/** The most that comes off an edge: from the outermost point of the cut outline to the true line, across the edge. */
export function largestRemoval(trueLine: readonly Point[], axis: 0 | 1, allowance: number): number {
  const values = trueLine.map((point) => point[axis]);
  return Math.max(...values) - Math.min(...values) + allowance;
}
