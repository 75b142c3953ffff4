/** A part laid on a sheet: the corner of the grown part, from the corner of the sheet, in engine units. */
export interface Laid {
  readonly part: number;
  readonly x: number;
  readonly y: number;
  readonly turned: boolean;
  /** Quarters by which a true outline is turned. */
  readonly quarters?: number;
  /** A bar part turned over about its length, so that its edges change places. */
  readonly flipped?: boolean;
}
/** A sheet with what lies on it. */
export interface Filled {
  readonly stock: number;
  readonly laid: readonly Laid[];
  /** Area of the grown parts. */
  readonly area: number;
}

/** How parts are joined into blocks before a sheet is filled. */
export interface JoinTaste {
  /** Largest share of a joined block that may be lost; negative for no joining at all. */
  readonly waste: number;
  /** How much the order of joining is disturbed, 0 to 1. */
  readonly noise: number;
  /** How much more a join is liked when the block spans the whole sheet. */
  readonly span: number;
  /** Stop with this many blocks. */
  readonly least: number;
}
/** What a pass prefers when it fills. */
export interface FillTaste {
  /** Blocks whose side matches the free rectangle's. */
  readonly edge: number;
  /** Blocks that fill the free rectangle. */
  readonly fill: number;
  /** Large blocks first. */
  readonly large: number;
  readonly noise: number;
  /** How the rest of a free rectangle is split: 0 larger rest whole, 1 longer rest, 2 shorter rest, 3 rip, 4 crosscut, 5 any. */
  readonly split: number;
  /** Free rectangles are filled smallest first rather than newest first. */
  readonly smallestFirst: boolean;
  /** Two parts that match are looked at together for rectangles under this share of the sheet. */
  readonly pairsUnder: number;
}

/** Fills one rectangle of a stock after another from a pool of parts. */
export interface Filler {
  /** Takes a pool of parts, by index; equal indices are equal parts. */
  load(pool: readonly number[]): void;
  /** Fills a rectangle in one way; returns the area placed. `laid` and `left` tell the rest until the next try. */
  fill(length: number, width: number, join: JoinTaste, taste: FillTaste): number;
  left(): number[];
  laid(x?: number, y?: number): Laid[];
}
