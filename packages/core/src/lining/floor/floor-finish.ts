import { closesFloor, endOf, frontLineOf, type Shadow } from '../../document/body.js';
import type { FloorFinish, PlankPiece, PlankRow } from './finish.js';
import type { FloorChoice, PriceItem } from '../../document/schema.js';
import { boxOf, outlineArea, rectangle, type Outline, type Ring } from '../../numeric/plane.js';
import { cutOut } from '../../numeric/shapes.js';
import { awkwardPieces, spansOf } from './floor-pieces-laid.js';
import { rolled, tiled } from './floor-tiles.js';
import { setOutRows } from '../surface/set-out.js';
import { HAIR_MM, ROUNDING } from '../../numeric/tolerance.js';

/** No end piece is shorter, no row narrower, no joint nearer to one of the row before, mm (or a third of a plank). */
const SHORTEST_MM = 200;
const NARROWEST_MM = 50;
const STAGGER_MM = 300;
/** Left round the edge of a floor that floats, at its sides and at the ends of its rows, mm. */
const EXPANSION_MM = 5;
/** An offcut shorter than this is not carried on. */
const KEPT_MM = SHORTEST_MM;
const SAW_MM = 3;

/** Where units stand on the floor, to be left out. */
export function footprints(units: readonly Shadow[], half: number): Ring[] {
  return units.flatMap((unit): Ring[] => {
    if (!closesFloor(unit)) return [];
    const { body } = unit;
    if (body.stands === 'free') return [rectangle(body.x, body.y, endOf(unit), body.y + body.width)];
    const line = frontLineOf(unit);
    if (!line) return [];
    const [y0, y1] = line.sign < 0 ? [-half, -line.front] : [line.front, half];
    return [rectangle(unit.body.x, y0, endOf(unit), y1)];
  });
}

const far = 1e5;

/** What is laid of the room's floor. */
interface LaidOver {
  readonly pieces: readonly Outline[];
  readonly seen: number;
  readonly whole: number;
}
const area = (pieces: readonly Outline[]): number => pieces.reduce((sum, piece) => sum + outlineArea(piece), 0) / 1e6;

/**
 * Sets a finish out over a floor: planks in rows without slivers, each begun with what the row before left over where that
 * keeps the joints staggered; tiles balanced both ways; or lanes off a roll, whichever way takes less of it.
 * @param outline of the room's floor, mm
 * @param z height it lies at
 * @returns null when the material is no floor finish
 */
export function floorFinish(
  outline: Outline,
  material: PriceItem,
  units: readonly Shadow[],
  choice: Pick<FloorChoice, 'finish' | 'tiles' | 'joint'>,
  z = 0,
): FloorFinish | null {
  const { laid } = material;
  if (laid === null || material.width <= 0 || (laid !== 'roll' && material.pieceLength <= 0)) return null;
  const open = cutOut(outline, footprints(units, far));
  const over: LaidOver = {
    pieces: choice.finish === 'seen' ? open : [outline],
    seen: area(open),
    whole: area([outline]),
  };
  const common = {
    material: material.id,
    laid,
    seen: over.seen,
    hidden: over.whole - over.seen,
    covered: area(over.pieces),
  };
  const made =
    laid === 'planks'
      ? planked(outline, material, over)
      : laid === 'tiles'
        ? tiled(over, material, choice)
        : rolled(over, material);
  return { ...common, ...made, awkward: awkwardPieces(over.pieces, made.rows, material, z) };
}

/** How much of a finish is taken, in the unit its pack is sold in: m2, or metres off a roll. */
export function finishAmount(finish: FloorFinish, material: PriceItem): number {
  if (finish.laid !== 'roll') return (finish.planks * material.pieceLength * material.width) / 1e6;
  return material.pack?.unit === 'm' ? finish.metres : (finish.metres * material.width) / 1000;
}

type Laying = Pick<FloorFinish, 'rows' | 'planks' | 'metres' | 'seams' | 'short' | 'legal'>;

/** Planks along the vehicle. */
function planked(outline: Outline, material: PriceItem, over: LaidOver): Laying {
  const [length, width] = [material.pieceLength, material.width];
  const box = boxOf(outline.outer);
  const [low, high] = [box.minY + EXPANSION_MM, box.maxY - EXPANSION_MM];
  const setOut = setOutRows({ min: low, max: low }, { min: high, max: high }, width, 0, NARROWEST_MM);
  const stagger = Math.min(STAGGER_MM, length / 3);
  const offcuts: number[] = [];
  let planks = 0;
  let short = 0;
  let before: readonly number[] = [];
  const rows = setOut.rows.map(([y0, y1]): PlankRow => {
    const joints: number[] = [];
    const pieces = spansOf(over.pieces, y0, y1).flatMap(([begins, ends]) => {
      const [from, to] = [begins + EXPANSION_MM, ends - EXPANSION_MM];
      if (to <= from) return [];
      const made = bestRow(from, to, length, before, stagger, offcuts);
      planks += made.fresh;
      short += made.short;
      joints.push(...made.pieces.slice(1).map((piece) => piece.x0));
      return made.pieces;
    });
    before = joints;
    return { y0, y1, pieces };
  });
  return { rows, planks, metres: 0, seams: 0, short, legal: setOut.legal && short === 0 };
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
    while ((ends.at(-1) ?? to) < to - HAIR_MM) ends.push(Math.min(to, (ends.at(-1) ?? 0) + length));
    const joints = ends.slice(0, -1);
    const last = to - (joints.at(-1) ?? from);
    const close = joints.filter((joint) => before.some((other) => Math.abs(other - joint) < stagger)).length;
    const short =
      run >= SHORTEST_MM ? Number(first < SHORTEST_MM) + Number(joints.length > 0 && last < SHORTEST_MM) : 0;
    return { first, offcut, ends, close, short, cost: 10 * short + 6 * close + (offcut ? 0 : 1) + ends.length * 0.01 };
  });
  const best = tried.reduce((a, b) => (b.cost < a.cost - ROUNDING ? b : a));
  if (best.offcut) offcuts.splice(offcuts.indexOf(best.first), 1);
  else if (best.first < length - HAIR_MM) keep(offcuts, length - best.first - SAW_MM);
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
