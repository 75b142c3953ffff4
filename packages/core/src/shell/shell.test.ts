import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import { applyOperation } from '../furniture/kit.js';
import { createProject } from '../document/create.js';
import type { Survey } from '../document/schema.js';
import { archesOf, archFace, archFootprint, archSpan, clearHalfWidth } from './arch.js';
import { buildShell } from './build.js';
import type { StationSection } from './shell.js';
import { innerShell } from './inner.js';
import { roomFigures } from './room.js';
import { monotoneCurve, type Curve } from '../numeric/curve.js';
import { boxOf, spread } from '../numeric/plane.js';
import { walkThrough } from '../practice/accuracy.js';
import {
  curvatureRadius,
  developedHeight,
  halfWidth,
  leanAlong,
  leanUp,
  makeShell,
  roofHeight,
  sectionAcross,
  sideAlong,
  wallTop,
  type Shell,
} from './shell.js';

const AT = '2026-10-01T08:00:00.000Z';
type Readings = Record<string, number>;

function surveyWith(readings: Readings, more: Partial<Survey> = {}): Survey {
  let project = createProject({ id: 't', name: 'Test', kind: 'van', model: '', units: 'mm', startDate: '2026-10-01' });
  project = { ...project, survey: { ...project.survey, ...more } };
  for (const [address, value] of Object.entries(readings))
    project = applyOperation(project, {
      name: 'takeReading',
      payload: { address, reading: { value, method: 'tape', at: AT } },
    }).project;
  return project.survey;
}

function shellOf(readings: Readings, more: Partial<Survey> = {}): Shell {
  const { shell } = buildShell(surveyWith(readings, more));
  if (!shell) throw new Error('no shell');
  return shell;
}

/** A box 3000 long, 1800 wide, 1900 high. */
const BOX: Readings = {
  'floor/length': 3000,
  'station/s1/x': 0,
  'station/s1/left/0': 900,
  'station/s1/left/1900': 900,
  'station/s1/right/0': 900,
  'station/s1/right/1900': 900,
  'station/s1/roof/0': 1900,
  'station/s2/x': 3000,
  'station/s2/left/0': 900,
  'station/s2/left/1900': 900,
  'station/s2/right/0': 900,
  'station/s2/right/1900': 900,
  'station/s2/roof/0': 1900,
};

/** Walls that lean in by 100 over 1000, the right one opening to the rear by 60 over 3000. */
const LEANING: Readings = {
  'floor/length': 3000,
  'station/s1/x': 0,
  'station/s1/left/0': 900,
  'station/s1/left/1000': 800,
  'station/s1/right/0': 900,
  'station/s1/right/1000': 800,
  'station/s1/roof/0': 1000,
  'station/s2/x': 3000,
  'station/s2/left/0': 900,
  'station/s2/left/1000': 800,
  'station/s2/right/0': 960,
  'station/s2/right/1000': 860,
  'station/s2/roof/0': 1000,
};

