import text from '../../../../demo/wren.json?raw';
import { describe, expect, it } from 'vitest';
import { applyOperation } from '../furniture/kit.js';
import { createProject } from '../document/create.js';
import { walkOf } from '../measure/walk.js';
import { say } from '../words/say.js';
import { readOutline, readingsOfOutline } from './outline-in.js';
import { readReadingsCsv, readingsCsv } from './readings-csv.js';
import { FormatError, readProjectFile } from './read.js';

const NOW = '2026-10-01T08:00:00.000Z';
const wren = readProjectFile(text);
const empty = createProject({ id: 't', name: 'T', kind: 'van', model: '', units: 'mm', startDate: '2026-10-01' });
const read = (csv: string, units: 'mm' | 'in' = 'mm') => readReadingsCsv(csv, empty.survey, units, NOW);

describe('readings as CSV', () => {
  it('go out and come back the same, every earlier reading too', () => {
    const csv = readingsCsv(wren.project.survey, walkOf(wren.project.survey));
    expect(csv.split('\n')[0]).toBe('address,value,unit,method,taken,what');
    const bare = { ...wren.project, survey: { ...wren.project.survey, readings: {} } };
    const { payload, problems, fault } = readReadingsCsv(csv, bare.survey, 'mm', NOW);
    expect(problems).toEqual([]);
    expect(fault).toBeNull();
    const back = applyOperation(bare, { name: 'takeReadings', payload }).project.survey.readings;
    const values = (all: typeof back) =>
      Object.fromEntries(
        Object.entries(all).map(([address, list]) => [
          address,
          list.map(({ value, method, at }) => [value, method, at]),
        ]),
      );
    expect(values(back)).toEqual(values(wren.project.survey.readings));
  });
  it('takes the rows that can be right and names the others: 400 with inches in some and a wrong column in others', () => {
    const rows = Array.from({ length: 400 }, (_, i) => {
      const address = `station/s${(i % 5) + 1}/left/${100 + i}`;
      if (i % 40 === 7) return `${address},35 1/2,in,tape`;
      if (i % 40 === 13) return `${address},tape,900,mm`;
      if (i % 40 === 21) return `${address},9,mm,tape`;
      return `${address},${900 + (i % 7)},,`;
    });
    const found = read(`address,value,unit,method\n${rows.join('\n')}`);
    expect(found.rows).toBe(400);
    expect(found.payload.readings).toHaveLength(380);
    expect(found.problems.map((problem) => problem.row).slice(0, 2)).toEqual([15, 23]);
    expect(say(found.problems[0]?.said ?? { key: 'csv.address', params: {} })).toContain('not a way of measuring');
    expect(say(found.problems[1]?.said ?? { key: 'csv.address', params: {} })).toContain('cannot be right here');
    expect(found.payload.readings.find((r) => r.address === 'station/s3/left/107')?.reading.value).toBeCloseTo(
      901.7,
      6,
    );
  });
  it('says which column is missing', () => {
    const found = read('place;figure\nx;1');
    expect(found.payload.readings).toEqual([]);
    expect(say(found.fault ?? { key: 'csv.address', params: {} })).toContain('no column “address”');
  });
  it('puts in a station that the file introduces and refuses one it only mentions', () => {
    const found = read(
      'address,value\nstation/s20/x,1234\nstation/s20/left/0,890\nstation/s30/left/0,880\nlevel/along,2 %',
    );
    expect(found.payload.stations).toEqual([{ id: 's20', name: 'Station 20', planned: false }]);
    expect(found.payload.readings).toHaveLength(3);
    expect(found.payload.readings.at(-1)?.reading.value).toBeCloseTo(1.1458, 3);
    expect(found.problems).toHaveLength(1);
    const project = applyOperation(empty, { name: 'takeReadings', payload: found.payload }).project;
    expect(project.survey.stations.at(-1)?.id).toBe('s20');
  });
});

const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="300mm" viewBox="0 0 3000 1800">
  <path d="M0 0 H3000 V1800 H0 Z"/><path d="M10 10 h5 v5 h-5 z"/></svg>`;

describe('outlines', () => {
  it('a floor from SVG, at its true size by width and view box, gives length and both walls', () => {
    const ring = readOutline('floor.svg', svg.replace('300mm', '3000mm'));
    const project = applyOperation(empty, {
      name: 'takeReading',
      payload: { address: 'station/s2/x', reading: { value: 1000, method: 'tape', at: NOW } },
    }).project;
    expect(
      readingsOfOutline(ring, 'floor', project.survey, null, NOW).readings.map((r) => [r.address, r.reading.value]),
    ).toEqual([
      ['floor/length', 3000],
      ['station/s2/left/0', 900],
      ['station/s2/right/0', 900],
    ]);
  });
  it('a section from DXF, with an arc for a roof, joined from loose pieces', () => {
    const line = (x1: number, y1: number, x2: number, y2: number): string =>
      `0\nLINE\n8\n0\n10\n${x1}\n20\n${y1}\n11\n${x2}\n21\n${y2}\n`;
    const dxf = `0\nSECTION\n2\nENTITIES\n${line(-900, 0, 900, 0)}${line(900, 0, 900, 1000)}0\nARC\n8\n0\n10\n0\n20\n1000\n40\n900\n50\n0\n51\n180\n${line(-900, 1000, -900, 0)}0\nENDSEC\n0\nEOF\n`;
    const ring = readOutline('section.dxf', dxf);
    const readings = Object.fromEntries(
      readingsOfOutline(ring, 'section', empty.survey, 's1', NOW).readings.map((r) => [r.address, r.reading.value]),
    );
    expect(readings['station/s1/left/0']).toBeCloseTo(900, 0);
    expect(readings['station/s1/roof/0']).toBeCloseTo(1900, -1);
  });
  it.each([
    ['notes.txt', 'hello', 'outline.kind'],
    ['small.svg', '<svg><path d="M0 0 H5 V5 Z"/></svg>', 'outline.none'],
    ['broken.dxf', 'nonsense', 'outline.broken'],
  ])('%s is refused', (name, content, key) => {
    try {
      readOutline(name, content);
      expect.unreachable();
    } catch (problem) {
      expect(problem).toBeInstanceOf(FormatError);
      expect((problem as FormatError).said.key).toBe(key);
    }
  });
});
