/** A point in a plane, mm. */
export type Point = readonly [number, number];
/** A closed ring of points, first not repeated. */
export type Ring = readonly Point[];
/** A shape: outer ring and holes. */
export interface Outline {
  readonly outer: Ring;
  readonly holes: readonly Ring[];
}
/** Smallest upright rectangle round something. */
export interface Box {
  readonly minX: number;
  readonly minY: number;
  readonly maxX: number;
  readonly maxY: number;
}

/** Lengths closer than this are the same length, mm. */
export const SAME_LENGTH_MM = 0.01;

/** Length of an open line through the points, mm. */
export function lineLength(points: readonly Point[]): number {
  let total = 0;
  for (let i = 1; i < points.length; i += 1) {
    const [a, b] = [points[i - 1], points[i]];
    if (a && b) total += Math.hypot(b[0] - a[0], b[1] - a[1]);
  }
  return total;
}

/** Area inside a ring by the shoelace formula, mm2; positive when it runs anticlockwise. */
export function ringArea(ring: Ring): number {
  let twice = 0;
  let a = ring.at(-1);
  for (const b of ring) {
    if (a) twice += a[0] * b[1] - b[0] * a[1];
    a = b;
  }
  return twice / 2;
}

/** Area of a shape less its holes, mm2. */
export function outlineArea(outline: Outline): number {
  return outline.holes.reduce((area, hole) => area - Math.abs(ringArea(hole)), Math.abs(ringArea(outline.outer)));
}

/** The upright box round points. An empty list gives a box of no size at 0,0. */
export function boxOf(points: readonly Point[]): Box {
  if (points.length === 0) return { minX: 0, minY: 0, maxX: 0, maxY: 0 };
  let [minX, minY, maxX, maxY] = [Infinity, Infinity, -Infinity, -Infinity];
  for (let i = 0; i < points.length; i += 1) {
    const point = points[i] as Point;
    const x = point[0];
    const y = point[1];
    if (x < minX) minX = x;
    if (x > maxX) maxX = x;
    if (y < minY) minY = y;
    if (y > maxY) maxY = y;
  }
  return { minX, minY, maxX, maxY };
}

/** Ring of an upright rectangle, anticlockwise from its lower left corner. */
export function rectangle(minX: number, minY: number, maxX: number, maxY: number): Ring {
  return [
    [minX, minY],
    [maxX, minY],
    [maxX, maxY],
    [minX, maxY],
  ];
}

/** Ring of a rectangle with rounded corners drawn with `steps` chords a corner. */
export function roundedRectangle(
  minX: number,
  minY: number,
  maxX: number,
  maxY: number,
  radius: number,
  steps = 6,
): Ring {
  const r = Math.min(radius, (maxX - minX) / 2, (maxY - minY) / 2);
  if (r <= 0) return rectangle(minX, minY, maxX, maxY);
  const corners: [number, number, number][] = [
    [minX + r, minY + r, Math.PI],
    [maxX - r, minY + r, 1.5 * Math.PI],
    [maxX - r, maxY - r, 0],
    [minX + r, maxY - r, 0.5 * Math.PI],
  ];
  return corners.flatMap(([x, y, start]) =>
    Array.from({ length: steps + 1 }, (_, i): Point => {
      const angle = start + (i / steps) * (Math.PI / 2);
      return [x + r * Math.cos(angle), y + r * Math.sin(angle)];
    }),
  );
}

/** `count` numbers from `from` to `to`, both included to the last digit: what lies beyond the end of a curve has no slope. */
export function spread(from: number, to: number, count: number): number[] {
  const numbers = new Array<number>(count);
  for (let i = 0; i < count; i += 1) numbers[i] = from + ((to - from) * i) / Math.max(1, count - 1);
  if (count > 1) numbers[count - 1] = to;
  return numbers;
}

function distanceToStretch(point: Point, a: Point, b: Point): number {
  const [dx, dy] = [b[0] - a[0], b[1] - a[1]];
  const length = dx * dx + dy * dy;
  const t = length === 0 ? 0 : Math.min(1, Math.max(0, ((point[0] - a[0]) * dx + (point[1] - a[1]) * dy) / length));
  return Math.hypot(point[0] - a[0] - t * dx, point[1] - a[1] - t * dy);
}

const ROUND = 24;
/** A round hole as a ring of 24 corners. */
export const circleRing = ([x, y]: Point, radius: number): Ring =>
  Array.from({ length: ROUND }, (_, i): Point => {
    const angle = (2 * Math.PI * i) / ROUND;
    return [x + radius * Math.cos(angle), y + radius * Math.sin(angle)];
  });

/** Whether a point lies within a ring: a ray to one side crosses its edge an odd number of times. */
export function isWithin([x, y]: Point, ring: Ring): boolean {
  let odd = false;
  ring.forEach(([ax, ay], i) => {
    const [bx, by] = ring[(i + 1) % ring.length] ?? [ax, ay];
    if (ay > y !== by > y && x < ax + ((y - ay) / (by - ay)) * (bx - ax)) odd = !odd;
  });
  return odd;
}

/** Distance of a point from the nearest place on a ring's edge, mm. */
export function distanceToRing(point: Point, ring: Ring): number {
  let least = Infinity;
  ring.forEach((a, i) => {
    least = Math.min(least, distanceToStretch(point, a, ring[(i + 1) % ring.length] ?? a));
  });
  return least;
}

/** The nearest place on a ring's edge. */
export function nearestOnRing(point: Point, ring: Ring): Point {
  let best: Point = ring[0] ?? point;
  let least = Infinity;
  ring.forEach((a, i) => {
    const b = ring[(i + 1) % ring.length] ?? a;
    const [dx, dy] = [b[0] - a[0], b[1] - a[1]];
    const length = dx * dx + dy * dy;
    const t = length === 0 ? 0 : Math.min(1, Math.max(0, ((point[0] - a[0]) * dx + (point[1] - a[1]) * dy) / length));
    const at: Point = [a[0] + t * dx, a[1] + t * dy];
    const far = Math.hypot(point[0] - at[0], point[1] - at[1]);
    if (far < least) [best, least] = [at, far];
  });
  return best;
}

/** Distance of a point from the nearest place on an open line, mm; infinite for a line of no points. */
export function distanceToLine(point: Point, line: readonly Point[]): number {
  let least = Infinity;
  line.forEach((a, i) => {
    least = Math.min(least, distanceToStretch(point, a, line[i + 1] ?? a));
  });
  return least;
}

/** How far two rings lie apart at most: the largest distance of a corner of one from the other's edge (Hausdorff). */
export function ringsApart(a: Ring, b: Ring): number {
  return Math.max(...a.map((p) => distanceToRing(p, b)), ...b.map((p) => distanceToRing(p, a)));
}
