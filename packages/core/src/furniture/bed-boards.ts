import type { PriceItem } from '../document/schema.js';
import type { Unit } from '../document/unit-schema.js';
import { materialOf } from '../materials/material.js';
import { placesAlong } from '../numeric/adaptive.js';
import { rectangle, type Point, type Ring } from '../numeric/plane.js';
import { cutOut, roundInsideCorners } from '../numeric/shapes.js';
import { CHORD_MM, leftOnAlong, runsAlong } from '../parts/along-shell.js';
import { leansUp } from '../parts/scribe.js';
import { archFootprint } from '../shell/arch.js';
import { halfWidth } from '../shell/shell.js';
import { numberOption, type Surroundings } from './family.js';
import type { Board, BoardEdge } from './skeleton.js';

/** Gap between neighbouring boards so that each can be lifted out, mm. */
export const BOARD_GAP_MM = 3;
const ARCH_CLEARANCE_MM = 10;
export const INSIDE_CORNER_MM = 15;
/** Everything is nearer than this, mm. */
const FAR_MM = 100_000;

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

/** How the boards of a bed are divided: of one width, or whole sheets and a strip. */
export const SPLITS = ['equal', 'sheet'] as const;
/** What a saw takes off the edge of a sheet before its first board, mm. */
const SHEET_TRIM_MM = 20;
/** No strip beside a whole sheet is less wide, mm. */
export const LEAST_STRIP_MM = 100;

/** From where to where a strip lies along the vehicle, mm. */
export interface Strip {
  readonly from: number;
  readonly to: number;
}

/** The widest board that a sheet of a material gives, mm. */
export const widestBoard = ({ stocks }: PriceItem): number =>
  Math.max(0, ...stocks.map((stock) => Math.min(stock.width, stock.length))) - SHEET_TRIM_MM;

/**
 * Boards side by side over a length.
 * @param widest no board is wider, mm
 * @param whole as many as that wide as there can be, and a strip; one too narrow to lie on its bearer is made by equal ones
 */
export function stripsOver({ x, length }: Unit['body'], widest: number, whole: boolean): Strip[] {
  const count = Math.max(1, Math.ceil((length + BOARD_GAP_MM) / (widest + BOARD_GAP_MM)));
  const equal = (length - (count - 1) * BOARD_GAP_MM) / count;
  const rest = length - (count - 1) * (widest + BOARD_GAP_MM);
  const each = whole && rest >= LEAST_STRIP_MM ? Math.min(widest, length) : equal;
  return Array.from({ length: count }, (_, i) => {
    const from = x + i * (each + BOARD_GAP_MM);
    return { from, to: i === count - 1 ? x + length : from + each };
  });
}

/** Whether the boards of a bed are whole sheets and a strip. */
export const isWhole = ({ options }: Unit): boolean => options['split'] === 'sheet';

/** From where to where along the vehicle each board of a bed lies, mm. */
export function boardStrips(unit: Unit, board: PriceItem | null): Strip[] {
  const wide = board ? widestBoard(board) : 0;
  return isWhole(unit) && wide >= LEAST_STRIP_MM
    ? stripsOver(unit.body, wide, true)
    : stripsOver(unit.body, numberOption(unit, 'boardWidth'), false);
}

/** Where the boards of a bed meet, mm. */
export const jointsOf = (strips: readonly Strip[]): number[] =>
  strips.slice(1).map(({ from }, i) => (from + (strips[i]?.to ?? from)) / 2);

/** The boards of a bed from wall to wall, side by side, each cut to both walls and round what comes up through them. */
export function bedBoards(unit: Unit, { inner, arches, book }: Surroundings, levels: Levels): Board[] {
  return boardStrips(unit, materialOf(book, unit.materials['board'] ?? '')).flatMap((strip, index): Board[] => {
    const wall =
      (side: Side) =>
      (x: number): number =>
        nearer(halfWidth(inner, side, x, levels.top), halfWidth(inner, side, x, levels.underside));
    const line = (side: Side): Point[] =>
      placesAlong(wall(side), { ...strip, tolerance: CHORD_MM, least: 15 }).map((x): Point => [
        x,
        (side === 'left' ? -1 : 1) * wall(side)(x),
      ]);
    const [right, leftLine] = [line('right'), line('left')];
    const bites = arches.flatMap((arch): Ring[] => {
      const ring = archFootprint(arch, inner, levels.underside, ARCH_CLEARANCE_MM);
      return ring ? [ring] : [];
    });
    const [notched] = cutOut({ outer: [...right, ...[...leftLine].reverse()], holes: [] }, bites);
    if (!notched) return [];
    const wanted = (['left', 'right'] as const).flatMap((side) => {
      const whole = side === 'left' ? leftLine : right;
      return (bites.length > 0 ? runsAlong(notched.outer, [whole]) : [whole]).map((run) => ({
        side,
        line: run,
        allowance: allowanceAt(unit, side),
      }));
    });
    const { outline: left, most } = leftOnAlong(
      notched,
      wanted,
      rectangle(strip.from, -FAR_MM, strip.to, FAR_MM),
      bites,
    );
    const edges = wanted.map(({ side, line: run, allowance }, i): BoardEdge => ({
      kind: 'scribe',
      at: side,
      line: run,
      allowance,
      most: most[i] ?? allowance,
      leans: leansUp(
        inner,
        side,
        levels.underside,
        run.map(([x]) => x),
      ),
    }));
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
        edges,
        held: 'loose',
      },
    ];
  });
}
