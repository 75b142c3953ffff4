import type { OpeningEdges, PlacedOpening } from '../../shell/openings.js';
import { openingRing, quadOf } from '../../shell/openings.js';
import { boxOf, isWithin, type Ring } from '../../numeric/plane.js';

/** A place is known so exactly where it is looked for, mm. */
const PLACE_MM = 1e-4;
/** A corner this little outside of a rounding is on it, mm. */
const ON_MM = 1e-6;
const GOLDEN = (Math.sqrt(5) - 1) / 2;

/** From where to where a convex ring reaches along its first axis at a height; null above and below it. */
function reachAt(ring: Ring, z: number): readonly [number, number] | null {
  let [least, most] = [Infinity, -Infinity];
  let a = ring[ring.length - 1];
  for (let i = 0; i < ring.length; i += 1) {
    const b = ring[i];
    if (a && b && (a[1] - z) * (b[1] - z) <= 0) {
      const x = a[1] === b[1] ? a[0] : a[0] + ((z - a[1]) / (b[1] - a[1])) * (b[0] - a[0]);
      least = Math.min(least, x, a[1] === b[1] ? b[0] : x);
      most = Math.max(most, x, a[1] === b[1] ? b[0] : x);
    }
    a = b;
  }
  return least > most ? null : [least, most];
}

/** The place of a stretch where something that rises to its top and falls after it is largest, by golden sections, and how large. */
function highest(from: number, to: number, of: (at: number) => number): readonly [number, number] {
  let [a, b] = [from, to];
  let [p, q] = [b - (b - a) * GOLDEN, a + (b - a) * GOLDEN];
  let [atP, atQ] = [of(p), of(q)];
  while (b - a > PLACE_MM) {
    if (atP < atQ) {
      a = p;
      [p, atP] = [q, atQ];
      q = a + (b - a) * GOLDEN;
      atQ = of(q);
    } else {
      b = q;
      [q, atQ] = [p, atP];
      p = b - (b - a) * GOLDEN;
      atP = of(p);
    }
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
