import { runWith } from '../furniture/units.fixture.js';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { createProject } from '../document/create.js';
import { applyOperation } from '../furniture/kit.js';
import type { Project, Survey } from '../document/schema.js';
import { surveyQuality } from './next-reading.js';
import { outliersOf } from './quality.js';
import { departuresOf, predict, gainsOf, samplesOf, surfaceModel, type SurfacePoint } from './surface-model.js';

const at = '2026-10-01T08:00:00.000Z';
const XS = [100, 900, 1700, 2500, 3300];
const HEIGHTS = [0, 500, 1000, 1500];
const EVERY_250 = [0, 250, 500, 750, 1000, 1250, 1500];

/** A survey of five stations whose walls follow a formula. */
function surveyed(half: (side: 'left' | 'right', x: number, z: number) => number, heights = HEIGHTS): Project {
  let project = createProject({ id: 't', name: 'T', kind: 'van', model: '', units: 'mm', startDate: '2026-10-01' });
  const read = (address: string, value: number): void => {
    project = applyOperation(project, {
      name: 'takeReading',
      payload: { address, reading: { value, method: 'tape', at } },
    }).project;
  };
  project = applyOperation(project, {
    name: 'planSurvey',
    payload: { changes: { heights, profile: { station: null, heights: [], roofOffsets: [] } } },
  }).project;
  read('floor/length', 3400);
  XS.forEach((x, i) => {
    read(`station/s${i + 1}/x`, x);
    for (const side of ['left', 'right'] as const)
      for (const z of heights) read(`station/s${i + 1}/${side}/${z}`, half(side, x, z));
    read(`station/s${i + 1}/roof/0`, 1900);
  });
  return project;
}
const plain = surveyed((_side, _x, z) => 900 + 40 * Math.sin((Math.PI * z) / 1500));
const onSurface = (surface: 'left' | 'right', x: number, at_: number): SurfacePoint => ({ surface, x, at: at_ });

describe('the model of a survey', () => {
  it('predicts what lies between readings of one shape all along', () => {
    const said = predict(surfaceModel(plain.survey), onSurface('left', 1300, 500));
    expect(said?.value).toBeCloseTo(900 + 40 * Math.sin(Math.PI / 3), 0);
    expect(said?.spread).toBeLessThan(3);
  });
  it('knows nothing without readings and little far from them', () => {
    expect(predict(surfaceModel({ ...plain.survey, readings: {} }), onSurface('left', 0, 0))).toBeNull();
    const near = predict(surfaceModel(plain.survey), onSurface('left', 1700, 1000));
    const far = predict(surfaceModel(plain.survey), onSurface('left', 1700, 2300));
    expect(far?.spread ?? 0).toBeGreaterThan(4 * (near?.spread ?? 0));
  });
  it('gives one station read at few heights the shape of those read at many', () => {
    const whole = surveyed((_side, x, z) => 900 + 40 * Math.sin((Math.PI * z) / 1500) - x / 500);
    const few: Survey = {
      ...whole.survey,
      readings: Object.fromEntries(
        Object.entries(whole.survey.readings).filter(([address]) => !/station\/s3\/left\/(500|1000)/.test(address)),
      ),
    };
    const said = predict(surfaceModel(few), onSurface('left', 1700, 500));
    expect(said?.value).toBeCloseTo(900 + 40 * Math.sin(Math.PI / 3) - 3.4, 0);
  });
  it('a further reading never makes a place less sure (property)', () => {
    const model = surfaceModel(plain.survey);
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 3400 }),
        fc.integer({ min: 0, max: 1600 }),
        fc.integer({ min: 0, max: 3400 }),
        fc.integer({ min: 0, max: 1600 }),
        (x, z, tx, tz) => {
          const gains = gainsOf(
            model,
            [onSurface('left', tx, tz)],
            [[onSurface('left', x, z)], [onSurface('right', x, z)]],
            1,
          );
          for (const after of gains.after) expect(after[0]).toBeLessThanOrEqual((gains.now[0] ?? 0) + 1e-6);
        },
      ),
      { seed: 11, numRuns: 60 },
    );
  });
  it('what a reading is said to help is what it helps when it is taken', () => {
    const survey = plain.survey;
    const place = onSurface('left', 2500, 1650);
    const { now, after } = gainsOf(surfaceModel(survey), [place], [[place]], 1);
    const taken: Survey = {
      ...survey,
      readings: { ...survey.readings, 'station/s4/left/1650': [{ value: 880, method: 'tape', at }] },
    };
    const then = predict(surfaceModel(taken), place)?.spread ?? 0;
    expect(Math.sqrt(now[0] ?? 0)).toBeGreaterThan(2 * then);
    expect(Math.sqrt(after[0]?.[0] ?? 0)).toBeCloseTo(then, 1);
  });
  it('looks at long surveys in stretches that agree where they meet', () => {
    const readings: Survey['readings'] = {};
    const stations = Array.from({ length: 30 }, (_, i) => ({ id: `s${i + 1}`, name: `S${i + 1}`, planned: true }));
    stations.forEach(({ id }, i) => {
      readings[`station/${id}/x`] = [{ value: i * 250, method: 'tape', at }];
      for (const side of ['left', 'right'])
        for (let z = 0; z <= 1600; z += 160)
          readings[`station/${id}/${side}/${z}`] = [{ value: 1000, method: 'tape', at }];
    });
    const model = surfaceModel({ ...plain.survey, stations, readings });
    expect(samplesOf({ ...plain.survey, stations, readings })).toHaveLength(660);
    expect(model.stretches.length).toBeGreaterThan(2);
    for (const x of [0, 1800, 3630, 7250])
      expect(predict(model, onSurface('left', x, 800))?.value).toBeCloseTo(1000, 0);
  });
});

