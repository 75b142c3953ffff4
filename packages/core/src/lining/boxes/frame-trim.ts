import { seenFrom } from '../../parts/hand.js';
import { placeSeen } from '../../parts/lay-flat.js';
import type { Opening, PriceItem } from '../../document/schema.js';
import type { WindowBox } from './box.js';
import { isBar } from '../../materials/bars.js';
import type { Point } from '../../numeric/plane.js';
import type { Part, Vector } from '../../parts/part.js';

/** The trim stands back from the boards' inner faces, mm. */
export const TRIM_BACK_MM = 3;
const DEGREES = 180 / Math.PI;

/** The clear size inside four corners, from the first lower one anticlockwise: level at both, and high, mm. */
export function clearOf([a, b, c, d]: readonly [Point, Point, Point, Point]): WindowBox['clear'] {
  return { length: Math.max(0, b[0] - a[0]), top: Math.max(0, c[0] - d[0]), height: Math.max(0, d[1] - a[1]) };
}

/** Names of the four lengths by the edge they lie along, as they were always counted: low, high, front, rear. */
const NUMBERS = [1, 4, 2, 3] as const;

/**
 * Four lengths of a profile round an opening, each corner mitred by half its own angle.
 * @param corners of the frame's inside in its own plane, from the first lower one anticlockwise, mm
 * @param at where a place of that plane is in the vehicle
 * @param along the plane's first way in the vehicle, `up` its second, `good` the way into the room
 */
export function frameTrim(
  opening: Opening,
  trim: PriceItem | null,
  corners: readonly Point[],
  at: (point: Point) => Vector,
  along: Vector,
  up: Vector,
  good: Vector,
): Part[] {
  if (!trim || !isBar(trim)) return [];
  const w = trim.width;
  const way = ([p, q]: Point): Vector => [
    p * along[0] + q * up[0] + 0,
    p * along[1] + q * up[1] + 0,
    p * along[2] + q * up[2] + 0,
  ];
  return corners
    .flatMap((start, i): Part[] => {
      const [before, end, after] = [corners[(i + 3) % 4], corners[(i + 1) % 4], corners[(i + 2) % 4]];
      const number = NUMBERS[i];
      if (!before || !end || !after || number === undefined) return [];
      const [dx, dy] = [end[0] - start[0], end[1] - start[1]];
      const clear = Math.hypot(dx, dy);
      if (clear <= 0) return [];
      const run: Point = [dx / clear, dy / clear];
      // away from the opening, to the right of the way round it
      const outward: Point = [run[1], -run[0]];
      const [a, b] = [corner(before, start, end), corner(start, end, after)];
      // the outer edge reaches beyond the inner one by w / tan of half the corner
      const [beyond, behind] = [w / Math.tan(a / 2), w / Math.tan(b / 2)];
      const length = clear + beyond + behind;
      const origin: Point = [start[0] - run[0] * beyond, start[1] - run[1] * beyond];
      const [ox, oy, oz] = at(origin);
      // its good face lies its own thickness into the room
      const t = trim.thickness;
      const face: Vector = [ox + t * good[0], oy + t * good[1], oz + t * good[2]];
      return [
        seenFrom(
          {
            id: `window-${opening.id}-trim-${number}`,
            role: 'trim',
            number,
            unit: null,
            surface: 'windows',
            of: opening.name,
            material: trim.id,
            thickness: trim.thickness,
            outline: {
              outer: [
                [beyond, 0],
                [length - behind, 0],
                [length, w],
                [0, w],
              ],
              holes: [],
            },
            grain: true,
            ends: { start: 90 - (a / 2) * DEGREES, end: 90 - (b / 2) * DEGREES },
            edges: [],
            place: placeSeen(face, way(run), way(outward)),
          },
          good,
        ),
      ];
    })
    .sort((p, q) => p.number - q.number);
}

/** The inside angle at a corner, radians. */
function corner(before: Point, at: Point, after: Point): number {
  const [ax, ay] = [before[0] - at[0], before[1] - at[1]];
  const [bx, by] = [after[0] - at[0], after[1] - at[1]];
  const cosine = (ax * bx + ay * by) / (Math.hypot(ax, ay) * Math.hypot(bx, by));
  return Math.acos(Math.max(-1, Math.min(1, cosine)));
}
