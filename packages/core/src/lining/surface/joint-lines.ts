import { boxOf, type Point } from '../../numeric/plane.js';
import type { Vector } from '../../parts/part.js';
import { halfWidth, roofHeight, type Shell } from '../../shell/shell.js';
import type { Lining } from './lining.js';
import { endAt, isEnd, toPlace, type Unrolled } from './unrolled.js';

/** Joints stand so far before the face, so that they are seen on it, mm. */
const BEFORE_MM = 2;
/** A line along the vehicle, and one up the curve, is drawn by stretches no longer than these, mm. */
const [ALONG_MM, UP_MM] = [400, 80];

/** A place of a lining, by its u and v, on the face of the room, mm. */
function onFace(unrolled: Unrolled, shell: Shell, [u, v]: Point): Vector {
  const { surface, from } = unrolled;
  const place = toPlace(unrolled, u, v);
  if (isEnd(surface)) return [endAt(shell, surface) + (surface === 'front' ? BEFORE_MM : -BEFORE_MM), from + u, place];
  const x = Math.min(shell.length, Math.max(shell.start, from + u));
  if (surface === 'ceiling') return [x, place, roofHeight(shell, x, place) - BEFORE_MM];
  const wall = halfWidth(shell, surface, x, place) - BEFORE_MM;
  return [x, surface === 'left' ? -wall : wall, place];
}

/**
 * The joints of a lining where they lie in the room, each as a line of places, mm: the low edge and the front end of each
 * board and strip, the front edge of each panel, since the other edges are their neighbours'.
 * @param shell the finished room
 */
export function jointLines({ pieces, school, ground: { unrolled } }: Lining, shell: Shell): Vector[][] {
  return pieces.flatMap(({ outline: { outer } }) => {
    const box = boxOf(outer);
    return outer.flatMap((from, i): Vector[][] => {
      const to = outer[(i + 1) % outer.length] ?? from;
      const [u, v] = [(from[0] + to[0]) / 2, (from[1] + to[1]) / 2];
      const upright = Math.abs(to[1] - from[1]) > Math.abs(to[0] - from[0]);
      const own = upright ? u < (box.minX + box.maxX) / 2 : school !== 'sheets' && v < (box.minY + box.maxY) / 2;
      if (!own) return [];
      const parts = Math.max(
        1,
        Math.ceil(Math.abs(to[0] - from[0]) / ALONG_MM),
        Math.ceil(Math.abs(to[1] - from[1]) / UP_MM),
      );
      return [
        Array.from({ length: parts + 1 }, (_, k) => {
          const t = k / parts;
          return onFace(unrolled, shell, [from[0] + t * (to[0] - from[0]), from[1] + t * (to[1] - from[1])]);
        }),
      ];
    });
  });
}
