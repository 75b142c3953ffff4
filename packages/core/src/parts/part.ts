import { boxOf, outlineArea, type Outline, type Point } from '../numeric/plane.js';
import type { BarEnds, Covered, Lined, PriceBook } from '../document/schema.js';
import { materialOf } from '../materials/material.js';

/** A point in the vehicle: x to the rear, y to the right, z up, mm. */
export type Vector = readonly [number, number, number];

/** What one stretch of a part's edge is. */
export interface PartEdge {
  readonly kind: 'scribe' | 'visible';
  /** Where the edge lies on the part, in words for people and files. */
  readonly at: 'left' | 'right' | 'back' | 'front';
  /** The line the edge is to have in the end, on the part's own axes, mm. Empty for a straight visible edge. */
  readonly trueLine: readonly Point[];
  /** How far the cut outline stands outside the true line, mm. */
  readonly allowance: number;
  /** The most that has to come off, from the blank to the true line, mm. */
  readonly largestRemoval: number;
  /** Angle of the cut against square along the edge, degrees, least and most. */
  readonly bevel: { readonly least: number; readonly most: number };
  /** True when a square cut leaves less than 1 mm open over the thickness. */
  readonly squareCut: boolean;
}

/** What is marked on the face of a part before it goes up: on its own axes, mm. */
export interface PartMarks {
  /** What lies behind it: the middle line of each support. */
  readonly lines: readonly { readonly name: string; readonly from: Point; readonly to: Point }[];
  /** Where it is screwed or pinned. */
  readonly screws: readonly Point[];
  /** Holes for lamps, outlets and cables, with their middle; rough where a unit will hide them. */
  readonly holes: readonly {
    readonly name: string;
    readonly at: Point;
    readonly diameter: number;
    readonly slot: boolean;
    readonly rough: boolean;
  }[];
  /** Middle lines of grooves in its face. */
  readonly grooves?: readonly { readonly from: Point; readonly to: Point }[];
  /** Rectangles round what the piece is cut out for, as far as they lie on it, with the diagonal that checks them. */
  readonly cutOuts?: readonly {
    readonly name: string;
    readonly from: Point;
    readonly to: Point;
    readonly diagonal: number;
  }[];
}

/** Where a piece of lining lies on its surface: the part's own axes as they run there, mm. */
export interface OnSurface {
  /** What it bends with: a wall, the ceiling or an end. */
  readonly surface: Lined;
  /**
   * What the places are counted on: the surface laid flat, along it and along its curve; or its view from beside, along it
   * and up.
   */
  readonly on: 'flat' | 'view';
  readonly origin: Point;
  readonly along: Point;
  readonly across: Point;
  /** How far its drawn face lies behind what the places are counted on, away from the room, mm. */
  readonly behind: number;
}

/** What a piece of lining or floor is; furniture's roles are named by its families. */
export type LiningRole =
  | 'subfloor'
  | 'floor-batten'
  | 'floor-hatch'
  | 'panel'
  | 'strip'
  | 'board'
  | 'backing'
  | 'cover-strip'
  | 'wall-batten'
  | 'noggin'
  | 'packer'
  | 'reveal'
  | 'trim'
  | 'door-panel'
  | 'finish'
  | 'header'
  | 'corner'
  | 'corner-test'
  | 'arch-top'
  | 'arch-side'
  | 'arch-end'
  | 'arch-rail';

/** One piece to cut. The outline is on the part's own axes: x along its grain, y across, lower left corner of the blank at 0,0. */
export interface Part {
  /** Lasts: what is cut, waited for or scribed keeps pointing at it when other parts come or go. */
  readonly id: string;
  /** A LiningRole, or the role its furniture family gives it. */
  readonly role: string;
  /** Counts equal roles in one unit: 1, 2, … */
  readonly number: number;
  /** The unit it belongs to; null for the lining of the vehicle. */
  readonly unit: string | null;
  /** What it lines, where it belongs to no unit; the floor when nothing is said. */
  readonly surface?: Covered;
  readonly material: string;
  readonly thickness: number;
  readonly outline: Outline;
  readonly grain: boolean;
  readonly edges: readonly PartEdge[];
  /** The window, door, arch or box it is made for, by its name; its number counts within that. */
  readonly of?: string;
  /** Support lines and drill map of a piece of lining. */
  readonly marks?: PartMarks;
  /** Parts cut from a bar: how far the ends are off square, where they are. */
  readonly ends?: BarEnds;
  /** Where it lies on a surface that it bends with; nothing for what is flat. */
  readonly bends?: OnSurface;
  /** The parts it touches, by their ids. */
  readonly touches?: readonly string[];
  /**
   * Where the lower left corner of the blank's drawn face is in the vehicle, which way its two axes run, and which way its
   * thickness goes from there: away from the one who looks at the drawn face, which is the good one.
   */
  readonly place: { readonly origin: Vector; readonly along: Vector; readonly across: Vector; readonly thick: Vector };
}

/** Everything that is drawn on a part and not cut: true lines of scribed edges, and the supports behind it. */
export const markLines = (part: Part): readonly (readonly Point[])[] => [
  ...part.edges.filter((edge) => edge.trueLine.length > 1).map((edge) => edge.trueLine),
  ...(part.marks?.lines.map((line): readonly Point[] => [line.from, line.to]) ?? []),
];
/** The middle lines of grooves in a part's face. */
export const grooveLines = (part: Part): readonly (readonly Point[])[] =>
  (part.marks?.grooves ?? []).map(({ from, to }) => [from, to]);
/** A screw is drawn and drilled as a hole of this diameter, mm. */
export const PILOT_MM = 3;

/** The materials whose layers of board are cut into parts of the floor: what is made of them is counted by these. */
export const boardMaterials = (parts: readonly Part[]): ReadonlySet<string> =>
  new Set(parts.flatMap(({ role, material }) => (role === 'subfloor' ? [material] : [])));

/** Sizes of the rectangle a part is cut from, along the grain and across it, mm. */
export function blankOf(part: Part): { readonly length: number; readonly width: number } {
  const box = boxOf(part.outline.outer);
  return { length: box.maxX - box.minX, width: box.maxY - box.minY };
}

/** Mass of a part by its true outline, kg; null when the material's density is not known. */
export function partMass(part: Part, book: PriceBook): number | null {
  const before = masses.get(part);
  if (before?.book === book) return before.kg;
  const density = materialOf(book, part.material)?.density ?? 0;
  const kg = density > 0 ? (outlineArea(part.outline) * part.thickness * density) / 1e9 : null;
  masses.set(part, { book, kg });
  return kg;
}
/** Parts are never changed: one weighs what it weighed for as long as the price book is the same. */
const masses = new WeakMap<Part, { readonly book: PriceBook; readonly kg: number | null }>();

/** Moves an outline so that its blank's lower left corner is at 0,0, and says by how much it moved. */
export function toOrigin(outline: Outline): { readonly outline: Outline; readonly moved: Point } {
  const { minX, minY } = boxOf(outline.outer);
  const move = (ring: readonly Point[]): Point[] => ring.map(([x, y]): Point => [x - minX, y - minY]);
  return { outline: { outer: move(outline.outer), holes: outline.holes.map(move) }, moved: [minX, minY] };
}
