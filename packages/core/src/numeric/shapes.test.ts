import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { boxOf, lineLength, outlineArea, rectangle, ringArea, roundedRectangle, spread } from './plane.js';
import { cutOut, roundInsideCorners, simplify } from './shapes.js';

const board = { outer: rectangle(0, 0, 1000, 500), holes: [] };

describe('cutOut', () => {
  it('takes a bite out of an edge', () => {
    const [piece] = cutOut(board, [rectangle(400, -10, 600, 100)]);
    expect(piece && outlineArea(piece)).toBeCloseTo(1000 * 500 - 200 * 100, 3);
    expect(piece?.holes).toEqual([]);
  });
  it('keeps a hole as a hole', () => {
    const [piece] = cutOut(board, [rectangle(400, 200, 600, 300)]);
    expect(piece?.holes).toHaveLength(1);
    expect(piece && outlineArea(piece)).toBeCloseTo(500_000 - 20_000, 3);
  });
  it('gives the pieces of a board cut through, largest first, and none when all is gone', () => {
    const pieces = cutOut(board, [rectangle(600, -1, 610, 501)]);
    expect(pieces.map((piece) => Math.round(outlineArea(piece)))).toEqual([300_000, 195_000]);
    expect(cutOut(board, [rectangle(-1, -1, 1001, 501)])).toEqual([]);
  });
});

describe('roundInsideCorners', () => {
  it('rounds the two inside corners of a notch and leaves the outside ones', () => {
    const [piece] = cutOut(board, [rectangle(400, -10, 600, 100)]);
    const rounded = roundInsideCorners(piece?.outer ?? [], 20);
    // each inside corner gains the square of the radius less the quarter disc: r2 (1 - pi / 4)
    expect(Math.abs(ringArea(rounded))).toBeCloseTo(480_000 + 2 * 400 * (1 - Math.PI / 4), -1);
    expect(boxOf(rounded)).toEqual({ minX: 0, minY: 0, maxX: 1000, maxY: 500 });
  });
});

describe('plane figures', () => {
  it('measures a rounded rectangle and a line', () => {
    expect(ringArea(roundedRectangle(0, 0, 100, 60, 10, 64))).toBeCloseTo(6000 - 100 * (4 - Math.PI), 0);
    expect(
      lineLength([
        [0, 0],
        [3, 4],
        [3, 10],
      ]),
    ).toBe(11);
  });
  it('drops points on a straight edge', () => {
    expect(
      simplify(
        [
          [0, 0],
          [50, 0.001],
          [100, 0],
          [100, 50],
          [0, 50],
        ],
        0.01,
      ),
    ).toHaveLength(4);
  });
});

describe('spread', () => {
  it('begins and ends where it was told to, to the last digit, in even steps', () => {
    expect(spread(10, 20, 5)).toEqual([10, 12.5, 15, 17.5, 20]);
    expect(spread(10, 20, 1)).toEqual([10]);
    const any = fc.double({ min: -5000, max: 5000, noNaN: true }).map((value) => value + 0);
    fc.assert(
      fc.property(any, any, fc.integer({ min: 2, max: 60 }), (from, to, count) => {
        const numbers = spread(from, to, count);
        expect([numbers[0], numbers.at(-1), numbers.length]).toEqual([from, to, count]);
        for (let i = 1; i < count; i += 1)
          expect((numbers[i] as number) - (numbers[i - 1] as number)).toBeCloseTo((to - from) / (count - 1), 8);
      }),
      { seed: 12, numRuns: 300 },
    );
  });
});
