import { describe, expect, it } from 'vitest';
import bulrushFile from '../../../../../demo/bulrush.json?raw';
import { readProjectFile } from '../../formats/read.js';
import { outlineArea } from '../../numeric/plane.js';
import { derive } from '../../derive/again.fixture.js';
import { applyOperation } from '../../furniture/kit.js';
import type { Operation } from '../../document/operation.js';
import { halfWidth } from '../../shell/shell.js';
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

  it('loses the room between it and the arch: more beside a round one than beside a square one, more yet beside a taper', () => {
    const [arch] = bulrush.project.survey.arches;
    if (!arch) throw new Error('an arch');
    const shaped = (shape: typeof arch.shape, topFace?: number): number => {
      const operations: Operation[] = [
        { name: 'putArch', payload: { arch: { ...arch, shape } } },
        ...(topFace === undefined
          ? []
          : [
              {
                name: 'takeReading' as const,
                payload: {
                  address: `arch/${arch.id}/top-face`,
                  reading: { value: topFace, method: 'tape' as const, at: '2026-01-01T10:00:00.000Z' },
                },
              },
            ]),
      ];
      const project = operations.reduce((now, operation) => applyOperation(now, operation).project, bulrush.project);
      const box = derive(project, bulrush.priceBook).lined.archBoxes.find((own) => own.arch === arch.id);
      return box?.dead ?? NaN;
    };
    const square = shaped('box');
    const { arches, inner } = derive(bulrush.project, bulrush.priceBook);
    const own = arches.find(({ id }) => id === arch.id);
    if (!own || !inner) throw new Error('an arch in a room');
    // half an ellipse over the floor fills a share of pi / 4 of its rectangle, a little less where the floor's layers cover its foot
    const deep = halfWidth(inner, own.side, (own.from + own.to) / 2, own.height / 2) - own.face;
    const rectangle = ((own.to - own.from) * (own.height - inner.floor) * deep) / 1e6;
    const lost = shaped('rounded') - square;
    expect(lost).toBeGreaterThan((1 - Math.PI / 4) * rectangle * 0.9);
    expect(lost).toBeLessThan((1 - Math.PI / 4) * rectangle * 1.6);
    // leaning back by 100 from foot to top it takes 50 less of the depth on the average, a little more over the floor's layers
    const tapered = shaped('tapered', own.face + 100) - shaped('tapered', own.face);
    const wedge = ((own.to - own.from) * (own.height - inner.floor) * 50) / 1e6;
    expect(tapered).toBeGreaterThan(wedge);
    expect(tapered).toBeLessThan(1.3 * wedge);
    expect(shaped('tapered', own.face + 100) - square).toBeGreaterThan(0);
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
