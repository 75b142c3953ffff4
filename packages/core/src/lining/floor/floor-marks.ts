import { createNames, placedOnFloor } from '../../parts/part-name.js';
import { placeSeen } from '../../parts/lay-flat.js';
import { isOver, type Shadow } from '../../document/body.js';
import type { FloorHatch, PriceItem, Survey } from '../../document/schema.js';
import type { Part, PartMarks, Vector } from '../../parts/part.js';
import { boundsOf } from '../../measure/keep-outs.js';
import { boxOf, rectangle, spread, type Outline, type Point, type Ring } from '../../numeric/plane.js';
import { levelSpans, seamSpans } from './floor-lines.js';
import type { ArchShape } from '../../shell/arch.js';
import { solidAlong } from '../surface/pieces.js';
import type { FloorBatten, FloorBattens } from './floor-battens.js';
import { drilledHoles } from './floor-holes.js';
import type { Subfloor } from './subfloor.js';

/** Screws of the board into the battens: at most this far apart, this far from an edge, this far from a hole, mm. */
const SPACING_MM = 225;
const EDGE_MM = 20;
const HOLE_CLEAR_MM = 40;
const SHORTEST_MM = 80;
/** Two pieces of timber that lie over each other by more than this both ways are one too many, mm. */
const DOUBLE_MM = 12;
/** A screw beside a joint stays so far inside the piece, and inside the timber under it, mm. */
const BESIDE_JOINT_MM = 12;
const INSIDE_TIMBER_MM = 5;
/** Two screws nearer than this do the work of one, mm. */
const SAME_MM = 60;

/** A screw of the floor board. */
export interface FloorScrew {
  readonly at: Point;
  /** Furniture will stand over it. */
  readonly hidden: boolean;
}

/** A short batten, by its two corners, mm. */
export interface Noggin {
  readonly x0: number;
  readonly x1: number;
  readonly y0: number;
  readonly y1: number;
}

/**
 * Short battens under the board's seams and edges that run across the battens, and round hatches, from batten to batten.
 * Seams along the battens need none where a batten lies under them; what crosses one ends at it.
 */
export function floorNoggins(
  laid: FloorBattens,
  subfloor: Subfloor,
  arches: readonly ArchShape[],
  hatches: readonly FloorHatch[],
  width: number,
  clearance: number,
  drilled: readonly Ring[],
): readonly Noggin[] {
  const half = width / 2;
  const lengthwise = subfloor.seams
    .filter((seam) => seam.direction === 'along')
    .filter(({ at }) => laid.battens.every((batten) => Math.abs(batten.y - at) > half))
    .flatMap((seam) =>
      seamSpans(subfloor.outline, seam).map(([x0, x1]): Noggin => ({ x0, x1, y0: seam.at - half, y1: seam.at + half })),
    );
  const rows = [...laid.battens, ...lengthwise.map(({ x0, x1, y0, y1 }) => ({ x0, x1, y: (y0 + y1) / 2 }))];
  /** From row to row at an x, wherever something of `from` to `to` lies between them. */
  const between = (x: number, from: number, to: number): Noggin[] => {
    const ys = [...new Set(rows.filter((b) => b.x0 - 1 <= x && b.x1 + 1 >= x).map((b) => b.y))].sort((a, b) => a - b);
    return ys.slice(1).flatMap((y, i) => {
      const [y0, y1] = [(ys[i] ?? 0) + half, y - half];
      // over an arch there is no board and so no seam
      const inside = solidAlong([subfloor.outline], x).some(([a, b]) => a <= y0 + 1 && b >= y1 - 1);
      return y1 - y0 >= SHORTEST_MM && inside && y1 > from + 1 && y0 < to - 1
        ? [{ x0: x - half, x1: x + half, y0, y1 }]
        : [];
    });
  };
  const across = subfloor.seams
    .filter((seam) => seam.direction === 'across')
    .flatMap(({ at, from, to }) => between(at, from, to));
  const box = boxOf(subfloor.outline.outer);
  const ends = [box.minX + half, box.maxX - half].flatMap((x) => between(x, -Infinity, Infinity));
  const beside = arches
    .filter((arch) => arch.kind !== 'step' && arch.bottom <= 0)
    .flatMap((arch) => {
      const [from, to] = arch.side === 'left' ? [-Infinity, -arch.face] : [arch.face, Infinity];
      return [arch.from - clearance - half, arch.to + clearance + half].flatMap((x) => between(x, from, to));
    });
  const frames = hatches.flatMap((hatch) => {
    const [x0, x1] = [hatch.x - hatch.length / 2, hatch.x + hatch.length / 2];
    const [y0, y1] = [hatch.y - hatch.width / 2, hatch.y + hatch.width / 2];
    const ledge = (y: number): boolean =>
      laid.battens.some((batten) => Math.abs(batten.y - y) <= half && batten.x0 <= x0 && batten.x1 >= x1);
    return [
      // they carry the ends of the battens that the hatch takes out, from whole batten to whole batten
      ...[x0, x1].flatMap((x) => between(x, y0, y1)),
      ...[y0, y1]
        .filter((y) => !ledge(y))
        .map((y): Noggin => ({ x0: x0 + half, x1: x1 - half, y0: y - half, y1: y + half })),
    ];
  });
  return withoutDoubles([...frames, ...across, ...lengthwise, ...ends, ...beside]).flatMap((noggin) =>
    besideHoles(noggin, drilled),
  );
}

