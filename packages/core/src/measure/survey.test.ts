import { describe, expect, it } from 'vitest';
import { OperationError } from '../document/editing.js';
import { applyOperation } from '../furniture/kit.js';
import { createProject } from '../document/create.js';
import type { Project } from '../document/schema.js';
import { describeAddress, parseAddress } from '../document/address.js';
import { closuresOf } from './closure.js';
import { expectedAt, likelySlip, outliersOf } from './quality.js';
import { uncertaintyOf } from './trust.js';
import { progressOf, walkOf, walkSteps } from './walk.js';
import { say } from '../words/say.js';

const empty = createProject({ id: 't', name: 'Test', kind: 'van', model: '', units: 'mm', startDate: '2026-10-01' });
const take = (project: Project, address: string, value: number): Project =>
  applyOperation(project, {
    name: 'takeReading',
    payload: { address, reading: { value, method: 'tape', at: '2026-10-01T08:00:00.000Z' } },
  }).project;
const all = (readings: Record<string, number>): Project =>
  Object.entries(readings).reduce((project, [address, value]) => take(project, address, value), empty);

describe('addresses', () => {
  it('are read and described, or refused', () => {
    expect(parseAddress('station/s3/left/700')).toEqual({ kind: 'station', id: 's3', what: 'left', along: 700 });
    expect(parseAddress('station/s3/roof/-450')).toMatchObject({ what: 'roof', along: -450 });
    for (const bad of [
      '',
      'floor',
      'floor/width',
      'station/s3',
      'station/s3/left',
      'station/s3/left/high',
      'arch/a1/colour',
      'rib/r1/x/1',
      'station/s1/x/3',
    ])
      expect(parseAddress(bad)).toBeNull();
    expect(say(describeAddress(empty.survey, 'station/s2/right/800'))).toBe(
      'Centre line to right wall, 800 up, at Station 2',
    );
    expect(say(describeAddress(empty.survey, 'arch/a1/face'))).toBe('Centre line to the face of the Left arch');
  });
});

describe('the walk', () => {
  it('goes to the rear kneeling and back standing: nothing is walked twice', () => {
    const order = walkOf(empty.survey);
    expect(order.slice(0, 5)).toEqual([
      'floor/length',
      'station/s1/x',
      'station/s1/left/0',
      'station/s1/right/0',
      'station/s2/x',
    ]);
    // the station that gives the profile is read at more heights, up the left wall and down the right
    const profile = order.indexOf('station/s3/x');
    expect(order.slice(profile + 1, profile + 5)).toEqual(
      ['left/0', 'left/450', 'right/450', 'right/0'].map((rest) => `station/s3/${rest}`),
    );
    const high = walkSteps(empty.survey)
      .filter((step) => step.leg === 'high')
      .map((step) => step.address);
    expect(high.slice(0, 4)).toEqual([
      'station/s6/left/900',
      'station/s6/roof/0',
      'station/s6/right/900',
      'station/s5/left/900',
    ]);
    expect(new Set(order).size).toBe(order.length);
  });
  it('asks for widths and one half of the lowest when walls are read from wall to wall', () => {
    const order = walkOf({ ...empty.survey, reference: 'wall' });
    expect(order).toContain('station/s1/width/0');
    expect(order).toContain('station/s1/left/0');
    expect(order.filter((address) => address.includes('/right/'))).toEqual([]);
  });
  it('asks for what its things need and what was asked for beyond the plan', () => {
    const survey = {
      ...empty.survey,
      arches: [
        { id: 'd', name: 'Duct', side: 'left' as const, kind: 'duct' as const, shape: 'tapered' as const },
        { id: 'h', name: 'Hump', side: 'right' as const, kind: 'hump' as const, shape: 'box' as const },
      ],
      extra: ['station/s2/rest'],
    };
    const order = walkOf(survey);
    for (const address of ['arch/d/top-face', 'arch/d/bottom', 'arch/h/far', 'station/s2/rest'])
      expect(order).toContain(address);
    expect(order).not.toContain('arch/h/bottom');
    expect(order.at(-1)).toBe('station/s2/rest');
  });
  it('goes on at the first gap, steps over what was skipped, and comes back to it when it is taken', () => {
    let project = take(empty, 'floor/length', 3000);
    expect(progressOf(project.survey)).toMatchObject({ taken: 1, next: 'station/s1/x', skipped: 0 });
    project = applyOperation(project, { name: 'skipReading', payload: { address: 'station/s1/x' } }).project;
    expect(progressOf(project.survey)).toMatchObject({ taken: 1, next: 'station/s1/left/0', skipped: 1 });
    project = take(project, 'station/s1/x', 80);
    expect(progressOf(project.survey)).toMatchObject({ taken: 2, skipped: 0 });
  });
  it('asks half as much of a survey that is taken to be symmetric', () => {
    expect(walkOf({ ...empty.survey, symmetric: true }).filter((address) => address.includes('/right/'))).toEqual([]);
  });
});

