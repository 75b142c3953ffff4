import { createNames, placedOnFloor } from '../../parts/part-name.js';
import { placeSeen } from '../../parts/lay-flat.js';
import type { FloorHoles, KeptBack } from './left-out.js';
import type { FloorChoice, Settings } from '../../document/schema.js';
import { floorLayerHeights, type BuildUpDepth } from '../../layers/buildup.js';
import { boxOf, outlineArea, rectangle, spread, type Outline, type Point, type Ring } from '../../numeric/plane.js';
import { cutOut, roundInsideCorners, simplify } from '../../numeric/shapes.js';
import { archFootprint, type ArchShape } from '../../shell/arch.js';
import { halfWidth, type Shell } from '../../shell/shell.js';
import { toOrigin, type Part } from '../../parts/part.js';
import { wholeUp } from '../../numeric/tolerance.js';

/** No strip of subfloor is narrower than this, mm. */
const SMALLEST_STRIP_MM = 150;
const CHORD_MM = 0.1;
const FAR_MM = 1e5;

export interface Subfloor {
  /** The whole board before it is split, in vehicle axes (x, y). */
  readonly outline: Outline;
  /** Heights above the bare floor between which the board lies. */
  readonly from: number;
  readonly to: number;
  /** Where the seams run: across the vehicle at an x, or along it at a y. */
  readonly seams: readonly { readonly direction: 'across' | 'along'; readonly at: number }[];
  /** Which way its pieces run. */
  readonly direction: 'across' | 'along';
  readonly board: { readonly material: string; readonly thickness: number };
  /** The pieces in vehicle axes, holes and hatches cut out. */
  readonly pieces: readonly Outline[];
  readonly parts: readonly Part[];
}

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

interface SeamPlan {
  readonly direction: 'across' | 'along';
  readonly strips: number;
  readonly cross: number;
  readonly sheets: number;
}

/** Sheets laid one way: equal strips no wider than a trimmed sheet, each strip split again where the sheet is too short. */
function laidOut(
  direction: SeamPlan['direction'],
  length: number,
  width: number,
  sheet: { length: number; width: number },
  trim: number,
): SeamPlan {
  const [usableLength, usableWidth] = [sheet.length - 2 * trim, sheet.width - 2 * trim];
  const [run, span] = direction === 'across' ? [length, width] : [width, length];
  const strips = Math.max(1, wholeUp(run / usableWidth));
  const cross = Math.max(1, wholeUp(span / usableLength));
  return { direction, strips, cross, sheets: strips * cross };
}

/** Cuts an outline into equal strips along one axis. */
function strips(outline: Outline, axis: 0 | 1, count: number): Outline[] {
  const box = boxOf(outline.outer);
  const [from, to] = axis === 0 ? [box.minX, box.maxX] : [box.minY, box.maxY];
  const far = 1e5;
  return Array.from({ length: count }, (_, i) => {
    const [a, b] = [from + ((to - from) * i) / count, from + ((to - from) * (i + 1)) / count];
    const before = axis === 0 ? rectangle(-far, -far, a, far) : rectangle(-far, -far, far, a);
    const after = axis === 0 ? rectangle(b, -far, far, far) : rectangle(-far, b, far, far);
    return cutOut(outline, [before, after]);
  }).flat();
}

/**
 * The subfloor as parts: outlined at the height where it lies, cut round the arches, split into pieces that a sheet can
 * give. Every sheet size is tried across and along; the cheapest way is kept, of equal ones that with fewer pieces.
 * @param shell what the board's edge meets: the lining when walls come first, else the ribs
 * @returns null when no floor layer is marked as a board, or its material has no sheet
 */
export function subfloorOf(
  depth: BuildUpDepth,
  shell: Shell,
  arches: readonly ArchShape[],
  settings: Settings,
  holes: FloorHoles = NO_HOLES,
  direction: FloorChoice['direction'] = null,
): Subfloor | null {
  const board = depth.layers.find(({ layer }) => layer.board);
  const sheets = board?.material?.stocks ?? [];
  const heights = board ? floorLayerHeights(depth, board.layer.id) : null;
  if (!board || !heights || sheets.length === 0) return null;
  const outline = floorOutline(shell, arches, heights.from, heights.to, settings, holes.kept);
  if (!outline) return null;
  const box = boxOf(outline.outer);
  const [length, width] = [box.maxX - box.minX, box.maxY - box.minY];
  const plans = sheets
    .flatMap((sheet) =>
      (['across', 'along'] as const).map((direction) => ({
        plan: laidOut(direction, length, width, sheet, settings.cutting.trim),
        price: sheet.price,
      })),
    )
    .filter(({ plan }) => direction === null || plan.direction === direction)
    .filter(({ plan }) => (plan.direction === 'across' ? length : width) / plan.strips >= SMALLEST_STRIP_MM)
    .sort((a, b) => a.plan.sheets * a.price - b.plan.sheets * b.price || a.plan.sheets - b.plan.sheets);
  const best = plans[0]?.plan;
  if (!best) return null;
  const mainAxis = best.direction === 'across' ? 0 : 1;
  const pieces = strips(outline, mainAxis, best.strips).flatMap((strip) =>
    strips(strip, mainAxis === 0 ? 1 : 0, best.cross),
  );
  const cutters = [...holes.drilled, ...holes.hatches.map((hatch) => hatch.opening)];
  const made = pieces
    .flatMap((piece) => (cutters.length > 0 ? cutOut(piece, cutters) : [piece]))
    .filter((piece) => outlineArea(piece) > 100);
  const names = createNames('floor');
  const seamsOf = (axis: 0 | 1, count: number): Subfloor['seams'] =>
    (axis === 0 ? spread(box.minX, box.maxX, count + 1) : spread(box.minY, box.maxY, count + 1))
      .slice(1, -1)
      .map((at) => ({ direction: axis === 0 ? 'across' : 'along', at }));
  return {
    outline,
    from: heights.from,
    to: heights.to,
    seams: [...seamsOf(mainAxis, best.strips), ...seamsOf(mainAxis === 0 ? 1 : 0, best.cross)],
    direction: best.direction,
    board: { material: board.layer.material, thickness: board.thickness },
    pieces: made,
    parts: made.map((piece, index) =>
      floorPart(
        piece,
        index,
        names('board', placedOnFloor(boxOf(piece.outer).minX, boxOf(piece.outer).minY)),
        best.direction,
        board.layer.material,
        board.thickness,
        board.material?.grain ?? false,
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
  direction: SeamPlan['direction'],
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
