import { create as createQr } from 'qrcode';
import { fill, popGraphicsState, pushGraphicsState, rectangle, setFillingColor, type PDFPage } from 'pdf-lib';
import { isHanded, otherHand } from '../parts/hand.js';
import { blankOf, type Part } from '../parts/part.js';
import { formatLength, formatSawn, type LengthStyle } from '../words/length.js';
import type { PriceBook, Project } from '../document/schema.js';
import { SURFACE_LIST, surfaceNamed } from '../document/surfaces.js';
import { materialOf } from '../materials/material.js';
import { DATA, INK, POINTS_PER_MM, SOFT, startPdf, WHITE, writeLine, type PdfFonts, type Pen } from './pdf-tools.js';

const PAGE_MM = { width: 210, height: 297 };
const LABEL_MM = { width: 70, height: 37 };
const ACROSS = 3;
const DOWN = 8;
const QR_MM = 17;
const STRIPE_MM = 9;

/** The lower left corner of a label on its sheet, mm: three across, eight down, in the middle of the height of the sheet. */
export function labelCorner(index: number): { readonly x: number; readonly y: number } {
  const at = index % (ACROSS * DOWN);
  const top = (PAGE_MM.height - DOWN * LABEL_MM.height) / 2;
  return {
    x: (at % ACROSS) * LABEL_MM.width,
    y: PAGE_MM.height - top - (Math.floor(at / ACROSS) + 1) * LABEL_MM.height,
  };
}

/** The dark squares of a QR code, row by row. */
export function qrSquares(text: string): readonly (readonly boolean[])[] {
  const { modules } = createQr(text, { errorCorrectionLevel: 'M' });
  return Array.from({ length: modules.size }, (_, row) =>
    Array.from({ length: modules.size }, (_unused, column) => modules.get(row, column) === 1),
  );
}

function drawQr(page: PDFPage, text: string, x: number, y: number, side: number): void {
  const rows = qrSquares(text);
  const step = side / rows.length;
  // one path of all dark runs: a rectangle drawn for each square takes a thousand times the work
  const runs = rows.flatMap((row, r) =>
    row.flatMap((dark, c) => {
      if (!dark || row[c - 1]) return [];
      const after = row.indexOf(false, c);
      const length = (after < 0 ? row.length : after) - c;
      return [rectangle(x + c * step, y + side - (r + 1) * step, length * step, step)];
    }),
  );
  page.pushOperators(pushGraphicsState(), setFillingColor(INK), ...runs, fill(), popGraphicsState());
}

/** What a part belongs to: its unit, or the surface it covers with the window, arch or box it is made for. */
export function belongsTo(part: Part, project: Pick<Project, 'layout'>): string {
  if (part.unit !== null) return project.layout.units.find(({ id }) => id === part.unit)?.name ?? part.unit;
  const id = part.surface ?? 'floor';
  const surface = surfaceNamed(SURFACE_LIST, id)?.words.name ?? id;
  return part.of === undefined ? surface : `${surface}: ${part.of}`;
}

/** What of a label is words: also what a test reads. */
export function labelLines(part: Part, parts: readonly Part[], style: LengthStyle, book: PriceBook): string[] {
  const { length, width } = blankOf(part);
  const twin = otherHand(part, parts);
  const scribed = part.edges.filter((edge) => edge.kind === 'scribe').map((edge) => edge.at);
  return [
    `${formatSawn(length, style)} × ${formatSawn(width, style)} × ${formatLength(part.thickness, style, part.thickness % 1 === 0 ? 0 : 1)}`,
    materialOf(book, part.material)?.name ?? part.material,
    part.grain ? 'grain along the length' : 'grain any way',
    ...(scribed.length > 0 ? [`scribe: ${scribed.join(', ')}`] : []),
    ...(isHanded(part) ? [twin ? `FACE UP · mirror of ${twin.id}` : 'FACE UP · do not turn over'] : []),
  ];
}

function drawLabel(
  pen: Pen,
  page: PDFPage,
  part: Part,
  parts: readonly Part[],
  unit: { readonly name: string; readonly letter: string; readonly shade: number },
  address: string,
  style: LengthStyle,
  book: PriceBook,
  corner: { readonly x: number; readonly y: number },
): void {
  const mm = (value: number): number => value * POINTS_PER_MM;
  const { x, y } = corner;
  // the stripe tells the unit by its letter and by how many bars it has, not by colour alone
  page.drawRectangle({
    x: x + mm(3),
    y: y + mm(3),
    width: mm(STRIPE_MM),
    height: mm(31),
    color: unit.shade % 2 === 0 ? INK : DATA,
  });
  for (let bar = 0; bar < 1 + (unit.shade % 4); bar += 1)
    page.drawRectangle({ x: x + mm(3), y: y + mm(5 + bar * 4), width: mm(STRIPE_MM), height: mm(1.2), color: WHITE });
  writeLine(page, unit.letter, { x: x + mm(5.2), y: y + mm(25), size: 18, width: mm(STRIPE_MM - 3) }, pen.bold, WHITE);
  const left = x + mm(3 + STRIPE_MM + 2.5);
  const room = mm(LABEL_MM.width - 3 - STRIPE_MM - 2.5 - QR_MM - 5);
  writeLine(page, part.id, { x: left, y: y + mm(28.5), size: 12, width: room }, pen.bold);
  writeLine(page, unit.name, { x: left, y: y + mm(24), size: 8.5, width: room }, pen.regular, SOFT);
  labelLines(part, parts, style, book).forEach((line, i) =>
    writeLine(
      page,
      line,
      { x: left, y: y + mm(19 - i * 3.9), size: i === 0 ? 11 : 8, width: i < 3 ? room : room + mm(QR_MM) },
      i === 0 || line.startsWith('FACE') ? pen.bold : pen.regular,
    ),
  );
  drawQr(page, address, x + mm(LABEL_MM.width - QR_MM - 3), y + mm(LABEL_MM.height - QR_MM - 3.5), mm(QR_MM));
}

/**
 * Labels for all parts, 24 to an A4 sheet of 70 x 37 mm: code, unit, size, grain, scribed edges, hand, and a QR code.
 * @param addressOf where a part is found in the application
 */
export async function labelsPdf(
  project: Project,
  parts: readonly Part[],
  addressOf: (part: Part) => string,
  book: PriceBook,
  fonts: PdfFonts,
): Promise<Uint8Array> {
  const pen = await startPdf(`${project.name}: labels`, fonts);
  const style: LengthStyle = { units: project.settings.units, fraction: project.settings.fraction };
  const groupOf = (part: Part): string => part.unit ?? `on ${part.surface ?? 'floor'}`;
  const groups = [...new Set(parts.map(groupOf))];
  let page: PDFPage | null = null;
  parts.forEach((part, i) => {
    if (i % (ACROSS * DOWN) === 0 || !page)
      page = pen.pdf.addPage([PAGE_MM.width * POINTS_PER_MM, PAGE_MM.height * POINTS_PER_MM]);
    const index = groups.indexOf(groupOf(part));
    const corner = labelCorner(i);
    drawLabel(
      pen,
      page,
      part,
      parts,
      {
        name: belongsTo(part, project),
        letter: String.fromCharCode(65 + (index % 26)),
        shade: index,
      },
      addressOf(part),
      style,
      book,
      {
        x: corner.x * POINTS_PER_MM,
        y: corner.y * POINTS_PER_MM,
      },
    );
  });
  if (parts.length === 0) pen.pdf.addPage();
  return pen.pdf.save();
}
