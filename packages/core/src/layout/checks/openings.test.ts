import { describe, expect, it } from 'vitest';
import bulrushFile from '../../../../../demo/bulrush.json?raw';
import wrenFile from '../../../../../demo/wren.json?raw';
import { derive } from '../../derive/derive.js';
import type { Operation } from '../../document/operation.js';
import type { ProjectFile } from '../../document/schema.js';
import { readProjectFile } from '../../formats/read.js';
import { applyOperation } from '../../furniture/kit.js';
import { doorwayRule, glassGapRule, sashRule } from '../../rules/openings.js';
import { say } from '../../words/say.js';

const wren = readProjectFile(wrenFile);
const bulrush = readProjectFile(bulrushFile);
const after = ({ project, priceBook }: ProjectFile, ...operations: Operation[]) =>
  derive(
    operations.reduce((p, operation) => applyOperation(p, operation).project, project),
    priceBook,
  );
const move = (id: string, changes: Record<string, number | string>): Operation => ({
  name: 'changeUnit',
  payload: { id, changes },
});

describe('a door that furniture stands in', () => {
  it('is judged by the widest stretch that is left free, a narrow door by itself', () => {
    const grade = (free: number, width = 1100) => doorwayRule.run({ free, width, name: '', by: '' }).grade;
    expect([grade(550), grade(549), grade(400), grade(399)]).toEqual(['good', 'tight', 'tight', 'fails']);
    expect([grade(380, 380), grade(379, 380)]).toEqual(['good', 'fails']);
  });

  it('is named with what stands in it, and free again when that moves away', () => {
    const door = wren.project.survey.openings.find((o) => o.kind === 'door' && o.surface !== 'rear');
    if (!door || (door.surface !== 'left' && door.surface !== 'right')) throw new Error('the demo has a side door');
    const read = (what: string): number =>
      wren.project.survey.readings[`opening/${door.id}/${what}`]?.at(-1)?.value ?? 0;
    const unit = wren.project.layout.units.find((one) => one.body.stands === door.surface);
    const checkIn = (x: number) =>
      after(wren, move(unit?.id ?? '', { x })).checks.find((check) => check.id === `doorway:${door.id}`);
    // its end reaches past the door's start so far that 300 are left
    const length = unit && 'length' in unit.body ? unit.body.length : 0;
    const blocked = checkIn(read('to') - 300 - length);
    expect(blocked?.grade).toBe('fails');
    expect(blocked && say(blocked.said)).toContain(unit?.name ?? 'nothing');
    expect(checkIn(read('from') - length - 1)).toBeUndefined();
  });
});

describe('what stands over a step', () => {
  it('has no floor under it', () => {
    const { arches } = derive(bulrush.project, bulrush.priceBook);
    const step = arches.find((arch) => arch.kind === 'step');
    const unit = bulrush.project.layout.units.find((one) => one.body.stands === step?.side);
    if (!step || !unit) throw new Error('the demo has a step, and a unit on its side');
    const over = (x: number) =>
      after(bulrush, move(unit.id, { x })).checks.find((check) => check.id === `over-step:${unit.id}:${step.id}`);
    expect(over(step.from + 50)?.grade).toBe('fails');
    expect(over(step.to + 1)).toBeUndefined();
  });
});

describe('glass behind a unit', () => {
  it('is out of reach when it lies near', () => {
    const grade = (clear: number | null) => glassGapRule.run({ clear, name: '', by: '' }).grade;
    expect([grade(30), grade(29), grade(15), grade(14), grade(null)]).toEqual([
      'good',
      'tight',
      'tight',
      'fails',
      'unknown',
    ]);
  });

  it('is as far off as its frame lies behind the finished face at its nearest corner', () => {
    const window = wren.project.survey.openings.find((o) => o.kind === 'window' && o.surface === 'right');
    const unit = wren.project.layout.units.find((one) => one.body.stands === 'right');
    if (!window || !unit) throw new Error('the demo has a window, and a unit on its side');
    const read = (what: string): number =>
      wren.project.survey.readings[`opening/${window.id}/${what}`]?.at(-1)?.value ?? 0;
    const derived = after(wren, move(unit.id, { x: read('from'), height: read('sill') + 200 }));
    const deep = Math.min(...['frame-front-low', 'frame-front-high', 'frame-rear-low', 'frame-rear-high'].map(read));
    const found = derived.checks.find((check) => check.id === `glass-gap:${window.id}:${unit.id}`);
    expect(found?.spare).toBeCloseTo(deep + derived.depths.right.total - 30, 6);
    // below the sill it hides nothing
    const low = after(wren, move(unit.id, { x: read('from'), height: read('sill') - 100 }));
    expect(low.checks.some((check) => check.id.startsWith(`glass-gap:${window.id}`))).toBe(false);
  });
});

describe('a window that comes into the room', () => {
  it('strikes what stands before it, and only then', () => {
    const grade = (clear: number) => sashRule.run({ clear, sweep: 250, name: '', by: '' }).grade;
    expect([grade(270), grade(269), grade(249)]).toEqual(['good', 'tight', 'fails']);
    const window = wren.project.survey.openings.find((o) => o.kind === 'window' && o.surface === 'right');
    if (!window) throw new Error('the demo has a window');
    const sash = (sweep: number | null) =>
      after(wren, { name: 'putOpening', payload: { opening: { ...window, sweep } } }).checks.filter((check) =>
        check.id.startsWith(`sash:${window.id}`),
      );
    expect(sash(null)).toEqual([]);
    const before = wren.project.layout.units.filter((unit) => {
      const sill = wren.project.survey.readings[`opening/${window.id}/sill`]?.at(-1)?.value ?? 0;
      return (unit.body.stands === 'right' || unit.body.stands === 'across') && unit.body.to > sill;
    });
    expect(sash(200).length).toBeLessThanOrEqual(before.length);
    for (const check of sash(200)) expect(check.grade).toBe('fails');
  });
});
