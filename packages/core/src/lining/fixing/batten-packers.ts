import type { PriceItem } from '../../document/schema.js';
import { isBar } from '../../materials/bars.js';
import { spread } from '../../numeric/plane.js';
import { wholeUp } from '../../numeric/tolerance.js';
import type { WallBatten } from './wall-battens.js';

/** A batten between the ribs stands on a packer so often, and on two at least, mm; each is so long. */
const APART_MM = 450;
export const PACKER_LONG_MM = 70;
/** What is missing is made up by the glue, and what is too much planed off, up to this, mm. */
export const MADE_UP_MM = 3;
const MOST_STACKED = 3;

/** Where the packers under a batten have their middles, along it from its low end, mm. */
export function packersUnder({ u0, u1, v0, v1 }: WallBatten): readonly number[] {
  const long = Math.hypot(u1 - u0, v1 - v0);
  const count = Math.max(2, wholeUp((long - PACKER_LONG_MM) / APART_MM) + 1);
  return long < 2 * PACKER_LONG_MM ? [long / 2] : spread(PACKER_LONG_MM / 2, long - PACKER_LONG_MM / 2, count);
}

/** Thinner timber splits when it is screwed through, mm. */
const THINNEST_MM = 12;

/** The pieces that lie on each other in a packer, and how much they come out too low (or too high, below zero), mm. */
export interface Packing {
  readonly of: readonly PriceItem[];
  readonly off: number;
}
export const packedHigh = ({ of }: Packing): number => of.reduce((sum, { thickness }) => sum + thickness, 0);

/** The packing that comes nearest to a height, of the bars on sale: the fewest pieces that the glue makes up. */
export function packingFor(deep: number, items: readonly PriceItem[]): Packing | null {
  const timber = items.filter((item) => item.group === 'timber' && isBar(item) && item.thickness >= THINNEST_MM);
  const stacks = (most: number): readonly (readonly PriceItem[])[] =>
    most === 0 ? [[]] : stacks(most - 1).flatMap((lower) => [lower, ...timber.map((item) => [...lower, item])]);
  const ways = stacks(MOST_STACKED)
    .filter((of) => of.length > 0)
    .map((of): Packing => ({ of, off: deep - of.reduce((sum, { thickness }) => sum + thickness, 0) }));
  const nearer = (a: Packing, b: Packing): number => Math.abs(a.off) - Math.abs(b.off);
  const made = ways.filter(makesUp).sort((a, b) => a.of.length - b.of.length || nearer(a, b));
  return made[0] ?? ways.sort(nearer)[0] ?? null;
}

/** Whether a packing comes out right. */
export const makesUp = ({ off }: Packing): boolean => Math.abs(off) <= MADE_UP_MM;
