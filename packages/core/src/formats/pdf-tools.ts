import fontkit from '@pdf-lib/fontkit';
import { PDFDocument, rgb, type PDFFont, type PDFPage } from 'pdf-lib';

/** Font files to set pages in, in a format the PDF writer reads (.woff or .ttf). */
export interface PdfFonts {
  readonly regular: Uint8Array;
  readonly bold: Uint8Array;
}
/** A document being written and the fonts it is set in. */
export interface Pen {
  readonly pdf: PDFDocument;
  readonly regular: PDFFont;
  readonly bold: PDFFont;
}

export const INK = rgb(0.118, 0.149, 0.161);
export const SOFT = rgb(0.36, 0.41, 0.43);
export const RULE = rgb(0.725, 0.757, 0.745);
export const DATA = rgb(0.106, 0.341, 0.651);
export const WHITE = rgb(1, 1, 1);
/** PDF points in a millimetre. */
export const POINTS_PER_MM = 72 / 25.4;

/** The fonts have no narrow or unbroken spaces. */
export const plain = (text: string): string => text.replaceAll('\u202f', ' ').replaceAll('\u00a0', ' ');

export async function startPdf(title: string, files: PdfFonts): Promise<Pen> {
  const pdf = await PDFDocument.create();
  pdf.registerFontkit(fontkit);
  pdf.setTitle(title);
  return {
    pdf,
    regular: await pdf.embedFont(files.regular, { subset: true }),
    bold: await pdf.embedFont(files.bold, { subset: true }),
  };
}

/** Writes a line, made smaller until it fits a width. Returns the size it was set in. */
export function writeLine(
  page: PDFPage,
  text: string,
  at: { readonly x: number; readonly y: number; readonly size: number; readonly width?: number },
  font: PDFFont,
  color = INK,
): number {
  const clean = plain(text);
  const size = Math.min(at.size, (at.width ?? Infinity) / Math.max(0.01, font.widthOfTextAtSize(clean, 1)));
  page.drawText(clean, { x: at.x, y: at.y, size, font, color });
  return size;
}
