import { describe, expect, it } from 'vitest';
import { applyOperation } from '../furniture/kit.js';
import { progressOf } from '../measure/walk.js';
import { surveyQuality } from '../measure/next-reading.js';
import { outliersOf } from '../measure/quality.js';
import { surfaceModel } from '../measure/surface-model.js';
import type { Project } from '../document/schema.js';
import { closuresOf } from '../measure/closure.js';
import { buildShell } from '../shell/build.js';
import { halfWidth } from '../shell/shell.js';
import { coverageOf, nearnessOf, walkThrough } from './accuracy.js';
import { hiddenShape, trueHalf, trueValue } from './hidden.js';

const KINDS = ['van', 'bus', 'trailer'] as const;

describe('a wall that is straight up to a knee and then bent', () => {
  const walked = [1, 3, 5, 7, 14, 22, 29, 37].map((seed) => walkThrough({ vehicle: 'kneed', seed }, 1, 60));
  const shellOf = (project: Project) => {
    const { shell } = buildShell(project.survey);
    if (!shell) throw new Error('no shell');
    return shell;
  };

  it('comes out within a few millimetres, and as near as the survey says', () => {
    const covered: number[] = [];
    for (const { project, readings, shape } of walked) {
      const near = nearnessOf(shellOf(project), shape);
      const quality = surveyQuality(project.survey, [], shape.length);
      if (quality) covered.push(coverageOf(shellOf(project), shape, quality.doubt));
      expect(readings).toBeLessThanOrEqual(60);
      expect(near.walls95).toBeLessThan(4.2);
      expect(near.standingWorst).toBeLessThan(6);
    }
    expect(covered).toHaveLength(walked.length);
    expect(covered.reduce((sum, share) => sum + share, 0) / covered.length).toBeGreaterThan(0.95);
  });
  it('is found where it is, by a few more readings of one section', () => {
    for (const { project, shape } of walked) {
      const { knees } = surfaceModel(project.survey);
      if (!shape.knee) throw new Error('the vehicle has a knee');
      // a round bend begins at the knee and is taken for one where it turns
      const turns = shape.knee.radius * (Math.sin(shape.knee.head) - Math.sin(shape.knee.foot));
      expect(knees?.best).toBeGreaterThan(shape.knee.at - 60);
      expect(knees?.best).toBeLessThan(shape.knee.at + 90 + turns / 2);
    }
  });
  it('stays straight below it, whatever the readings scatter', () => {
    for (const { project, shape } of walked) {
      const shell = shellOf(project);
      const knee = shape.knee?.at ?? 0;
      const x = shape.stations[2] ?? 0;
      for (const side of ['left', 'right'] as const) {
        const at = (z: number): number => halfWidth(shell, side, x, z);
        const dent = (z: number): number =>
          trueHalf(shape, side, x, z) -
          (trueHalf(shape, side, x, 0) * (knee - z) + trueHalf(shape, side, x, knee) * z) / knee;
        for (const z of [0.25, 0.5, 0.75].map((share) => share * knee)) {
          const off = at(z) - (at(0) * (knee - z) + at(knee) * z) / knee;
          expect(Math.abs(off - dent(z))).toBeLessThan(5);
        }
      }
    }
  });
  it('is none in a wall that bellies out gently', () => {
    for (const seed of [1, 4, 7, 11])
      expect(surfaceModel(walkThrough({ vehicle: 'van', seed }, 1, 60).project.survey).knees?.best).toBeNull();
  });
});

