import type { FloorChoice, PriceItem } from '../../document/schema.js';
import { boxOf, outlineArea, rectangle, type Outline } from '../../numeric/plane.js';
import { clipTo } from '../../numeric/shapes.js';
import type { FloorFinish, PlankRow } from './finish.js';
import { spansOf } from './floor-pieces-laid.js';
import { HAIR_MM, wholeUp } from '../../numeric/tolerance.js';

type Laying = Pick<FloorFinish, 'rows' | 'planks' | 'metres' | 'seams' | 'short' | 'legal'>;

/** A cut tile at an edge is no narrower than this share of a whole one, where that can be had. */
const LEAST_SHARE = 1 / 3;
const TRIES = 48;
/** Left over at every edge of a lane off a roll, to be trimmed in its place, mm. */
const TRIM_MM = 50;

/** Cells of a grid from one edge to the other: whole ones, and cut ones at both ends. */
function cells(from: number, to: number, size: number, joint: number, offset: number): (readonly [number, number])[] {
  const pitch = size + joint;
  const made: (readonly [number, number])[] = [];
  for (let at = from - pitch + (offset % pitch); at < to; at += pitch) {
    const [a, b] = [Math.max(from, at), Math.min(to, at + size)];
    if (b - a > 1) made.push([a, b]);
  }
  return made;
}

/** The offset of a grid whose cut tiles at both ends are widest, in every one of the shifts it is laid in. */
function bestOffset(from: number, to: number, size: number, joint: number, shifts: readonly number[]): number {
  const pitch = size + joint;
  const worth = (offset: number): number =>
    Math.min(
      ...shifts.map((shift) => {
        const row = cells(from, to, size, joint, offset + shift);
        const [first, last] = [row[0], row.at(-1)];
        return first && last ? Math.min(first[1] - first[0], last[1] - last[0]) : 0;
      }),
    );
  let best = 0;
  for (let i = 1; i < TRIES; i += 1) if (worth((i * pitch) / TRIES) > worth((best * pitch) / TRIES) + HAIR_MM) best = i;
  return (best * pitch) / TRIES;
}

/** Tiles, balanced along and across, in a grid or each other row begun with a half. Two cut ones may come from one. */
export function tiled(
  over: { readonly pieces: readonly Outline[] },
  material: PriceItem,
  { tiles, joint }: Pick<FloorChoice, 'tiles' | 'joint'>,
): Laying {
  const [size, width] = [material.pieceLength, material.width];
  const boxes = over.pieces.map((piece) => boxOf(piece.outer));
  const [minX, maxX] = [Math.min(...boxes.map((b) => b.minX)), Math.max(...boxes.map((b) => b.maxX))];
  const [minY, maxY] = [Math.min(...boxes.map((b) => b.minY)), Math.max(...boxes.map((b) => b.maxY))];
  if (boxes.length === 0) return { rows: [], planks: 0, metres: 0, seams: 0, short: 0, legal: true };
  const half = tiles === 'half' ? (size + joint) / 2 : 0;
  const along = bestOffset(minX, maxX, size, joint, half > 0 ? [0, half] : [0]);
  const across = bestOffset(minY, maxY, width, joint, [0]);
  let whole = 0;
  const cut: number[] = [];
  let short = 0;
  const rows = cells(minY, maxY, width, joint, across).map(([y0, y1], r): PlankRow => {
    const all = cells(minX, maxX, size, joint, along + (r % 2 === 1 ? half : 0));
    if (y1 - y0 < width * LEAST_SHARE) short += 1;
    const pieces = all.flatMap(([x0, x1]) => {
      const on = over.pieces.flatMap((piece) => clipTo(piece, rectangle(x0, y0, x1, y1)));
      const box = boxOf(on.flatMap((piece) => piece.outer));
      if (on.reduce((sum, piece) => sum + outlineArea(piece), 0) < 100) return [];
      const [a, b] = [(box.maxX - box.minX) / size, (box.maxY - box.minY) / width];
      if (a > 0.5 && b > 0.5) whole += 1;
      else cut.push(Math.min(a, b));
      if (a < LEAST_SHARE) short += 1;
      return [{ x0: box.minX, x1: box.maxX, offcut: false }];
    });
    return { y0, y1, pieces };
  });
  return { rows, planks: whole + pairs(cut), metres: 0, seams: 0, short, legal: short === 0 };
}

/** Tiles that pieces of no more than a half are cut from: each with as many more as still fit beside it. */
function pairs(cut: readonly number[]): number {
  const left: number[] = [];
  for (const share of [...cut].sort((a, b) => b - a)) {
    const i = left.findIndex((rest) => rest >= share);
    if (i < 0) left.push(1 - share);
    else left[i] = (left[i] ?? 0) - share;
  }
  return left.length;
}

/** Lanes off a roll, along the vehicle or across it, whichever takes less. */
export function rolled(over: { readonly pieces: readonly Outline[] }, material: PriceItem): Laying {
  if (over.pieces.length === 0) return { rows: [], planks: 0, metres: 0, seams: 0, short: 0, legal: true };
  const box = boxOf(over.pieces.flatMap((piece) => piece.outer));
  const [length, width] = [box.maxX - box.minX, box.maxY - box.minY];
  const lanes = (span: number): number => Math.max(1, wholeUp((span + 2 * TRIM_MM) / material.width));
  const ways = [
    { along: true, count: lanes(width), run: length },
    { along: false, count: lanes(length), run: width },
  ].map((way) => ({ ...way, metres: (way.count * (way.run + 2 * TRIM_MM)) / 1000 }));
  const [way] = ways.sort((a, b) => a.metres - b.metres || a.count - b.count);
  if (!way) return { rows: [], planks: 0, metres: 0, seams: 0, short: 0, legal: true };
  // lanes of one width meet away from the walls
  const part = (way.along ? width : length) / way.count;
  const rows = way.along
    ? Array.from({ length: way.count }, (_, i): PlankRow => {
        const [y0, y1] = [box.minY + i * part, box.minY + (i + 1) * part];
        return { y0, y1, pieces: spansOf(over.pieces, y0, y1).map(([x0, x1]) => ({ x0, x1, offcut: false })) };
      })
    : [
        {
          y0: box.minY,
          y1: box.maxY,
          pieces: Array.from({ length: way.count }, (_, i) => ({
            x0: box.minX + i * part,
            x1: box.minX + (i + 1) * part,
            offcut: false,
          })),
        },
      ];
  return { rows, planks: 0, metres: way.metres, seams: ((way.count - 1) * way.run) / 1000, short: 0, legal: true };
}
