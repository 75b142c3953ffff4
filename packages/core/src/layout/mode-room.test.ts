import { describe, expect, it } from 'vitest';
import wrenFile from '../../../../demo/wren.json?raw';
import { derive } from '../derive/again.fixture.js';
import type { Operation } from '../document/operation.js';
import type { Project, Unit } from '../document/schema.js';
import { readProjectFile } from '../formats/read.js';
import { applyOperation } from '../furniture/kit.js';

const { project: wren, priceBook } = readProjectFile(wrenFile);
const after = (...operations: Operation[]): Project =>
  operations.reduce<Project>((p, operation) => applyOperation(p, operation, priceBook).project, wren);
const box = (body: Unit['body']): Operation => ({
  name: 'placeUnit',
  payload: {
    unit: {
      id: 'box',
      family: 'plain-box',
      name: 'Box',
      body,
      meets: {},
      division: { name: 'inside', holds: { kind: 'open' }, front: { kind: 'none' } },
      school: 'plywood',
      materials: {},
      options: {},
    },
  },
});
const hung = (from: number, length: number): Operation =>
  box({ stands: 'free', x: 1000, length, y: -500, width: 1300, from, to: from + 100 });
const day = (project: Project) => {
  const mode = derive(project, priceBook).modes.find((one) => one.mode.use === 'day');
  if (!mode) throw new Error('Wren has a day');
  return mode;
};

describe('room in a mode', () => {
  it('what hangs over the way lower than the tallest takes standing room, as long as it is', () => {
    const [free, low] = [day(wren), day(after(hung(1500, 600)))];
    expect(free.standing).toBeGreaterThan(1000);
    // stations are a hand apart, and a head has its own width
    expect(free.standing - low.standing).toBeGreaterThanOrEqual(600);
    expect(free.standing - low.standing).toBeLessThanOrEqual(1000);
    expect(low.floor).toBeCloseTo(free.floor, 9);
  });
  it('what hangs higher takes none', () => {
    const tallest = Math.max(...wren.people.map(({ stature }) => stature));
    expect(day(after(hung(tallest + 20, 600))).standing).toBe(day(wren).standing);
  });
  it('a wheel arch that nothing stands over is no free floor', () => {
    const away = ['bed', 'bench', 'overhead-right'].map((id): Operation => ({ name: 'removeUnit', payload: { id } }));
    const project = after(...away);
    const { arches } = derive(project, priceBook);
    const [arch] = arches.filter(({ side }) => side === 'right');
    const { inner } = derive(project, priceBook);
    if (!arch || !inner) throw new Error('Wren has an arch on the right');
    // the same van whose arch is that much nearer to its wall
    const taken = day(project).floor;
    const whole = derive({ ...project, survey: { ...project.survey, arches: [] } }, priceBook).modes.find(
      (one) => one.mode.use === 'day',
    );
    const lost = (whole?.floor ?? NaN) - taken;
    expect(lost).toBeGreaterThan(0.05);
    expect(lost).toBeLessThan((2 * (arch.to - arch.from) * 400) / 1e6);
  });
});
