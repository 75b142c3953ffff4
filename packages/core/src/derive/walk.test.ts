import { describe, expect, it } from 'vitest';
import { applyOperation } from '../furniture/kit.js';
import { readProjectFile } from '../formats/read.js';
import { halfWidth } from '../shell/shell.js';
import { derive } from './again.fixture.js';
import demo from '../../../../demo/wren.json?raw';
import maintainer from '../../../../docs/maintainer.md?raw';

const { project, priceBook } = readProjectFile(demo);
const derived = derive(project, priceBook);
/** The figures that the text says at a place. */
const told = (pattern: RegExp): number[] => {
  const found = pattern.exec(maintainer.replace(/\s+/g, ' '));
  if (!found) throw new Error(`${String(pattern)} is not told`);
  return found.slice(1).map(Number);
};

describe('from one reading to one part, as it is told', () => {
  const { shell, inner } = derived;
  if (!shell || !inner) throw new Error('no shell');
  const end = derived.parts.find((part) => part.id === 'kitchen.end-front');
  if (!end) throw new Error('no end');
  const [originX, originY, originZ] = end.place.origin;

  it('a reading is a distance of the bare shell at its station', () => {
    const reading = project.survey.readings['station/s3/left/700']?.at(-1)?.value;
    const at = project.survey.readings['station/s3/x']?.at(-1)?.value ?? 0;
    expect(halfWidth(shell, 'left', at, 700)).toBeCloseTo(reading ?? 0, 6);
    // another one moves the wall there by as much
    const again = applyOperation(project, {
      name: 'takeReading',
      payload: {
        address: 'station/s3/left/700',
        reading: { value: (reading ?? 0) + 3, method: 'tape', at: '2026-10-02T08:00:00.000Z' },
      },
    }).project;
    const moved = derive(again, priceBook).shell;
    expect(moved && halfWidth(moved, 'left', at, 700)).toBeCloseTo((reading ?? 0) + 3, 6);
  });
  it('the section is moved inward by the layers', () => {
    const [inset = 0] = told(/moves the section inward by (\d+) mm/);
    const slope = halfWidth(shell, 'left', originX, 701) - halfWidth(shell, 'left', originX, 700);
    // along the normal: nearly upright here
    expect(Math.abs(slope)).toBeLessThan(0.1);
    const between = halfWidth(shell, 'left', originX, 700) - halfWidth(inner, 'left', originX, 700);
    expect(between).toBeGreaterThan(inset);
    expect(between).toBeLessThan(inset * Math.hypot(1, 0.1));
  });
  it('the end stands where it is said, and its cut edge stands outside the true line', () => {
    const [x, front = 0, door = 0] = told(
      /front end at x = (\d+), from the wall to the front line \((\d+)\) and the door's thickness \((\d+)\)/,
    );
    const [outside = 0] = told(/stands (\d+) mm outside it/);
    expect(originX).toBe(x);
    const ys = end.outline.outer.map(([, across]) => originY + across);
    expect(Math.max(...ys)).toBeCloseTo(-(front + door), 6);
    // the edge at a height, between the points of the outline beside it
    const edge = end.outline.outer.filter(([, across]) => across < 100).sort((a, b) => a[0] - b[0]);
    for (const [along, across] of edge.filter(([along]) => along > 0)) {
      const cut = -(originY + across);
      const true_ = halfWidth(inner, 'left', originX, originZ + along);
      expect(cut - true_).toBeGreaterThan(outside - 0.5);
      // the wall leans along the panel's thickness: the outer of its two faces counts
      expect(cut - true_).toBeLessThan(outside + 1);
    }
  });
  it('its blank is placed', () => {
    const placed = derived.plans.flatMap((item) => item.plan.sheets.flatMap((sheet) => sheet.placements));
    expect(placed.filter((placement) => placement.part === end.id)).toHaveLength(1);
  });
});
