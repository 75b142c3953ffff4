import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import wrenFile from '../../../../demo/wren.json?raw';
import { derive } from '../derive/again.fixture.js';
import { sceneOf } from '../derive/scene-of.js';
import type { Unit } from '../document/schema.js';
import { readProjectFile } from '../formats/read.js';
import { FAMILIES } from '../furniture/families/index.js';
import { runWith } from '../furniture/units.fixture.js';
import { RULES } from './rules.js';
import { bedBands } from './bed-band.js';
import { snapAcross, snapAlong, type SnapWorld } from './snaps.js';

const { project, priceBook } = readProjectFile(wrenFile);
const derived = derive(project, priceBook);
const scene = sceneOf(project, derived, priceBook, FAMILIES);
if (!scene) throw new Error('Wren has a room');
const { inner } = scene;
const box = (id: string, side: 'left' | 'right', x: number, length: number, front = 400): Unit =>
  runWith({ id, name: id.toUpperCase(), side, x, length, front, height: 800 });
const world = (...units: Unit[]): SnapWorld => ({ units, inner, openings: [], ribs: null });

describe('a unit that is moved along', () => {
  const own = box('own', 'left', 1000, 500);
  it('comes against its neighbour before and behind', () => {
    const near = world(own, box('a', 'left', 200, 600), box('b', 'left', 2000, 400));
    expect(snapAlong(own, 812, 20, near)).toMatchObject({ to: 800, line: 800, said: { key: 'snap.beside' } });
    expect(snapAlong(own, 1495, 20, near)).toMatchObject({ to: 1500, line: 2000 });
    // beyond its reach it stays where it is put
    expect(snapAlong(own, 840, 20, near)).toBeNull();
  });
  it('stands with equal gaps between both of them', () => {
    const near = world(own, box('a', 'left', 200, 600), box('b', 'left', 2000, 400));
    // 800 to 2000 is 1200, less its 500 leaves 350 on either side
    expect(snapAlong(own, 1145, 20, near)).toMatchObject({ to: 1150, said: { key: 'snap.equal' } });
  });
  it('stands in line with what is opposite, which is not in its way', () => {
    const near = world(own, box('o', 'right', 930, 900));
    expect(snapAlong(own, 935, 20, near)).toMatchObject({ to: 930, said: { key: 'snap.inLine' } });
    expect(snapAlong(own, 1325, 20, near)).toMatchObject({ to: 1330, line: 1830 });
  });
  it('has an end at a rib of its own wall, at the edge of a window in it, and at the end of the floor', () => {
    const [rib] = derived.ribs.on.left.ribs;
    const window = scene.openings.find(({ opening }) => opening.kind === 'window' && opening.surface === 'left');
    if (!rib || !window) throw new Error('Wren has ribs and a window on the left');
    const all: SnapWorld = { units: [own], inner, openings: [window], ribs: derived.ribs };
    expect(snapAlong(own, rib.x + 3, 8, all)?.line).toBeCloseTo(rib.x, 6);
    expect(snapAlong(own, window.from - 500 + 2, 5, all)).toMatchObject({ said: { key: 'snap.opening' } });
    const right = box('own', 'right', 1000, 500);
    expect(snapAlong(right, window.from - 500 + 2, 1, { ...all, ribs: null })).toBeNull();
    expect(snapAlong(own, inner.length - 490, 20, all)).toMatchObject({ line: inner.length });
  });
  it('is never drawn further than its reach, and an end of it lies on the line that is told', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: -200, max: 3600 }),
        fc.integer({ min: 1, max: 60 }),
        fc.integer({ min: 0, max: 3000 }),
        fc.integer({ min: 0, max: 3000 }),
        (x, reach, a, b) => {
          const near = { ...world(own, box('a', 'left', a, 300), box('b', 'right', b, 700)), ribs: derived.ribs };
          const snap = snapAlong(own, x, reach, near);
          if (!snap) return;
          expect(Math.abs(snap.to - x)).toBeLessThanOrEqual(reach);
          expect([snap.to, snap.to + 500].some((end) => Math.abs(end - snap.line) < 1e-6)).toBe(true);
        },
      ),
      { numRuns: 100, seed: 31 },
    );
  });
});

describe('a front that is moved across', () => {
  const own = box('own', 'left', 1000, 500, 400);
  it('comes into the line of its wall, or as far out as one opposite', () => {
    const near = world(own, box('a', 'left', 200, 600, 370), box('o', 'right', 900, 900, 430));
    expect(snapAcross(own, 377, 10, near)).toMatchObject({ to: 370, line: -370, said: { key: 'snap.front' } });
    expect(snapAcross(own, 425, 10, near)).toMatchObject({ to: 430, line: -430, said: { key: 'snap.opposite' } });
    expect(snapAcross(own, 400, 10, near)).toBeNull();
  });
});

describe('the heights of a bed', () => {
  const bed = project.layout.units.find(({ family }) => family === 'bed-platform');
  if (!bed) throw new Error('Wren has a bed');
  const bands = bedBands(bed, scene);
  const gradeAt = (height: number) => bands.find(({ from, to }) => height >= from && height <= to)?.grade;
  it('are good where everybody sits up and finds the floor, by the rules themselves', () => {
    // back of knee of the shorter is 0.245 x 1664 + 25 = 432.7; with 150 and 0.85 of a mattress of 100 less: 497.7
    expect(gradeAt(495)).toBe('good');
    expect(gradeAt(500)).not.toBe('good');
    // 720 as it stands is what the checks of the plan say: a step is needed
    expect(gradeAt(bed.body.to)).toBe('tight');
    expect(gradeAt(1500)).toBe('fails');
  });
  it('follow each other without a hole', () => {
    bands.slice(1).forEach((band, i) => expect(band.from).toBe((bands[i]?.to ?? 0) + 5));
    expect(RULES.map(({ name }) => name)).toEqual(expect.arrayContaining(['sitting-up', 'bed-edge']));
  });
  it('are nothing where nobody sleeps', () => {
    expect(bedBands({ ...bed, options: { ...bed.options, sleepers: [] } }, scene)).toEqual([]);
  });
});
