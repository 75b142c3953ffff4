import { inflateSync } from 'node:zlib';
import { readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { PDFArray, PDFDocument, PDFRawStream, type PDFPage } from 'pdf-lib';
import { describe, expect, it } from 'vitest';
import {
  belongsTo,
  cutDiagramsPdf,
  labelLines,
  labelsPdf,
  legendOf,
  PAPERS,
  shoppingPdf,
  startPdf,
  templatePdf,
  tilesOf,
  type Paper,
} from '@nestplank/core/export';
import { readProjectFile } from '@nestplank/core/formats';
import { derive } from '@nestplank/core/derive';

type Point = readonly [number, number];
const POINTS_PER_MM = 72 / 25.4;
/** Side of the square that proves the scale, mm. */
const CONTROL_MM = 100;

const { project, priceBook } = readProjectFile(
  readFileSync(new URL('../../../demo/wren.json', import.meta.url), 'utf8'),
);
const derived = derive(project, priceBook);
const font = (weight: number): Uint8Array =>
  readFileSync(
    createRequire(import.meta.url).resolve(
      `@fontsource/atkinson-hyperlegible-next/files/atkinson-hyperlegible-next-latin-${weight}-normal.woff`,
    ),
  );
const FONTS = { regular: font(400), bold: font(700) };

/** The drawing commands of a page, as text. */
function commandsOf(page: PDFPage): string {
  const contents = page.node.Contents();
  const streams =
    contents instanceof PDFArray ? contents.asArray().map((ref) => page.doc.context.lookup(ref)) : [contents];
  return streams
    .map((stream) => (stream instanceof PDFRawStream ? inflateSync(stream.contents).toString('latin1') : ''))
    .join('\n');
}
/** Every straight line that is drawn on a page by itself, mm from its corner. */
function linesOf(page: PDFPage): [Point, Point][] {
  const number = '(-?[\\d.]+)';
  const line = new RegExp(`${number} ${number} m\\s+${number} ${number} l\\s+S`, 'g');
  return [...commandsOf(page).matchAll(line)].map((found) => {
    const [x1, y1, x2, y2] = found.slice(1).map((value) => Number(value) / POINTS_PER_MM);
    return [
      [x1 ?? 0, y1 ?? 0],
      [x2 ?? 0, y2 ?? 0],
    ];
  });
}

describe('a template', () => {
  it.each(['a4', 'a3', 'letter'] as const)(
    'is true to size on %s: every corner where the part has it',
    async (paper: Paper) => {
      const scribed = derived.parts.find((candidate) => candidate.edges.some((edge) => edge.kind === 'scribe'));
      if (!scribed) throw new Error('nothing is scribed');
      const pdf = await PDFDocument.load(await templatePdf(project, scribed, derived.parts, paper, FONTS));
      const tiles = tilesOf(scribed, paper);
      const pages = pdf.getPages();
      const length = Math.max(...scribed.outline.outer.map(([x]) => x));
      const width = Math.max(...scribed.outline.outer.map(([, y]) => y));
      // the tiles cover the part, and one more page at least holds the offsets
      expect(pages.length).toBeGreaterThan(tiles.columns * tiles.rows);
      expect(tiles.columns * (tiles.width - 10) + 10).toBeGreaterThanOrEqual(length - 1e-6);
      expect(tiles.rows * (tiles.height - 10) + 10).toBeGreaterThanOrEqual(width - 1e-6);
      pages.slice(0, tiles.columns * tiles.rows).forEach((page, i) => {
        expect(page.getWidth() / POINTS_PER_MM).toBeCloseTo(PAPERS[paper].width, 3);
        const [column, row] = [i % tiles.columns, Math.floor(i / tiles.columns)];
        const [dx, dy] = [12 - column * (tiles.width - 10), 12 - row * (tiles.height - 10)];
        const ends = linesOf(page).flat();
        for (const [x, y] of scribed.outline.outer)
          expect(Math.min(...ends.map(([px, py]) => Math.hypot(px - x - dx, py - y - dy)))).toBeLessThan(0.01);
        // the square that proves the scale is on every page, drawn as a path of its own
        const square = /([\d.]+) 0 l|0 ([\d.]+) l/.exec(commandsOf(page));
        const sides = [...commandsOf(page).matchAll(/0 0 m\s+0 ([\d.]+) l\s+([\d.]+) ([\d.]+) l/g)].map((m) =>
          m.slice(1).map((value) => Number(value) / POINTS_PER_MM),
        );
        expect(square).not.toBeNull();
        expect(sides.some(([a, b, c]) => [a, b, c].every((side) => Math.abs((side ?? 0) - CONTROL_MM) < 0.01))).toBe(
          true,
        );
      });
    },
  );
});

describe('labels', () => {
  it('are 24 to a page, one for each part', async () => {
    const pdf = await PDFDocument.load(await labelsPdf(project, derived.parts, (p) => p.id, priceBook, FONTS));
    expect(pdf.getPageCount()).toBe(Math.ceil(derived.parts.length / 24));
  });
});

describe('what a label says', () => {
  it('tells of every part what it belongs to, and what it is made of', () => {
    for (const part of derived.parts) {
      const of = belongsTo(part, project);
      if (part.unit === null && part.surface !== undefined && part.surface !== 'floor')
        expect(of).not.toMatch(/^Floor/);
      expect(of.length).toBeGreaterThan(0);
      expect(labelLines(part, derived.parts, { units: 'mm', fraction: 16 }, priceBook)[1]).toBe(
        priceBook.items.find(({ id }) => id === part.material)?.name,
      );
    }
    expect(new Set(derived.parts.map((part) => belongsTo(part, project).split(':')[0])).size).toBeGreaterThan(6);
  });
});

describe('cut diagrams', () => {
  it('name every piece: on it, or by a number under the drawing', async () => {
    const style = { units: 'mm', fraction: 16 } as const;
    const pen = await startPdf('legend', FONTS);
    let numbered = 0;
    for (const { sheets, job } of derived.plans)
      for (const sheet of job.kind === 'bar' ? [] : sheets) {
        const narrow = { left: 36, bottom: 36, width: 300, height: 280 };
        const { numbers, lines, scale } = legendOf(narrow, sheet, derived.parts, style, pen);
        numbered += numbers.size;
        expect(scale).toBeGreaterThan(0);
        for (const [i, number] of numbers)
          expect(lines.join('   ')).toMatch(
            new RegExp(`(^| )${number} (cut wrong: )?${sheet.placements[i]?.part ?? ''}`),
          );
      }
    expect(numbered).toBeGreaterThan(0);
  });

  it('have a cover, sheets two to a page where they can be read, and bars a few dozen to a page', async () => {
    const pdf = await PDFDocument.load(await cutDiagramsPdf(project, derived.plans, derived.parts, priceBook, FONTS));
    const count = (kind: string): number =>
      derived.plans.filter(({ job }) => job.kind === kind).reduce((sum, plan) => sum + plan.sheets.length, 0);
    expect(count('bar')).toBeGreaterThan(100);
    expect(pdf.getPageCount()).toBeLessThan(1 + count('sheet') + Math.ceil(count('bar') / 24));
    expect(pdf.getPageCount()).toBeGreaterThanOrEqual(1 + Math.ceil(count('sheet') / 2));
    // A4 throughout, upright or lying
    for (const page of pdf.getPages())
      expect([Math.round(page.getWidth()), Math.round(page.getHeight())].sort((a, b) => a - b)).toEqual([595, 842]);
  });
});

describe('the list for the shop', () => {
  it('has a box to tick for every line, on as few pages as they take', async () => {
    const pdf = await PDFDocument.load(await shoppingPdf(project, derived.shopping, priceBook, FONTS));
    const lines = derived.shopping.lines.filter(({ unit }) => unit !== 'work').length;
    const pages = pdf.getPages();
    expect(pages.length).toBeLessThanOrEqual(Math.ceil((lines + 8) / 22));
    // an outlined square is drawn as a closed path of its own
    const boxes = pages.flatMap((page) => [...commandsOf(page).matchAll(/h\s+S/g)]).length;
    expect(boxes).toBe(lines);
  });
});