/** What of a noggin is left beside the holes through the floor, along it: timber in the way of a pipe is no timber. */
function besideHoles(noggin: Noggin, drilled: readonly Ring[]): Noggin[] {
  return drilled.reduce<Noggin[]>(
    (left, ring) =>
      left.flatMap((own): Noggin[] => {
        const { minX, maxX, minY, maxY } = boxOf(ring);
        if (own.x1 <= minX || own.x0 >= maxX || own.y1 <= minY || own.y0 >= maxY) return [own];
        const parts =
          own.y1 - own.y0 > own.x1 - own.x0
            ? [
                { ...own, y1: minY },
                { ...own, y0: maxY },
              ]
            : [
                { ...own, x1: minX },
                { ...own, x0: maxX },
              ];
        return parts.filter(
          ({ x0, x1, y0, y1 }) => Math.min(x1 - x0, y1 - y0) > 0 && Math.max(x1 - x0, y1 - y0) >= SHORTEST_MM,
        );
      }),
    [noggin],
  );
}

/** Where two would lie in one place, only the first. */
function withoutDoubles(all: readonly Noggin[]): Noggin[] {
  const kept: Noggin[] = [];
  for (const noggin of all) {
    const double = kept.some(
      (other) =>
        Math.min(other.x1, noggin.x1) - Math.max(other.x0, noggin.x0) > DOUBLE_MM &&
        Math.min(other.y1, noggin.y1) - Math.max(other.y0, noggin.y0) > DOUBLE_MM,
    );
    if (!double) kept.push(noggin);
  }
  return kept;
}

/** The noggins as parts to cut from bars. */
export function nogginParts(
  noggins: ReturnType<typeof floorNoggins>,
  material: PriceItem,
  thickness: number,
  z: number,
): readonly Part[] {
  const names = createNames('floor');
  return noggins.map(({ x0, x1, y0, y1 }, i): Part => {
    const upright = y1 - y0 > x1 - x0;
    const length = upright ? y1 - y0 : x1 - x0;
    const [along, across]: [Vector, Vector] = upright
      ? [
          [0, 1, 0],
          [-1, 0, 0],
        ]
      : [
          [1, 0, 0],
          [0, 1, 0],
        ];
    return {
      id: names('noggin', placedOnFloor(x0, y0)),
      role: 'noggin',
      number: i + 1,
      unit: null,
      material: material.id,
      thickness,
      outline: { outer: rectangle(0, 0, length, material.width), holes: [] },
      grain: true,
      edges: [],
      place: placeSeen([upright ? x1 : x0, y0, z + thickness], along, across),
    };
  });
}

/** A line of timber under the board: level along the vehicle at a y, or across it at an x. */
interface Under {
  readonly along: boolean;
  readonly at: number;
  readonly from: number;
  readonly to: number;
}
const linesUnder = (battens: readonly FloorBatten[], noggins: readonly Noggin[]): Under[] => [
  ...battens.map(({ x0, x1, y }): Under => ({ along: true, at: y, from: x0, to: x1 })),
  ...noggins.map(({ x0, x1, y0, y1 }): Under =>
    y1 - y0 > x1 - x0
      ? { along: false, at: (x0 + x1) / 2, from: y0, to: y1 }
      : { along: true, at: (y0 + y1) / 2, from: x0, to: x1 },
  ),
];

