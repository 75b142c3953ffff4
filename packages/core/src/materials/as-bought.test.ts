import { describe, expect, it } from 'vitest';
import wrenText from '../../../../demo/wren.json?raw';
import { derive } from '../derive/again.fixture.js';
import type { MeasuredMaterial, Project } from '../document/schema.js';
import { layersOn } from '../document/surfaces.js';
import { readProjectFile } from '../formats/read.js';
import { bookAsBought, buildUpsAsBought } from './as-bought.js';
import { materialOf } from './material.js';

const { project, priceBook } = readProjectFile(wrenText);
const measured = (...list: MeasuredMaterial[]): Project => ({ ...project, measured: list });

describe('what was bought and measured', () => {
  it('takes the place of nominal sizes in the book, a width only where it was measured', () => {
    const item = materialOf(
      bookAsBought(priceBook, [{ material: 'batten-18', thickness: 17.2, width: 43 }]),
      'batten-18',
    );
    expect([item?.thickness, item?.width]).toEqual([17.2, 43]);
    const plain = materialOf(bookAsBought(priceBook, [{ material: 'batten-18', thickness: 17.2 }]), 'batten-18');
    expect(plain?.width).toBe(materialOf(priceBook, 'batten-18')?.width);
  });
  it('changes the layers made of it, but not one that was measured itself or is no sheet of that thickness', () => {
    const [first] = layersOn(project.buildUps, 'left').filter(({ material }) => material === 'boards-9');
    if (!first) throw new Error('no boards');
    const list = [{ material: 'boards-9', thickness: 8.4 }];
    const of = (layer: typeof first) =>
      layersOn(buildUpsAsBought({ ...project.buildUps, left: [layer] }, priceBook, list), 'left')[0]?.measured;
    expect(of(first)).toBe(8.4);
    expect(of({ ...first, measured: 9.2 })).toBe(9.2);
    expect(of({ ...first, thickness: 12 })).toBeNull();
  });
  it('is one thickness in layers, room, parts, mass and plans alike', () => {
    const before = derive(project, priceBook);
    const after = derive(measured({ material: 'boards-9', thickness: 8.4 }), priceBook);
    // boards line both walls and the ceiling of this van
    expect(before.depths.left.total - after.depths.left.total).toBeCloseTo(0.6, 9);
    expect((after.room?.widthAtBed.value ?? 0) - (before.room?.widthAtBed.value ?? 0)).toBeCloseTo(1.2, 2);
    expect((after.room?.standing.value ?? 0) - (before.room?.standing.value ?? 0)).toBeCloseTo(0.6, 2);
    const boards = after.parts.filter(({ material }) => material === 'boards-9');
    expect(boards.length).toBeGreaterThan(0);
    expect(new Set(boards.map(({ thickness }) => thickness))).toEqual(new Set([8.4]));
    expect(after.plans.find(({ material }) => material.id === 'boards-9')?.material.thickness).toBe(8.4);
    const kg = (of: typeof before): number => of.mass.of.find(({ id }) => id === 'left')?.kg ?? NaN;
    expect(kg(after)).toBeLessThan(kg(before));
    // what screws pass through is what was bought
    const passed = (of: typeof before): number => of.fixings.find(({ surface }) => surface === 'left')?.passed ?? NaN;
    expect(passed(before) - passed(after)).toBeCloseTo(0.6, 9);
  });
  it('moves floor battens, and screws through the board with it', () => {
    const before = derive(project, priceBook);
    const after = derive(measured({ material: 'birch-12', thickness: 11.4 }), priceBook);
    expect(before.depths.floor.total - after.depths.floor.total).toBeCloseTo(0.6, 9);
    expect(after.parts.filter(({ role }) => role === 'subfloor').every(({ thickness }) => thickness === 11.4)).toBe(
      true,
    );
  });
  it('says that a bowed board laid loose lies on nothing that holds it flat, and only then', () => {
    const bowed = { material: 'birch-12', thickness: 12, bowed: true };
    const problems = (list: MeasuredMaterial[], fixing: 'screwed' | 'loose'): string[] =>
      derive({ ...measured(...list), floor: { ...project.floor, fixing } }, priceBook).problems.map(
        ({ said }) => said.key,
      );
    expect(problems([bowed], 'loose')).toContain('floor.bowedLoose');
    expect(problems([bowed], 'screwed')).not.toContain('floor.bowedLoose');
    expect(problems([{ ...bowed, bowed: false }], 'loose')).not.toContain('floor.bowedLoose');
  });
});
