import { layersOn } from '../document/surfaces.js';
import { describe, expect, it } from 'vitest';
import bulrushText from '../../../../demo/bulrush.json?raw';
import thimbleText from '../../../../demo/thimble.json?raw';
import wrenText from '../../../../demo/wren.json?raw';
import operationsSchema from '../../../../docs/formats/operations.schema.json?raw';
import fileSchema from '../../../../docs/formats/nest-plank-file.schema.json?raw';
import { startPriceBook } from '../materials/start-book.js';
import { jsonSchemas } from '../formats/schema-json.js';
import { readProjectFile } from '../formats/read.js';
import { progressOf } from '../measure/walk.js';
import { halfWidth } from '../shell/shell.js';
import { derive } from './again.fixture.js';

const open = (text: string) => {
  const { project, priceBook } = readProjectFile(text);
  return { project, priceBook, derived: derive(project, priceBook) };
};

describe('Wren', () => {
  const { project, derived } = open(wrenText);
  it('has the figures of the scenario', () => {
    const { shell } = derived;
    if (!shell) throw new Error('no shell');
    const across = (x: number, z: number): number => halfWidth(shell, 'left', x, z) + halfWidth(shell, 'right', x, z);
    expect(shell.length).toBe(3690);
    expect(Math.abs(across(1380, 0) - 1785)).toBeLessThan(3);
    expect(Math.abs(across(2600, 700) - 1872)).toBeLessThan(4);
    expect(Math.abs((derived.bareRoom?.standing.value ?? 0) - 1905)).toBeLessThan(8);
    const faces = derived.arches.map((arch) => arch.face);
    expect((faces[0] ?? 0) + (faces[1] ?? 0)).toBe(1392);
  });
  it('has its whole survey but the skylight, every layer built up, and nothing that does not close', () => {
    const progress = progressOf(project.survey);
    expect([progress.next, progress.skipped]).toEqual([null, 4]);
    expect(derived.closures.every((closure) => closure.verdict === 'good')).toBe(true);
    expect(derived.outliers).toEqual([]);
    expect(derived.problems).toEqual([]);
    // its makers' windows lie over ribs that were read as running all the way
    expect(
      derived.lined.linings.flatMap(({ notes }) => notes.filter(({ key }) => key === 'opening.windowRib')),
    ).toHaveLength(2);
    for (const surface of ['floor', 'left', 'right', 'ceiling', 'doors', 'windows'] as const)
      expect(layersOn(project.buildUps, surface).length).toBeGreaterThan(0);
    expect(project.buildUpVariants).toHaveLength(1);
  });
});

describe('Bulrush', () => {
  const { project, priceBook, derived } = open(bulrushText);
  it('is a bus in inches and dollars, half surveyed', () => {
    expect([project.vehicle.kind, project.settings.units, priceBook.currency]).toEqual(['bus', 'in', 'USD']);
    const { taken, total } = progressOf(project.survey);
    expect(taken / total).toBeGreaterThan(0.45);
    expect(taken / total).toBeLessThan(0.75);
    expect(derived.quality?.good).toBe(false);
    expect(derived.quality?.next).not.toBeNull();
  });
  it('has closures that fail, the slip that explains one of them, and checks that fail', () => {
    expect(
      derived.closures.filter((closure) => closure.verdict === 'fails').map((closure) => closure.what.key),
    ).toEqual(['closure.diagonals', 'closure.width', 'closure.length']);
    expect(derived.outliers.map((outlier) => [outlier.address, outlier.slip?.key])).toEqual([
      ['station/s2/left/0', 'slip.inch'],
    ]);
    expect(derived.checks.filter((check) => check.grade === 'fails').length).toBeGreaterThan(3);
  });
  it('has straight walls up to 34 in, timber that measures less than it is sold for, and a tank under the floor', () => {
    const { shell } = derived;
    if (!shell) throw new Error('no shell');
    expect(Math.abs(halfWidth(shell, 'left', 4500, 60) - halfWidth(shell, 'left', 4500, 800))).toBeLessThan(4);
    expect(halfWidth(shell, 'left', 4500, 800) - halfWidth(shell, 'left', 4500, 1600)).toBeGreaterThan(60);
    const batten = derived.depths.floor.layers[0];
    expect(batten?.material?.soldAs).toBe('2 x 2');
    expect(batten?.thickness).toBeCloseTo(36.5125, 6);
    expect(project.survey.keepOuts.map((keepOut) => keepOut.reason)).toEqual(['tank']);
  });
});

describe('Thimble', () => {
  const { project, derived } = open(thimbleText);
  it('is a box trailer, surveyed from end to end, its leak test passed', () => {
    expect(project.survey.boxed).toBe(true);
    expect(progressOf(project.survey).next).toBeNull();
    expect(project.survey.leakTest.state).toBe('passed');
    expect(derived.shell?.length).toBe(3000);
    expect(Math.abs((derived.bareRoom?.widthAtFloor.value ?? 0) - 1500)).toBeLessThan(3);
  });
  it('goes by the measured thickness of its board, and by its ring for the window', () => {
    expect(derived.depths.floor.total).toBeCloseTo(28.8, 9);
    expect(derived.parts.filter((part) => part.role === 'subfloor').every((part) => part.thickness === 8.8)).toBe(true);
    // frames 25 behind the ribs and 5 of lining, against a ring of 34
    expect(derived.reveals.find((reveal) => reveal.opening.id === 'o3')?.packers).toEqual([
      { side: 'sill', from: -4, to: -4 },
      { side: 'head', from: -4, to: -3 },
      { side: 'front', from: -4, to: -4 },
      { side: 'rear', from: -4, to: -3 },
    ]);
  });
});

describe('the price book', () => {
  it('has of every layer what warmth, damp, mass and money are worked out from', () => {
    const layered = startPriceBook().items.filter((item) => item.thickness > 0);
    expect(layered.length).toBeGreaterThan(10);
    for (const item of layered) {
      expect([item.id, item.conductivity > 0, item.vapour > 0, item.density > 0, item.hours > 0]).toEqual([
        item.id,
        true,
        true,
        true,
        true,
      ]);
      expect(item.pack !== null || item.stocks.length > 0).toBe(true);
    }
  });
  it('has fasteners whose names say their size', () => {
    const fasteners = startPriceBook().items.flatMap((item) => (item.fastener ? [{ item, ...item.fastener }] : []));
    expect(fasteners.length).toBeGreaterThan(8);
    for (const { item, diameter, length } of fasteners) expect(item.name).toContain(`${diameter} x ${length}`);
  });
});

describe('the published schemas', () => {
  it('are those of this version', () => {
    const made = jsonSchemas();
    expect(JSON.parse(fileSchema)).toEqual(JSON.parse(JSON.stringify(made['nest-plank-file.schema.json'])));
    expect(JSON.parse(operationsSchema)).toEqual(JSON.parse(JSON.stringify(made['operations.schema.json'])));
  });
});
