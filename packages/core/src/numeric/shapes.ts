import {
  differenceD,
  EndType,
  FillRule,
  inflatePathsD,
  intersectD,
  JoinType,
  pointInPolygonD,
  PointInPolygonResult,
  simplifyPathD,
  unionD,
} from 'clipper2-ts';
import { boxOf, ringArea, type Outline, type Point, type Ring } from './plane.js';

type Path = { x: number; y: number }[];

/** Decimals kept by the polygon library: ten-thousandths of a millimetre. */
const DECIMALS = 4;
/** How far a chord may leave the arc it stands for, mm. */
const ARC_TOLERANCE = 0.05;

const toPath = (ring: Ring): Path => ring.map(([x, y]) => ({ x, y }));
const toRing = (path: Path): Ring => path.map(({ x, y }): Point => [x, y]);
const bySize = (a: Ring, b: Ring): number => Math.abs(ringArea(b)) - Math.abs(ringArea(a));
const anticlockwise = (ring: Ring): Ring => (ringArea(ring) < 0 ? [...ring].reverse() : ring);

/**
 * Cuts shapes out of a shape.
 * @returns the pieces that are left, largest first; none when nothing is left
 */
export function cutOut(outline: Outline, cutters: readonly Ring[]): Outline[] {
  if (cutters.length === 0) return [outline];
  const subject = [
    anticlockwise(outline.outer),
    ...outline.holes.map((hole) => [...anticlockwise(hole)].reverse()),
  ].map(toPath);
  return outlinesOf(
    differenceD(subject, cutters.map(anticlockwise).map(toPath), FillRule.NonZero, DECIMALS).map(toRing),
  );
}

/** Sorts rings into shapes with their holes, largest first. */
function outlinesOf(rings: readonly Ring[]): Outline[] {
  const holes = rings.filter((ring) => ringArea(ring) < 0);
  return rings
    .filter((ring) => ringArea(ring) > 0)
    .sort(bySize)
    .map((outer) => {
      const path = toPath(outer);
      return {
        outer,
        holes: holes.filter(
          (hole) =>
            hole[0] &&
            pointInPolygonD({ x: hole[0][0], y: hole[0][1] }, path, DECIMALS) === PointInPolygonResult.IsInside,
        ),
      };
    });
}

/** Whether a ring of four corners has level and upright sides only. */
const isSquare = (ring: Ring): boolean =>
  ring.length === 4 &&
  ring.every(([x, y], i) => {
    const [nextX, nextY] = ring[(i + 1) % 4] ?? [x, y];
    return x === nextX || y === nextY;
  });

/** What of a shape lies within a ring: the pieces, largest first. */
export function clipTo(outline: Outline, ring: Ring): Outline[] {
  // where the boxes say it all, nothing has to be cut
  const [own, within] = [boxOf(outline.outer), boxOf(ring)];
  if (own.maxX <= within.minX || own.minX >= within.maxX || own.maxY <= within.minY || own.minY >= within.maxY)
    return [];
  if (
    own.minX >= within.minX &&
    own.maxX <= within.maxX &&
    own.minY >= within.minY &&
    own.maxY <= within.maxY &&
    ringArea(outline.outer) > 0 &&
    isSquare(ring)
  )
    return [outline];
  const subject = [
    anticlockwise(outline.outer),
    ...outline.holes.map((hole) => [...anticlockwise(hole)].reverse()),
  ].map(toPath);
  return outlinesOf(intersectD(subject, [toPath(anticlockwise(ring))], FillRule.NonZero, DECIMALS).map(toRing));
}

/** A shape together with rings: the pieces, largest first. */
export function joined(outline: Outline, rings: readonly Ring[]): Outline[] {
  const subject = [
    anticlockwise(outline.outer),
    ...outline.holes.map((hole) => [...anticlockwise(hole)].reverse()),
  ].map(toPath);
  return outlinesOf(unionD(subject, rings.map(anticlockwise).map(toPath), FillRule.NonZero, DECIMALS).map(toRing));
}

/** The strip that lies within so far of an open line, to both sides of it, round its corners; its ends are square. mm */
export function stripAlong(line: readonly Point[], by: number): Ring[] {
  return inflatePathsD([toPath(line)], by, JoinType.Round, EndType.Butt, 2, DECIMALS, ARC_TOLERANCE).map(toRing);
}

/** A ring moved in by so far all round, square to its edges: the pieces that are left, largest first. mm */
export function movedIn(ring: Ring, by: number): Ring[] {
  return inflatePathsD([toPath(anticlockwise(ring))], -by, JoinType.Miter, EndType.Polygon, 2, DECIMALS)
    .map(toRing)
    .sort(bySize);
}

/**
 * Whether an inside corner of a ring would be changed by a radius: an arc of it leaves the corner by more than a chord may
 * leave an arc, or is longer than half of the sides that meet there. Sides that follow a curve turn by less.
 */
function hasInsideCorner(ring: Ring, radius: number): boolean {
  const turns = ringArea(ring) < 0 ? -1 : 1;
  const n = ring.length;
  for (let i = 0; i < n; i += 1) {
    const [a, b, c] = [ring[(i + n - 1) % n], ring[i], ring[(i + 1) % n]];
    if (!a || !b || !c) continue;
    const [ux, uy, vx, vy] = [b[0] - a[0], b[1] - a[1], c[0] - b[0], c[1] - b[1]];
    const cross = turns * (ux * vy - uy * vx);
    if (cross >= 0) continue;
    const half = Math.atan2(-cross, ux * vx + uy * vy) / 2;
    const side = Math.min(Math.hypot(ux, uy), Math.hypot(vx, vy));
    if (radius * (1 / Math.cos(half) - 1) > ARC_TOLERANCE || radius * Math.tan(half) > side / 2) return true;
  }
  return false;
}

/**
 * Gives the inside corners of a ring a radius, as a router bit or a jigsaw leaves them: the ring is grown by the radius
 * and shrunk again (morphological closing), which leaves outside corners sharp.
 * @param radius mm; 0 leaves the ring as it is
 */
export function roundInsideCorners(ring: Ring, radius: number): Ring {
  if (radius <= 0 || !hasInsideCorner(ring, radius)) return ring;
  const grown = inflatePathsD(
    [toPath(anticlockwise(ring))],
    radius,
    JoinType.Round,
    EndType.Polygon,
    2,
    DECIMALS,
    ARC_TOLERANCE,
  );
  const closed = inflatePathsD(grown, -radius, JoinType.Round, EndType.Polygon, 2, DECIMALS, ARC_TOLERANCE);
  return closed.map(toRing).sort(bySize)[0] ?? ring;
}

/** Drops points of a ring that lie within `tolerance` mm of the line of their neighbours. */
export function simplify(ring: Ring, tolerance: number): Ring {
  return ring.length < 4 ? ring : toRing(simplifyPathD(toPath(ring), tolerance, true));
}
