import { endOf, frontLineOf } from '../document/body.js';
import type { Side, Survey, Unit } from '../document/schema.js';
import { spread } from '../numeric/plane.js';
import { halfWidth, type Shell } from '../shell/shell.js';
import { valueAt } from '../document/address.js';
import { ROUNDING } from '../numeric/tolerance.js';

/** How straight one wall is at one height: the straight line through it, and what departs from it, mm. */
export interface WallStraightness {
  readonly side: Side;
  readonly z: number;
  /** How much it opens toward the rear over the whole length. */
  readonly opens: number;
  /** The largest departure outward from the straight line (a bulge into the room is negative), and where. */
  readonly most: number;
  readonly mostAt: number;
}

/** Where the marks of the centre line are put, by half of what is measured across there. */
export interface CentreMark {
  readonly x: number;
  readonly across: number;
  readonly half: number;
}

/** The line a run of units stands with its fronts on, and which of them do not. */
export interface FrontLine {
  readonly side: Side;
  /** From the centre line, mm. */
  readonly at: number;
  readonly units: readonly { readonly id: string; readonly name: string; readonly off: number }[];
}

/** Everything the setting-out needs: the marks, the walls, the floor's corners, the lines of the fronts. */
export interface Datum {
  readonly marks: readonly CentreMark[];
  readonly walls: readonly WallStraightness[];
  /** How far the floor's right rear corner lies behind where a square floor would have it, mm; null without both diagonals. */
  readonly skew: number | null;
  readonly fronts: readonly FrontLine[];
}

/** Heights at which walls are looked at, mm. */
const HEIGHTS = [0, 700, 1200] as const;
const SIDES: readonly Side[] = ['left', 'right'];

/** Least-squares straight line through a wall's edge at one height. */
function straightness(shell: Shell, side: Side, z: number): WallStraightness {
  const xs = spread(0, shell.length, 41);
  const values = xs.map((x) => halfWidth(shell, side, x, z));
  const [mx, my] = [xs, values].map((list) => list.reduce((sum, v) => sum + v, 0) / list.length) as [number, number];
  const slope =
    xs.reduce((sum, x, i) => sum + (x - mx) * ((values[i] ?? 0) - my), 0) /
    Math.max(
      ROUNDING,
      xs.reduce((sum, x) => sum + (x - mx) ** 2, 0),
    );
  let [most, mostAt] = [0, 0];
  xs.forEach((x, i) => {
    const off = (values[i] ?? 0) - (my + slope * (x - mx));
    if (Math.abs(off) > Math.abs(most)) [most, mostAt] = [off, x];
  });
  return { side, z, opens: slope * shell.length, most, mostAt };
}

function frontLine(side: Side, units: readonly Unit[]): FrontLine[] {
  const own = units.flatMap((unit) => {
    const line = frontLineOf(unit);
    return line?.side === side && unit.body.from === 0 ? [{ id: unit.id, name: unit.name, front: line.front }] : [];
  });
  const first = own[0];
  if (!first) return [];
  // the line most of the run stands on
  const at = own
    .map((unit) => ({
      front: unit.front,
      count: own.filter((other) => Math.abs(other.front - unit.front) < 0.5).length,
    }))
    .reduce((best, next) => (next.count > best.count ? next : best)).front;
  return [{ side, at, units: own.map(({ id, name, front }) => ({ id, name, off: front - at })) }];
}

/**
 * The datum of a vehicle. The centre line goes through the middle between the walls near both ends of the floor; the
 * marks say what is measured across there. The floor's skew follows from its diagonals: a^2 - b^2 = 4 L s for a floor L
 * long whose right side lies s further back than its left (a: front left to rear right).
 */
export function datumOf(survey: Survey, shell: Shell, units: readonly Unit[]): Datum {
  const ends = [Math.min(150, shell.length / 4), shell.length / 2, shell.length - Math.min(150, shell.length / 4)];
  const across = (x: number): number => halfWidth(shell, 'left', x, 0) + halfWidth(shell, 'right', x, 0);
  const [a, b] = [valueAt(survey, 'floor/diagonal-a'), valueAt(survey, 'floor/diagonal-b')];
  return {
    marks: ends.map((x) => ({ x, across: across(x), half: across(x) / 2 })),
    walls: SIDES.flatMap((side) => HEIGHTS.map((z) => straightness(shell, side, z))),
    skew: a === null || b === null ? null : (a * a - b * b) / (4 * shell.length),
    fronts: SIDES.flatMap((side) => frontLine(side, units)),
  };
}

/** One corner of a unit for marking on the floor: from the centre line and from the front datum, mm. */
export interface SetOutPoint {
  readonly unit: string;
  readonly name: string;
  readonly corner: 'front-near' | 'front-far' | 'rear-near' | 'rear-far';
  readonly x: number;
  /** Right positive. */
  readonly y: number;
}

/** The corners of every unit, to be taped out on the floor from the centre line: never from the walls. */
export function settingOut(units: readonly Unit[], shell: Shell): SetOutPoint[] {
  return units.flatMap((unit): SetOutPoint[] => {
    const ends = [unit.body.x, endOf(unit)] as const;
    const side = (which: Side, x: number): number => halfWidth(shell, which, x, shell.floor);
    const point = (corner: SetOutPoint['corner'], x: number, y: number): SetOutPoint => ({
      unit: unit.id,
      name: unit.name,
      corner,
      x,
      y,
    });
    const line = frontLineOf(unit);
    const { body } = unit;
    if (body.stands === 'free')
      return [
        point('front-near', ends[0], body.y),
        point('front-far', ends[0], body.y + body.width),
        point('rear-near', ends[1], body.y),
        point('rear-far', ends[1], body.y + body.width),
      ];
    if (!line)
      return [
        point('front-near', ends[0], -side('left', ends[0])),
        point('front-far', ends[0], side('right', ends[0])),
        point('rear-near', ends[1], -side('left', ends[1])),
        point('rear-far', ends[1], side('right', ends[1])),
      ];
    return [
      point('front-near', ends[0], line.sign * line.front),
      point('front-far', ends[0], line.sign * side(line.side, ends[0])),
      point('rear-near', ends[1], line.sign * line.front),
      point('rear-far', ends[1], line.sign * side(line.side, ends[1])),
    ];
  });
}