/**
 * Screws of the board: along every batten and noggin, clear of holes, hatches and what lies under the floor, at a joint into
 * both pieces; those that furniture will hide come first in the list.
 * @param width of the timber, mm
 */
export function floorScrews(
  battens: readonly FloorBatten[],
  noggins: readonly Noggin[],
  width: number,
  pieces: readonly Outline[],
  survey: Survey,
  units: readonly Shadow[],
): readonly FloorScrew[] {
  const keepOuts = boundsOf(survey);
  const holes = drilledHoles(survey);
  const blocked = ([x, y]: Point): boolean =>
    keepOuts.some((area) => x > area.from && x < area.to && y > area.left && y < area.right) ||
    holes.some(({ at, ring }) => {
      const box = boxOf(ring);
      return Math.hypot(at[0] - x, at[1] - y) < (box.maxX - box.minX) / 2 + HOLE_CLEAR_MM;
    });
  const lines = linesUnder(battens, noggins);
  const screws = pieces.flatMap((piece) => {
    const box = boxOf(piece.outer);
    const own: Point[] = [];
    for (const { along, at, from, to } of lines) {
      const [low, high] = along ? [box.minY, box.maxY] : [box.minX, box.maxX];
      // beside a joint that lies over the timber
      const over = Math.min(high - BESIDE_JOINT_MM, Math.max(low + BESIDE_JOINT_MM, at));
      if (Math.abs(over - at) > width / 2 - INSIDE_TIMBER_MM) continue;
      const spans = along ? levelSpans(piece, over) : solidAlong([piece], over);
      for (const [a, b] of spans) {
        const [first, last] = [Math.max(a, from) + EDGE_MM, Math.min(b, to) - EDGE_MM];
        if (last <= first) continue;
        for (const place of spread(first, last, Math.max(2, Math.ceil((last - first) / SPACING_MM) + 1))) {
          const point: Point = along ? [place, over] : [over, place];
          if (!blocked(point) && own.every((other) => Math.hypot(other[0] - point[0], other[1] - point[1]) >= SAME_MM))
            own.push(point);
        }
      }
    }
    return own;
  });
  return screws
    .map((at): FloorScrew => ({ at, hidden: units.some((unit) => isOver(unit, at)) }))
    .sort((a, b) => Number(b.hidden) - Number(a.hidden));
}

/** Lines of battens and noggins, screws and holes of one piece of the board, on its own axes. */
export function floorMarks(
  part: Part,
  battens: readonly FloorBatten[],
  noggins: readonly Noggin[],
  screws: readonly FloorScrew[],
): PartMarks {
  const { origin, along: first, across } = part.place;
  const onPart = ([x, y]: Point): Point => [
    (x - origin[0]) * first[0] + (y - origin[1]) * first[1],
    (x - origin[0]) * across[0] + (y - origin[1]) * across[1],
  ];
  const box = boxOf(part.outline.outer);
  const inside = ([a, b]: Point): boolean => a >= 0 && b >= 0 && a <= box.maxX && b <= box.maxY;
  const clamp = ([a, b]: Point): Point => [Math.min(box.maxX, Math.max(0, a)), Math.min(box.maxY, Math.max(0, b))];
  return {
    lines: linesUnder(battens, noggins).flatMap(({ along: level, at, from: start, to: end }, i) => {
      const [from, to] = level ? [onPart([start, at]), onPart([end, at])] : [onPart([at, start]), onPart([at, end])];
      const crosses =
        Math.max(from[0], to[0]) > 0 &&
        Math.min(from[0], to[0]) < box.maxX &&
        Math.max(from[1], to[1]) > 0 &&
        Math.min(from[1], to[1]) < box.maxY;
      const name = i < battens.length ? `batten ${i + 1}` : `noggin ${i - battens.length + 1}`;
      return crosses ? [{ name, from: clamp(from), to: clamp(to) }] : [];
    }),
    screws: screws.map((screw) => onPart(screw.at)).filter(inside),
    holes: [],
  };
}
