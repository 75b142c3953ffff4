import type { PlatformBed, PriceBook, Side } from '../document/schema.js';
import { materialOf } from '../materials/material.js';
import { cutOut, roundInsideCorners, simplify } from '../numeric/shapes.js';
import { rectangle, roundedRectangle, spread, type Outline, type Point, type Ring } from '../numeric/plane.js';
import { archFootprint, clearHalfWidth, type ArchShape } from '../shell/arch.js';
import { halfWidth, type Shell } from '../shell/shell.js';
import { toOrigin, type Part, type PartEdge, type Spot } from '../parts/part.js';
import { bevelOf, largestRemoval, leansAlong, leansUp } from '../parts/scribe.js';

/** Gap between neighbouring boards so that each can be lifted out, mm. */
const BOARD_GAP_MM = 3;
/** Room kept between a support and an arch or wall, mm. */
const SUPPORT_CLEARANCE_MM = 10;
const ARCH_CLEARANCE_MM = 10;
const INSIDE_CORNER_MM = 15;
/** Frame left round the access openings of the front, mm. */
const FRONT_FRAME_MM = 80;
const SMALLEST_ACCESS_MM = 200;
/** Outlines are drawn with chords that stay within this of the true curve, mm. */
const CHORD_MM = 0.05;

export interface BedLevels {
  /** Top of the boards, underside of the boards and top of the finished floor, above the bare floor, mm. */
  readonly top: number;
  readonly underside: number;
  readonly floor: number;
}

/** The heights of a bed's boards above the bare floor. The bed's own height is above the finished floor. */
export function bedLevels(bed: PlatformBed, inner: Shell, book: PriceBook): BedLevels {
  const thickness = materialOf(book, bed.board)?.thickness ?? 0;
  const top = inner.floor + bed.height;
  return { top, underside: top - thickness, floor: inner.floor };
}

/** Distance of the wall that a panel between two heights or two x can be pushed against: the nearer of its two faces. */
const nearer = (a: number, b: number): number => Math.min(a, b);

function boardStrips(bed: PlatformBed): { readonly from: number; readonly to: number }[] {
  const count = Math.max(1, Math.ceil((bed.length + BOARD_GAP_MM) / (bed.boardWidth + BOARD_GAP_MM)));
  const width = (bed.length - (count - 1) * BOARD_GAP_MM) / count;
  return Array.from({ length: count }, (_, i) => ({
    from: bed.x + i * (width + BOARD_GAP_MM),
    to: bed.x + i * (width + BOARD_GAP_MM) + width,
  }));
}

function scribeEdge(
  at: PartEdge['at'],
  line: readonly Point[],
  axis: 0 | 1,
  allowance: number,
  leans: readonly number[],
  thickness: number,
): PartEdge {
  return {
    kind: 'scribe',
    at,
    trueLine: line,
    allowance,
    largestRemoval: largestRemoval(line, axis, allowance),
    ...bevelOf(leans, thickness),
  };
}

const shift = (line: readonly Point[], by: Point): Point[] => line.map(([x, y]): Point => [x - by[0], y - by[1]]);

function bedBoards(
  bed: PlatformBed,
  shell: Shell,
  arches: readonly ArchShape[],
  levels: BedLevels,
  book: PriceBook,
): Part[] {
  const thickness = levels.top - levels.underside;
  return boardStrips(bed).flatMap((strip, index): Part[] => {
    const xs = spread(strip.from, strip.to, 15);
    // the board's own axes: x across the vehicle from left to right, y along it to the rear
    const line = (side: Side, sign: number, out: number): Point[] =>
      xs.map((x): Point => [
        sign * (nearer(halfWidth(shell, side, x, levels.top), halfWidth(shell, side, x, levels.underside)) + out),
        x,
      ]);
    const outer: Ring = [...line('right', 1, bed.scribe), ...line('left', -1, bed.scribe).reverse()];
    const bites = arches.flatMap((arch): Ring[] => {
      const ring = archFootprint(arch, shell, levels.underside, ARCH_CLEARANCE_MM);
      return ring ? [ring.map(([x, y]): Point => [y, x])] : [];
    });
    const [left] = cutOut({ outer: simplify(outer, CHORD_MM), holes: [] }, bites);
    if (!left) return [];
    const { outline, moved } = toOrigin({
      outer: bites.length > 0 ? roundInsideCorners(left.outer, INSIDE_CORNER_MM) : left.outer,
      holes: left.holes,
    });
    return [
      {
        id: `${bed.id}-board-${index + 1}`,
        role: 'bed-board',
        number: index + 1,
        unit: bed.id,
        material: bed.board,
        thickness,
        outline,
        grain: materialOf(book, bed.board)?.grain ?? false,
        edges: [
          scribeEdge(
            'left',
            shift(line('left', -1, 0), moved),
            0,
            bed.scribe,
            leansUp(shell, 'left', levels.underside, xs),
            thickness,
          ),
          scribeEdge(
            'right',
            shift(line('right', 1, 0), moved),
            0,
            bed.scribe,
            leansUp(shell, 'right', levels.underside, xs),
            thickness,
          ),
        ],
        place: { origin: [moved[1], moved[0], levels.underside], along: [0, 1, 0], across: [1, 0, 0] },
      },
    ];
  });
}

