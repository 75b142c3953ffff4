import type { PDFPage } from 'pdf-lib';
import type { BuyLine, Shopping } from '../costing/shopping.js';
import type { PriceBook, PriceItem, Project } from '../document/schema.js';
import { materialOf } from '../materials/material.js';
import type { LengthStyle } from '../words/length.js';
import { message } from '../words/message.js';
import { formatMoney, PLAIN_VOICE, say } from '../words/say.js';
import { INK, POINTS_PER_MM, RULE, SOFT, startPdf, writeLine, type PdfFonts } from './pdf-tools.js';

const PAGE_MM = { width: 210, height: 297 };
const MARGIN_MM = 16;
const ROW_MM = 8.5;
/** As things stand in a yard: what is carried on the roof first, what fits in a pocket last. */
const YARD: readonly PriceItem['group'][] = ['sheet', 'timber', 'lining', 'insulation', 'fixing', 'adhesive'];

/** What one shop is asked for. */
export interface MerchantList {
  readonly supplier: string;
  readonly lines: readonly BuyLine[];
  readonly total: number;
}

/** The shopping by shop, each in the order of its yard; what was found in the vehicle is not bought. */
export function merchantLists(shopping: Shopping, book: PriceBook): readonly MerchantList[] {
  const place = (line: BuyLine): number => {
    const group = materialOf(book, line.material)?.group;
    return group === undefined ? YARD.length : YARD.indexOf(group);
  };
  const by = new Map<string, BuyLine[]>();
  for (const line of shopping.lines)
    if (line.unit !== 'work') by.set(line.supplier, [...(by.get(line.supplier) ?? []), line]);
  return [...by.entries()]
    .map(([supplier, lines]) => ({
      supplier,
      lines: [...lines].sort((a, b) => place(a) - place(b) || a.name.localeCompare(b.name)),
      total: lines.reduce((sum, line) => sum + line.total, 0),
    }))
    .sort((a, b) => b.total - a.total);
}

/**
 * The list for the shop on A4: a box to tick, how many of which size, what it is, the price it was reckoned with, and a line
 * to write on; one shop after the other, each in the order of its yard.
 */
export async function shoppingPdf(
  project: Project,
  shopping: Shopping,
  book: PriceBook,
  fonts: PdfFonts,
): Promise<Uint8Array> {
  const pen = await startPdf(`${project.name}: to buy`, fonts);
  const lengths: LengthStyle = { units: project.settings.units, fraction: project.settings.fraction };
  const voice = { ...PLAIN_VOICE, lengths };
  const mm = (value: number): number => value * POINTS_PER_MM;
  const right = PAGE_MM.width - MARGIN_MM;
  let page: PDFPage | null = null;
  let down = 0;
  const line = (height: number): { readonly page: PDFPage; readonly y: number } => {
    if (!page || down + height > PAGE_MM.height - MARGIN_MM) {
      page = pen.pdf.addPage([mm(PAGE_MM.width), mm(PAGE_MM.height)]);
      down = MARGIN_MM;
    }
    down += height;
    return { page, y: mm(PAGE_MM.height - down) };
  };
  const amount = (value: number): string => formatMoney(value, shopping.currency);
  for (const { supplier, lines, total } of merchantLists(shopping, book)) {
    // a shop's name is never left alone at the foot of a page
    if (page && down + 3 * ROW_MM > PAGE_MM.height - MARGIN_MM) down = PAGE_MM.height;
    const head = line(ROW_MM + 4);
    writeLine(
      head.page,
      supplier || say(message('shop.things'), voice),
      { x: mm(MARGIN_MM), y: head.y + 6, size: 15, width: mm(110) },
      pen.bold,
    );
    writeLine(head.page, amount(total), { x: mm(right - 38), y: head.y + 6, size: 12, width: mm(38) }, pen.bold);
    head.page.drawLine({
      start: { x: mm(MARGIN_MM), y: head.y + 1 },
      end: { x: mm(right), y: head.y + 1 },
      thickness: 1,
      color: INK,
    });
    for (const item of lines) {
      const { page: on, y } = line(ROW_MM);
      on.drawRectangle({ x: mm(MARGIN_MM), y: y + 4, width: 10, height: 10, borderColor: INK, borderWidth: 1 });
      writeLine(on, `${item.quantity} ×`, { x: mm(MARGIN_MM + 7), y: y + 5, size: 11, width: mm(14) }, pen.bold);
      writeLine(on, item.name, { x: mm(MARGIN_MM + 22), y: y + 5, size: 10.5, width: mm(72) }, pen.regular);
      const size = `${say(item.size, voice)}${item.unit === 'sheet' && lengths.units === 'mm' ? ' mm' : ''}`;
      writeLine(on, size, { x: mm(MARGIN_MM + 96), y: y + 5, size: 10, width: mm(40) }, pen.regular, SOFT);
      writeLine(on, amount(item.each), { x: mm(right - 38), y: y + 5, size: 10, width: mm(38) }, pen.regular, SOFT);
      on.drawLine({
        start: { x: mm(MARGIN_MM), y },
        end: { x: mm(right), y },
        thickness: 0.5,
        color: RULE,
      });
    }
    line(5);
  }
  const foot = line(ROW_MM);
  writeLine(
    foot.page,
    `${project.name} · ${amount(shopping.total)} in all · prices as they were entered; the shop's own count`,
    { x: mm(MARGIN_MM), y: foot.y, size: 9, width: mm(right - MARGIN_MM) },
    pen.regular,
    SOFT,
  );
  return pen.pdf.save();
}
