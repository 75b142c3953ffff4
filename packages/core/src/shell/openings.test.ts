import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Opening, Survey } from '../document/schema.js';
import { createProject } from '../document/create.js';
import { boxOf, distanceToRing, ringArea } from '../numeric/plane.js';
import { monotoneCurve } from '../numeric/curve.js';
import { makeShell } from './shell.js';
import { openingArea, openingProblems, openingRing, placedOpenings, quadOf, widthOf } from './openings.js';

const WINDOW: Opening = {
  id: 'w',
  name: 'Window',
  kind: 'window',
  surface: 'left',
  cornerRadius: 0,
  swing: 'fixed',
  hand: 'none',
  slanted: true,
  framed: true,
  ring: null,
};
/** A window 800 wide at its sill whose front leans back by 100 over 500 and whose rear stands upright. */
const EDGES = { from: 1000, to: 1800, fromHead: 1100, toHead: 1800, sill: 900, head: 1400 };

function surveyWith(opening: Opening, read: Record<string, number>): Survey {
  const { survey } = createProject({
    id: 'p',
    name: 'P',
    kind: 'van',
    model: '',
    units: 'mm',
    startDate: '2026-10-01',
  });
  const readings = Object.fromEntries(
    Object.entries(read).map(([what, value]) => [
      `opening/w/${what}`,
      [{ value, method: 'tape' as const, at: '2026-10-01T08:00:00.000Z' }],
    ]),
  );
  return { ...survey, openings: [opening], readings };
}
const READ = { from: 1000, to: 1800, sill: 900, head: 1400, 'from-head': 1100, 'to-head': 1800 };

describe('an opening with leaning sides', () => {
  it('has a trapezium for its outline, and the trapezium’s area', () => {
    // (800 + 700) / 2 x 500 = 375 000
    expect(Math.abs(ringArea(openingRing(EDGES, 0, 0)))).toBeCloseTo(375_000, 3);
    const [placed] = placedOpenings(surveyWith(WINDOW, READ));
    expect(placed && openingArea(placed)).toBeCloseTo(0.375, 9);
    expect(placed && widthOf(placed)).toEqual({ from: 1000, to: 1800 });
  });

  it('is cut smaller square to its edges', () => {
    // the front leans 1 in 5: moved in by 10 square to itself it moves 10 x sqrt(1 + 0.04) = 10.198 level
    const [a, b, c, d] = quadOf(EDGES, 10);
    expect(a[0]).toBeCloseTo(1000 + 2 + 10.198, 3);
    expect(d[0]).toBeCloseTo(1100 - 2 + 10.198, 3);
    expect([b[0], c[0], a[1], c[1]]).toEqual([1790, 1790, 910, 1390]);
  });

  it('stands upright where nobody said that it leans, or its head was not read', () => {
    const { 'from-head': a, 'to-head': b, ...plain } = READ;
    expect([a, b]).toEqual([1100, 1800]);
    for (const survey of [surveyWith({ ...WINDOW, slanted: false }, READ), surveyWith(WINDOW, plain)])
      expect(placedOpenings(survey)[0]).toMatchObject({ fromHead: 1000, toHead: 1800 });
  });

  it('whose sides cross at the head is named, and is no opening', () => {
    const survey = surveyWith(WINDOW, { ...READ, 'from-head': 1850 });
    expect(placedOpenings(survey)).toEqual([]);
    expect(openingProblems(survey, null)).toMatchObject([{ address: 'opening/w/to-head' }]);
  });

  it('has corners that keep within it, of the radius asked, whatever it is', () => {
    const lean = fc.integer({ min: -150, max: 150 });
    fc.assert(
      fc.property(
        lean,
        lean,
        fc.integer({ min: 0, max: 400 }),
        fc.integer({ min: 0, max: 30 }),
        (a, b, radius, less) => {
          const edges = { ...EDGES, fromHead: EDGES.from + a, toHead: EDGES.to + b };
          const ring = openingRing(edges, less, radius);
          const quad = quadOf(edges, less);
          const [box, whole] = [boxOf(ring), boxOf(quad)];
          expect(box.minX).toBeGreaterThanOrEqual(whole.minX - 1e-6);
          expect(box.maxY).toBeLessThanOrEqual(whole.maxY + 1e-6);
          // every point lies within the corners' own quadrilateral, and it is only the corners that are gone
          const gone = Math.abs(ringArea(quad)) - Math.abs(ringArea(ring));
          expect(gone).toBeGreaterThanOrEqual(-1e-6);
          expect(gone).toBeLessThanOrEqual(4 * radius * radius + 1e-6);
          // each edge keeps a stretch: its middle lies on the outline where the radius leaves one
          if (radius < 100) {
            const middle = [(quad[0][0] + quad[3][0]) / 2, (quad[0][1] + quad[3][1]) / 2] as const;
            expect(distanceToRing(middle, ring)).toBeLessThan(0.01);
          }
        },
      ),
      { seed: 5, numRuns: 200 },
    );
  });
});

describe('an opening that lies beyond its surface', () => {
  /** A box 3000 long from 100 on, 1800 wide, 1900 high. */
  const shell = makeShell(
    3000,
    0,
    [100, 3000].map((x) => ({
      x,
      left: monotoneCurve([0, 1900], [900, 900]),
      right: monotoneCurve([0, 1900], [900, 900]),
      roof: monotoneCurve([-900, 0, 900], [1900, 1900, 1900]),
    })),
    100,
  );
  const at = (surface: Opening['surface'], read: Partial<typeof READ>): readonly string[] =>
    openingProblems(surveyWith({ ...WINDOW, slanted: false, surface }, { ...READ, ...read }), shell).map(
      ({ said, address }) => `${said.key} ${address}`,
    );

  it.each([
    // a reading of the tape may be out by a millimetre, not by two
    ['left', { from: 99, to: 900 }, []],
    ['left', { from: 98, to: 900 }, ['opening.beforeStart opening/w/from']],
    ['right', { to: 3001 }, []],
    ['right', { to: 3002 }, ['opening.pastEnd opening/w/to']],
    ['right', { head: 1900 }, []],
    ['right', { head: 1901 }, ['opening.aboveRoof opening/w/head']],
    ['rear', { from: -901, to: 901 }, []],
    ['rear', { from: -902, to: 901 }, ['opening.pastWall opening/w/from']],
    ['rear', { from: -901, to: 902 }, ['opening.pastWall opening/w/to']],
    ['front', { from: -901, to: 901, head: 1901 }, ['opening.aboveRoof opening/w/head']],
    // in the roof its length runs along the vehicle and its sill and head across
    ['roof', { from: 2000, to: 3001, sill: -400, head: 901 }, []],
    ['roof', { from: 2000, to: 3002, sill: -400, head: 901 }, ['opening.pastEnd opening/w/to']],
    ['roof', { from: 99, to: 900, sill: -400, head: 400 }, []],
    ['roof', { from: 98, to: 900, sill: -400, head: 400 }, ['opening.beforeStart opening/w/from']],
    ['roof', { from: 2000, to: 2500, sill: -902, head: 400 }, ['opening.pastWall opening/w/sill']],
    ['roof', { from: 2000, to: 3001, sill: -400, head: 902 }, ['opening.pastWall opening/w/head']],
    ['left', { to: 1000 }, ['opening.order opening/w/to']],
    ['left', { head: 900 }, ['opening.order opening/w/to']],
  ] as const)('in the %s, %j: %j', (surface, read, told) => {
    expect(at(surface, read)).toEqual(told);
  });
});
