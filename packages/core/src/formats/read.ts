import { parseTree, type ParseError } from 'jsonc-parser';
import type { z } from 'zod';
import { cutJobSchema, type CutJob } from '../cutting/job/job.js';
import { selfCrossing } from '../cutting/job/outline.js';
import { OperationError, readOperation } from '../document/editing.js';
import type { Operation } from '../document/operation.js';
import { migrateFile, versionOf } from '../document/migrate/index.js';
import { renamedParts } from '../derive/part-names.js';
import { faultsIn } from '../furniture/kit.js';
import { PROJECT_VERSION, projectFileSchema, type PriceBook, type ProjectFile } from '../document/schema.js';
import { message, type Message } from '../words/message.js';
import { say } from '../words/say.js';

/** A file that cannot be read; says what is wrong and where in the file. */
export class FormatError extends Error {
  constructor(
    readonly said: Message,
    readonly place: string,
  ) {
    super(say(said));
  }
}

function lineAndColumn(text: string, at: number): { readonly line: number; readonly column: number } {
  const before = text.slice(0, at).split('\n');
  return { line: before.length, column: (before.at(-1) ?? '').length + 1 };
}

/** Where a text stops being JSON. What the machine says of it differs from one to the next; a scanner of tokens does not. */
function faultIn(text: string): number {
  const faults: ParseError[] = [];
  try {
    parseTree(text, faults, { disallowComments: true });
  } catch {
    // nested deeper than can be followed: the place is not known
    return text.length;
  }
  return faults[0]?.offset ?? text.length;
}

/** No file that this reads is nested deeper: a unit's cuts in each other are the deepest there is. */
const MOST_DEPTH = 200;

/** Where in a value it is nested deeper than can be followed; null where it is not. Walked without recursion. */
function tooDeep(value: unknown): readonly PropertyKey[] | null {
  interface At {
    readonly value: unknown;
    readonly key: PropertyKey;
    readonly up: At | null;
    readonly depth: number;
  }
  const open: At[] = [{ value, key: '', up: null, depth: 0 }];
  for (let next = open.pop(); next; next = open.pop()) {
    if (typeof next.value !== 'object' || next.value === null) continue;
    if (next.depth > MOST_DEPTH) {
      const path: PropertyKey[] = [];
      for (let at: At | null = next; at?.up; at = at.up) path.unshift(at.key);
      return path.slice(0, 8);
    }
    const { depth } = next;
    for (const [key, inner] of Object.entries(next.value))
      open.push({ value: inner, key: Array.isArray(next.value) ? Number(key) : key, up: next, depth: depth + 1 });
  }
  return null;
}

/** Reads JSON and, when it is broken or nested deeper than anything is, says where. */
export function readJson(text: string): unknown {
  try {
    const value = JSON.parse(text) as unknown;
    const deep = tooDeep(value);
    if (deep)
      throw new FormatError(
        message('format.field', { place: written(deep), why: `it is nested more than ${MOST_DEPTH} deep` }),
        written(deep),
      );
    return value;
  } catch (problem) {
    if (!(problem instanceof SyntaxError)) throw problem;
    const at = faultIn(text);
    const early = at >= text.trimEnd().length;
    const { line, column } = lineAndColumn(text, Math.min(at, text.trimEnd().length));
    throw new FormatError(
      message('format.json', {
        line,
        column,
        why: early ? 'it ends too early' : 'something is missing or out of place',
      }),
      `${line}:${column}`,
    );
  }
}

const written = (path: readonly PropertyKey[]): string =>
  path
    .map((step) => (typeof step === 'number' ? `[${step}]` : `.${String(step)}`))
    .join('')
    .replace(/^\./, '') || 'the file';

type Fault = Pick<z.core.$ZodIssue, 'path' | 'message'>;

/**
 * What is wrong, as near to the place as it can be told: of the forms a value may take the one it comes nearest to,
 * which is the one whose first fault lies deepest, then the one with the fewest.
 */
function nearest(issue: z.core.$ZodIssue): Fault {
  if (issue.code !== 'invalid_union') return issue;
  const forms = issue.errors
    .filter((form) => form.length > 0)
    .map((form) => ({ faults: form.length, said: nearest(form[0] as z.core.$ZodIssue) }))
    .sort((a, b) => b.said.path.length - a.said.path.length || a.faults - b.faults);
  const said = forms[0]?.said;
  return said === undefined ? issue : { message: said.message, path: [...issue.path, ...said.path] };
}

function readAs<Schema extends z.ZodType>(schema: Schema, raw: unknown): z.output<Schema> {
  const result = schema.safeParse(raw);
  if (result.success) return result.data;
  const first = result.error.issues[0];
  const issue = first && nearest(first);
  const place = written(issue?.path ?? []);
  throw new FormatError(message('format.field', { place, why: (issue?.message ?? '').replace(/\.$/, '') }), place);
}

function formatOf(raw: unknown): string {
  return typeof raw === 'object' && raw !== null && 'format' in raw && typeof raw.format === 'string'
    ? raw.format
    : 'file of another kind';
}

function expectFormat(raw: unknown, wanted: string, version: number): void {
  if (formatOf(raw) !== wanted)
    throw new FormatError(message('format.kind', { found: formatOf(raw), wanted }), 'format');
  const found = typeof raw === 'object' && raw !== null && 'version' in raw ? raw.version : undefined;
  if (typeof found === 'number' && found > version)
    throw new FormatError(message('format.version', { found, wanted: version }), 'version');
}

