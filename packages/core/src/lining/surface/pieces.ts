import type { LiningChoice } from '../../document/schema.js';
import { boxOf, outlineArea, rectangle, type Outline, type Point, type Ring } from '../../numeric/plane.js';
import { clipTo, cutOut } from '../../numeric/shapes.js';
import { carriesSeam, hiddenAt, isBehind, supportAt, type LinedSurface, type Support } from './lined-surface.js';
import { findSeams, givenSeams, type Seam, type SeamInput } from './seams.js';
import { datumOf, placeJoints, setOutFrom, setOutRows, type SetOut } from './set-out.js';
import { reachOf } from './unrolled.js';

/** One piece of a lining on the unrolled surface. */
export interface Piece {
  readonly kind: 'panel' | 'strip' | 'board';
  /** The row it lies in, from the low edge; 0 for panels. */
  readonly row: number;
  readonly outline: Outline;
}
/** A joint without a support under it, from where to where along v. */
export interface Unbacked {
  readonly u: number;
  readonly v0: number;
  readonly v1: number;
}
export interface PieceSet {
  readonly pieces: readonly Piece[];
  readonly seams: readonly Seam[];
  readonly setOut: SetOut | null;
  /** Joints on nothing, to be backed. */
  readonly unbacked: readonly Unbacked[];
  /** Joints nearer to one of the row before than wanted. */
  readonly close: number;
  readonly legal: boolean;
}

/** Pieces smaller than this fall out in sawing, mm2. */
const CRUMB_MM2 = 400;
/** Joints of neighbouring rows are apart by so much where the supports allow it, mm. */
export const STAGGER_MM = 300;
const SHORTEST_MM = 250;
const FAR_MM = 1e5;

/** Least and greatest v of both edges over the whole length. */
export function edgeRanges(
  surface: LinedSurface,
  edge: number,
): { readonly low: SetOutEdge; readonly high: SetOutEdge } {
  const reaches = surface.unrolled.columns.map((column) => reachOf(surface.unrolled, column.u));
  const range = (values: readonly number[], less: number): SetOutEdge => ({
    min: Math.min(...values) + less,
    max: Math.max(...values) + less,
  });
  return {
    low: range(
      reaches.map(([low]) => low),
      edge,
    ),
    high: range(
      reaches.map(([, high]) => high),
      -edge,
    ),
  };
}
interface SetOutEdge {
  readonly min: number;
  readonly max: number;
}

const within = (solid: readonly Outline[], ring: Ring): Outline[] =>
  solid.flatMap((outline) => clipTo(outline, ring)).filter((piece) => outlineArea(piece) > CRUMB_MM2);

/** What bears on where the seams of upright sheets may be. */
export function seamInput(surface: LinedSurface, choice: LiningChoice, widest: number): SeamInput {
  const { unrolled } = surface;
  return {
    from: choice.edge,
    to: unrolled.length - choice.edge,
    widest: widest + choice.gap,
    atEnd: choice.gap / 2 + choice.scribe,
    sliver: choice.sliver,
    supports: surface.supports.filter(carriesSeam).map(({ name, u }) => ({ name, at: u })),
    // what reaches the low edge from side to side of a door counts like a window: a leg beside it must hold
    openings: surface.openings.map((opening) => {
      const box = boxOf(opening.ring);
      return { name: opening.name, from: box.minX, to: box.maxX };
    }),
    hidden: (at) => hiddenAt(surface, at),
    solid: (at) => {
      const [low, high] = reachOf(unrolled, at);
      const lined = solidAlong(surface.solid, at).reduce((sum, [v0, v1]) => sum + v1 - v0, 0);
      return Math.min(1, lined / Math.max(1, high - low));
    },
  };
}

/** Upright sheets from the low edge to the high one. */
export function sheetPieces(surface: LinedSurface, choice: LiningChoice, widest: number): PieceSet {
  const input = seamInput(surface, choice, widest);
  const plan = choice.seams === null ? findSeams(input) : givenSeams(input, choice.seams);
  const ends = [input.from, ...plan.seams.map((seam) => seam.at), input.to];
  const half = choice.gap / 2;
  const pieces = ends.slice(1).flatMap((end, i): Piece[] => {
    // the first and the last go on to the surface's end, which an allowance may have moved
    const from = i === 0 ? -FAR_MM : (ends[i] ?? 0) + half;
    const to = i === ends.length - 2 ? FAR_MM : end - half;
    return within(surface.solid, rectangle(from, -FAR_MM, to, FAR_MM)).map((outline) => ({
      kind: 'panel',
      row: 0,
      outline,
    }));
  });
  const unbacked = plan.seams
    .filter((seam) => seam.support === null)
    .flatMap((seam) => solidAlong(surface.solid, seam.at).map(([v0, v1]) => ({ u: seam.at, v0, v1 })));
  return { pieces, seams: plan.seams, setOut: null, unbacked, close: 0, legal: plan.legal };
}

/**
 * Rows along the vehicle, of strips or boards, each from joint to joint.
 * @param least width of the first and last row
 * @param given rows set out for the whole room, so that they meet in the corners; null to set out this surface alone
 */
