import { degrees, rgb, type PDFPage } from 'pdf-lib';
import { boardMass } from '../cutting/plan/carrying.js';
import type { MaterialPlan } from '../cutting/plan/cutting-room.js';
import { sheetLetter } from '../cutting/plan/letters.js';
import { footprintOf } from '../cutting/plan/footprint.js';
import { barOutline } from '../cutting/job/mitres.js';
import { fenceOrder, settingStep } from '../cutting/plan/fence.js';
import { cutName } from '../cutting/plan/steps.js';
import type { PlannedSheet } from '../cutting/plan/planned.js';
import { isHanded } from '../parts/hand.js';
import type { Part } from '../parts/part.js';
import { materialOf } from '../materials/material.js';
import { rowLengths, type FloorFinish } from '../lining/floor/finish.js';
import { formatLength, formatSawn, type LengthStyle } from '../words/length.js';
import type { PriceBook, Project } from '../document/schema.js';
import { formatMoney } from '../words/say.js';
import { DATA, INK, plain, RULE, startPdf, WHITE, writeLine, type PdfFonts, type Pen } from './pdf-tools.js';

export type { PdfFonts } from './pdf-tools.js';

const A4: [number, number] = [841.89, 595.28];
const MARGIN = 36;
const WASTE = rgb(0.93, 0.94, 0.93);

interface Sheet {
  readonly plan: MaterialPlan;
  readonly sheet: PlannedSheet;
  readonly letter: string;
  /** Numbers of the cuts in the order of the saw, by name. */
  readonly numbers: ReadonlyMap<string, number>;
}

function drawPart(
  page: PDFPage,
  pen: Pen,
  placed: PlannedSheet['placements'][number],
  box: { readonly x: number; readonly y: number; readonly w: number; readonly h: number },
  style: LengthStyle,
  name: string,
  number: number | null,
): void {
  const { x, y, w, h } = box;
  const outline = barOutline(placed.length, placed.width, placed.ends, placed.turned, placed.flipped ?? false);
  if (placed.ends) {
    const [sx, sy] = [w / placed.length, h / placed.width];
    // the page's own direction is up; an SVG path goes down
    const path = outline.map(([px, py], i) => `${i === 0 ? 'M' : 'L'}${px * sx} ${-py * sy}`).join(' ');
    page.drawSvgPath(`${path} Z`, { x, y, borderColor: INK, borderWidth: 0.8, color: WHITE });
  } else page.drawRectangle({ x, y, width: w, height: h, borderColor: INK, borderWidth: 0.8, color: WHITE });
  const upright = h > w * 1.4;
  const size = sizeText(placed, style);
  const rise = upright ? w : h;
  const big = sizeIn(size, w, h, pen);
  const small = nameIn(name, w, h, pen);
  const at = (offset: number): { x: number; y: number } =>
    upright ? { x: x + rise / 2 + offset, y: y + 4 } : { x: x + 4, y: y + rise / 2 - offset };
  const rotate = degrees(upright ? 90 : 0);
  if (big >= 3.5) page.drawText(size, { ...at(-1), size: big, font: pen.bold, color: INK, rotate });
  if (small >= NAMED) page.drawText(name, { ...at(small + 2), size: small, font: pen.regular, color: INK, rotate });
  if (number === null) return;
  // too small for its name: a number, told under the drawing
  const text = String(number);
  const tall = Math.min(8, Math.max(3, h - 1.5), Math.max(3, (w - 1.5) / (0.6 * text.length)));
  page.drawText(text, {
    x: x + w - pen.bold.widthOfTextAtSize(text, tall) - 1,
    y: y + 1,
    size: tall,
    font: pen.bold,
    color: DATA,
  });
}

/** A name that would be set smaller is not read, points. */
const NAMED = 3.5;
/** What a piece is called on a sheet. */
function nameOf(placed: PlannedSheet['placements'][number], parts: readonly Part[]): string {
  const part = parts.find((candidate) => candidate.id === placed.part);
  const handed = part !== undefined && isHanded(part);
  return `${placed.spoiled ? 'cut wrong: ' : ''}${placed.part}${handed ? ' (face up)' : ''}`;
}
/** How large the name of a piece is set in a box, points. */
const nameIn = (name: string, w: number, h: number, pen: Pen): number => {
  const [run, rise] = h > w * 1.4 ? [h, w] : [w, h];
  return Math.min(9, (run - 8) / Math.max(1, pen.regular.widthOfTextAtSize(name, 1)), rise / 3.2);
};

