import { describe, expect, it } from 'vitest';
import { circleRing, rectangle, type Point, type Ring } from '../numeric/plane.js';
import { drawnShape, shapeMoved } from './drawn-shape.js';
import type { Part } from './part.js';

const part = (outer: Ring, holes: readonly Ring[] = []): Part => ({
  id: 'u.board',
  role: 'side',
  number: 1,
  unit: 'u',
  material: 'birch-12',
  thickness: 12,
  outline: { outer, holes },
  grain: true,
  edges: [],
  place: { origin: [0, 0, 0], along: [1, 0, 0], across: [0, 1, 0], thick: [0, 0, 1] },
});
const board = rectangle(0, 0, 800, 400);
/** The board with a bite out of its upper edge that begins there and is 100 wide and 50 deep. */
const bitten = (at: number): Ring => [
  [0, 0],
  [800, 0],
  [800, 400],
  [at + 100, 400],
  [at + 100, 350],
  [at, 350],
  [at, 400],
  [0, 400],
];
const SIZE = { length: 800, width: 400 };
const moved = (a: Part, b: Part) => {
  const [before, after] = [drawnShape(a), drawnShape(b)];
  if (!before || !after) throw new Error('both are remembered');
  return shapeMoved(before, after, SIZE);
};

describe('what is drawn on a part', () => {
  it('is nothing for a plain rectangle, and the corners for anything else', () => {
    expect(drawnShape(part(board))).toEqual([]);
    const shape = drawnShape(part(bitten(300)));
    expect(shape).toHaveLength(1);
    expect(shape?.[0]).toHaveLength(16);
  });
  it('is the same wherever the outline begins and the blank lies', () => {
    const off = bitten(300).map(([x, y]): Point => [x + 1000, y - 70]);
    const turned = [...off.slice(3), ...off.slice(0, 3)];
    expect(moved(part(bitten(300)), part(turned))).toMatchObject({ outline: 0, openings: 0 });
  });
  it('is remembered by few corners where it follows a curve, nowhere farther from it than a tenth', () => {
    const curve = Array.from({ length: 201 }, (_, i): Point => [800 - 4 * i, 400 - 30 * Math.sin((i / 200) * Math.PI)]);
    const curved = part([[0, 0], [800, 0], ...curve]);
    const corners = (drawnShape(curved)?.[0]?.length ?? 0) / 2;
    expect(corners).toBeGreaterThan(6);
    expect(corners).toBeLessThan(60);
    const same = shapeMoved(drawnShape(curved) ?? [], drawnShape(curved) ?? [], SIZE);
    expect(same).toEqual({ outline: 0, openings: 0, was: 0, now: 0 });
    const full = curved.outline.outer.flatMap(([x, y]) => [x, y]);
    expect(shapeMoved(drawnShape(curved) ?? [], [full], SIZE).outline).toBeLessThan(0.2);
  });

  it('has moved by as much as the bite in its edge did, though its area and size are the same', () => {
    expect(moved(part(bitten(300)), part(bitten(307))).outline).toBeCloseTo(7, 6);
    // farther than the bite is deep it is 50 off: what was cut there is whole now
    expect(moved(part(bitten(100)), part(bitten(600))).outline).toBeCloseTo(50, 6);
    expect(moved(part(board), part(bitten(300))).outline).toBeCloseTo(50, 6);
  });
  it('tells an opening that moved, each against the one nearest to it, and one more or less by its count', () => {
    const two = (x: number) => part(board, [circleRing([x, 200], 30), circleRing([600, 200], 30)]);
    const { openings, outline, was, now } = moved(two(200), two(212));
    expect([outline, was, now]).toEqual([0, 2, 2]);
    expect(openings).toBeGreaterThan(11.5);
    expect(openings).toBeLessThanOrEqual(12.2);
    // listed the other way round they are where they were
    const back = part(board, [circleRing([600, 200], 30), circleRing([200, 200], 30)]);
    expect(moved(two(200), back).openings).toBeLessThan(0.2);
    expect(moved(part(board, [circleRing([200, 200], 30)]), two(200))).toMatchObject({ was: 1, now: 2 });
  });
  it('is not remembered where it would take hundreds of corners', () => {
    const teeth = Array.from({ length: 300 }, (_, i): Point => [800 - 2.5 * i, i % 2 ? 400 : 380]);
    expect(drawnShape(part([[0, 0], [800, 0], ...teeth, [0, 400]]))).toHaveLength(1);
    const fine = Array.from({ length: 600 }, (_, i): Point => [800 - 1.25 * i, i % 2 ? 400 : 380]);
    expect(drawnShape(part([[0, 0], [800, 0], ...fine, [0, 400]]))).toBeUndefined();
  });
});
