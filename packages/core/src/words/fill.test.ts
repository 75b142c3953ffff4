import { describe, expect, it } from 'vitest';
import { EN } from './en.js';
import { fillText } from './fill.js';
import { say } from './say.js';

const fill = (text: string, params: Record<string, string | number>): string =>
  fillText(
    text,
    (name) => (name in params ? String(params[name]) : undefined),
    (name) => params[name],
  );

describe('the blanks of a text', () => {
  it('one is said as one, none and more as more', () => {
    const text = '{count} {count|sheet is|sheets are} left';
    expect(fill(text, { count: 0 })).toBe('0 sheets are left');
    expect(fill(text, { count: 1 })).toBe('1 sheet is left');
    expect(fill(text, { count: 2 })).toBe('2 sheets are left');
    expect(fill(text, { count: 1.5 })).toBe('1.5 sheets are left');
  });

  it('a blank without a value is left standing, also where it chooses', () => {
    expect(fill('{count} {what|a|b}', { count: 2 })).toBe('2 {what|a|b}');
  });

  it('a number that was put into words already counts as more', () => {
    expect(fill('{count|board|boards}', { count: '1 200' })).toBe('boards');
  });

  it('messages of the computation choose too', () => {
    const cut = (count: number): string => say({ key: 'task.subfloorCut', params: { count } });
    expect(cut(1)).toBe('Cut the subfloor, 1 board');
    expect(cut(3)).toBe('Cut the subfloor, 3 boards');
  });

  it('every text that chooses has a number to choose by written beside it', () => {
    for (const [key, text] of Object.entries(EN))
      for (const [, name] of text.matchAll(/\{(\w+)\|/g)) expect(text, key).toContain(`{${name ?? ''}}`);
  });
});
