import { describe, expect, it } from 'vitest';
import bulrushFile from '../../../../demo/bulrush.json?raw';
import thimbleFile from '../../../../demo/thimble.json?raw';
import wrenFile from '../../../../demo/wren.json?raw';
import { familyNamed } from '../document/kit.js';
import { OperationError } from '../document/editing.js';
import type { Operation } from '../document/operation.js';
import type { PriceBook, Project } from '../document/schema.js';
import { readProjectFile } from '../formats/read.js';
import { FAMILIES } from '../furniture/families/index.js';
import { applyOperation } from '../furniture/kit.js';
import { seededRandom } from '../numeric/random.js';
import type { Check } from '../furniture/scene.js';
import { axleRule, balanceRule, noseRule, payloadRule } from '../rules/room-use.js';
import { createDeriver } from './derive.js';

/** What somebody may do next: a unit moved or made otherwise, a mode, a data sheet, goods, people, a door, a unit away. */
function anything(project: Project, random: () => number): Operation | null {
  const pick = <T>(all: readonly T[]): T | undefined => all[Math.floor(random() * all.length)];
  const unit = pick(project.layout.units);
  const near = (value: number): number => Math.round(value * (0.8 + 0.4 * random()));
  switch (Math.floor(random() * 9)) {
    case 0:
    case 1:
    case 2: {
      const fields = unit && familyNamed(FAMILIES, unit.family)?.fields.filter(({ when }) => !when || when(unit));
      const field = pick((fields ?? []).filter(({ kind }) => kind === 'length'));
      const now = field && unit ? field.get(unit) : null;
      return field && unit && typeof now === 'number'
        ? { name: 'changeUnit', payload: { id: unit.id, changes: { [field.name]: near(now) } } }
        : null;
    }
    case 3: {
      const mode = pick(project.layout.modes ?? []);
      const of = mode && pick(Object.keys(mode.states));
      return mode && of !== undefined
        ? {
            name: 'putMode',
            payload: { mode: { ...mode, states: { ...mode.states, [of]: (mode.states[of] ?? 0) > 0 ? 0 : 1 } } },
          }
        : null;
    }
    case 4: {
      const thing = pick(project.things ?? []);
      return thing ? { name: 'putThing', payload: { thing: { ...thing, height: near(thing.height), mass: 7 } } } : null;
    }
    case 5: {
      const goods = pick(project.stored ?? []);
      return goods ? { name: 'putStored', payload: { stored: { ...goods, mass: goods.mass + 1 } } } : null;
    }
    case 6: {
      const person = pick(project.people);
      return person ? { name: 'putPerson', payload: { person: { ...person, stature: near(person.stature) } } } : null;
    }
    case 7: {
      const address = pick(Object.keys(project.survey.readings).filter((name) => name.startsWith('opening/')));
      const reading = address === undefined ? undefined : project.survey.readings[address]?.at(-1);
      return address !== undefined && reading
        ? {
            name: 'takeReading',
            payload: { address, reading: { ...reading, value: Math.round(reading.value + 20 * random()) } },
          }
        : null;
    }
    default:
      return unit && project.layout.units.length > 3 ? { name: 'removeUnit', payload: { id: unit.id } } : null;
  }
}

/** A project with a unit somewhere else; as it was where that cannot be. */
function moved(project: Project, id: string, changes: Record<string, number>, book: PriceBook): Project {
  try {
    return applyOperation(project, { name: 'changeUnit', payload: { id, changes } }, book).project;
  } catch (problem) {
    if (problem instanceof OperationError) return project;
    throw problem;
  }
}

/** The same project in objects of its own: nothing of it was ever looked at. */
const unknown = (project: Project, book: PriceBook) =>
  createDeriver().pull(structuredClone(project), structuredClone(book));

const WEIGHTS: ReadonlySet<string> = new Set([payloadRule, axleRule, balanceRule, noseRule].map(({ name }) => name));
const withoutWeights = (checks: readonly Check[]): readonly Check[] => checks.filter(({ rule }) => !WEIGHTS.has(rule));

describe('what is worked out with a memory', () => {
  it('says of moves in a row what is said of each by itself', () => {
    const { project: first, priceBook } = readProjectFile(bulrushFile);
    const random = seededRandom(41);
    const deriver = createDeriver();
    let project = first;
    let told = 0;
    for (let i = 0; i < 25; i += 1) {
      const unit = project.layout.units[Math.floor(random() * project.layout.units.length)];
      const x = Math.round(random() * 6000);
      if (unit) project = moved(project, unit.id, { x }, priceBook);
      const { checks } = deriver.shape(project, priceBook, 'by-hand');
      const anew = createDeriver().shape(structuredClone(project), structuredClone(priceBook), 'by-hand').checks;
      expect(withoutWeights(checks), `${i} ${unit?.id ?? ''} ${x}`).toEqual(withoutWeights(anew));
      told += checks.filter(({ grade }) => grade === 'fails').length;
    }
    expect(told).toBeGreaterThan(60);
  });
  it.each([
    ['Wren', wrenFile, 3],
    ['Bulrush', bulrushFile, 5],
    ['Thimble', thimbleFile, 11],
  ])(
    '%s: is what comes out of the same project when nothing of it was seen before, after anything that is done',
    (...of) => {
      const [, file, seed] = of;
      const { project: first, priceBook } = readProjectFile(file);
      const random = seededRandom(seed);
      const deriver = createDeriver();
      expect(deriver.pull(first, priceBook).checks.length).toBeGreaterThan(0);
      let project = first;
      let done = 0;
      for (let i = 0; i < 60 && done < 12; i += 1) {
        const operation = anything(project, random);
        if (!operation) continue;
        try {
          project = applyOperation(project, operation, priceBook).project;
        } catch (problem) {
          if (problem instanceof OperationError) continue;
          throw problem;
        }
        done += 1;
        const what = `${i} ${JSON.stringify(operation).slice(0, 160)}`;
        // as while it is dragged, when what stands far off is not looked at again and weights rest, and as when it is let go
        const inHand = deriver.shape(project, priceBook, 'by-hand').checks;
        const anew = createDeriver().shape(structuredClone(project), structuredClone(priceBook), 'by-hand').checks;
        expect(withoutWeights(inHand), what).toEqual(withoutWeights(anew));
        const [known, fresh] = [deriver.pull(project, priceBook), unknown(project, priceBook)];
        expect(known.checks, what).toEqual(fresh.checks);
        expect(known.modes, what).toEqual(fresh.modes);
        expect(known.weight, what).toEqual(fresh.weight);
        expect(known.shopping.lines, what).toEqual(fresh.shopping.lines);
        expect(known.problems, what).toEqual(fresh.problems);
      }
      expect(done).toBe(12);
    },
  );
});