describe('a shell from readings', () => {
  it('is a box where the readings are', () => {
    const shell = shellOf(BOX);
    expect(halfWidth(shell, 'left', 1234, 777)).toBe(900);
    expect(roofHeight(shell, 2000, 300)).toBeCloseTo(1900, 9);
    const box = boxOf(sectionAcross(shell, 1500));
    expect([box.minX, box.minY, box.maxX, box.maxY].map((v) => Math.round(v * 1e6) / 1e6)).toEqual([
      -900, 0, 900, 1900,
    ]);
    expect(roomFigures(shell)).toMatchObject({
      length: 3000,
      standing: { value: 1900 },
      widthAtFloor: { value: 1800 },
      widthAtBelly: { value: 1800 },
    });
    expect(roomFigures(shell).areas.floor).toBeCloseTo(5.4, 9);
    expect(roomFigures(shell).areas.left).toBeCloseTo(5.7, 9);
  });

  it('leans as the readings lean', () => {
    const shell = shellOf(LEANING);
    expect(halfWidth(shell, 'left', 1500, 250)).toBeCloseTo(875, 9);
    expect(leanUp(shell, 'left', 1500, 500)).toBeCloseTo(Math.atan(-0.1), 9);
    // right wall: 60 over 3000
    expect(leanAlong(shell, 'right', 1500, 300)).toBeCloseTo(Math.atan(0.02), 6);
    expect(halfWidth(shell, 'right', 1500, 1000)).toBeCloseTo(830, 9);
    // length along a wall that runs in 100 over 1000: the root of 1000 squared + 100 squared
    expect(developedHeight(shell, 'left', 0, 1000)).toBeCloseTo(Math.hypot(1000, 100), 6);
    expect(curvatureRadius(shell, 'left', 1000, 400)).toBe(Infinity);
    expect(sideAlong(shell, 'right', 0, 0, 3000, 3).map((p) => Math.round(p[1]))).toEqual([900, 930, 960]);
  });

  it('follows the roof curve above the wall', () => {
    // wall 800 at 1900, roof 2000 in the middle: between them the roof comes down along a monotone curve
    const shell = shellOf({
      ...BOX,
      'station/s1/left/1900': 800,
      'station/s1/right/1900': 800,
      'station/s1/roof/0': 2000,
    });
    expect(wallTop(shell, 'left', 0)).toBe(1900);
    expect(halfWidth(shell, 'left', 0, 2001)).toBe(0);
    const y = halfWidth(shell, 'right', 0, 1950);
    expect(roofHeight(shell, 0, y)).toBeCloseTo(1950, 3);
  });

  it('splits a wall-to-wall width at the centre line and says so', () => {
    const { shell, assumed } = buildShell(
      surveyWith({ 'floor/length': 3000, 'station/s1/x': 100, 'station/s1/width/0': 1790, 'station/s1/roof/0': 1900 }),
    );
    expect(shell && halfWidth(shell, 'left', 0, 0)).toBe(895);
    expect(assumed.map((m) => m.key)).toEqual(['assumed.split', 'assumed.upright', 'assumed.oneStation']);
    // upright to the roof, since one height says nothing of a lean
    expect(shell && halfWidth(shell, 'left', 0, 1800)).toBe(895);
  });
  it('splits widths by where the centre line was found at the foot', () => {
    const { shell, assumed } = buildShell(
      surveyWith({
        'floor/length': 3000,
        'station/s1/x': 100,
        'station/s1/width/0': 1790,
        'station/s1/left/0': 900,
        'station/s1/width/800': 1870,
        'station/s1/roof/0': 1900,
      }),
    );
    // 900 of 1790 is 5 off the middle to the left wall's side; so is the rest
    expect(shell && halfWidth(shell, 'right', 0, 0)).toBe(890);
    expect(shell && halfWidth(shell, 'left', 0, 800)).toBe(940);
    expect(shell && halfWidth(shell, 'right', 0, 800)).toBe(930);
    expect(assumed.map((m) => m.key)).toContain('assumed.splitAt');
  });

  it('takes the other side of a width when one side is known', () => {
    const { shell } = buildShell(
      surveyWith({
        'station/s1/x': 100,
        'station/s1/width/0': 1790,
        'station/s1/left/0': 890,
        'station/s1/roof/0': 1900,
      }),
    );
    expect(shell && halfWidth(shell, 'right', 0, 0)).toBe(900);
  });

  it('mirrors a side only when told to', () => {
    const one = { 'station/s1/x': 100, 'station/s1/left/0': 890, 'station/s1/roof/0': 1900 };
    expect(buildShell(surveyWith(one)).shell).toBeNull();
    expect(buildShell(surveyWith(one)).problems[0]?.said.key).toBe('shell.noStation');
    const mirrored = buildShell(surveyWith(one, { symmetric: true }));
    expect(mirrored.shell && halfWidth(mirrored.shell, 'right', 0, 0)).toBe(890);
    expect(mirrored.assumed.map((m) => m.key)).toContain('assumed.symmetric');
  });

  it('names a station behind the end of the floor, and two in one place', () => {
    const behind = buildShell(
      surveyWith({ ...BOX, 'station/s3/x': 3400, 'station/s3/left/0': 900, 'station/s3/right/0': 900 }),
    );
    expect(behind.problems).toEqual([
      expect.objectContaining({
        address: 'station/s3/x',
        said: expect.objectContaining({ key: 'shell.stationOutside' }) as object,
      }),
    ]);
    expect(behind.shell?.stations).toHaveLength(2);
    const twice = buildShell(
      surveyWith({ ...BOX, 'station/s3/x': 3000, 'station/s3/left/0': 900, 'station/s3/right/0': 900 }),
    );
    expect(twice.problems[0]?.said.key).toBe('shell.sameStation');
  });

  it('gives back every reading, whatever they are', () => {
    const station = fc.record({
      x: fc.integer({ min: 0, max: 3000 }),
      left: fc.array(fc.integer({ min: 600, max: 1000 }), { minLength: 3, maxLength: 3 }),
    });
    fc.assert(
      fc.property(fc.uniqueArray(station, { selector: (s) => s.x, minLength: 2, maxLength: 4 }), (stations) => {
        const readings: Readings = { 'floor/length': 3000 };
        stations.forEach((s, i) => {
          readings[`station/s${i + 1}/x`] = s.x;
          readings[`station/s${i + 1}/roof/0`] = 1900;
          [0, 700, 1400].forEach((z, j) => {
            readings[`station/s${i + 1}/left/${z}`] = s.left[j] ?? 0;
            readings[`station/s${i + 1}/right/${z}`] = s.left[j] ?? 0;
          });
        });
        const shell = shellOf(readings);
        const kept = stations.filter((s, i) => stations.every((o, j) => j >= i || Math.abs(o.x - s.x) >= 1));
        for (const s of kept)
          [0, 700, 1400].forEach((z, j) => expect(halfWidth(shell, 'left', s.x, z)).toBeCloseTo(s.left[j] ?? 0, 6));
      }),
      { seed: 9, numRuns: 60 },
    );
  });
});

