import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { derive } from '../derive/again.fixture.js';
import { applyOperation } from '../furniture/kit.js';
import { readProjectFile } from '../formats/read.js';
import demo from '../../../../demo/wren.json?raw';

const { project, priceBook } = readProjectFile(demo);
const layer = (id: string, material: string, thickness: number, place: 'battens' | 'continuous', board = false) => ({
  id,
  material,
  thickness,
  place,
  board,
  share: 1,
  measured: null,
});
const withFloor = (...layers: ReturnType<typeof layer>[]) =>
  derive(applyOperation(project, { name: 'replaceLayers', payload: { surface: 'floor', layers } }).project, priceBook);

/** Lengths of the wood screws on the list, furniture left out. */
const floorScrews = (made: ReturnType<typeof withFloor>): number[] => {
  const furniture = withFloor(layer('only', 'birch-12', 12, 'continuous', true)).shopping.lines;
  return made.shopping.lines.flatMap((line) => {
    const fastener = priceBook.items.find((item) => item.id === line.material)?.fastener;
    const there = furniture.find((other) => other.material === line.material)?.amount ?? 0;
    return fastener?.kind === 'wood' && line.amount > there ? [fastener.length] : [];
  });
};

describe('screws of the floor board', () => {
  it('through 12 into battens of 18 come out below at 40: one of 25 is bought, and none of 40 for the floor', () => {
    // 4 x 40 would reach 40 - (12 + 18) = 10 mm past the batten; allowed are 12 + 18 - 5 = 25
    const made = withFloor(layer('b', 'batten-18', 18, 'battens'), layer('p', 'birch-12', 12, 'continuous', true));
    const face = made.fixings.find(({ surface }) => surface === 'floor');
    expect(face?.most).toBe(25);
    expect(face?.pick?.length).toBe(25);
    expect(floorScrews(made)).toEqual([25]);
  });

  it('are never longer than the check beside the drawing allows, whatever lies there', () => {
    fc.assert(
      fc.property(fc.integer({ min: 8, max: 60 }), fc.constantFrom(5, 9, 12, 15, 18, 22), (batten, board) => {
        const made = withFloor(
          layer('b', 'batten-30', batten, 'battens'),
          layer('p', 'birch-12', board, 'continuous', true),
        );
        const face = made.fixings.find(({ surface }) => surface === 'floor');
        for (const length of floorScrews(made)) expect(length).toBeLessThanOrEqual((face?.most ?? 0) + 0.5);
        const told = made.problems.some(({ said }) => said.key === 'floor.noScrew');
        expect(told).toBe(face?.pick === null && made.floor.screws.length > 0);
      }),
      { numRuns: 25, seed: 9 },
    );
  });

  it('are not bought where nothing under the board takes one, and that is said', () => {
    const made = withFloor(layer('p', 'birch-12', 12, 'continuous', true));
    expect(made.floor.screws).toEqual([]);
    expect(made.problems.map(({ said }) => said.key)).toContain('floor.nothingToScrewTo');
  });
});
