import { boxOf, distanceToRing, spread, type Outline, type Point } from '../../numeric/plane.js';
import { isBehind, supportAt, type LinedSurface } from '../surface/lined-surface.js';
import { heldBy, solidAlong, type Piece, type Unbacked } from '../surface/pieces.js';
import type { WallBatten } from './wall-battens.js';

/** What a lining is fixed to: a rib's steel, a batten, noggin or block of timber, or a strip behind a joint. */
export type HeldBy = 'rib' | 'timber' | 'strip';

/** A straight line behind a lining that it is fixed to: upright at u, or level at v, mm. One beside a leaning edge leans. */
export interface HoldLine {
  readonly name: string;
  readonly by: HeldBy;
  readonly upright: boolean;
  readonly at: number;
  readonly from: number;
  readonly to: number;
  readonly width: number;
  /** How far it moves on along the vehicle for each mm up from its low end, where it has one; 0 where it stands upright. */
  readonly lean: number;
}

/** Where a line is at a place along itself, mm. */
export const lineAt = ({ at, from, lean }: HoldLine, place: number): number =>
  lean === 0 ? at : at + lean * (place - from);

/** One screw or brad, on the unrolled surface. */
export interface FixingPoint {
  readonly at: Point;
  readonly support: string;
  readonly by: HeldBy;
  /** A unit will stand in front of it. */
  readonly hidden: boolean;
}

/** Screws are this far apart at most, and this far from an end, mm. */
const SPACING_MM = 180;
const EDGE_MM = 20;
const SHORT_MM = 2 * EDGE_MM + 15;
/** A fixing this near to another does nothing that the other does not, mm. */
const SAME_MM = 45;
/** A fixing stays so far inside what it goes into, mm. */
const INSIDE_MM = 5;
/** At a joint a fixing keeps so far off the edge, where what lies behind is wide enough, mm. */
const SEAM_MM = 12;
/** A place is looked for along a line in steps of this, mm. */
const STEP_MM = 5;

/**
 * Everything a lining can be fixed to: supports, the battens and noggins beside them, the strips behind joints.
 * @param timber the battens that are laid, and how wide they are; those on supports stand for them
 * @param strips joints that are backed, and how wide the strip is
 */
export function holdLines(
  surface: LinedSurface,
  timber: { readonly battens: readonly WallBatten[]; readonly width: number },
  strips: { readonly joints: readonly Unbacked[]; readonly width: number },
): HoldLine[] {
  const covered = new Set(timber.battens.flatMap(({ kind, why }) => (kind === 'upright' ? [why] : [])));
  return [
    ...surface.supports.map((support): HoldLine => {
      const { name, kind, v0, v1, width, lean } = support;
      return {
        name,
        by: kind === 'rib' && !covered.has(name) ? 'rib' : 'timber',
        upright: true,
        at: supportAt(support, v0),
        from: v0,
        to: v1,
        width: covered.has(name) ? timber.width : width,
        lean,
      };
    }),
    ...timber.battens
      .filter(({ kind }) => kind === 'noggin')
      .map(({ why, upright, u0, u1, v0, v1 }): HoldLine => ({
        name: why,
        by: 'timber',
        upright,
        at: upright ? u0 : v0,
        from: upright ? v0 : u0,
        to: upright ? v1 : u1,
        width: timber.width,
        lean: upright ? (u1 - u0) / (v1 - v0) : 0,
      })),
    ...strips.joints.map(({ u, v0, v1 }): HoldLine => ({
      name: 'backing',
      by: 'strip',
      upright: true,
      at: u,
      from: v0,
      to: v1,
      width: strips.width,
      lean: 0,
    })),
  ];
}

const swapped = ([a, b]: Point): Point => [b, a];
const known = new WeakMap<Outline, Outline>();
/** A piece with its two ways exchanged; it is asked for once a line. */
function turned(piece: Outline): Outline {
  const before = known.get(piece);
  if (before) return before;
  const made = { outer: piece.outer.map(swapped), holes: piece.holes.map((hole) => hole.map(swapped)) };
  known.set(piece, made);
  return made;
}

