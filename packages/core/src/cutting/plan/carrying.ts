import { isBar } from '../../materials/bars.js';
import { materialOf } from '../../materials/material.js';
import { type Part, blankOf, partMass } from '../../parts/part.js';
import type { KeptSheet, PriceBook, PriceItem, SawCut, Settings } from '../../document/schema.js';

/** Mass of a rectangle of a sheet material, kg; null when its density is not known. */
export function boardMass(material: PriceItem, length: number, width: number): number | null {
  return material.density > 0 ? (length * width * material.thickness * material.density) / 1e9 : null;
}

/** A part that one person should not carry alone, and where it could be split. */
export interface HeavyPart {
  readonly part: string;
  readonly mass: number | null;
  readonly length: number;
  /** Too heavy, too long, or both. */
  readonly why: 'mass' | 'length' | 'both';
  /** From the part's own start to a split into equal pieces that one person can carry, mm; over a rib where one is near. */
  readonly splitAt: readonly number[];
}

/** A rib is near a split when it is within this share of the part's length. */
const NEAR_RIB = 0.12;

/**
 * Names parts above the mass or length for one person.
 * @param ribs places of ribs along the vehicle, mm, for parts that lie along it
 */
export function heavyParts(
  parts: readonly Part[],
  book: PriceBook,
  carry: Settings['cutting']['carry'],
  ribs: readonly number[],
): readonly HeavyPart[] {
  return parts.flatMap((part): HeavyPart[] => {
    const mass = partMass(part, book);
    const { length, width } = blankOf(part);
    // a batten or a board comes as long from the shop, and one person carries it
    const stick = materialOf(book, part.material);
    if (stick && isBar(stick) && (mass === null || mass <= carry.mass)) return [];
    const longest = Math.max(length, width);
    const heavy = mass !== null && mass > carry.mass;
    const long = longest > carry.length;
    if (!heavy && !long) return [];
    const pieces = Math.max(2, Math.ceil((mass ?? 0) / carry.mass), Math.ceil(longest / carry.length));
    const along = length >= width ? part.place.along : part.place.across;
    const own = Math.abs(along[0]) > 0.9 ? ribs.map((x) => (x - part.place.origin[0]) * along[0]) : [];
    const splitAt = Array.from({ length: pieces - 1 }, (_, i) => {
      const even = (longest * (i + 1)) / pieces;
      const rib = own.reduce<number | null>(
        (best, at) => (best === null || Math.abs(at - even) < Math.abs(best - even) ? at : best),
        null,
      );
      return rib !== null && Math.abs(rib - even) < NEAR_RIB * longest ? rib : even;
    });
    return [{ part: part.id, mass, length: longest, why: heavy && long ? 'both' : heavy ? 'mass' : 'length', splitAt }];
  });
}

/** Cuts to have made at the merchant so that every piece fits in the car. */
export interface MerchantCuts {
  readonly cuts: readonly SawCut[];
  /** Pieces to carry out, mm. */
  readonly pieces: readonly { readonly length: number; readonly width: number }[];
  /** Pieces that are still too large although no cut is left. */
  readonly tooLarge: number;
}

/** The fewest first cuts of a sheet, each from edge to edge, after which every piece fits. */
export function merchantCuts(
  sheet: KeptSheet,
  kerf: number,
  car: { readonly length: number; readonly width: number },
): MerchantCuts {
  const cuts: SawCut[] = [];
  const pieces: { length: number; width: number }[] = [];
  let tooLarge = 0;
  const fits = (length: number, width: number): boolean =>
    Math.max(length, width) <= Math.max(car.length, car.width) &&
    Math.min(length, width) <= Math.min(car.length, car.width);
  const walk = (x: number, y: number, length: number, width: number, trimmed: number): void => {
    if (length <= 0 || width <= 0) return;
    if (fits(length + trimmed, width + trimmed)) {
      pieces.push({ length, width });
      return;
    }
    const near = (a: number, b: number): boolean => Math.abs(a - b) < 0.06;
    const cut = sheet.cuts.find(
      (candidate) =>
        !cuts.includes(candidate) &&
        (candidate.axis === 'rip'
          ? near(candidate.from, x) && near(candidate.edge, y) && near(candidate.to, x + length)
          : near(candidate.from, y) && near(candidate.edge, x) && near(candidate.to, y + width)),
    );
    if (!cut) {
      pieces.push({ length, width });
      tooLarge += 1;
      return;
    }
    cuts.push(cut);
    if (cut.axis === 'rip') {
      walk(x, y, length, cut.at - y, 0);
      walk(x, cut.at + kerf, length, y + width - cut.at - kerf, 0);
    } else {
      walk(x, y, cut.at - x, width, 0);
      walk(cut.at + kerf, y, x + length - cut.at - kerf, width, 0);
    }
  };
  walk(0, 0, sheet.length, sheet.width, 2 * sheet.trim);
  return { cuts, pieces, tooLarge };
}