export function rowPieces(
  surface: LinedSurface,
  choice: LiningChoice,
  kind: 'strip' | 'board',
  row: number,
  longest: number,
  least: number,
  given: SetOut | null,
): PieceSet {
  const { low, high } = edgeRanges(surface, choice.edge);
  const datum = datumOf(choice, surface.unrolled.surface);
  const setOut =
    given ??
    (datum === null
      ? setOutRows(low, high, row, choice.gap, least)
      : setOutFrom(low, high, row, choice.gap, least, datum));
  const half = choice.gap / 2;
  const pieces: Piece[] = [];
  const unbacked: Unbacked[] = [];
  let before: readonly number[] = [];
  let close = 0;
  setOut.rows.forEach(([v0, v1], index) => {
    const own: number[] = [];
    const supports = surface.supports.map((support) => supportAt(support, (v0 + v1) / 2));
    // what is left on to scribe lies outside the first and the last row
    const [from, to] = [
      index === 0 ? v0 - choice.scribe : v0,
      index === setOut.rows.length - 1 ? v1 + choice.scribe : v1,
    ];
    const strips = within(surface.solid, rectangle(-FAR_MM, from, FAR_MM, to));
    for (const strip of strips) {
      const box = boxOf(strip.outer);
      const joints = placeJoints(box.minX, box.maxX, supports, longest, SHORTEST_MM, before, STAGGER_MM);
      own.push(...joints.at);
      close += joints.close.length;
      unbacked.push(...joints.unsupported.map((u) => ({ u, v0, v1 })));
      if (joints.at.length === 0) {
        pieces.push({ kind, row: index + 1, outline: strip });
        continue;
      }
      const ends = [box.minX, ...joints.at, box.maxX];
      ends.slice(1).forEach((end, i) => {
        const from = (ends[i] ?? 0) + (i === 0 ? 0 : half);
        const to = end - (i === ends.length - 2 ? 0 : half);
        for (const outline of within([strip], rectangle(from, -FAR_MM, to, FAR_MM)))
          pieces.push({ kind, row: index + 1, outline });
      });
    }
    before = own;
  });
  return { pieces, seams: [], setOut, unbacked, close, legal: setOut.legal };
}

const boxes = new WeakMap<Outline, ReturnType<typeof boxOf>>();
function boxAround(outline: Outline): ReturnType<typeof boxOf> {
  const before = boxes.get(outline);
  if (before) return before;
  const made = boxOf(outline.outer);
  boxes.set(outline, made);
  return made;
}

/** Where an upright line runs over solid lining: from where to where along v. */
export function solidAlong(solid: readonly Outline[], u: number): (readonly [number, number])[] {
  const spans: (readonly [number, number])[] = [];
  for (const outline of solid) {
    const { minX, maxX } = boxAround(outline);
    if (u < minX || u > maxX) continue;
    const crossings: number[] = [];
    for (const ring of [outline.outer, ...outline.holes])
      for (let i = 0; i < ring.length; i += 1) {
        const [a, b] = [ring[i], ring[i + 1 === ring.length ? 0 : i + 1]];
        if (a && b && a[0] > u !== b[0] > u) crossings.push(a[1] + ((u - a[0]) / (b[0] - a[0])) * (b[1] - a[1]));
      }
    crossings.sort((a, b) => a - b);
    for (let i = 0; i + 1 < crossings.length; i += 2) spans.push([crossings[i] ?? 0, crossings[i + 1] ?? 0]);
  }
  return spans.sort((a, b) => a[0] - b[0]);
}

/** The stretches along which a support can be fixed to. */
export const heldBy = (
  { v0, v1 }: Pick<Support, 'v0' | 'v1'>,
  spans: readonly (readonly [number, number])[],
): (readonly [number, number])[] =>
  spans.flatMap(([a, b]): (readonly [number, number])[] =>
    Math.min(b, v1) > Math.max(a, v0) ? [[Math.max(a, v0), Math.min(b, v1)]] : [],
  );

/** Cuts holes for fittings, and for wired ones a slot to the nearest edge of the piece, a hidden one where there is one. */
export function withFittings(
  surface: LinedSurface,
  piece: Piece,
): { readonly outlines: readonly Outline[]; readonly slots: readonly string[] } {
  const box = boxOf(piece.outline.outer);
  const own = surface.fittings.filter(({ ring }) => {
    const hole = boxOf(ring);
    return hole.maxX > box.minX && hole.minX < box.maxX && hole.maxY > box.minY && hole.minY < box.maxY;
  });
  if (own.length === 0) return { outlines: [piece.outline], slots: [] };
  const slots: string[] = [];
  const cutters = own.flatMap((fitting): Ring[] => {
    if (!fitting.wired) return [fitting.ring];
    const [u, v] = fitting.middle;
    const half = Math.min(fitting.length, 12) / 2;
    const ways: { readonly end: Point; readonly run: number }[] = [
      { end: [u, box.minY - 1], run: v - box.minY },
      { end: [u, box.maxY + 1], run: box.maxY - v },
      { end: [box.minX - 1, v], run: u - box.minX },
      { end: [box.maxX + 1, v], run: box.maxX - u },
    ];
    const isHidden = ({ end }: { readonly end: Point }): boolean => isBehind(surface, end);
    const [way] = ways
      .filter((candidate) => candidate.run >= 0)
      .sort((a, b) => Number(isHidden(b)) - Number(isHidden(a)) || a.run - b.run);
    if (!way) return [fitting.ring];
    slots.push(fitting.id);
    const upright = way.end[0] === u;
    const slot = upright
      ? rectangle(u - half, Math.min(v, way.end[1]), u + half, Math.max(v, way.end[1]))
      : rectangle(Math.min(u, way.end[0]), v - half, Math.max(u, way.end[0]), v + half);
    return [fitting.ring, slot];
  });
  // a hole wider than the piece parts it in two
  return { outlines: cutOut(piece.outline, cutters).filter((part) => outlineArea(part) > CRUMB_MM2), slots };
}