describe('readings that others do not bear out', () => {
  it('are found one by one, the worst first, and leave their neighbours alone', () => {
    const slipped = (changes: Record<string, number>): Survey => ({
      ...plain.survey,
      readings: {
        ...plain.survey.readings,
        ...Object.fromEntries(
          Object.entries(changes).map(([address, value]) => [address, [{ value, method: 'tape' as const, at }]]),
        ),
      },
    });
    expect(outliersOf(plain.survey)).toEqual([]);
    const one = outliersOf(slipped({ 'station/s3/left/500': 965 }));
    expect(one.map((o) => o.address)).toEqual(['station/s3/left/500']);
    expect(one[0]?.slip).toMatchObject({ key: 'slip.digit', params: { value: { mm: 935 } } });
    expect(one[0]?.meant).toBe(935);
    const two = outliersOf(slipped({ 'station/s3/left/500': 965, 'station/s4/right/1000': 835 }));
    expect(two.map((o) => o.address)).toEqual(['station/s4/right/1000', 'station/s3/left/500']);
  });
  it('are not looked for among a handful', () => {
    const few = { ...plain.survey, readings: Object.fromEntries(Object.entries(plain.survey.readings).slice(0, 4)) };
    expect(departuresOf(surfaceModel(few), 7, 3)).toEqual([]);
  });
});

describe('the next best reading', () => {
  it('is none when the survey is as good as wanted', () => {
    const close = surveyed((_side, _x, z) => 900 + z / 50, EVERY_250);
    const quality = surveyQuality(close.survey, [], 3400);
    expect(quality).toMatchObject({ good: true, next: null });
    expect(quality?.doubt.left[0]).toHaveLength(17);
  });
  it('first looks where the walls may bend, in the section that was read at most heights', () => {
    const quality = surveyQuality({ ...plain.survey, goal: 3 }, [], 3400);
    expect(quality?.good).toBe(false);
    // half-way between two heights that were read, where a bend would show most
    expect(quality?.next?.addresses[0]).toMatch(/^station\/s\d\/(left|right)\/1(1|2|3)\d0$/);
    expect(quality?.next?.station).toBeNull();
  });
  it('goes to the gap: a station where two are far apart', () => {
    const dense = surveyed((_side, _x, z) => 900 + 40 * Math.sin((Math.PI * z) / 1500), EVERY_250);
    const readings = Object.fromEntries(
      Object.entries(dense.survey.readings).filter(([address]) => !/station\/s[34]/.test(address)),
    );
    const quality = surveyQuality({ ...dense.survey, goal: 3, readings }, [], 3400);
    expect(quality?.good).toBe(false);
    const next = quality?.next;
    expect(next?.station?.x).toBe((900 + 3300) / 2);
    expect(next?.addresses[0]).toBe(`station/${next?.station?.id ?? ''}/x`);
    expect(next?.after ?? 99).toBeLessThan(next?.before ?? 0);
  });
  it('counts where units stand, and never asks for more than their scribe allowance needs', () => {
    const readings = Object.fromEntries(
      Object.entries(plain.survey.readings).filter(([address]) => !/station\/s[45]\/left/.test(address)),
    );
    const survey = { ...plain.survey, goal: 50, readings };
    const unit = runWith({ id: 'u', side: 'left', x: 2600, length: 600, front: 400, height: 900, doors: 1, scribe: 3 });
    const quality = surveyQuality(survey, [unit], 3400);
    expect(quality?.goal).toBe(3);
    expect(quality?.at.surface).toBe('left');
    expect(quality?.at.x ?? 0).toBeGreaterThan(2500);
    expect(quality?.next?.addresses.some((address) => address.includes('/left/'))).toBe(true);
  });
  it('counts of the walk only what would tell something: things without a size, walls not known to the goal', () => {
    const open = (goal: number): readonly string[] => {
      const readings = Object.fromEntries(
        Object.entries(plain.survey.readings).filter(([address]) => !/station\/s3\/(left|right)\/500/.test(address)),
      );
      const survey: Survey = { ...plain.survey, goal, readings, heights: [0, 500, 1000, 1500] };
      return surveyQuality(survey, [], 3400)?.worth ?? [];
    };
    // the neighbours say a smooth wall well enough for a wide goal, not for a close one
    expect(open(40).filter((address) => address.startsWith('station/s3/'))).toEqual([]);
    expect(open(1)).toEqual(expect.arrayContaining(['station/s3/left/500', 'station/s3/right/500']));
    // the arches have no size at either
    expect(open(40)).toEqual(expect.arrayContaining(['arch/a1/from', 'arch/a2/face']));
  });
  it('says nothing before two stations have walls', () => {
    expect(surveyQuality({ ...plain.survey, readings: {} }, [], 3400)).toBeNull();
  });
});
