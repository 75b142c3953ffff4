import { placed } from '../../parts/part-name.js';
import { placeSeen } from '../../parts/lay-flat.js';
import type { Lined, PriceItem } from '../../document/schema.js';
import { barStocks } from '../../materials/bars.js';
import { toOrigin, type LiningRole, type Part, type PartMarks, type Vector } from '../../parts/part.js';
import { boxOf, rectangle, type Outline, type Point } from '../../numeric/plane.js';
import type { Shell } from '../../shell/shell.js';
import { lineAt, runsBehind, type FixingPoint, type HoldLine } from '../fixing/fixing-map.js';
import { groovesOn, type Grooves } from './grooves.js';
import type { LinedSurface } from './lined-surface.js';
import { fromFlat, stiffOn } from './on-surface.js';
import { asSeen, type Unrolled } from './unrolled.js';
import { PACKER_LONG_MM, packersUnder, type Packing } from '../fixing/batten-packers.js';
import type { WallBatten } from '../fixing/wall-battens.js';
import { wholeUp } from '../../numeric/tolerance.js';

/** Which way a surface runs to the right, as one stands before it. */
const SIDEWAYS: Readonly<Record<Lined, Vector>> = {
  left: [-1, 0, 0],
  right: [1, 0, 0],
  ceiling: [1, 0, 0],
  front: [0, 1, 0],
  rear: [0, -1, 0],
};

/** A part, and the way from the unrolled surface to its own axes. */
export interface Placed {
  readonly part: Part;
  readonly onPart: (point: Point) => Point;
}
const minus = ([x, y]: Point, [a, b]: Point): Point => [x - a, y - b];

export interface PartMaker {
  readonly shell: Shell;
  readonly unrolled: Unrolled;
  readonly surface: Lined;
}

/**
 * Puts a piece of the unrolled surface on its own axes, seen from the room: x along the vehicle, or up the surface where
 * the grain runs up.
 * @param behind how far its drawn face lies behind the surface that was laid flat, away from the room, mm
 */
export function partOf(
  { shell, unrolled, surface }: PartMaker,
  id: string,
  role: LiningRole,
  number: number,
  piece: Outline,
  up: boolean,
  material: PriceItem,
  thickness: number,
  behind: number,
): Placed {
  const turn = (point: Point): Point => {
    const [p, q] = asSeen(unrolled, point);
    return up ? [q, -p] : [p, q];
  };
  const { outline, moved } = toOrigin({
    outer: piece.outer.map(turn),
    holes: piece.holes.map((hole) => hole.map(turn)),
  });
  const back = (point: Point): Point => {
    const [p, q] = up ? [-point[1], point[0]] : point;
    return asSeen(unrolled, [p, q]);
  };
  const origin = back(moved);
  const axis = (to: Point): Point => minus(back([moved[0] + to[0], moved[1] + to[1]]), origin);
  const sideways: Vector = SIDEWAYS[surface];
  const upward: Vector = surface === 'ceiling' ? [0, -1, 0] : [0, 0, 1];
  const opposite = (axis: Vector): Vector => [0 - axis[0], 0 - axis[1], 0 - axis[2]];
  const part: Part = {
    id,
    role,
    number,
    unit: null,
    surface,
    material: material.id,
    thickness,
    outline,
    grain: material.grain,
    edges: [],
    bends: { surface, on: 'flat', origin, along: axis([1, 0]), across: axis([0, 1]), behind },
    place: placeSeen(fromFlat({ shell, unrolled }, origin), up ? upward : sideways, up ? opposite(sideways) : upward),
  };
  return { part, onPart: (point) => minus(turn(point), moved) };
}

/** Support lines, screws and holes of a piece, on the part's axes. */
export function marksOf(
  ground: LinedSurface,
  lines: readonly HoldLine[],
  piece: Outline,
  slots: readonly string[],
  screws: readonly FixingPoint[],
  { onPart }: Placed,
  grooves: Grooves | null,
): PartMarks {
  const box = boxOf(piece.outer);
  const inside = ([u, v]: Point): boolean => u > box.minX && u < box.maxX && v > box.minY && v < box.maxY;
  return {
    lines: lines.flatMap((line) =>
      runsBehind(line, piece).map(([from, to]) => ({
        name: line.name,
        from: onPart(line.upright ? [lineAt(line, from), from] : [from, line.at]),
        to: onPart(line.upright ? [lineAt(line, to), to] : [to, line.at]),
      })),
    ),
    screws: screws.map(({ at }) => onPart(at)),
    holes: ground.fittings
      .filter((fitting) => inside(fitting.middle))
      .map((fitting) => ({
        name: fitting.name,
        at: onPart(fitting.middle),
        diameter: fitting.length,
        slot: slots.includes(fitting.id),
        rough: fitting.hidden,
      })),
    grooves: groovesOn(grooves, piece, onPart),
    cutOuts: ground.openings.flatMap((opening) => {
      const ring = boxOf(opening.ring);
      const [u0, u1] = [Math.max(ring.minX, box.minX), Math.min(ring.maxX, box.maxX)];
      const [v0, v1] = [Math.max(ring.minY, box.minY), Math.min(ring.maxY, box.maxY)];
      if (u1 - u0 < 1 || v1 - v0 < 1) return [];
      const on = boxOf([onPart([u0, v0]), onPart([u1, v1])]);
      return [
        {
          name: opening.name,
          from: [on.minX, on.minY] as const,
          to: [on.maxX, on.maxY] as const,
          diagonal: Math.hypot(u1 - u0, v1 - v0),
        },
      ];
    }),
  };
}

