// What the scripts of the demo projects share: building a project by operations, and reading a hidden vehicle with noise.
import { writeFileSync } from 'node:fs';
import { applyOperation, createProject, progressOf, startPriceBook } from '@nestplank/core';
import { projectFileText } from '@nestplank/core/formats';
import { hiddenShape, trueValue } from '@nestplank/core/practice';

/** A project that grows by operations, with a clock that goes on a minute a reading. */
export function builder(wanted, start) {
  let project = createProject(wanted);
  let minute = 0;
  const apply = (name, payload) => {
    project = applyOperation(project, { name, payload }).project;
  };
  const at = () => new Date(start.getTime() + 60_000 * minute++).toISOString();
  const read = (address, value, more = {}) =>
    apply('takeReading', { address, reading: { value, method: 'tape', at: at(), ...more } });
  return { apply, read, at, project: () => project };
}

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
