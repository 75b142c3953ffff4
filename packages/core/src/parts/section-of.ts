import type { Outline, Point, Ring } from '../numeric/plane.js';
import type { Part, Vector } from './part.js';

/** A board so nearly parallel to the slice is seen as a face, not as an edge: cosine of the angle between. */
const PARALLEL = 0.999;
const TINY = 1e-9;

/** Where a line crosses the edges of an outline, in order along it: places along the line, in pairs of in and out. */
function crossings({ outer, holes }: Outline, normal: Point, distance: number): readonly number[] {
  const along: Point = [-normal[1], normal[0]];
  const off = ([a, b]: Point): number => normal[0] * a + normal[1] * b - distance;
  const place = ([a, b]: Point): number => along[0] * a + along[1] * b;
  return [outer, ...holes]
    .flatMap((ring) =>
      ring.flatMap((from, i): number[] => {
        const to = ring[(i + 1) % ring.length] ?? from;
        const [before, after] = [off(from), off(to)];
        // an edge that lies in the line is met by its neighbours
        if (before > 0 === after > 0) return [];
        const share = before / (before - after);
        return [place(from) + share * (place(to) - place(from))];
      }),
    )
    .sort((a, b) => a - b);
}

/**
 * What a cut across the vehicle at x goes through of a part: its true section, [y, z] in mm, as outlines with their holes. A
 * board seen on edge gives a strip as thick as it is for each stretch that is really there; one that lies in the cut gives its
 * whole face. Empty where the cut misses it.
 */
export function sectionOf(part: Pick<Part, 'outline' | 'place' | 'thickness'>, x: number): readonly Outline[] {
  const { origin, along, across, thick } = part.place;
  const at = (a: number, b: number, w: number): Vector => [
    origin[0] + a * along[0] + b * across[0] + w * thick[0],
    origin[1] + a * along[1] + b * across[1] + w * thick[1],
    origin[2] + a * along[2] + b * across[2] + w * thick[2],
  ];
  const flat = ([, y, z]: Vector): Point => [y, z];
  const distance = x - origin[0];
  if (Math.abs(thick[0]) >= PARALLEL) {
    const depth = distance / thick[0];
    if (depth < -TINY || depth > part.thickness + TINY) return [];
    const face = (ring: Ring): Ring => ring.map(([a, b]) => flat(at(a, b, depth)));
    return [{ outer: face(part.outline.outer), holes: part.outline.holes.map(face) }];
  }
  const size = Math.hypot(along[0], across[0]);
  const normal: Point = [along[0] / size, across[0] / size];
  const cut = (w: number): readonly number[] => crossings(part.outline, normal, (distance - w * thick[0]) / size);
  const [near, far] = [cut(0), cut(part.thickness)];
  // a leaning board may be met by one of its faces only, at its very end: nothing that can be drawn
  if (near.length !== far.length || near.length % 2 !== 0) return [];
  const point = (s: number, w: number): Point => {
    const d = (distance - w * thick[0]) / size;
    return flat(at(normal[0] * d - normal[1] * s, normal[1] * d + normal[0] * s, w));
  };
  return near.flatMap((from, i): Outline[] => {
    if (i % 2 === 1) return [];
    const [to, farFrom, farTo] = [near[i + 1] ?? from, far[i] ?? from, far[i + 1] ?? from];
    if (to - from < TINY) return [];
    const outer: Ring = [point(from, 0), point(to, 0), point(farTo, part.thickness), point(farFrom, part.thickness)];
    return [{ outer, holes: [] }];
  });
}
