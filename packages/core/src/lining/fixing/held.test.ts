import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Layer } from '../../document/schema.js';
import { buildUpDepth, plainLayer } from '../../layers/buildup.js';
import { carrierUnder } from '../../layers/knock-on.js';
import { startPriceBook } from '../../materials/start-book.js';
import { packersUnder } from './batten-packers.js';
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

const RIB = { passed: 18, into: 'steel', depth: 38 } as const;

describe('what holds the battens themselves', () => {
  it('is a screw every 300 and at both ends into the rib, through the batten', () => {
    // 1200 long: at 0, 300, 600, 900 and 1200; 150 long: at both ends
    const { held, glue } = battensHeld(
      [upright(0, 0, 1200, true), upright(900, 0, 150, true)],
      18,
      RIB,
      null,
      'left',
      book,
    );
    expect(held.map(({ by, count }) => [by, count])).toEqual([['batten', 5 + 2]]);
    // through 18 of batten and at least 6 of steel: 24, so 32 of those that are sold
    expect(held[0]?.fixing).toMatchObject({ into: 'steel', passed: 18, pick: { length: 32 } });
    expect(glue.millilitres).toBe(0);
  });
  it('is glue all along what lies on no rib', () => {
    const { held, glue } = battensHeld(
      [upright(0, 0, 1000, false), upright(500, 0, 500, false)],
      18,
      RIB,
      null,
      'left',
      book,
    );
    expect(held).toEqual([]);
    expect(glue.metres).toBeCloseTo(1.5, 9);
    expect(glue.millilitres).toBeCloseTo(1.5 * 28, 6);
  });
  it('is not guessed while nobody read how far the ribs stand proud', () => {
    expect(battensHeld([upright(0, 0, 1200, true)], 18, null, null, 'left', book).held).toEqual([]);
  });
  it('is a screw into each packer, and glue under it, between ribs that stand proud', () => {
    // 1000 long: packers 70 long, no farther apart than 450: at 35, 345, 655 and 965
    const batten = upright(0, 0, 1000, false);
    expect(packersUnder(batten).map(Math.round)).toEqual([35, 345, 655, 965]);
    const { held, glue } = battensHeld([batten], 18, RIB, { deep: 36, each: 70 }, 'left', book);
    expect(held.map(({ by, count }) => [by, count])).toEqual([['packer', 4]]);
    expect(held[0]?.fixing).toMatchObject({ into: 'wood', passed: 18, depth: 36 });
    expect(glue.metres).toBeCloseTo(0.28, 9);
  });
});

describe('what lies between the head of a fixing and what holds it', () => {
  const layer = (place: Layer['place'], thickness: number): Layer => ({
    ...plainLayer(`${place}-${thickness}`, 'birch-12', thickness, place),
  });
  /** What stands in the way of a screw, worked out from a drawing of the layers: where each lies over the ribs' faces. */
  it('is everything that takes room there, in any order of layers', () => {
    const places = ['in-ribs', 'rib-battens', 'continuous', 'battens', 'between-battens', 'patches'] as const;
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.constantFrom(...places), fc.integer({ min: 3, max: 60 })), { minLength: 1, maxLength: 6 }),
        fc.integer({ min: 15, max: 50 }),
        (drawn, ribDepth) => {
          const depth = buildUpDepth(
            'left',
            drawn.map(([place, thickness], i) => ({ ...layer(place, thickness), id: `l${i}` })),
            ribDepth,
            book,
          );
          drawn.forEach(([place, thickness], head) => {
            if (place !== 'continuous' && place !== 'battens') return;
            const carrier = carrierUnder(depth, head);
            // from the ribs' face up to the head, and from there down to the face of what holds
            const top = (i: number): number => depth.layers.slice(0, i + 1).reduce((sum, { takes }) => sum + takes, 0);
            const wood = drawn.findLastIndex(([at], i) => i < head && (at === 'battens' || at === 'rib-battens'));
            const face = wood >= 0 ? top(wood) : 0;
            expect(carrier?.passed).toBeCloseTo(top(head) - face, 9);
            expect(carrier?.into).toBe(wood >= 0 ? 'wood' : 'steel');
            expect(carrier?.depth).toBe(wood >= 0 ? drawn[wood]?.[1] : ribDepth);
            expect(carrier?.passed).toBeGreaterThanOrEqual(thickness);
          });
        },
      ),
      { seed: 7 },
    );
  });
  it('counts foam that lies on the ribs under a batten: 18 and 20 are passed, and 6 of steel', () => {
    const depth = buildUpDepth(
      'left',
      [layer('continuous', 20), layer('battens', 18), layer('continuous', 4)],
      38,
      book,
    );
    const on = carrierUnder(depth, 1);
    expect(on).toEqual({ passed: 38, into: 'steel', depth: 38 });
    const { held } = battensHeld([upright(0, 0, 1200, true)], 18, on, null, 'left', book);
    expect(held[0]?.fixing).toMatchObject({ passed: 38, least: 44 });
    expect(held[0]?.fixing.pick?.length ?? 50).toBeGreaterThanOrEqual(44);
  });
});
