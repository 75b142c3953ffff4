import type { PriceItem, Unit } from '../project/schema.js';
import { boxOf, outlineArea, rectangle, type Outline, type Ring } from '../numeric/plane.js';
import { clipTo, cutOut } from '../numeric/shapes.js';
import { setOutRows } from './set-out.js';

/** One plank or piece of one in its row. */
export interface PlankPiece {
  readonly x0: number;
  readonly x1: number;
  /** It is what was left of a plank of an earlier row. */
  readonly offcut: boolean;
}
export interface PlankRow {
  readonly y0: number;
  readonly y1: number;
  readonly pieces: readonly PlankPiece[];
}
/** The floor finish set out in planks along the vehicle. */
export interface FloorFinish {
  readonly material: string;
  readonly rows: readonly PlankRow[];
  readonly planks: number;
  /** Areas, m2: what feet see, and what units stand on. */
  readonly seen: number;
  readonly hidden: number;
  /** Pieces shorter than wanted, and rows ripped narrower than wanted, that could not be avoided. */
  readonly short: number;
  readonly legal: boolean;
}

/** No end piece is shorter, no row narrower, no joint nearer to one of the row before, mm (or a third of a plank). */
const SHORTEST_MM = 200;
const NARROWEST_MM = 50;
const STAGGER_MM = 300;
/** Left round the edge of a floor that floats, mm. */
const EXPANSION_MM = 5;
/** An offcut shorter than this is not carried on. */
const KEPT_MM = SHORTEST_MM;
const SAW_MM = 3;

/** Where units stand on the floor, to be left out. */
export function footprints(units: readonly Unit[], half: number): Ring[] {
  return units.flatMap((unit): Ring[] => {
    if (unit.kind !== 'base-cupboard') return [];
    const [y0, y1] = unit.side === 'left' ? [-half, -unit.front] : [unit.front, half];
    return [rectangle(unit.x, y0, unit.x + unit.length, y1)];
  });
}

const far = 1e5;

/**
 * Sets planks out over a floor: rows without slivers, each begun with what the row before left over where that keeps the
 * joints staggered, no short end pieces.
 * @param outline of the room's floor, mm
 */
export function floorFinish(
  outline: Outline,
  material: PriceItem,
  units: readonly Unit[],
  where: 'everywhere' | 'seen',
): FloorFinish | null {
  const [length, width] = [material.pieceLength, material.width];
  if (length <= 0 || width <= 0) return null;
  const box = boxOf(outline.outer);
  const standing = footprints(units, far);
  const open = cutOut(outline, standing);
  const seen = open.reduce((sum, piece) => sum + outlineArea(piece), 0) / 1e6;
  const whole = outlineArea(outline) / 1e6;
  const laid = where === 'seen' ? open : [outline];
  const [low, high] = [box.minY + EXPANSION_MM, box.maxY - EXPANSION_MM];
  const setOut = setOutRows({ min: low, max: low }, { min: high, max: high }, width, 0, NARROWEST_MM);
  const stagger = Math.min(STAGGER_MM, length / 3);
  const offcuts: number[] = [];
  let planks = 0;
  let short = 0;
  let before: readonly number[] = [];
  const rows = setOut.rows.map(([y0, y1]): PlankRow => {
    const joints: number[] = [];
    const spans = laid
      .flatMap((piece) => clipTo(piece, rectangle(-far, y0, far, y1)))
      .map((piece) => boxOf(piece.outer))
      .filter((span) => span.maxX - span.minX > 1)
      .sort((a, b) => a.minX - b.minX);
    const pieces = spans.flatMap((span) => {
      const [from, to] = [span.minX, span.maxX];
      const made = bestRow(from, to, length, before, stagger, offcuts);
      planks += made.fresh;
      short += made.short;
      joints.push(...made.pieces.slice(1).map((piece) => piece.x0));
      return made.pieces;
    });
    before = joints;
    return { y0, y1, pieces };
  });
  return {
    material: material.id,
    rows,
    planks,
    seen,
    hidden: whole - seen,
    short,
    legal: setOut.legal && short === 0,
  };
}

/** One span of a row: every first piece worth trying, the one that wastes least and keeps the rules is taken. */
function bestRow(
  from: number,
  to: number,
  length: number,
  before: readonly number[],
  stagger: number,
  offcuts: number[],
): { readonly pieces: PlankPiece[]; readonly fresh: number; readonly short: number } {
  const run = to - from;
  const firsts = [
    ...offcuts.filter((offcut) => offcut <= run).map((offcut) => ({ first: offcut, offcut: true })),
    { first: Math.min(length, run), offcut: false },
    ...[0.75, 2 / 3, 0.5, 1 / 3].map((share) => ({ first: Math.min(length * share, run), offcut: false })),
  ];
  const tried = firsts.map(({ first, offcut }) => {
    const ends = [from + first];
    while ((ends.at(-1) ?? to) < to - 1e-6) ends.push(Math.min(to, (ends.at(-1) ?? 0) + length));
    const joints = ends.slice(0, -1);
    const last = to - (joints.at(-1) ?? from);
    const close = joints.filter((joint) => before.some((other) => Math.abs(other - joint) < stagger)).length;
    const short =
      run >= SHORTEST_MM ? Number(first < SHORTEST_MM) + Number(joints.length > 0 && last < SHORTEST_MM) : 0;
    return { first, offcut, ends, close, short, cost: 10 * short + 6 * close + (offcut ? 0 : 1) + ends.length * 0.01 };
  });
  const best = tried.reduce((a, b) => (b.cost < a.cost - 1e-9 ? b : a));
  if (best.offcut) offcuts.splice(offcuts.indexOf(best.first), 1);
  else if (best.first < length - 1e-6) keep(offcuts, length - best.first - SAW_MM);
  const pieces = best.ends.map((x1, i): PlankPiece => ({
    x0: i === 0 ? from : (best.ends[i - 1] ?? from),
    x1,
    offcut: i === 0 && best.offcut,
  }));
  const final = pieces.length > 1 ? pieces.at(-1) : undefined;
  if (final) keep(offcuts, length - (final.x1 - final.x0) - SAW_MM);
  return { pieces, fresh: pieces.filter((piece) => !piece.offcut).length, short: best.short };
}

function keep(offcuts: number[], left: number): void {
  if (left >= KEPT_MM) offcuts.push(left);
}
