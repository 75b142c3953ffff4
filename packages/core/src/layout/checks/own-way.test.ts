import { describe, expect, it } from 'vitest';
import wrenFile from '../../../../../demo/wren.json?raw';
import { derive } from '../../derive/again.fixture.js';
import type { Operation } from '../../document/operation.js';
import type { Division, Project, Unit } from '../../document/schema.js';
import { readProjectFile } from '../../formats/read.js';
import { FAMILIES } from '../../furniture/families/index.js';
import { applyOperation } from '../../furniture/kit.js';
import { boardBox } from '../../furniture/skeleton.js';

const wren = readProjectFile(wrenFile);
const book = wren.priceBook;
const bare: Project = {
  ...wren.project,
  stored: [],
  wishes: [],
  variants: [],
  things: [],
  keptPlans: [],
  waits: [],
  fittings: [],
  layout: { units: [] },
};
const room = derive(bare, book).inner;
const family = FAMILIES.find(({ id }) => id === 'corner-seat');
if (!room || !family) throw new Error('no room');
const start = family.start({ id: 'c', name: 'Corner', layout: { units: [] }, people: [], room, book });
const seat = (division: Division): Unit => ({
  ...start,
  body: { stands: 'left', x: 800, length: 1800, front: 300, from: 0, to: 400 },
  division,
  options: { ...start.options, wings: 'rear', wingOut: 450, wingWide: 520 },
});
const standing = (division: Division): Project => {
  const operation: Operation = { name: 'placeUnit', payload: { unit: seat(division) } };
  return applyOperation(bare, operation, book).project;
};
const bay = (name: string, holds: 'drawers' | 'doors'): Division =>
  holds === 'drawers'
    ? { name, holds: { kind: 'drawers', count: 1, latch: true }, front: { kind: 'none' } }
    : { name, holds: { kind: 'open' }, front: { kind: 'doors', count: 1, latch: true } };
const sweeps = (division: Division) =>
  derive(standing(division), book)
    .checks.filter(({ rule }) => rule === 'room-to-move')
    .map(({ id, grade }) => `${id} ${grade}`);
const halves = (one: 'drawers' | 'doors'): Division => ({
  cut: 'along',
  divider: 'board',
  sizes: [{ share: 1 }, { share: 1 }],
  parts: [bay('front', one), bay('rear', one)],
});

describe('a unit that stands in its own way', () => {
  it('is told: what opens behind a wing of a seat does not', () => {
    expect(sweeps(halves('drawers'))).toEqual(['sweep:c.rear.drawer-1 fails']);
    // a door is made beside the wing, and hung at the upright: it opens clear of it
    expect(sweeps(halves('doors'))).toEqual([]);
  });
  it('has a wing of four sides that are joined to each other', () => {
    const { boards, contacts } = derive(standing(bay('front', 'doors')), book).made[0]?.skeleton ?? {};
    const wing = (boards ?? []).filter(({ name }) => name.startsWith('wing-rear.'));
    expect(wing.map(({ name }) => name.slice(10)).sort()).toEqual(
      ['back', 'bottom', 'end', 'lid', 'rail', 'side-front', 'side-rear'].sort(),
    );
    const joined = (one: string, other: string): boolean =>
      (contacts ?? []).some(
        ({ a, b }) =>
          (a === `wing-rear.${one}` && b === `wing-rear.${other}`) ||
          (b === `wing-rear.${one}` && a === `wing-rear.${other}`),
      );
    for (const side of ['side-front', 'side-rear']) {
      expect(joined('back', side), side).toBe(true);
      expect(joined('bottom', side), side).toBe(true);
    }
    expect(joined('back', 'bottom')).toBe(true);
    expect(joined('rail', 'side-front') && joined('rail', 'side-rear')).toBe(true);
    // its back stands in the plane of the bench's fronts, against its rail, its bottom and its end
    for (const own of ['rail-front', 'bottom', 'end-rear'])
      expect(
        (contacts ?? []).some(
          ({ a, b, kind }) => [a, b].includes('wing-rear.back') && [a, b].includes(own) && kind === 'butt',
        ),
        own,
      ).toBe(true);
    // 300 from the centre line, behind a front of 12: the back ends at the carcass
    const back = wing.find(({ name }) => name === 'wing-rear.back');
    expect(back && boardBox(back).low[1]).toBeCloseTo(-312, 9);
    expect(back && boardBox(back).high[1]).toBeCloseTo(-300, 9);
    // and the lid is borne on all four sides
    for (const own of ['rail', 'end', 'side-front', 'side-rear']) expect(joined('lid', own), own).toBe(true);
  });

  it.each(['front', 'rear', 'both'] as const)('has fronts beside its wings only, wings at %s', (wings) => {
    for (const kind of ['doors', 'panel', 'flap-down', 'lift-up', 'sliding'] as const)
      for (const side of ['left', 'right'] as const) {
        const latch = { latch: true };
        const front =
          kind === 'doors' ? { kind, count: 2, ...latch } : kind === 'panel' ? { kind } : { kind, ...latch };
        const unit = seat({ name: 'bay', holds: { kind: 'open' }, front });
        const set: Unit = {
          ...unit,
          body: { ...unit.body, stands: side } as Unit['body'],
          options: { ...unit.options, wings },
        };
        const project = applyOperation(bare, { name: 'placeUnit', payload: { unit: set } }, book).project;
        const { boards = [], problems = [] } = derive(project, book).made[0]?.skeleton ?? {};
        // from 800 to 2600: each wing is 520 of that
        const [from, to] = [wings === 'rear' ? 800 : 1320, wings === 'front' ? 2600 : 2080];
        const fronts = boards.filter(({ name }) => name.startsWith('bay.') && !name.endsWith('.lid'));
        expect(fronts.length, kind).toBeGreaterThan(0);
        for (const board of fronts) {
          expect(boardBox(board).low[0], kind).toBeCloseTo(Math.max(boardBox(board).low[0], from + 3), 9);
          expect(boardBox(board).high[0], kind).toBeCloseTo(Math.min(boardBox(board).high[0], to - 3), 9);
        }
        // two doors want a board at both edges of what is left: a wing's edge is none
        expect(
          problems.map(({ place }) => place),
          kind,
        ).toEqual(kind === 'doors' ? ['c.bay'] : []);
      }
  });

  it('says so where a front would open behind a wing', () => {
    const whole: Division = {
      cut: 'along',
      divider: 'board',
      sizes: [{ share: 1 }, 480],
      parts: [bay('front', 'doors'), bay('rear', 'doors')],
    };
    const { problems, skeleton } = derive(standing(whole), book).made[0] ?? {};
    expect(problems?.map(({ place }) => place)).toEqual(['c.rear']);
    expect(skeleton?.boards.map(({ name }) => name)).not.toContain('rear.door-1');
    expect(skeleton?.boards.map(({ name }) => name)).toContain('rear.lid');
  });
});
