import { layersOn } from '../../document/surfaces.js';
import { describe, expect, it } from 'vitest';
import thimbleFile from '../../../../../demo/thimble.json?raw';
import bulrushFile from '../../../../../demo/bulrush.json?raw';
import wrenFile from '../../../../../demo/wren.json?raw';
import { readProjectFile } from '../../formats/read.js';
import { blankOf, type Part } from '../../parts/part.js';
import { boxOf, outlineArea } from '../../numeric/plane.js';
import { derive } from '../../derive/again.fixture.js';
import { applyOperation } from '../../furniture/kit.js';
import type { Operation } from '../../document/operation.js';
import type { Project } from '../../document/schema.js';

const wren = readProjectFile(wrenFile);
const bulrush = readProjectFile(bulrushFile);
const after = (project: Project, ...operations: Operation[]): Project =>
  operations.reduce((p, operation) => applyOperation(p, operation).project, project);
const at = '2026-10-02T08:00:00.000Z';
const reading = (address: string, value: number): Operation => ({
  name: 'takeReading',
  payload: { address, reading: { value, method: 'tape', at } },
});
const doorsOf = (project: Project) => derive(project, wren.priceBook).lined.doors;
const areaOf = (parts: readonly Part[]): number => parts.reduce((sum, part) => sum + outlineArea(part.outline), 0);

describe('door panels', () => {
  it('are a door less its inset, and a pair of doors has two', () => {
    const { panels, pending } = doorsOf(wren.project);
    expect(pending).toEqual([]);
    // the rear doors are 1560 wide in all and 1720 high, 25 kept back all round each leaf
    expect(panels.map(({ name, leaf, length, height }) => [name, leaf, length, height])).toEqual([
      ['Sliding door', 'whole', 1080, 1640],
      ['Rear doors', 'left', 730, 1670],
      ['Rear doors', 'right', 730, 1670],
    ]);
    const [left] = panels[1]?.parts ?? [];
    if (!left) throw new Error('no panel');
    expect(blankOf(left)).toEqual({ length: 1670, width: 730 });
    // corners of 40 less the inset: four of radius 15 take (4 - pi) r2 off the rectangle
    const lost = 730 * 1670 - outlineArea(left.outline);
    expect(lost).toBeGreaterThan(0.8 * (4 - Math.PI) * 15 ** 2);
    expect(lost).toBeLessThan(1.6 * (4 - Math.PI) * 15 ** 2);
  });

  it('are screwed in sight, round their edge, within their blank, and stand on a cut plan', () => {
    const derived = derive(wren.project, wren.priceBook);
    const placed = new Set(
      derived.plans.flatMap(({ plan }) => plan.sheets.flatMap((sheet) => sheet.placements.map((p) => p.part))),
    );
    for (const part of derived.lined.doors.panels.flatMap((panel) => panel.parts)) {
      const { length, width } = blankOf(part);
      expect(part.marks?.screws.length).toBeGreaterThan(15);
      for (const [x, y] of part.marks?.screws ?? []) {
        expect(Math.min(x, y, length - x, width - y)).toBeCloseTo(20, 6);
      }
      expect(placed.has(part.id)).toBe(true);
    }
  });

  it('are cut out for a window in the door, smaller by the undersize', () => {
    const opening = { kind: 'window', surface: 'rear', swing: 'fixed', hand: 'none', slanted: false } as const;
    const glazed = after(
      wren.project,
      {
        name: 'putOpening',
        payload: {
          opening: { id: 'rw', name: 'Rear glass', ...opening, cornerRadius: 0, framed: false, ring: null },
        },
      },
      reading('opening/rw/from', -600),
      reading('opening/rw/to', -200),
      reading('opening/rw/sill', 900),
      reading('opening/rw/head', 1400),
    );
    const before = doorsOf(wren.project).panels;
    const now = doorsOf(glazed).panels;
    expect(now[1]?.windows).toEqual(['Rear glass']);
    expect(now[2]?.windows).toEqual([]);
    expect(areaOf(before[1]?.parts ?? []) - areaOf(now[1]?.parts ?? [])).toBeCloseTo(380 * 480, 0);
  });

  it('are made of level boards where the face is sold by the length', () => {
    const layers = layersOn(wren.project.buildUps, 'doors').map((layer) =>
      layer.id === 'd2' ? { ...layer, material: 'boards-9', thickness: 9 } : layer,
    );
    const boarded: Project = { ...wren.project, buildUps: { ...wren.project.buildUps, doors: layers } };
    const [panel] = doorsOf(boarded).panels;
    if (!panel) throw new Error('no panel');
    expect(panel.parts.length).toBe(Math.ceil(1640 / 97) + 0);
    for (const part of panel.parts) expect(boxOf(part.outline.outer).maxY).toBeLessThan(96.01);
    const rows = panel.parts.map((part) => boxOf(part.outline.outer).maxY).reduce((sum, width) => sum + width, 0);
    // one gap of a millimetre between neighbours
    expect(rows).toBeCloseTo(1640 - (panel.parts.length - 1), 6);
  });

  it('wait for the readings of a door that has none, and follow their own choice', () => {
    expect(derive(bulrush.project, bulrush.priceBook).lined.doors).toMatchObject({
      panels: [{ name: 'Entry door' }],
      pending: ['Stage hatch'],
    });
    const wider = after(wren.project, { name: 'changeDoors', payload: { changes: { inset: 40 } } });
    expect(doorsOf(wider).panels[0]).toMatchObject({ length: 1050, height: 1610 });
    // kept back farther than the door is wide, there is nothing to cut
    const none = after(wren.project, { name: 'changeDoors', payload: { changes: { inset: 600 } } });
    expect(doorsOf(none).panels.map((panel) => panel.leaf)).toEqual([]);
  });

  it('are there in every demo', () => {
    const thimble = readProjectFile(thimbleFile);
    for (const file of [wren, bulrush, thimble])
      expect(derive(file.project, file.priceBook).parts.some((part) => part.role === 'door-panel')).toBe(true);
  });
});
