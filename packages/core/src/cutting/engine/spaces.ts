import type { Filled, Laid } from './filling.js';

/** A rectangle of a sheet that edge-to-edge cuts set free, with the parts that lie in it. */
export interface Space {
  readonly x: number;
  readonly y: number;
  readonly length: number;
  readonly width: number;
  /** Indices into the sheet's laid parts. */
  readonly inside: readonly number[];
}
interface Piece {
  readonly index: number;
  readonly x0: number;
  readonly y0: number;
  readonly x1: number;
  readonly y1: number;
}

/** Runs of strips longer than this are not listed as spaces of their own. */
const MOST_STRIPS = 6;

function strips(pieces: readonly Piece[], alongX: boolean): Piece[][] {
  const sorted = [...pieces].sort((a, b) => (alongX ? a.x0 - b.x0 : a.y0 - b.y0));
  const runs: Piece[][] = [];
  let reached = -Infinity;
  for (const piece of sorted) {
    const start = alongX ? piece.x0 : piece.y0;
    if (start >= reached) runs.push([]);
    runs[runs.length - 1]?.push(piece);
    reached = Math.max(reached, alongX ? piece.x1 : piece.y1);
  }
  return runs;
}

function collect(pieces: readonly Piece[], space: Omit<Space, 'inside'>, into: Space[]): void {
  if (pieces.length < 2) return;
  for (const alongX of [true, false]) {
    const runs = strips(pieces, alongX);
    if (runs.length < 2) continue;
    const starts = runs.map((run, i) =>
      i === 0 ? (alongX ? space.x : space.y) : Math.min(...run.map((piece) => (alongX ? piece.x0 : piece.y0))),
    );
    starts.push(alongX ? space.x + space.length : space.y + space.width);
    for (let from = 0; from < runs.length; from += 1)
      for (let to = from; to < Math.min(runs.length, from + MOST_STRIPS); to += 1) {
        if (from === 0 && to === runs.length - 1) continue;
        const [low, high] = [starts[from] ?? 0, starts[to + 1] ?? 0];
        const inside = runs.slice(from, to + 1).flat();
        const part = alongX ? { ...space, x: low, length: high - low } : { ...space, y: low, width: high - low };
        into.push({ ...part, inside: inside.map((piece) => piece.index) });
        if (from === to) collect(inside, part, into);
      }
  }
}

const known = new WeakMap<Filled, Space[]>();

/** All spaces of a sheet down to single parts, the whole sheet first; sizes are grown by a kerf. */
export function spacesOf(
  sheet: Filled,
  length: number,
  width: number,
  sizeOf: (laid: Laid) => { readonly length: number; readonly width: number },
): readonly Space[] {
  const before = known.get(sheet);
  if (before) return before;
  const pieces = sheet.laid.map((laid, index): Piece => {
    const size = sizeOf(laid);
    return { index, x0: laid.x, y0: laid.y, x1: laid.x + size.length, y1: laid.y + size.width };
  });
  const whole = { x: 0, y: 0, length, width };
  const spaces: Space[] = [{ ...whole, inside: pieces.map((piece) => piece.index) }];
  collect(pieces, whole, spaces);
  known.set(sheet, spaces);
  return spaces;
}
