import { describe, expect, it } from 'vitest';
import { startPriceBook } from '../materials/start-book.js';
import { subfloorOf } from '../lining/floor/subfloor.js';
import { buildUpDepth } from '../layers/buildup.js';
import { monotoneCurve } from '../numeric/curve.js';
import { outlineArea } from '../numeric/plane.js';
import { startSettings } from '../document/create.js';
import type { Unit } from '../document/schema.js';
import type { ArchShape } from '../shell/arch.js';
import { makeShell, type Shell } from '../shell/shell.js';
import { FAMILIES } from './families/index.js';
import { makeUnit } from './make.js';
import { SCHOOLS } from './schools/index.js';
import { bedWith, runWith } from './units.fixture.js';
import { blankOf, partMass, type Part } from '../parts/part.js';
import { bevelOf } from '../parts/scribe.js';

const book = startPriceBook();
const settings = startSettings('mm', '2026-10-01');

/** Straight upright walls 900 from the centre line, roof at 1900, 3000 long, floor raised by `floor`. */
function box(floor = 0): Shell {
  const wall = monotoneCurve([0, 1900], [900, 900]);
  const roof = monotoneCurve([-900, 0, 900], [1900, 1900, 1900]);
  return makeShell(
    3000,
    floor,
    [0, 3000].map((x) => ({ x, left: wall, right: wall, roof })),
  );
}

/** Walls that lean out by 1 in 10 from 800 at the floor, and the left one opens by 30 over the length. */
function leaning(): Shell {
  const side = (more: number) => monotoneCurve([0, 1000], [800 + more, 900 + more]);
  const roof = monotoneCurve([-900, 900], [1000, 1000]);
  return makeShell(3000, 0, [
    { x: 0, left: side(0), right: side(0), roof },
    { x: 3000, left: side(30), right: side(0), roof },
  ]);
}

const bed = bedWith({
  id: 'bed',
  x: 1700,
  length: 1300,
  height: 712,
  boardWidth: 650,
  span: 700,
});
const cupboard = runWith({
  id: 'cup',
  side: 'left',
  x: 500,
  length: 1000,
  front: 400,
  height: 900,
  toeKick: 90,
  shelves: 1,
  doors: 2,
  top: 'birch-18',
  overhang: 20,
});
const make = (unit: Unit, inner: Shell, arches: readonly ArchShape[] = []) =>
  makeUnit(unit, { inner, arches, book, things: [] }, FAMILIES, SCHOOLS);
const partsOf = (unit: Unit, inner: Shell, arches: readonly ArchShape[] = []) => [...make(unit, inner, arches).parts];
/** The middles of a bed's supports, across the vehicle. */
const supportLines = (arches: readonly ArchShape[] = []): number[] =>
  (make(bed, box(), arches).skeleton?.boards ?? [])
    .filter((board) => board.role === 'bed-support')
    .map((board) => board.at + board.thickness / 2);
const byId = (parts: readonly Part[], id: string): Part => {
  const part = parts.find((candidate) => candidate.id === id);
  if (!part) throw new Error(`no part ${id}`);
  return part;
};
const size = (part: Part): [number, number] => {
  const blank = blankOf(part);
  return [Math.round(blank.length * 100) / 100, Math.round(blank.width * 100) / 100];
};

