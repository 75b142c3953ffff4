import Papa from 'papaparse';
import { hardwareSchema, priceItemSchema, type PriceBook, type PriceItem } from '../document/schema.js';
import { blankMaterial } from '../materials/reprice.js';
import { message, type Message } from '../words/message.js';
import { FORMULA } from './formula.js';
import type { RowProblem } from './readings-csv.js';

/**
 * Columns of the price book's file. Lengths in mm, money in the book's currency with two decimals. `sizes` are sheets, each
 * `length x width = price`, with `|` between; `fastener` is `wood 4 x 40`; `hardware` is
 * its kind with `length=400` and `bears=30` (kg a pair of slides, N a strut) behind it where it has them; `grain` is yes or no. What a file leaves out stays as it
 * is in the book.
 */
export const BOOK_HEADER = [
  'id',
  'name',
  'group',
  'supplier',
  'date',
  'source',
  'thickness',
  'width',
  'piece_length',
  'density',
  'conductivity',
  'vapour',
  'hours',
  'cure_hours',
  'coverage',
  'waste_percent',
  'grain',
  'sold_as',
  'sizes',
  'pack_contents',
  'pack_unit',
  'pack_price',
  'fastener',
  'hardware',
] as const;
type Column = (typeof BOOK_HEADER)[number];

const money = (minor: number): string => (minor / 100).toFixed(2);

/** A price book as CSV, a line for each material. */
export function bookCsv(book: PriceBook): string {
  const rows = book.items.map((item): Record<Column, string | number> => ({
    id: item.id,
    name: item.name,
    group: item.group,
    supplier: item.supplier,
    date: item.priceDate,
    source: item.source ?? '',
    thickness: item.thickness,
    width: item.width,
    piece_length: item.pieceLength,
    density: item.density,
    conductivity: item.conductivity,
    vapour: item.vapour,
    hours: item.hours,
    cure_hours: item.cureHours,
    coverage: item.coverage ?? '',
    waste_percent: item.waste === undefined ? '' : Math.round(item.waste * 1000) / 10,
    grain: item.grain ? 'yes' : 'no',
    sold_as: item.soldAs,
    sizes: item.stocks.map(({ length, width, price }) => `${length} x ${width} = ${money(price)}`).join(' | '),
    pack_contents: item.pack?.contents ?? '',
    pack_unit: item.pack?.unit ?? '',
    pack_price: item.pack ? money(item.pack.price) : '',
    fastener: item.fastener ? `${item.fastener.kind} ${item.fastener.diameter} x ${item.fastener.length}` : '',
    hardware: item.hardware
      ? [
          item.hardware.kind,
          ...(item.hardware.length === null ? [] : [`length=${item.hardware.length}`]),
          ...(item.hardware.bears === null ? [] : [`bears=${item.hardware.bears}`]),
          ...(item.hardware.across === undefined ? [] : [`across=${item.hardware.across}`]),
          ...(item.hardware.copper === undefined ? [] : [`copper=${item.hardware.copper}`]),
        ].join(' ')
      : '',
  }));
  return `${Papa.unparse({ fields: [...BOOK_HEADER], data: rows }, { newline: '\n', escapeFormulae: FORMULA })}\n`;
}

/** What a price book's file gives: materials that can be taken, new and changed, and the rows that cannot. */
export interface ReadBook {
  readonly items: readonly PriceItem[];
  readonly added: number;
  readonly problems: readonly RowProblem[];
  /** A fault of the whole file, such as a missing column. */
  readonly fault: Message | null;
  readonly rows: number;
}

class RowFault extends Error {
  constructor(
    readonly typed: string,
    readonly said: Message,
  ) {
    super(said.key);
  }
}

