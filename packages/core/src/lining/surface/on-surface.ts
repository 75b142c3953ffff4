import type { Lined } from '../../document/schema.js';
import { boxOf, type Point } from '../../numeric/plane.js';
import { cross, placeSeen } from '../../parts/lay-flat.js';
import type { OnSurface, Part, Vector } from '../../parts/part.js';
import { halfWidth, roofHeight, type Shell } from '../../shell/shell.js';
import { endAt, isEnd, toPlace, type Unrolled } from './unrolled.js';

/** A surface that linings lie on: the shell through its middle, and the same laid flat. */
export interface LaidSurface {
  readonly shell: Shell;
  readonly unrolled: Unrolled;
}

/** Where a place of a surface is in the vehicle: along it, and a height on a wall or an end, or across on the ceiling. */
function placeOn(shell: Shell, surface: Lined, along: number, place: number): Vector {
  if (isEnd(surface)) return [endAt(shell, surface), along, place];
  if (surface === 'ceiling') return [along, place, roofHeight(shell, along, place)];
  return [along, (surface === 'left' ? -1 : 1) * halfWidth(shell, surface, along, place), place];
}

/** Where a place of a surface that is laid flat is in the vehicle. */
export const fromFlat = ({ shell, unrolled }: LaidSurface, [u, v]: Point): Vector =>
  placeOn(shell, unrolled.surface, isEnd(unrolled.surface) ? u + unrolled.from : u, toPlace(unrolled, u, v));

/** What the ways of a surface are read over, mm. */
const STEP_MM = 1;
const less = (a: Vector, b: Vector): Vector => [a[0] - b[0], a[1] - b[1], a[2] - b[2]];

/** Which way is out of the room at a place of a surface. */
function outward(surface: Lined, [, y]: Vector, normal: Vector): Vector {
  const long = Math.hypot(...normal) || 1;
  const [i, sign] =
    surface === 'front' ? [0, -1] : surface === 'rear' ? [0, 1] : surface === 'ceiling' ? [2, 1] : [1, Math.sign(y)];
  const way = Math.sign((normal[i] ?? 0) * sign) || 1;
  return [(way * normal[0]) / long, (way * normal[1]) / long, (way * normal[2]) / long];
}

/** From a place on a part's drawn face, and how far behind it, to the vehicle; mm. */
export type Bent = (point: Point, behind: number) => Vector;

/**
 * How a piece of lining lies in the vehicle: bent with its surface, square to it through its thickness.
 * @param laid the surface as it is laid flat; null for what is given by its view
 * @param room what a view is of
 */
export function bentOn(on: OnSurface, laid: LaidSurface | null, room: Shell): Bent {
  const place = (point: Point): Vector =>
    on.on === 'flat' && laid ? fromFlat(laid, point) : placeOn(room, on.surface, point[0], point[1]);
  const { origin, along, across } = on;
  return ([x, y], behind) => {
    const at: Point = [origin[0] + along[0] * x + across[0] * y, origin[1] + along[1] * x + across[1] * y];
    const deep = on.behind + behind;
    const here = place(at);
    if (deep === 0) return here;
    const normal = cross(
      less(place([at[0] + STEP_MM, at[1]]), place([at[0] - STEP_MM, at[1]])),
      less(place([at[0], at[1] + STEP_MM]), place([at[0], at[1] - STEP_MM])),
    );
    const out = outward(on.surface, here, normal);
    return [here[0] + out[0] * deep, here[1] + out[1] * deep, here[2] + out[2] * deep];
  };
}

/**
 * A short piece that is too stiff to bend: it touches its surface in its middle.
 * @param part a piece that lies on a surface laid flat
 */
export function stiffOn(part: Part, laid: LaidSurface): Part {
  const { bends, ...rest } = part;
  if (!bends) return part;
  const bent = bentOn({ ...bends, behind: 0 }, laid, laid.shell);
  const { minX, maxX, minY, maxY } = boxOf(part.outline.outer);
  const [x, y] = [(minX + maxX) / 2, (minY + maxY) / 2];
  const [middle, along, beside] = [bent([x, y], 0), bent([x + STEP_MM, y], 0), bent([x, y + STEP_MM], 0)];
  const way = (a: Vector): Vector => {
    const long = Math.hypot(...a);
    return [a[0] / long, a[1] / long, a[2] / long];
  };
  const u = way(less(along, middle));
  const out = outward(bends.surface, middle, cross(u, less(beside, middle)));
  // as one looks at it from the room
  const v = cross(u, out);
  const at = (i: 0 | 1 | 2): number => middle[i] - u[i] * x - v[i] * y + out[i] * bends.behind;
  return { ...rest, place: placeSeen([at(0), at(1), at(2)], u, v) };
}

/** How a part lies in the vehicle that stays flat. */
export function flatIn({ place: { origin, along, across, thick } }: Pick<Part, 'place'>): Bent {
  const at = (i: 0 | 1 | 2, [x, y]: Point, behind: number): number =>
    origin[i] + along[i] * x + across[i] * y + thick[i] * behind;
  return (point, behind) => [at(0, point, behind), at(1, point, behind), at(2, point, behind)];
}
