import type { LiningChoice } from '../../document/schema.js';
import type { PartEdge } from '../../parts/part.js';
import { boxOf, spread, type Outline, type Point } from '../../numeric/plane.js';
import { reachOf, type Unrolled } from './unrolled.js';

/** A piece reaches an edge of the surface when it stands so far over its true line, mm. */
const OVER_MM = 0.5;
const POINTS = 9;

/**
 * The edges of a piece that are scribed to another surface: cut larger by the allowance, with the line they are to have in
 * the end, on the part's own axes.
 */
export function scribeEdges(
  unrolled: Unrolled,
  choice: LiningChoice,
  outline: Outline,
  onPart: (point: Point) => Point,
): readonly PartEdge[] {
  if (choice.scribe <= 0) return [];
  const box = boxOf(outline.outer);
  const { edge } = choice;
  const [u0, u1] = [Math.max(box.minX, edge), Math.min(box.maxX, unrolled.length - edge)];
  const us = spread(u0, u1, POINTS);
  const low = us.map((u): Point => [u, reachOf(unrolled, u)[0] + edge]);
  const high = us.map((u): Point => [u, reachOf(unrolled, u)[1] - edge]);
  const over = (line: readonly Point[], beyond: (v: number, at: number) => number): boolean =>
    outline.outer.some(([u, v]) => {
      const near = line.reduce((best, point) => (Math.abs(point[0] - u) < Math.abs(best[0] - u) ? point : best));
      return beyond(v, near[1]) > OVER_MM && Math.abs(near[0] - u) < (u1 - u0) / (POINTS - 1) + choice.scribe;
    });
  const lines: (readonly Point[])[] = [
    ...(over(low, (v, at) => at - v) ? [low] : []),
    ...(over(high, (v, at) => v - at) ? [high] : []),
    ...(box.minX < edge - OVER_MM ? [[[edge, box.minY] as const, [edge, box.maxY] as const]] : []),
    ...(box.maxX > unrolled.length - edge + OVER_MM
      ? [[[unrolled.length - edge, box.minY] as const, [unrolled.length - edge, box.maxY] as const]]
      : []),
  ];
  const centre = onPart([(box.minX + box.maxX) / 2, (box.minY + box.maxY) / 2]);
  const size = boxOf(outline.outer.map(onPart));
  return lines.map((line): PartEdge => {
    const own = line.map(onPart);
    const middle = own[Math.floor(own.length / 2)] ?? centre;
    const [dx, dy] = [
      (middle[0] - centre[0]) / Math.max(1, size.maxX - size.minX),
      (middle[1] - centre[1]) / Math.max(1, size.maxY - size.minY),
    ];
    const first = own[0] ?? centre;
    const last = own.at(-1) ?? centre;
    // a line that runs along the part is its front or back, one that runs across it an end
    const level = Math.abs(last[0] - first[0]) > Math.abs(last[1] - first[1]);
    return {
      kind: 'scribe',
      at: level ? (dy > 0 ? 'back' : 'front') : dx > 0 ? 'right' : 'left',
      trueLine: own,
      allowance: choice.scribe,
      largestRemoval: choice.scribe,
      bevel: { least: 0, most: 0 },
      squareCut: true,
    };
  });
}
