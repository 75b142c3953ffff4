import { describe, expect, it } from 'vitest';
import type { Unit } from '../document/unit-schema.js';
import { startPriceBook } from '../materials/start-book.js';
import { monotoneCurve } from '../numeric/curve.js';
import { boxOf } from '../numeric/plane.js';
import { makeShell } from '../shell/shell.js';
import { FAMILIES } from './families/index.js';
import { partition } from './families/partition.js';
import { makeUnit } from './make.js';
import { SCHOOLS } from './schools/index.js';
import { solidsOf } from './solid.js';

const book = startPriceBook();
/** Walls 900 off, up to 1 700; a roof that rises from there to 1 900 over the middle. */
const wall = monotoneCurve([0, 1700], [900, 900]);
const roof = monotoneCurve([-900, 0, 900], [1700, 1900, 1700]);
const inner = makeShell(
  3000,
  0,
  [0, 3000].map((x) => ({ x, left: wall, right: wall, roof })),
);
const room = { inner, arches: [], book, things: [] };
const of = (options: Unit['options']): Unit => {
  const unit = partition.start({ id: 'p', name: 'Wall', layout: { units: [] }, people: [], room: inner, book });
  return { ...unit, options: { ...unit.options, ...options } };
};
const made = (options: Unit['options']) => makeUnit(of(options), room, FAMILIES, SCHOOLS);
const stripsOf = (options: Unit['options']) =>
  (made(options).skeleton?.boards ?? []).filter(({ role }) => role === 'partition-strip');

describe('what joins the panels of a partition', () => {
  it('is a strip of 80 on the rear face over each joint, screwed to both panels', () => {
    const { skeleton, joints, problems, parts } = made({ door: 'none', widest: 700 });
    // 1800 across in three panels of 600
    expect(skeleton?.boards.map(({ name }) => name)).toEqual([
      'panel-1',
      'panel-2',
      'panel-3',
      'strip-panel-1-panel-2',
      'strip-panel-2-panel-3',
    ]);
    for (const [i, strip] of stripsOf({ door: 'none', widest: 700 }).entries()) {
      const { minX, maxX, minY } = boxOf(strip.outline.outer);
      expect([minX, maxX, minY]).toEqual([-300 + 600 * i - 40, -300 + 600 * i + 40, 0]);
      expect(strip.at).toBe(1500 + 12);
    }
    expect(joints.map(({ a, b, screws }) => [a, b, screws > 8])).toEqual([
      ['p.panel-1', 'p.strip-panel-1-panel-2', true],
      ['p.panel-2', 'p.strip-panel-1-panel-2', true],
      ['p.panel-2', 'p.strip-panel-2-panel-3', true],
      ['p.panel-3', 'p.strip-panel-2-panel-3', true],
    ]);
    expect(problems).toEqual([]);
    // they are cut like everything else
    expect(parts.filter(({ role }) => role === 'partition-strip')).toHaveLength(2);
  });
  it('is cut to the roof there', () => {
    const [strip] = stripsOf({ door: 'none', widest: 700 });
    const heights = (strip?.outline.outer ?? []).filter(([, z]) => z > 100).map(([y, z]) => [y, z] as const);
    const at = (y: number): number =>
      Math.max(...heights.filter((point) => Math.abs(point[0] - y) < 1).map(([, z]) => z));
    expect(at(-260)).toBeGreaterThan(at(-340));
    expect(at(-340)).toBeGreaterThan(1800);
    expect(at(-260)).toBeLessThan(1900);
  });
  it('hangs the panel over a door on the ones beside it, and leaves the opening free', () => {
    const over = stripsOf({ door: 'open', doorAt: -300, doorWidth: 600, doorHeight: 1500 });
    expect(over.map(({ name }) => name)).toEqual(['strip-left-1-over-door', 'strip-over-door-right-1']);
    for (const { outline } of over) expect(boxOf(outline.outer).minY).toBeCloseTo(1500);
    // none where the door is open up to the roof
    expect(stripsOf({ door: 'open', doorHeight: 1870 })).toEqual([]);
  });
  it('lets a sliding door run behind it, and takes its room however little is left for it', () => {
    const unit = of({ door: 'sliding', doorHeight: 1500 });
    const { skeleton } = makeUnit(unit, room, FAMILIES, SCHOOLS);
    const leaf = skeleton?.boards.find(({ role }) => role === 'partition-door');
    const strips = skeleton?.boards.filter(({ role }) => role === 'partition-strip') ?? [];
    expect(leaf?.at).toBe(Math.max(...strips.map(({ at, thickness }) => at + thickness)));
    for (const length of [12, 100]) {
      const [box] = solidsOf({ ...unit, body: { ...unit.body, length } }, room, FAMILIES);
      expect((box?.x1 ?? 0) - (box?.x0 ?? 0)).toBe(Math.max(36, length));
    }
  });
  it('turns a hinged door about the rear face of its own leaf', () => {
    const { skeleton } = made({ door: 'hinged', doorHeight: 1500 });
    expect(skeleton?.motions).toMatchObject([{ kind: 'hinge', at: [1512, -300], shut: { x0: 1500, x1: 1512 } }]);
  });
});

describe('the door of a partition stands within the walls and under the roof', () => {
  const told = (options: Unit['options']): readonly string[] =>
    made({ doorWidth: 600, doorHeight: 1600, ...options }).problems.map(({ said }) => {
      const { by } = said.params as { by: { mm: number } };
      return `${said.key} ${by.mm}`;
    });
  it.each(['open', 'hinged', 'sliding', 'curtain'])('%s', (door) => {
    // walls 900 off: an opening of 600 may begin at 300
    expect(told({ door, doorAt: 300 })).toEqual([]);
    expect(told({ door, doorAt: 312 })).toEqual(['furniture.doorWall 12']);
    expect(told({ door, doorAt: -900 })).toEqual([]);
    expect(told({ door, doorAt: -960 })).toEqual(['furniture.doorWall 60']);
  });
  it('a leaf is no higher than the roof at its corners; an opening alone may reach up into it', () => {
    // at 900 the roof begins at 1 700
    expect(told({ door: 'hinged', doorAt: 300, doorHeight: 1700 })).toEqual([]);
    expect(told({ door: 'hinged', doorAt: 300, doorHeight: 1730 })).toEqual(['furniture.doorRoof 30']);
    expect(told({ door: 'open', doorAt: 300, doorHeight: 1730 })).toEqual([]);
  });
});
