import * as dxf from 'dxf-parser';
import { describe, expect, it } from 'vitest';
import thimbleText from '../../../../demo/thimble.json?raw';
import wrenText from '../../../../demo/wren.json?raw';
import { derive } from '../derive/again.fixture.js';
import { boxOf, type Point } from '../numeric/plane.js';
import { blankOf } from '../parts/part.js';
import { partDxfR12, sheetDxfR12 } from './dxf-r12.js';
import { readProjectFile } from './read.js';
import { sheetDxf } from './sheet-files.js';
import { partDxf } from './write.js';

const Parser = (dxf.DxfParser ?? (dxf as unknown as { default: typeof dxf.DxfParser }).default) as typeof dxf.DxfParser;

interface Entity {
  readonly type: string;
  readonly layer: string;
  readonly shape?: boolean;
  readonly vertices?: readonly { readonly x: number; readonly y: number }[];
  readonly radius?: number;
}
/** What a reader that has nothing to do with the writers makes of a file. */
const read = (text: string): readonly Entity[] =>
  (new Parser().parseSync(text)?.entities ?? []) as unknown as readonly Entity[];
const ring = ({ vertices }: Entity): Point[] => (vertices ?? []).map(({ x, y }): Point => [x, y]);

describe.each([
  ['Wren', wrenText],
  ['Thimble', thimbleText],
])('drawings of %s, as an independent reader has them', (_name, text) => {
  const { project, priceBook } = readProjectFile(text);
  const derived = derive(project, priceBook);
  it('parts are true to size in both forms, each corner where the part has it', () => {
    for (const part of derived.parts) {
      const { length, width } = blankOf(part);
      for (const file of [partDxfR12(part), partDxf(part)]) {
        const cut = read(file).filter(({ layer }) => layer === 'CUT');
        expect(cut).toHaveLength(1 + part.outline.holes.length);
        expect(cut.every(({ shape }) => shape === true)).toBe(true);
        const box = boxOf(cut.flatMap(ring));
        expect(box.maxX - box.minX).toBeCloseTo(length, 3);
        expect(box.maxY - box.minY).toBeCloseTo(width, 3);
        expect(read(file).filter(({ type }) => type === 'CIRCLE')).toHaveLength(part.marks?.screws.length ?? 0);
      }
    }
  });
  it('sheets have the same outlines at the same places in both forms', () => {
    for (const { sheets } of derived.plans)
      for (const sheet of sheets) {
        const [old, now] = [sheetDxfR12(sheet, derived.parts), sheetDxf(sheet, derived.parts)].map((file) =>
          read(file)
            .filter(({ type }) => type !== 'CIRCLE')
            .map((entity) => {
              const box = boxOf(ring(entity));
              return [entity.layer, ...[box.minX, box.maxX, box.minY, box.maxY].map((value) => value.toFixed(2))].join(
                ' ',
              );
            })
            .sort(),
        );
        expect(old).toEqual(now);
      }
  });
  it('the older form knows no entity that came later', () => {
    for (const part of derived.parts.slice(0, 12)) {
      const file = partDxfR12(part);
      expect(file).not.toMatch(/LWPOLYLINE|AcDb|SPLINE|ELLIPSE/);
      expect(file).toContain('POLYLINE');
      expect(file.trimEnd().endsWith('EOF')).toBe(true);
    }
  });
});
