import type { OpeningEdges } from '../../shell/openings.js';
import type { Part } from '../../parts/part.js';

/** The box round one window: four boards squared inside, and the trim in front of them. */
export interface WindowBox {
  readonly opening: string;
  readonly name: string;
  /** The outside of its boards in the plane of the opening, mm. */
  readonly outside: OpeningEdges;
  /** Whether the opening's sides lean, and the box with them. */
  readonly leans: 'no' | 'with-it' | 'opening-alone';
  /** Clear size inside the boards, mm: level at the low edge and at the high one, and between those. */
  readonly clear: { readonly length: number; readonly top: number; readonly height: number };
  /** Light lost to roundings, to a slant and to the boards, share of the opening. */
  readonly lost: number;
  readonly parts: readonly Part[];
  /** It is in the roof. */
  readonly above: boolean;
  /** A curtain or blind in front of it; null for what is in the roof. */
  readonly track: Track | null;
  /** Units that stand in front of the glass: their backs are seen from outside. */
  readonly behind: readonly string[];
  /** Sides whose depth is not read yet. */
  readonly missing: readonly ('sill' | 'head' | 'front' | 'rear')[];
}

/** A track over a window, and how far down it is to what is really beneath it, mm. */
export interface Track {
  readonly length: number;
  readonly brackets: number;
  /** At its front end, middle and rear end: down to a unit's top or the floor, less what the hem keeps clear. */
  readonly hems: readonly number[];
}
