import Papa from 'papaparse';
import { FORMULA } from './formula.js';
import type { OperationOf } from '../document/operation.js';
import { methodSchema, type Reading, type Survey } from '../document/schema.js';
import { addressExists, allowedRange, describeAddress, parseAddress, unitOf } from '../document/address.js';
import { parseAngle } from '../words/angle.js';
import { parseLength, type UnitSystem } from '../words/length.js';
import { message, mm, type Message } from '../words/message.js';
import { say } from '../words/say.js';

/**
 * Columns of the readings file: `address` (as in the documentation of the project file), `value`, `unit` (mm, cm, m, in,
 * deg; empty means the column's own unit), `method`, `taken` (ISO 8601), `what` (words for people, not read).
 * Every reading is a row; readings of one place follow each other in the order in which they were taken.
 */
export const READINGS_HEADER = ['address', 'value', 'unit', 'method', 'taken', 'what'] as const;

/** All readings as CSV, the walk's order first. Values in mm, angles in degrees. */
export function readingsCsv(survey: Survey, order: readonly string[]): string {
  const addresses = [...new Set([...order, ...Object.keys(survey.readings)])];
  const rows = addresses.flatMap((address) =>
    (survey.readings[address] ?? []).map((reading) => {
      const place = parseAddress(address);
      return {
        address,
        value: reading.value,
        unit: place && unitOf(place) === 'degrees' ? 'deg' : 'mm',
        method: reading.method,
        taken: reading.at,
        what: say(describeAddress(survey, address)),
      };
    }),
  );
  return `${Papa.unparse({ fields: [...READINGS_HEADER], data: rows }, { newline: '\n', escapeFormulae: FORMULA })}\n`;
}

/** One row that was not taken, and why. */
export interface RowProblem {
  readonly row: number;
  readonly typed: string;
  readonly said: Message;
}

/** What a readings file gives: the readings that can be taken as one operation, and the rows that cannot. */
export interface ReadReadings {
  readonly payload: OperationOf<'takeReadings'>['payload'];
  readonly problems: readonly RowProblem[];
  /** A fault of the whole file, such as a missing column. */
  readonly fault: Message | null;
  readonly rows: number;
}

const UNIT_WORDS: Readonly<Record<string, string>> = {
  mm: 'mm',
  cm: 'cm',
  m: 'm',
  in: 'in',
  inch: 'in',
  inches: 'in',
  '"': 'in',
  ft: 'ft',
};

const column = (row: Readonly<Record<string, string>>, name: string): string => (row[name] ?? '').trim();

/** Reads one row. */
function readRow(
  row: Readonly<Record<string, string>>,
  survey: Survey,
  known: ReadonlySet<string>,
  units: UnitSystem,
  now: string,
): { readonly address: string; readonly reading: Reading } | Message {
  const address = column(row, 'address');
  const place = parseAddress(address);
  const typed = column(row, 'value');
  if (!place) return message('csv.address', { address });
  if (place.kind !== 'station' && !addressExists(survey, place)) return message('csv.noThing', { address });
  if (place.kind === 'station' && !known.has(place.id)) return message('csv.noStation', { address });
  if (typed === '') return message('csv.noValue', { address });
  const method = column(row, 'method') === '' ? 'tape' : methodSchema.safeParse(column(row, 'method')).data;
  if (!method) return message('csv.method', { method: column(row, 'method') });
  const taken = column(row, 'taken');
  const at = taken === '' || Number.isNaN(Date.parse(taken)) ? now : new Date(taken).toISOString();
  const unit = column(row, 'unit').toLowerCase();
  let value: number;
  if (unitOf(place) === 'degrees') {
    const read = parseAngle(typed);
    if (!read.ok) return read.error;
    value = read.degrees;
  } else {
    const word = unit === '' ? '' : UNIT_WORDS[unit];
    if (word === undefined) return message('csv.unit', { unit });
    const read = parseLength(word === '' ? typed : `${typed} ${word}`, units);
    if (!read.ok) return read.error;
    value = read.mm;
  }
  const [least, most] = allowedRange(place);
  if (value < least || value > most)
    return unitOf(place) === 'degrees'
      ? message('operation.outOfAngle', { typed: value, least, most })
      : message('csv.outOfRange', { typed, value: mm(value), least: mm(least), most: mm(most) });
  return { address, reading: { value, method, at } };
}

/**
 * Reads a readings file. Rows that cannot be right are named with their number and left out; the rest can be taken. A
 * station that a row with its place (`station/ID/x`) introduces is put in.
 * @param units of values without a unit
 */
export function readReadingsCsv(text: string, survey: Survey, units: UnitSystem, now: string): ReadReadings {
  const parsed = Papa.parse<Record<string, string>>(text.replace(/^\ufeff/, ''), {
    header: true,
    skipEmptyLines: 'greedy',
    transformHeader: (header) => header.trim().toLowerCase(),
  });
  const none = { payload: { stations: [], readings: [] }, problems: [], rows: parsed.data.length };
  const missing = ['address', 'value'].find((name) => !(parsed.meta.fields ?? []).includes(name));
  if (missing) return { ...none, fault: message('csv.column', { missing, wanted: READINGS_HEADER.join(', ') }) };
  const there = new Set(survey.stations.map((station) => station.id));
  const introduced = parsed.data.flatMap((row) => {
    const place = parseAddress(column(row, 'address'));
    return place?.kind === 'station' && place.what === 'x' && !there.has(place.id) ? [place.id] : [];
  });
  const stations = [...new Set(introduced)].map((id) => ({
    id,
    name: `Station ${id.replace(/^s(?=\d)/, '')}`,
    planned: false,
  }));
  const known = new Set([...there, ...stations.map((station) => station.id)]);
  const problems: RowProblem[] = [];
  const readings = parsed.data.flatMap((row, i) => {
    const read = readRow(row, survey, known, units, now);
    if ('key' in read) {
      problems.push({ row: i + 2, typed: column(row, 'value'), said: read });
      return [];
    }
    return [read];
  });
  return { payload: { stations, readings }, problems, fault: null, rows: parsed.data.length };
}
