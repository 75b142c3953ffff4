import { describe, expect, it } from 'vitest';
import { pulled, settled } from './lazy.js';

interface Sum {
  readonly a: number;
  readonly twice: number;
  readonly unread: number;
}

describe('what is worked out when it is read', () => {
  it('is worked out once, when it is first read, from what was read before', () => {
    const asked: string[] = [];
    const sum: Sum = pulled<Sum>({
      a: () => (asked.push('a'), 3),
      twice: () => (asked.push('twice'), 2 * sum.a),
      unread: () => (asked.push('unread'), 0),
    });
    expect(asked).toEqual([]);
    expect([sum.twice, sum.twice, sum.a]).toEqual([6, 6, 3]);
    expect(asked).toEqual(['twice', 'a']);
  });
  it('keeps two with the same names apart, and nothing as nothing', () => {
    const of = (a: number | null) => pulled<{ readonly a: number | null }>({ a: () => a });
    const [one, other, none] = [of(1), of(2), of(null)];
    expect([one.a, other.a, none.a, one.a]).toEqual([1, 2, null, 1]);
  });
  it('is plain data once it is settled, and lets go of the rest', () => {
    const sum: Sum = pulled<Sum>({ a: () => 1, twice: () => 2 * sum.a, unread: () => 5 });
    expect(settled(sum, ['a', 'twice'])).toEqual({ a: 1, twice: 2 });
    expect(() => sum.unread).toThrow('unread');
  });
});
