import { BarColumns } from './columns.js';
import type { EngineJob } from '../job/job.js';
import type { SolveProgram } from './program.js';

const SAFE = 1e-6;
/** How often the two axes take turns. */
const TURNS = 4;

/**
 * Lifts the least number of sheets by conservative scales (Fekete and Schepers 2001): sizes along one axis are replaced by
 * the best values that no set fitting in a row can exceed 1 with, the other axis held; then the axes change places. The
 * best values for one axis are the dual values of a bar problem, found by column generation. For one kind of sheet and
 * parts that must not turn.
 */
export function* scaledBound(job: EngineJob, solve: SolveProgram): Generator<number, void, undefined> {
  const [sheet] = job.stock;
  if (!sheet || job.stock.length > 1 || job.parts.some((part) => part.mayTurn && part.length !== part.width)) return;
  const axis = (sizes: readonly number[], space: number, weights: readonly number[]) => {
    const distinct = [...new Set(sizes)];
    const at = sizes.map((size) => distinct.indexOf(size));
    const quantity = distinct.map(() => 0);
    const weight = distinct.map(() => 0);
    at.forEach((index, i) => {
      quantity[index] = (quantity[index] ?? 0) + (job.parts[i]?.quantity ?? 0);
      weight[index] = (weight[index] ?? 0) + (weights[i] ?? 0) * (job.parts[i]?.quantity ?? 0);
    });
    const bars: EngineJob = {
      bars: true,
      mitred: false,
      free: false,
      kerf: job.kerf,
      tooLarge: [],
      stock: [{ id: '', length: space, width: 1, price: 1, quantity: Infinity }],
      parts: distinct.map((length, i) => ({ ids: [], length, width: 1, quantity: quantity[i] ?? 0, mayTurn: false })),
    };
    return { columns: new BarColumns(bars, solve, weight), at };
  };
  const lengths = job.parts.map((part) => part.length);
  const widths = job.parts.map((part) => part.width);
  for (const lengthFirst of [true, false]) {
    let weights = lengthFirst
      ? widths.map((width) => (width + job.kerf) / (sheet.width + job.kerf))
      : lengths.map((length) => (length + job.kerf) / (sheet.length + job.kerf));
    for (let turn = 0; turn < TURNS; turn += 1) {
      const alongLength = lengthFirst === (turn % 2 === 0);
      const { columns, at } = axis(alongLength ? lengths : widths, alongLength ? sheet.length : sheet.width, weights);
      while (!columns.finished) {
        columns.round();
        yield Math.ceil(columns.value * (1 - SAFE) - SAFE) * sheet.price;
      }
      if (columns.scale.length === 0) return;
      weights = at.map((index) => columns.scale[index] ?? 0);
    }
  }
}
