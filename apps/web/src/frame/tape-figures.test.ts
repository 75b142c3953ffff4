import { describe, expect, it } from 'vitest';
import { createDeriver } from '@nestplank/core/derive';
import type { Operation, Project } from '@nestplank/core/document';
import { readProjectFile } from '@nestplank/core/formats';
import { applyOperation } from '@nestplank/core/furniture';
import bulrushFile from '../../../../demo/bulrush.json?raw';
import wrenFile from '../../../../demo/wren.json?raw';
import { STAGES, type StageName } from '../stages/stages.js';
import { speechFor } from '../words/speech.js';
import { tapeFigure } from './tape-figures.js';

function told(text: string, ...operations: Operation[]) {
  const { project: first, priceBook: book } = readProjectFile(text);
  const project = operations.reduce<Project>((p, operation) => applyOperation(p, operation, book).project, first);
  const derived = createDeriver().derive(project, book);
  const figure = (stage: StageName) => tapeFigure(stage, project, derived, book, speechFor(project.settings));
  return { project, derived, figure };
}
const removed = (text: string): Operation[] =>
  readProjectFile(text).project.layout.units.map(({ id }) => ({ name: 'removeUnit', payload: { id } }));

describe('the figures on the tape', () => {
  const wren = told(wrenFile);

  it('are of every stage, short, and never of nothing', () => {
    for (const text of [wrenFile, bulrushFile]) {
      const { figure } = told(text);
      for (const stage of STAGES) {
        expect(figure(stage).text).toMatch(/\S/);
        expect(figure(stage).text).not.toMatch(/undefined|NaN|[{}|]/);
        expect(figure(stage).text.length).toBeLessThanOrEqual(21);
      }
    }
  });
  it('of the layout counts what does not fit, without what was put aside', () => {
    const failing = wren.derived.checks.filter(({ grade, aside }) => grade === 'fails' && aside === null);
    expect(failing.length).toBeGreaterThan(0);
    expect(wren.figure('layout')).toEqual({ text: `${failing.length} does not fit`, tone: 'needs' });
    const [first] = failing;
    const aside = told(wrenFile, {
      name: 'setAside',
      payload: { check: first?.id ?? '', reason: 'Seen and meant', at: '2026-10-01T10:00:00.000Z' },
    });
    // nothing fails any more; that the skylight has no measured place is said instead
    expect(aside.figure('layout').text).toBe('6 units, part known');
    expect(aside.figure('layout').tone).toBe('plain');
  });
  it('of the layout speaks of one unit as of one', () => {
    const [first, ...others] = removed(wrenFile);
    expect(first).toBeDefined();
    expect(told(wrenFile, ...others).figure('layout').text).toMatch(/^1 unit, /);
    expect(told(wrenFile, ...removed(wrenFile)).figure('layout')).toEqual({ text: 'no units yet', tone: 'plain' });
  });
  it('of what is bought sets the whole beside the budget, and calls for attention beyond it', () => {
    const { total } = wren.derived.shopping;
    expect(wren.figure('buy').text.replace(/\D/g, '')).toBe(
      `${Math.round(total / 100)}${Math.round(wren.project.settings.budget / 100)}`,
    );
    expect(wren.figure('buy').tone).toBe('plain');
    const budget = (minor: number) =>
      told(wrenFile, { name: 'changeSettings', payload: { changes: { budget: minor } } });
    expect(budget(total - 100).figure('buy').tone).toBe('needs');
    expect(budget(0).figure('buy').text.replace(/\D/g, '')).toBe(String(Math.round(total / 100)));
  });
  it('of the layers is what they take together, floor and ceiling, wall and wall', () => {
    const { floor, ceiling, left, right } = wren.derived.depths;
    const [high, wide] = [floor.total + ceiling.total, left.total + right.total].map(Math.round);
    expect(wren.figure('layers').text).toBe(`−${high} ↕ −${wide} ↔`);
  });
  it('of the parts and the sheets counts what is derived', () => {
    expect(wren.figure('build').text).toBe(`${wren.derived.parts.length} parts`);
    const sheets = wren.derived.plans
      .filter(({ job }) => job.kind === 'sheet')
      .reduce((sum, { plan }) => sum + plan.sheets.length, 0);
    expect(wren.figure('cut').text).toMatch(new RegExp(`^${sheets} sheets`));
  });
});
