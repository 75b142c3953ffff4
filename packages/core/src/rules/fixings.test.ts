import { describe, expect, it } from 'vitest';
import wrenFile from '../../../../demo/wren.json?raw';
import { readProjectFile } from '../formats/read.js';
import { derive } from '../derive/again.fixture.js';
import { fixingRule, pilotRule } from './fixings.js';

describe('the length of a screw', () => {
  const wood = { passed: 12, gap: 0, into: 'wood', depth: 30, diameter: 4 } as const;

  it('bites six diameters and stays short of what lies beyond', () => {
    // 12 through the board, 24 of bite; no more than 12 + 30 - 5
    expect(fixingRule.run({ ...wood, stocked: [20, 30, 35, 40] })).toEqual({ least: 36, most: 37, pick: null });
    expect(fixingRule.run({ ...wood, depth: 38, stocked: [30, 40, 50] })).toEqual({ least: 36, most: 45, pick: 40 });
  });
  it('may go nearly through timber that nothing lies behind', () => {
    // 9 of board on 18 of batten, 3.5 thick: two thirds of the batten at least, all but 1 at most
    const hidden = { ...wood, passed: 9, depth: 18, diameter: 3.5, stocked: [20, 25, 30] };
    expect(fixingRule.run(hidden)).toEqual({ least: 21, most: 22, pick: null });
    expect(fixingRule.run({ ...hidden, spare: 1 })).toEqual({ least: 21, most: 26, pick: 25 });
  });
  it('bites two thirds of thin wood, and goes six past sheet steel', () => {
    expect(fixingRule.run({ ...wood, passed: 5, depth: 18, stocked: [] }).least).toBeCloseTo(17, 6);
    expect(fixingRule.run({ ...wood, into: 'steel', passed: 9, stocked: [19] })).toMatchObject({ least: 15, pick: 19 });
  });
});

describe('a pilot hole', () => {
  it('goes by the screw: 0.7 of it in wood, 0.85 in steel, none for a brad', () => {
    expect(pilotRule.run({ kind: 'wood', diameter: 4 })).toEqual({ pilot: 2.8, undrilled: 20, drilled: 12 });
    expect(pilotRule.run({ kind: 'metal', diameter: 4.8 }).pilot).toBeCloseTo(4.08, 6);
    expect(pilotRule.run({ kind: 'brad', diameter: 1.2 }).pilot).toBe(0);
  });
  it('is told for every fixing that is picked, and every task says what to have at hand', () => {
    const wren = readProjectFile(wrenFile);
    const derived = derive(wren.project, wren.priceBook);
    const picked = derived.fixings.flatMap((fixing) => fixing.pick ?? []);
    expect(picked.length).toBeGreaterThan(2);
    for (const { pilot, undrilled, drilled } of picked) {
      expect(pilot).toBeGreaterThan(2);
      expect(undrilled / drilled).toBeCloseTo(5 / 3, 6);
    }
    expect(derived.schedule.tasks.every(({ task }) => task.tools.key.startsWith('tools.'))).toBe(true);
  });
});
