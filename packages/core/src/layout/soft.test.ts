import { describe, expect, it } from 'vitest';
import bulrushFile from '../../../../demo/bulrush.json?raw';
import thimbleFile from '../../../../demo/thimble.json?raw';
import wrenFile from '../../../../demo/wren.json?raw';
import { derive } from '../derive/again.fixture.js';
import { sceneOf } from '../derive/scene-of.js';
import type { Project, Unit } from '../document/schema.js';
import { readProjectFile } from '../formats/read.js';
import { FAMILIES } from '../furniture/families/index.js';
import { applyOperation } from '../furniture/kit.js';
import type { Operation } from '../document/operation.js';
import { spread } from '../numeric/plane.js';
import { halfWidth } from '../shell/shell.js';
import { softAt, softIn } from './soft.js';

function softs(text: string, ...operations: Operation[]) {
  const { project: first, priceBook } = readProjectFile(text);
  const project = operations.reduce<Project>((p, operation) => applyOperation(p, operation, priceBook).project, first);
  const scene = sceneOf(project, derive(project, priceBook), priceBook, FAMILIES);
  if (!scene) throw new Error('there is no room');
  return { scene, softs: softIn(scene) };
}

const seat = (): Unit => {
  const { project, priceBook: book } = readProjectFile(wrenFile);
  const room = derive(project, book).inner;
  const family = FAMILIES.find(({ id }) => id === 'seat');
  if (!room || !family) throw new Error('there is no seat');
  return family.start({ id: 'sofa', name: 'Sofa', layout: project.layout, people: project.people, room, book });
};

