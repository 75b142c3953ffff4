import { describe, expect, it } from 'vitest';
import { labelLines } from './label-lines.js';

describe('a name in a drawing', () => {
  it('stays on one line where there is room', () => {
    expect(labelLines('Kitchen window', 200, 11)).toEqual(['Kitchen window']);
  });
  it('is broken at its spaces where there is not: 52 px at 11 px are nine letters', () => {
    expect(labelLines('Kitchen window', 52, 11)).toEqual(['Kitchen', 'window']);
    expect(labelLines('Left window 2 b', 52, 11)).toEqual(['Left', 'window 2', 'b']);
  });
  it('never breaks a word, and never loses one', () => {
    expect(labelLines('Entry', 4, 11)).toEqual(['Entry']);
    expect(labelLines('a b c d', 0, 13).join(' ')).toBe('a b c d');
  });
});
