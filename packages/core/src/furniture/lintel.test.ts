import { describe, expect, it } from 'vitest';
import wrenFile from '../../../../demo/wren.json?raw';
import { derive } from '../derive/again.fixture.js';
import type { Project } from '../document/schema.js';
import { readProjectFile } from '../formats/read.js';
import { lintelRule } from '../rules/people.js';
import { say } from '../words/say.js';
import { partition } from './families/partition.js';
import { applyOperation } from './kit.js';

const { project: wren, priceBook: book } = readProjectFile(wrenFile);
const people = [
  { id: 'tall', name: 'Tall', stature: 1750 },
  { id: 'small', name: 'Small', stature: 1300 },
];
const empty: Project = { ...wren, people, layout: { units: [] }, stored: [], wishes: [], variants: [] };
const room = derive(empty, book).inner;
if (!room) throw new Error('Wren has a room');
const unit = partition.start({ id: 'p', name: 'Wall', layout: empty.layout, people, room, book });
const withDoor = (options: object): Project =>
  applyOperation(empty, {
    name: 'placeUnit',
    payload: { unit: { ...unit, options: { ...unit.options, ...options } } },
  }).project;
const noteIn = (project: Project) => derive(project, book).checks.find(({ id }) => id === 'lintel:p');

describe('the head of a door in a partition', () => {
  it('is good 20 over the stature, ducked under down to eight tenths of it, and too low below', () => {
    const grade = (high: number) => lintelRule.run({ high, stature: 1750, who: 'Tall', name: 'Wall' }).grade;
    expect([1770, 1769, 1400, 1399].map(grade)).toEqual(['good', 'tight', 'tight', 'fails']);
  });
  it('is judged by the tallest, and told only where it is not good', () => {
    expect(noteIn(withDoor({ doorHeight: 1770 }))).toBeUndefined();
    const tight = noteIn(withDoor({ doorHeight: 1600 }));
    expect(tight).toMatchObject({ grade: 'tight', spare: -170, person: 'tall' });
    expect(tight && say(tight.said)).toBe(
      'Tall ducks through the door of Wall: it is 1\u202f600 high, 170 short of good.',
    );
    expect(noteIn(withDoor({ doorHeight: 1300 }))).toMatchObject({ grade: 'fails' });
    expect(noteIn(withDoor({ doorHeight: 1300, door: 'none' }))).toBeUndefined();
    expect(noteIn({ ...withDoor({ doorHeight: 1300 }), people: [] })).toBeUndefined();
  });
  it('is made as high as it has to be by one press, where the wall is that high', () => {
    const set = withDoor({ doorHeight: 1300 });
    const [mend] = noteIn(set)?.mends ?? [];
    expect(mend && say(mend.said)).toBe('Make the door of Wall 1\u202f770 high');
    const mended = (mend?.operations ?? []).reduce((p, one) => applyOperation(p, one).project, set);
    expect(noteIn(mended)).toBeUndefined();
    // a wall of 1500: as high as it can be, which is ducked under
    const low = applyOperation(set, { name: 'changeUnit', payload: { id: 'p', changes: { height: 1500 } } }).project;
    const better = (noteIn(low)?.mends[0]?.operations ?? []).reduce((p, one) => applyOperation(p, one).project, low);
    expect(better.layout.units[0]?.options['doorHeight']).toBe(1440);
    expect(noteIn(better)).toMatchObject({ grade: 'tight', mends: [] });
  });
  it('starts high enough for whoever is taller than usual, as far as the roof lets it', () => {
    const high = (stature: number) =>
      Number(
        partition.start({
          id: 'p',
          name: 'P',
          layout: empty.layout,
          people: [{ id: 'a', name: 'A', stature }],
          room,
          book,
        }).options['doorHeight'],
      );
    const most = unit.body.to - 60;
    expect(high(1500)).toBe(Math.min(1800, most));
    expect(high(1790)).toBe(Math.min(1820, most));
  });
});
