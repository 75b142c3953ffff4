import { isOpen } from '../layout/checks/checks.js';
import { describe, expect, it } from 'vitest';
import bulrushText from '../../../../demo/bulrush.json?raw';
import thimbleText from '../../../../demo/thimble.json?raw';
import wrenText from '../../../../demo/wren.json?raw';
import { createProject } from '../document/create.js';
import { startPriceBook } from '../materials/start-book.js';
import { readProjectFile } from '../formats/read.js';
import { boxOf } from '../numeric/plane.js';
import { derive } from './again.fixture.js';
import { smallFoldOut } from './small-foldout.js';

describe('the small fold-out of a build', () => {
  it.each([wrenText, bulrushText, thimbleText])('has everything of it inside its window, true to scale', (text) => {
    const { project, priceBook } = readProjectFile(text);
    const derived = derive(project, priceBook);
    const small = smallFoldOut(project, derived);
    if (!small) throw new Error('no shell');
    expect(small.length).toBe(derived.shell?.length);
    expect(small.bands).toHaveLength(3);
    for (const ring of [...small.bands, ...small.openings.map((opening) => opening.ring)]) {
      const box = boxOf(ring);
      expect(box.minX).toBeGreaterThanOrEqual(-1);
      expect(box.maxX).toBeLessThanOrEqual(small.width + 1);
    }
    const floor = boxOf(small.bands[1] ?? []);
    expect(Math.abs((floor.minX + floor.maxX) / 2 - small.width / 2)).toBeLessThan(20);
    expect(small.units).toHaveLength(project.layout.units.length);
    project.layout.units.forEach((unit, i) => {
      const [ring, { body }] = [small.units[i] ?? [], unit];
      const box = boxOf(ring);
      expect(box.minY).toBeCloseTo(body.x, 6);
      expect(box.maxY).toBeCloseTo(body.x + body.length, 6);
      // one that stands free is as wide as it is, and lies as far from the middle; one at a wall begins at its edge
      if (body.stands === 'free') {
        expect(box.maxX - box.minX).toBeCloseTo(body.width, 6);
        expect(
          Math.abs(Math.abs((box.minX + box.maxX) / 2 - small.width / 2) - Math.abs(body.y + body.width / 2)),
        ).toBeLessThan(20);
      } else {
        expect(box.maxX - box.minX, unit.id).toBeGreaterThan(100);
        expect([box.minX < small.width / 2, box.maxX > small.width / 2]).toContain(true);
        if (body.stands === 'left') expect(box.minX).toBeLessThan(small.width / 2 - 500);
        if (body.stands === 'right') expect(box.maxX).toBeGreaterThan(small.width / 2 + 500);
      }
    });
    expect(small.state).toEqual({
      readings: derived.progress.taken,
      worst: derived.quality?.worst ?? null,
      units: project.layout.units.length,
      fails: derived.checks.filter(isOpen).length,
      unknown: derived.missing.length,
    });
  });
  it('is none before anything is measured', () => {
    const project = createProject({ id: 'x', name: 'X', kind: 'van', model: '', units: 'mm', startDate: '2026-11-02' });
    expect(smallFoldOut(project, derive(project, startPriceBook()))).toBeNull();
  });
});
