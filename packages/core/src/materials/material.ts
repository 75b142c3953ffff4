import type { PriceBook, PriceItem } from '../document/schema.js';

/** Finds a material by id; null when the price book has none of that id. */
export function materialOf(book: PriceBook, id: string): PriceItem | null {
  return book.items.find((item) => item.id === id) ?? null;
}
