import { describe, expect, it } from 'vitest';
import { DERIVED_KEYS } from '@nestplank/core/derive';
import { STAGES } from '../stages/stages.js';
import { firstKeys } from './first-keys.js';

describe('what is worked out first', () => {
  it.each([...STAGES])('%s: known keys, in their order, the room before what stands in it', (stage) => {
    const keys = firstKeys(stage);
    expect(keys).toEqual(DERIVED_KEYS.filter((key) => keys.includes(key)));
    expect(keys).toContain('room');
  });
  it('plans are not waited for where none are shown', () => {
    expect(firstKeys('layout')).not.toContain('plans');
    expect(firstKeys('cut')).toContain('plans');
    expect(firstKeys('buy')).toContain('shopping');
    expect(firstKeys('work')).toContain('schedule');
  });
});
