import { blankOf, type Part } from './part.js';

/** Paper on which templates are tiled, mm. */
export const PAPERS = {
  a4: { width: 210, height: 297 },
  a3: { width: 297, height: 420 },
  letter: { width: 215.9, height: 279.4 },
} as const;
export type Paper = keyof typeof PAPERS;

/** Left free all round a page, mm. */
export const MARGIN_MM = 12;
/** Neighbouring pages show this much of each other. */
export const OVERLAP_MM = 10;
/** More pages than this are asked about before they are made; more than the second number are not made. */
export const TEMPLATE_PAGES = { asked: 60, most: 500 };

/** How a part is spread over pages: their number along and across, and the room on each. */
export function tilesOf(
  part: Part,
  paper: Paper,
): { readonly columns: number; readonly rows: number; readonly width: number; readonly height: number } {
  const { length, width } = blankOf(part);
  const page = PAPERS[paper];
  const [roomWidth, roomHeight] = [page.width - 2 * MARGIN_MM, page.height - 2 * MARGIN_MM];
  return {
    columns: Math.max(1, Math.ceil((length - OVERLAP_MM) / (roomWidth - OVERLAP_MM))),
    rows: Math.max(1, Math.ceil((width - OVERLAP_MM) / (roomHeight - OVERLAP_MM))),
    width: roomWidth,
    height: roomHeight,
  };
}

/** How many pages of paper show a part at full size; the offsets that come after them are not counted. */
export function templatePages(part: Part, paper: Paper): number {
  const { columns, rows } = tilesOf(part, paper);
  return columns * rows;
}
