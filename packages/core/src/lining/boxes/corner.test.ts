import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import thimbleFile from '../../../../../demo/thimble.json?raw';
import { readProjectFile } from '../../formats/read.js';
import { blankOf } from '../../parts/part.js';
import { derive } from '../../derive/again.fixture.js';
import { applyOperation } from '../../furniture/kit.js';
import type { Corner } from '../../document/schema.js';
import { say } from '../../words/say.js';
import { cornerPieces } from './corner.js';

const thimble = readProjectFile(thimbleFile);
const book = thimble.priceBook;
const corner = (more: Partial<Corner> = {}): Corner => ({
  id: 'c1',
  name: 'Door post',
  surface: 'left',
  board: 'birch-9',
  height: 1500,
  legs: [150, 100],
  radius: 60,
  angle: 90,
  skin: 1.5,
  grainRound: true,
  ...more,
});
const one = (more: Partial<Corner> = {}) => {
  const [piece] = cornerPieces([corner(more)], 2.4, {}, book);
  if (!piece) throw new Error('no piece');
  return piece;
};

describe('a piece bent round a corner', () => {
  it('is as long on the flat as its legs and its bend, with its cuts over the bend', () => {
    const piece = one();
    // a right angle takes its radius off each leg: 90 + 40, and a quarter of a circle of 60: 94.25
    expect(piece.developed).toBeCloseTo(90 + 40 + (Math.PI / 2) * 60, 6);
    const [part, test] = piece.parts;
    expect(part && blankOf(part)).toEqual({ length: piece.developed, width: 1500 });
    expect(test && blankOf(test)).toEqual({ length: piece.developed, width: 120 });
    const cuts = part?.marks?.grooves?.map((groove) => groove.from[0]) ?? [];
    expect(cuts).toHaveLength(piece.bend?.cuts ?? -1);
    expect(cuts[0]).toBeCloseTo(90 + (piece.bend?.spacing ?? 0) / 2, 6);
    expect(cuts.at(-1)).toBeCloseTo(90 + 94.248 - (piece.bend?.spacing ?? 0) / 2, 2);
    expect(piece.problems).toEqual([]);
  });

  it('closes by the width of its cuts, whatever its figures', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 20, max: 200 }),
        fc.integer({ min: 5, max: 179 }),
        fc.double({ min: 0.5, max: 4, noNaN: true }),
        (radius, angle, skin) => {
          const piece = one({ radius, angle, skin, legs: [50_000, 50_000] });
          // the back is shorter than the face by what the cuts take out: turn x depth
          const taken = (piece.bend?.cuts ?? 0) * 2.4;
          const wanted = ((angle * Math.PI) / 180) * (9 - skin);
          expect(taken).toBeGreaterThanOrEqual(wanted - 1e-6);
          expect(taken - wanted).toBeLessThan(2.4);
          for (const { from } of piece.parts[0]?.marks?.grooves ?? []) {
            expect(from[0]).toBeGreaterThan(0);
            expect(from[0]).toBeLessThan(piece.developed);
          }
        },
      ),
      { numRuns: 100, seed: 4 },
    );
  });

  it('with its grain along the corner lies the other way on the sheet, and is warned of', () => {
    const piece = one({ grainRound: false });
    expect(piece.parts[0] && blankOf(piece.parts[0])).toEqual({ length: 1500, width: piece.developed });
    expect(piece.problems.map((problem) => say(problem)).join()).toContain('the grain runs along the corner');
    const groove = piece.parts[0]?.marks?.grooves?.[0];
    expect(groove?.from[1]).toBeCloseTo(groove?.to[1] ?? NaN, 9);
  });

  it('that cannot be is refused in words, and makes no part', () => {
    const said = (more: Partial<Corner>): string =>
      one(more)
        .problems.map((problem) => say(problem))
        .join();
    expect(said({ skin: 9 })).toContain('thinner than the 9');
    expect(said({ legs: [150, 40] })).toContain('each leg has to be 60 or longer');
    expect(said({ radius: 8, legs: [50, 50] })).toContain('too near each other');
    expect(one({ skin: 9 }).parts).toEqual([]);
    expect(cornerPieces([corner({ board: 'none' })], 2.4, {}, book)).toEqual([]);
  });

  it('is cut, priced and drawn with the wall it belongs to', () => {
    const { project } = applyOperation(thimble.project, {
      name: 'putCorner',
      payload: { corner: corner({ height: 1100 }) },
    });
    const derived = derive(project, book);
    const own = derived.parts.filter((part) => part.role.startsWith('corner'));
    expect(own.map((part) => [part.id, part.surface])).toEqual([
      ['corner-c1', 'left'],
      ['corner-test-c1', 'left'],
    ]);
    const placed = derived.plans.flatMap(({ plan }) => plan.sheets.flatMap((sheet) => sheet.placements));
    expect(placed.filter((placement) => placement.part.startsWith('corner')).length).toBe(2);
    expect(derived.problems.filter((problem) => problem.place === 'c1')).toEqual([]);
  });
});