describe('walls whose tops differ by a little', () => {
  it('stay walls up to their own top between stations: an unrolled wall has no dent', () => {
    const section = (x: number, top: number) => ({
      x,
      left: monotoneCurve([0, top], [750, 750]),
      right: monotoneCurve([0, top], [750, 750]),
      roof: monotoneCurve([-750, 0, 750], [top, top + 4, top]),
    });
    const shell = makeShell(2000, 0, [section(0, 1798), section(1000, 1800), section(2000, 1798)]);
    for (const x of [0, 300, 500, 900, 1300, 1999]) {
      expect(halfWidth(shell, 'left', x, wallTop(shell, 'left', x))).toBeCloseTo(750, 6);
      expect(developedHeight(shell, 'left', x, wallTop(shell, 'left', x))).toBeCloseTo(wallTop(shell, 'left', x), 3);
    }
  });
});

describe('the inner shell', () => {
  it('takes layers off a box square', () => {
    const inner = innerShell(shellOf(BOX), { floor: 40, left: 30, right: 20, ceiling: 25, front: 0, rear: 0 });
    expect(inner && halfWidth(inner, 'left', 1000, 500)).toBeCloseTo(870, 9);
    expect(inner && halfWidth(inner, 'right', 1000, 500)).toBeCloseTo(880, 9);
    expect(inner && roofHeight(inner, 1000, 0)).toBeCloseTo(1875, 9);
    expect(inner?.floor).toBe(40);
  });
  it('moves a leaning wall along its normal, not in y: 30 thick at a lean of 1 in 10 takes 30.15 across', () => {
    const inner = innerShell(shellOf(LEANING), { floor: 0, left: 30, right: 30, ceiling: 10, front: 0, rear: 0 });
    expect(inner && halfWidth(inner, 'left', 1000, 500)).toBeCloseTo(850 - 30 * Math.sqrt(1.01), 6);
  });
  it('is that of the mirrored room, mirrored: either corner is found in the same way', () => {
    const turned = ({ at, value }: Curve): Curve => monotoneCurve(at.map((y) => -y).reverse(), [...value].reverse());
    const mirrored = (section: StationSection): StationSection => ({
      x: section.x,
      left: section.right,
      right: section.left,
      roof: turned(section.roof),
    });
    for (let seed = 3050; seed < 3056; seed += 1) {
      const { shell } = buildShell(walkThrough({ vehicle: 'van', seed }, 1, 0).project.survey);
      if (!shell) throw new Error('it is measured');
      const other = makeShell(shell.length, shell.floor, shell.stations.map(mirrored), shell.start);
      const by = { floor: 20, left: 35, right: 60, ceiling: 40, front: 0, rear: 0 };
      const [one, two] = [innerShell(shell, by), innerShell(other, { ...by, left: 60, right: 35 })];
      if (!one || !two) throw new Error('it leaves room');
      one.stations.forEach(({ x }, i) => {
        expect(wallTop(one, 'right', x)).toBeCloseTo(wallTop(two, 'left', x), 6);
        expect(wallTop(one, 'left', x)).toBeCloseTo(wallTop(two, 'right', x), 6);
        const half = halfWidth(one, 'right', x, wallTop(one, 'right', x));
        // the corner of wall and roof is one point: as high seen from either, and as far out
        expect(one.stations[i]?.roof.at.at(-1)).toBeCloseTo(half, 6);
        const left = halfWidth(one, 'left', x, wallTop(one, 'left', x));
        for (const y of spread(-left, half, 9))
          expect(roofHeight(one, x, y), `${seed} ${x} ${y} of ${-left} to ${half}`).toBeCloseTo(
            roofHeight(two, x, -y),
            6,
          );
      });
    }
  });
  it('says when the layers are thicker than the room', () => {
    expect(innerShell(shellOf(BOX), { floor: 0, left: 950, right: 950, ceiling: 0, front: 0, rear: 0 })).toBeNull();
    expect(innerShell(shellOf(BOX), { floor: 1000, left: 0, right: 0, ceiling: 1000, front: 0, rear: 0 })).toBeNull();
  });
  it.each(['van', 'bus', 'trailer'] as const)(
    'is left in every drawn %s by layers of any usual thickness on any of its surfaces, none at all among them',
    (vehicle) => {
      const layers = [
        [0, 0, 0],
        [20, 20, 0],
        [0, 0, 60],
        [0, 0, 100],
        [60, 60, 0],
        [20, 20, 150],
        [150, 30, 20],
      ] as const;
      for (let seed = 3050; seed < 3062; seed += 1) {
        const { shell } = buildShell(walkThrough({ vehicle, seed }, 1, 0).project.survey);
        if (!shell) throw new Error('it is measured');
        for (const [left, right, ceiling] of layers) {
          const inner = innerShell(shell, { floor: 0, left, right, ceiling, front: 0, rear: 0 });
          const what = `${vehicle} ${seed}: ${left} ${right} ${ceiling}`;
          if (!inner) throw new Error(`${what} leaves no room`);
          for (const { x } of shell.stations) {
            for (const side of ['left', 'right'] as const)
              // higher up the room ends at the roof
              for (const z of spread(shell.floor, Math.min(wallTop(inner, side, x), wallTop(shell, side, x)) - 1, 7))
                expect(halfWidth(inner, side, x, z), what).toBeLessThanOrEqual(
                  halfWidth(shell, side, x, z) - 0.99 * (side === 'left' ? left : right) + 1,
                );
            const [from, to] = [
              -halfWidth(inner, 'left', x, wallTop(inner, 'left', x)),
              halfWidth(inner, 'right', x, wallTop(inner, 'right', x)),
            ];
            expect(to - from, what).toBeGreaterThan(800);
            for (const y of spread(from, to, 9))
              expect(roofHeight(inner, x, y), what).toBeLessThanOrEqual(roofHeight(shell, x, y) - ceiling + 1);
          }
        }
      }
    },
  );
  it('never grows, whatever the layers', () => {
    const shell = shellOf(LEANING);
    const inset = fc.integer({ min: 0, max: 120 });
    fc.assert(
      fc.property(
        inset,
        inset,
        inset,
        inset,
        fc.integer({ min: 0, max: 3000 }),
        fc.integer({ min: 130, max: 800 }),
        (floor, left, right, ceiling, x, z) => {
          const inner = innerShell(shell, { floor, left, right, ceiling, front: 0, rear: 0 });
          if (!inner) return;
          expect(halfWidth(inner, 'left', x, z)).toBeLessThanOrEqual(halfWidth(shell, 'left', x, z) - left + 1e-6);
          expect(roofHeight(inner, x, 0)).toBeLessThanOrEqual(roofHeight(shell, x, 0) - ceiling + 1e-6);
        },
      ),
      { seed: 10, numRuns: 200 },
    );
  });
});

