import { describe, expect, it } from 'vitest';
import thimbleFile from '../../../../demo/thimble.json?raw';
import bulrushFile from '../../../../demo/bulrush.json?raw';
import wrenFile from '../../../../demo/wren.json?raw';
import { derive } from '../derive/again.fixture.js';
import type { Project } from '../document/schema.js';
import { readProjectFile } from '../formats/read.js';
import type { Part, Vector } from '../parts/part.js';
import { sectionOf } from '../parts/section-of.js';
import { standsMoved } from './motions.js';
import { applyOperation } from './kit.js';
import { movesOf, partMoved, partsIn } from './parts-moved.js';

/** The box round a part in the vehicle. */
function boxOf({ outline, place, thickness }: Part): readonly (readonly [number, number])[] {
  const corners = outline.outer.flatMap(([a, b]) =>
    [0, thickness].map((w) =>
      ([0, 1, 2] as const).map((i) => place.origin[i] + a * place.along[i] + b * place.across[i] + w * place.thick[i]),
    ),
  );
  return [0, 1, 2].map((i) => [
    Math.min(...corners.map((corner) => corner[i] ?? 0)),
    Math.max(...corners.map((corner) => corner[i] ?? 0)),
  ]);
}
const wren = readProjectFile(wrenFile);
const thimble = readProjectFile(thimbleFile);
const bulrush = readProjectFile(bulrushFile);

describe('a part that is moved', () => {
  const part = { ...(derive(wren.project, wren.priceBook).parts[0] as Part) };
  const at: Part = {
    ...part,
    outline: {
      outer: [
        [0, 0],
        [400, 0],
        [400, 300],
        [0, 300],
      ],
      holes: [],
    },
    thickness: 15,
    place: { origin: [1000, 200, 500], along: [1, 0, 0], across: [0, 0, 1], thick: [0, 1, 0] },
  };
  it('is turned about an upright hinge: a door of 400 stands out by 400 and is 15 thick along', () => {
    const open = partMoved(at, { axis: 'z', about: [1000, 200, 0], turn: -Math.PI / 2, by: [0, 0, 0] });
    const [x, y, z] = boxOf(open);
    expect(x?.map(Math.round)).toEqual([1000, 1015]);
    expect(y?.map(Math.round)).toEqual([-200, 200]);
    expect(z?.map(Math.round)).toEqual([500, 800]);
    // and a slice before the hinge goes through nothing of it, one through it sees its face
    expect(sectionOf(open, 990)).toEqual([]);
    expect(sectionOf(open, 1007)).toHaveLength(1);
    expect(sectionOf(at, 1200)).toHaveLength(1);
  });
  it('is carried without being turned', () => {
    const out = partMoved(at, { axis: 'z', about: [0, 0, 0], turn: 0, by: [0, -350, 0] });
    expect(out.place.origin).toEqual([1000, -150, 500] satisfies Vector);
    expect([out.place.along, out.place.across, out.place.thick]).toEqual([
      at.place.along,
      at.place.across,
      at.place.thick,
    ]);
  });
});

describe('the parts in a mode', () => {
  it('are as made while everything is shut', () => {
    const { parts, made } = derive(wren.project, wren.priceBook);
    expect(partsIn(parts, made, {})).toBe(parts);
    expect(partsIn(parts, made, { 'kitchen.nothing': 1 })).toEqual(parts);
  });
  it('are within what each motion says it takes up, in every mode of the demos', () => {
    let seen = 0;
    for (const { project, priceBook } of [wren, thimble]) {
      const { parts, made } = derive(project, priceBook);
      const moving = movesOf(made);
      for (const { states } of project.layout.modes ?? []) {
        const now = new Map(partsIn(parts, made, states).map((part) => [part.id, part]));
        for (const part of parts) {
          const motion = moving.get(part.id)?.[0]?.motion;
          const then = now.get(part.id);
          if (!motion || states[motion.of] !== 1) expect(then).toBe(part);
          else if (motion.kind === 'slide' && then) {
            seen += 1;
            const [before, after] = [boxOf(part), boxOf(then)];
            for (const axis of [0, 1, 2] as const)
              expect((after[axis]?.[0] ?? 0) - (before[axis]?.[0] ?? 0)).toBeCloseTo(motion.by[axis], 6);
          } else seen += Number(standsMoved(motion, 1) !== null || then === undefined);
        }
      }
    }
    expect(seen).toBeGreaterThan(5);
  });
  it('are gone with a table that is stowed, and with the legs of one that is let down', () => {
    const { project, priceBook } = bulrush;
    const table = project.layout.units.find(({ family }) => family === 'table');
    if (!table) throw new Error('there is a table');
    const own = (p: Project, states: Record<string, number>) => {
      const { parts, made } = derive(p, priceBook);
      const of = (all: readonly Part[]) => all.filter(({ unit }) => unit === table.id);
      return { before: of(parts), after: of(partsIn(parts, made, states)) };
    };
    const stowed = own(project, { [`${table.id}.away`]: 1 });
    expect(stowed.before.length).toBeGreaterThan(1);
    expect(stowed.after).toEqual([]);
    const lowers = applyOperation(
      project,
      { name: 'changeUnit', payload: { id: table.id, changes: { low: 300 } } },
      priceBook,
    ).project;
    const { before, after } = own(lowers, { [`${table.id}.low`]: 1 });
    expect(after.map(({ role }) => role)).toEqual(['table-top']);
    const [up, down] = [before, after].map((all) => boxOf(all.find(({ role }) => role === 'table-top') as Part)[2]);
    expect((up?.[0] ?? 0) - (down?.[0] ?? 0)).toBeCloseTo(table.body.to - 300, 6);
    // stowed as well, it is stowed
    expect(own(lowers, { [`${table.id}.low`]: 1, [`${table.id}.away`]: 1 }).after).toEqual([]);
  });
});