/** A number as people write it: with a point or a comma before its decimals, and blanks, points or commas between thousands. */
export function plainNumber(text: string): number | null {
  const bare = text.trim().replace(/[\u00a0\u202f]/g, ' ');
  // thousands parted by one mark, all groups of three, and another mark before the decimals
  const parted = /^(-?\d{1,3}(?:([ .,'])\d{3})(?:\2\d{3})*)(?:(?!\2)[.,](\d+))?$/.exec(bare);
  if (parted?.[1] !== undefined && (parted[3] !== undefined || /[ ']|([.,])\d{3}\1/.test(parted[1])))
    return Number(`${parted[1].replace(/[ .,']/g, '')}.${parted[3] ?? '0'}`);
  const plain = /^(-?\d*)(?:[.,](\d+))?$/.exec(bare);
  return plain && bare !== '' && bare !== '-' ? Number(`${plain[1] || '0'}.${plain[2] ?? '0'}`) : null;
}

type Row = Readonly<Record<string, string>>;

/** Reads `slides length=400 bears=30`; nothing where it is empty. @throws RowFault */
function readHardware(typed: string): PriceItem['hardware'] {
  if (typed === '') return undefined;
  const [kind = '', ...rest] = typed.split(/\s+/);
  const figures = new Map(rest.map((one) => one.split('=') as [string, string]));
  const figure = (name: string): number | null => {
    const said = figures.get(name);
    return said === undefined ? null : plainNumber(said);
  };
  const read = hardwareSchema.safeParse({
    length: null,
    bears: null,
    ...Object.fromEntries([...figures.keys()].map((name) => [name, figure(name)])),
    kind,
  });
  if (!read.success || [...figures.keys()].some((name) => figure(name) === null))
    throw new RowFault(typed, message('csv.book.hardware', { typed }));
  return read.data;
}

/** Reads one row over what the book has of the material. @throws RowFault */
function readRow(row: Row, was: PriceItem, currency: string): PriceItem {
  const text = (name: Column): string | null => (row[name] === undefined ? null : row[name].trim());
  const number = (name: Column, before: number): number => {
    const typed = text(name);
    if (typed === null || typed === '') return before;
    const value = plainNumber(typed);
    if (value === null) throw new RowFault(typed, message('csv.book.number', { typed, column: name }));
    return value;
  };
  const price = (typed: string): number => {
    const [, figure = typed, coin] = /^(.*?)\s*([A-Za-z]{3}|[€$£¥])?$/.exec(typed.trim()) ?? [];
    const sign = { '€': 'EUR', $: 'USD', '£': 'GBP', '¥': 'JPY' }[coin ?? ''] ?? coin?.toUpperCase();
    if (sign !== undefined && sign !== currency)
      throw new RowFault(typed, message('csv.book.currency', { typed, currency }));
    const value = plainNumber(figure);
    if (value === null || value < 0) throw new RowFault(typed, message('csv.book.price', { typed }));
    return Math.round(value * 100);
  };
  const sizes = text('sizes');
  const stocks =
    sizes === null
      ? was.stocks
      : sizes
          .split('|')
          .map((size) => size.trim())
          .filter((size) => size !== '')
          .map((size, i) => {
            const read = /^(.+?)\s*[x×]\s*(.+?)\s*=\s*(.+)$/i.exec(size);
            const [length, width] = [plainNumber(read?.[1] ?? ''), plainNumber(read?.[2] ?? '')];
            if (!read || length === null || width === null)
              throw new RowFault(size, message('csv.book.size', { typed: size }));
            return {
              id: was.stocks[i]?.id ?? `${was.id}-${i + 1}`,
              length,
              width,
              price: price(read[3] ?? ''),
              quantity: was.stocks[i]?.quantity ?? null,
            };
          });
  const unit = text('pack_unit');
  const contents = number('pack_contents', was.pack?.contents ?? 0);
  const packPrice = text('pack_price');
  const packed = unit === null ? was.pack !== null : unit !== '';
  const name = text('name') ?? was.name;
  if (packed && !(contents > 0))
    throw new RowFault(text('pack_contents') ?? '', message('csv.book.emptyPack', { name }));
  const pack = packed
    ? {
        contents,
        unit: unit ?? was.pack?.unit,
        price: packPrice === null || packPrice === '' ? (was.pack?.price ?? 0) : price(packPrice),
      }
    : null;
  const fastened = text('fastener');
  const screw = fastened === null || fastened === '' ? null : /^(\w+)\s+(\S+)\s*[x×]\s*(\S+)$/.exec(fastened);
  const [diameter, length] = [plainNumber(screw?.[2] ?? ''), plainNumber(screw?.[3] ?? '')];
  if (fastened && (!screw || diameter === null || length === null))
    throw new RowFault(fastened, message('csv.book.fastener', { typed: fastened }));
  const { hardware: had, ...plain } = was;
  const fitted = text('hardware');
  const hardware = fitted === null ? had : readHardware(fitted);
  const grain = text('grain')?.toLowerCase();
  const waste = text('waste_percent');
  const coverage = text('coverage');
  const item = {
    ...plain,
    ...(hardware ? { hardware } : {}),
    name,
    group: text('group') || was.group,
    supplier: text('supplier') || was.supplier,
    priceDate: text('date') || was.priceDate,
    ...((text('source') ?? '') === (was.source ?? '') ? {} : { source: text('source') ?? was.source }),
    thickness: number('thickness', was.thickness),
    width: number('width', was.width),
    pieceLength: number('piece_length', was.pieceLength),
    density: number('density', was.density),
    conductivity: number('conductivity', was.conductivity),
    vapour: number('vapour', was.vapour),
    hours: number('hours', was.hours),
    cureHours: number('cure_hours', was.cureHours),
    ...(coverage === null || coverage === '' ? {} : { coverage: number('coverage', 0) }),
    ...(waste === null || waste === '' ? {} : { waste: number('waste_percent', 0) / 100 }),
    grain: grain === undefined || grain === '' ? was.grain : ['yes', 'y', 'true', '1'].includes(grain),
    soldAs: text('sold_as') ?? was.soldAs,
    stocks,
    pack,
    fastener: fastened === null ? was.fastener : screw ? { kind: screw[1], diameter, length } : null,
  };
  if (item.stocks.length > 0 && item.group === 'sheet' && !(item.thickness > 0))
    throw new RowFault(text('thickness') ?? '', message('csv.book.noThickness', { name }));
  const read = priceItemSchema.safeParse(item);
  if (read.success) return read.data;
  const [issue] = read.error.issues;
  throw new RowFault(
    String(
      issue?.path.reduce<unknown>((at, key) => (at as Record<PropertyKey, unknown> | undefined)?.[key], item) ?? '',
    ),
    message('csv.book.field', { column: issue?.path.join('.') ?? '', why: issue?.message ?? '' }),
  );
}

/**
 * Reads a price book's file, with commas, semicolons or tabs between its columns, and decimals after a point or a comma. Rows
 * that cannot be right are named with their number and left out; the rest can be taken. A material whose id the book does
 * not have is new.
 * @param today ISO date of prices whose row has none
 */
export function readBookCsv(text: string, book: PriceBook, today: string): ReadBook {
  const parsed = Papa.parse<Record<string, string>>(text.replace(/^\ufeff/, ''), {
    header: true,
    skipEmptyLines: 'greedy',
    transformHeader: (header) => header.trim().toLowerCase(),
  });
  const none = { items: [], added: 0, problems: [], rows: parsed.data.length };
  const fields = parsed.meta.fields ?? [];
  if (!fields.includes('id'))
    return { ...none, fault: message('csv.book.column', { missing: 'id', wanted: BOOK_HEADER.join(', ') }) };
  const problems: RowProblem[] = [];
  const seen = new Set<string>();
  let added = 0;
  const items = parsed.data.flatMap((row, i): PriceItem[] => {
    const id = (row.id ?? '').trim();
    const known = book.items.find((item) => item.id === id);
    const was = known ?? { ...blankMaterial(book.items, id, today), id, stocks: [], thickness: 0 };
    try {
      if (seen.has(id)) throw new RowFault(id, message('csv.book.twice', { id }));
      seen.add(id);
      const item = readRow(row, was, book.currency);
      if (!known) added += 1;
      return [item];
    } catch (problem) {
      if (!(problem instanceof RowFault)) throw problem;
      problems.push({ row: i + 2, typed: problem.typed, said: problem.said });
      return [];
    }
  });
  return { items, added, problems, fault: null, rows: parsed.data.length };
}

/** A book with materials taken in: changed ones in their places, new ones behind. */
export function withMaterials(book: PriceBook, items: readonly PriceItem[]): PriceBook {
  const taken = new Map(items.map((item) => [item.id, item]));
  const there = new Set(book.items.map(({ id }) => id));
  return {
    ...book,
    items: [...book.items.map((item) => taken.get(item.id) ?? item), ...items.filter(({ id }) => !there.has(id))],
  };
}
