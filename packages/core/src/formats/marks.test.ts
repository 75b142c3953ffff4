import jsQrModule from 'jsqr';
import { startPriceBook } from '../materials/start-book.js';
import { describe, expect, it } from 'vitest';
import { isHanded, mirrored, offsetTable, otherHand } from '../parts/hand.js';
import { blankOf, type Part } from '../parts/part.js';
import { distanceToRing, type Point } from '../numeric/plane.js';
import { derive } from '../derive/again.fixture.js';
import { storyLines } from './cut-pdf.js';
import { labelCorner, labelLines, qrSquares } from './labels-pdf.js';
import { readProjectFile } from './read.js';
import demo from '../../../../demo/wren.json?raw';

/** Its types describe its older form of import only. */
const readQr = jsQrModule as unknown as (
  picture: Uint8ClampedArray,
  width: number,
  height: number,
) => { readonly data: string } | null;
const { project, priceBook } = readProjectFile(demo);
const derived = derive(project, priceBook);
const part = (id: string): Part => {
  const found = derived.parts.find((candidate) => candidate.id === id);
  if (!found) throw new Error(`no part ${id}`);
  return found;
};

describe('a story stick', () => {
  it('has every cut of one direction once, in order from the trimmed edge', () => {
    for (const sheet of derived.plans.flatMap((plan) => plan.sheets)) {
      const lines = storyLines(sheet, { units: 'mm', fraction: 16 });
      for (const [start, axis] of [
        ['Story stick along: ', 'crosscut'],
        ['Story stick across: ', 'rip'],
      ] as const) {
        const wanted = [...new Set(sheet.cuts.filter((cut) => cut.axis === axis).map((cut) => cut.at))];
        const line = lines.find((candidate) => candidate.startsWith(start));
        const marks = (line?.slice(start.length) ?? '').split(' · ').filter((mark) => mark !== '');
        expect(marks).toHaveLength(wanted.length);
        const figures = marks.map((mark) => Number(mark.replace(/\s/g, '')));
        expect(figures).toEqual([...figures].sort((a, b) => a - b));
      }
    }
  });
});

describe('the offset table', () => {
  it('gives offsets that lie on the outline', () => {
    for (const candidate of derived.parts.slice(0, 12)) {
      const rows = offsetTable(candidate, 50);
      expect(rows.at(-1)?.at).toBeCloseTo(blankOf(candidate).length, 6);
      const ring = candidate.outline.outer;
      for (const row of rows.slice(1, -1))
        for (const y of [row.low, row.high]) expect(distanceToRing([row.at, y], ring)).toBeLessThan(0.01);
    }
  });
});

describe('the hand of a part', () => {
  const shaped = (id: string, outer: readonly Point[]): Part => ({
    ...part('bed.front'),
    id,
    outline: { outer, holes: [] },
  });
  const wedge = shaped('left', [
    [0, 0],
    [800, 0],
    [800, 200],
    [0, 400],
  ]);
  it('is none for a rectangle, and none for what comes back when turned over', () => {
    expect(
      isHanded(
        shaped('plain', [
          [0, 0],
          [800, 0],
          [800, 400],
          [0, 400],
        ]),
      ),
    ).toBe(false);
    // a trapezium is its own mirror image along its length
    expect(
      isHanded(
        shaped('even', [
          [0, 0],
          [800, 0],
          [600, 400],
          [200, 400],
        ]),
      ),
    ).toBe(false);
  });
  it('is there for a wedge, and its mirror image is the other hand', () => {
    expect(isHanded(wedge)).toBe(true);
    const right = shaped('right', mirrored(wedge));
    expect(otherHand(wedge, [wedge, right])?.id).toBe('right');
    expect(otherHand(wedge, [wedge])).toBeNull();
  });
  it('stands on the label', () => {
    const style = { units: 'mm', fraction: 16 } as const;
    const right = shaped('right', mirrored(wedge));
    expect(labelLines(wedge, [wedge, right], style, startPriceBook()).join(' | ')).toContain(
      'FACE UP · mirror of right',
    );
    expect(labelLines(wedge, [wedge, right], style, startPriceBook())[0]).toBe('800 × 400 × 15');
  });
});

describe('labels', () => {
  it('lie where a sheet of 24 has them: 70 by 37 mm, half a millimetre left at the top and at the bottom', () => {
    expect([0, 1, 2, 3, 21, 23, 24].map((i) => Object.values(labelCorner(i)))).toEqual([
      [0, 259.5],
      [70, 259.5],
      [140, 259.5],
      [0, 222.5],
      [0, 0.5],
      [140, 0.5],
      [0, 259.5],
    ]);
  });
  it('carry a code that a camera reads back', () => {
    const address = 'http://workshop.local:4310/build/wren/build?part=kitchen.end-front';
    const squares = qrSquares(address);
    const [scale, border] = [4, 4];
    const side = (squares.length + 2 * border) * scale;
    const picture = new Uint8ClampedArray(side * side * 4).fill(255);
    squares.forEach((row, r) =>
      row.forEach((dark, c) => {
        if (!dark) return;
        for (let y = 0; y < scale; y += 1)
          for (let x = 0; x < scale; x += 1) {
            const at = (((r + border) * scale + y) * side + (c + border) * scale + x) * 4;
            picture.fill(0, at, at + 3);
          }
      }),
    );
    expect(readQr(picture, side, side)?.data).toBe(address);
  });
});
