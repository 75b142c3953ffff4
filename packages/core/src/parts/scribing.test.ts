import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { rectangle } from '../numeric/plane.js';
import type { Part } from './part.js';
import { learntAllowance, patternState, scribeLine, shapeOf, takenOff, twinPasses } from './scribing.js';

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
  unit: id,
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

describe('a twin', () => {
  const first = part('box-1', 800);
  const passes = [pass('box-1', [0, 4, 9]), pass('box-1', [1, 0, 2])];

  it('starts from the passes of the one that was scribed first', () => {
    const second = part('box-2', 803);
    expect(twinPasses(second, 'back', [first, second], passes)).toEqual({
      part: 'box-1',
      gaps: [
        [0, 4, 9],
        [1, 0, 2],
      ],
    });
    // nothing to start from: another edge, another size, an edge that has passes of its own
    expect(twinPasses(second, 'left', [first, second], passes)).toBeNull();
    expect(twinPasses(part('box-3', 820), 'back', [first], passes)).toBeNull();
    expect(twinPasses(second, 'back', [first, second], [...passes, pass('box-2', [0, 1])])).toBeNull();
    expect(twinPasses(first, 'back', [first, second], passes)).toBeNull();
  });

  it('has them turned round where it lies the other way round', () => {
    const second: Part = { ...part('box-2', 800), place: { ...first.place, along: [-1, 0, 0] } };
    expect(twinPasses(second, 'back', [first, second], passes)?.gaps[0]).toEqual([9, 4, 0]);
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
