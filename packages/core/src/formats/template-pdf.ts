import {
  clip,
  closePath,
  degrees,
  endPath,
  lineTo,
  moveTo,
  popGraphicsState,
  pushGraphicsState,
  type PDFPage,
} from 'pdf-lib';
import { isHanded, offsetTable, otherHand } from '../parts/hand.js';
import { MARGIN_MM, OVERLAP_MM, PAPERS, tilesOf, type Paper } from '../parts/tiles.js';
import { sheetLetter } from '../cutting/plan/index.js';
import { blankOf, grooveLines, markLines, PILOT_MM, type Part } from '../parts/part.js';
import { formatSawn, type LengthStyle } from '../words/length.js';
import type { Ring } from '../numeric/plane.js';
import type { Project } from '../document/schema.js';
import { DATA, INK, POINTS_PER_MM, RULE, SOFT, startPdf, writeLine, type PdfFonts, type Pen } from './pdf-tools.js';

/** Side of the square that proves the scale. */
export const CONTROL_MM = 100;
const TABLE_EVERY_MM = 50;
const TABLE_ROWS = 38;

const mm = (value: number): number => value * POINTS_PER_MM;

function drawRing(
  page: PDFPage,
  ring: Ring,
  dx: number,
  dy: number,
  thickness: number,
  closed: boolean,
  color = INK,
): void {
  ring.forEach((a, i) => {
    const b = ring[(i + 1) % ring.length];
    if (!b || (!closed && i === ring.length - 1)) return;
    page.drawLine({
      start: { x: mm(a[0] + dx), y: mm(a[1] + dy) },
      end: { x: mm(b[0] + dx), y: mm(b[1] + dy) },
      thickness,
      color,
    });
  });
}

/** Marks where the neighbouring page overlaps, and names row and column. */
function drawFrame(pen: Pen, page: PDFPage, paper: Paper, name: string): void {
  const { width, height } = PAPERS[paper];
  const [x0, y0, x1, y1] = [MARGIN_MM, MARGIN_MM, width - MARGIN_MM, height - MARGIN_MM];
  const inner = OVERLAP_MM;
  for (const x of [x0 + inner, x1 - inner])
    for (const [from, to] of [
      [y0 - 6, y0],
      [y1, y1 + 6],
    ] as const)
      page.drawLine({ start: { x: mm(x), y: mm(from) }, end: { x: mm(x), y: mm(to) }, thickness: 0.6, color: SOFT });
  for (const y of [y0 + inner, y1 - inner])
    for (const [from, to] of [
      [x0 - 6, x0],
      [x1, x1 + 6],
    ] as const)
      page.drawLine({ start: { x: mm(from), y: mm(y) }, end: { x: mm(to), y: mm(y) }, thickness: 0.6, color: SOFT });
  page.drawRectangle({
    x: mm(x0),
    y: mm(y0),
    width: mm(x1 - x0),
    height: mm(y1 - y0),
    borderWidth: 0.3,
    borderColor: RULE,
  });
  writeLine(page, name, { x: mm(x0), y: mm(4), size: 9, width: mm(x1 - x0) }, pen.regular, SOFT);
}

/** A square of 100 mm in the corner, drawn to be measured. */
function drawControl(pen: Pen, page: PDFPage, x: number, y: number): void {
  page.drawRectangle({
    x: mm(x),
    y: mm(y),
    width: mm(CONTROL_MM),
    height: mm(CONTROL_MM),
    borderWidth: 0.5,
    borderColor: SOFT,
    borderDashArray: [3, 2],
  });
  writeLine(page, `${CONTROL_MM} mm: measure it`, { x: mm(x + 2), y: mm(y + 2), size: 8 }, pen.regular, SOFT);
}

