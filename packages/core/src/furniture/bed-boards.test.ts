import { describe, expect, it } from 'vitest';
import wrenFile from '../../../../demo/wren.json?raw';
import { derive } from '../derive/again.fixture.js';
import type { Project, PriceBook } from '../document/schema.js';
import { readProjectFile } from '../formats/read.js';
import { blankOf } from '../parts/part.js';
import { applyOperation } from './kit.js';
import { stripsOver } from './bed-boards.js';

const wren = readProjectFile(wrenFile);
/** Only sheets of 2440 x 1220 of the bed's board. */
const book: PriceBook = {
  ...wren.priceBook,
  items: wren.priceBook.items.map((item) => ({
    ...item,
    stocks: item.stocks.map((stock) => ({ ...stock, length: 2440, width: 1220 })),
  })),
};
const bed = wren.project.layout.units.find(({ family }) => family === 'bed-platform');
if (!bed) throw new Error('Wren has a bed');
const alone: Project = { ...wren.project, layout: { ...wren.project.layout, units: [bed], modes: [] } };
const changed = (changes: Record<string, number | string>): Project =>
  applyOperation(alone, { name: 'changeUnit', payload: { id: bed.id, changes } }).project;

describe('the boards of a bed', () => {
  it('are whole ones and a strip, or equal ones where the strip would be too narrow, by hand', () => {
    const body = { x: 100, length: 1500 };
    expect(stripsOver(body as never, 1200, true)).toEqual([
      { from: 100, to: 1300 },
      { from: 1303, to: 1600 },
    ]);
    expect(stripsOver({ x: 0, length: 1280 } as never, 1200, true)).toEqual([
      { from: 0, to: 638.5 },
      { from: 641.5, to: 1280 },
    ]);
    expect(stripsOver({ x: 0, length: 900 } as never, 1200, true)).toEqual([{ from: 0, to: 900 }]);
  });
  it('of a platform lie on a bearer of their own where they meet, joined to the supports beside it', () => {
    const x = bed.body.x + bed.body.length - 1500;
    const project = changed({ x, length: 1500, split: 'sheet' });
    const derived = derive(project, book);
    const made = derived.made.find(({ unit }) => unit === bed.id);
    const boards = made?.skeleton?.boards.filter(({ role }) => role === 'bed-board') ?? [];
    expect(boards).toHaveLength(2);
    const [whole, strip] = derived.parts.filter(({ role }) => role === 'bed-board').map((part) => blankOf(part).width);
    expect(whole).toBeCloseTo(1200, 6);
    expect(strip).toBeCloseTo(297, 6);
    const bearers = made?.skeleton?.boards.filter(({ role }) => role === 'bed-bearer') ?? [];
    const supports = made?.skeleton?.boards.filter(({ role }) => role === 'bed-support') ?? [];
    expect(bearers).toHaveLength(supports.length - 1);
    for (const bearer of bearers) {
      // both boards lie on it
      expect(bearer.at).toBeLessThan(x + 1200);
      expect(bearer.at + bearer.thickness).toBeGreaterThan(x + 1203);
      const met = made?.skeleton?.contacts.filter(({ a, b }) => [a, b].includes(bearer.name)) ?? [];
      expect(supports.filter(({ name }) => met.some(({ a, b }) => a === name || b === name))).toHaveLength(2);
    }
    expect(derived.problems.filter(({ stage }) => stage === 'build')).toEqual([]);
    // the hold is so much lower under them
    const hold = made?.skeleton?.bays?.[0]?.room;
    const before = derive(changed({ x, length: 1500 }), book).made[0]?.skeleton?.bays?.[0]?.room;
    expect((before?.z1 ?? 0) - (hold?.z1 ?? 0)).toBe(100);
  });
  it('of a platform in equal boards lie on its supports alone', () => {
    const kinds = derive(changed({ split: 'equal' }), book).parts.filter(({ role }) => role === 'bed-bearer');
    expect(kinds).toEqual([]);
  });
});
