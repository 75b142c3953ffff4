import Papa from 'papaparse';
import type { z } from 'zod';
import { storedSchema, thingSchema, type Stored, type Thing } from '../document/schema.js';
import { message, type Message } from '../words/message.js';
import { plainNumber } from './book-csv.js';
import { FORMULA } from './formula.js';
import type { RowProblem } from './readings-csv.js';

/** A row that was read, or why it cannot be. */
class RowFault extends Error {
  constructor(
    readonly typed: string,
    readonly said: Message,
  ) {
    super(said.key);
  }
}

/** What a file of rows gives: what can be taken, new and changed, and the rows that cannot. */
export interface ReadRows<T> {
  readonly items: readonly T[];
  readonly added: number;
  readonly problems: readonly RowProblem[];
  /** A fault of the whole file, such as a missing column. */
  readonly fault: Message | null;
  readonly rows: number;
}

/** Reads cells of one row: what the row leaves out or leaves empty stays as it was. */
interface Cells {
  readonly text: (column: string, was: string) => string;
  readonly number: (column: string, was: number) => number;
  /** A number, or null where the cell says none. */
  readonly maybe: (column: string, was: number | null) => number | null;
  readonly list: (column: string, was: readonly string[]) => readonly string[];
  readonly yes: (column: string, was: boolean) => boolean;
}
const NONE = 'none';

function cellsOf(row: Readonly<Record<string, string>>): Cells {
  const cell = (column: string): string => (row[column] ?? '').trim();
  const number = (column: string, was: number): number => {
    const typed = cell(column);
    if (typed === '') return was;
    const value = plainNumber(typed);
    if (value === null) throw new RowFault(typed, message('csv.book.number', { typed, column }));
    return value;
  };
  return {
    text: (column, was) => cell(column) || was,
    number,
    maybe: (column, was) => {
      const typed = cell(column);
      return typed === '' ? was : typed === NONE ? null : number(column, 0);
    },
    list: (column, was) => {
      const typed = cell(column);
      return typed === ''
        ? was
        : typed
            .split('|')
            .map((one) => one.trim())
            .filter((one) => one !== '' && one !== NONE);
    },
    yes: (column, was) => {
      const typed = cell(column).toLowerCase();
      return typed === '' ? was : ['yes', 'y', 'true', '1'].includes(typed);
    },
  };
}

/** A kind of row: its columns, how it is written and how it is read over what was there. */
interface Table<T extends { readonly id: string; readonly name: string }> {
  readonly columns: readonly string[];
  readonly schema: z.ZodType<T>;
  readonly blank: Omit<T, 'id' | 'name'>;
  readonly write: (item: T) => Readonly<Record<string, string | number>>;
  readonly read: (cells: Cells, was: T) => unknown;
}

const listed = (values: readonly string[]): string => (values.length === 0 ? NONE : values.join(' | '));

const THINGS: Table<Thing> = {
  columns: [
    'id',
    'name',
    'kind',
    'width',
    'depth',
    'height',
    'mass',
    'holds',
    'opens',
    'clear_side',
    'clear_back',
    'clear_top',
    'clear_front',
    'connects',
    'service',
    'heat',
    'air_in',
    'air_out',
    'cut_length',
    'cut_width',
    'cut_radius',
    'draws',
    'hours',
    'gives',
    'price',
    'source',
  ],
  schema: thingSchema,
  blank: {
    kind: 'own',
    width: 0,
    depth: 0,
    height: 0,
    mass: 0,
    holds: 0,
    opens: 'no',
    clear: { side: 0, back: 0, top: 0, front: 0 },
    connects: [],
    service: [],
    heat: 0,
    air: null,
    cutOut: null,
    draws: 0,
    hours: 0,
    source: '',
  },
  write: ({ clear, air, cutOut, connects, service, price, gives, ...thing }) => ({
    ...thing,
    gives: gives ?? NONE,
    price: price === null || price === undefined ? NONE : (price / 100).toFixed(2),
    clear_side: clear.side,
    clear_back: clear.back,
    clear_top: clear.top,
    clear_front: clear.front,
    connects: listed(connects),
    service: listed(service),
    air_in: air?.inlet ?? NONE,
    air_out: air?.outlet ?? NONE,
    cut_length: cutOut?.length ?? NONE,
    cut_width: cutOut?.width ?? NONE,
    cut_radius: cutOut?.radius ?? NONE,
  }),
  read: ({ text, number, maybe, list }, was) => {
    const [inlet, outlet] = [maybe('air_in', was.air?.inlet ?? null), maybe('air_out', was.air?.outlet ?? null)];
    const [length, width, radius] = [
      maybe('cut_length', was.cutOut?.length ?? null),
      maybe('cut_width', was.cutOut?.width ?? null),
      maybe('cut_radius', was.cutOut?.radius ?? null),
    ];
    return {
      id: was.id,
      name: text('name', was.name),
      kind: text('kind', was.kind),
      width: number('width', was.width),
      depth: number('depth', was.depth),
      height: number('height', was.height),
      mass: number('mass', was.mass),
      holds: number('holds', was.holds),
      opens: text('opens', was.opens),
      clear: {
        side: number('clear_side', was.clear.side),
        back: number('clear_back', was.clear.back),
        top: number('clear_top', was.clear.top),
        front: number('clear_front', was.clear.front),
      },
      connects: list('connects', was.connects),
      service: list('service', was.service),
      heat: number('heat', was.heat),
      // one opening that is stated asks for the other too
      air: inlet === null && outlet === null ? null : { inlet: inlet ?? 0, outlet: outlet ?? 0 },
      cutOut: length === null || width === null ? null : { length, width, radius: radius ?? 0 },
      draws: number('draws', was.draws),
      hours: number('hours', was.hours),
      ...stated(maybe('gives', was.gives ?? null)),
      ...priced(maybe('price', was.price === null || was.price === undefined ? null : was.price / 100)),
      source: text('source', was.source),
    };
  },
};
/** What the sheet of an inverter states; nothing where it states none. */
const stated = (gives: number | null): { gives?: number } => (gives === null ? {} : { gives });
/** A price in the currency's main unit as it is kept; nothing where none is known. */
const priced = (price: number | null): { price?: number } => (price === null ? {} : { price: Math.round(price * 100) });

