import { describe, expect, it } from 'vitest';
import bulrushFile from '../../../../demo/bulrush.json?raw';
import thimbleFile from '../../../../demo/thimble.json?raw';
import wrenFile from '../../../../demo/wren.json?raw';
import { readProjectFile } from '../formats/read.js';
import { applyOperation } from '../furniture/kit.js';
import { createNaming, createUnnamed } from './by-name.js';
import { createDeriver, DERIVED_KEYS } from './derive.js';
import type { Sources } from './sources.js';

describe('what is said of a unit that is called otherwise', () => {
  it.each([
    ['Wren', wrenFile],
    ['Bulrush', bulrushFile],
    ['Thimble', thimbleFile],
  ])('%s: has its new name in every place, and nothing is found out again', (...of) => {
    const { project: first, priceBook } = readProjectFile(of[1]);
    const deriver = createDeriver();
    const before = deriver.pull(first, priceBook) as Sources;
    const found = before.checksUnnamed;
    let project = first;
    first.layout.units.forEach(({ id }, i) => {
      // as odd as a name may be
      const changes = { name: [`$& ${i}`, `Nr ${i} "{name}"`, `Schrank ${i} für Töpfe`][i % 3] ?? '' };
      project = applyOperation(project, { name: 'changeUnit', payload: { id, changes } }, priceBook).project;
    });
    const now = deriver.pull(project, priceBook) as Sources;
    expect(now.checksUnnamed).toBe(found);
    const anew = createDeriver().pull(structuredClone(project), structuredClone(priceBook));
    for (const key of DERIVED_KEYS) {
      const told = JSON.stringify(now[key]);
      expect(told, key).toBe(JSON.stringify(anew[key]));
      expect(told.includes(String.raw`\u0001`), key).toBe(false);
    }
    for (const { name } of first.layout.units) expect(JSON.stringify(now.checks)).not.toContain(`"${name}"`);
  });

  it('is another one only where a name in it is', () => {
    const unit = (id: string, name: string) => ({ id, name, body: null }) as never;
    const unnamed = createUnnamed();
    const [one, two] = [unnamed([unit('a', 'A'), unit('b', 'B')]), unnamed([unit('a', 'Other'), unit('b', 'B')])];
    expect([two[0] === one[0], two[1] === one[1]]).toEqual([true, true]);
    const naming = createNaming<{ readonly said: readonly (string | number)[] }>();
    const things = [{ said: [`beside ${one[0]?.name ?? ''}, ${one[1]?.name ?? ''}`, 5] }, { said: ['nothing'] }];
    const names = new Map([
      ['a', 'Kitchen'],
      ['b', '$1'],
    ]);
    const [first, second] = naming(things, names);
    expect(first).toEqual({ said: ['beside Kitchen, $1', 5] });
    expect(second).toBe(things[1]);
    expect(naming(things, names)[0]).toBe(first);
    expect(naming(things, new Map())[0]).toEqual({ said: ['beside a, b', 5] });
  });
});
