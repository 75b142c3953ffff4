import { boxOf } from '../../numeric/plane.js';
import { supportAt, type LinedSurface } from '../surface/lined-surface.js';
import { heldBy, solidAlong } from '../surface/pieces.js';
import { reachOf } from '../surface/unrolled.js';

/** A batten behind a lining, by its middle line on the unrolled surface. */
export interface WallBatten {
  readonly kind: 'upright' | 'noggin';
  readonly upright: boolean;
  readonly u0: number;
  readonly u1: number;
  readonly v0: number;
  readonly v1: number;
  /** What it carries: the name of the support, or of the opening whose edge it backs. */
  readonly why: string;
  /** It lies on a rib; what does not fills its depth. */
  readonly onRib: boolean;
}
/** An edge of an opening with nothing behind it to fix to. */
export interface LooseEdge {
  readonly opening: string;
  readonly side: 'front' | 'rear' | 'low' | 'high';
}

/** An edge is carried by a support that is no farther off than this, mm. */
const CARRIED_MM = 70;
const SHORTEST_MM = 120;
/** Nearer to the edge it backs a noggin's middle does not lie, so that a screw in it keeps off the edge, mm. */
const BEHIND_EDGE_MM = 18;
/** Kept free between a noggin and the opening, for its box, mm. */
const CLEAR_MM = 1;
/** How far a noggin's middle lies from the edge it backs: it stands outside the opening altogether. */
const behindEdge = (width: number): number => Math.max(BEHIND_EDGE_MM, width / 2 + CLEAR_MM);

type Spans = readonly (readonly [number, number])[];
/** What of both lists of stretches is the same. */
const both = (a: Spans, b: Spans): Spans =>
  a.flatMap(([from, to]) =>
    b.flatMap(([low, high]): Spans => {
      const [start, end] = [Math.max(from, low), Math.min(to, high)];
      return end > start ? [[start, end]] : [];
    }),
  );
/** Along which stretches something so wide may stand upright behind a lining, out of all openings. */
const standsAlong = (
  { behind, unrolled }: Pick<LinedSurface, 'behind' | 'unrolled'>,
  u: number,
  width: number,
): Spans =>
  [u - width / 2, u + width / 2].reduce<Spans>(
    (spans, at) => {
      // beyond the surface's own end there is nothing to stand in
      return at < 0 || at > unrolled.length ? spans : both(spans, solidAlong(behind, at));
    },
    solidAlong(behind, u),
  );
/** An upright noggin reaches so far beyond the opening it stands beside, mm. */
const BEYOND_MM = 60;

/** Uprights on every support, and short ones where the edge of an opening would float. */
export function wallBattens(
  surface: LinedSurface,
  width: number,
): { readonly battens: readonly WallBatten[]; readonly loose: readonly LooseEdge[] } {
  const uprights = surface.supports.flatMap((support) =>
    heldBy(support, standsAlong(surface, support.u, width))
      .filter(([v0, v1]) => v1 - v0 >= SHORTEST_MM)
      .map(([v0, v1]): WallBatten => ({
        kind: 'upright',
        upright: true,
        u0: supportAt(support, v0),
        u1: supportAt(support, v1),
        v0,
        v1,
        why: support.name,
        onRib: support.kind === 'rib',
      })),
  );
  const us = surface.supports.map((support) => support.u);
  const loose: LooseEdge[] = [];
  const noggins = surface.openings.flatMap((opening): WallBatten[] => {
    const box = boxOf(opening.real);
    const foot = opening.kind === 'door' || opening.kind === 'arch';
    const sides = opening.sides ?? { front: [box.minX, box.minX], rear: [box.maxX, box.maxX] };
    const made: WallBatten[] = [];
    const side = (which: 'front' | 'rear', [u, up]: readonly [number, number]): void => {
      // only what lies behind the lining carries it, not what stands free in the opening; along a leaning edge it must all the way
      const off = (edge: number, at: number): number => (which === 'front' ? edge - at : at - edge);
      const carries = (at: number): boolean =>
        [u, up].every((edge) => off(edge, at) >= 0 && off(edge, at) <= CARRIED_MM);
      if (us.some(carries) || Math.min(u, up) < width || Math.max(u, up) > surface.unrolled.length - width) return;
      loose.push({ opening: opening.name, side: which });
      const lean = (up - u) / Math.max(1, box.maxY - box.minY);
      const behind = behindEdge(width) * Math.hypot(1, lean);
      const at = (v: number): number => (which === 'front' ? u - behind : u + behind) + lean * (v - box.minY);
      const v0 = foot ? Math.max(0, box.minY) : box.minY - BEYOND_MM;
      // no farther than the surface reaches
      const [low, high] = reachOf(surface.unrolled, at((box.minY + box.maxY) / 2));
      const [from, to] = [Math.max(v0, low), Math.min(box.maxY + BEYOND_MM, high)];
      made.push({
        kind: 'noggin',
        upright: true,
        u0: at(from),
        u1: at(to),
        v0: from,
        v1: to,
        why: opening.name,
        onRib: false,
      });
    };
    const level = (which: 'low' | 'high', v: number): void => {
      const at = which === 'low' ? v - behindEdge(width) : v + behindEdge(width);
      // an opening that reaches the surface's own edge leaves nothing there to be carried
      const [low, high] = reachOf(surface.unrolled, (box.minX + box.maxX) / 2);
      if (at < low || at > high) return;
      loose.push({ opening: opening.name, side: which });
      // between the uprights, which are there already
      const edge = which === 'low' ? 0 : 1;
      const [first, last] = [sides.front[edge], sides.rear[edge]];
      const inside = us.filter((u) => u > first + width && u < last - width);
      // to the noggins beside the opening, or to the support that carries its edge
      const besideFirst = Math.max(...us.filter((u) => u <= first && first - u <= CARRIED_MM), -Infinity);
      const besideLast = Math.min(...us.filter((u) => u >= last && u - last <= CARRIED_MM), Infinity);
      const ends = [
        Math.max(first - behindEdge(width), besideFirst),
        ...inside,
        Math.min(last + behindEdge(width), besideLast),
      ];
      ends.slice(1).forEach((end, i) => {
        const [from, to] = [(ends[i] ?? 0) + width / 2, end - width / 2];
        if (to - from >= SHORTEST_MM)
          made.push({
            kind: 'noggin',
            upright: false,
            u0: from,
            u1: to,
            v0: at,
            v1: at,
            why: opening.name,
            onRib: false,
          });
      });
    };
    side('front', sides.front);
    side('rear', sides.rear);
    level('high', box.maxY);
    if (!foot) level('low', box.minY);
    return made;
  });
  return {
    battens: [...uprights, ...noggins, ...surface.hidden.flatMap((zone) => hangers(surface, zone, width))],
    loose,
  };
}

