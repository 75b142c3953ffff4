import type { PriceItem } from '../document/schema.js';

/** Timber and profiles sold by the length: parts are cut from bars. */
export const isBar = (material: PriceItem): boolean =>
  material.stocks.length === 0 && material.pack?.unit === 'm' && material.width > 0 && material.laid === null;

/** The lengths a bar is sold in. */
export const barStocks = (material: PriceItem): PriceItem['stocks'] =>
  material.pack && isBar(material)
    ? [
        {
          id: `${material.id}-bar`,
          length: material.pack.contents * 1000,
          width: material.width,
          price: material.pack.price,
          quantity: null,
        },
      ]
    : [];