describe('quality', () => {
  const wall = all({
    'station/s1/x': 0,
    'station/s2/x': 1000,
    'station/s3/x': 2000,
    'station/s4/x': 3000,
    'station/s1/left/800': 1364,
    'station/s2/left/800': 1362,
    'station/s4/left/800': 1366,
  });

  it('closes widths and diagonals', () => {
    const project = all({
      'station/s1/x': 0,
      'station/s1/left/0': 892,
      'station/s1/right/0': 889,
      'station/s1/width/0': 1785,
      'floor/diagonal-a': 4112,
      'floor/diagonal-b': 4125,
    });
    expect(closuresOf(project.survey).map(({ error, verdict }) => [error, verdict])).toEqual([
      [13, 'fails'],
      [4, 'good'],
    ]);
  });
  it('expects a reading from its neighbours and not from itself', () => {
    const expected = expectedAt(take(wall, 'station/s3/left/800', 99).survey, 'station/s3/left/800');
    expect(expected?.value).toBeGreaterThan(1362);
    expect(expected?.value).toBeLessThan(1366);
    expect(expectedAt(empty.survey, 'station/s1/left/0')).toBeNull();
  });
  it('catches 1634 for 1364 and names the slip', () => {
    const [outlier] = outliersOf(take(wall, 'station/s3/left/800', 1634).survey);
    expect(outlier).toMatchObject({
      address: 'station/s3/left/800',
      slip: { key: 'slip.digits', params: { value: { mm: 1364 } } },
    });
    expect(outliersOf(take(wall, 'station/s3/left/800', 1634).survey)).toHaveLength(1);
    expect(outliersOf(take(wall, 'station/s3/left/800', 1366).survey)).toEqual([]);
  });
  it('knows centimetres, inches and a lost foot', () => {
    const expected = { value: 1364, within: 8 };
    expect(likelySlip(136.5, expected)?.slip.key).toBe('slip.centimetres');
    expect(likelySlip(53.7, expected)?.slip.key).toBe('slip.inches');
    expect(likelySlip(1059, expected)?.slip.key).toBe('slip.foot');
    // 52 11/16 in for 53 11/16 in
    expect(likelySlip(1338.2625, { value: 1364, within: 8 })?.slip.key).toBe('slip.inch');
    expect(likelySlip(1211, expected)).toBeNull();
  });
  it('trusts a method, or the spread of repeats when that is more', () => {
    expect(uncertaintyOf({ value: 900, method: 'tape', at: '' })).toBe(2);
    expect(uncertaintyOf({ value: 900, method: 'tape', at: '', repeats: [896, 904] })).toBe(4);
  });
});

describe('readings', () => {
  it('are kept when taken again; the last one counts', () => {
    const project = take(take(empty, 'floor/length', 3000), 'floor/length', 3010);
    expect(project.survey.readings['floor/length']?.map((r) => r.value)).toEqual([3000, 3010]);
  });
  it('are refused where there is nothing to measure or the figure cannot be right', () => {
    expect(() => take(empty, 'station/s9/x', 100)).toThrow(OperationError);
    expect(() => take(empty, 'floor/length', 20)).toThrow(OperationError);
  });
});
