import type { Side } from '../document/schema.js';
import { evaluate, monotoneCurve, slopeAt, type Curve } from '../numeric/curve.js';
import { spread, type Point } from '../numeric/plane.js';
import { makeShell, roofSlope, type Shell, type StationSection } from './shell.js';
import { HAIR_MM, ROUNDING } from '../numeric/tolerance.js';

/** How far each surface moves into the room, mm. */
export interface Insets {
  readonly floor: number;
  readonly left: number;
  readonly right: number;
  readonly ceiling: number;
  readonly front: number;
  readonly rear: number;
}

/** Points along each curve that are moved inward. */
const SAMPLES = 25;
/** The moved curves are lengthened by this much so that they cross at the corner, mm; and where a round shoulder is farther off, by this. */
const OVERLAP_MM = 150;
const FAR_OVERLAP_MM = 1000;

/** Moves the wall inward along its normal: the tangent is (d', 1), so the normal into the room is (-1, d') over its length. */
function movedWall(wall: Curve, inset: number, beyond: number): Point[] {
  const [from, to] = [wall.at[0] ?? 0, wall.at.at(-1) ?? 0];
  const heights = to > from ? spread(from, to, SAMPLES) : [from];
  const points = heights.map((z): Point => {
    const slope = slopeAt(wall, z);
    const length = Math.hypot(1, slope);
    return [evaluate(wall, z) - inset / length, z + (inset * slope) / length];
  });
  return [...points, lengthened(points, slopeAt(wall, to), beyond)];
}

function lengthened(points: readonly Point[], slope: number, beyond: number): Point {
  const [d, z] = points.at(-1) ?? [0, 0];
  const length = Math.hypot(1, slope);
  return [d + (beyond * slope) / length, z + beyond / length];
}

/** Moves the roof down along its normal: the tangent is (1, h'), so the normal into the room is (h', -1) over its length. */
function movedRoof(section: StationSection, inset: number, by: number): Point[] {
  const [from, to] = [section.roof.at[0] ?? 0, section.roof.at.at(-1) ?? 0];
  const points = spread(from, to, 2 * SAMPLES).map((y): Point => {
    const slope = roofSlope(section, y);
    const length = Math.hypot(1, slope);
    return [y + (inset * slope) / length, evaluate(section.roof, y) - inset / length];
  });
  const start: Point = points[0] ?? [0, 0];
  const end: Point = points.at(-1) ?? [0, 0];
  const beyond = (p: Point, slope: number, sign: number): Point => [
    p[0] + (sign * by) / Math.hypot(1, slope),
    p[1] + (sign * by * slope) / Math.hypot(1, slope),
  ];
  return [beyond(start, roofSlope(section, from), -1), ...points, beyond(end, roofSlope(section, to), 1)];
}

/** Where two open lines first cross, walking the second; with the index of the piece on each. */
function crossing(
  a: readonly Point[],
  b: readonly Point[],
): { readonly point: Point; readonly onA: number; readonly onB: number } | null {
  for (let j = 1; j < b.length; j += 1) {
    for (let i = 1; i < a.length; i += 1) {
      const [p, q, r, s] = [a[i - 1], a[i], b[j - 1], b[j]];
      if (!p || !q || !r || !s) continue;
      const cross = (q[0] - p[0]) * (s[1] - r[1]) - (q[1] - p[1]) * (s[0] - r[0]);
      if (Math.abs(cross) < 1e-12) continue;
      const t = ((r[0] - p[0]) * (s[1] - r[1]) - (r[1] - p[1]) * (s[0] - r[0])) / cross;
      const u = ((r[0] - p[0]) * (q[1] - p[1]) - (r[1] - p[1]) * (q[0] - p[0])) / cross;
      // lines that meet in a corner of both are not lost to the last digit
      if (t >= -ROUNDING && t <= 1 + ROUNDING && u >= -ROUNDING && u <= 1 + ROUNDING)
        return { point: [p[0] + t * (q[0] - p[0]), p[1] + t * (q[1] - p[1])], onA: i - 1, onB: j - 1 };
    }
  }
  return null;
}

/** Keeps points whose first coordinate increases by more than a hair, as a curve needs. */
function increasing(points: readonly Point[]): Point[] {
  const kept: Point[] = [];
  for (const point of points) {
    const before = kept.at(-1);
    if (!before || point[0] > before[0] + HAIR_MM) kept.push(point);
  }
  return kept;
}

const curveThrough = (points: readonly Point[]): Curve => {
  const clean = increasing(points);
  return monotoneCurve(
    clean.map((p) => p[0]),
    clean.map((p) => p[1]),
  );
};

/** The inner section, or null when the layers leave no room between them. */
function insetSection(section: StationSection, insets: Insets): StationSection | null {
  const roofBy = (beyond: number): readonly Point[] => movedRoof(section, insets.ceiling, beyond);
  const roof = roofBy(OVERLAP_MM);
  const side = (which: Side): { readonly wall: Curve; readonly corner: Point; readonly onRoof: number } | null => {
    const sign = which === 'left' ? -1 : 1;
    const upBy = (beyond: number): readonly Point[] =>
      movedWall(section[which], insets[which], beyond).map(([d, z]): Point => [sign * d, z]);
    const cross = (wall: readonly Point[], line: readonly Point[]) => {
      const met = crossing(wall, which === 'left' ? line : [...line].reverse());
      return met && { wall, met };
    };
    const found = cross(upBy(OVERLAP_MM), roof) ?? cross(upBy(FAR_OVERLAP_MM), roofBy(FAR_OVERLAP_MM));
    if (!found) return null;
    const { wall, met } = found;
    const upTo = [...wall.slice(0, met.onA + 1), met.point].map(([y, z]): Point => [z, sign * y]);
    return {
      wall: curveThrough(upTo),
      corner: met.point,
      onRoof: which === 'left' ? met.onB : roof.length - 2 - met.onB,
    };
  };
  const [left, right] = [side('left'), side('right')];
  if (!left || !right || left.corner[0] >= right.corner[0]) return null;
  const between = roof.slice(left.onRoof + 1, right.onRoof + 1);
  return {
    x: section.x,
    left: left.wall,
    right: right.wall,
    roof: curveThrough([left.corner, ...between, right.corner]),
  };
}

/**
 * The room that is left: every surface moved inward along the normal of its section curve, the floor raised.
 * Beneath the ribs nothing changes: the surface given is that of the rib faces.
 * @returns null when the layers are thicker than the room
 */
export function innerShell(shell: Shell, insets: Insets): Shell | null {
  const stations = shell.stations.map((section) => insetSection(section, insets));
  const whole = stations.filter((section): section is StationSection => section !== null);
  if (whole.length < stations.length) return null;
  const floor = shell.floor + insets.floor;
  const [start, end] = [shell.start + insets.front, shell.length - insets.rear];
  if (start >= end) return null;
  const inner = makeShell(end, floor, whole, start);
  const leftOver = whole.every(
    (section) =>
      evaluate(section.roof, 0) > floor &&
      (section.left.at.at(-1) ?? 0) > floor &&
      evaluate(section.left, floor) + evaluate(section.right, floor) > 0,
  );
  return leftOver ? inner : null;
}
