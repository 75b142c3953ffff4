import { DxfWriter, point3d, LWPolylineFlags, Units } from '@tarikjabiri/dxf';
import type { PlannedSheet } from '../cutting/plan/planned.js';
import { blankOf, grooveLines, markLines, PILOT_MM, type Part } from '../parts/part.js';
import type { Point, Ring } from '../numeric/plane.js';

interface Placed {
  readonly part: Part;
  readonly cut: readonly Ring[];
  readonly mark: readonly Ring[];
  /** Middles of what is drilled. */
  readonly groove: readonly (readonly Point[])[];
  readonly bore: readonly Point[];
}

/** The parts of a sheet where they lie on it, mm from the corner of the whole sheet; what is spoiled is left out. */
export function placedOutlines(sheet: PlannedSheet, parts: readonly Part[]): readonly Placed[] {
  return sheet.placements.flatMap((placed): Placed[] => {
    const part = parts.find((candidate) => candidate.id === placed.part);
    if (!part || placed.spoiled) return [];
    const { length, width } = blankOf(part);
    const quarters = (placed.angle ?? (placed.turned ? 90 : 0)) / 90;
    const lay = ([x, y]: Point): Point => {
      if (placed.ends)
        return [(placed.turned ? length - x : x) + placed.x + sheet.trim, (placed.flipped ? width - y : y) + placed.y];
      const [u, v] = (
        [
          [x, y],
          [width - y, x],
          [length - x, width - y],
          [y, length - x],
        ] as const
      )[quarters] ?? [x, y];
      return [u + placed.x + sheet.trim, v + placed.y + sheet.trim];
    };
    return [
      {
        part,
        cut: [part.outline.outer, ...part.outline.holes].map((ring) => ring.map(lay)),
        mark: markLines(part).map((line) => line.map(lay)),
        groove: grooveLines(part).map((line) => line.map(lay)),
        bore: (part.marks?.screws ?? []).map(lay),
      },
    ];
  });
}

export const borderOf = (sheet: PlannedSheet): Ring => {
  const [length, width] = [sheet.length + 2 * sheet.trim, sheet.width + 2 * sheet.trim];
  return [
    [0, 0],
    [length, 0],
    [length, width],
    [0, width],
  ];
};

/** One sheet as DXF polylines in mm: the sheet on layer SHEET, outlines on CUT, true lines and supports on MARK, grooves on GROOVE, screws on BORE. */
export function sheetDxf(sheet: PlannedSheet, parts: readonly Part[]): string {
  const dxf = new DxfWriter();
  dxf.setUnits(Units.Millimeters);
  dxf.addLayer('SHEET', 8, 'CONTINUOUS');
  dxf.addLayer('CUT', 7, 'CONTINUOUS');
  dxf.addLayer('MARK', 5, 'CONTINUOUS');
  dxf.addLayer('BORE', 1, 'CONTINUOUS');
  dxf.addLayer('GROOVE', 3, 'CONTINUOUS');
  const draw = (layer: string, ring: Ring, closed: boolean): void => {
    dxf.setCurrentLayerName(layer);
    dxf.addLWPolyline(
      ring.map(([x, y]) => ({ point: point3d(x, y, 0) })),
      closed ? { flags: LWPolylineFlags.Closed } : {},
    );
  };
  draw('SHEET', borderOf(sheet), true);
  for (const { cut, mark, groove, bore } of placedOutlines(sheet, parts)) {
    for (const ring of cut) draw('CUT', ring, true);
    for (const line of mark) draw('MARK', line, false);
    for (const line of groove) draw('GROOVE', line, false);
    dxf.setCurrentLayerName('BORE');
    for (const [x, y] of bore) dxf.addCircle(point3d(x, y, 0), PILOT_MM / 2);
  }
  return dxf.stringify();
}

/** One sheet as SVG at true size, y downwards as SVG has it. */
export function sheetSvg(sheet: PlannedSheet, parts: readonly Part[]): string {
  const [length, width] = [sheet.length + 2 * sheet.trim, sheet.width + 2 * sheet.trim];
  const shown = (value: number): string => value.toFixed(2);
  const points = (ring: Ring): string => ring.map(([x, y]) => `${shown(x)},${shown(width - y)}`).join(' ');
  const lines = placedOutlines(sheet, parts).flatMap(({ part, cut, mark, groove, bore }) => [
    ...cut.map((ring) => `<polygon class="cut" data-part="${part.id}" points="${points(ring)}"/>`),
    ...mark.map((line) => `<polyline class="mark" points="${points(line)}"/>`),
    ...groove.map((line) => `<polyline class="groove" points="${points(line)}"/>`),
    ...bore.map(([x, y]) => `<circle class="bore" cx="${shown(x)}" cy="${shown(width - y)}" r="${PILOT_MM / 2}"/>`),
  ]);
  return [
    `<svg xmlns="http://www.w3.org/2000/svg" width="${length}mm" height="${width}mm" viewBox="0 0 ${length} ${width}">`,
    '<style>polygon,polyline,circle{fill:none;stroke:#1e2629;stroke-width:0.5}.mark{stroke:#1b57a6}.groove{stroke-dasharray:1 2}.sheet{stroke:#b9c1be}</style>',
    `<polygon class="sheet" points="${points(borderOf(sheet))}"/>`,
    ...lines,
    '</svg>',
    '',
  ].join('\n');
}
