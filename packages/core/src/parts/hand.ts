import { ringsApart, type Point, type Ring } from '../numeric/plane.js';
import { cross, placeSeen } from './lay-flat.js';
import { blankOf, type Part, type Vector } from './part.js';

/** Outlines that differ by no more than this are the same, mm. */
const SAME_MM = 1;

const alike = (a: Ring, b: Ring): boolean => ringsApart(a, b) <= SAME_MM;

/** The outline as it looks from the back: mirrored across the grain, in the same blank. */
export function mirrored(part: Part): Ring {
  const { width } = blankOf(part);
  return part.outline.outer.map(([x, y]): Point => [x, width - y]);
}

const halfTurned = (ring: Ring, length: number, width: number): Ring =>
  ring.map(([x, y]): Point => [length - x, width - y]);

/** Whether a part cut face down would not be the part: turned over, its outline does not come back to itself. */
export function isHanded(part: Part): boolean {
  const { length, width } = blankOf(part);
  const back = mirrored(part);
  return !alike(back, part.outline.outer) && !alike(halfTurned(back, length, width), part.outline.outer);
}

/** The part that is this one's mirror image, if the design has it: the other hand. */
export function otherHand(part: Part, parts: readonly Part[]): Part | null {
  if (!isHanded(part)) return null;
  const { length, width } = blankOf(part);
  const back = mirrored(part);
  return (
    parts.find((other) => {
      if (other === part || other.material !== part.material) return false;
      const size = blankOf(other);
      if (Math.abs(size.length - length) > SAME_MM || Math.abs(size.width - width) > SAME_MM) return false;
      return alike(back, other.outline.outer) || alike(halfTurned(back, length, width), other.outline.outer);
    }) ?? null
  );
}

/** Every so far along a part, where its two long edges lie: to be plotted by hand from a straight line, mm. */
export function offsetTable(
  part: Part,
  every: number,
): readonly { readonly at: number; readonly low: number; readonly high: number }[] {
  const { length } = blankOf(part);
  const ring = part.outline.outer;
  const places = [...Array.from({ length: Math.ceil(length / every) }, (_, i) => i * every), length];
  return places.map((at) => {
    const x = Math.min(length - 0.001, Math.max(0.001, at));
    const crossings = ring.flatMap((a, i): number[] => {
      const b = ring[(i + 1) % ring.length] ?? a;
      if (a[0] > x === b[0] > x) return [];
      return [a[1] + ((x - a[0]) / (b[0] - a[0])) * (b[1] - a[1])];
    });
    return { at, low: Math.min(...crossings), high: Math.max(...crossings) };
  });
}

/** Which way the drawn face of a part looks in the vehicle: the good one, toward the one who stands there. */
export type Toward = 'front' | 'rear' | 'left' | 'right' | 'up' | 'down';
const WAYS: readonly (readonly [Toward, Toward])[] = [
  ['front', 'rear'],
  ['left', 'right'],
  ['down', 'up'],
];
export function faceToward({ place }: Pick<Part, 'place'>): Toward {
  const out = place.thick.map((value) => -value);
  const axis = out.reduce((most, value, i) => (Math.abs(value) > Math.abs(out[most] ?? 0) ? i : most), 0);
  const [less, more] = WAYS[axis] ?? ['down', 'up'];
  return (out[axis] ?? 0) < 0 ? less : more;
}

const OTHER_END = { left: 'right', right: 'left', back: 'back', front: 'front' } as const;

/**
 * Draws a part from the side its good face looks to: mirrored along its grain where it was drawn from behind.
 * @param part its place begins on the good face
 * @param good which way the good face looks in the vehicle
 */
export function seenFrom(part: Part, good: Vector): Part {
  const { origin, along, across } = part.place;
  const drawn = cross(along, across);
  if (drawn[0] * good[0] + drawn[1] * good[1] + drawn[2] * good[2] >= 0) return part;
  const { length } = blankOf(part);
  const turn = ([x, y]: Point): Point => [length - x, y];
  // a ring that is mirrored runs the other way round; it begins at the lower left again
  const mirror = (ring: Ring): Ring => {
    const turned = ring.map(turn).reverse();
    return [...turned.slice(-2), ...turned.slice(0, -2)];
  };
  return {
    ...part,
    outline: { outer: mirror(part.outline.outer), holes: part.outline.holes.map(mirror) },
    edges: part.edges.map((edge) => ({ ...edge, at: OTHER_END[edge.at], trueLine: edge.trueLine.map(turn).reverse() })),
    ...(part.ends ? { ends: { start: part.ends.end, end: part.ends.start } } : {}),
    place: placeSeen(
      [origin[0] + length * along[0], origin[1] + length * along[1], origin[2] + length * along[2]],
      [0 - along[0], 0 - along[1], 0 - along[2]],
      across,
    ),
  };
}
