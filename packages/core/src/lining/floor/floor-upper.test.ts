import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import wrenFile from '../../../../../demo/wren.json?raw';
import { derive } from '../../derive/again.fixture.js';
import type { FloorChoice, Layer, Project } from '../../document/schema.js';
import { readProjectFile } from '../../formats/read.js';
import { plainLayer } from '../../layers/buildup.js';
import { distanceToRing, outlineArea } from '../../numeric/plane.js';
import { blankOf, type Part } from '../../parts/part.js';
import { STAGGER_MM } from './subfloor.js';

const { project: wren, priceBook } = readProjectFile(wrenFile);
const at = wren.buildUps['floor']?.findIndex(({ board }) => board) ?? 0;
/** Wren with a second board on the first. */
function doubled(second: Layer, floor: Partial<FloorChoice> = {}): Project {
  const layers = [...(wren.buildUps['floor'] ?? [])];
  layers.splice(at + 1, 0, second);
  return { ...wren, buildUps: { ...wren.buildUps, floor: layers }, floor: { ...wren.floor, ...floor } };
}
const board = plainLayer('second', 'poplar-5', 5, 'continuous', true);
const plain = derive(wren, priceBook);
const two = derive(doubled(board), priceBook);

describe('a second layer of board', () => {
  it('is cut, weighed, bought and laid like the first, on top of it', () => {
    const [upper] = two.subfloor?.upper ?? [];
    expect(upper?.from).toBeCloseTo(two.subfloor?.to ?? 0, 6);
    expect((upper?.to ?? 0) - (upper?.from ?? 0)).toBeCloseTo(5, 6);
    const pieces = two.parts.filter(({ role, material }) => role === 'subfloor' && material === 'poplar-5');
    expect(pieces).toHaveLength(upper?.pieces.length ?? 0);
    const area = pieces.reduce((sum, part) => sum + outlineArea(part.outline), 0);
    // the walls lean out above the floor, so that it is a little larger than the one beneath; never by half a percent
    expect(area / (outlineArea(two.subfloor?.outline ?? { outer: [], holes: [] }) || 1)).toBeGreaterThan(0.98);
    const more = (material: string): number =>
      two.plans.filter((one) => one.material.id === material).reduce((sum, { plan }) => sum + plan.sheets.length, 0) -
      plain.plans.filter((one) => one.material.id === material).reduce((sum, { plan }) => sum + plan.sheets.length, 0);
    expect(more('poplar-5')).toBeGreaterThan(0);
    const density = priceBook.items.find(({ id }) => id === 'poplar-5')?.density ?? 0;
    expect(two.mass.total - plain.mass.total).toBeCloseTo((area * 5 * density) / 1e9, 0);
  });

  it('has its seams off those beneath', () => {
    const [upper] = two.subfloor?.upper ?? [];
    if (!upper || !two.subfloor) throw new Error('no upper board');
    const gaps = upper.seams.flatMap((a) =>
      (two.subfloor?.seams ?? [])
        .filter((b) => b.direction === a.direction && a.from < b.to && b.from < a.to)
        .map((b) => Math.abs(a.at - b.at)),
    );
    expect(upper.apart ?? Infinity).toBeGreaterThanOrEqual(STAGGER_MM);
    expect(Math.min(Infinity, ...gaps)).toBe(upper.apart ?? Infinity);
  });

  it('has them off for boards of any size that is sold', () => {
    fc.assert(
      fc.property(fc.integer({ min: 900, max: 3200 }), fc.integer({ min: 600, max: 1600 }), (length, width) => {
        const book = {
          ...priceBook,
          items: priceBook.items.map((item) =>
            item.id === 'poplar-5'
              ? { ...item, stocks: item.stocks.map((stock) => ({ ...stock, length, width })) }
              : item,
          ),
        };
        const [upper] = derive(doubled(board), book).subfloor?.upper ?? [];
        expect(upper?.apart ?? Infinity).toBeGreaterThanOrEqual(STAGGER_MM);
        expect(upper?.parts.every((part) => blankOf(part).length <= length && blankOf(part).width <= width)).toBe(true);
      }),
      { seed: 4, numRuns: 8 },
    );
  });

  it('is screwed into the first with what bites and does not come out, clear of its edges; the first as it was', () => {
    const thick = derive(doubled(plainLayer('second', 'birch-9', 9, 'continuous', true)), priceBook);
    const [upper] = thick.floor.upper;
    if (!upper) throw new Error('no upper board');
    const lower = thick.subfloor?.board.thickness ?? 0;
    const screw = upper.picked?.item?.fastener;
    if (screw) {
      expect(screw.length).toBeGreaterThan(9);
      expect(screw.length).toBeLessThanOrEqual(9 + lower - 1 + 0.5);
      expect(
        thick.shopping.lines.find(({ material }) => material === upper.picked?.item?.id)?.amount,
      ).toBeGreaterThanOrEqual(upper.screws.length);
    } else expect(thick.problems.map(({ said }) => said.key)).toContain('floor.noUpperScrew');
    for (const { at: point } of upper.screws)
      expect(
        Math.max(
          ...upper.layer.pieces.map((piece) => Math.min(...[piece.outer].map((ring) => distanceToRing(point, ring)))),
        ),
      ).toBeGreaterThanOrEqual(24);
    // the lower board goes into the battens through itself alone
    expect(two.fixings.find(({ surface }) => surface === 'floor')?.passed).toBe(
      plain.fixings.find(({ surface }) => surface === 'floor')?.passed,
    );
    expect(thick.floor.screws).toHaveLength(plain.floor.screws.length);
  });

  it('is glued too, and neither glued nor screwed where the floor is laid loose', () => {
    const glue = (derived: typeof two): number =>
      derived.shopping.lines
        .find(({ material }) => material === 'floor-glue')
        ?.shares.filter(({ of }) => of === 'floor')
        .reduce((sum, { amount }) => sum + amount, 0) ?? 0;
    const [upper] = two.floor.upper;
    expect(glue(two) - glue(plain)).toBeCloseTo(upper?.glue?.millilitres ?? 0, 6);
    const [loose] = derive(doubled(board, { fixing: 'loose' }), priceBook).floor.upper;
    expect(loose).toMatchObject({ screws: [], picked: null, glue: null });
  });

  it('is bought by its area while no sheet of it is known', () => {
    const none = {
      ...priceBook,
      items: priceBook.items.map((item) => (item.id === 'poplar-5' ? { ...item, stocks: [], pack: null } : item)),
    };
    const derived = derive(doubled(board), none);
    expect(derived.subfloor?.upper).toEqual([]);
    expect(derived.shopping.unpriced).toContain(priceBook.items.find(({ id }) => id === 'poplar-5')?.name);
  });
});

