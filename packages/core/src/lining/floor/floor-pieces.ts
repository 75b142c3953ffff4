import { boxOf, outlineArea, rectangle, type Outline, type Ring } from '../../numeric/plane.js';
import { clipTo, cutOut } from '../../numeric/shapes.js';
import type { FloorBattens } from './floor-battens.js';
import type { floorNoggins } from './floor-marks.js';
import { solidAlong } from '../surface/pieces.js';
import { placeJoints } from '../surface/set-out.js';
import { wholeUp } from '../../numeric/tolerance.js';

/** Pieces of insulation between battens, alike ones together, mm. */
export interface FloorInsulation {
  readonly length: number;
  readonly width: number;
  readonly count: number;
  /** Cut out round an arch or along a bowed wall: no plain rectangle. */
  readonly shaped: boolean;
}
/** Insulation under a floor board: its pieces, and where they meet. */
export interface FloorFoam {
  readonly pieces: readonly FloorInsulation[];
  /** Joints across the vehicle: x, and from where to where across. */
  readonly joints: readonly { readonly x: number; readonly y0: number; readonly y1: number }[];
  /** How near a joint comes to a seam of the board that runs the same way, mm; null while there are none of either. */
  readonly nearest: number | null;
}

/** Pieces smaller than this are filled from offcuts, mm2. */
const SMALLEST_MM2 = 8000;
/** A gap narrower than this is foamed, mm. */
const NARROWEST_MM = 25;
const ALIKE_MM = 3;
/** A joint of the insulation keeps off the seams above by so much, mm; where it may be is tried on a grid. */
const APART_MM = 150;
const GRID_MM = 50;
const SHORTEST_FOAM_MM = 200;

/**
 * What lies between the battens, or whole under the board where there are none: the board's outline less battens and
 * noggins, in pieces as long as it is sold, whose joints keep off the board's seams.
 * @param laid null for insulation without battens, in rows as wide as it is sold
 * @param sold length and width of a piece as sold, 0 when that is not known, mm
 */
export function floorInsulation(
  outline: Outline,
  laid: FloorBattens | null,
  noggins: ReturnType<typeof floorNoggins>,
  width: number,
  sold: { readonly length: number; readonly width: number },
  seams: readonly number[],
): FloorFoam {
  const half = width / 2;
  const sticks: Ring[] = [
    ...(laid?.battens ?? []).map((batten) => rectangle(batten.x0, batten.y - half, batten.x1, batten.y + half)),
    ...noggins.map(({ x0, x1, y0, y1 }) => rectangle(x0, y0, x1, y1)),
  ];
  const joints: { x: number; y0: number; y1: number }[] = [];
  const cells = laid ? cutOut(outline, sticks) : inRows(outline, sold.width);
  let before: readonly number[] = [];
  const cut = cells.flatMap((cell) => {
    const box = boxOf(cell.outer);
    if (sold.length <= 0) return [cell];
    const from = Math.ceil(box.minX / GRID_MM) * GRID_MM;
    const grid = Array.from(
      { length: Math.max(0, Math.ceil((box.maxX - from) / GRID_MM)) },
      (_, i) => from + i * GRID_MM,
    );
    // joints keep off the seams above and off those of the row beside
    const { at } = placeJoints(
      box.minX,
      box.maxX,
      grid,
      sold.length,
      SHORTEST_FOAM_MM,
      [...seams, ...before],
      APART_MM,
    );
    before = laid ? [] : at;
    joints.push(...at.flatMap((x) => solidAlong([cell], x).map(([y0, y1]) => ({ x, y0, y1 }))));
    const ends = [box.minX, ...at, box.maxX];
    return ends.slice(1).flatMap((end, i) => clipTo(cell, rectangle(ends[i] ?? 0, box.minY - 1, end, box.maxY + 1)));
  });
  return { pieces: alike(cut), joints, nearest: nearestOf(joints, seams) };
}

/** A whole outline in rows across the vehicle, as wide as the insulation is sold. */
function inRows(outline: Outline, width: number): Outline[] {
  if (width <= 0) return [outline];
  const box = boxOf(outline.outer);
  const count = Math.max(1, wholeUp((box.maxY - box.minY) / width));
  return Array.from({ length: count }, (_, i) =>
    clipTo(
      outline,
      rectangle(box.minX - 1, box.minY + i * width, box.maxX + 1, Math.min(box.maxY + 1, box.minY + (i + 1) * width)),
    ),
  ).flat();
}

function nearestOf(joints: FloorFoam['joints'], seams: readonly number[]): number | null {
  const apart = joints.flatMap(({ x }) => seams.map((seam) => Math.abs(seam - x)));
  return apart.length > 0 ? Math.min(...apart) : null;
}

/** Pieces that are alike, together. */
function alike(pieces: readonly Outline[]): readonly FloorInsulation[] {
  const groups: { length: number; width: number; count: number; shaped: boolean }[] = [];
  for (const piece of pieces) {
    const area = outlineArea(piece);
    if (area < SMALLEST_MM2) continue;
    const box = boxOf(piece.outer);
    const [a, b] = [box.maxX - box.minX, box.maxY - box.minY];
    if (Math.min(a, b) < NARROWEST_MM) continue;
    const shaped = area < 0.97 * a * b;
    const like = groups.find(
      (group) =>
        group.shaped === shaped && Math.abs(group.length - a) <= ALIKE_MM && Math.abs(group.width - b) <= ALIKE_MM,
    );
    if (like) like.count += 1;
    else groups.push({ length: a, width: b, count: 1, shaped });
  }
  return groups.sort((p, q) => q.length * q.width - p.length * p.width);
}
