import type { PriceItem } from '../project/schema.js';
import { isBar } from '../cutting/from-parts.js';
import type { Part, Spot } from '../joinery/part.js';
import { boxOf, outlineArea, rectangle, type Outline, type Point, type Ring } from '../numeric/plane.js';
import { cutOut } from '../numeric/shapes.js';
import type { ArchShape } from '../shell/arch.js';
import { halfWidth, type Shell } from '../shell/shell.js';
import type { FloorBattens } from './floor-battens.js';
import type { floorNoggins } from './floor-marks.js';

/** Pieces of insulation between battens, alike ones together, mm. */
export interface FloorInsulation {
  readonly length: number;
  readonly width: number;
  readonly count: number;
  /** Cut out round an arch or along a bowed wall: no plain rectangle. */
  readonly shaped: boolean;
}

/** Pieces smaller than this are filled from offcuts, mm2. */
const SMALLEST_MM2 = 8000;
/** A gap narrower than this is foamed, mm. */
const NARROWEST_MM = 25;
const ALIKE_MM = 3;
const MITRE_DEGREES = 45;

/** What lies between the battens: the board's outline less battens and noggins. */
export function floorInsulation(
  outline: Outline,
  laid: FloorBattens,
  noggins: ReturnType<typeof floorNoggins>,
  width: number,
): readonly FloorInsulation[] {
  const half = width / 2;
  const sticks: Ring[] = [
    ...laid.battens.map((batten) => rectangle(batten.x0, batten.y - half, batten.x1, batten.y + half)),
    ...noggins.map(({ x0, x1, y0, y1 }) => rectangle(x0, y0, x1, y1)),
  ];
  const groups: { length: number; width: number; count: number; shaped: boolean }[] = [];
  for (const piece of cutOut(outline, sticks)) {
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

/** Profiles along the edge of a step: one along its length, one back to the wall at each end, mitred where they meet. */
export function stepTrims(arches: readonly ArchShape[], inner: Shell, trim: PriceItem | null): readonly Part[] {
  if (!trim || !isBar(trim)) return [];
  return arches
    .filter((arch) => arch.kind === 'step')
    .flatMap((arch): Part[] => {
      const sign = arch.side === 'left' ? -1 : 1;
      const run = arch.to - arch.from;
      const w = trim.width;
      const made = (
        number: number,
        length: number,
        ends: NonNullable<Part['ends']>,
        outer: readonly Point[],
        origin: Spot,
        along: Spot,
        across: Spot,
      ): Part => ({
        id: `step-${arch.id}-trim-${number}`,
        role: 'trim',
        number,
        unit: null,
        surface: 'floor',
        material: trim.id,
        thickness: trim.thickness,
        outline: { outer, holes: [] },
        grain: true,
        ends,
        edges: [],
        place: { origin, along, across },
      });
      const front = run + 2 * w;
      const z = inner.floor;
      const back = (x: number): number => Math.max(w, halfWidth(inner, arch.side, x, z) - arch.face + w);
      const sides = [arch.from - w, arch.to].map((x, i) => {
        const length = back(x + w / 2);
        return made(
          i + 2,
          length,
          { start: MITRE_DEGREES, end: 0 },
          [
            [w, 0],
            [length, 0],
            [length, w],
            [0, w],
          ],
          [x, sign * (arch.face - w), z],
          [0, sign, 0],
          [1, 0, 0],
        );
      });
      return [
        made(
          1,
          front,
          { start: MITRE_DEGREES, end: MITRE_DEGREES },
          [
            [w, 0],
            [front - w, 0],
            [front, w],
            [0, w],
          ],
          [arch.from - w, sign * (arch.face - w), z],
          [1, 0, 0],
          [0, 0 - sign, 0],
        ),
        ...sides,
      ];
    });
}
