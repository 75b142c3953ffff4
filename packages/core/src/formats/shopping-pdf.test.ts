import { describe, expect, it } from 'vitest';
import bulrushText from '../../../../demo/bulrush.json?raw';
import wrenText from '../../../../demo/wren.json?raw';
import { derive } from '../derive/again.fixture.js';
import { readProjectFile } from './read.js';
import { merchantLists } from './shopping-pdf.js';

describe('the list for the shop', () => {
  it('has every line once, by shop, sheets first, and adds up to what is bought', () => {
    for (const text of [wrenText, bulrushText]) {
      const { project, priceBook } = readProjectFile(text);
      const { shopping } = derive(project, priceBook);
      const lists = merchantLists(shopping, priceBook);
      const bought = shopping.lines.filter(({ unit }) => unit !== 'work');
      expect(lists.flatMap(({ lines }) => lines.map(({ id }) => id)).sort()).toEqual(bought.map(({ id }) => id).sort());
      expect(lists.reduce((sum, { total }) => sum + total, 0)).toBe(bought.reduce((sum, { total }) => sum + total, 0));
      for (const { supplier, lines } of lists) {
        expect(lines.every((line) => line.supplier === supplier)).toBe(true);
        const groups = lines.map(({ material }) => priceBook.items.find(({ id }) => id === material)?.group);
        const firstOther = groups.findIndex((group) => group !== 'sheet');
        expect(groups.slice(Math.max(0, firstOther)).includes('sheet')).toBe(firstOther < 0);
      }
    }
  });
});