/** Where a sheet is drawn on its page, in points. */
interface Frame {
  readonly left: number;
  readonly bottom: number;
  readonly width: number;
  readonly height: number;
}
/** Over and under a drawing: its title and what it says, and the caution with the marks of the story sticks. */
const HEAD = 46;
const FOOT = 42;
const [LONG, SHORT] = A4;
const PORTRAIT: [number, number] = [SHORT, LONG];
const ALONE: Frame = { left: MARGIN, bottom: MARGIN - 28, width: LONG - 2 * MARGIN, height: SHORT - 2 * MARGIN + 28 };
const HALF = (LONG - 2 * MARGIN) / 2;
const PAIR: readonly [Frame, Frame] = [
  { left: MARGIN, bottom: MARGIN + HALF + 6, width: SHORT - 2 * MARGIN, height: HALF - 6 },
  { left: MARGIN, bottom: MARGIN, width: SHORT - 2 * MARGIN, height: HALF - 6 },
];

/** What a millimetre of a sheet is in a frame, in points, with so much kept free under it. */
const scaleIn = (frame: Frame, { length, width, trim }: PlannedSheet, foot = FOOT): number =>
  Math.min(frame.width / (length + 2 * trim), (frame.height - HEAD - foot) / (width + 2 * trim));

const LEGEND_SIZE = 7;
const LEGEND_LINE = 9;
/** Pieces too small for their names get numbers, and the names stand under the drawing in so many lines. */
export interface Legend {
  readonly numbers: ReadonlyMap<number, number>;
  readonly lines: readonly string[];
  readonly scale: number;
}
export function legendOf(
  frame: Frame,
  sheet: PlannedSheet,
  parts: readonly Part[],
  style: LengthStyle,
  pen: Pen,
): Legend {
  const at = (scale: number): Omit<Legend, 'scale'> => {
    const numbers = new Map<number, number>();
    const lines: string[] = [];
    sheet.placements.forEach((placed, i) => {
      const { length, width } = footprintOf(placed);
      const name = nameOf(placed, parts);
      if (nameIn(name, length * scale, width * scale, pen) >= NAMED) return;
      numbers.set(i, numbers.size + 1);
      const told = plain(`${numbers.size} ${name} ${sizeText(placed, style)}`);
      const last = lines.at(-1);
      const longer = last === undefined ? told : `${last}   ${told}`;
      if (last !== undefined && pen.regular.widthOfTextAtSize(longer, LEGEND_SIZE) <= frame.width)
        lines[lines.length - 1] = longer;
      else lines.push(told);
    });
    return { numbers, lines };
  };
  // drawn smaller to make room for its legend, more of its names may not fit
  let lines = 0;
  for (let round = 0; ; round += 1) {
    const scale = scaleIn(frame, sheet, FOOT + lines * LEGEND_LINE);
    const found = at(scale);
    if (found.lines.length <= lines || round === 5) return { ...found, scale };
    lines = found.lines.length;
  }
}

const sizeText = (placed: PlannedSheet['placements'][number], style: LengthStyle): string => {
  return plain(`${formatSawn(placed.length, style)} × ${formatSawn(placed.width, style)}`);
};
/** How large the size of a piece is set in a box, points. */
const sizeIn = (text: string, w: number, h: number, pen: Pen): number => {
  const [run, rise] = h > w * 1.4 ? [h, w] : [w, h];
  return Math.min(15, (run - 8) / Math.max(1, pen.bold.widthOfTextAtSize(text, 1)), rise / 2.6);
};
/** Sizes no smaller than this are read at arm's length, points. */
const READABLE = 7;

/** Whether a sheet can share its page: as well read there as it would be alone, or at arm's length. */
function sharesPage({ sheet }: Sheet, style: LengthStyle, pen: Pen): boolean {
  const [scale, alone] = [scaleIn(PAIR[0], sheet), scaleIn(ALONE, sheet)];
  return sheet.placements.every((placed) => {
    const { length, width } = footprintOf(placed);
    const text = sizeText(placed, style);
    const own = sizeIn(text, length * scale, width * scale, pen);
    // a piece too small to be labelled even alone is no reason for a page
    return own >= READABLE || sizeIn(text, length * alone, width * alone, pen) < READABLE;
  });
}