describe('a platform bed', () => {
  const parts = partsOf(bed, box());

  it('in a box: boards across with 20 mm of scribe at both ends, in equal strips with a gap', () => {
    // 1300 = 2 strips and one gap of 3: (1300 - 3) / 2 = 648.5; 1800 wide plus 2 x 20
    expect(parts.filter((part) => part.role === 'bed-board').map(size)).toEqual([
      [1840, 648.5],
      [1840, 648.5],
    ]);
  });
  it('supports stand 10 off the walls and no board spans more than allowed', () => {
    // from -882.5 to 882.5 is 1765: three gaps of 588.3 are within 700, two of 882.5 are not
    const lines = supportLines();
    expect(lines).toHaveLength(4);
    expect(lines[0]).toBeCloseTo(-882.5, 9);
    expect(lines[1]).toBeCloseTo(-882.5 + 1765 / 3, 9);
    // length 1300 less the front's 15; height 712 - 12
    expect(size(byId(parts, 'bed.support-1'))).toEqual([1285, 700]);
  });
  it('supports stand clear of the arches', () => {
    const arch: ArchShape = {
      id: 'a',
      name: 'arch',
      side: 'right',
      kind: 'arch' as const,
      shape: 'box',
      from: 2000,
      to: 2600,
      height: 260,
      face: 700,
      bottom: 0,
      topFace: 700,
      far: null,
    };
    const lines = supportLines([arch]);
    expect(lines.at(-1)).toBeCloseTo(700 - 10 - 7.5, 9);
    expect(lines[0]).toBeCloseTo(-882.5, 9);
  });
  it('the front is cut to the section and opened between the supports', () => {
    const front = byId(parts, 'bed.front');
    expect(size(front)).toEqual([1840, 700]);
    expect(front.outline.holes).toHaveLength(3);
  });
  it('ends follow leaning walls at their own height, and the bevel is named', () => {
    const board = byId(partsOf(bed, leaning()), 'bed.board-1');
    // underside at 700: right wall 870; left wall at x 1700 is 870 + 17, at 2348.5 it is 870 + 23.485
    const [left, right] = [board.edges[0], board.edges[1]];
    expect(size(board)[0]).toBeCloseTo(870 + 870 + 23.49 + 40, 1);
    expect(right?.trueLine.every((p) => Math.abs(p[0] - (board.edges[1]?.trueLine[0]?.[0] ?? 0)) < 1e-6)).toBe(true);
    // its blank follows the wall: only what is left on comes off
    expect(left?.largestRemoval).toBeCloseTo(20, 1);
    // lean 1 in 10 over 12 mm leaves 1.2 mm open: a bevel of 5.7 degrees
    expect(right?.squareCut).toBe(false);
    // told from the drawn face, which is the upper one, down into the thickness: the wall comes in by 5.7 degrees
    expect(right?.bevel.least).toBeCloseTo(-5.711, 2);
  });
  it('is cut round an arch that reaches above the boards', () => {
    const tall: ArchShape = {
      id: 'a',
      name: 'arch',
      side: 'left',
      kind: 'arch' as const,
      shape: 'box',
      from: 1600,
      to: 2000,
      height: 800,
      face: 700,
      bottom: 0,
      topFace: 700,
      far: null,
    };
    const [board] = partsOf(bed, box(), [tall]);
    // the bite runs from the wall's outside edge (920) to 690 over the strip's first 310 mm; its inside corner gains r2(1 - pi/4)
    expect(board && outlineArea(board.outline)).toBeCloseTo(1840 * 648.5 - 230 * 310 + 225 * (1 - Math.PI / 4), -2);
  });
});

