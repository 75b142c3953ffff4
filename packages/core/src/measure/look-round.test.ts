import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import wrenText from '../../../../demo/wren.json?raw';
import { createProject, surveyAsStart } from '../document/create.js';
import type { Operation } from '../document/operation.js';
import type { Project } from '../document/schema.js';
import { derive } from '../derive/again.fixture.js';
import { applyOperation } from '../furniture/kit.js';
import { readProjectFile } from '../formats/read.js';
import { startPriceBook } from '../materials/start-book.js';
import { say } from '../words/say.js';
import { LOOK_TOPICS, openTopics, SEEN, seenOn, seenOperation, stillMissing, type Seen } from './look-round.js';
import { walkOf } from './walk.js';

const van = (): Project =>
  createProject({ id: 'own', name: 'Own', kind: 'van', model: '', units: 'mm', startDate: '2026-11-02' });
const done = (project: Project, ...operations: Operation[]): Project =>
  operations.reduce((now, operation) => applyOperation(now, operation).project, project);
const ALL: readonly Seen[] = Object.values(SEEN).flat();

describe('a look round', () => {
  it('asks everything that nobody has entered or said; arches stand in a van from the start', () => {
    expect(openTopics(van())).toEqual(['ribs', 'openings', 'under', 'people']);
    const said = done(van(), { name: 'sayLooked', payload: { topic: 'under', at: '2026-11-02T09:00:00.000Z' } });
    expect(openTopics(said)).toEqual(['ribs', 'openings', 'people']);
    expect(openTopics(done(said, { name: 'sayLooked', payload: { topic: 'under', at: null } }))).toContain('under');
  });
  it('enters each thing with a name and an id of its own, and the walk then asks for its sizes', () => {
    for (const seen of ALL)
      for (const on of seenOn(seen)) {
        const one = seenOperation(van().survey, seen, on, { x: 0.4, along: 0.5 }, 'Thing');
        const project = done(van(), one);
        const two = done(project, seenOperation(project.survey, seen, on, null, 'Thing'));
        expect(walkOf(two.survey).length).toBeGreaterThan(walkOf(project.survey).length);
        expect(walkOf(project.survey).length).toBeGreaterThan(walkOf(van().survey).length);
      }
  });
  it('takes what is usual of a kind: a roof hatch is in the roof, a side door slides, two leaves at the rear', () => {
    const opening = (seen: Seen, on: 'left' | 'right' | 'rear' | 'ceiling') => {
      const operation = seenOperation(van().survey, seen, on, null, 'x');
      return operation.name === 'putOpening' ? operation.payload.opening : null;
    };
    expect(opening('hatch', 'ceiling')).toMatchObject({ kind: 'hatch', surface: 'roof', name: 'x 1' });
    expect(opening('sliding-door', 'right')).toMatchObject({ kind: 'door', surface: 'right', swing: 'slides' });
    expect(opening('two-leaf-door', 'rear')).toMatchObject({ kind: 'door', surface: 'rear', swing: 'pair' });
    expect(opening('hinged-window', 'left')).toMatchObject({ kind: 'window', swing: 'hinged', hand: 'up' });
  });
  it('is not over in another vehicle that starts from this one', () => {
    const said = done(van(), { name: 'sayLooked', payload: { topic: 'ribs', at: '2026-11-02T09:00:00.000Z' } });
    const start = surveyAsStart(said.survey, '2026-11-03T09:00:00.000Z');
    expect(openTopics({ ...van(), survey: start })).toContain('ribs');
  });
  it('never reckons with a place that was only pointed at', () => {
    const { project, priceBook } = readProjectFile(wrenText);
    const pointed = {
      ...project,
      survey: { ...project.survey, ribs: project.survey.ribs.map((rib) => ({ ...rib, rough: { x: 0.1, along: 0 } })) },
    };
    const [before, after] = [derive(project, priceBook), derive(pointed, priceBook)];
    expect(after.ribs).toEqual(before.ribs);
    expect(after.parts.map(({ id }) => id)).toEqual(before.parts.map(({ id }) => id));
  });
  it('keeps ids and names apart whatever is tapped in which order', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc
            .constantFrom(...ALL)
            .chain((seen) => fc.record({ seen: fc.constant(seen), on: fc.constantFrom(...seenOn(seen)) })),
          { maxLength: 20 },
        ),
        (taps) => {
          const project = taps.reduce(
            (now, { seen, on }) => done(now, seenOperation(now.survey, seen, on, { x: 0.5, along: 0 }, seen)),
            van(),
          );
          const { ribs, openings, arches, keepOuts } = project.survey;
          for (const list of [ribs, openings, arches, keepOuts]) {
            expect(new Set(list.map(({ id }) => id)).size).toBe(list.length);
            expect(new Set(list.map(({ name }) => name)).size).toBe(list.length);
          }
          expect(ribs.length + openings.length + arches.length + keepOuts.length).toBe(taps.length + 2);
        },
      ),
      { numRuns: 30, seed: 12 },
    );
  });
});

describe('what is still missing', () => {
  it('is said for layers and layout until somebody looked', () => {
    const missing = stillMissing(van());
    expect(missing.map(({ topic }) => topic)).toEqual(['ribs', 'openings', 'under', 'people', 'unread']);
    expect(missing.find(({ topic }) => topic === 'ribs')?.stages).toEqual(['layers']);
    const everything = done(
      van(),
      ...LOOK_TOPICS.map((topic): Operation => ({
        name: 'sayLooked',
        payload: { topic, at: '2026-11-02T09:00:00.000Z' },
      })),
    );
    // nobody said what the doors are: a vehicle has one
    expect(stillMissing(everything).map(({ topic }) => topic)).toEqual(['doors', 'unread']);
  });
  it('names what was seen and has no place, a few by name', () => {
    const seen = (count: number): string => {
      const project = Array.from({ length: count }).reduce<Project>(
        (now) => done(now, seenOperation(now.survey, 'window', 'left', null, 'Pane')),
        { ...van(), survey: { ...van().survey, arches: [] } },
      );
      const found = stillMissing(project).find(({ topic }) => topic === 'unread');
      return found ? say(found.said) : '';
    };
    expect(seen(0)).toBe('');
    expect(seen(2)).toContain('Pane 1, Pane 2.');
    expect(seen(7)).toContain('Pane 1, Pane 2, Pane 3, Pane 4 and 3 more');
  });
  it('stands in what is derived', () => {
    expect(derive(van(), startPriceBook()).missing).toEqual(stillMissing(van()));
  });
});
