import type { SawCut } from '../project/schema.js';
import type { EnginePart, EngineStock } from './job.js';

/** A free rectangle of a sheet, reached by edge-to-edge cuts only. */
interface Free {
  readonly x: number;
  readonly y: number;
  readonly length: number;
  readonly width: number;
  readonly level: number;
}
export interface Placed {
  /** Index of the part in the job. */
  readonly part: number;
  readonly x: number;
  readonly y: number;
  readonly turned: boolean;
}
/** One sheet with its parts, the cuts that part them, and what is left, in engine units. */
export interface FilledSheet {
  readonly stock: number;
  readonly placed: readonly Placed[];
  readonly cuts: readonly SawCut[];
  readonly left: readonly Omit<Free, 'level'>[];
  /** Area of the parts on it. */
  readonly filled: number;
}

/** What a greedy pass prefers. Drawn at random for each pass. */
export interface Taste {
  readonly wholeEdge: number;
  readonly fill: number;
  readonly large: number;
  readonly noise: number;
  readonly ripFirst: number;
}

interface Block {
  readonly part: number;
  readonly turned: boolean;
  readonly length: number;
  readonly width: number;
  readonly countX: number;
  readonly countY: number;
  readonly score: number;
}

/** Part indices and what is still wanted of each. */
export type Wanted = number[];

/** How many pieces of a size go in a row with a kerf between neighbours. */
const inRow = (room: number, size: number, kerf: number): number => Math.floor((room + kerf) / (size + kerf));
const rowOf = (size: number, count: number, kerf: number): number => count * size + (count - 1) * kerf;

function bestBlock(
  free: Free,
  parts: readonly EnginePart[],
  wanted: Wanted,
  kerf: number,
  taste: Taste,
  largest: number,
  random: () => number,
): Block | null {
  let best: Block | null = null;
  for (let index = 0; index < parts.length; index += 1) {
    const part = parts[index];
    const count = wanted[index] ?? 0;
    if (!part || count === 0) continue;
    for (const turned of part.mayTurn && part.length !== part.width ? [false, true] : [false]) {
      const [length, width] = turned ? [part.width, part.length] : [part.length, part.width];
      if (length > free.length || width > free.width) continue;
      const [mostX, mostY] = [
        Math.min(count, inRow(free.length, length, kerf)),
        Math.min(count, inRow(free.width, width, kerf)),
      ];
      const shapes: [number, number][] = [[1, 1]];
      if (mostX > 1) shapes.push([mostX, 1]);
      if (mostY > 1) shapes.push([1, mostY]);
      for (const [countX, countY] of shapes) {
        const [blockLength, blockWidth] = [rowOf(length, countX, kerf), rowOf(width, countY, kerf)];
        const edge = Math.max(blockLength / free.length, blockWidth / free.width);
        const fill = (blockLength * blockWidth) / (free.length * free.width);
        const score =
          taste.wholeEdge * edge ** 4 +
          taste.fill * fill +
          (taste.large * part.length * part.width) / largest +
          taste.noise * random();
        if (!best || score > best.score)
          best = { part: index, turned, length: blockLength, width: blockWidth, countX, countY, score };
      }
    }
  }
  return best;
}

/**
 * Fills one sheet greedily: takes a free rectangle, puts the most fitting row of equal parts in its corner, splits the
 * rest by one edge-to-edge cut, and goes on. `wanted` is lowered by what was placed.
 */
export function fillSheet(
  stockIndex: number,
  stock: EngineStock,
  parts: readonly EnginePart[],
  wanted: Wanted,
  kerf: number,
  taste: Taste,
  random: () => number,
): FilledSheet {
  const largest = parts.reduce(
    (most, part, i) => ((wanted[i] ?? 0) > 0 ? Math.max(most, part.length * part.width) : most),
    1,
  );
  const open: Free[] = [{ x: 0, y: 0, length: stock.length, width: stock.width, level: 0 }];
  const placed: Placed[] = [];
  const cuts: SawCut[] = [];
  const left: Free[] = [];
  let filled = 0;
  for (let free = open.pop(); free; free = open.pop()) {
    const block = bestBlock(free, parts, wanted, kerf, taste, largest, random);
    const part = block && parts[block.part];
    if (!block || !part) {
      left.push(free);
      continue;
    }
    const [length, width] = block.turned ? [part.width, part.length] : [part.length, part.width];
    for (let i = 0; i < block.countX; i += 1)
      for (let j = 0; j < block.countY; j += 1)
        placed.push({
          part: block.part,
          x: free.x + i * (length + kerf),
          y: free.y + j * (width + kerf),
          turned: block.turned,
        });
    wanted[block.part] = (wanted[block.part] ?? 0) - block.countX * block.countY;
    filled += length * width * block.countX * block.countY;
    const [restX, restY] = [free.length - block.length - kerf, free.width - block.width - kerf];
    const ripFirst = split(restX, restY, free, block, taste, random);
    // what the two cuts leave is cut only after both of them
    const inner = { level: free.level + 2 };
    const lengthHere = ripFirst ? free.length : block.length;
    const widthHere = ripFirst ? block.width : free.width;
    if (free.width > block.width)
      cuts.push({
        axis: 'rip',
        at: free.y + block.width,
        from: free.x,
        to: free.x + lengthHere,
        level: free.level + (ripFirst ? 0 : 1),
      });
    if (free.length > block.length)
      cuts.push({
        axis: 'crosscut',
        at: free.x + block.length,
        from: free.y,
        to: free.y + widthHere,
        level: free.level + (ripFirst ? 1 : 0),
      });
    for (let i = 1; i < block.countX; i += 1)
      cuts.push({
        axis: 'crosscut',
        at: free.x + i * (length + kerf) - kerf,
        from: free.y,
        to: free.y + block.width,
        level: free.level + 2,
      });
    for (let j = 1; j < block.countY; j += 1)
      cuts.push({
        axis: 'rip',
        at: free.y + j * (width + kerf) - kerf,
        from: free.x,
        to: free.x + block.length,
        level: free.level + 2,
      });
    const rests: Free[] = [
      { x: free.x + block.length + kerf, y: free.y, length: restX, width: widthHere, ...inner },
      { x: free.x, y: free.y + block.width + kerf, length: lengthHere, width: restY, ...inner },
    ].filter((rest) => rest.length > 0 && rest.width > 0);
    rests.sort((a, b) => b.length * b.width - a.length * a.width);
    open.push(...rests);
  }
  return { stock: stockIndex, placed, cuts, left, filled };
}

/** Whether the first cut runs along the length: by taste, otherwise so that the larger rest stays whole. */
function split(restX: number, restY: number, free: Free, block: Block, taste: Taste, random: () => number): boolean {
  if (random() < 0.15) return random() < 0.5;
  if (taste.ripFirst > 0.8) return true;
  if (taste.ripFirst < 0.2) return false;
  const ripLargest = Math.max(restY * free.length, restX * block.width);
  const crossLargest = Math.max(restX * free.width, restY * block.length);
  return ripLargest >= crossLargest;
}
