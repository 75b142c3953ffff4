import { describe, expect, it } from 'vitest';
import { applyOperationIn, OperationError } from '../document/editing.js';
import type { Operation } from '../document/operation.js';
import type { Project } from '../document/schema.js';
import { readProjectFile } from '../formats/read.js';
import { say } from '../words/say.js';
import { createDeriver, derive } from './derive.js';
import { ledge } from './fixtures/ledge.js';
import { nailed } from './fixtures/nailed.js';
import { tailgate } from './fixtures/tailgate.js';
import { tidy } from './fixtures/tidy.js';
import { DERIVE_KIT, type DeriveKit } from './kit.js';
import demo from '../../../../demo/wren.json?raw';

const { project: wren, priceBook: book } = readProjectFile(demo);
/** One of each more than comes with the application, each from a file of its own. */
const kit: DeriveKit = {
  families: [...DERIVE_KIT.families, ledge],
  schools: [...DERIVE_KIT.schools, nailed],
  rules: [...DERIVE_KIT.rules, tidy],
  surfaces: [...DERIVE_KIT.surfaces, tailgate],
};
const done = (...operations: Operation[]): Project =>
  operations.reduce((project, operation) => applyOperationIn(project, operation, { kit, book }).project, wren);
const placed: Operation = {
  name: 'placeUnit',
  payload: {
    unit: ledge.start({
      id: 'ledge',
      name: 'Ledge',
      layout: wren.layout,
      people: wren.people,
      room:
        derive(wren, book).inner ??
        (() => {
          throw new Error('no room');
        })(),
      book,
    }),
  },
};

describe('a family from one file', () => {
  const derived = derive(done(placed), book, kit);
  const before = derive(wren, book, kit);
  const own = derived.parts.filter((part) => part.unit === 'ledge');

  it('is placed and changed by its own fields, within its own limits', () => {
    const changed = done(placed, { name: 'changeUnit', payload: { id: 'ledge', changes: { lip: 30, height: 450 } } });
    const unit = changed.layout.units.at(-1);
    expect([unit?.options, unit?.body.to]).toEqual([{ lip: 30 }, 450]);
    for (const changes of [{ lip: 80 }, { lip: 'wide' }, { doors: 2 }, { side: 'up' }] as Record<
      string,
      string | number
    >[])
      expect(() => done(placed, { name: 'changeUnit', payload: { id: 'ledge', changes } })).toThrow(OperationError);
    expect(() => applyOperationIn(wren, placed, { kit: DERIVE_KIT, book })).toThrow(/format.reference/);
  });
  it('gives parts, on sheets, with mass and a task to build it', () => {
    expect(own.map((part) => part.id)).toEqual(['ledge.board', 'ledge.cheek-front', 'ledge.cheek-rear']);
    const sheets = derived.plans.find((plan) => plan.material.id === 'birch-12')?.sheets ?? [];
    const laid = sheets.flatMap((sheet) => sheet.placements.map((placement) => placement.part));
    for (const part of own) expect(laid).toContain(part.id);
    expect(derived.mass.of.find((item) => item.id === 'ledge')?.kg).toBeGreaterThan(1);
    expect(derived.schedule.tasks.some((task) => say(task.task.title).includes('Ledge'))).toBe(true);
  });
  it('is checked by the general rules and by its own', () => {
    const rules = derived.checks.filter((check) => check.unit === 'ledge').map((check) => check.rule);
    expect(rules).toContain('ledge-sag');
    const long = derive(
      done(placed, { name: 'changeUnit', payload: { id: 'ledge', changes: { length: 5000 } } }),
      book,
      kit,
    ).checks.filter((check) => check.unit === 'ledge' && check.grade === 'fails');
    expect(long.map((check) => check.rule).sort()).toEqual(expect.arrayContaining(['inside-shell', 'ledge-sag']));
  });
  it('made in a school from one file, its hardware is bought and nothing else changes', () => {
    const amount = (made: typeof derived, item: string): number =>
      made.shopping.lines.find((line) => line.material === item)?.amount ?? 0;
    expect(amount(derived, 'brads-20') - amount(before, 'brads-20')).toBe(4);
    // but the batten under its front, the noggins that end at it, and the screws of the floor in them
    const others = (made: typeof derived) =>
      made.parts
        .filter(
          (part) => part.unit !== 'ledge' && !part.id.startsWith('floor.batten') && !part.id.startsWith('floor.noggin'),
        )
        .map((part) => (part.id.startsWith('floor.') ? { ...part, marks: [] } : part));
    expect(others(derived)).toEqual(others(before));
  });
});

describe('a rule from one file', () => {
  it('is a check', () => {
    const grade = (project: Project) => derive(project, book, kit).checks.find((check) => check.rule === 'tidy')?.grade;
    expect([grade(wren), grade(done(placed))]).toEqual(['good', 'tight']);
    expect(derive(wren, book).checks.some((check) => check.rule === 'tidy')).toBe(false);
  });
});

describe('a surface from one file', () => {
  const layered = done({
    name: 'putLayer',
    payload: {
      surface: 'tailgate',
      layer: {
        id: 't1',
        material: 'foam-20',
        thickness: 20,
        place: 'continuous',
        board: false,
        share: 1,
        measured: null,
      },
    },
  });
  it('takes layers, keeps warmth, weighs, costs and is worked on', () => {
    const deriver = createDeriver(kit);
    const [bare, made] = [deriver.derive(wren, book), deriver.derive(layered, book)];
    expect(made.areas?.['tailgate']).toBe(2);
    expect(made.warmth?.of.map((part) => part.id)).toContain('tailgate');
    const kg = (of: typeof bare): number => of.mass.of.find((item) => item.id === 'tailgate')?.kg ?? 0;
    // 2 m2 of 20 mm foam of 33 kg/m3, or whatever the price book says it weighs
    const density = book.items.find((item) => item.id === 'foam-20')?.density ?? 0;
    expect(kg(made) - kg(bare)).toBeCloseTo((2 * 20 * density) / 1000, 6);
    const foam = (of: typeof bare): number =>
      of.shopping.lines.filter((line) => line.material === 'foam-20').reduce((sum, line) => sum + line.amount, 0);
    expect(foam(made) - foam(bare)).toBeCloseTo(2, 6);
    expect(made.schedule.tasks.map((task) => say(task.task.title)).join()).toContain('Insulate the tailgate');
  });
  it('is no surface where it does not come with the application', () => {
    expect(() =>
      applyOperationIn(
        wren,
        { name: 'replaceLayers', payload: { surface: 'tailgate', layers: [] } },
        { kit: DERIVE_KIT, book },
      ),
    ).toThrow(OperationError);
  });
});

describe('what is listed', () => {
  it('has one name each', () => {
    for (const list of [kit.families, kit.schools, kit.surfaces] as readonly (readonly { readonly id: string }[])[])
      expect(new Set(list.map((item) => item.id)).size).toBe(list.length);
  });
  it('has words for its fields and roles, limits where it takes figures, and gives back what it was given', () => {
    for (const family of kit.families) {
      const room = derive(wren, book).inner;
      if (!room) throw new Error('no room');
      const unit = family.start({ id: 'u', name: 'U', layout: { units: [] }, people: wren.people, room, book });
      expect(family.faults(unit)).toEqual([]);
      expect(family.schools).toContain(unit.school);
      for (const field of family.fields) {
        expect(field.set(unit, field.get(unit))).toEqual(unit);
        if (field.kind === 'length' || field.kind === 'count') expect(field.least).toBeLessThanOrEqual(field.most ?? 0);
      }
    }
  });
});
