import type { MeasuredMaterial, PriceBook } from '../document/schema.js';

/** The price book with what was measured of the sheets bought in the place of nominal thicknesses. */
export function bookAsBought(book: PriceBook, measured: readonly MeasuredMaterial[]): PriceBook {
  if (measured.length === 0) return book;
  const real = new Map(measured.map(({ material, thickness }) => [material, thickness]));
  return {
    ...book,
    items: book.items.map((item) => {
      const thickness = real.get(item.id);
      return thickness === undefined ? item : { ...item, thickness };
    }),
  };
}
