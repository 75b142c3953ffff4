import type { PDFPage } from 'pdf-lib';
import { describeAddress, isSectionPlace, parseAddress, unitOf, valueAt } from '../document/address.js';
import { formatAngle } from '../words/angle.js';
import { formatLength, type LengthStyle } from '../words/length.js';
import { heightsOf, roofOffsetsOf, walkSteps, type Leg } from '../measure/walk.js';
import type { Project } from '../document/schema.js';
import { EN } from '../words/en.js';
import { say } from '../words/say.js';
import { DATA, INK, plain, SOFT, startPdf, type PdfFonts, type Pen } from './pdf-tools.js';

const A4: [number, number] = [595.28, 841.89];
const MARGIN = 40;
const ROW = 23;
const BOX = { width: 92, height: 18 };
/** A plan of the floor with the stations numbered, drawn to fill a box; without measures it is a scheme. */
function drawPlan(
  page: PDFPage,
  pen: Pen,
  project: Project,
  x: number,
  y: number,
  width: number,
  height: number,
): void {
  const { survey } = project;
  const length = valueAt(survey, 'floor/length');
  page.drawRectangle({ x, y, width, height, borderColor: INK, borderWidth: 1.2 });
  page.drawLine({
    start: { x: x + width / 2, y: y - 6 },
    end: { x: x + width / 2, y: y + height + 6 },
    color: DATA,
    thickness: 1,
    dashArray: [10, 3, 2, 3],
  });
  page.drawText('front', { x: x + width / 2 + 6, y: y + height + 4, size: 9, font: pen.regular, color: SOFT });
  survey.stations.forEach((station, i) => {
    const place = valueAt(survey, `station/${station.id}/x`);
    const share = place !== null && length !== null ? place / length : (i + 0.5) / survey.stations.length;
    const at = y + height * (1 - Math.min(1, Math.max(0, share)));
    page.drawLine({ start: { x, y: at }, end: { x: x + width, y: at }, color: SOFT, thickness: 0.7 });
    page.drawText(`${i + 1}`, { x: x - 14, y: at - 4, size: 11, font: pen.bold, color: INK });
    page.drawText(plain(station.name), { x: x + width + 6, y: at - 3, size: 9, font: pen.regular, color: SOFT });
  });
}

/** A section with the heights at which walls are read and the places across the roof. */
function drawSection(
  page: PDFPage,
  pen: Pen,
  project: Project,
  style: LengthStyle,
  x: number,
  y: number,
  size: number,
): void {
  const { survey } = project;
  const station = survey.profile.station ?? survey.stations[0]?.id ?? '';
  const heights = heightsOf(survey, station);
  const top = Math.max(...heights, 1) * 1.14;
  const scale = size / top;
  const half = size * 0.42;
  const middle = x + half + 46;
  page.drawSvgPath(
    `M ${-half * 0.94} 0 L ${-half} ${-size * 0.4} L ${-half * 0.82} ${-size * 0.9} L ${-half * 0.6} ${-size} L ${half * 0.6} ${-size} L ${half * 0.82} ${-size * 0.9} L ${half} ${-size * 0.4} L ${half * 0.94} 0 Z`,
    { x: middle, y, borderColor: INK, borderWidth: 1.2 },
  );
  for (const z of heights) {
    page.drawLine({
      start: { x: middle - half, y: y + z * scale },
      end: { x: middle + half, y: y + z * scale },
      color: DATA,
      thickness: survey.heights.includes(z) ? 0.9 : 0.4,
    });
    page.drawText(plain(formatLength(z, style)), {
      x: middle - half - 40,
      y: y + z * scale - 3,
      size: 9,
      font: pen.regular,
      color: DATA,
    });
  }
  for (const offset of roofOffsetsOf(survey, station)) {
    const at = middle + offset * scale;
    page.drawLine({ start: { x: at, y: y + size * 0.82 }, end: { x: at, y: y + size }, color: DATA, thickness: 1.4 });
  }
  page.drawText('seen toward the rear', { x: middle - 40, y: y - 14, size: 9, font: pen.regular, color: SOFT });
}

function titleOf(leg: Leg): string {
  return EN[`leg.${leg}`];
}

/**
 * The survey as sheets to take into the vehicle: drawings of where the readings are, then a numbered box for every one in
 * walking order; what was read already is printed in grey beside its box. Typing it back goes by the same numbers.
 */
export async function surveySheetPdf(project: Project, fontFiles: PdfFonts): Promise<Uint8Array> {
  const pen = await startPdf(`${project.name}: survey sheet`, fontFiles);
  const { pdf } = pen;
  const { settings, survey } = project;
  const style: LengthStyle = { units: settings.units, fraction: settings.fraction };
  const voice = { words: EN, lengths: style };
  const cover = pdf.addPage(A4);
  const write = (
    page: PDFPage,
    text: string,
    x: number,
    y: number,
    size: number,
    font = pen.regular,
    color = INK,
  ): void => page.drawText(plain(text), { x, y, size, font, color });
  write(cover, `${project.name}: survey sheet`, MARGIN, A4[1] - MARGIN - 16, 22, pen.bold);
  write(
    cover,
    `${project.vehicle.model} · readings in ${style.units === 'mm' ? 'millimetres' : 'inches and fractions'} · left and right are those of a person facing forward`,
    MARGIN,
    A4[1] - MARGIN - 36,
    10,
  );
  drawPlan(cover, pen, project, MARGIN + 40, 330, 170, 380);
  drawSection(cover, pen, project, style, MARGIN + 250, 470, 200);
  EN['sheet.notes'].split('|').forEach((line, i) => write(cover, `${i + 1}. ${line}`, MARGIN, 280 - i * 20, 11));
  write(
    cover,
    'Measured by ____________________   on ____________________   instrument ____________________',
    MARGIN,
    90,
    11,
  );
  let page = cover;
  let y = 0;
  let leg: Leg | null = null;
  const fresh = (): void => {
    page = pdf.addPage(A4);
    y = A4[1] - MARGIN - 14;
    write(page, `${project.name} · survey sheet`, MARGIN, MARGIN - 18, 9, pen.regular, SOFT);
  };
  fresh();
  walkSteps(survey).forEach((step, i) => {
    if (y < MARGIN + ROW * (step.leg === leg ? 1 : 3)) fresh();
    if (step.leg !== leg) {
      leg = step.leg;
      y -= 6;
      write(page, titleOf(leg), MARGIN, y, 13, pen.bold);
      y -= ROW;
    }
    const place = parseAddress(step.address);
    const now = valueAt(survey, step.address);
    const angle = place !== null && unitOf(place) === 'degrees';
    write(page, `${i + 1}`, MARGIN, y, 11, pen.bold);
    write(page, say(describeAddress(survey, step.address), voice), MARGIN + 30, y, isSectionPlace(place) ? 11 : 10.5);
    page.drawRectangle({
      x: A4[0] - MARGIN - BOX.width,
      y: y - 5,
      width: BOX.width,
      height: BOX.height,
      borderColor: INK,
      borderWidth: 1,
    });
    if (now !== null)
      write(
        page,
        angle ? formatAngle(now) : formatLength(now, style),
        A4[0] - MARGIN - BOX.width - 52,
        y,
        10,
        pen.regular,
        SOFT,
      );
    y -= ROW;
  });
  return pdf.save();
}
