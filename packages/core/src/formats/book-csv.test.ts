import { describe, expect, it } from 'vitest';
import wrenText from '../../../../demo/wren.json?raw';
import bulrushText from '../../../../demo/bulrush.json?raw';
import thimbleText from '../../../../demo/thimble.json?raw';
import { derive } from '../derive/again.fixture.js';
import { startPriceBook } from '../materials/start-book.js';
import { say } from '../words/say.js';
import { bookCsv, plainNumber, readBookCsv, withMaterials } from './book-csv.js';
import { readProjectFile } from './read.js';

const TODAY = '2026-11-27';
const book = startPriceBook();
const read = (text: string) => readBookCsv(text, book, TODAY);
const faults = (text: string): string[] => read(text).problems.map(({ row, said }) => `${row}: ${say(said)}`);

describe('a price book as a file', () => {
  it('is read back as it was, in every demo', () => {
    for (const text of [wrenText, bulrushText, thimbleText]) {
      const { priceBook } = readProjectFile(text);
      const back = readBookCsv(bookCsv(priceBook), priceBook, TODAY);
      expect([back.problems, back.fault, back.added]).toEqual([[], null, 0]);
      expect(withMaterials(priceBook, back.items)).toEqual(priceBook);
    }
  });
  it('makes a new material of a row the book does not have: a size in any region, with its sheets', () => {
    const { items, added } = read(
      'id,name,group,thickness,sizes\nyard-9,Yard ply 9,sheet,9.2,2440 x 1220 = 41.50 | 3050x1525=66\n',
    );
    expect(added).toBe(1);
    expect(items[0]).toMatchObject({
      id: 'yard-9',
      thickness: 9.2,
      priceDate: TODAY,
      stocks: [
        { id: 'yard-9-1', length: 2440, width: 1220, price: 4150 },
        { id: 'yard-9-2', length: 3050, width: 1525, price: 6600 },
      ],
    });
    expect(withMaterials(book, items).items).toHaveLength(book.items.length + 1);
  });
  it('leaves what a file does not have as it was', () => {
    const [birch] = read('id,date,sizes\nbirch-12,2026-11-20,2500 x 1250 = 61.20\n').items;
    const was = book.items.find(({ id }) => id === 'birch-12');
    expect(birch).toMatchObject({ name: was?.name, density: was?.density, priceDate: '2026-11-20' });
    expect(birch?.stocks.map(({ id, price }) => [id, price])).toEqual([[was?.stocks[0]?.id, 6120]]);
  });
  it('reads semicolons and decimal commas', () => {
    const { items, problems } = read(
      'id;name;group;thickness;sizes;pack_contents;pack_unit;pack_price\nx-1;Ply;sheet;11,7;"2500 x 1250 = 1.059,50";;;\nx-2;Lath;timber;18;;4,2;m;6,90\n',
    );
    expect(problems).toEqual([]);
    expect(items[0]).toMatchObject({ thickness: 11.7, stocks: [{ price: 105_950 }] });
    expect(items[1]?.pack).toEqual({ contents: 4.2, unit: 'm', price: 690 });
  });
  it.each([
    ['1,5', 1.5],
    ['1.5', 1.5],
    ['1.234,50', 1234.5],
    ['1,234.50', 1234.5],
    ['1 234', 1234],
    ['1.234.567', 1_234_567],
    ['11.600', 11.6],
    ['.5', 0.5],
    ['-3', -3],
    ['', null],
    ['a', null],
    ['1,2,3.4.5', null],
  ])('reads %s', (typed, value) => expect(plainNumber(typed)).toBe(value));
  it('names what cannot be right with its row, and takes the rest', () => {
    const text = [
      'id,name,group,thickness,sizes,pack_contents,pack_unit,pack_price,fastener,date',
      'a,A,sheet,,2500 x 1250 = 10,,,,,',
      'b,B,insulation,20,,0,m2,5,,',
      'c,C,sheet,12,2500 x 1250 = 10 USD,,,,,',
      'd,D,sheet,twelve,2500 x 1250 = 10,,,,,',
      'e,E,fixing,,,100,piece,4,long one,',
      'f,F,sheet,12,2500 by 1250,,,,,',
      'g,G,sheet,12,2500 x 1250 = 10,,,,,yesterday',
      'h,H,sheet,12,2500 x 1250 = 10 EUR,,,,,',
      'h,H again,sheet,12,2500 x 1250 = 10,,,,,',
    ].join('\n');
    expect(read(text).items.map(({ id }) => id)).toEqual(['h']);
    const told = faults(text);
    expect(told).toHaveLength(8);
    expect(told[0]).toBe('2: A is sold in sheets and has no thickness.');
    expect(told[1]).toBe('3: A pack of B holds nothing: it takes more than 0.');
    expect(told[2]).toBe('4: “10 USD” is not in EUR, which this price book is kept in.');
    expect(told[3]).toBe('5: “twelve” is no number for thickness.');
    expect(told[4]).toContain('6: “long one” is no fastener');
    expect(told[5]).toContain('7: “2500 by 1250” is no size');
    expect(told[6]).toContain('8: priceDate');
    expect(told[7]).toBe('10: “h” stands in an earlier row.');
  });
  it('reads hardware as it writes it, and names what is none', () => {
    const text = [
      'id,name,group,pack_contents,pack_unit,pack_price,hardware',
      'a,Slides,fixing,1,piece,20,slides length=425 bears=40',
      'b,Hinge,fixing,2,piece,5,cup-hinge',
      'c,Rope,fixing,1,piece,5,rope',
      'd,Slides,fixing,1,piece,5,slides length=long',
      'e,Screw,fixing,1,piece,5,',
      'f,Cable,fixing,10,m,25,cable copper=2.5',
      'g,Hose,fixing,5,m,9,water across=12 wide=3',
    ].join('\n');
    expect(read(text).items.map(({ hardware }) => hardware)).toEqual([
      { kind: 'slides', length: 425, bears: 40 },
      { kind: 'cup-hinge', length: null, bears: null },
      undefined,
      { kind: 'cable', length: null, bears: null, copper: 2.5 },
    ]);
    expect(faults(text)[2]).toContain('8: “water across=12 wide=3” is no hardware');
    expect(faults(text)[0]).toContain('4: “rope” is no hardware');
    expect(faults(text)[1]).toContain('5: “slides length=long” is no hardware');
  });
  it('says which column is missing', () => {
    const { fault, items } = read('name,price\nx,1\n');
    expect(fault && say(fault)).toContain('no column id');
    expect(items).toEqual([]);
  });
});

describe('waste of a material', () => {
  it('is its own where it has one, the project’s where it has none', () => {
    const { project, priceBook } = readProjectFile(wrenText);
    const foil = derive(project, priceBook).shopping.lines.find(({ why }) => why.key === 'why.amountWithWaste');
    if (!foil) throw new Error('nothing is bought by the square metre');
    const taken = (waste: number | undefined): number => {
      const items = priceBook.items.map((item) => (item.id === foil.material ? { ...item, waste } : item));
      const line = derive(project, { ...priceBook, items }).shopping.lines.find(({ id }) => id === foil.id);
      const contents = priceBook.items.find(({ id }) => id === foil.material)?.pack?.contents ?? NaN;
      return line ? line.quantity * contents - (line.left ?? NaN) : NaN;
    };
    expect(taken(0.5) / taken(0)).toBeCloseTo(1.5, 6);
    expect(taken(undefined) / taken(0)).toBeCloseTo(1 + project.settings.wasteShare, 6);
  });
});