function drawSheet(
  page: PDFPage,
  frame: Frame,
  item: Sheet,
  project: Project,
  parts: readonly Part[],
  style: LengthStyle,
  pen: Pen,
): void {
  const { sheet, plan } = item;
  const trim = sheet.trim;
  const [length, width] = [sheet.length + 2 * trim, sheet.width + 2 * trim];
  const { scale, numbers, lines } = legendOf(frame, sheet, parts, style, pen);
  const top = frame.bottom + frame.height;
  const [left, bottom] = [frame.left, top - HEAD - width * scale];
  const mass = boardMass(plan.material, length, width);
  writeLine(
    page,
    `${plan.material.name} · ${plan.job.kind} ${item.letter}`,
    { x: left, y: top - 14, size: frame === ALONE ? 18 : 14, width: frame.width },
    pen.bold,
  );
  writeLine(
    page,
    `${project.name} · ${formatLength(length, style)} × ${formatLength(width, style)} ${style.units}${mass === null ? '' : ` · ${mass.toFixed(1)} kg`} · kerf ${formatLength(project.settings.cutting.kerf, style, 1)} · trim ${formatLength(trim, style)} · sizes are blanks, grain runs along the sheet, cuts numbered in the order of the saw`,
    { x: left, y: top - 32, size: 10, width: frame.width },
    pen.regular,
  );
  page.drawRectangle({
    x: left,
    y: bottom,
    width: length * scale,
    height: width * scale,
    borderColor: INK,
    borderWidth: 1,
    color: WASTE,
  });
  sheet.placements.forEach((placed, i) => {
    const { length: along, width: across } = footprintOf(placed);
    drawPart(
      page,
      pen,
      placed,
      {
        x: left + (trim + placed.x) * scale,
        y: bottom + (trim + placed.y) * scale,
        w: along * scale,
        h: across * scale,
      },
      style,
      nameOf(placed, parts),
      numbers.get(i) ?? null,
    );
  });
  for (const rest of sheet.left) {
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
  for (const cut of sheet.cuts) {
    const number = item.numbers.get(`${sheet.id} ${cutName(cut)}`);
    if (number === undefined) continue;
    const rip = cut.axis === 'rip';
    const [x, y] = rip
      ? [cut.from + (cut.to - cut.from) * 0.03, cut.at]
      : [cut.at, cut.to - (cut.to - cut.from) * 0.05];
    const [px, py] = [left + (trim + x) * scale, bottom + (trim + y) * scale];
    page.drawCircle({ x: px, y: py, size: 6.5, color: WHITE, borderColor: DATA, borderWidth: 1 });
    const text = String(number);
    page.drawText(text, {
      x: px - pen.bold.widthOfTextAtSize(text, 7) / 2,
      y: py - 2.5,
      size: 7,
      font: pen.bold,
      color: DATA,
    });
  }
  writeLine(
    page,
    'Check the first cut against a tape. Eyes, ears and dust mask; support the sheet on both sides of the cut.',
    { x: left, y: bottom - 18, size: 9, width: frame.width },
    pen.regular,
  );
  const story = storyLines(sheet, style);
  story.forEach((line, i) =>
    writeLine(page, line, { x: left, y: bottom - 30 - i * 10, size: 8, width: frame.width }, pen.regular),
  );
  lines.forEach((line, i) =>
    writeLine(
      page,
      line,
      {
        x: left,
        y: bottom - 30 - story.length * 10 - i * LEGEND_LINE,
        size: LEGEND_SIZE,
        width: frame.width,
      },
      pen.regular,
    ),
  );
}

/** Bars that are cut alike: the same lengths with the same ends in the same order. */
export interface LikeBars {
  readonly bars: readonly { readonly sheet: PlannedSheet; readonly letter: string }[];
}
export function likeBars(sheets: readonly PlannedSheet[]): readonly LikeBars[] {
  const groups = new Map<string, { sheet: PlannedSheet; letter: string }[]>();
  sheets.forEach((sheet, i) => {
    const key = JSON.stringify([
      Math.round(sheet.length * 10),
      ...[...sheet.placements]
        .sort((a, b) => a.x - b.x)
        .map(({ length, ends, turned, flipped, spoiled }) => [
          Math.round(length * 10),
          ends ?? null,
          turned,
          flipped ?? false,
          spoiled,
        ]),
    ]);
    groups.set(key, [...(groups.get(key) ?? []), { sheet, letter: sheetLetter(i) }]);
  });
  return [...groups.values()].map((bars) => ({ bars }));
}

const BAR_HIGH = 13;
const NAME_LINE = 8.5;

/** Bars of one material, a few dozen to a page: equal ones once with their count, and what each of their pieces is for. */
function barPages({ sheets, material }: MaterialPlan, project: Project, style: LengthStyle, pen: Pen): void {
  const groups = likeBars(sheets);
  const longest = Math.max(...sheets.map(({ length }) => length));
  const [wide, high] = PORTRAIT;
  const scale = (wide - 2 * MARGIN - 34) / longest;
  let page: PDFPage | null = null;
  let y = 0;
  for (const { bars } of groups) {
    const tall = BAR_HIGH + 8 + NAME_LINE * bars.length + 7;
    if (page === null || y - tall < MARGIN) {
      page = pen.pdf.addPage(PORTRAIT);
      writeLine(page, material.name, { x: MARGIN, y: high - MARGIN - 12, size: 16 }, pen.bold);
      writeLine(
        page,
        `${project.name} · kerf ${formatLength(project.settings.cutting.kerf, style, 1)} ${style.units} · each length measured by its long point · eyes and ears; hold the bar down on both sides of the saw`,
        { x: MARGIN, y: high - MARGIN - 28, size: 9, width: wide - 2 * MARGIN },
        pen.regular,
      );
      y = high - MARGIN - 40;
    }
    drawBars(page, bars, y, scale, style, pen);
    y -= tall;
  }
}

function drawBars(
  page: PDFPage,
  bars: LikeBars['bars'],
  top: number,
  scale: number,
  style: LengthStyle,
  pen: Pen,
): void {
  const [first] = bars;
  if (!first) return;
  const { sheet } = first;
  const left = MARGIN + 34;
  const y = top - BAR_HIGH;
  writeLine(page, `${bars.length} ×`, { x: MARGIN, y: y + 3, size: 11, width: 30 }, pen.bold);
  page.drawRectangle({
    x: left,
    y,
    width: sheet.length * scale,
    height: BAR_HIGH,
    borderColor: INK,
    borderWidth: 0.6,
    color: WASTE,
  });
  const tall = BAR_HIGH / Math.max(1, sheet.width);
  for (const placed of sheet.placements) {
    const outline = barOutline(placed.length, placed.width, placed.ends, placed.turned, placed.flipped ?? false);
    const path = outline.map(([px, py], i) => `${i === 0 ? 'M' : 'L'}${px * scale} ${-py * tall}`).join(' ');
    const x = left + placed.x * scale;
    page.drawSvgPath(`${path} Z`, { x, y, borderColor: INK, borderWidth: 0.6, color: WHITE });
    const text = plain(formatSawn(placed.length, style));
    const size = Math.min(9, (placed.length * scale - 3) / Math.max(0.01, pen.bold.widthOfTextAtSize(text, 1)));
    if (size >= 3.5)
      page.drawText(text, {
        x: x + (placed.length * scale - pen.bold.widthOfTextAtSize(text, size)) / 2,
        y: y + 3.5,
        size,
        font: pen.bold,
        color: INK,
      });
  }
  bars.forEach(({ sheet: own, letter }, i) =>
    writeLine(
      page,
      `${letter}: ${[...own.placements]
        .sort((a, b) => a.x - b.x)
        .map(({ part, spoiled }) => `${spoiled ? 'cut wrong: ' : ''}${part}`)
        .join(' | ')}`,
      { x: left, y: y - 8 - i * NAME_LINE, size: 7, width: SHORT - MARGIN - left },
      pen.regular,
    ),
  );
}

/** The marks of a story stick for a sheet: every cut in one direction, from the trimmed edge on. */
export function storyLines(sheet: PlannedSheet, style: LengthStyle): string[] {
  const marks = (axis: 'rip' | 'crosscut'): string =>
    [...new Set(sheet.cuts.filter((cut) => cut.axis === axis).map((cut) => cut.at))]
      .sort((a, b) => a - b)
      .map((at) => formatSawn(at, style))
      .join(' · ');
  return [
    ...(marks('crosscut') ? [`Story stick along: ${marks('crosscut')}`] : []),
    ...(marks('rip') ? [`Story stick across: ${marks('rip')}`] : []),
  ];
}

/** The cut diagrams as PDF: sheets alone or two to an A4 page, sizes readable at arm's length, cuts numbered in the order of the saw; bars a few dozen to a page, equal ones once; then the rows of the floor's finish, where one is given. */
export async function cutDiagramsPdf(
  project: Project,
  plans: readonly MaterialPlan[],
  parts: readonly Part[],
  book: PriceBook,
  fontFiles: PdfFonts,
  finish: FloorFinish | null = null,
): Promise<Uint8Array> {
  const pen = await startPdf(`${project.name}: cut diagrams`, fontFiles);
  const style: LengthStyle = { units: project.settings.units, fraction: project.settings.fraction };
  const cover = pen.pdf.addPage(A4);
  writeLine(cover, `${project.name}: cut diagrams`, { x: MARGIN, y: A4[1] - MARGIN - 20, size: 22 }, pen.bold);
  plans.forEach(({ material, plan, job }, i) =>
    writeLine(
      cover,
      `${materialOf(book, material.id)?.name ?? material.id}: ${plan.sheets.length} ${job.kind}${plan.sheets.length === 1 ? '' : 's'}, ${formatMoney(plan.cost, book.currency)}; ${plan.proved ? 'no plan can be cheaper' : `at least ${formatMoney(plan.bound, book.currency)} whatever the plan`}`,
      { x: MARGIN, y: A4[1] - MARGIN - 56 - i * 18, size: 12 },
      pen.regular,
    ),
  );
  for (const plan of plans) {
    const numbers = new Map(
      fenceOrder(plan.sheets, settingStep(style))
        .flatMap((fence) => fence.steps)
        .map((step, i) => [`${step.sheet} ${step.name}`, i + 1]),
    );
    if (plan.job.kind === 'bar') {
      barPages(plan, project, style, pen);
      continue;
    }
    // two that can be read so share a page
    let waiting: PDFPage | null = null;
    for (const [i, sheet] of plan.sheets.entries()) {
      const item = { plan, sheet, letter: sheetLetter(i), numbers };
      const next = plan.sheets[i + 1];
      if (waiting !== null) {
        drawSheet(waiting, PAIR[1], item, project, parts, style, pen);
        waiting = null;
      } else if (next && sharesPage(item, style, pen) && sharesPage({ ...item, sheet: next }, style, pen)) {
        waiting = pen.pdf.addPage(PORTRAIT);
        drawSheet(waiting, PAIR[0], item, project, parts, style, pen);
      } else drawSheet(pen.pdf.addPage(A4), ALONE, item, project, parts, style, pen);
    }
  }
  if (finish && finish.laid !== 'roll') finishPages(pen, project, finish, book, style);
  return pen.pdf.save();
}

const ROWS_A_PAGE = 42;

/** Rows of the floor's finish with their widths and lengths, as they are cut. */
function finishPages(pen: Pen, project: Project, finish: FloorFinish, book: PriceBook, style: LengthStyle): void {
  const rows = rowLengths(finish);
  const name = materialOf(book, finish.material)?.name ?? finish.material;
  for (let start = 0; start < rows.length; start += ROWS_A_PAGE) {
    const page = pen.pdf.addPage(A4);
    writeLine(page, `${project.name}: floor, ${name}`, { x: MARGIN, y: A4[1] - MARGIN - 12, size: 14 }, pen.bold);
    rows
      .slice(start, start + ROWS_A_PAGE)
      .forEach(({ row, width, pieces }, i) =>
        writeLine(
          page,
          `Row ${row} from the left, ${formatSawn(width, style)} wide: ${pieces
            .map(({ length, offcut }) => `${formatSawn(length, style)}${offcut ? ' (left over)' : ''}`)
            .join(' · ')}`,
          { x: MARGIN, y: A4[1] - MARGIN - 36 - i * 16, size: 10, width: A4[0] - 2 * MARGIN },
          pen.regular,
        ),
      );
  }
}
