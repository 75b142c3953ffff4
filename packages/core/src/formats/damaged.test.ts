import { FORMULA } from './formula.js';
import { describe, expect, it } from 'vitest';
import { PROJECT_VERSION } from '../document/schema.js';
import { startPriceBook } from '../materials/start-book.js';
import { derive } from '../derive/again.fixture.js';
import { seededRandom } from '../numeric/random.js';
import { readOutline, readingsOfOutline } from './outline-in.js';
import { FormatError, readJson, readProjectFile } from './read.js';
import { readingsCsv, readReadingsCsv } from './readings-csv.js';
import { partDxf, partSvg } from './write.js';
import wren from '../../../../demo/wren.json?raw';
import thimble from '../../../../demo/thimble.json?raw';

const FILES = 600;
/** Drawings and lists that are exchanged. */
const DRAWINGS = 260;
const LISTS = 140;

/** A text with something of it lost, doubled, swapped or put in its place: what happens to files. */
function damaged(text: string, random: () => number): string {
  const at = Math.floor(random() * text.length);
  const length = 1 + Math.floor(random() ** 3 * 400);
  const other = Math.floor(random() * text.length);
  switch (Math.floor(random() * 7)) {
    case 0:
      return text.slice(0, at);
    case 1:
      return text.slice(0, at) + text.slice(at + length);
    case 2:
      return text.slice(0, at) + text.slice(at, at + length).repeat(2) + text.slice(at + length);
    case 3:
      return text.slice(0, at) + text.slice(other, other + length) + text.slice(at + length);
    case 4:
      return (
        text.slice(0, at) +
        (['0', '-', '"', '}', '\n', '1e999', '\u0000'][Math.floor(random() * 7)] ?? '') +
        text.slice(at + 1)
      );
    case 5:
      return text.replace(/\d+(\.\d+)?/g, (digits) => (random() < 0.01 ? `${digits}9` : digits));
    default:
      return text.replaceAll(text[at] ?? ' ', random() < 0.5 ? '' : ' ');
  }
}

/** A fault is one clear line with its place. */
function clear(problem: unknown, what: string): void {
  if (!(problem instanceof FormatError)) throw new Error(what, { cause: problem });
  expect(problem.message.trim(), what).not.toBe('');
  expect(problem.message.split('\n'), what).toHaveLength(1);
  expect(problem.place, what).not.toBe('');
}

describe('damaged project files', () => {
  it(`${FILES} of them are read, or refused in one line with the place`, () => {
    let [read, refused] = [0, 0];
    for (let i = 0; i < FILES; i += 1) {
      const text = damaged(i % 2 ? thimble : wren, seededRandom(i + 1));
      try {
        readProjectFile(text);
        read += 1;
      } catch (problem) {
        clear(problem, `file ${i}`);
        refused += 1;
      }
    }
    expect(Math.min(read, refused)).toBeGreaterThan(10);
  });
  it('a fault in a bay is told with the bay, and what may stand there, not as a unit that is wrong somewhere', () => {
    const said = (from: string | RegExp, to: string): string => {
      const broken = wren.replace(from, to);
      expect(broken).not.toBe(wren);
      try {
        readProjectFile(broken);
        return '';
      } catch (problem) {
        return problem instanceof FormatError ? problem.message : String(problem);
      }
    };
    expect(said('"divider": "none"', '"divider": "nothing"')).toMatch(
      /division\.parts\[0\]\.divider: .*"board"\|"frame"\|"none"/,
    );
    expect(said(/"travel": \d+/, '"travel": "far"')).toMatch(/division\.parts\[2\]\.holds\.travel: .*number/);
    expect(said('"stands": "left"', '"stands": "up"')).toMatch(/layout\.units\[1\]\.body/);
  });
  it('the place of a fault is where it is, not where the text ends', () => {
    const place = (text: string): string => {
      try {
        readJson(text);
        return '';
      } catch (problem) {
        return problem instanceof FormatError ? problem.place : String(problem);
      }
    };
    expect(place('{\n  "a": 1,\n  "b": x\n}')).toBe('3:8');
    expect(place('{"a": 1 "b": 2}')).toBe('1:9');
    expect(place('[1, 2,, 3]')).toBe('1:7');
    expect(place('{"a": [1, 2')).toBe('1:12');
    expect(place('')).toBe('1:1');
    expect(place(`${'['.repeat(5000)}`)).not.toBe('');
  });
});

