import type { OpeningEdges, PlacedOpening } from '../../shell/openings.js';
import { openingRing, quadOf } from '../../shell/openings.js';
import { boxOf, isWithin, type Ring } from '../../numeric/plane.js';

/** Halvings of a stretch until its end is known to a hair. */
const HALVES = 40;
/** A corner this little outside of a rounding is on it, mm. */
const ON_MM = 1e-6;

/** From where to where a convex ring reaches along its first axis at a height; null above and below it. */
function reachAt(ring: Ring, z: number): readonly [number, number] | null {
  const xs = ring.flatMap((a, i): number[] => {
    const b = ring[(i + 1) % ring.length] ?? a;
    if ((a[1] - z) * (b[1] - z) > 0) return [];
    return a[1] === b[1] ? [a[0], b[0]] : [a[0] + ((z - a[1]) / (b[1] - a[1])) * (b[0] - a[0])];
  });
  return xs.length === 0 ? null : [Math.min(...xs), Math.max(...xs)];
}

/** The place of a stretch where something that rises to its top and falls after it is largest, and how large. */
function highest(from: number, to: number, of: (at: number) => number): readonly [number, number] {
  let [a, b] = [from, to];
  for (let i = 0; i < HALVES; i += 1) {
    const [p, q] = [a + (b - a) / 3, b - (b - a) / 3];
    if (of(p) < of(q)) a = p;
    else b = q;
  }
  const at = (a + b) / 2;
  return [at, of(at)];
}

/** The largest rectangle with level and upright edges in a convex ring: the logarithm of its area has one top. */
function largestUpright(ring: Ring): OpeningEdges {
  const { minY, maxY } = boxOf(ring);
  const between = (low: number, high: number): readonly [number, number] => {
    const [a, b] = [reachAt(ring, low), reachAt(ring, high)];
    return a && b ? [Math.max(a[0], b[0]), Math.min(a[1], b[1])] : [0, 0];
  };
  const area = (low: number, high: number): number => {
    const [from, to] = between(low, high);
    return Math.max(0, to - from) * (high - low);
  };
  const middle = (minY + maxY) / 2;
  const headOver = (low: number): readonly [number, number] => highest(middle, maxY, (high) => area(low, high));
  const [sill] = highest(minY, middle, (low) => headOver(low)[1]);
  const [head] = headOver(sill);
  const [from, to] = between(sill, head);
  return { from, to, fromHead: from, toHead: to, sill, head };
}

/** Edges that lie so far inside others all round, mm. */
function setIn(edges: OpeningEdges, by: number): OpeningEdges {
  const [a, b, c, d] = quadOf(edges, by);
  return { from: a[0], to: b[0], fromHead: d[0], toHead: c[0], sill: a[1], head: d[1] };
}

/**
 * The outside of a box of straight boards in an opening, with its corners out of the metal where those of the opening are
 * round. It leans as the opening does, set in as far all round as its corners need; or it is the largest upright rectangle
 * that the opening holds.
 * @param upright it does not lean, whatever the opening does
 */
export function boxOutside(placed: PlacedOpening, upright: boolean): OpeningEdges {
  const { from, to, fromHead, toHead, sill, head } = placed;
  const edges: OpeningEdges = { from, to, fromHead, toHead, sill, head };
  const leans = from !== fromHead || to !== toHead;
  const radius = placed.opening.cornerRadius;
  if (radius <= 0 && !(leans && upright)) return edges;
  const ring = openingRing(placed, 0, radius);
  if (!leans || upright) return largestUpright(ring);
  const clears = (by: number): boolean => quadOf(edges, by).every((corner) => isWithin(corner, ring));
  let [least, most] = [0, radius];
  while (most - least > ON_MM) {
    const by = (least + most) / 2;
    if (clears(by)) most = by;
    else least = by;
  }
  return setIn(edges, most);
}