describe('wheel arches', () => {
  const arch = { 'arch/a1/from': 1800, 'arch/a1/to': 2600, 'arch/a1/height': 300, 'arch/a1/face': 700 };
  it('are boxes or half ellipses', () => {
    const survey = surveyWith({ ...BOX, ...arch });
    const [box] = archesOf(survey, buildShell(survey).shell).arches;
    if (!box) throw new Error('no arch');
    expect(archSpan(box, 299)).toEqual([1800, 2600]);
    expect(archSpan(box, 300)).toBeNull();
    // half an ellipse: at 180 of 300 up, the half length is 400 times the root of 1 - 0.36
    expect(archSpan({ ...box, shape: 'rounded' }, 180)).toEqual([2200 - 320, 2200 + 320]);
    expect(archFootprint(box, shellOf(BOX), 100, 10, 300)?.map((p) => p.map((v) => Math.round(v * 1e6) / 1e6))).toEqual(
      [
        [1790, -1200],
        [2610, -1200],
        [2610, -690],
        [1790, -690],
      ],
    );
    expect(clearHalfWidth(shellOf(BOX), [box], 'left', 0, 3000, 50, 800)).toBe(700);
    expect(clearHalfWidth(shellOf(BOX), [box], 'left', 0, 1700, 50, 800)).toBeCloseTo(900, 9);
    expect(clearHalfWidth(shellOf(BOX), [box], 'right', 0, 3000, 50, 800)).toBeCloseTo(900, 9);
  });
  it('that taper leave what their nearest face between two heights leaves, at the foot or at the top', () => {
    const survey = surveyWith({ ...BOX, ...arch });
    const [box] = archesOf(survey, buildShell(survey).shell).arches;
    if (!box) throw new Error('no arch');
    const clear = (topFace: number, z0: number, z1: number): number =>
      clearHalfWidth(shellOf(BOX), [{ ...box, shape: 'tapered', topFace }], 'left', 1900, 2500, z0, z1);
    // 300 high, from 700 at the foot to 850 at the top: 25 more at 50, half of 150 more at 150
    expect(clear(850, 50, 800)).toBeCloseTo(725, 9);
    expect(clear(850, 150, 250)).toBeCloseTo(775, 9);
    // one that widens upward is nearest at its top, or at the upper height
    expect(clear(550, 50, 800)).toBeCloseTo(550, 9);
    expect(clear(550, 50, 150)).toBeCloseTo(625, 9);
    expect(clear(550, 310, 800)).toBeCloseTo(900, 9);
    expect([0, 150, 300, 400].map((z) => archFace({ ...box, shape: 'tapered', topFace: 850 }, z))).toEqual([
      700, 775, 850, 850,
    ]);
  });
  it('are named when they lie behind the wall or end before they begin', () => {
    const behind = surveyWith({ ...BOX, ...arch, 'arch/a1/face': 950 });
    expect(archesOf(behind, buildShell(behind).shell)).toMatchObject({
      arches: [],
      problems: [{ address: 'arch/a1/face' }],
    });
    const turned = surveyWith({ ...BOX, ...arch, 'arch/a1/to': 1700 });
    expect(archesOf(turned, buildShell(turned).shell).problems[0]?.said.key).toBe('arch.order');
  });
});