describe('how high one steps', () => {
  it('is from sill and step to the floor, bare and finished', () => {
    const total = plain.depths.floor.total;
    for (const threshold of plain.floor.thresholds) expect(threshold.after - threshold.before).toBeCloseTo(total, 6);
    const door = plain.floor.thresholds.find(({ id }) => id === 'o3');
    const read = (what: string): number => wren.survey.readings[`opening/o3/${what}`]?.at(-1)?.value ?? NaN;
    expect(door?.before).toBeCloseTo(0 - read('sill'), 6);
    expect(door?.headBefore).toBeCloseTo(read('head'), 6);
    expect(door?.headAfter).toBeCloseTo(Math.min(read('head') - total, (door?.headBefore ?? 0) - total), 6);
  });
});

describe('trims of the floor’s edge in a side door', () => {
  const trims = (floor: Partial<FloorChoice>) =>
    derive({ ...wren, floor: { ...wren.floor, doorTrims: true, ...floor } }, priceBook).parts.filter(({ id }) =>
      id.startsWith('floor-edge-o3'),
    );
  const width =
    (wren.survey.readings['opening/o3/to']?.at(-1)?.value ?? 0) -
    (wren.survey.readings['opening/o3/from']?.at(-1)?.value ?? 0);
  const profile = priceBook.items.find(({ id }) => id === wren.boxes.trim)?.width ?? 0;

  it('run straight where the board goes to the wall', () => {
    const [one, ...more] = trims({ keepBack: 0 });
    expect(more).toEqual([]);
    expect(one?.ends).toEqual({ start: 0, end: 0 });
    expect(one && blankOf(one).length).toBeLessThanOrEqual(width);
  });

  it('have mitred returns where it is kept back', () => {
    const [edge, front, rear] = trims({ keepBack: 40 });
    if (!edge || !front || !rear) throw new Error('no returns');
    const [straight] = trims({ keepBack: 0 });
    expect(blankOf(edge).length).toBeCloseTo((straight ? blankOf(straight).length : 0) + 2 * profile, 6);
    expect(edge.ends).toEqual({ start: 45, end: 45 });
    for (const back of [front, rear]) {
      expect(blankOf(back).length).toBeCloseTo(40 + profile, 6);
      expect([back.ends?.start, back.ends?.end].sort()).toEqual([0, 45]);
    }
    // they meet in the corner: the return begins where the mitre of the long one ends
    const corners = (part: Part): number[][] =>
      part.outline.outer.map(([x, y]) =>
        part.place.origin.map((o, i) => o + x * (part.place.along[i] ?? 0) + y * (part.place.across[i] ?? 0)),
      );
    for (const back of [front, rear]) {
      const shared = corners(back).filter((a) =>
        corners(edge).some((b) => Math.hypot(...a.map((value, i) => value - (b[i] ?? 0))) < 1e-6),
      );
      expect(shared).toHaveLength(2);
    }
  });
});
