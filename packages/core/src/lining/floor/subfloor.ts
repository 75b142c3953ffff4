import { createNames, placedOnFloor } from '../../parts/part-name.js';
import { placeSeen } from '../../parts/lay-flat.js';
import type { FloorHoles, KeptBack } from './left-out.js';
import type { FloorChoice, Settings } from '../../document/schema.js';
import { floorLayerHeights, type BuildUpDepth, type LayerDepth } from '../../layers/buildup.js';
import {
  boxOf,
  outlineArea,
  type Box,
  rectangle,
  spread,
  type Outline,
  type Point,
  type Ring,
} from '../../numeric/plane.js';
import { clipTo, cutOut, roundInsideCorners, simplify } from '../../numeric/shapes.js';
import { archFootprint, type ArchShape } from '../../shell/arch.js';
import { halfWidth, type Shell } from '../../shell/shell.js';
import { toOrigin, type Part } from '../../parts/part.js';
import { floorCuts, sheetsFor, type FloorCut, type Span } from './floor-cuts.js';

/** No strip of subfloor is narrower than this, mm. */
const SMALLEST_STRIP_MM = 150;
const CHORD_MM = 0.1;
const FAR_MM = 1e5;

/** A seam of the board, mm. */
export interface FloorSeam {
  readonly direction: 'across' | 'along';
  readonly at: number;
  readonly from: number;
  readonly to: number;
}

/** One layer of board. */
export interface FloorBoard {
  /** The whole board before it is split, in vehicle axes (x, y). */
  readonly outline: Outline;
  /** Heights above the bare floor between which the board lies. */
  readonly from: number;
  readonly to: number;
  /** Where the seams run: across the vehicle at an x, or along it at a y, and from where to where. */
  readonly seams: readonly FloorSeam[];
  /** Which way its pieces run. */
  readonly direction: 'across' | 'along';
  readonly board: { readonly material: string; readonly thickness: number };
  /** The pieces in vehicle axes, holes and hatches cut out. */
  readonly pieces: readonly Outline[];
  readonly parts: readonly Part[];
}

/** A board that lies on another. */
export interface UpperBoard extends FloorBoard {
  /** The least distance of its seams from those of the board beneath that run the same way, mm; null where none do. */
  readonly apart: number | null;
}

/** The lowest board, and those that lie on it. */
export interface Subfloor extends FloorBoard {
  readonly upper: readonly UpperBoard[];
}

/** Seams of two boards that lie on each other are kept this far apart, mm. */
export const STAGGER_MM = 150;
/** Half a sheet is half of what pieces of it come to; equal pieces are a little narrower, mm. */
const HALF_MM = 60;

const NO_HOLES: FloorHoles = { drilled: [], hatches: [], kept: [] };

/** The outline at the height where the board's edge will really be: the narrowest of its two faces, less the clearance and the arches. */
function floorOutline(
  shell: Shell,
  arches: readonly ArchShape[],
  from: number,
  to: number,
  settings: Settings,
  kept: readonly KeptBack[],
): Outline | null {
  const [x0, x1] = [settings.floorClearance, shell.length - settings.floorClearance];
  const xs = [
    ...new Set([...spread(x0, x1, 61), ...shell.stations.map((s) => s.x).filter((x) => x > x0 && x < x1)]),
  ].sort((a, b) => a - b);
  const edge = (side: 'left' | 'right', sign: number): Point[] =>
    xs.map((x): Point => [
      x,
      sign * (Math.min(halfWidth(shell, side, x, from), halfWidth(shell, side, x, to)) - settings.floorClearance),
    ]);
  const outer: Ring = [...edge('left', -1), ...edge('right', 1).reverse()];
  const bites = arches.flatMap((arch): Ring[] => {
    const ring = archFootprint(arch, shell, from, settings.floorClearance);
    return ring ? [ring] : [];
  });
  // kept back by as much everywhere: the strip follows the wall
  const strips = kept.map(({ side, from: first, to: last, by }): Ring => {
    const sign = side === 'left' ? -1 : 1;
    const inward = spread(first, last, 9).map((x): Point => [
      x,
      sign * (Math.min(halfWidth(shell, side, x, from), halfWidth(shell, side, x, to)) - settings.floorClearance - by),
    ]);
    return [...inward, [last, sign * FAR_MM], [first, sign * FAR_MM]];
  });
  const [whole] = cutOut({ outer: simplify(outer, CHORD_MM), holes: [] }, [...bites, ...strips]);
  return whole ? { outer: roundInsideCorners(whole.outer, settings.floorCornerRadius), holes: whole.holes } : null;
}

