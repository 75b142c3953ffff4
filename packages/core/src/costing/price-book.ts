import type { PriceBook, PriceItem } from '../project/schema.js';

const DATE = '2026-10-01';
const base = { priceDate: DATE, width: 0, grain: false, cureHours: 0, pack: null, stocks: [] as PriceItem['stocks'] };
const sheet = (id: string, length: number, width: number, price: number): PriceItem['stocks'][number] => ({ id, length, width, price, quantity: null });

/** A birch or poplar plywood: grain along the sheet's length. */
function plywood(id: string, name: string, hatch: PriceItem['hatch'], thickness: number, density: number, stocks: PriceItem['stocks']): PriceItem {
  return { ...base, id, name, group: 'sheet', hatch, supplier: 'Alder & Rook', thickness, density, conductivity: 0.13, grain: true, stocks };
}

/** The price book a new installation starts with: invented suppliers, plausible prices in minor units. Every line can be changed. */
export function startPriceBook(): PriceBook {
  return {
    currency: 'EUR',
    items: [
      plywood('birch-18', 'Birch plywood 18', 'birch', 18, 680, [sheet('birch-18-2500', 2500, 1250, 8900), sheet('birch-18-1525', 1525, 1525, 6300)]),
      plywood('birch-15', 'Birch plywood 15', 'birch', 15, 680, [sheet('birch-15-2500', 2500, 1250, 7600), sheet('birch-15-1525', 1525, 1525, 5400)]),
      plywood('birch-12', 'Birch plywood 12', 'birch', 12, 680, [sheet('birch-12-2500', 2500, 1250, 6400), sheet('birch-12-1525', 1525, 1525, 4500)]),
      plywood('birch-9', 'Birch plywood 9', 'birch', 9, 680, [sheet('birch-9-2500', 2500, 1250, 5200)]),
      plywood('poplar-12', 'Poplar plywood 12', 'poplar', 12, 430, [sheet('poplar-12-2500', 2500, 1220, 4700)]),
      plywood('poplar-5', 'Poplar plywood 5', 'poplar', 5, 430, [sheet('poplar-5-2500', 2500, 1220, 2600)]),
      { ...base, id: 'batten-30', name: 'Pine batten 45 x 30', group: 'timber', hatch: 'pine', supplier: 'Copse Lane Yard', thickness: 30, width: 45, density: 480, conductivity: 0.13, grain: true, pack: { contents: 2.4, unit: 'm', price: 410 } },
      { ...base, id: 'batten-18', name: 'Pine batten 45 x 18', group: 'timber', hatch: 'pine', supplier: 'Copse Lane Yard', thickness: 18, width: 45, density: 480, conductivity: 0.13, grain: true, pack: { contents: 2.4, unit: 'm', price: 290 } },
      { ...base, id: 'foam-30', name: 'Rigid foam 30', group: 'insulation', hatch: 'foam', supplier: 'Copse Lane Yard', thickness: 30, density: 32, conductivity: 0.034, pack: { contents: 5.76, unit: 'm2', price: 4100 } },
      { ...base, id: 'foam-20', name: 'Rigid foam 20', group: 'insulation', hatch: 'foam', supplier: 'Copse Lane Yard', thickness: 20, density: 32, conductivity: 0.034, pack: { contents: 8.64, unit: 'm2', price: 4300 } },
      { ...base, id: 'wool-50', name: 'Wool batts 50', group: 'insulation', hatch: 'wool', supplier: 'Copse Lane Yard', thickness: 50, density: 18, conductivity: 0.038, pack: { contents: 6.0, unit: 'm2', price: 5900 } },
      { ...base, id: 'boards-9', name: 'Grooved pine boards 9', group: 'lining', hatch: 'pine', supplier: 'Copse Lane Yard', thickness: 9, density: 480, conductivity: 0.13, grain: true, pack: { contents: 2.2, unit: 'm2', price: 3300 } },
      { ...base, id: 'planks-5', name: 'Cork floor planks 5', group: 'lining', hatch: 'grey', supplier: 'Alder & Rook', thickness: 5, density: 900, conductivity: 0.09, pack: { contents: 2.1, unit: 'm2', price: 5600 } },
      { ...base, id: 'floor-glue', name: 'Floor adhesive 310 ml', group: 'adhesive', hatch: 'grey', supplier: 'Fenwright Metals', thickness: 0, density: 0, conductivity: 0, cureHours: 24, pack: { contents: 310, unit: 'ml', price: 990 } },
      { ...base, id: 'wood-glue', name: 'Wood glue 750 ml', group: 'adhesive', hatch: 'grey', supplier: 'Fenwright Metals', thickness: 0, density: 0, conductivity: 0, cureHours: 12, pack: { contents: 750, unit: 'ml', price: 1250 } },
      { ...base, id: 'screws-40', name: 'Screws 4 x 40', group: 'fixing', hatch: 'grey', supplier: 'Fenwright Metals', thickness: 0, density: 0, conductivity: 0, pack: { contents: 200, unit: 'piece', price: 1090 } },
    ],
  };
}
