import { HAIR_MM, wholeUp } from '../../numeric/tolerance.js';

/** From where to where, mm. */
export type Span = readonly [number, number];

/** A way to cut a floor board into pieces: strips one way, each cut again the other way. */
export interface FloorCut {
  /** All strips and all their pieces are equal. */
  readonly equal: boolean;
  /** Strips across the vehicle follow each other along it. */
  readonly direction: 'across' | 'along';
  readonly strips: readonly { readonly span: Span; readonly pieces: readonly Span[] }[];
  /** Cross joints of neighbouring strips that meet in one corner. */
  readonly crossed: number;
}

/**
 * A stretch in lengths of which none is longer than `most`: all equal, whole ones with what is left at one end, or begun with
 * half of either and then going on in whole ones, so that its joints lie in the middle between those of another layer.
 */
type Split = 'equal' | 'rest-last' | 'rest-first' | 'half-of-equal' | 'half-of-whole';

/** Two joints nearer than this meet in one corner, mm. */
const CROSSED_MM = 200;

function splitOf(from: number, to: number, most: number, least: number, how: Split): Span[] {
  const run = to - from;
  if (how === 'half-of-equal' || how === 'half-of-whole') {
    const whole = how === 'half-of-whole' ? most : Math.min(most, run / Math.max(1, wholeUp(run / most)));
    const half = whole / 2;
    return run <= half ? [[from, to]] : [[from, from + half], ...splitOf(from + half, to, whole, least, 'rest-last')];
  }
  const count = Math.max(1, wholeUp(run / most));
  const rest = run - (count - 1) * most;
  // a rest too narrow to be a piece is made up from its neighbour
  const short = count > 1 ? Math.max(rest, Math.min(least, run / count)) : run;
  const lengths =
    how === 'equal' || count === 1
      ? Array.from({ length: count }, () => run / count)
      : [...Array.from({ length: count - 2 }, () => most), most - (short - rest), short];
  const ordered = how === 'rest-first' ? [...lengths].reverse() : lengths;
  let at = from;
  return ordered.map((length): Span => {
    const span: Span = [at, at + length];
    at += length;
    return span;
  });
}

const isEven = (spans: readonly Span[]): boolean => {
  const lengths = spans.map(([from, to]) => to - from);
  return Math.max(...lengths) - Math.min(...lengths) < HAIR_MM;
};
const isSame = (a: readonly Span[], b: readonly Span[]): boolean =>
  a.length === b.length && a.every(([from], i) => Math.abs(from - (b[i]?.[0] ?? Infinity)) < HAIR_MM);

/**
 * Ways to cut a board of a length along the vehicle and a width across it from sheets of a usable size: equal pieces, or
 * whole ones with the rest at either end, the cross joints of neighbouring strips in one line or changing sides.
 * @param least no piece is narrower, mm
 * @param halves whether ways that begin with half a length are tried too
 */
export function floorCuts(
  x: Span,
  y: Span,
  sheet: { readonly length: number; readonly width: number },
  direction: FloorCut['direction'],
  least: number,
  halves = false,
): FloorCut[] {
  const [run, span] = direction === 'across' ? [x, y] : [y, x];
  if (sheet.length <= 0 || sheet.width <= 0) return [];
  const unlike = (all: readonly (readonly Span[])[]): (readonly Span[])[] =>
    all.filter((one, i) => all.findIndex((other) => isSame(other, one)) === i);
  const ways = (from: number, to: number, most: number): (readonly Span[])[] =>
    unlike(
      (
        ['equal', 'rest-last', 'rest-first', ...(halves ? (['half-of-equal', 'half-of-whole'] as const) : [])] as const
      ).map((how) => splitOf(from, to, most, least, how)),
    );
  return ways(run[0], run[1], sheet.width)
    .filter((strips) => strips.every(([a, b]) => b - a >= least - HAIR_MM))
    .flatMap((strips) => {
      const cross = ways(span[0], span[1], sheet.length).filter((one) =>
        one.every(([a, b]) => b - a >= least - HAIR_MM),
      );
      const [, last, first] = cross;
      const alternating = last && first ? [strips.map((_, i) => (i % 2 === 0 ? last : first))] : [];
      return [...cross.map((one) => strips.map(() => one)), ...alternating].map((pieces): FloorCut => ({
        direction,
        equal: [strips, ...pieces].every(isEven),
        strips: strips.map((own, i) => ({ span: own, pieces: pieces[i] ?? [] })),
        crossed: pieces
          .slice(1)
          .reduce(
            (sum, own, i) =>
              sum +
              own
                .slice(1)
                .filter(([at]) => (pieces[i] ?? []).slice(1).some(([other]) => Math.abs(other - at) < CROSSED_MM))
                .length,
            0,
          ),
      }));
    });
}

interface Free {
  readonly length: number;
  readonly width: number;
}

/**
 * How many sheets rectangles are cut from, edge to edge: the largest first, each into the tightest rectangle that is free.
 * It can be done with so many; a cut plan may find fewer.
 * @param rectangles length along the grain, width across it, mm
 * @param turns whether they may be turned by a quarter
 */
export function sheetsFor(rectangles: readonly Free[], sheet: Free, kerf: number, turns: boolean): number {
  let sheets = 0;
  const free: Free[] = [];
  const sorted = [...rectangles].sort((a, b) => b.length * b.width - a.length * a.width);
  for (const piece of sorted) {
    const ways = turns ? [piece, { length: piece.width, width: piece.length }] : [piece];
    const fits = (room: Free): Free[] =>
      ways.filter((way) => way.length <= room.length + HAIR_MM && way.width <= room.width + HAIR_MM);
    let best: { room: Free; way: Free; left: number } | null = null;
    for (const room of free)
      for (const way of fits(room)) {
        const left = Math.min(room.length - way.length, room.width - way.width);
        if (!best || left < best.left) best = { room, way, left };
      }
    if (!best) {
      const way = fits(sheet)[0];
      if (!way) return Infinity;
      sheets += 1;
      free.push(sheet);
      best = { room: sheet, way, left: 0 };
    }
    const { room, way } = best;
    free.splice(free.indexOf(room), 1);
    const [long, wide] = [room.length - way.length - kerf, room.width - way.width - kerf];
    // the cut that leaves the larger piece whole
    const lengthwise = long * room.width > wide * room.length;
    free.push(
      ...(lengthwise
        ? [
            { length: long, width: room.width },
            { length: way.length, width: wide },
          ]
        : [
            { length: room.length, width: wide },
            { length: long, width: way.width },
          ]
      ).filter(({ length, width }) => length > 0 && width > 0),
    );
  }
  return sheets;
}