/** Whether a seam runs through a box. */
export function crosses({ direction, at, from, to }: FloorSeam, box: Box): boolean {
  const [low, high, first, last] =
    direction === 'across' ? [box.minX, box.maxX, box.minY, box.maxY] : [box.minY, box.maxY, box.minX, box.maxX];
  return at > low && at < high && from < last && to > first;
}

/** The pieces of one way to cut the board, in vehicle axes. */
function piecesOf(outline: Outline, cut: FloorCut): Outline[] {
  return cut.strips.flatMap(({ span, pieces }) =>
    pieces.flatMap((piece) => {
      const [[x0, x1], [y0, y1]] = cut.direction === 'across' ? [span, piece] : [piece, span];
      return clipTo(outline, rectangle(x0, y0, x1, y1));
    }),
  );
}

/** Where its seams are: between strips from end to end of the board, and across each strip. */
function seamsOf({ direction, strips }: FloorCut, far: Span): FloorSeam[] {
  const other = direction === 'across' ? 'along' : 'across';
  return [
    ...strips.slice(1).map(({ span: [at] }): FloorSeam => ({ direction, at, from: far[0], to: far[1] })),
    ...strips.flatMap(({ span: [from, to], pieces }) =>
      pieces.slice(1).map(([at]): FloorSeam => ({ direction: other, at, from, to })),
    ),
  ];
}

/**
 * The subfloor as parts: outlined at the height where it lies, cut round the arches, split into pieces that a sheet can
 * give. Every sheet size is tried across and along: in equal pieces, or where that is asked for in whole ones with a rest as
 * well, for the cheapest sheets or the fewest pieces. No seam runs through a hatch where that can be; of ways as good, that
 * with the fewest corners where four pieces meet.
 * @param shell what the board's edge meets: the lining when walls come first, else the ribs
 * @returns null when no floor layer is marked as a board, or its material has no sheet
 */
export function subfloorOf(
  depth: BuildUpDepth,
  shell: Shell,
  arches: readonly ArchShape[],
  settings: Settings,
  holes: FloorHoles = NO_HOLES,
  { direction, cut: wanted = 'equal' }: Pick<FloorChoice, 'direction' | 'cut'> = { direction: null },
): Subfloor | null {
  const [lowest, ...others] = depth.layers.filter(
    ({ layer, material }) => layer.board && (material?.stocks.length ?? 0) > 0,
  );
  const ways = { shell, arches, settings, holes, direction, wanted };
  const first = lowest && boardOf(depth, lowest, ways, null, 'board', 0);
  if (!first) return null;
  const upper: UpperBoard[] = [];
  for (const layer of others) {
    const beneath: FloorBoard = upper.at(-1) ?? first;
    const before = [first, ...upper].reduce((sum, { parts }) => sum + parts.length, 0);
    const made = boardOf(depth, layer, ways, beneath, `board-${upper.length + 2}`, before);
    if (made) upper.push({ ...made, apart: seamsApart(made.seams, beneath.seams) });
  }
  return { ...first, upper };
}

/** The least distance between seams of two layers that run the same way and pass each other, mm. */
function seamsApart(above: readonly FloorSeam[], below: readonly FloorSeam[]): number | null {
  const all = above.flatMap((a) =>
    below
      .filter((b) => b.direction === a.direction && a.from < b.to && b.from < a.to)
      .map((b) => Math.abs(a.at - b.at)),
  );
  return all.length > 0 ? Math.min(...all) : null;
}

interface BoardWays {
  readonly shell: Shell;
  readonly arches: readonly ArchShape[];
  readonly settings: Settings;
  readonly holes: FloorHoles;
  readonly direction: FloorChoice['direction'];
  readonly wanted: NonNullable<FloorChoice['cut']>;
}

