import { boxOf, spread, type Outline, type Point } from '../../numeric/plane.js';
import { lineAt, runsBehind, type HoldLine } from './fixing-map.js';

/** A stretch of a piece that lies on nothing, on the unrolled surface, mm. */
export interface Unheld {
  readonly at: Point;
  /** How far it is from support to support, or from the last one to the piece's end. */
  readonly free: number;
}

/** A piece may stand out beyond its last support by so much, mm. */
const STANDS_OUT_MM = 100;
/** A stretch this short between an opening and the next is held by what is above and below it, mm. */
const LEG_MM = 160;
/** What is a little over the limit is the limit, mm. */
const ABOUT_MM = 15;
/** A hole no wider than this leaves a piece whole, mm. */
const HOLE_MM = 150;
/** An edge that moves on by more than so many times the step aside runs along the piece. */
const STEEP = 8;
const ASIDE_MM = 4;
/** Sections of a piece that are looked at, and how far inside its edges the outermost lie, mm. */
const SECTIONS = 5;
const INSIDE_MM = 15;

type Span = readonly [number, number];

/** A section of a piece along the vehicle; what a slot or the hole of a lamp parts is one all the same. */
function sectionOf(piece: Outline, v: number): Span[] {
  const line: HoldLine = { name: '', by: 'timber', upright: false, at: v, from: -1e6, to: 1e6, width: 0, lean: 0 };
  return runsBehind(line, piece).reduce<Span[]>((joined, span) => {
    const last = joined.at(-1);
    if (!last || span[0] - last[1] > HOLE_MM) return [...joined, span];
    return [...joined.slice(0, -1), [last[0], span[1]]];
  }, []);
}

/** Whether a piece really ends there: a little above and below it does too, while an edge that runs along has moved on. */
const isEnd = (piece: Outline, v: number, u: number): boolean =>
  [v - ASIDE_MM, v + ASIDE_MM].every((beside) =>
    sectionOf(piece, beside).some((span) => span.some((end) => Math.abs(end - u) < STEEP * ASIDE_MM)),
  );

/** The worst stretch of one section. */
function worstOf(
  [from, to]: Span,
  upright: readonly HoldLine[],
  widest: number,
): { readonly at: number; readonly free: number; readonly end: boolean } | null {
  // a line at a joint carries both pieces that meet on it
  const own = upright
    .filter(({ at, width }) => at + width / 2 > from && at - width / 2 < to)
    .map(({ at }) => Math.min(to, Math.max(from, at)))
    .sort((a, b) => a - b);
  const [first, last] = [own[0], own.at(-1)];
  if (first === undefined || last === undefined)
    return to - from > LEG_MM ? { at: (from + to) / 2, free: to - from, end: false } : null;
  const gaps = own.slice(1).map((u, i) => {
    const before = own[i] ?? u;
    return { at: (u + before) / 2, free: u - before, most: widest, end: false };
  });
  return (
    [
      { at: from, free: first - from, most: STANDS_OUT_MM, end: true },
      { at: to, free: to - last, most: STANDS_OUT_MM, end: true },
      ...gaps,
    ]
      .filter(({ free, most }) => free > most + ABOUT_MM)
      .sort((a, b) => b.free - b.most - (a.free - a.most))[0] ?? null
  );
}

/**
 * Where a piece hangs on nothing: sections along the vehicle at several heights, each of which needs an upright line no
 * farther than `widest` from the next, or a level one close by.
 */
export function unheldOf(piece: Outline, lines: readonly HoldLine[], widest: number): Unheld[] {
  const box = boxOf(piece.outer);
  const [low, high] = [box.minY + INSIDE_MM, box.maxY - INSIDE_MM];
  const heights = high <= low ? [(box.minY + box.maxY) / 2] : spread(low, high, SECTIONS);
  const level = lines.filter(({ upright }) => !upright);
  return heights.flatMap((v): Unheld[] => {
    return sectionOf(piece, v).flatMap((span): Unheld[] => {
      const upright = lines
        .filter((line) => line.upright && line.from <= v + 1 && line.to >= v - 1)
        .map((line) => (line.lean === 0 ? line : { ...line, at: lineAt(line, v) }));
      const found = worstOf(span, upright, widest);
      if (!found || (found.end && !isEnd(piece, v, found.at))) return [];
      // a level line close to the section carries it where it runs
      const carried = level.some(
        (line) => Math.abs(line.at - v) <= STANDS_OUT_MM && line.from <= found.at + 1 && line.to >= found.at - 1,
      );
      return carried ? [] : [{ at: [found.at, v], free: found.free }];
    });
  });
}
