import { describe, expect, it } from 'vitest';
import wrenFile from '../../../../demo/wren.json?raw';
import { readProjectFile } from '../formats/read.js';
import { squareRule } from '../rules/openings.js';
import { say } from '../words/say.js';
import { squareness } from './square.js';

const { project: wren } = readProjectFile(wrenFile);

describe('two diagonals of a rectangle', () => {
  it('say how far it is out of square, and what bears that', () => {
    // 600 x 800 leaning by s over its height: the diagonals are those of (600 + s, 800) and (600 - s, 800)
    const leaning = (s: number) =>
      squareRule.run({
        length: 600,
        height: 800,
        a: Math.hypot(600 + s, 800),
        b: Math.hypot(600 - s, 800),
        name: 'Box',
      });
    expect(leaning(0).expected).toBe(1000);
    for (const s of [0.8, 1.7, 6]) expect(leaning(s).figure).toBeCloseTo(s, 9);
    expect([leaning(0.8), leaning(1.7), leaning(6)].map(({ grade }) => grade)).toEqual(['good', 'tight', 'fails']);
    expect(squareRule.run({ length: 0, height: 800, a: 1, b: 2, name: '' }).grade).toBe('unknown');
  });

  it('are told at an opening once both are read, and not where its sides lean', () => {
    const opening = wren.survey.openings.find(({ id }) => id === 'o1');
    if (!opening) throw new Error('no window');
    const read = (what: string): number => wren.survey.readings[`opening/o1/${what}`]?.at(-1)?.value ?? NaN;
    const [length, height] = [read('to') - read('from'), read('head') - read('sill')];
    const reading = (value: number) => [{ value, method: 'tape' as const, at: '2026-10-02T08:00:00.000Z' }];
    const survey = {
      ...wren.survey,
      readings: {
        ...wren.survey.readings,
        'opening/o1/diagonal-a': reading(Math.hypot(length + 3, height)),
        'opening/o1/diagonal-b': reading(Math.hypot(length - 3, height)),
      },
    };
    const said = squareness(survey, 'o1');
    expect(said && say(said)).toContain('is 3 out of square');
    const without = { ...survey, readings: { ...survey.readings } };
    Reflect.deleteProperty(without.readings, 'opening/o1/diagonal-b');
    expect(squareness(without, 'o1')).toBeNull();
    expect(squareness({ ...survey, openings: [{ ...opening, slanted: true }] }, 'o1')).toBeNull();
  });
});
