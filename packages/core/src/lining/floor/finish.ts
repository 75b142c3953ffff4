import type { PriceItem } from '../../document/schema.js';
import type { Part } from '../../parts/part.js';

/** One plank, tile or piece of one in its row. */
export interface PlankPiece {
  readonly x0: number;
  readonly x1: number;
  /** It is what was left of a plank of an earlier row. */
  readonly offcut: boolean;
}

export interface PlankRow {
  readonly y0: number;
  readonly y1: number;
  readonly pieces: readonly PlankPiece[];
}

/** One row to cut: its width, and the lengths of its pieces from the front. */
export interface RowLengths {
  readonly row: number;
  readonly width: number;
  readonly pieces: readonly { readonly length: number; readonly offcut: boolean }[];
}

/** The rows of a finish as a cutting table: the same on the screen and on paper, mm. */
export const rowLengths = (finish: Pick<FloorFinish, 'rows'>): readonly RowLengths[] =>
  finish.rows.map(({ y0, y1, pieces }, i) => ({
    row: i + 1,
    width: y1 - y0,
    pieces: pieces.map(({ x0, x1, offcut }) => ({ length: x1 - x0, offcut })),
  }));

/** The floor finish set out over the room. */
export interface FloorFinish {
  readonly material: string;
  readonly laid: NonNullable<PriceItem['laid']>;
  readonly rows: readonly PlankRow[];
  /** Whole planks or tiles that it takes; 0 off a roll. */
  readonly planks: number;
  /** Metres off the roll; 0 for planks and tiles. */
  readonly metres: number;
  /** Joints between lanes of a roll, m. */
  readonly seams: number;
  /** Areas, m2: what feet see, and what units stand on. */
  readonly seen: number;
  readonly hidden: number;
  /** What is covered of it, m2. */
  readonly covered: number;
  /** Pieces shorter than wanted, and rows ripped narrower than wanted, that could not be avoided. */
  readonly short: number;
  readonly legal: boolean;
  /** Pieces that are no plain rectangle: fitted last, by a template. */
  readonly awkward: readonly Part[];
}