describe('a base cupboard in plywood', () => {
  const parts = partsOf(cupboard, box(47));

  it('has the parts of its school', () => {
    expect(parts.map((part) => part.id)).toEqual([
      'cup.end-front',
      'cup.end-rear',
      'cup.bottom',
      'cup.bay-1.shelf-1',
      'cup.rail-front',
      'cup.rail-back',
      'cup.kick',
      'cup.bay-1.door-1',
      'cup.bay-1.door-2',
      'cup.top',
    ]);
  });
  it('in a box: sizes by hand', () => {
    // side: 900 - 18 high; 900 - 400 - 15 deep plus 20 to scribe; grain up
    expect(size(byId(parts, 'cup.end-front'))).toEqual([882, 505]);
    // bottom: 1000 - 2 x 15 long; 485 deep less 5 for air
    expect(size(byId(parts, 'cup.bottom'))).toEqual([970, 480]);
    expect(size(byId(parts, 'cup.bay-1.shelf-1'))).toEqual([970, 465]);
    // doors: (1000 - 3 x 3) / 2 wide, 882 - 90 - 2 x 3 high, grain up
    expect(size(byId(parts, 'cup.bay-1.door-1'))).toEqual([786, 495.5]);
    // top: from 20 before the front to the wall plus 20
    expect(size(byId(parts, 'cup.top'))).toEqual([1000, 540]);
    // the kick board's notch: 90 x 50 out of the side
    expect(outlineArea(byId(parts, 'cup.end-front').outline)).toBeCloseTo(882 * 505 - 90 * 50, 3);
  });
  it('stands its front on a line parallel to the centre line; the back takes the difference', () => {
    const made = partsOf(cupboard, leaning());
    const [first, second] = [byId(made, 'cup.end-front'), byId(made, 'cup.end-rear')];
    // the front edge is at 415 from the centre line on both: the far or the near corner of the blank, as the good face has it
    for (const side of [first, second]) {
      const { origin, across } = side.place;
      const ends = [origin[1], origin[1] + across[1] * blankOf(side).width];
      expect(Math.max(...ends)).toBeCloseTo(-415, 9);
    }
    // deepest at the top: at 882 up the wall is 888.2 out, and 5 more at x 500, 14.85 more at x 1485; 20 square to 1 in 10
    const left = 20 * Math.hypot(1, 0.1);
    expect(size(first)[1]).toBeCloseTo(888.2 + 5 - 415 + left, 1);
    expect(size(second)[1]).toBeCloseTo(888.2 + 14.85 - 415 + left, 1);
    expect(first.edges[1]).toMatchObject({ kind: 'scribe', at: 'back', allowance: 20 });
    // the true line leans 1 in 10, 88.2 over the height, and its blank with it
    expect(first.edges[1]?.largestRemoval).toBeCloseTo(20, 0);
    // along the vehicle the wall opens 30 in 3000: 0.57 degrees, 0.15 mm over 15: a square cut is fine
    expect(first.edges[1]?.bevel.most).toBeCloseTo(0.573, 2);
    expect(first.edges[1]?.squareCut).toBe(true);
  });
  it('weighs what its outlines weigh', () => {
    // 970 x 480 x 15 mm at 680 kg/m3
    expect(partMass(byId(parts, 'cup.bottom'), book)).toBeCloseTo(0.97 * 0.48 * 0.015 * 680, 3);
  });
  it('makes nothing of a cupboard that has no inside', () => {
    for (const [body, key] of [
      [{ ...cupboard.body, to: 100 }, 'furniture.low'],
      [{ ...cupboard.body, length: 20 }, 'furniture.narrow'],
      [{ ...cupboard.body, front: 860 }, 'furniture.shallow'],
    ] as const) {
      const made = make({ ...cupboard, body: body as Unit['body'] }, box());
      expect(made.parts).toEqual([]);
      expect(made.problems.map(({ said, place }) => [said.key, place])).toEqual([[key, 'cup']]);
    }
  });
});

describe('bevels', () => {
  it('call a square cut fine under 1 mm', () => {
    expect(bevelOf([Math.atan(0.05)], 18).squareCut).toBe(true);
    expect(bevelOf([Math.atan(0.06)], 18).squareCut).toBe(false);
    expect(bevelOf([-0.02, 0.01], 18).bevel.least).toBeCloseTo(-1.146, 2);
  });
});

