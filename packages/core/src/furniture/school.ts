import type { PriceBook } from '../document/schema.js';
import type { Unit } from '../document/unit-schema.js';
import type { Part } from '../parts/part.js';
import type { FurnitureProblem, Skeleton } from './skeleton.js';

/** Two parts held together, and by what. */
export interface Joint {
  /** The part met by its face, and the one met by its edge, by their lasting names. */
  readonly a: string;
  readonly b: string;
  readonly how: 'glued-and-screwed' | 'glued' | 'screwed';
  /** mm */
  readonly length: number;
  readonly screws: number;
  /** The stocked fastener; null where it is glued alone, or none fits, which is a problem of its own. */
  readonly fastener: string | null;
}

/** Something bought for a unit beside its boards and bars: a book entry and how much of it, in the unit it is sold in. */
export interface Hardware {
  readonly item: string;
  readonly amount: number;
  readonly for: string;
}

/** What every school returns. */
export interface Made {
  readonly parts: readonly Part[];
  readonly joints: readonly Joint[];
  readonly hardware: readonly Hardware[];
  readonly problems: readonly FurnitureProblem[];
}
export const NOTHING_MADE: Made = { parts: [], joints: [], hardware: [], problems: [] };

/** A way to make furniture from its skeleton. */
export interface School {
  readonly id: string;
  readonly words: { readonly name: string };
  readonly make: (unit: Unit, skeleton: Skeleton, book: PriceBook) => Made;
}