/**
 * Reads a project file of this or an earlier version and holds it to everything an operation would be held to.
 * @throws FormatError with the place in the file
 */
export function readProjectFile(text: string): ProjectFile {
  const raw = readJson(text);
  expectFormat(raw, 'nest-plank-file', PROJECT_VERSION);
  const file = readAs(projectFileSchema, migrateFile(raw));
  const [fault] = faultsIn(file.project, file.priceBook);
  if (fault) throw new FormatError(fault.said, fault.place);
  const doubled = doubleItem(file.priceBook);
  if (doubled !== null)
    throw new FormatError(message('format.duplicate', { place: 'priceBook.items', id: doubled }), 'priceBook.items');
  const from = versionOf(raw) ?? PROJECT_VERSION;
  return from < PROJECT_VERSION ? { ...file, project: renamedParts(file.project, file.priceBook) } : file;
}

function doubleItem(book: PriceBook): string | null {
  const seen = new Set<string>();
  return book.items.find((item) => seen.has(item.id) || !seen.add(item.id))?.id ?? null;
}

const badJob = (place: string, why: string): never => {
  throw new FormatError(message('format.field', { place, why }), place);
};

/** What the format alone cannot say: sizes that make no sense together. */
function checkCutJob(job: CutJob): void {
  const sheet = job.kind === 'sheet';
  for (const [list, name] of [
    [job.parts, 'parts'],
    [job.stock, 'stock'],
  ] as const) {
    const seen = new Set<string>();
    list.forEach((item, i) => {
      if (seen.has(item.id))
        throw new FormatError(message('format.duplicate', { place: `${name}[${i}]`, id: item.id }), `${name}[${i}].id`);
      seen.add(item.id);
      if (sheet && item.width === undefined) badJob(`${name}[${i}].width`, 'a sheet job needs a width');
    });
  }
  const trim = typeof job.trim === 'number' ? { length: job.trim, width: job.trim } : job.trim;
  job.stock.forEach((stock, i) => {
    if (stock.offcut) return;
    const lost = 2 * (sheet ? trim.length : job.endTrim);
    if (lost >= stock.length)
      badJob(`stock[${i}]`, `“${stock.id}” is ${stock.length} long and the trim takes ${lost} of it: nothing is left`);
    if (sheet && 2 * trim.width >= (stock.width ?? 0))
      badJob(
        `stock[${i}]`,
        `“${stock.id}” is ${stock.width ?? 0} wide and the trim takes ${2 * trim.width} of it: nothing is left`,
      );
  });
  job.parts.forEach((part, i) => {
    const least = Math.min(part.length, sheet ? (part.width ?? Infinity) : Infinity);
    if (job.kerf >= least)
      badJob(`parts[${i}]`, `the kerf of ${job.kerf} is as large as part “${part.id}”, which measures ${least}`);
    if (part.ends) {
      if (sheet) badJob(`parts[${i}].ends`, `“${part.id}” is cut from a sheet: only bars have angled ends`);
      if (part.width === undefined) badJob(`parts[${i}].width`, 'a part with angled ends needs its width');
      const back = (angle: number): number => (part.width ?? 0) * Math.tan((angle * Math.PI) / 180);
      const [s, e] = [back(part.ends.start), back(part.ends.end)];
      // what is left along the shorter edge: ends that lean the same way meet at one edge
      const short = part.length - Math.max(Math.max(s, 0) + Math.max(e, 0), Math.max(-s, 0) + Math.max(-e, 0));
      if (short < 0) badJob(`parts[${i}].ends`, `the ends of “${part.id}” cross: it is too short for its angles`);
    }
    if (!part.outline) return;
    const xs = part.outline.map(([x]) => x);
    const ys = part.outline.map(([, y]) => y);
    if (
      Math.min(...xs) < -0.05 ||
      Math.min(...ys) < -0.05 ||
      Math.max(...xs) > part.length + 0.05 ||
      Math.max(...ys) > (part.width ?? 0) + 0.05
    )
      badJob(`parts[${i}].outline`, `the outline of “${part.id}” runs out of its ${part.length} × ${part.width ?? 0}`);
    const crossing = selfCrossing(part.outline);
    if (crossing)
      badJob(
        `parts[${i}].outline`,
        `the outline of “${part.id}” crosses itself: its edges ${crossing[0] + 1} and ${crossing[1] + 1} meet`,
      );
  });
}

/** Reads a cut job. @throws FormatError */
export function readCutJob(text: string): CutJob {
  const raw = readJson(text);
  expectFormat(raw, 'cut-job', 1);
  const job = readAs(cutJobSchema, raw);
  checkCutJob(job);
  return job;
}

/** Reads a list of operations, as the interface sends them. @throws FormatError */
export function readOperations(text: string): Operation[] {
  const raw = readJson(text);
  const list: unknown[] | null = Array.isArray(raw) ? (raw as unknown[]) : null;
  if (!list)
    throw new FormatError(message('format.kind', { found: formatOf(raw), wanted: 'list of operations' }), 'the file');
  return list.map((item, i) => {
    try {
      return readOperation(item);
    } catch (problem) {
      if (problem instanceof OperationError)
        throw new FormatError(
          message('format.field', { place: `[${i}]`, why: say(problem.said).replace(/\.$/, '') }),
          `[${i}]`,
        );
      throw problem;
    }
  });
}