describe('the subfloor', () => {
  const layer = {
    id: 'f',
    material: 'birch-12',
    thickness: 12,
    place: 'continuous' as const,
    board: true,
    share: 1,
    measured: null,
  };
  const battens = {
    id: 'b',
    material: 'batten-30',
    thickness: 30,
    place: 'battens' as const,
    board: false,
    share: 1,
    measured: null,
  };

  it('lies on the battens and is outlined at that height', () => {
    const depth = buildUpDepth('floor', [battens, layer], 0, book);
    const floor = subfloorOf(depth, leaning(), [], settings);
    expect(floor).toMatchObject({ from: 30, to: 42 });
    // at its lower face, 30 up, the leaning wall is 803 out: less 5 of clearance
    const ys = floor?.outline.outer.map((p) => p[1]) ?? [];
    expect(Math.max(...ys)).toBeCloseTo(798, 6);
  });
  it('is split into strips that a trimmed sheet gives, by hand', () => {
    // 2990 x 1790 across on 1230 usable: 3 strips of 996.67 from 3 sheets at 64.00 = 192.00
    const large = {
      ...book,
      items: book.items.map((item) => (item.id === 'birch-12' ? { ...item, stocks: item.stocks.slice(0, 1) } : item)),
    };
    const three = subfloorOf(buildUpDepth('floor', [layer], 0, large), box(), [], settings);
    expect(three?.seams).toEqual([
      { direction: 'across', at: expect.closeTo(5 + 2990 / 3, 6) as number, from: -895, to: 895 },
      { direction: 'across', at: expect.closeTo(5 + (2 * 2990) / 3, 6) as number, from: -895, to: 895 },
    ]);
    expect(three?.parts.map(size)).toEqual([
      [1790, 996.67],
      [1790, 996.67],
      [1790, 996.67],
    ]);
    // with sheets of 1525 x 1525 at 45.00 two by two are cheaper: 4 x 45.00 = 180.00
    const floor = subfloorOf(buildUpDepth('floor', [layer], 0, book), box(), [], settings);
    expect(floor?.seams).toEqual([
      { direction: 'across', at: 1500, from: -895, to: 895 },
      { direction: 'along', at: 0, from: 5, to: 1500 },
      { direction: 'along', at: 0, from: 1500, to: 2995 },
    ]);
    expect(floor?.parts.map(size)).toEqual([
      [895, 1495],
      [895, 1495],
      [895, 1495],
      [895, 1495],
    ]);
    expect(floor?.parts.reduce((sum, part) => sum + outlineArea(part.outline), 0)).toBeCloseTo(2990 * 1790, -1);
    // for the cheapest sheets three do, 135.00: 1505 and 1485 by 1505 from two, and what is left, 285 wide, from a third
    const cheapest = subfloorOf(buildUpDepth('floor', [layer], 0, book), box(), [], settings, undefined, {
      direction: null,
      cut: 'cheapest',
    });
    expect(
      cheapest?.parts.map(({ outline }) => size({ outline } as (typeof cheapest.parts)[number])[0]).sort(),
    ).toEqual([1505, 1505, 285, 285].sort());
    expect(cheapest?.parts.reduce((sum, part) => sum + outlineArea(part.outline), 0)).toBeCloseTo(2990 * 1790, -1);
  });
  it('is cut round the arches with clearance', () => {
    const arch: ArchShape = {
      id: 'a',
      name: 'arch',
      side: 'left',
      kind: 'arch' as const,
      shape: 'box',
      from: 1000,
      to: 1600,
      height: 260,
      face: 700,
      bottom: 0,
      topFace: 700,
      far: null,
    };
    const floor = subfloorOf(buildUpDepth('floor', [layer], 0, book), box(), [arch], {
      ...settings,
      floorCornerRadius: 0,
    });
    // 610 long by (895 - 695) deep is gone
    expect(floor && outlineArea(floor.outline)).toBeCloseTo(2990 * 1790 - 610 * 200, 0);
    expect(floor?.parts.reduce((sum, part) => sum + outlineArea(part.outline), 0)).toBeCloseTo(
      2990 * 1790 - 610 * 200,
      0,
    );
  });
  it('is nothing without a board layer, or of a material without sheets', () => {
    expect(subfloorOf(buildUpDepth('floor', [{ ...layer, board: false }], 0, book), box(), [], settings)).toBeNull();
    expect(
      subfloorOf(buildUpDepth('floor', [{ ...layer, material: 'wool-50' }], 0, book), box(), [], settings),
    ).toBeNull();
  });
});
