import type { Unit } from '../document/unit-schema.js';
import { spread, type Point, type Ring } from '../numeric/plane.js';
import { cutOut, roundInsideCorners, simplify } from '../numeric/shapes.js';
import { leansUp } from '../parts/scribe.js';
import { archFootprint } from '../shell/arch.js';
import { halfWidth } from '../shell/shell.js';
import { numberOption, type Surroundings } from './family.js';
import type { Board, BoardEdge } from './skeleton.js';

/** Gap between neighbouring boards so that each can be lifted out, mm. */
const BOARD_GAP_MM = 3;
const ARCH_CLEARANCE_MM = 10;
export const INSIDE_CORNER_MM = 15;
/** Outlines are drawn with chords that stay within this of the true curve, mm. */
const CHORD_MM = 0.05;

type Side = 'left' | 'right';

/** The heights and thicknesses a bed is made from, mm. */
export interface Levels {
  readonly top: number;
  readonly underside: number;
  readonly floor: number;
  readonly board: number;
  readonly support: number;
}

const nearer = (a: number, b: number): number => Math.min(a, b);
export const allowanceAt = (unit: Unit, side: Side): number => {
  const meet = unit.meets[side];
  return meet?.how === 'scribed' ? meet.allowance : 0;
};

/** From where to where along the vehicle each board of a bed lies, mm. */
export function boardStrips(unit: Unit): { readonly from: number; readonly to: number }[] {
  const { x, length } = unit.body;
  const wanted = numberOption(unit, 'boardWidth');
  const count = Math.max(1, Math.ceil((length + BOARD_GAP_MM) / (wanted + BOARD_GAP_MM)));
  const width = (length - (count - 1) * BOARD_GAP_MM) / count;
  return Array.from({ length: count }, (_, i) => ({
    from: x + i * (width + BOARD_GAP_MM),
    to: x + i * (width + BOARD_GAP_MM) + width,
  }));
}

/** The boards of a bed from wall to wall, side by side, each cut to both walls and round what comes up through them. */
export function bedBoards(unit: Unit, { inner, arches }: Surroundings, levels: Levels): Board[] {
  return boardStrips(unit).flatMap((strip, index): Board[] => {
    const xs = spread(strip.from, strip.to, 15);
    const line = (side: Side, sign: number, out: number): Point[] =>
      xs.map((x): Point => [
        x,
        sign * (nearer(halfWidth(inner, side, x, levels.top), halfWidth(inner, side, x, levels.underside)) + out),
      ]);
    const outer: Ring = [
      ...line('right', 1, allowanceAt(unit, 'right')),
      ...line('left', -1, allowanceAt(unit, 'left')).reverse(),
    ];
    const bites = arches.flatMap((arch): Ring[] => {
      const ring = archFootprint(arch, inner, levels.underside, ARCH_CLEARANCE_MM);
      return ring ? [ring] : [];
    });
    const [left] = cutOut({ outer: simplify(outer, CHORD_MM), holes: [] }, bites);
    if (!left) return [];
    const edge = (side: Side, sign: number): BoardEdge => ({
      kind: 'scribe',
      at: side,
      line: line(side, sign, 0),
      allowance: allowanceAt(unit, side),
      across: 'y',
      leans: leansUp(inner, side, levels.underside, xs),
    });
    return [
      {
        name: `board-${index + 1}`,
        role: 'bed-board',
        material: unit.materials['board'] ?? '',
        normal: 'z',
        at: levels.underside,
        thickness: levels.board,
        outline: {
          outer: bites.length > 0 ? roundInsideCorners(left.outer, INSIDE_CORNER_MM) : left.outer,
          holes: left.holes,
        },
        grain: 'y',
        good: 1,
        edges: [edge('left', -1), edge('right', 1)],
        held: 'loose',
      },
    ];
  });
}
