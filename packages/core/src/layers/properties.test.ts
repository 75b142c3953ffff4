import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import wrenText from '../../../../demo/wren.json?raw';
import { startPriceBook } from '../materials/start-book.js';
import { readProjectFile } from '../formats/read.js';
import { fixingRule } from '../rules/fixings.js';
import { ruleNamed } from '../layout/rules.js';
import { floorBattens } from '../lining/floor/floor-battens.js';
import { derive } from '../derive/again.fixture.js';
import type { Layer } from '../document/schema.js';
import { buildUpDepth, coverOf, plainLayer } from './buildup.js';
import { dampOf, thermalTransmittance } from './warmth.js';
import { dewPoint } from '../rules/damp.js';

const book = startPriceBook();
const wren = readProjectFile(wrenText);
const derived = derive(wren.project, wren.priceBook);
const PLACES: readonly Layer['place'][] = [
  'in-ribs',
  'rib-battens',
  'battens',
  'between-battens',
  'continuous',
  'patches',
];
const layerOf = fc
  .tuple(
    fc.constantFrom('wool-50', 'foam-30', 'batten-30', 'boards-9', 'closed-foam-10'),
    fc.integer({ min: 1, max: 90 }),
    fc.constantFrom(...PLACES),
  )
  .map(([material, thickness, place]) => plainLayer('l', material, thickness, place));
const layersOf = fc
  .array(layerOf, { maxLength: 6 })
  .map((layers) => layers.map((layer, i) => ({ ...layer, id: `l${i}` })));

describe('whatever the layers', () => {
  it('none takes more than it is thick or less than nothing, and all take no more than their sum', () => {
    fc.assert(
      fc.property(layersOf, fc.integer({ min: 0, max: 90 }), (layers, ribs) => {
        const depth = buildUpDepth('left', layers, ribs, book);
        for (const { takes, thickness } of depth.layers) {
          expect(takes).toBeGreaterThanOrEqual(0);
          expect(takes).toBeLessThanOrEqual(thickness);
        }
        expect(depth.total).toBeLessThanOrEqual(layers.reduce((sum, layer) => sum + layer.thickness, 0));
        for (const layer of depth.layers) {
          expect(coverOf(layer, 400)).toBeGreaterThanOrEqual(0);
          expect(coverOf(layer, 400)).toBeLessThanOrEqual(1);
        }
      }),
      { seed: 21, numRuns: 200 },
    );
  });
  it('deeper ribs never cost more room', () => {
    fc.assert(
      fc.property(layersOf, fc.integer({ min: 0, max: 60 }), fc.integer({ min: 1, max: 40 }), (layers, ribs, more) => {
        expect(buildUpDepth('left', layers, ribs + more, book).total).toBeLessThanOrEqual(
          buildUpDepth('left', layers, ribs, book).total + 1e-9,
        );
      }),
      { seed: 22, numRuns: 200 },
    );
  });
  it('a further whole layer keeps more warmth in, more ribs let more out', () => {
    fc.assert(
      fc.property(layersOf, fc.double({ min: 0, max: 0.4, noNaN: true }), (layers, ribs) => {
        const bare = thermalTransmittance(buildUpDepth('left', layers, 50, book), ribs) ?? 0;
        const more = thermalTransmittance(
          buildUpDepth('left', [...layers, plainLayer('x', 'foam-30', 30, 'continuous')], 50, book),
          ribs,
        );
        expect(more ?? Infinity).toBeLessThan(bare);
        // timber in the ribs would make them the warmer way
        const insulated = [
          ...layers.filter((layer) => layer.place !== 'rib-battens'),
          plainLayer('y', 'wool-50', 50, 'in-ribs'),
        ];
        const [few, many] = [0.02, 0.2].map((share) =>
          thermalTransmittance(buildUpDepth('left', insulated, 50, book), share),
        );
        expect(many ?? 0).toBeGreaterThan(few ?? 0);
      }),
      { seed: 23, numRuns: 150 },
    );
  });
  it('temperature falls from the room to the metal and stays between inside and outside', () => {
    fc.assert(
      fc.property(
        layersOf,
        fc.integer({ min: 5, max: 25 }),
        fc.integer({ min: -25, max: 4 }),
        (layers, inside, outside) => {
          const damp = dampOf(buildUpDepth('ceiling', layers, 50, book), { inside, outside, humidity: 60 });
          const path = damp?.faces.map((face) => face.celsius) ?? [];
          expect(path.every((celsius) => celsius < inside && celsius > outside)).toBe(true);
          expect(path).toEqual([...path].sort((a, b) => b - a));
          for (const face of damp?.faces ?? []) expect(face.wet).toBe(face.celsius < (damp?.dewPoint ?? 0));
          expect(damp?.gramsANight ?? 0).toBeGreaterThanOrEqual(0);
        },
      ),
      { seed: 24, numRuns: 150 },
    );
  });
  it('air never dews above its own temperature, and sooner the fuller it is', () => {
    fc.assert(
      fc.property(fc.integer({ min: -10, max: 35 }), fc.integer({ min: 6, max: 99 }), (celsius, humidity) => {
        expect(dewPoint(celsius, humidity)).toBeLessThan(celsius);
        expect(dewPoint(celsius, humidity)).toBeGreaterThan(dewPoint(celsius, humidity - 5));
      }),
      { seed: 25, numRuns: 150 },
    );
  });
});

