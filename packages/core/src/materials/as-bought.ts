import type { BuildUps, Layer, MeasuredMaterial, PriceBook } from '../document/schema.js';
import { materialOf } from './material.js';

/** The price book with what was measured of sheets and timber bought in the place of nominal sizes. */
export function bookAsBought(book: PriceBook, measured: readonly MeasuredMaterial[]): PriceBook {
  if (measured.length === 0) return book;
  const real = new Map(measured.map((item) => [item.material, item]));
  return {
    ...book,
    items: book.items.map((item) => {
      const found = real.get(item.id);
      return found === undefined ? item : { ...item, thickness: found.thickness, width: found.width ?? item.width };
    }),
  };
}

/**
 * Layers with what was measured of their materials: a layer as thick as the price book says its material is becomes as
 * thick as that was found to be. One that was measured itself, or chosen thicker or thinner than it is sold, stays.
 * @param book with nominal sizes
 */
export function buildUpsAsBought(buildUps: BuildUps, book: PriceBook, measured: readonly MeasuredMaterial[]): BuildUps {
  if (measured.length === 0) return buildUps;
  const real = new Map(measured.map((item) => [item.material, item.thickness]));
  const follows = (layer: Layer): Layer => {
    const found = real.get(layer.material);
    return found === undefined ||
      layer.measured !== null ||
      materialOf(book, layer.material)?.thickness !== layer.thickness
      ? layer
      : { ...layer, measured: found };
  };
  return Object.fromEntries(
    Object.entries(buildUps).map(([surface, layers]) => [surface, layers.map(follows)]),
  ) as unknown as BuildUps;
}
