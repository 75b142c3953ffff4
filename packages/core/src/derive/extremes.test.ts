import { describe, expect, it } from 'vitest';
import { createProject } from '../document/create.js';
import { OperationError } from '../document/editing.js';
import type { PriceBook, Project } from '../document/schema.js';
import { FormatError, readProjectFile } from '../formats/read.js';
import { applyOperation } from '../furniture/kit.js';
import { startPriceBook } from '../materials/start-book.js';
import { walkOf } from '../measure/walk.js';
import { seededRandom } from '../numeric/random.js';
import { hiddenShape, trueValue } from '../practice/hidden.js';
import { derive } from './derive.js';
import bulrush from '../../../../demo/bulrush.json?raw';
import thimble from '../../../../demo/thimble.json?raw';
import wren from '../../../../demo/wren.json?raw';

const PARTIAL = 550;
const EXTREME = 330;

/** Places of figures that are no numbers, and of areas below zero. */
function nonsense(value: unknown, place = '', depth = 0): string[] {
  if (typeof value === 'number')
    // what is without end is none either: no file can hold it
    return !Number.isFinite(value) || (value < 0 && /\.areas?\b/i.test(place)) ? [`${place} = ${value}`] : [];
  if (typeof value !== 'object' || value === null || depth > 9) return [];
  return Object.entries(value).flatMap(([key, inner]) => nonsense(inner, `${place}.${key}`, depth + 1));
}

const derived = (project: Project, book: PriceBook, what: string): void => {
  let out: string[];
  try {
    out = nonsense(derive(project, book));
  } catch (problem) {
    throw new Error(`${what}: ${problem instanceof Error ? problem.message : String(problem)}`, { cause: problem });
  }
  expect(out, what).toEqual([]);
};

describe('readings in any order, as far as anybody got, some of them slips', () => {
  it(`${PARTIAL} surveys: each gives what can be said, or says why it cannot`, () => {
    const book = startPriceBook();
    const slips = [1, 50, 0, 9999, -5, 1e9, 3600, 751];
    let [taken, shells, refused] = [0, 0, 0];
    for (let i = 0; i < PARTIAL; i += 1) {
      const random = seededRandom(i + 1);
      const kind = (['van', 'bus', 'trailer'] as const)[i % 3] ?? 'van';
      let project = createProject({
        id: 'p',
        name: 'Plover',
        kind,
        model: '',
        units: 'mm',
        startDate: '2026-11-30',
      });
      const truth = hiddenShape({ vehicle: kind, seed: i });
      const order = walkOf(project.survey)
        .map((address) => ({ address, at: random() }))
        .sort((a, b) => a.at - b.at)
        .slice(0, 1 + Math.floor(random() * 30));
      for (const { address } of order) {
        const known = trueValue(truth, project.survey, address);
        const drawn = random() < 0.1 ? slips[Math.floor(random() * slips.length)] : undefined;
        const value = drawn ?? (known === null || random() < 0.3 ? Math.round(random() * 3000) : known);
        try {
          const reading = { value, method: 'tape' as const, at: '2026-11-27T00:00:00.000Z' };
          project = applyOperation(project, { name: 'takeReading', payload: { address, reading } }, book).project;
          taken += 1;
        } catch (problem) {
          if (!(problem instanceof OperationError)) throw problem;
          refused += 1;
        }
      }
      derived(project, book, `survey ${i}`);
      const { shell, problems } = derive(project, book);
      if (shell) shells += 1;
      else expect(problems.length, `survey ${i} says why there is no shell`).toBeGreaterThan(0);
    }
    expect(Math.min(taken, shells, refused)).toBeGreaterThan(100);
  });

  it('a new trailer with four readings that no two stations share has a shell', () => {
    const book = startPriceBook();
    const empty = createProject({
      id: 'p',
      name: 'P',
      kind: 'trailer',
      model: '',
      units: 'mm',
      startDate: '2026-11-30',
    });
    const readings: Record<string, number> = {
      'floor/length': 3000,
      'station/s4/left/900': 750,
      'station/s4/roof/0': 1803,
      'station/s2/right/1700': 751,
    };
    for (const [station, x] of [
      ['s1', 10],
      ['s2', 1000],
      ['s3', 2000],
      ['s4', 2990],
    ] as const)
      readings[`station/${station}/x`] = x;
    const order = Object.keys(readings);
    for (let turn = 0; turn < order.length; turn += 1) {
      const project = [...order.slice(turn), ...order.slice(0, turn)].reduce((on, address) => {
        const reading = { value: readings[address] ?? 0, method: 'tape' as const, at: '2026-11-27T00:00:00.000Z' };
        return applyOperation(on, { name: 'takeReading', payload: { address, reading } }, book).project;
      }, empty);
      derived(project, book, `from ${order[turn] ?? ''}`);
      expect(derive(project, book).shell?.length).toBe(3000);
    }
  });
});

