import { describe, expect, it } from 'vitest';
import bulrushFile from '../../../../../demo/bulrush.json?raw';
import { readProjectFile } from '../../formats/read.js';
import { outlineArea } from '../../numeric/plane.js';
import { derive } from '../../derive/derive.js';
import { applyOperation } from '../../furniture/kit.js';
import type { BoxChoice } from '../../document/schema.js';
import { say } from '../../words/say.js';

const bulrush = readProjectFile(bulrushFile);
const boxed = (changes: Partial<BoxChoice>) =>
  derive(applyOperation(bulrush.project, { name: 'changeBoxes', payload: { changes } }).project, bulrush.priceBook);
const first = (changes: Partial<BoxChoice>) => {
  const [box] = boxed(changes).lined.archBoxes;
  if (!box) throw new Error('no box');
  return box;
};

describe('a box over a wheel arch', () => {
  it('gives under a foot as a beam loaded in its middle does', () => {
    const box = first({ load: 'step', board: 'birch-12', access: 'fixed' });
    // 1200 N over a strip of 300: F l3 / 48 E I with E of birch across its grain and I = 300 x 12^3 / 12
    const inertia = (300 * 12 ** 3) / 12;
    expect(box.load).toEqual({ newtons: 1200, over: 300 });
    expect(box.sag).toBeCloseTo((1200 * box.depth ** 3) / (48 * 6500 * inertia), 6);
    expect(box.allowed).toBeCloseTo(box.depth / 200, 9);
  });

  it('gives less under somebody sitting, whose weight is spread', () => {
    const sat = first({ load: 'seat', board: 'birch-12' });
    const inertia = (400 * 12 ** 3) / 12;
    expect(sat.sag).toBeCloseTo((5 * 1000 * sat.depth ** 3) / (384 * 6500 * inertia), 6);
    expect(sat.sag).toBeLessThan(first({ load: 'step', board: 'birch-12' }).sag ?? 0);
  });

  it('bears what is stored on it, or says that it does not', () => {
    const light = boxed({ load: 'store', stored: 40, board: 'birch-9' });
    expect(light.lined.archBoxes[0]?.load.newtons).toBeCloseTo(392.4, 6);
    expect(light.lined.archBoxes[0]?.strong).toBe(true);
    const heavy = boxed({ load: 'store', stored: 900, board: 'birch-9' });
    expect(heavy.lined.archBoxes[0]?.strong).toBe(false);
    expect(heavy.problems.map((problem) => say(problem.said)).join()).toContain('too thin for what is stored on it');
  });

  it('has a lid with play and a hole for a finger when it is to lift off', () => {
    const [fixed, lid] = (['fixed', 'lid'] as const).map((access) =>
      first({ access }).parts.find((part) => part.role === 'arch-top'),
    );
    expect(fixed?.outline.holes).toEqual([]);
    expect(lid?.outline.holes).toHaveLength(1);
    const hole = outlineArea({ outer: lid?.outline.holes[0] ?? [], holes: [] });
    expect(hole).toBeGreaterThan(0.97 * Math.PI * 12.5 ** 2);
    expect(hole).toBeLessThan(Math.PI * 12.5 ** 2);
    expect(outlineArea({ outer: lid?.outline.outer ?? [], holes: [] })).toBeLessThan(
      outlineArea(fixed ? fixed.outline : { outer: [], holes: [] }),
    );
  });

  it('says how a unit over the arch would be notched instead, and how the box is held', () => {
    const derived = boxed({ clearance: 20 });
    const box = derived.lined.archBoxes[0];
    const arch = derived.arches.find((one) => one.id === box?.arch);
    expect(box?.notch.length).toBeCloseTo((arch?.to ?? 0) - (arch?.from ?? 0) + 40, 6);
    expect(box?.notch.height).toBeCloseTo((arch?.height ?? 0) + 20 - (derived.inner?.floor ?? 0), 6);
    expect(box?.brackets).toBe(2 * (Math.ceil((box?.length ?? 0) / 400) + 1));
  });
});
