import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { rectangle } from '../numeric/plane.js';
import type { Part } from './part.js';
import { learntAllowance, patternState, scribeLine, shapeOf, takenOff } from './scribing.js';

const pass = (part: string, gaps: number[], edge: 'back' | 'left' = 'back') => ({
  id: `${part}-${gaps.join('-')}`,
  part,
  edge,
  gaps,
  at: '2026-10-01T10:00:00.000Z',
});
const part = (id: string, length: number): Part => ({
  id,
  role: 'top',
  number: 1,
  unit: 'u',
  material: 'm',
  thickness: 15,
  outline: { outer: rectangle(0, 0, length, 300), holes: [] },
  grain: true,
  edges: [],
  place: { origin: [0, 0, 0], along: [1, 0, 0], across: [0, 1, 0], thick: [0, 0, -1] },
});

describe('scribing', () => {
  it('takes off at each place what its gap lacks of the widest', () => {
    const line = scribeLine([0, 3, 11, 6], 20);
    expect(line).toEqual({ compass: 11, off: [11, 8, 0, 5], most: 11, left: 9 });
    expect(scribeLine([2, 30], 20).left).toBe(-8);
  });

  it('closes every gap: what was open and what comes off add up to the compass', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 0, max: 60 }), { minLength: 2, maxLength: 20 }), (gaps) => {
        const { compass, off } = scribeLine(gaps, 60);
        expect(gaps.every((gap, i) => gap + (off[i] ?? 0) === compass)).toBe(true);
      }),
      { seed: 7 },
    );
  });

  it('learns from three edges on', () => {
    const two = [pass('a', [0, 9]), pass('a', [0, 3]), pass('b', [2, 6])];
    expect(takenOff(two, 'a', 'back')).toBe(12);
    expect(learntAllowance(two)).toBeNull();
    // the largest total is 12 for part a; 4 mm of play
    expect(learntAllowance([...two, pass('c', [0, 5], 'left')])).toEqual({ allowance: 16, edges: 3 });
  });
});

describe('a pattern', () => {
  it('is good for a part while the part keeps its shape', () => {
    const pattern = {
      id: 'p',
      name: 'front arch',
      source: 'card',
      revision: 1,
      mirrored: false,
      made: ['a', 'b', 'c'].map((id) => ({ part: id, shape: shapeOf(part(id, 500)) })),
    };
    expect(patternState(pattern, [part('a', 500), part('b', 501)])).toEqual([
      { part: 'a', state: 'good' },
      { part: 'b', state: 'changed' },
      { part: 'c', state: 'gone' },
    ]);
  });
});
