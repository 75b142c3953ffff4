import { createNames, placedOnFloor } from '../../parts/part-name.js';
import { placeSeen } from '../../parts/lay-flat.js';
import { isOver, type Shadow } from '../../document/body.js';
import type { FloorHatch, PriceItem, Survey } from '../../document/schema.js';
import type { Part, PartMarks, Vector } from '../../parts/part.js';
import { boundsOf } from '../../measure/keep-outs.js';
import { boxOf, rectangle, spread, type Outline, type Point } from '../../numeric/plane.js';
import { levelSpans } from './floor-lines.js';
import { solidAlong } from '../surface/pieces.js';
import type { FloorBatten, FloorBattens } from './floor-battens.js';
import { drilledHoles } from './floor-holes.js';
import type { Subfloor } from './subfloor.js';

/** Screws of the board into the battens: at most this far apart, this far from an edge, this far from a hole, mm. */
const SPACING_MM = 225;
const EDGE_MM = 20;
const HOLE_CLEAR_MM = 40;
const SHORTEST_MM = 80;

/** A screw of the floor board. */
export interface FloorScrew {
  readonly at: Point;
  /** Furniture will stand over it. */
  readonly hidden: boolean;
}

/**
 * Short battens under the board's seams across the battens, and round hatches, from batten to batten.
 * Seams along the battens need none where a batten lies under them.
 */
export function floorNoggins(
  laid: FloorBattens,
  subfloor: Subfloor,
  hatches: readonly FloorHatch[],
  width: number,
): readonly { readonly x0: number; readonly x1: number; readonly y0: number; readonly y1: number }[] {
  const half = width / 2;
  const between = (x: number, from: number, to: number): { x0: number; x1: number; y0: number; y1: number }[] => {
    const ys = [...new Set(laid.battens.filter((b) => b.x0 - 1 <= x && b.x1 + 1 >= x).map((b) => b.y))]
      .filter((y) => y > from - half && y < to + half)
      .sort((a, b) => a - b);
    return ys.slice(1).flatMap((y, i) => {
      const [y0, y1] = [(ys[i] ?? 0) + half, y - half];
      // over an arch there is no board and so no seam
      const inside = solidAlong([subfloor.outline], x).some(([a, b]) => a <= y0 + 1 && b >= y1 - 1);
      return y1 - y0 >= SHORTEST_MM && inside ? [{ x0: x - half, x1: x + half, y0, y1 }] : [];
    });
  };
  const across = subfloor.seams
    .filter((seam) => seam.direction === 'across')
    .flatMap(({ at }) => between(at, -Infinity, Infinity));
  const lengthwise = subfloor.seams
    .filter((seam) => seam.direction === 'along')
    .filter(({ at }) => laid.battens.every((batten) => Math.abs(batten.y - at) > half))
    .flatMap(({ at }) =>
      levelSpans(subfloor.outline, at).map(([x0, x1]) => ({ x0, x1, y0: at - half, y1: at + half })),
    );
  const frames = hatches.flatMap((hatch) => {
    const [x0, x1] = [hatch.x - hatch.length / 2, hatch.x + hatch.length / 2];
    const [y0, y1] = [hatch.y - hatch.width / 2, hatch.y + hatch.width / 2];
    return [
      { x0: x0 - half, x1: x0 + half, y0, y1 },
      { x0: x1 - half, x1: x1 + half, y0, y1 },
      { x0: x0 - half, x1: x1 + half, y0: y0 - half, y1: y0 + half },
      { x0: x0 - half, x1: x1 + half, y0: y1 - half, y1: y1 + half },
    ];
  });
  return [...across, ...lengthwise, ...frames];
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

/**
 * Screws of the board: along every batten, clear of holes, hatches and what lies under the floor; those that furniture will
 * hide come first in the list.
 */
export function floorScrews(
  battens: readonly FloorBatten[],
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
  const screws = pieces.flatMap((piece) =>
    battens.flatMap((batten) =>
      levelSpans(piece, batten.y).flatMap(([from, to]) => {
        const [x0, x1] = [Math.max(from, batten.x0) + EDGE_MM, Math.min(to, batten.x1) - EDGE_MM];
        if (x1 <= x0) return [];
        return spread(x0, x1, Math.max(2, Math.ceil((x1 - x0) / SPACING_MM) + 1))
          .map((x): Point => [x, batten.y])
          .filter((at) => !blocked(at));
      }),
    ),
  );
  return screws
    .map((at): FloorScrew => ({ at, hidden: units.some((unit) => isOver(unit, at)) }))
    .sort((a, b) => Number(b.hidden) - Number(a.hidden));
}

/** Batten lines, screws and holes of one piece of the board, on its own axes. */
export function floorMarks(part: Part, battens: readonly FloorBatten[], screws: readonly FloorScrew[]): PartMarks {
  const { origin, along: first, across } = part.place;
  const onPart = ([x, y]: Point): Point => [
    (x - origin[0]) * first[0] + (y - origin[1]) * first[1],
    (x - origin[0]) * across[0] + (y - origin[1]) * across[1],
  ];
  const box = boxOf(part.outline.outer);
  const inside = ([a, b]: Point): boolean => a >= 0 && b >= 0 && a <= box.maxX && b <= box.maxY;
  const clamp = ([a, b]: Point): Point => [Math.min(box.maxX, Math.max(0, a)), Math.min(box.maxY, Math.max(0, b))];
  return {
    lines: battens.flatMap((batten, i) => {
      const [from, to] = [onPart([batten.x0, batten.y]), onPart([batten.x1, batten.y])];
      const crosses =
        Math.max(from[0], to[0]) > 0 &&
        Math.min(from[0], to[0]) < box.maxX &&
        Math.max(from[1], to[1]) > 0 &&
        Math.min(from[1], to[1]) < box.maxY;
      return crosses ? [{ name: `batten ${i + 1}`, from: clamp(from), to: clamp(to) }] : [];
    }),
    screws: screws.map((screw) => onPart(screw.at)).filter(inside),
    holes: [],
  };
}