/** The y at which the supports' middles stand: outermost clear of arches and walls, the rest so that no board spans further than allowed. */
export function supportLines(
  bed: PlatformBed,
  shell: Shell,
  arches: readonly ArchShape[],
  levels: BedLevels,
  thickness: number,
): number[] {
  const clear = (side: Side): number =>
    clearHalfWidth(shell, arches, side, bed.x, bed.x + bed.length, levels.floor, levels.underside) -
    SUPPORT_CLEARANCE_MM -
    thickness / 2;
  const [from, to] = [-clear('left'), clear('right')];
  if (from >= to) return [];
  const gaps = Math.max(1, Math.ceil((to - from) / bed.span));
  return spread(from, to, gaps + 1);
}

function bedSupports(
  bed: PlatformBed,
  lines: readonly number[],
  levels: BedLevels,
  frontThickness: number,
  book: PriceBook,
): Part[] {
  const material = materialOf(book, bed.support);
  const thickness = material?.thickness ?? 0;
  const [length, height] = [bed.length - frontThickness, levels.underside - levels.floor];
  if (length <= 0 || height <= 0) return [];
  return lines.map((y, index): Part => ({
    id: `${bed.id}-support-${index + 1}`,
    role: 'bed-support',
    number: index + 1,
    unit: bed.id,
    material: bed.support,
    thickness,
    outline: { outer: rectangle(0, 0, length, height), holes: [] },
    grain: material?.grain ?? false,
    edges: [],
    place: { origin: [bed.x + frontThickness, y - thickness / 2, levels.floor], along: [1, 0, 0], across: [0, 0, 1] },
  }));
}

function bedFront(
  bed: PlatformBed,
  shell: Shell,
  arches: readonly ArchShape[],
  levels: BedLevels,
  lines: readonly number[],
  book: PriceBook,
): Part[] {
  const material = materialOf(book, bed.support);
  const thickness = material?.thickness ?? 0;
  const height = levels.underside - levels.floor;
  if (height <= 0) return [];
  const heights = spread(levels.floor, levels.underside, 21);
  const line = (side: Side, sign: number, out: number): Point[] =>
    heights.map((z): Point => [
      sign * (nearer(halfWidth(shell, side, bed.x, z), halfWidth(shell, side, bed.x + thickness, z)) + out),
      z,
    ]);
  const outer: Ring = [...line('right', 1, bed.scribe), ...line('left', -1, bed.scribe).reverse()];
  const openings = lines.slice(1).flatMap((to, i): Ring[] => {
    const from = (lines[i] ?? to) + FRONT_FRAME_MM / 2 + thickness / 2;
    const end = to - FRONT_FRAME_MM / 2 - thickness / 2;
    const [low, high] = [levels.floor + FRONT_FRAME_MM, levels.underside - FRONT_FRAME_MM];
    return end - from >= SMALLEST_ACCESS_MM && high - low >= SMALLEST_ACCESS_MM
      ? [roundedRectangle(from, low, end, high, 40)]
      : [];
  });
  const bites = arches
    .filter((arch) => arch.from - ARCH_CLEARANCE_MM < bed.x + thickness && arch.to + ARCH_CLEARANCE_MM > bed.x)
    .map((arch): Ring => {
      const sign = arch.side === 'left' ? -1 : 1;
      const [a, b] = [sign * (arch.face - ARCH_CLEARANCE_MM), sign * 3000];
      return rectangle(Math.min(a, b), levels.floor - 1, Math.max(a, b), arch.height + ARCH_CLEARANCE_MM);
    });
  const [body] = cutOut({ outer: simplify(outer, CHORD_MM), holes: [] }, bites);
  if (!body) return [];
  const shape: Outline = {
    outer: bites.length > 0 ? roundInsideCorners(body.outer, INSIDE_CORNER_MM) : body.outer,
    holes: openings,
  };
  const { outline, moved } = toOrigin(shape);
  const origin: Spot = [bed.x, moved[0], moved[1]];
  return [
    {
      id: `${bed.id}-front`,
      role: 'bed-front',
      number: 1,
      unit: bed.id,
      material: bed.support,
      thickness,
      outline,
      grain: material?.grain ?? false,
      edges: [
        scribeEdge(
          'left',
          shift(line('left', -1, 0), moved),
          0,
          bed.scribe,
          leansAlong(shell, 'left', bed.x, heights),
          thickness,
        ),
        scribeEdge(
          'right',
          shift(line('right', 1, 0), moved),
          0,
          bed.scribe,
          leansAlong(shell, 'right', bed.x, heights),
          thickness,
        ),
      ],
      place: { origin, along: [0, 1, 0], across: [0, 0, 1] },
    },
  ];
}

/**
 * The parts of a bed across the rear: boards cut to the wall at their own height with a scribe allowance at both ends,
 * upright supports along the vehicle that stand clear of the arches, and a front cut to the section with openings to the hold.
 * @param inner the room the bed stands in
 */
export function platformBedParts(
  bed: PlatformBed,
  inner: Shell,
  arches: readonly ArchShape[],
  book: PriceBook,
): Part[] {
  const levels = bedLevels(bed, inner, book);
  const thickness = materialOf(book, bed.support)?.thickness ?? 0;
  const lines = supportLines(bed, inner, arches, levels, thickness);
  return [
    ...bedBoards(bed, inner, arches, levels, book),
    ...bedSupports(bed, lines, levels, thickness, book),
    ...bedFront(bed, inner, arches, levels, lines, book),
  ];
}
