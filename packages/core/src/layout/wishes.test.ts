import { describe, expect, it } from 'vitest';
import type { Wish } from '../document/schema.js';
import type { Check } from '../furniture/scene.js';
import { message } from '../words/message.js';
import { wishesStand } from './wishes.js';

const check = (changes: Partial<Check>): Check => ({
  id: 'c',
  rule: 'standing-height',
  grade: 'good',
  said: message('rule.guard.good', { name: 'Bunk' }),
  spare: 0,
  mends: [],
  aside: null,
  unit: null,
  person: null,
  x: 0,
  y: 0,
  ...changes,
});
const wish = (changes: Partial<Wish>): Wish => ({
  id: 'w',
  text: 'Upright everywhere',
  who: 'Joost',
  unit: null,
  rule: 'standing-height',
  signed: null,
  ...changes,
});
const stateOf = (own: Wish, ...checks: Check[]) => wishesStand([own], checks)[0]?.state;

describe('a wish', () => {
  it('is kept, just kept or missed as the worst of its checks is', () => {
    expect(stateOf(wish({}), check({}))).toBe('kept');
    expect(stateOf(wish({}), check({}), check({ grade: 'tight' }))).toBe('tight');
    expect(stateOf(wish({}), check({ grade: 'fails' }), check({ grade: 'tight' }))).toBe('missed');
    expect(stateOf(wish({}), check({ grade: 'unknown' }), check({ grade: 'tight' }))).toBe('unknown');
  });
  it('is not known where its rule says nothing of this layout', () => {
    expect(stateOf(wish({}))).toBe('unknown');
    expect(stateOf(wish({}), check({ rule: 'bed-length' }))).toBe('unknown');
  });
  it('of one unit is decided there, and by what is said of the whole room', () => {
    const own = wish({ unit: 'kitchen' });
    expect(stateOf(own, check({ unit: 'bed', grade: 'fails' }), check({ unit: 'kitchen' }))).toBe('kept');
    expect(stateOf(own, check({ unit: null, grade: 'fails' }), check({ unit: 'kitchen' }))).toBe('missed');
  });
  it('is missed even where the check was put aside', () => {
    expect(stateOf(wish({}), check({ grade: 'fails', aside: 'for now' }))).toBe('missed');
  });
  it('without a rule waits to be signed off', () => {
    expect(stateOf(wish({ rule: null }), check({ grade: 'fails' }))).toBe('waits');
    expect(stateOf(wish({ rule: null, signed: '2026-11-05T08:00:00.000Z' }))).toBe('signed');
  });
});