function drawTable(pen: Pen, part: Part, paper: Paper, style: LengthStyle): void {
  const rows = offsetTable(part, TABLE_EVERY_MM);
  const show = (value: number): string => formatSawn(value, style);
  for (let from = 0; from < rows.length; from += TABLE_ROWS) {
    const { width, height } = PAPERS[paper];
    const page = pen.pdf.addPage([mm(width), mm(height)]);
    writeLine(
      page,
      `${part.id}: offsets, to plot by hand`,
      { x: mm(18), y: mm(height - 22), size: 16, width: mm(width - 36) },
      pen.bold,
    );
    writeLine(
      page,
      `Draw a straight line as long as the part; at each place along it set off square to it, ${style.units}.`,
      { x: mm(18), y: mm(height - 29), size: 10, width: mm(width - 36) },
      pen.regular,
    );
    ['along', 'near edge', 'far edge'].forEach((head, column) =>
      writeLine(page, head, { x: mm(18 + column * 45), y: mm(height - 38), size: 11 }, pen.bold),
    );
    rows
      .slice(from, from + TABLE_ROWS)
      .forEach((row, i) =>
        [row.at, row.low, row.high].forEach((value, column) =>
          writeLine(page, show(value), { x: mm(18 + column * 45), y: mm(height - 44 - i * 6), size: 11 }, pen.regular),
        ),
      );
  }
}

/**
 * One part at full size, tiled over pages that overlap by 10 mm: what is cut in a heavy line, the true line of scribed
 * edges in a light one, face, grain and hand written on it, a 100 mm square on every page, and the offsets as a table.
 */
export async function templatePdf(
  project: Project,
  part: Part,
  parts: readonly Part[],
  paper: Paper,
  fonts: PdfFonts,
): Promise<Uint8Array> {
  const pen = await startPdf(`${project.name}: template of ${part.id}`, fonts);
  const style: LengthStyle = { units: project.settings.units, fraction: project.settings.fraction };
  const { length, width } = blankOf(part);
  const tiles = tilesOf(part, paper);
  const page = PAPERS[paper];
  const twin = otherHand(part, parts);
  const hand = isHanded(part) ? (twin ? `THIS FACE UP · mirror of ${twin.id}` : 'THIS FACE UP') : 'either face up';
  for (let row = 0; row < tiles.rows; row += 1)
    for (let column = 0; column < tiles.columns; column += 1) {
      const sheet = pen.pdf.addPage([mm(page.width), mm(page.height)]);
      const [dx, dy] = [MARGIN_MM - column * (tiles.width - OVERLAP_MM), MARGIN_MM - row * (tiles.height - OVERLAP_MM)];
      const [x0, y0, x1, y1] = [MARGIN_MM, MARGIN_MM, page.width - MARGIN_MM, page.height - MARGIN_MM].map(mm) as [
        number,
        number,
        number,
        number,
      ];
      drawControl(pen, sheet, page.width - MARGIN_MM - CONTROL_MM - 4, page.height - MARGIN_MM - CONTROL_MM - 4);
      sheet.pushOperators(
        pushGraphicsState(),
        moveTo(x0, y0),
        lineTo(x1, y0),
        lineTo(x1, y1),
        lineTo(x0, y1),
        closePath(),
        clip(),
        endPath(),
      );
      for (const ring of [part.outline.outer, ...part.outline.holes]) drawRing(sheet, ring, dx, dy, 1.1, true);
      for (const line of grooveLines(part)) drawRing(sheet, line, dx, dy, 0.4, false, SOFT);
      for (const line of markLines(part)) drawRing(sheet, line, dx, dy, 0.6, false, DATA);
      for (const [x, y] of part.marks?.screws ?? [])
        sheet.drawCircle({ x: mm(x + dx), y: mm(y + dy), size: mm(PILOT_MM / 2), borderWidth: 0.5, borderColor: DATA });
      sheet.drawText(`${part.id}  ${hand}`, {
        x: mm(dx + length * 0.06),
        y: mm(dy + width / 2),
        size: 14,
        font: pen.bold,
        color: SOFT,
      });
      sheet.drawText(part.grain ? 'grain →' : '', {
        x: mm(dx + length * 0.06),
        y: mm(dy + width / 2 - 8),
        size: 12,
        font: pen.regular,
        color: SOFT,
        rotate: degrees(0),
      });
      sheet.pushOperators(popGraphicsState());
      drawFrame(
        pen,
        sheet,
        paper,
        `${part.id} · row ${row + 1} of ${tiles.rows}, column ${sheetLetter(column)} of ${sheetLetter(tiles.columns - 1)} · ${formatSawn(length, style)} × ${formatSawn(width, style)} ${style.units} · ${hand} · print at 100 %`,
      );
    }
  drawTable(pen, part, paper, style);
  return pen.pdf.save();
}