/** What a high cupboard is screwed to: level pieces between the uprights, behind its lower and upper edge, or its front. */
function hangers(surface: LinedSurface, zone: LinedSurface['hidden'][number], width: number): WallBatten[] {
  if (!zone.hung) return [];
  const half = width / 2;
  const middle = (zone.u0 + zone.u1) / 2;
  const [low, high] = reachOf(surface.unrolled, middle);
  // on a ceiling its front edge, on which a ceiling that stops there ends too; on a wall its low edge and the top
  const inside = surface.unrolled.surface === 'ceiling' && zone.hung.ceiling === 'stops' ? 0 : half;
  const edges = [zone.v0 + inside, zone.v1 - inside].filter((v) => v > low + width && v < high);
  const top = surface.unrolled.surface === 'ceiling' ? [] : [high - width];
  const ends = [
    zone.u0,
    ...surface.supports.map((support) => support.u).filter((u) => u > zone.u0 && u < zone.u1),
    zone.u1,
  ];
  // a ceiling that stops in front of it ends beside it too
  const stops = surface.unrolled.surface === 'ceiling' && zone.hung.ceiling === 'stops';
  const beside = (stops ? [zone.u0 - behindEdge(width), zone.u1 + behindEdge(width)] : []).flatMap(
    (u): WallBatten[] => {
      const outside = u < width || u > surface.unrolled.length - width;
      if (outside || surface.supports.some((support) => Math.abs(support.u - u) <= CARRIED_MM)) return [];
      const [from, to] = reachOf(surface.unrolled, u);
      const [v0, v1] = [Math.max(zone.v0, from), Math.min(zone.v1, to)];
      return v1 - v0 < SHORTEST_MM
        ? []
        : [{ kind: 'noggin', upright: true, u0: u, u1: u, v0, v1, why: zone.by, onRib: false }];
    },
  );
  const level = [...edges, ...top].flatMap((v) =>
    ends.slice(1).flatMap((end, i): WallBatten[] => {
      const [u0, u1] = [(ends[i] ?? 0) + (i === 0 ? 0 : half), end - (i === ends.length - 2 ? 0 : half)];
      const free = surface.openings.every(({ real }) => {
        const box = boxOf(real);
        return u1 <= box.minX || u0 >= box.maxX || v + half <= box.minY || v - half >= box.maxY;
      });
      return u1 - u0 >= SHORTEST_MM && free
        ? [{ kind: 'noggin', upright: false, u0, u1, v0: v, v1: v, why: zone.by, onRib: false }]
        : [];
    }),
  );
  return [...beside, ...level];
}