describe('a practice vehicle walked from end to end', () => {
  it.each(KINDS)('%s: every reading of the plan is taken or skipped, and none is doubted', (vehicle) => {
    const { project, readings } = walkThrough({ vehicle, seed: 9 }, 1, 70);
    expect(progressOf(project.survey).next).toBeNull();
    expect(readings).toBe(Object.values(project.survey.readings).flat().length);
    expect(outliersOf(project.survey)).toEqual([]);
  });
  it.each(KINDS)('%s: without any scatter the model is nearer than with it, over all', (vehicle) => {
    const near = (noise: number): number => {
      const figures = [1, 2, 3, 4].map((seed) => {
        const { project, shape } = walkThrough({ vehicle, seed }, noise, 60);
        const { shell } = buildShell(project.survey);
        if (!shell) throw new Error('no shell');
        return nearnessOf(shell, shape).walls95;
      });
      return figures.reduce((sum, figure) => sum + figure, 0);
    };
    expect(near(0)).toBeLessThan(near(2.5));
  });
  it('asking for more makes the survey surer of itself', () => {
    const worst = (most: number): number => {
      const { project, shape } = walkThrough({ vehicle: 'van', seed: 12 }, 1, most);
      return surveyQuality(project.survey, [], shape.length)?.worst ?? 0;
    };
    expect(worst(60)).toBeLessThanOrEqual(worst(55));
  });
  it('the model stays with what was read where it was read', () => {
    const { project } = walkThrough({ vehicle: 'van', seed: 5 }, 1, 60);
    const { shell } = buildShell(project.survey);
    if (!shell) throw new Error('no shell');
    for (const [address, readings] of Object.entries(project.survey.readings)) {
      const wall = /^station\/([^/]+)\/(left|right)\/(\d+)$/.exec(address);
      if (!wall) continue;
      const x = project.survey.readings[`station/${wall[1] ?? ''}/x`]?.at(-1)?.value ?? 0;
      const side = wall[2] === 'left' ? 'left' : 'right';
      expect(halfWidth(shell, side, x, Number(wall[3]))).toBeCloseTo(readings.at(-1)?.value ?? 0, 6);
    }
  });
  it('a survey wall to wall comes as near as one from the centre line where the line was found', () => {
    const practice = { vehicle: 'van' as const, seed: 8 };
    const shape = hiddenShape(practice);
    const start = walkThrough(practice, 0, 0).project;
    const at = '2026-10-01T08:00:00.000Z';
    let project = applyOperation(
      { ...start, survey: { ...start.survey, readings: {}, skipped: [], extra: [] } },
      { name: 'planSurvey', payload: { changes: { reference: 'wall' } } },
    ).project;
    for (let next = progressOf(project.survey).next; next; next = progressOf(project.survey).next) {
      const value = trueValue(shape, project.survey, next);
      project = applyOperation(
        project,
        value === null
          ? { name: 'skipReading', payload: { address: next } }
          : { name: 'takeReading', payload: { address: next, reading: { value, method: 'tape', at } } },
      ).project;
    }
    expect(Object.keys(project.survey.readings).some((address) => address.includes('/width/'))).toBe(true);
    const { shell } = buildShell(project.survey);
    if (!shell) throw new Error('no shell');
    // the sum is known; the halves are off by what one wall is dented and the other is not
    const x = shape.stations[2] ?? 0;
    const across = halfWidth(shell, 'left', x, 900) + halfWidth(shell, 'right', x, 900);
    expect(across).toBeCloseTo(trueHalf(shape, 'left', x, 900) + trueHalf(shape, 'right', x, 900), 6);
    expect(Math.abs(halfWidth(shell, 'left', x, 900) - trueHalf(shape, 'left', x, 900))).toBeLessThan(8);
  });
  it('diagonals and lengths of a true vehicle close', () => {
    const practice = { vehicle: 'bus' as const, seed: 2 };
    const shape = hiddenShape(practice);
    let { project } = walkThrough(practice, 0, 0);
    for (const address of ['station/s2/rest', 'station/s3/diagonal-a', 'station/s3/diagonal-b', 'station/s2/width/0']) {
      const value = trueValue(shape, project.survey, address);
      if (value === null) throw new Error(`${address} has no true value`);
      project = applyOperation(project, {
        name: 'takeReading',
        payload: { address, reading: { value, method: 'tape', at: '2026-10-01T08:00:00.000Z' } },
      }).project;
    }
    const closures = closuresOf(project.survey).filter((closure) => closure.what.key !== 'closure.diagonals');
    expect(closures).toHaveLength(4);
    for (const closure of closures) expect(closure.error).toBeLessThan(0.2);
  });
});
