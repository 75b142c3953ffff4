import { describe, expect, it } from 'vitest';
import { accuracyOf, slipTrial } from './accuracy.js';
import { hiddenShape, trueHalf, trueRoof, trueValue } from './hidden.js';
import { simulatedInstrument } from './instrument.js';
import { createProject } from '../document/create.js';

describe('hidden vehicles', () => {
  it('are the same for the same number and differ for others', () => {
    expect(hiddenShape({ vehicle: 'van', seed: 5 })).toEqual(hiddenShape({ vehicle: 'van', seed: 5 }));
    expect(hiddenShape({ vehicle: 'van', seed: 5 }).length).not.toBe(hiddenShape({ vehicle: 'van', seed: 6 }).length);
  });
  it('have the figures of the scenario', () => {
    const wren = hiddenShape({ vehicle: 'wren', seed: 1 });
    const across = (z: number): number => trueHalf(wren, 'left', 1100, z) + trueHalf(wren, 'right', 1100, z);
    expect(across(0)).toBeCloseTo(1785, -1);
    expect(across(700)).toBeCloseTo(1872, -1);
    expect(trueRoof(wren, 1800, 0)).toBeCloseTo(1905, 0);
    // the dent of 7 in the left wall
    expect(trueHalf(wren, 'right', 1900, 650) - trueHalf(wren, 'left', 1900, 650)).toBeCloseTo(7, 0);
    const bulrush = hiddenShape({ vehicle: 'bulrush', seed: 1 });
    expect(trueHalf(bulrush, 'left', 3000, 0) - trueHalf(bulrush, 'left', 3000, 600)).toBeLessThan(1);
    expect(trueHalf(bulrush, 'left', 3000, 800) - trueHalf(bulrush, 'left', 3000, 1600)).toBeGreaterThan(70);
  });
  it('answer for what they have and not for what they have not', () => {
    const shape = hiddenShape({ vehicle: 'van', seed: 1 });
    const { survey } = createProject({
      id: 't',
      name: 'T',
      kind: 'van',
      model: '',
      units: 'mm',
      startDate: '2026-10-01',
    });
    expect(trueValue(shape, survey, 'floor/length')).toBe(shape.length);
    expect(trueValue(shape, survey, 'arch/a1/height')).toBe(shape.things['arch/a1']?.['height']);
    expect(trueValue(shape, survey, 'arch/a9/height')).toBeNull();
    expect(trueValue(shape, survey, 'nonsense')).toBeNull();
  });
});

describe('the simulated instruments', () => {
  it('blur, miss, run down and lose their link as chance has it, the same for the same seed', () => {
    const run = (faults: number, battery = 100) => {
      const instrument = simulatedInstrument('laser', 7, faults, battery);
      const clicks = Array.from({ length: 140 }, () => {
        const click = instrument.click(1000);
        if (!instrument.charge().linked) instrument.relink();
        return click;
      });
      return { clicks, charge: instrument.charge() };
    };
    const { clicks } = run(1);
    expect(run(1).clicks).toEqual(clicks);
    const missed = clicks.flatMap((click) => (click.kind === 'missed' ? [click.why] : []));
    expect(missed).toContain('no-return');
    expect(missed).toContain('lost');
    const off = (list: typeof clicks) =>
      list.flatMap((click) => (click.kind === 'reading' ? [Math.abs(click.value - 1000)] : []));
    const mean = (list: number[]) => list.reduce((sum, value) => sum + value, 0) / list.length;
    expect(mean(off(run(0).clicks))).toBeLessThan(1.2);
    // a low battery scatters more
    expect(mean(off(run(0, 14).clicks.slice(0, 22)))).toBeGreaterThan(1.5 * mean(off(run(0).clicks.slice(0, 22))));
    expect(run(0, 5).clicks.at(-1)).toEqual({ kind: 'missed', why: 'off' });
  });
  it('say when there is nothing to read', () => {
    expect(simulatedInstrument('angle-finder', 1, 0).click(null)).toEqual({ kind: 'missed', why: 'nothing-there' });
  });
});

describe('the guided walk on practice vehicles', () => {
  it('comes within 3 mm over 95 of 100 places in four of five, and 6 mm where units stand, with at most 60 readings', () => {
    const rows = [1, 2, 3, 4, 5].map((seed) => accuracyOf('van', seed, 60));
    for (const row of rows) {
      expect(row.readings).toBeLessThanOrEqual(60);
      expect(row.walls95).toBeLessThan(3.6);
      expect(row.standingWorst).toBeLessThan(6);
    }
    expect(rows.filter(({ walls95 }) => walls95 > 3).length).toBeLessThanOrEqual(1);
  });
  it.each(['kneed', 'arched', 'pinched'] as const)(
    'says no less than it is off by where it matters, however the walls run: %s',
    (vehicle) => {
      for (const seed of [1, 2, 3, 4, 5, 6]) {
        const row = accuracyOf(vehicle, seed, 60);
        expect(row.thought, `${vehicle} ${seed}`).toBeGreaterThanOrEqual(row.standing95);
        expect(row.standing95, `${vehicle} ${seed}`).toBeLessThan(3.6);
      }
    },
  );
  it('has arcs that come in no farther than one can stand under, and pinches at both sides', () => {
    for (const seed of [1, 2, 3, 4, 5, 6, 7, 8, 9, 10]) {
      const shape = hiddenShape({ vehicle: 'arched', seed });
      const foot = trueHalf({ ...shape, dents: [] }, 'left', shape.length / 2, 0);
      const head = trueHalf({ ...shape, dents: [] }, 'left', shape.length / 2, shape.top);
      expect(foot - head).toBeLessThanOrEqual(331);
      const pinch = hiddenShape({ vehicle: 'pinched', seed }).dents.slice(-2);
      expect(pinch.map(({ side }) => side)).toEqual(['left', 'right']);
      expect(new Set(pinch.map(({ x }) => x)).size).toBe(1);
    }
  });
  it('flags planted slips and leaves good readings alone', () => {
    const trials = [1, 2, 3, 4, 5].map((seed) => slipTrial('van', seed, 60, 20));
    const sum = (key: 'planted' | 'flagged' | 'good' | 'wronglyFlagged'): number =>
      trials.reduce((total, trial) => total + trial[key], 0);
    expect(sum('planted')).toBe(100);
    expect(sum('flagged')).toBeGreaterThanOrEqual(92);
    expect(sum('wronglyFlagged') / sum('good')).toBeLessThan(0.02);
  });
});
