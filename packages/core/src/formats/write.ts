import Papa from 'papaparse';
import { FORMULA } from './formula.js';
import { DxfWriter, point3d, LWPolylineFlags, Units } from '@tarikjabiri/dxf';
import { blankOf, grooveLines, markLines, partMass, PILOT_MM, type Part } from '../parts/part.js';
import { shapeOf } from '../parts/scribing.js';
import { materialOf } from '../materials/material.js';
import { boxOf, type Ring } from '../numeric/plane.js';
import type { PriceBook, Project } from '../document/schema.js';

const tenth = (value: number): number => Math.round(value * 10) / 10;

/** What makes two parts one line of a cut list: the same material, shape, ends and edges. */
const likeness = (part: Part): string =>
  JSON.stringify([
    part.material,
    part.thickness,
    part.grain,
    shapeOf(part),
    part.ends ?? null,
    part.edges.map(({ kind, at, allowance, largestRemoval, bevel }) => [
      kind,
      at,
      tenth(allowance),
      tenth(largestRemoval),
      tenth(bevel.least),
      tenth(bevel.most),
    ]),
  ]);

/** The cut list as CSV: equal parts in one row with their count and where they go, mm, largest first. */
export function cutListCsv(parts: readonly Part[], project: Project, book: PriceBook): string {
  const groups = new Map<string, Part[]>();
  for (const part of parts) {
    const key = likeness(part);
    groups.set(key, [...(groups.get(key) ?? []), part]);
  }
  const placeOf = (part: Part): string =>
    project.layout.units.find((unit) => unit.id === part.unit)?.name ?? part.surface ?? 'floor';
  const rows = [...groups.values()]
    .flatMap((own) => {
      const [part] = own;
      return part ? [{ part, own, blank: blankOf(part) }] : [];
    })
    .sort(
      (a, b) =>
        a.part.material.localeCompare(b.part.material) ||
        b.blank.length * b.blank.width - a.blank.length * a.blank.width,
    )
    .map(({ part, own, blank }) => {
      const scribed = part.edges.filter((edge) => edge.kind === 'scribe');
      return {
        parts: own.map(({ id }) => id).join(' '),
        where: [...new Set(own.map(placeOf))].join(', '),
        material: materialOf(book, part.material)?.name ?? part.material,
        thickness_mm: part.thickness,
        length_mm: tenth(blank.length),
        width_mm: tenth(blank.width),
        quantity: own.length,
        grain: part.grain ? 'along length' : 'any',
        scribed_edges: scribed.map((edge) => edge.at).join(' '),
        scribe_allowance_mm: Math.max(0, ...scribed.map((edge) => edge.allowance)),
        largest_removal_mm: tenth(Math.max(0, ...scribed.map((edge) => edge.largestRemoval))),
        bevel_degrees: tenth(
          Math.max(0, ...scribed.map((edge) => Math.max(Math.abs(edge.bevel.least), Math.abs(edge.bevel.most)))),
        ),
        square_cut: scribed.every((edge) => edge.squareCut) ? 'yes' : 'no',
        mass_each_kg: partMass(part, book)?.toFixed(2) ?? '',
      };
    });
  return `${Papa.unparse(rows, { newline: '\n', escapeFormulae: FORMULA })}\n`;
}

/** One part as DXF polylines in mm: what is sawn on layer CUT, true lines and supports on MARK, grooves on GROOVE, screws on BORE. */
export function partDxf(part: Part): string {
  const dxf = new DxfWriter();
  dxf.setUnits(Units.Millimeters);
  dxf.addLayer('CUT', 7, 'CONTINUOUS');
  dxf.addLayer('MARK', 5, 'CONTINUOUS');
  dxf.addLayer('BORE', 1, 'CONTINUOUS');
  const vertices = (ring: Ring): { point: ReturnType<typeof point3d> }[] =>
    ring.map(([x, y]) => ({ point: point3d(x, y, 0) }));
  dxf.setCurrentLayerName('CUT');
  for (const ring of [part.outline.outer, ...part.outline.holes])
    dxf.addLWPolyline(vertices(ring), { flags: LWPolylineFlags.Closed });
  dxf.setCurrentLayerName('MARK');
  for (const line of markLines(part)) dxf.addLWPolyline(vertices(line));
  if (grooveLines(part).length > 0) {
    dxf.addLayer('GROOVE', 3, 'CONTINUOUS');
    dxf.setCurrentLayerName('GROOVE');
    for (const line of grooveLines(part)) dxf.addLWPolyline(vertices(line));
  }
  dxf.setCurrentLayerName('BORE');
  for (const [x, y] of part.marks?.screws ?? []) dxf.addCircle(point3d(x, y, 0), PILOT_MM / 2);
  return dxf.stringify();
}

const pathOf = (ring: readonly (readonly [number, number])[], height: number, close: boolean): string =>
  `${ring.map(([x, y], i) => `${i === 0 ? 'M' : 'L'}${x.toFixed(3)} ${(height - y).toFixed(3)}`).join(' ')}${close ? ' Z' : ''}`;
const escape = (text: string): string => text.replace(/[<>&"']/g, (c) => `&#${c.charCodeAt(0)};`);

/** One part as SVG at true size in mm. */
export function partSvg(part: Part): string {
  const { length, width } = blankOf(part);
  const margin = 5;
  const box = boxOf(part.outline.outer);
  const outline = [part.outline.outer, ...part.outline.holes].map((ring) => pathOf(ring, box.maxY, true)).join(' ');
  const marks = markLines(part).map(
    (line) =>
      `<path d="${pathOf(line, box.maxY, false)}" fill="none" stroke="#1B57A6" stroke-width="0.5" stroke-dasharray="6 3"/>`,
  );
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" width="${(length + 2 * margin).toFixed(3)}mm" height="${(width + 2 * margin).toFixed(3)}mm" viewBox="${-margin} ${-margin} ${(length + 2 * margin).toFixed(3)} ${(width + 2 * margin).toFixed(3)}">`,
    `<title>${escape(part.id)}</title>`,
    `<path d="${outline}" fill="none" fill-rule="evenodd" stroke="#1E2629" stroke-width="0.5"/>`,
    ...marks,
    ...grooveLines(part).map(
      (line) =>
        `<path d="${pathOf(line, box.maxY, false)}" fill="none" stroke="#1E2629" stroke-width="0.5" stroke-dasharray="1 2"/>`,
    ),
    ...(part.marks?.screws ?? []).map(
      ([x, y]) =>
        `<circle cx="${x.toFixed(3)}" cy="${(box.maxY - y).toFixed(3)}" r="${PILOT_MM / 2}" fill="none" stroke="#1B57A6" stroke-width="0.5"/>`,
    ),
    '</svg>',
    '',
  ].join('\n');
}
