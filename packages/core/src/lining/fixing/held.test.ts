import { describe, expect, it } from 'vitest';
import { startPriceBook } from '../../materials/start-book.js';
import { battensHeld } from './held.js';
import type { WallBatten } from './wall-battens.js';

const book = startPriceBook();
const upright = (u: number, v0: number, v1: number, onRib: boolean): WallBatten => ({
  kind: onRib ? 'upright' : 'noggin',
  upright: true,
  u0: u,
  u1: u,
  v0,
  v1,
  why: 'Rib',
  onRib,
});

describe('what holds the battens themselves', () => {
  it('is a screw every 300 and at both ends into the rib, through the batten', () => {
    // 1200 long: at 0, 300, 600, 900 and 1200; 150 long: at both ends
    const { held, glue } = battensHeld([upright(0, 0, 1200, true), upright(900, 0, 150, true)], 18, 38, 'left', book);
    expect(held.map(({ by, count }) => [by, count])).toEqual([['batten', 5 + 2]]);
    // through 18 of batten and at least 6 of steel: 24, so 32 of those that are sold
    expect(held[0]?.fixing).toMatchObject({ into: 'steel', passed: 18, pick: { length: 32 } });
    expect(glue.millilitres).toBe(0);
  });
  it('is glue all along what lies on no rib', () => {
    const { held, glue } = battensHeld([upright(0, 0, 1000, false), upright(500, 0, 500, false)], 18, 38, 'left', book);
    expect(held).toEqual([]);
    expect(glue.metres).toBeCloseTo(1.5, 9);
    expect(glue.millilitres).toBeCloseTo(1.5 * 28, 6);
  });
  it('is not guessed while nobody read how far the ribs stand proud', () => {
    expect(battensHeld([upright(0, 0, 1200, true)], 18, 0, 'left', book).held).toEqual([]);
  });
});
