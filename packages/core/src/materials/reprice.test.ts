import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { priceItemSchema } from '../document/schema.js';
import { blankMaterial, copied, repriced } from './reprice.js';
import { startPriceBook } from './start-book.js';

const { items } = startPriceBook();

describe('another price level', () => {
  it('moves every size and pack by the factor, in whole minor units, and dates it', () => {
    const ply = items.find(({ id }) => id === 'birch-12');
    if (!ply) throw new Error('no plywood');
    const dearer = repriced(ply, 1.05, '2026-11-27');
    expect(dearer.priceDate).toBe('2026-11-27');
    expect(dearer.stocks.map(({ price }) => price)).toEqual(ply.stocks.map(({ price }) => Math.round(price * 1.05)));
    expect({ ...dearer, priceDate: ply.priceDate, stocks: ply.stocks }).toEqual(ply);
  });

  it('leaves whole prices of 0 or more for any factor', () => {
    fc.assert(
      fc.property(fc.constantFrom(...items), fc.double({ min: 0.1, max: 10, noNaN: true }), (item, factor) => {
        const made = repriced(item, factor, '2026-11-27');
        expect(priceItemSchema.safeParse(made).success).toBe(true);
        for (const [i, stock] of made.stocks.entries()) expect(stock.price > 0).toBe((item.stocks[i]?.price ?? 0) > 0);
      }),
      { seed: 3 },
    );
  });
});

describe('a material of one’s own', () => {
  it('is a copy with an id, a name and sizes of its own', () => {
    const [first] = items;
    if (!first) throw new Error('no item');
    const second = copied(first, items);
    const third = copied(first, [...items, second]);
    expect(new Set([first.id, second.id, third.id]).size).toBe(3);
    expect(new Set([first.name, second.name, third.name]).size).toBe(3);
    const sizes = [first, second, third].flatMap(({ stocks }) => stocks.map(({ id }) => id));
    expect(new Set(sizes).size).toBe(sizes.length);
    expect({ ...second, id: first.id, name: first.name, stocks: first.stocks }).toEqual(first);
  });

  it('or a blank one that is sound as it stands', () => {
    const one = blankMaterial(items, 'Bamboo board', '2026-11-27');
    expect(priceItemSchema.safeParse(one).success).toBe(true);
    expect(blankMaterial([...items, one], 'Another', '2026-11-27').id).not.toBe(one.id);
  });
});
