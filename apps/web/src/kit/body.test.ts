import { describe, expect, it } from 'vitest';
import type { Person } from '@nestplank/core/document';
import { extentOf, lying, sitting, sittingFromFront, standing } from './body.js';

const plain: Person = { id: 'p', name: 'P', stature: 1740 };
const measured: Person = { ...plain, sittingHeight: 930, shoulderWidth: 500 };
const PEOPLE: readonly Person[] = [plain, measured, { ...plain, stature: 900 }, { ...plain, stature: 2050 }];

describe('the outline of a person', () => {
  it('stands as tall as they are, on the floor, as broad as their shoulders', () => {
    for (const person of PEOPLE) {
      const { x, y } = extentOf(standing(person));
      const wide = person.shoulderWidth ?? 0.26 * person.stature;
      expect(y[0]).toBeCloseTo(0, 6);
      expect(y[1]).toBeCloseTo(person.stature, 6);
      expect(x[1]).toBeCloseTo(-x[0], 6);
      expect(x[1] - x[0]).toBeGreaterThanOrEqual(wide - 1);
      expect(x[1] - x[0]).toBeLessThanOrEqual(wide + 0.04 * person.stature);
    }
  });
  it('sits as high as they were measured, and the seat carries them', () => {
    for (const person of PEOPLE) {
      const { y } = extentOf(sitting(person));
      expect(y[1]).toBeCloseTo(person.sittingHeight ?? 0.52 * person.stature, 6);
      expect(y[0]).toBeGreaterThan(-0.01 * person.stature);
      expect(y[0]).toBeLessThan(0.02 * person.stature);
    }
  });
  it('is as high from the front, and as broad as it stands', () => {
    for (const person of PEOPLE) {
      const { x, y } = extentOf(sittingFromFront(person));
      expect(y[1]).toBeCloseTo(person.sittingHeight ?? 0.52 * person.stature, 6);
      expect(y[0]).toBeGreaterThanOrEqual(-1e-9);
      expect(x[1] - x[0]).toBeCloseTo(extentOf(standing(person)).x[1] * 2, 6);
    }
  });
  it('lies from crown to sole', () => {
    for (const person of PEOPLE) {
      const { x } = extentOf(lying(person));
      expect(x[0]).toBeCloseTo(0, 6);
      expect(x[1]).toBeCloseTo(person.stature, 6);
    }
  });
});
