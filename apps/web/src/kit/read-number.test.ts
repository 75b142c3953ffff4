import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import { readNumber, readPrice } from './read-number.js';

const between = { least: 0, most: 40, whole: false };
describe('numbers', () => {
  it.each([
    ['12', 12],
    [' 3,5 ', 3.5],
    ['3.5', 3.5],
    ['0', 0],
    ['40', 40],
    ['40.1', null],
    ['-1', null],
    ['', null],
    ['4x', null],
    ['1e999', null],
    ['Infinity', null],
  ])('%j is %j', (typed, number) => expect(readNumber(typed, between)).toBe(number));
  it('a count has no fraction', () => {
    expect(readNumber('3', { ...between, whole: true })).toBe(3);
    expect(readNumber('3.5', { ...between, whole: true })).toBeNull();
  });
});
describe('prices', () => {
  it.each([
    ['12', 1200],
    ['12,5', 1250],
    ['1 234.05', 123405],
    ['1\u202f234.05', 123405],
    ['0.1', 10],
    ['1.005', null],
    ['-3', null],
    ['', null],
    ['abc', null],
  ])('%j is %j', (typed, price) => expect(readPrice(typed)).toBe(price));
  it('every price of two decimals is read as it was written', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 99_999_999 }),
        (minor) => readPrice(`${Math.floor(minor / 100)}.${String(minor % 100).padStart(2, '0')}`) === minor,
      ),
      { seed: 9, numRuns: 300 },
    );
  });
});
