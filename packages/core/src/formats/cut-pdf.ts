import fontkit from '@pdf-lib/fontkit';
import { PDFDocument, rgb, degrees, type PDFFont, type PDFPage } from 'pdf-lib';
import { materialOf } from '../layers/buildup.js';
import { formatLength, type LengthStyle } from '../measure/length.js';
import type { MaterialPlan } from '../project/derive.js';
import type { PlanSheet, PriceBook, Project } from '../project/schema.js';
import { formatMoney } from '../words/say.js';

/** Font files to set the page in, in a format the PDF writer reads (.woff or .ttf). */
export interface PdfFonts {
  readonly regular: Uint8Array;
  readonly bold: Uint8Array;
}

const A4: [number, number] = [841.89, 595.28];
const MARGIN = 36;
const INK = rgb(0.118, 0.149, 0.161);
const RULE = rgb(0.725, 0.757, 0.745);
const WASTE = rgb(0.93, 0.94, 0.93);

interface Sheet {
  readonly plan: MaterialPlan;
  readonly sheet: PlanSheet;
  readonly number: number;
  readonly of: number;
}

function drawSheet(
  page: PDFPage,
  item: Sheet,
  project: Project,
  style: LengthStyle,
  fonts: { readonly regular: PDFFont; readonly bold: PDFFont },
): void {
  const stock = item.plan.material.stocks.find((candidate) => candidate.id === item.sheet.stock);
  if (!stock) return;
  const trim = project.settings.cutting.trim;
  const scale = Math.min((A4[0] - 2 * MARGIN) / stock.length, (A4[1] - 2 * MARGIN - 60) / stock.width);
  const [left, bottom] = [MARGIN, MARGIN + 14];
  const text = (value: string, x: number, y: number, size: number, font = fonts.regular): void =>
    page.drawText(value, { x, y, size, font, color: INK });
  const plain = (value: string): string => value.replaceAll('\u202f', ' ').replaceAll('\u00a0', ' ');
  text(`${item.plan.material.name} · sheet ${item.number} of ${item.of}`, MARGIN, A4[1] - MARGIN - 12, 18, fonts.bold);
  text(
    plain(
      `${project.name} · ${formatLength(stock.length, style)} × ${formatLength(stock.width, style)} ${style.units} · kerf ${formatLength(project.settings.cutting.kerf, style, 1)} · trim ${formatLength(trim, style)} · sizes are blanks, grain runs along the sheet`,
    ),
    MARGIN,
    A4[1] - MARGIN - 30,
    10,
  );
  page.drawRectangle({
    x: left,
    y: bottom,
    width: stock.length * scale,
    height: stock.width * scale,
    borderColor: INK,
    borderWidth: 1,
    color: WASTE,
  });
  for (const placed of item.sheet.placements) {
    const part = item.plan.job.parts.find((candidate) => candidate.id === placed.part);
    if (!part) continue;
    const [length, width] = placed.turned ? [part.width ?? 0, part.length] : [part.length, part.width ?? 0];
    const [x, y, w, h] = [
      left + (trim + placed.x) * scale,
      bottom + (trim + placed.y) * scale,
      length * scale,
      width * scale,
    ];
    page.drawRectangle({ x, y, width: w, height: h, borderColor: INK, borderWidth: 0.8, color: rgb(1, 1, 1) });
    const upright = h > w * 1.4;
    const size = plain(
      `${formatLength(part.length, style, style.units === 'mm' && part.length % 1 !== 0 ? 1 : 0)} × ${formatLength(part.width ?? 0, style, style.units === 'mm' && (part.width ?? 0) % 1 !== 0 ? 1 : 0)}`,
    );
    const [run, rise] = upright ? [h, w] : [w, h];
    const big = Math.min(15, (run - 8) / Math.max(1, fonts.bold.widthOfTextAtSize(size, 1)), rise / 2.6);
    const small = Math.min(9, (run - 8) / Math.max(1, fonts.regular.widthOfTextAtSize(part.id, 1)), rise / 3.2);
    if (big >= 3.5)
      page.drawText(size, {
        x: upright ? x + rise / 2 - 1 : x + 4,
        y: upright ? y + 4 : y + rise / 2 + 1,
        size: big,
        font: fonts.bold,
        color: INK,
        rotate: degrees(upright ? 90 : 0),
      });
    if (small >= 3.5)
      page.drawText(part.id, {
        x: upright ? x + rise / 2 + small + 2 : x + 4,
        y: upright ? y + 4 : y + rise / 2 - small - 2,
        size: small,
        font: fonts.regular,
        color: INK,
        rotate: degrees(upright ? 90 : 0),
      });
  }
  for (const rest of item.sheet.offcuts) {
    page.drawRectangle({
      x: left + (trim + rest.x) * scale,
      y: bottom + (trim + rest.y) * scale,
      width: rest.length * scale,
      height: rest.width * scale,
      borderColor: RULE,
      borderWidth: 0.8,
      borderDashArray: [4, 3],
    });
  }
  text(
    'Check the first cut against a tape. Eyes, ears and dust mask; support the sheet on both sides of the cut.',
    MARGIN,
    MARGIN - 4,
    9,
  );
}

/** The cut diagrams as PDF, one A4 page a sheet, sizes readable at arm's length. */
export async function cutDiagramsPdf(
  project: Project,
  plans: readonly MaterialPlan[],
  book: PriceBook,
  fontFiles: PdfFonts,
): Promise<Uint8Array> {
  const pdf = await PDFDocument.create();
  pdf.registerFontkit(fontkit);
  pdf.setTitle(`${project.name}: cut diagrams`);
  const fonts = {
    regular: await pdf.embedFont(fontFiles.regular, { subset: true }),
    bold: await pdf.embedFont(fontFiles.bold, { subset: true }),
  };
  const style: LengthStyle = { units: project.settings.units, fraction: project.settings.fraction };
  const cover = pdf.addPage(A4);
  const write = (value: string, y: number, size: number, font = fonts.regular): void =>
    cover.drawText(value.replaceAll('\u202f', ' ').replaceAll('\u00a0', ' '), { x: MARGIN, y, size, font, color: INK });
  write(`${project.name}: cut diagrams`, A4[1] - MARGIN - 20, 22, fonts.bold);
  plans.forEach(({ material, plan }, i) => {
    write(
      `${materialOf(book, material.id)?.name ?? material.id}: ${plan.sheets.length} sheets, ${formatMoney(plan.cost, book.currency)}; ${plan.proved ? 'no plan can be cheaper' : `at least ${formatMoney(plan.bound, book.currency)} whatever the plan`}`,
      A4[1] - MARGIN - 56 - i * 18,
      12,
    );
  });
  for (const plan of plans)
    plan.plan.sheets.forEach((sheet, i) =>
      drawSheet(pdf.addPage(A4), { plan, sheet, number: i + 1, of: plan.plan.sheets.length }, project, style, fonts),
    );
  return pdf.save();
}