/** Where the numbers of a file stand, and how alike they are: a place of each kind is as likely to be taken. */
function numbersIn(file: unknown): (readonly string[])[][] {
  const kinds = new Map<string, (readonly string[])[]>();
  const walk = (value: unknown, path: readonly string[]): void => {
    if (typeof value === 'number' && !path.includes('version')) {
      const kind = path.map((key) => (/^\d+$/.test(key) ? '#' : key.replace(/[a-z]\d+/g, '@'))).join('.');
      kinds.set(kind, [...(kinds.get(kind) ?? []), path]);
    } else if (typeof value === 'object' && value !== null)
      for (const [key, inner] of Object.entries(value)) walk(inner, [...path, key]);
  };
  walk(file, []);
  return [...kinds.values()];
}

describe('figures at the ends of what is allowed, and beyond', () => {
  it(`${EXTREME} files with one or two of them: each is refused with its place, or worked out to the end`, () => {
    const files = [wren, bulrush, thimble].map((text) => JSON.parse(text) as Record<string, unknown>);
    const kinds = files.map(numbersIn);
    const values = [0, 0.001, 1e-12, 0.5, 1, -1, 3, 90, 1e4, 1e5, 1e9, 1e300];
    let [refused, taken] = [0, 0];
    for (let i = 0; i < EXTREME; i += 1) {
      const random = seededRandom(7919 * (i + 1));
      const pick = <T>(list: readonly T[]): T | undefined => list[Math.floor(random() * list.length)];
      const file = structuredClone(files[i % files.length] ?? {});
      const told: string[] = [];
      for (let change = 0; change <= Math.floor(random() * 2); change += 1) {
        const path = pick(pick(kinds[i % files.length] ?? []) ?? []) ?? [];
        const value = pick(values) ?? 0;
        let at = file;
        for (const key of path.slice(0, -1)) at = at[key] as Record<string, unknown>;
        at[path.at(-1) ?? ''] = value;
        told.push(`${path.join('.')} = ${value}`);
      }
      try {
        const { project, priceBook } = readProjectFile(JSON.stringify(file));
        derived(project, priceBook, told.join(', '));
        taken += 1;
      } catch (problem) {
        if (!(problem instanceof FormatError)) throw problem;
        expect(problem.place, told.join(', ')).not.toBe('');
        refused += 1;
      }
    }
    expect(Math.min(refused, taken)).toBeGreaterThan(20);
  });

  it('sizes that pieces are set out by have one least size, whichever they are', () => {
    const changed = (change: (file: { project: Project; priceBook: PriceBook }) => void): string => {
      const file = JSON.parse(thimble) as { project: Project; priceBook: PriceBook };
      change(file);
      try {
        readProjectFile(JSON.stringify(file));
        return '';
      } catch (problem) {
        return problem instanceof FormatError ? problem.place : String(problem);
      }
    };
    const lining = ({ project }: { project: Project }) => {
      const [first] = Object.values(project.linings);
      if (!first) throw new Error('the demo has a lining');
      return first;
    };
    const put = (target: object, key: string, value: number): void => void Object.assign(target, { [key]: value });
    expect(changed((file) => put(file.project.settings.floorBattens, 'spacing', 0.001))).toContain('spacing');
    expect(changed((file) => put(lining(file).groove, 'spacing', 0.001))).toContain('groove');
    expect(changed((file) => put(lining(file), 'strip', 0.001))).toContain('strip');
    const item = (file: { priceBook: PriceBook }) =>
      file.priceBook.items.find((one) => one.pack) ?? file.priceBook.items[0];
    expect(changed((file) => put(item(file) ?? {}, 'width', 0.001))).toContain('width');
    expect(changed((file) => put(item(file) ?? {}, 'pieceLength', 0.001))).toContain('pieceLength');
    expect(changed((file) => put(item(file)?.pack ?? {}, 'contents', 1e-12))).toContain('contents');
    const reading = (file: { project: Project }) => file.project.survey.readings['floor/length']?.at(-1) ?? {};
    expect(changed((file) => put(reading(file), 'value', 1e9))).toContain('floor/length');
  });
});