describe('mattresses and cushions', () => {
  it('a mattress lies on its bed, as thick as was said, and covers it from end to end', () => {
    const { scene, softs: all } = softs(wrenFile);
    const bed = scene.units.find(({ id }) => id === 'bed');
    const mattress = all.find(({ id }) => id === 'bed.mattress');
    expect(bed && mattress?.box.x0).toBe(bed?.body.x);
    expect((mattress?.box.x1 ?? 0) - (mattress?.box.x0 ?? 0)).toBeCloseTo(bed?.body.length ?? NaN, 6);
    expect(mattress?.box.z0).toBeCloseTo(scene.inner.floor + (bed?.body.to ?? NaN), 6);
    expect((mattress?.box.z1 ?? 0) - (mattress?.box.z0 ?? 0)).toBeCloseTo(Number(bed?.options['mattress']), 6);
  });
  it.each([
    ['Wren', wrenFile],
    ['Bulrush', bulrushFile],
    ['Thimble', thimbleFile],
  ])('%s: none of them is in a wall', (_name, text) => {
    const { scene, softs: all } = softs(text);
    expect(all.length).toBeGreaterThan(0);
    expect(new Set(all.map(({ id }) => id)).size).toBe(all.length);
    for (const { box } of all) {
      expect(box.y1).toBeGreaterThan(box.y0);
      // at the very places that were looked at
      for (const x of spread(box.x0, box.x1, 9))
        for (const z of spread(box.z0, box.z1, 3)) {
          expect(-box.y0).toBeLessThanOrEqual(halfWidth(scene.inner, 'left', x, z) + 1e-6);
          expect(box.y1).toBeLessThanOrEqual(halfWidth(scene.inner, 'right', x, z) + 1e-6);
        }
    }
  });
  it('a cushion is as deep as its seat, and lies over the lids that are lifted there', () => {
    const { scene, softs: all } = softs(wrenFile, { name: 'placeUnit', payload: { unit: seat() } });
    const cushion = all.find(({ id }) => id === 'sofa.cushion');
    const lids = (scene.skeletons.get('sofa')?.motions ?? []).filter(({ of }) => of.endsWith('.lid'));
    expect(lids.length).toBeGreaterThan(0);
    expect(cushion?.under).toEqual(lids.map(({ of }) => of));
    const { box } = cushion ?? { box: { x0: 0, x1: 0, y0: 0, y1: 0, z0: 0, z1: 0 } };
    expect(box.x1 - box.x0).toBeCloseTo(seat().body.length, 6);
    expect(box.z1 - box.z0).toBeCloseTo(Number(seat().options['cushion']), 6);
    expect(box.y1 - box.y0).toBeGreaterThan(300);
  });
  it('what is a bed and a seat has its mattress alone', () => {
    const { softs: all } = softs(thimbleFile);
    expect(all.map(({ id }) => id)).toEqual(['bed.mattress']);
  });
  it('is none where no mattress is laid', () => {
    const { softs: all } = softs(wrenFile, { name: 'changeUnit', payload: { id: 'bed', changes: { mattress: 0 } } });
    expect(all.some(({ id }) => id === 'bed.mattress')).toBe(false);
  });
  it.each([
    ['Wren', wrenFile],
    ['Bulrush', bulrushFile],
    ['Thimble', thimbleFile],
  ])('%s: they weigh 40 kg for each cubic metre, at the middle of the block that each is', (_name, text) => {
    const { project, priceBook } = readProjectFile(text);
    const derived = derive(project, priceBook);
    const scene = sceneOf(project, derived, priceBook, FAMILIES);
    if (!scene) throw new Error('there is no room');
    const litres = softIn(scene).reduce((sum, { volume }) => sum + volume / 1e6, 0);
    expect(derived.weight.soft).toBeCloseTo(litres * 0.04, 6);
    // taken away again, each unit is lighter by what lay on it
    const bare = derive(
      {
        ...project,
        layout: {
          ...project.layout,
          units: project.layout.units.map((unit) => ({
            ...unit,
            options: Object.fromEntries(
              Object.entries(unit.options).map(([name, value]) => [
                name,
                name === 'mattress' || name === 'cushion' ? 0 : value,
              ]),
            ),
          })),
        },
      },
      priceBook,
    );
    expect(bare.weight.soft).toBe(0);
    // a guard is so much higher than its mattress
    const guarded = new Set(project.layout.units.filter(({ options }) => 'guard' in options).map(({ id }) => id));
    for (const { unit, kg } of derived.weight.units.filter((one) => !guarded.has(one.unit))) {
      const litresOf = softIn(scene)
        .filter((one) => one.unit === unit)
        .reduce((sum, { volume }) => sum + volume / 1e6, 0);
      expect(kg - (bare.weight.units.find((one) => one.unit === unit)?.kg ?? 0)).toBeCloseTo(litresOf * 0.04, 6);
    }
  });
  it('of a bed that is drawn out all of the mattress counts, also what stands at its back by day', () => {
    const { scene, softs: all } = softs(thimbleFile);
    const bed = scene.units.find(({ family }) => family === 'slide-out-bed');
    const out = bed && FAMILIES.find(({ id }) => id === 'slide-out-bed')?.lies?.(bed).out?.by;
    const mattress = all.find(({ unit }) => unit === bed?.id);
    if (!bed || !mattress || !out) throw new Error('there is no slide-out bed');
    const { x0, x1, y0, y1, z0, z1 } = mattress.box;
    expect(mattress.volume).toBeCloseTo((x1 - x0) * (y1 - y0 + out) * (z1 - z0), 3);
    // by night the other half lies before it, as far as the bed is drawn out
    const of = `${bed.id}.slide`;
    const sign = bed.body.stands === 'left' ? -1 : 1;
    expect(softAt(mattress, {})).toEqual([mattress.box]);
    for (const share of [0.5, 1]) {
      const [, other] = softAt(mattress, { [of]: share });
      expect((other?.y1 ?? 0) - (other?.y0 ?? 0)).toBeCloseTo(out * share, 6);
      expect(sign > 0 ? other?.y1 : other?.y0).toBe(sign > 0 ? y0 : y1);
    }
  });
  it('is taken off what is opened under it', () => {
    const placed = { name: 'placeUnit' as const, payload: { unit: seat() } };
    const { softs: all } = softs(wrenFile, placed);
    const cushion = all.find(({ unit }) => unit === 'sofa');
    const [lid = ''] = cushion?.under ?? [];
    expect(cushion && softAt(cushion, {})).toHaveLength(1);
    expect(cushion && softAt(cushion, { [lid]: 1 })).toEqual([]);
  });
});
