import { isSquareEnough, openBy } from '../rules/bevel.js';
import type { Side } from '../document/schema.js';
import { leanUp, type Shell } from '../shell/shell.js';
import { distanceToLine, type Point, type Ring } from '../numeric/plane.js';
import { toOrigin, type Part, type PartEdge, type PartMarks, type Vector } from './part.js';

const DEGREES = 180 / Math.PI;

/** The bevel of an edge from the lean of the wall along the panel's thickness. */
export function bevelOf(leans: readonly number[], thickness: number): Pick<PartEdge, 'bevel' | 'squareCut'> {
  const least = Math.min(...leans);
  const most = Math.max(...leans);
  const open = openBy(thickness, Math.max(Math.abs(least), Math.abs(most)));
  return { bevel: { least: least * DEGREES, most: most * DEGREES }, squareCut: isSquareEnough(open) };
}

/** Leans that a level panel meets at its back edge: its thickness runs up. */
export function leansUp(shell: Shell, side: Side, z: number, xs: readonly number[]): number[] {
  return xs.map((x) => leanUp(shell, side, x, z));
}

/** How deep a line is: the farthest that it leaves the straight line between its ends, mm. */
export function depthOf(line: readonly Point[]): number {
  const ends = [line[0], line.at(-1)].filter((end) => end !== undefined);
  return Math.max(0, ...line.map((point) => (ends.length === 2 ? distanceToLine(point, ends) : 0)));
}

/** A point of the outline lies on a line when it is no farther off, mm. */
const ON_MM = 0.01;

/** An edge that is cut larger: the line it is to have in the end, and which way is out of the part there. */
export interface LeftOn {
  readonly at: PartEdge['at'];
  readonly line: readonly Point[];
  readonly out: Point;
}

const movedMarks = (marks: PartMarks, move: (point: Point) => Point): PartMarks => ({
  ...marks,
  lines: marks.lines.map((line) => ({ ...line, from: move(line.from), to: move(line.to) })),
  screws: marks.screws.map(move),
  holes: marks.holes.map((hole) => ({ ...hole, at: move(hole.at) })),
  ...(marks.grooves
    ? { grooves: marks.grooves.map((groove) => ({ from: move(groove.from), to: move(groove.to) })) }
    : {}),
});

/**
 * A part of the size it is to have in the end, cut larger along some of its edges so that these can be scribed. The true
 * lines stay on it; a bevel that such an edge has is kept.
 * @param allowance how much is left on, mm; nothing changes for 0
 */
export function leaveOn(part: Part, allowance: number, edges: readonly LeftOn[]): Part {
  if (allowance <= 0 || edges.length === 0) return part;
  const grown = (ring: Ring): Ring =>
    ring.map((point) =>
      edges
        .filter(({ line }) => distanceToLine(point, line) <= ON_MM)
        .reduce<Point>(([x, y], { out }) => [x + allowance * out[0], y + allowance * out[1]], point),
    );
  const { outline, moved } = toOrigin({ outer: grown(part.outline.outer), holes: part.outline.holes });
  const shift = ([x, y]: Point): Point => [x - moved[0], y - moved[1]];
  const { origin, along, across } = part.place;
  const had = (at: PartEdge['at']): PartEdge | undefined => part.edges.find((edge) => edge.at === at);
  return {
    ...part,
    outline,
    edges: [
      ...part.edges
        .filter((edge) => edges.every(({ at }) => at !== edge.at))
        .map((edge) => ({ ...edge, trueLine: edge.trueLine.map(shift) })),
      ...edges.map(({ at, line, out }): PartEdge => {
        const before = had(at);
        return {
          kind: 'scribe',
          at,
          trueLine: line.map(shift),
          allowance,
          largestRemoval: Math.max(
            ...line.map(([x, y]) => distanceToLine([x + allowance * out[0], y + allowance * out[1]], line)),
          ),
          bevel: before?.bevel ?? { least: 0, most: 0 },
          squareCut: before?.squareCut ?? true,
        };
      }),
    ],
    ...(part.marks ? { marks: movedMarks(part.marks, shift) } : {}),
    place: {
      ...part.place,
      origin: [0, 1, 2].map(
        (i) => (origin[i] ?? 0) + moved[0] * (along[i] ?? 0) + moved[1] * (across[i] ?? 0) + 0,
      ) as unknown as Vector,
    },
  };
}
