import { describe, expect, it } from 'vitest';
import { joined } from './lists.js';

describe('joined', () => {
  it('puts lists one after another and leaves lists within them as they are', () => {
    expect(joined([[1, 2], [], [3]])).toEqual([1, 2, 3]);
    expect(joined([[[1]], [[2, 3]]])).toEqual([[1], [2, 3]]);
    expect(joined([])).toEqual([]);
  });
});
