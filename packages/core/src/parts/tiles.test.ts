import { describe, expect, it } from 'vitest';
import bulrushFile from '../../../../demo/bulrush.json?raw';
import { derive } from '../derive/again.fixture.js';
import { readProjectFile } from '../formats/read.js';
import { blankOf, type Part } from './part.js';
import { templatePages, TEMPLATE_PAGES, tilesOf } from './tiles.js';

const { project, priceBook } = readProjectFile(bulrushFile);
const { parts } = derive(project, priceBook);
const [first] = parts;
if (!first) throw new Error('Bulrush has parts');
/** A part that is a rectangle of a size. */
const sized = (length: number, width: number): Part => ({
  ...first,
  outline: {
    outer: [
      [0, 0],
      [length, 0],
      [length, width],
      [0, width],
    ],
    holes: [],
  },
});

describe('the pages of a template', () => {
  it('are as many as cover the part, each neighbour showing 10 of the other', () => {
    // A4 keeps 186 x 273 within its margins: 176 and 263 further with each page
    expect(templatePages(sized(186, 273), 'a4')).toBe(1);
    expect(templatePages(sized(187, 273), 'a4')).toBe(2);
    expect(templatePages(sized(2440, 1220), 'a4')).toBe(14 * 5);
    expect(templatePages(sized(2440, 1220), 'a3')).toBe(Math.ceil(2430 / 263) * Math.ceil(1210 / 386));
  });
  it('of a whole sheet are asked about, those of a floor in one piece are not made', () => {
    expect(templatePages(sized(2440, 1220), 'a4')).toBeGreaterThan(TEMPLATE_PAGES.asked);
    expect(templatePages(sized(9000, 2500), 'a4')).toBeGreaterThan(TEMPLATE_PAGES.most);
  });
  it('cover every part of the bus', () => {
    for (const part of parts) {
      const { columns, rows, width, height } = tilesOf(part, 'letter');
      const blank = blankOf(part);
      expect(columns * (width - 10) + 10).toBeGreaterThanOrEqual(blank.length);
      expect(rows * (height - 10) + 10).toBeGreaterThanOrEqual(blank.width);
      expect(templatePages(part, 'letter')).toBe(columns * rows);
    }
  });
});