const STORED: Table<Stored> = {
  columns: ['id', 'name', 'length', 'width', 'height', 'mass', 'count', 'turns', 'unit', 'bay'],
  schema: storedSchema,
  blank: { length: 0, width: 0, height: 0, mass: 0, count: 1, turns: true, kept: null },
  write: ({ kept, turns, ...stored }) => ({
    ...stored,
    turns: turns ? 'yes' : 'no',
    unit: kept?.unit ?? NONE,
    bay: kept?.bay ?? NONE,
  }),
  read: ({ text, number, yes }, was) => {
    const [unit, bay] = [text('unit', was.kept?.unit ?? NONE), text('bay', was.kept?.bay ?? NONE)];
    return {
      id: was.id,
      name: text('name', was.name),
      length: number('length', was.length),
      width: number('width', was.width),
      height: number('height', was.height),
      mass: number('mass', was.mass),
      count: number('count', was.count),
      turns: yes('turns', was.turns),
      kept: unit === NONE || bay === NONE ? null : { unit, bay },
    };
  },
};

const written = <T extends { readonly id: string; readonly name: string }>(
  table: Table<T>,
  items: readonly T[],
): string =>
  `${Papa.unparse(
    { fields: [...table.columns], data: items.map((item) => table.write(item)) },
    { newline: '\n', escapeFormulae: FORMULA },
  )}\n`;

function readRows<T extends { readonly id: string; readonly name: string }>(
  table: Table<T>,
  text: string,
  known: readonly T[],
): ReadRows<T> {
  const parsed = Papa.parse<Record<string, string>>(text.replace(/^\ufeff/, ''), {
    header: true,
    skipEmptyLines: 'greedy',
    transformHeader: (header) => header.trim().toLowerCase(),
  });
  const rows = parsed.data.length;
  const missing = ['id', 'name'].find((column) => !(parsed.meta.fields ?? []).includes(column));
  if (missing !== undefined)
    return {
      items: [],
      added: 0,
      problems: [],
      rows,
      fault: message('csv.book.column', { missing, wanted: table.columns.join(', ') }),
    };
  const problems: RowProblem[] = [];
  const seen = new Set<string>();
  let added = 0;
  const items = parsed.data.flatMap((row, i): T[] => {
    const id = (row['id'] ?? '').trim();
    const there = known.find((item) => item.id === id);
    try {
      if (seen.has(id)) throw new RowFault(id, message('csv.book.twice', { id }));
      seen.add(id);
      const item = table.read(cellsOf(row), there ?? ({ ...table.blank, id, name: '' } as unknown as T));
      const read = table.schema.safeParse(item);
      if (!read.success) {
        const [issue] = read.error.issues;
        throw new RowFault(
          '',
          message('csv.book.field', { column: issue?.path.join('.') ?? '', why: issue?.message ?? '' }),
        );
      }
      if (!there) added += 1;
      return [read.data];
    } catch (problem) {
      if (!(problem instanceof RowFault)) throw problem;
      problems.push({ row: i + 2, typed: problem.typed, said: problem.said });
      return [];
    }
  });
  return { items, added, problems, fault: null, rows };
}

/** Data sheets as CSV, a line for each: lengths in mm, kg, W, cm2; `|` between several, `none` where a sheet states none. */
export const thingsCsv = (things: readonly Thing[]): string => written(THINGS, things);
/** Reads data sheets over those that are there: rows that cannot be right are named and left out. */
export const readThingsCsv = (text: string, things: readonly Thing[]): ReadRows<Thing> =>
  readRows(THINGS, text, things);
/** What is kept in the vehicle as CSV, a line for each kind: mm and kg; `unit` and `bay` say where, `none` where nobody has said. */
export const storedCsv = (stored: readonly Stored[]): string => written(STORED, stored);
/** Reads what is kept over what is there. */
export const readStoredCsv = (text: string, stored: readonly Stored[]): ReadRows<Stored> =>
  readRows(STORED, text, stored);
