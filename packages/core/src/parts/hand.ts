import { ringsApart, type Point, type Ring } from '../numeric/plane.js';
import { blankOf, type Part } from './part.js';

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