/** One layer of board. One that lies on another is cut so that its seams keep off those beneath, before anything else. */
function boardOf(
  depth: BuildUpDepth,
  board: LayerDepth,
  { shell, arches, settings, holes, direction, wanted }: BoardWays,
  beneath: FloorBoard | null,
  name: string,
  numbered: number,
): FloorBoard | null {
  const sheets = board.material?.stocks ?? [];
  const heights = floorLayerHeights(depth, board.layer.id);
  if (!heights) return null;
  const outline = floorOutline(shell, arches, heights.from, heights.to, settings, holes.kept);
  if (!outline) return null;
  const box = boxOf(outline.outer);
  const { trim, kerf } = settings.cutting;
  const [x, y]: readonly [Span, Span] = [
    [box.minX, box.maxX],
    [box.minY, box.maxY],
  ];
  const grain = board.material?.grain ?? false;
  const ways = sheets.flatMap((sheet) => {
    const usable = { length: sheet.length - 2 * trim, width: sheet.width - 2 * trim };
    return (
      (['across', 'along'] as const)
        .filter((way) => direction === null || beneath !== null || way === direction)
        .flatMap((way) =>
          floorCuts(x, y, usable, way, Math.min(SMALLEST_STRIP_MM, x[1] - x[0], y[1] - y[0]), beneath !== null),
        )
        // over another board equal pieces would bring seam over seam
        .filter((cut) => wanted !== 'equal' || beneath !== null || cut.equal)
        .map((cut) => {
          const pieces = piecesOf(outline, cut);
          // the sheet's length lies across the vehicle for strips across it
          const sizes = pieces.map((piece) => {
            const own = boxOf(piece.outer);
            const [along, over] = [own.maxX - own.minX, own.maxY - own.minY];
            return cut.direction === 'across' ? { length: over, width: along } : { length: along, width: over };
          });
          // equal pieces are counted a sheet each: what more a plan saves is not relied on
          const count =
            wanted === 'equal' && beneath === null
              ? cut.strips.reduce((sum, strip) => sum + strip.pieces.length, 0)
              : sheetsFor(sizes, usable, kerf, !grain);
          return { cut, pieces, cost: count * sheet.price, count, half: Math.min(usable.length, usable.width) / 2 };
        })
    );
  });
  const seamed = ways
    .filter(({ count }) => Number.isFinite(count))
    .map((way) => ({ ...way, seams: seamsOf(way.cut, way.cut.direction === 'across' ? y : x) }));
  /** How many holes a seam runs through. */
  const through = (seams: readonly FloorSeam[], rings: readonly Ring[]): number =>
    rings.filter((ring) => seams.some((seam) => crosses(seam, boxOf(ring)))).length;
  const lids = holes.hatches.map((hatch) => hatch.opening);
  const drilled = holes.drilled;
  type Way = (typeof seamed)[number];
  const price = (a: Way, b: Way): number => a.cost - b.cost || a.count - b.count;
  const pieced = (a: Way, b: Way): number => a.pieces.length - b.pieces.length;
  // half a sheet apart where the sheets allow it; no seam near another in any case where one way keeps them apart
  const near = ({ seams, half }: Way): number => {
    const apart = beneath ? (seamsApart(seams, beneath.seams) ?? Infinity) : Infinity;
    return apart >= half - HALF_MM ? 0 : apart >= STAGGER_MM ? 1 : 2;
  };
  const best = seamed.sort(
    (a, b) =>
      near(a) - near(b) ||
      through(a.seams, lids) - through(b.seams, lids) ||
      through(a.seams, drilled) - through(b.seams, drilled) ||
      (wanted === 'fewest' ? pieced(a, b) || price(a, b) : price(a, b)) ||
      pieced(a, b) ||
      a.cut.crossed - b.cut.crossed,
  )[0];
  if (!best) return null;
  const { cut, pieces, seams } = best;
  const cutters = [...holes.drilled, ...holes.hatches.map((hatch) => hatch.opening)];
  const made = pieces
    .flatMap((piece) => (cutters.length > 0 ? cutOut(piece, cutters) : [piece]))
    .filter((piece) => outlineArea(piece) > 100);
  const names = createNames('floor');
  return {
    outline,
    from: heights.from,
    to: heights.to,
    seams,
    direction: cut.direction,
    board: { material: board.layer.material, thickness: board.thickness },
    pieces: made,
    parts: made.map((piece, index) =>
      floorPart(
        piece,
        numbered + index,
        names(name, placedOnFloor(boxOf(piece.outer).minX, boxOf(piece.outer).minY)),
        cut.direction,
        board.layer.material,
        board.thickness,
        grain,
        heights.from,
      ),
    ),
  };
}

/** Puts a piece on its own axes as it is seen from above, with the sheet's length along x. */
function floorPart(
  piece: Outline,
  index: number,
  id: string,
  direction: FloorCut['direction'],
  material: string,
  thickness: number,
  grain: boolean,
  z: number,
): Part {
  const turn = (ring: Ring): Point[] =>
    direction === 'across' ? ring.map(([x, y]): Point => [y, -x]) : ring.map(([x, y]): Point => [x, y]);
  const { outline, moved } = toOrigin({ outer: turn(piece.outer), holes: piece.holes.map(turn) });
  return {
    id,
    role: 'subfloor',
    number: index + 1,
    unit: null,
    material,
    thickness,
    outline,
    grain,
    edges: [],
    place:
      direction === 'across'
        ? placeSeen([-moved[1], moved[0], z + thickness], [0, 1, 0], [-1, 0, 0])
        : placeSeen([moved[0], moved[1], z + thickness], [1, 0, 0], [0, 1, 0]),
  };
}