describe('damaged drawings and lists', () => {
  const { project } = readProjectFile(wren);
  const derived = derive(project, startPriceBook());
  const floor = derived.parts.find((part) => part.role === 'subfloor');
  if (!floor) throw new Error('the demo has a floor');
  const now = '2026-11-27T00:00:00.000Z';
  const drawings = [partDxf(floor), partSvg(floor)];

  it(`${DRAWINGS} of them give readings that are figures, or one clear line`, () => {
    let [read, refused] = [0, 0];
    for (let i = 0; i < DRAWINGS; i += 1) {
      const random = seededRandom(31 * (i + 1));
      const text = damaged(drawings[i % 2] ?? '', random);
      try {
        const ring = readOutline(i % 2 ? 'a.svg' : 'a.dxf', text);
        const { readings } = readingsOfOutline(ring, 'floor', project.survey, null, now);
        for (const { reading } of readings) expect(Number.isFinite(reading.value), `drawing ${i}`).toBe(true);
        read += 1;
      } catch (problem) {
        clear(problem, `drawing ${i}`);
        refused += 1;
      }
    }
    expect(Math.min(read, refused)).toBeGreaterThan(10);
  });
  it('a drawing that says the same tag for ever, one without size, one without end', () => {
    for (const [name, text] of [
      ['a.svg', `<svg>${'<path '.repeat(200_000)}`],
      ['a.svg', `${'<svg '.repeat(100_000)}`],
      ['a.svg', '<svg width="1000mm" viewBox="0 0 0 0"><path d="M0 0H900V900H0Z"/></svg>'],
      ['a.svg', '<svg width="1000mm" viewBox="0 0 1e400 1"><path d="M0 0H900V900H0Z"/></svg>'],
      ['a.svg', '<svg><path d="M0 0H1e400V900H0Z"/></svg>'],
      ['a.dxf', '0\nSECTION\n2\nENTITIES\n0\nLINE\n10\n0\n'],
    ] as const)
      expect(() => readOutline(name, text), text.slice(0, 40)).toThrow(FormatError);
  });
  it(`${LISTS} lists of readings give rows that can be taken, and the number of each that cannot`, () => {
    const list = readingsCsv(project.survey, derived.walk);
    let taken = 0;
    for (let i = 0; i < LISTS; i += 1) {
      const found = readReadingsCsv(damaged(list, seededRandom(17 * (i + 1))), project.survey, 'mm', now);
      for (const { reading } of found.payload.readings) expect(Number.isFinite(reading.value), `list ${i}`).toBe(true);
      for (const problem of found.problems) expect(problem.row).toBeGreaterThan(0);
      taken += found.payload.readings.length;
    }
    expect(taken).toBeGreaterThan(1000);
  });
  it('a cut in a cut in a cut, three thousand deep, is refused at its place', () => {
    const leaf = '{"name":"b","holds":{"kind":"open"},"front":{"kind":"none"}}';
    const deep = `${'{"cut":"up","divider":"board","sizes":[{"share":1},{"share":1}],"parts":['.repeat(3000)}${leaf}${`,${leaf}]}`.repeat(3000)}`;
    const units = project.layout.units.map((unit, i) => (i === 0 ? { ...unit, division: 'DEEP' } : unit));
    const file = JSON.stringify({
      format: 'nest-plank-file',
      version: PROJECT_VERSION,
      project: { ...project, layout: { ...project.layout, units } },
      priceBook: startPriceBook(),
    }).replace('"DEEP"', deep);
    expect(() => readProjectFile(file)).toThrow(/project\.layout\.units\[0\]\.division.*200 deep/);
  });
  it('a cell that a spreadsheet would work out is quoted; figures are not', () => {
    const station = project.survey.stations[0];
    if (!station) throw new Error('the demo has stations');
    const named = {
      ...project.survey,
      stations: [{ ...station, name: '=HYPERLINK("http://x.example")' }, ...project.survey.stations.slice(1)],
    };
    const list = readingsCsv(named, derived.walk);
    for (const line of list.split('\n').slice(1))
      for (const cell of line.split(',')) expect(cell.replace(/^"/, '')).not.toMatch(/^[=+@]/);
    expect(list).toMatch(/,-?\d/);
    for (const formula of ['=1+1', '+1', '@x', '-2+3+cmd|x!A0', '-x', '-1-1', '-.5e'])
      expect([formula, FORMULA.test(formula)]).toEqual([formula, true]);
    for (const figure of ['-2', '-2.5', '-.5', '-2,5', '12', 'a-2', ''])
      expect([figure, FORMULA.test(figure)]).toEqual([figure, false]);
  });
});