/** Places along one span, evenly spread; one in the middle where it is short. */
function along(from: number, to: number): number[] {
  const length = to - from;
  if (length < SHORT_MM) return length > 12 ? [(from + to) / 2] : [];
  const count = Math.ceil((length - 2 * EDGE_MM) / SPACING_MM) + 1;
  return spread(from + EDGE_MM, to - EDGE_MM, Math.max(2, count));
}

/** A piece as a leaning line sees it that is looked along as if it stood upright. */
function upToLine(line: HoldLine, piece: Outline): Outline {
  if (line.lean === 0) return piece;
  const moved = ([u, v]: Point): Point => [u - line.lean * (v - line.from), v];
  return { outer: piece.outer.map(moved), holes: piece.holes.map((hole) => hole.map(moved)) };
}

/** Where a line runs behind a piece, on the unrolled surface: from where to where along it. */
export function runsBehind(line: HoldLine, piece: Outline, at = line.at): (readonly [number, number])[] {
  return heldBy({ v0: line.from, v1: line.to }, solidAlong([line.upright ? upToLine(line, piece) : turned(piece)], at));
}

/**
 * Where a lining is fixed: on every line under each piece, so that rows run on over neighbouring pieces; no nearer to an
 * edge than the fastener may go, moved aside or left out where that cannot be, or where a cable, a duct or a lamp lies
 * behind.
 * @param edge how near an edge of a piece a drilled fastener may go, mm
 */
export function fixingPoints(
  surface: LinedSurface,
  pieces: readonly Piece[],
  lines: readonly HoldLine[],
  edge: number,
): FixingPoint[] {
  return pieces.flatMap(({ outline }) => {
    const box = boxOf(outline.outer);
    const rings = [outline.outer, ...outline.holes];
    const free = (point: Point): boolean =>
      rings.every((ring) => distanceToRing(point, ring) >= edge) &&
      surface.noScrews.every(({ at: [x, y], radius }) => Math.hypot(point[0] - x, point[1] - y) >= radius);
    const placed: FixingPoint[] = [];
    for (const line of lines) {
      const own = line.lean === 0 ? box : boxOf(upToLine(line, outline).outer);
      const [low, high] = line.upright ? [own.minX, own.maxX] : [own.minY, own.maxY];
      const half = line.width / 2;
      if (line.at < low - half || line.at > high + half || high - low < 2 * edge) continue;
      // at a joint on the line both pieces stay clear of their edge
      const keep = Math.max(edge, Math.min(SEAM_MM, half - INSIDE_MM));
      const across = Math.min(high - keep - 0.1, Math.max(low + keep + 0.1, line.at));
      if (Math.abs(across - line.at) > half - INSIDE_MM) continue;
      const point = (place: number): Point =>
        line.upright ? [across + lineAt(line, place) - line.at, place] : [place, across];
      for (const [from, to] of runsBehind(line, outline, across))
        for (const wanted of along(from, to)) {
          const place = freePlace(wanted, from, to, (candidate) => free(point(candidate)));
          if (place === null) continue;
          const at = point(place);
          if (placed.some((other) => Math.hypot(other.at[0] - at[0], other.at[1] - at[1]) < SAME_MM)) continue;
          placed.push({ at, support: line.name, by: line.by, hidden: isBehind(surface, at) });
        }
    }
    return placed;
  });
}

/** The place itself, or the nearest along the line that is free; null when the span has none. */
function freePlace(wanted: number, from: number, to: number, free: (place: number) => boolean): number | null {
  if (free(wanted)) return wanted;
  for (let step = STEP_MM; step <= SPACING_MM; step += STEP_MM)
    for (const moved of [wanted - step, wanted + step]) if (moved > from && moved < to && free(moved)) return moved;
  return null;
}
