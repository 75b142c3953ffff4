import { isSectionPlace, parseAddress, valueAt } from '../document/address.js';
import type { Survey } from '../document/schema.js';

/** A reading of a wall at a height where there is no wall any more. */
export interface AboveRoof {
  readonly address: string;
  readonly station: string;
  /** The height it was read at, and that of the roof there, mm. */
  readonly height: number;
  readonly roof: number;
}

/**
 * Wall readings above the highest roof reading of their own station, or of all where it has none: a slip in the height. They
 * say nothing of a wall and are left out of every shape.
 */
export function aboveRoof(survey: Survey): readonly AboveRoof[] {
  const walls: { readonly address: string; readonly station: string; readonly height: number }[] = [];
  const roofs = new Map<string, number>();
  for (const address of Object.keys(survey.readings)) {
    const place = parseAddress(address);
    if (!isSectionPlace(place)) continue;
    if (place.what !== 'roof') walls.push({ address, station: place.id, height: place.along });
    else roofs.set(place.id, Math.max(roofs.get(place.id) ?? 0, valueAt(survey, address) ?? 0));
  }
  const highest = Math.max(0, ...roofs.values());
  return walls.flatMap((wall) => {
    const roof = roofs.get(wall.station) ?? highest;
    return roof > 0 && wall.height > roof + 1 ? [{ ...wall, roof }] : [];
  });
}
