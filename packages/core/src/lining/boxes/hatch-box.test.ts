import { describe, expect, it } from 'vitest';
import thimbleFile from '../../../../../demo/thimble.json?raw';
import { readProjectFile } from '../../formats/read.js';
import { blankOf } from '../../parts/part.js';
import { derive } from '../../derive/again.fixture.js';
import { applyOperation } from '../../furniture/kit.js';
import { squareCorners } from './square-corners.fixture.js';
import { roofHeight } from '../../shell/shell.js';

const thimble = readProjectFile(thimbleFile);
const derived = derive(squareCorners(thimble.project), thimble.priceBook);
const box = derived.lined.windowBoxes.find((candidate) => candidate.above);
if (!box || !derived.inner) throw new Error('no hatch box');
const { inner } = derived;

describe('the box of a roof hatch', () => {
  it('is as large as its opening less its boards, and loses that much light', () => {
    // 800 x 700, boards of 9
    expect(box.clear).toEqual({ length: 782, top: 782, height: 682 });
    expect(box.lost).toBeCloseTo(1 - (782 * 682) / (800 * 700), 9);
    expect(box.track).toBeNull();
    expect(box.missing).toEqual([]);
  });

  it('is as deep as the frame lies over the finished ceiling, less in the middle where the ceiling rises', () => {
    // the frame is 24 over the ribs, and the ceiling’s face 5 below them
    const along = box.parts.filter((part) => part.id.endsWith('-sill') || part.id.endsWith('-head'));
    for (const part of along) expect(blankOf(part)).toEqual({ length: 800, width: 29 });
    const front = box.parts.find((part) => part.id.endsWith('-front'));
    const depths = (front?.outline.outer ?? []).slice(2).map(([, deep]) => deep);
    const rise = roofHeight(inner, 350, 0) - (roofHeight(inner, 350, -350) + roofHeight(inner, 350, 350)) / 2;
    expect(rise).toBeGreaterThan(1);
    expect(Math.min(...depths)).toBeCloseTo(29 - rise, 0);
    expect(Math.max(...depths)).toBeCloseTo(29, 0);
  });

  it('hangs from the frame: every board’s top lies as high as the frame there', () => {
    for (const part of box.parts.filter((candidate) => candidate.role === 'reveal')) {
      const [x, y, z] = part.place.origin;
      expect(part.place.across).toEqual([0, 0, -1]);
      expect(z - roofHeight(inner, x, y)).toBeGreaterThan(28);
      expect(z - roofHeight(inner, x, y)).toBeLessThan(30);
    }
  });

  it('has a mitred trim that is cut from bars', () => {
    const trim = box.parts.filter((part) => part.role === 'trim');
    expect(trim.map((part) => blankOf(part).length)).toEqual([848, 848, 748, 748]);
    expect(trim.every((part) => part.ends?.start === 45 && part.ends.end === 45)).toBe(true);
  });

  it('waits for the depths that are not read', () => {
    const { project } = applyOperation(thimble.project, {
      name: 'removeReading',
      payload: { address: 'opening/o2/frame-rear-high', index: 0 },
    });
    const hatch = derive(project, thimble.priceBook).lined.windowBoxes.find((candidate) => candidate.above);
    expect(hatch?.missing).toEqual(['head', 'rear']);
    expect(hatch?.parts.filter((part) => part.role === 'reveal').map((part) => part.id)).toEqual([
      'window-o2-sill',
      'window-o2-front',
    ]);
  });
});
