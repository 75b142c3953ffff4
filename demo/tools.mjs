// What the scripts of the demo projects share: building a project by operations, and reading a hidden vehicle with noise.
import { writeFileSync } from 'node:fs';
import { createProject } from '@nestplank/core/document';
import { applyOperation } from '@nestplank/core/furniture';
import { startPriceBook } from '@nestplank/core/materials';
import { progressOf } from '@nestplank/core/measure';
import { projectFileText } from '@nestplank/core/formats';
import { hiddenShape, trueValue } from '@nestplank/core/practice';

/** A project that grows by operations, with a clock that goes on a minute a reading. */
export function builder(wanted, start) {
  let project = createProject(wanted);
  const book = startPriceBook();
  let minute = 0;
  const apply = (name, payload) => {
    project = applyOperation(project, { name, payload }, book).project;
  };
  const at = () => new Date(start.getTime() + 60_000 * minute++).toISOString();
  const read = (address, value, more = {}) =>
    apply('takeReading', { address, reading: { value, method: 'tape', at: at(), ...more } });
  return { apply, read, at, project: () => project };
}

/** A run of furniture against a wall, by its figures. */
export const run = ({
  id,
  name,
  side,
  x,
  length,
  front,
  height,
  toeKick,
  shelves,
  doors,
  overhang,
  scribe,
  ...of
}) => ({
  id,
  family: 'base-run',
  name,
  body: { stands: side, x, length, front, from: 0, to: height },
  meets: { back: { how: 'scribed', allowance: scribe }, foot: { how: 'square' } },
  division: {
    name: 'bay-1',
    holds: shelves > 0 ? { kind: 'shelves', count: shelves } : { kind: 'open' },
    front: doors > 0 ? { kind: 'doors', count: doors } : { kind: 'none' },
  },
  school: 'plywood',
  materials: { carcass: of.carcass, facing: of.facing, top: of.top },
  options: { toeKick, overhang },
});

/** A bed from wall to wall, likewise. */
export const bed = ({ id, name, x, length, height, scribe, board, support, ...options }) => ({
  id,
  family: 'bed-platform',
  name,
  body: { stands: 'across', x, length, from: 0, to: height },
  meets: {
    left: { how: 'scribed', allowance: scribe },
    right: { how: 'scribed', allowance: scribe },
    foot: { how: 'open' },
  },
  division: { name: 'hold', holds: { kind: 'open' }, front: { kind: 'none' } },
  school: 'plywood',
  materials: { board, support },
  options,
});

/** Handling of the tape: the same small slips every time the file is made. */
const SLIPS = [0, 0.6, -0.5, 0.3, -0.7, 0.2, 0.5, -0.2, -0.4, 0.7, 0];

/** Reads the next `count` places of the walk off a hidden shape, rounded to a step; what it does not have is skipped. */
export function walk({ apply, read, project }, practice, count, step) {
  const shape = hiddenShape(practice);
  for (let i = 0; i < count; i += 1) {
    const { next } = progressOf(project().survey);
    if (!next) return;
    const value = trueValue(shape, project().survey, next);
    if (value === null) apply('skipReading', { address: next });
    else read(next, Math.round((value + SLIPS[(i * 7) % 11]) / step) * step);
  }
}

/** The start price book in another currency, and with sheets of other sizes. */
export function pricesIn(currency, factor, sheets = {}) {
  const book = startPriceBook();
  const price = (minor) => Math.round((minor * factor) / 10) * 10;
  return {
    currency,
    items: book.items.map((item) => ({
      ...item,
      pack: item.pack && { ...item.pack, price: price(item.pack.price) },
      stocks: item.stocks.map((stock) => ({
        ...stock,
        length: sheets[stock.length] ?? stock.length,
        width: sheets[stock.width] ?? stock.width,
        price: price(stock.price),
      })),
    })),
  };
}

export function write(name, project, book) {
  writeFileSync(new URL(`./${name}.json`, import.meta.url), projectFileText(project, book));
}
