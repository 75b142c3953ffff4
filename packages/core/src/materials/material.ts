import type { PriceBook, PriceItem } from '../document/schema.js';

/** Litres that coats take over so many square metres, by what the data sheet states; null where it states nothing. */
export const litresOf = (material: PriceItem, squareMetres: number): number | null =>
  material.coverage ? squareMetres / material.coverage : null;

/** Finds a material by id; null when the price book has none of that id. */
export function materialOf(book: PriceBook, id: string): PriceItem | null {
  return book.items.find((item) => item.id === id) ?? null;
}
