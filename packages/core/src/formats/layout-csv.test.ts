import { describe, expect, it } from 'vitest';
import wrenText from '../../../../demo/wren.json?raw';
import { START_THINGS } from '../furniture/start-things.js';
import { say } from '../words/say.js';
import { readStoredCsv, readThingsCsv, storedCsv, thingsCsv } from './layout-csv.js';
import { readProjectFile } from './read.js';

const { project } = readProjectFile(wrenText);

describe('data sheets in a file', () => {
  it('come back as they went out, each of the start set', () => {
    const read = readThingsCsv(thingsCsv(START_THINGS), []);
    expect(read.problems).toEqual([]);
    expect(read.items).toEqual(START_THINGS);
    expect(read.added).toBe(START_THINGS.length);
    // over themselves nothing is new
    expect(readThingsCsv(thingsCsv(START_THINGS), START_THINGS).added).toBe(0);
  });
  it('may leave columns out: what is there stays', () => {
    const [sink] = START_THINGS;
    if (!sink) throw new Error('there is a start set');
    const read = readThingsCsv(`id;name;width;mass\n${sink.id};Basin;410,5;3\n`, START_THINGS);
    expect(read.items).toEqual([{ ...sink, name: 'Basin', width: 410.5, mass: 3 }]);
  });
  it('are taken but for the rows that cannot be right, which are named', () => {
    const text = [
      'id,name,kind,width,depth,height,connects',
      'a,Kettle,own,200,200,250,mains',
      'b,Nothing,own,0,200,250,none',
      'c,Radio,wireless,200,100,100,12 V',
      'd,Lamp,lamp,wide,100,100,12 V',
      'a,Kettle again,own,200,200,250,mains',
      'e,Pump,own,200,100,100,12 V | steam',
    ].join('\n');
    const read = readThingsCsv(text, []);
    expect(read.items.map(({ id }) => id)).toEqual(['a']);
    expect(read.rows).toBe(6);
    expect(read.problems.map(({ row }) => row)).toEqual([3, 4, 5, 6, 7]);
    expect(say(read.problems[2]?.said ?? { key: 'csv.book.column', params: {} })).toBe(
      '“wide” is no number for width.',
    );
    expect(readThingsCsv('name\nKettle\n', []).fault?.key).toBe('csv.book.column');
  });
});

describe('what is kept, in a file', () => {
  it('comes back as it went out, with where it is kept', () => {
    const stored = project.stored ?? [];
    expect(stored.length).toBeGreaterThan(2);
    expect(readStoredCsv(storedCsv(stored), []).items).toEqual(stored);
  });
  it('is not a formula in a spreadsheet', () => {
    const [first] = project.stored ?? [];
    if (!first) throw new Error('something is kept in Wren');
    const text = storedCsv([{ ...first, name: '=1+1' }]);
    expect(text).toContain("'=1+1");
  });
});
