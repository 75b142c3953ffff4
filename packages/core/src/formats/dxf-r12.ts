import makerjs from 'makerjs';
import type { PlannedSheet } from '../cutting/plan/planned.js';
import type { Point } from '../numeric/plane.js';
import { grooveLines, markLines, PILOT_MM, type Part } from '../parts/part.js';
import { borderOf, placedOutlines } from './sheet-files.js';

const { exporter, models, paths } = makerjs;

/** Layers and their colours by number, as in the newer files. */
const LAYERS = { SHEET: 8, CUT: 7, MARK: 5, BORE: 1, GROOVE: 3 } as const;
type Layer = keyof typeof LAYERS;

interface Drawn {
  readonly layer: Layer;
  readonly line: readonly Point[];
  readonly closed: boolean;
}

/**
 * A drawing in the oldest form of DXF that is still read everywhere: POLYLINE, VERTEX and CIRCLE only, no handles, no
 * subclasses; mm.
 */
function drawing(lines: readonly Drawn[], bores: readonly Point[]): string {
  const model: makerjs.IModel = { models: {}, paths: {}, units: makerjs.unitType.Millimeter };
  lines.forEach(({ layer, line, closed }, i) => {
    const drawn = new models.ConnectTheDots(
      closed,
      line.map(([x, y]) => [x, y]),
    );
    model.models = { ...model.models, [`l${i}`]: { ...drawn, layer } };
  });
  bores.forEach(([x, y], i) => {
    model.paths = { ...model.paths, [`b${i}`]: { ...new paths.Circle([x, y], PILOT_MM / 2), layer: 'BORE' } };
  });
  return exporter.toDXF(model, {
    units: makerjs.unitType.Millimeter,
    usePOLYLINE: true,
    layerOptions: Object.fromEntries(Object.entries(LAYERS).map(([name, color]) => [name, { color }])),
  });
}

/** One part for an old machine: what is sawn on layer CUT, true lines and supports on MARK, grooves on GROOVE, screws on BORE. */
export const partDxfR12 = (part: Part): string =>
  drawing(
    [
      ...[part.outline.outer, ...part.outline.holes].map((line): Drawn => ({ layer: 'CUT', line, closed: true })),
      ...markLines(part).map((line): Drawn => ({ layer: 'MARK', line, closed: false })),
      ...grooveLines(part).map((line): Drawn => ({ layer: 'GROOVE', line, closed: false })),
    ],
    part.marks?.screws ?? [],
  );

/** One sheet as it is laid out, for an old machine; the sheet itself on layer SHEET. */
export function sheetDxfR12(sheet: PlannedSheet, parts: readonly Part[]): string {
  const placed = placedOutlines(sheet, parts);
  return drawing(
    [
      { layer: 'SHEET', line: borderOf(sheet), closed: true },
      ...placed.flatMap(({ cut, mark, groove }): Drawn[] => [
        ...cut.map((line): Drawn => ({ layer: 'CUT', line, closed: true })),
        ...mark.map((line): Drawn => ({ layer: 'MARK', line, closed: false })),
        ...groove.map((line): Drawn => ({ layer: 'GROOVE', line, closed: false })),
      ]),
    ],
    placed.flatMap(({ bore }) => bore),
  );
}