/** A part turned in the plane of its surface, about its corner. */
function leaning(part: Part, by: number): Part {
  const turned = (a: readonly number[], b: readonly number[], sign: 1 | -1): number[] =>
    a.map((value, i) => value * Math.cos(by) - sign * (b[i] ?? 0) * Math.sin(by));
  const both = <T extends readonly number[]>({ along, across }: { readonly along: T; readonly across: T }) =>
    [turned(along, across, 1), turned(across, along, -1)] as unknown as readonly [T, T];
  const { place, bends } = part;
  const [along, across] = both(place);
  const [flatAlong, flatAcross] = bends ? both(bends) : [];
  return {
    ...part,
    place: placeSeen(place.origin, along, across),
    ...(bends && flatAlong && flatAcross ? { bends: { ...bends, along: flatAlong, across: flatAcross } } : {}),
  };
}

/** A batten as one part, or as several where no bar is as long. */
export function stickParts(
  maker: PartMaker,
  names: (what: string, where: string) => string,
  batten: WallBatten,
  index: number,
  timber: PriceItem,
  thickness: number,
  behind: number,
): Part[] {
  const longest = Math.max(...barStocks(timber).map((stock) => stock.length));
  // one that leans is as long as its own line
  const lean = batten.upright ? Math.atan2(batten.u1 - batten.u0, batten.v1 - batten.v0) : 0;
  const [from, to] = batten.upright
    ? [batten.v0, batten.v0 + (batten.v1 - batten.v0) / Math.cos(lean)]
    : [batten.u0, batten.u1];
  const count = Math.max(1, wholeUp((to - from) / longest));
  const half = timber.width / 2;
  const middle = batten.upright ? batten.u0 : batten.v0;
  const role = batten.kind === 'upright' ? 'wall-batten' : 'noggin';
  return Array.from({ length: count }, (_, i) => {
    const [a, b] = [from + ((to - from) * i) / count, from + ((to - from) * (i + 1)) / count];
    const ring = batten.upright
      ? rectangle(middle - half, a, middle + half, b)
      : rectangle(a, middle - half, b, middle + half);
    const { part } = partOf(
      maker,
      names(role, batten.upright ? placed(batten.u0, a) : placed(a, batten.v0)),
      role,
      index + 1,
      { outer: ring, holes: [] },
      batten.upright,
      timber,
      thickness,
      behind,
    );
    return lean === 0 ? part : leaning(part, lean);
  });
}

/** The packers that a batten between the ribs stands on, each of as many pieces as lie on each other. */
export function packerParts(
  maker: PartMaker,
  names: (what: string, where: string) => string,
  batten: WallBatten,
  index: number,
  { of }: Packing,
  behind: number,
): Part[] {
  const { u0, u1, v0, v1, upright } = batten;
  const long = Math.hypot(u1 - u0, v1 - v0);
  return packersUnder(batten).flatMap((at) => {
    const [u, v] = [u0 + ((u1 - u0) * at) / long, v0 + ((v1 - v0) * at) / long];
    return of.map((timber, n) => {
      // each lies behind the ones before it
      const under = of.slice(0, n).reduce((sum, { thickness }) => sum + thickness, 0);
      const [along, across] = upright ? [timber.width / 2, PACKER_LONG_MM / 2] : [PACKER_LONG_MM / 2, timber.width / 2];
      const outer = rectangle(u - along, v - across, u + along, v + across);
      const id = names('packer', placed(u, v));
      const { part } = partOf(
        maker,
        id,
        'packer',
        index + 1,
        { outer, holes: [] },
        upright,
        timber,
        timber.thickness,
        behind + under,
      );
      return stiffOn(part, maker);
    });
  });
}
