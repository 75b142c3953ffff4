import { describe, expect, it } from 'vitest';
import bulrush from '../../../../demo/bulrush.json?raw';
import thimble from '../../../../demo/thimble.json?raw';
import wren from '../../../../demo/wren.json?raw';
import { readProjectFile } from '../formats/read.js';
import { ringArea } from '../numeric/plane.js';
import { derive } from './derive.js';
import beforeText from './fixtures/demos-before.json?raw';

interface Before {
  readonly parts: Readonly<Record<string, { readonly count: number; readonly m2: number }>>;
  readonly plans: readonly (readonly [string, number, number])[];
  readonly lines: readonly (readonly [string, number, number])[];
  readonly total: number;
  readonly kg: number;
  readonly checks: readonly (readonly [string, string, number | null])[];
  readonly tasks: readonly string[];
}
const before = JSON.parse(beforeText) as Readonly<Record<'wren' | 'bulrush' | 'thimble', Before>>;

/**
 * What the demos came to before furniture became one model. What came out otherwise since is named here with why; all
 * else has to be as it was.
 */
const CORRECTED = {
  // screws and glue by joint: lengths that hold what they go through, instead of one length for all
  wren: ['fixing:screws-40', 'fixing:screws-35', 'fixing:screws-50', 'fixing:screws-25'],
  bulrush: ['fixing:screws-40', 'fixing:screws-35', 'fixing:screws-50'],
  thimble: ['fixing:screws-40', 'fixing:screws-35', 'fixing:screws-17'],
} as const;

describe.each([
  ['wren', wren],
  ['bulrush', bulrush],
  ['thimble', thimble],
] as const)('%s, before and after', (name, text) => {
  const was = before[name];
  const { project, priceBook } = readProjectFile(text);
  const derived = derive(project, priceBook);

  it('has the same parts of the same areas', () => {
    const parts: Record<string, { count: number; m2: number }> = {};
    for (const part of derived.parts) {
      const key = [part.unit ?? '-', part.role, part.material, part.thickness].join(' ');
      const of = (parts[key] ??= { count: 0, m2: 0 });
      of.count += 1;
      of.m2 += Math.abs(ringArea(part.outline.outer)) / 1e6;
    }
    const counts = (all: Before['parts']) =>
      Object.entries(all)
        .map(([key, { count }]) => [key, count])
        .sort();
    expect(counts(parts)).toEqual(counts(was.parts));
    // to a two-thousandth: where the moved wall and the moved roof of the bus meet turns on less than a hair's breadth
    for (const [key, { m2 }] of Object.entries(was.parts))
      expect(Math.abs((parts[key]?.m2 ?? 0) - m2), key).toBeLessThan(0.0001 + m2 / 2000);
  });
  it('has the same plans, mass, checks and tasks', () => {
    const round = (value: number): number => Math.round(value * 100) / 100;
    expect(derived.plans.map(({ material, plan }) => [material.id, plan.sheets.length, plan.cost])).toEqual(was.plans);
    expect(Math.abs(derived.mass.total - was.kg)).toBeLessThan(0.02);
    // of one grade they stand in another order
    expect(
      derived.checks.map(({ id, grade, spare }) => [id, grade, spare === null ? null : round(spare)]).sort(),
    ).toEqual([...was.checks].sort());
    expect(derived.schedule.tasks.map(({ task }) => task.id).sort()).toEqual([...was.tasks].sort());
  });
  it('is bought as it was, but for what is named above', () => {
    const lines = new Map(derived.shopping.lines.map((line) => [line.id, [line.id, line.quantity, line.total]]));
    const former = new Map(was.lines.map((line) => [String(line[0]), line]));
    const otherwise = [...new Set([...lines.keys(), ...former.keys()])].filter(
      (id) => JSON.stringify(lines.get(id)) !== JSON.stringify(former.get(id)),
    );
    expect(otherwise.sort()).toEqual([...CORRECTED[name]].sort());
    const sum = (of: Iterable<readonly (string | number)[]>): number =>
      [...of].filter((line) => otherwise.includes(String(line[0]))).reduce((all, line) => all + Number(line[2]), 0);
    expect(derived.shopping.total - was.total).toBe(sum(lines.values()) - sum(former.values()));
  });
});
