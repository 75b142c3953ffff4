import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import wrenText from '../../../../demo/wren.json?raw';
import { derive } from '../derive/again.fixture.js';
import { readProjectFile } from '../formats/read.js';
import { boxOf, outlineArea, rectangle, type Outline } from '../numeric/plane.js';
import type { Part, Vector } from './part.js';
import { sectionOf } from './section-of.js';

const board = (
  outline: Outline,
  thickness: number,
  place: { origin: Vector; along: Vector; across: Vector; thick: Vector },
): Pick<Part, 'outline' | 'place' | 'thickness'> => ({ outline, thickness, place });
const plain = (length: number, width: number): Outline => ({ outer: rectangle(0, 0, length, width), holes: [] });
const X: Vector = [1, 0, 0];
const Y: Vector = [0, 1, 0];
const Z: Vector = [0, 0, 1];

describe('the section of a part', () => {
  it('of a level board is a strip as thick as it is, across its width', () => {
    // 600 long along the vehicle from x 1000, 400 across from y -200, 12 up from z 300
    const shelf = board(plain(600, 400), 12, { origin: [1000, -200, 300], along: X, across: Y, thick: Z });
    const [strip, ...more] = sectionOf(shelf, 1200);
    expect(more).toEqual([]);
    expect(boxOf(strip?.outer ?? [])).toEqual({ minX: -200, maxX: 200, minY: 300, maxY: 312 });
    expect(sectionOf(shelf, 999)).toEqual([]);
    expect(sectionOf(shelf, 1601)).toEqual([]);
  });
  it('of an upright across the vehicle is its whole face, with its holes, where the cut is in its thickness', () => {
    const side = board({ outer: rectangle(0, 0, 800, 500), holes: [rectangle(100, 100, 200, 200)] }, 15, {
      origin: [2000, 0, 0],
      along: Z,
      across: Y,
      thick: X,
    });
    expect(sectionOf(side, 1999)).toEqual([]);
    expect(sectionOf(side, 2016)).toEqual([]);
    const [face] = sectionOf(side, 2007);
    expect(face && outlineArea(face)).toBeCloseTo(800 * 500 - 100 * 100, 6);
  });
  it('shows a cut-out as a gap: two strips beside it', () => {
    const top = board({ outer: rectangle(0, 0, 1000, 600), holes: [rectangle(300, 200, 700, 400)] }, 18, {
      origin: [0, 0, 900],
      along: X,
      across: Y,
      thick: Z,
    });
    const widths = (x: number): number[] => sectionOf(top, x).map(({ outer }) => boxOf(outer).maxX - boxOf(outer).minX);
    expect(widths(100)).toEqual([600]);
    expect(widths(500)).toEqual([200, 200]);
  });
  it('has the area of its length in the cut times its thickness, however it is turned', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -1.2, max: 1.2, noNaN: true }),
        fc.double({ min: 0.1, max: 0.9, noNaN: true }),
        (angle, share) => {
          // turned about the upright axis: the cut runs askew through it
          const [c, s] = [Math.cos(angle), Math.sin(angle)];
          const wall = board(plain(1000, 700), 12, {
            origin: [0, 0, 0],
            along: [c, s, 0],
            across: Z,
            thick: [-s, c, 0],
          });
          const x = 1000 * c * share - (12 * s) / 2;
          const sections = sectionOf(wall, x);
          fc.pre(sections.length === 1);
          const [one] = sections;
          // 700 high; its thickness is met at a slant
          expect(one && outlineArea(one)).toBeCloseTo((700 * 12) / c, 4);
        },
      ),
      { numRuns: 100, seed: 4 },
    );
  });
  it('of every unit of a demo lies inside the unit, and something is cut wherever one stands', () => {
    const { project, priceBook } = readProjectFile(wrenText);
    const { parts } = derive(project, priceBook);
    for (const unit of project.layout.units)
      for (const share of [0.2, 0.5, 0.8]) {
        const x = unit.body.x + share * unit.body.length;
        const cut = parts.filter((part) => part.unit === unit.id).flatMap((part) => sectionOf(part, x));
        expect(cut.length).toBeGreaterThan(1);
        for (const { outer } of cut) expect(boxOf(outer).maxY).toBeLessThan(unit.body.to + 80);
      }
  });
});