describe('screws', () => {
  it('that are picked bite enough and stay short of what lies beyond (property)', () => {
    fc.assert(
      fc.property(
        fc.record({
          passed: fc.integer({ min: 3, max: 60 }),
          gap: fc.integer({ min: 0, max: 30 }),
          into: fc.constantFrom('wood' as const, 'steel' as const),
          depth: fc.integer({ min: 9, max: 90 }),
          diameter: fc.constantFrom(3.5, 4, 4.8, 5),
          stocked: fc.array(fc.integer({ min: 10, max: 120 }), { maxLength: 8 }),
        }),
        (input) => {
          const { least, most, pick } = fixingRule.run(input);
          expect(most).toBeGreaterThanOrEqual(least);
          if (pick === null) return;
          expect(input.stocked).toContain(pick);
          expect(pick).toBeGreaterThanOrEqual(least - 0.5);
          // never out at the far side, but for the sheet it has to go through
          expect(pick).toBeLessThanOrEqual(input.passed + input.gap + Math.max(input.depth, 6.5));
          // and none shorter of those in stock would have done
          expect(input.stocked.filter((length) => length < pick && length >= least - 0.5)).toEqual([]);
        },
      ),
      { seed: 26, numRuns: 300 },
    );
  });
});

describe('floor battens', () => {
  it('keep off a hole wherever it is, and stay on the floor (property)', () => {
    const { inner } = derived;
    if (!inner) throw new Error('the demo has a room');
    fc.assert(
      fc.property(
        fc.integer({ min: 100, max: 3500 }),
        fc.integer({ min: -800, max: 800 }),
        fc.integer({ min: 20, max: 120 }),
        (x, y, size) => {
          const survey = {
            ...wren.project.survey,
            penetrations: [
              { id: 'p1', name: 'P', surface: 'floor' as const, purpose: 'other' as const, decided: true, sealing: '' },
            ],
            readings: Object.fromEntries(
              Object.entries({ x, along: y, size }).map(([what, value]) => [
                `hole/p1/${what}`,
                [{ value, method: 'tape' as const, at: '2026-10-01T08:00:00.000Z' }],
              ]),
            ),
          };
          const { battens, metres } = floorBattens({ ...wren.project, units: [], survey }, inner, [], 45, 30);
          const reach = size / 2 + wren.project.settings.floorBattens.clearance;
          for (const batten of battens) {
            expect(batten.x1 - batten.x0).toBeGreaterThanOrEqual(120);
            expect(batten.x0).toBeGreaterThanOrEqual(0);
            expect(batten.x1).toBeLessThanOrEqual(3690);
            const beside = Math.abs(batten.y - y) >= reach + 22.5 - 1e-9;
            expect(beside || batten.x1 <= x - reach + 1e-9 || batten.x0 >= x + reach - 1e-9).toBe(true);
          }
          expect(metres).toBeCloseTo(battens.reduce((sum, b) => sum + b.x1 - b.x0, 0) / 1000, 9);
        },
      ),
      { seed: 27, numRuns: 60 },
    );
  });
});

describe('the rules of level and air', () => {
  it('can be asked for by name, as from the command line', () => {
    expect(ruleNamed('dew-point')?.run({ inside: 20, humidity: 50 })).toEqual({
      celsius: expect.closeTo(9.26, 1) as number,
    });
    expect(ruleNamed('level-rise')?.run({ degrees: 1, run: 1000 })).toEqual({
      rise: expect.closeTo(17.455, 3) as number,
    });
    expect(ruleNamed('string-line')?.run({ height: 1400, run: 3690, degrees: -0.8 })).toEqual({
      front: 1400,
      rear: 1400,
      rearAgainstLevel: expect.closeTo(-51.525, 2) as number,
    });
    expect(ruleNamed('fixing-length')?.input.safeParse({ passed: -1 }).success).toBe(false);
  });
});
