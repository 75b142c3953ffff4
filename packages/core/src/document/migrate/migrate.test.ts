import { usualHardware } from '../../materials/start-book.js';
import { describe, expect, it } from 'vitest';
import { readProjectFile } from '../../formats/read.js';
import { derive } from '../../derive/again.fixture.js';
import { faultsIn } from '../../furniture/kit.js';
import { PROJECT_VERSION } from '../schema.js';
import { migrateFile, migrateProject } from './index.js';
import { lastingName } from './v4.js';
import first from './fixtures/v1.json?raw';
import second from './fixtures/v2.json?raw';
import third from './fixtures/v3.json?raw';
import fourth from './fixtures/v4.json?raw';

const FILES = { 1: first, 2: second, 3: third, 4: fourth } as const;

describe.each(Object.entries(FILES))('a file as version %s wrote it', (version, text) => {
  const raw = JSON.parse(text) as { version: number; project: { version: number; units: { id: string }[] } };

  it('says so, and is brought to the present version with nothing of its survey lost', () => {
    expect([raw.version, raw.project.version]).toEqual([Number(version), Number(version)]);
    const file = readProjectFile(text);
    expect([file.version, file.project.version]).toEqual([PROJECT_VERSION, PROJECT_VERSION]);
    expect(faultsIn(file.project, file.priceBook)).toEqual([]);
    const before = raw as unknown as { project: { survey: { readings: unknown } } };
    expect(file.project.survey.readings).toEqual(before.project.survey.readings);
    expect(file.project.layout.units.map((unit) => unit.id)).toEqual(raw.project.units.map((unit) => unit.id));
  });
  it('makes every unit it had', () => {
    const file = readProjectFile(text);
    const derived = derive(file.project, file.priceBook);
    for (const { id } of raw.project.units)
      expect(derived.parts.filter((part) => part.unit === id).length).toBeGreaterThan(3);
    // the price books of the first version sold no screws by their length
    const said = derived.made.flatMap((unit) => unit.problems.map((problem) => problem.said.key));
    const none = said.filter((key) => key.startsWith('hardware.none.'));
    expect(new Set(said.filter((key) => !none.includes(key)))).toEqual(
      // some had three doors before one bay
      new Set([
        ...(version === '1' || version === '4' ? ['furniture.doorHangs'] : []),
        ...(version === '1' ? ['furniture.noScrews'] : []),
      ]),
    );
    // nor did any of them have hinges and catches, which can be taken in
    const items = [...file.priceBook.items, ...usualHardware(file.priceBook)];
    const { made } = derive(file.project, { ...file.priceBook, items });
    expect(none.length).toBeGreaterThan(0);
    expect(made.flatMap(({ problems }) => problems).filter(({ said: { key } }) => none.includes(key))).toEqual([]);
  });
  it('is told as what it is when it is cut off, later than this, or says something twice', () => {
    expect(() => readProjectFile(text.slice(0, text.length / 2))).toThrow(/^Line .* this is not JSON/);
    const later = { ...raw, version: PROJECT_VERSION + 1 };
    expect(() => readProjectFile(JSON.stringify(later))).toThrow(`version ${PROJECT_VERSION + 1}`);
    const [unit] = raw.project.units;
    const twice = { ...raw, project: { ...raw.project, units: [...raw.project.units, unit] } };
    expect(() => readProjectFile(JSON.stringify(twice))).toThrow(
      expect.objectContaining({ place: `project.layout.units[${raw.project.units.length}]` }) as Error,
    );
    const strange = {
      ...raw,
      project: {
        ...raw.project,
        units: raw.project.units.map((own) => ({ ...own, top: 'no-such', board: 'no-such' })),
      },
    };
    expect(() => readProjectFile(JSON.stringify(strange))).toThrow(/no-such/);
  });
});

describe('what is kept of parts', () => {
  it('of a cupboard and a bed follows to the names that last', () => {
    const names = [
      'galley-side-1',
      'galley-side-2',
      'galley-rail-2',
      'galley-shelf-3',
      'galley-door-2',
      'galley-top-1',
    ];
    expect(names.map((name) => lastingName(name, ['galley', 'galley-2']))).toEqual([
      'galley.end-front',
      'galley.end-rear',
      'galley.rail-back',
      'galley.bay-1.shelf-3',
      'galley.bay-1.door-2',
      'galley.top',
    ]);
    // the id that is longer wins, and what belongs to no unit stays as it is
    expect(lastingName('galley-2-board-1', ['galley', 'galley-2'])).toBe('galley-2.board-1');
    expect(lastingName('left-board-12', ['galley'])).toBe('left-board-12');
  });
  it('in version 3 was counted: what waits, what was spoilt and what is cut keeps pointing at its piece', () => {
    const { project, priceBook } = readProjectFile(third);
    const parts = new Set(derive(project, priceBook).parts.map((part) => part.id));
    const kept = [
      ...project.waits.map((wait) => wait.part),
      ...project.waste.map((waste) => waste.part),
      ...project.keptPlans.flatMap((plan) =>
        plan.sheets.flatMap((sheet) => sheet.placements.map((placed) => placed.part)),
      ),
    ];
    expect(kept).toHaveLength(4);
    for (const part of kept) expect(parts.has(part)).toBe(true);
  });
  it('in version 4 too, of linings and floor as well: no plan loses a piece, no plan that was proved is found anew', () => {
    const { project, priceBook } = readProjectFile(fourth);
    const { plans, parts } = derive(project, priceBook);
    const kept = plans.filter((plan) => project.keptPlans.some((own) => own.material === plan.material.id));
    expect(kept.length).toBeGreaterThan(2);
    // boards that follow wall and roof are drawn nearer to them since: a plan they are on is found anew, and no other
    const follows = new Set(['side', 'upright', 'top', 'bed-board', 'bed-front', 'wash-wall', 'partition']);
    for (const plan of kept) {
      expect(plan.conflicts).toEqual([]);
      const before = project.keptPlans.find((own) => own.material === plan.material.id);
      const gone = (before?.sheets ?? []).filter(
        ({ id }) => !plan.sheets.some((sheet) => sheet.id === id && !plan.anew.includes(id)),
      );
      for (const { placements } of gone)
        expect(placements.some(({ part }) => parts.some(({ id, role }) => id === part && follows.has(role)))).toBe(
          true,
        );
      expect(plan.anew.length <= gone.length + 1).toBe(true);
    }
  });
});

describe('steps', () => {
  it('leave the present version, and what is no document, alone', () => {
    const present = readProjectFile(fourth).project;
    expect(migrateProject(present)).toBe(present);
    for (const nothing of ['text', null, 7, [], { version: 'two' }, { version: 0 }, { version: 99 }]) {
      expect(migrateProject(nothing)).toBe(nothing);
      expect(migrateFile(nothing)).toBe(nothing);
    }
  });
});
