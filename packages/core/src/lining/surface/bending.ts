import type { PriceItem } from '../../document/schema.js';
import { wholeUp } from '../../numeric/tolerance.js';

/** Stress that is allowed is the strength over this. */
const SAFETY = 1.5;

/**
 * The tightest radius a sheet can be bent to, mm: R = E t / (2 f) with f the strength over 1.5 (bending of a thin plate).
 * @param along the grain runs round the bend
 * @returns null when the material's stiffness is not known
 */
export function leastRadius(material: PriceItem, thickness: number, along: boolean): number | null {
  const own = material.bending?.[along ? 'along' : 'across'];
  return own ? (own.modulus * thickness) / (2 * (own.strength / SAFETY)) : null;
}

/** How far a flat strip stands off a curve at its middle, mm: w^2 / (8 R). */
export const standOff = (width: number, radius: number): number => (width * width) / (8 * radius);

/** The widest flat strip that stands off no more than this, mm. */
export const widestStrip = (radius: number, off: number): number => Math.sqrt(8 * radius * off);

/** How a piece is sawn on its inside so that it closes round a corner. */
export interface KerfBend {
  readonly cuts: number;
  /** On the face that is sawn, from cut to cut, mm. */
  readonly spacing: number;
  readonly depth: number;
  /** Length of the bent zone on the outer face, mm. */
  readonly zone: number;
  /** Cuts lie too near each other: what is left between would break. */
  readonly crowded: boolean;
}

/**
 * Cuts for a bend on the inside: n = A (T - s) / k, spread over R A on the outer face.
 * @param thickness T of the sheet, `skin` s left standing, `kerf` k of the saw, `radius` R of the outer face, mm
 * @param angle A, degrees
 */
export function kerfBend(thickness: number, skin: number, kerf: number, radius: number, angle: number): KerfBend {
  const turn = (angle * Math.PI) / 180;
  const cuts = wholeUp((turn * (thickness - skin)) / kerf);
  const zone = radius * turn;
  const spacing = zone / cuts;
  return { cuts, spacing, depth: thickness - skin, zone, crowded: spacing < kerf + 1 };
}
