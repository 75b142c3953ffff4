import { describe, expect, it } from 'vitest';
import { derive } from '../derive/again.fixture.js';
import type { Project, Unit } from '../document/schema.js';
import { readProjectFile } from '../formats/read.js';
import { FAMILIES } from '../furniture/families/index.js';
import { bedWith, runWith } from '../furniture/units.fixture.js';
import wrenText from '../../../../demo/wren.json?raw';
import { berthOf, lyingPlaces } from './lying.js';

const { project: wren, priceBook } = readProjectFile(wrenText);
const { arches, inner } = derive(wren, priceBook);
if (!inner) throw new Error('a room');
const [arch] = arches;
if (!arch) throw new Error('an arch');
const withUnits = (units: readonly Unit[], modes: Project['layout']['modes'] = []): Project => ({
  ...wren,
  stored: [],
  variants: [],
  waits: [],
  scribes: [],
  patterns: [],
  wishes: [],
  layout: { units: [...units], modes },
});
/** A bed between the arches, whose boards lie under their tops. */
const low = bedWith({ id: 'bed', x: arch.from, length: arch.to - arch.from, height: 120, sleepers: ['ilva'] });
const checkOf = (project: Project, id: string) => derive(project, priceBook).checks.find((check) => check.id === id);

describe('somebody who lies across', () => {
  it('has the room between the arches, not that between the walls above them', () => {
    const [place] = lyingPlaces([low], FAMILIES);
    if (!place) throw new Error('a place to lie');
    const free = (stands: readonly []) => berthOf(place, 0, { inner, arches, stands }).clear;
    expect(free([])).toBeCloseTo(
      arches.reduce((sum, { face }) => sum + face, 0),
      6,
    );
    const above = lyingPlaces([{ ...low, body: { ...low.body, to: arch.height + 60 } }], FAMILIES)[0];
    if (!above) throw new Error('a place to lie');
    expect(berthOf(above, 0, { inner, arches, stands: [] }).clear).toBeGreaterThan(free([]) + 300);
  });
  it('is told so: clear between the arches is too short for whoever is taller', () => {
    const sleeper = wren.people[0]?.id ?? '';
    const bed = { ...low, options: { ...low.options, sleepers: [sleeper] } };
    expect(checkOf(withUnits([bed]), `bed-length:bed:${sleeper}`)?.grade).toBe('fails');
    const high = { ...bed, body: { ...bed.body, to: arch.height + 60 } };
    expect(checkOf(withUnits([high]), `bed-length:bed:${sleeper}`)?.grade).not.toBe('fails');
  });
  it('has less of it where something else stands at the same height', () => {
    const sleeper = wren.people[0]?.id ?? '';
    const bed = bedWith({ id: 'bed', x: 2500, length: 800, height: 500, sleepers: [sleeper] });
    const beside = runWith({ id: 'tall', side: 'left', x: 2500, length: 800, front: 600, height: 900 });
    const clear = (units: readonly Unit[]): number =>
      checkOf(withUnits(units), `bed-length:bed:${sleeper}`)?.spare ?? NaN;
    expect(clear([bed, beside])).toBeLessThan(clear([bed]) - 200);
  });
});

describe('the hold under a platform', () => {
  it('is reached from its own end and from above, and not judged from a side wall', () => {
    const thing = wren.things?.find(({ service }) => service.includes('front'));
    if (!thing) throw new Error('a thing that is looked after from its front');
    const bed = bedWith({ id: 'bed', x: 2600, length: 1000, height: 700 });
    const holding: Unit = {
      ...bed,
      division: { name: 'hold', holds: { kind: 'thing', thing: thing.id }, front: { kind: 'none' } },
    };
    const told = checkOf(withUnits([holding]), 'reach:bed:hold:front');
    // what is good is not told
    expect(told).toBeUndefined();
  });
});

describe('two modes', () => {
  it('are used at once only where everything is in the same place in both: what one does not name is at rest in it', () => {
    const slide = derive(wren, priceBook).made.flatMap(({ skeleton }) => skeleton?.motions ?? [])[0];
    if (!slide) throw new Error('something that moves');
    const mode = (id: string, states: Record<string, number>) => ({ id, name: id, use: 'day' as const, states });
    const project: Project = {
      ...wren,
      layout: {
        ...wren.layout,
        modes: [mode('night', { [slide.of]: 1 }), mode('day', {}), mode('meal', { [slide.of]: 0 })],
      },
    };
    const withs = Object.fromEntries(derive(project, priceBook).modes.map((one) => [one.mode.id, one.with]));
    expect(withs).toEqual({ night: [], day: ['meal'], meal: ['day'] });
  });
});
