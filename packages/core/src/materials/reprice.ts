import type { PriceItem } from '../document/schema.js';

/**
 * A material at another price level: every size and pack of it by a factor, in whole minor units, with the day it is from.
 * What cost something still costs at least one; what has no price gets none.
 * @param factor 1.05 for 5 % dearer
 * @param date ISO date
 */
export function repriced(item: PriceItem, factor: number, date: string): PriceItem {
  const priced = (price: number): number => (price > 0 ? Math.max(1, Math.round(price * factor)) : 0);
  return {
    ...item,
    priceDate: date,
    stocks: item.stocks.map((stock) => ({ ...stock, price: priced(stock.price) })),
    pack: item.pack && { ...item.pack, price: priced(item.pack.price) },
  };
}

/**
 * A copy of a material to be made another one: its own id and name, its sizes under ids of their own.
 * @param taken ids and names there are already
 */
export function copied(item: PriceItem, taken: readonly Pick<PriceItem, 'id' | 'name'>[]): PriceItem {
  const used = (id: string, name: string): boolean => taken.some((other) => other.id === id || other.name === name);
  let number = 2;
  while (used(`${item.id}-${number}`, `${item.name} (${number})`)) number += 1;
  return {
    ...item,
    id: `${item.id}-${number}`,
    name: `${item.name} (${number})`,
    stocks: item.stocks.map((stock, i) => ({ ...stock, id: `${item.id}-${number}-${i + 1}` })),
  };
}

/** A sheet material with nothing known yet but a usual size, to be filled in. */
export function blankMaterial(taken: readonly Pick<PriceItem, 'id' | 'name'>[], name: string, date: string): PriceItem {
  let number = 1;
  while (taken.some(({ id }) => id === `own-${number}`)) number += 1;
  const id = `own-${number}`;
  return {
    id,
    name,
    group: 'sheet',
    hatch: 'grey',
    supplier: '–',
    priceDate: date,
    thickness: 12,
    width: 0,
    pieceLength: 0,
    laid: null,
    recoat: null,
    density: 0,
    conductivity: 0,
    grain: true,
    cureHours: 0,
    vapour: 0,
    hours: 0,
    deadening: false,
    soldAs: '',
    fastener: null,
    bending: null,
    stocks: [{ id: `${id}-1`, length: 2500, width: 1250, price: 0, quantity: null }],
    pack: null,
  };
}
