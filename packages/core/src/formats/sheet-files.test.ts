import * as dxf from 'dxf-parser';
import { describe, expect, it } from 'vitest';
import { derive } from '../derive/again.fixture.js';
import { readProjectFile } from './read.js';
import { placedOutlines, sheetDxf, sheetSvg } from './sheet-files.js';
import demo from '../../../../demo/wren.json?raw';

const DxfReader = (dxf.DxfParser ??
  (dxf as unknown as { default: typeof dxf.DxfParser }).default) as typeof dxf.DxfParser;
const { project, priceBook } = readProjectFile(demo);
const straight = derive(project, priceBook);
const free = derive(
  {
    ...project,
    keptPlans: [],
    settings: { ...project.settings, cutting: { ...project.settings.cutting, method: 'free' } },
  },
  priceBook,
);

describe('a sheet as a file', () => {
  it.each([
    ['straight cuts', straight],
    ['true outlines', free],
  ])('has every part inside the sheet and none twice, with %s', (_how, derived) => {
    for (const plan of derived.plans)
      for (const sheet of plan.sheets) {
        const placed = placedOutlines(sheet, derived.parts);
        expect(placed).toHaveLength(sheet.placements.filter((placement) => !placement.spoiled).length);
        for (const [x, y] of placed.flatMap(({ cut }) => cut.flat())) {
          expect(x).toBeGreaterThanOrEqual(sheet.trim - 0.01);
          expect(y).toBeGreaterThanOrEqual(sheet.trim - 0.01);
          expect(x).toBeLessThanOrEqual(sheet.length + sheet.trim + 0.01);
          expect(y).toBeLessThanOrEqual(sheet.width + sheet.trim + 0.01);
        }
      }
  });
  it('carries screws on a layer of their own, where they are on the parts', () => {
    const plan = straight.plans.find((candidate) => candidate.material.id === 'birch-12');
    const screws = straight.parts
      .filter((part) => part.role === 'subfloor')
      .flatMap((part) => part.marks?.screws ?? []);
    const drilled = (plan?.sheets ?? []).flatMap(
      (sheet) =>
        new DxfReader()
          .parseSync(sheetDxf(sheet, straight.parts))
          ?.entities.filter((entity) => entity.layer === 'BORE') ?? [],
    );
    expect(drilled).toHaveLength(screws.length);
    expect(screws.length).toBeGreaterThan(50);
  });
  it('is read back as closed polylines on its layers', () => {
    const [plan] = straight.plans;
    const sheet = plan?.sheets.at(-1);
    if (!sheet) throw new Error('no sheet');
    const read = new DxfReader().parseSync(sheetDxf(sheet, straight.parts));
    const layers = read?.entities.map((entity) => entity.layer) ?? [];
    expect(layers.filter((layer) => layer === 'SHEET')).toHaveLength(1);
    const rings = placedOutlines(sheet, straight.parts).flatMap(({ cut }) => cut);
    expect(layers.filter((layer) => layer === 'CUT')).toHaveLength(rings.length);
    const svg = sheetSvg(sheet, straight.parts);
    expect(svg).toContain(`width="${sheet.length + 2 * sheet.trim}mm"`);
    expect(svg.match(/class="cut"/g)).toHaveLength(rings.length);
  });
});
