import { isOver, type Shadow } from '../../document/body.js';
import type { FloorChoice, PriceBook, Survey } from '../../document/schema.js';
import { boxOf, distanceToRing, outlineArea, spread, type Outline, type Point } from '../../numeric/plane.js';
import { HIDDEN_LEFT_MM, pickFastener, type Picked } from '../../rules/fasteners.js';
import { solidAlong } from '../surface/pieces.js';
import { drilledHoles } from './floor-holes.js';
import type { FloorScrew } from './floor-marks.js';
import type { FloorBoard, Subfloor, UpperBoard } from './subfloor.js';

/** A board on another, and how it is held to that. */
export interface UpperLaid {
  readonly layer: UpperBoard;
  /** Screws into the board beneath, those that furniture hides first. */
  readonly screws: readonly FloorScrew[];
  /** The stocked screw that bites without coming out below; null where it is laid loose. */
  readonly picked: Picked | null;
  /** Adhesive between the two; null where it is laid loose. */
  readonly glue: ReturnType<typeof beads> | null;
}

/** Screws of a board into another: rows so far apart, so far from an edge, so far from a hole, mm. */
const ROWS_MM = 300;
const EDGE_MM = 25;
const HOLE_CLEAR_MM = 40;
/** Beads that follow no batten run this far apart, mm; a 6 mm bead takes 28 ml a metre. */
const BEAD_SPACING_MM = 250;
const BEAD_ML_PER_METRE = 28;

/** Beads in rows over a whole board, m. */
export const beadRows = (outline: Outline): number => outlineArea(outline) / BEAD_SPACING_MM / 1000;

/** Adhesive for so many metres of bead. */
export const beads = (metres: number): { readonly metres: number; readonly millilitres: number } => ({
  metres,
  millilitres: metres * BEAD_ML_PER_METRE,
});

/** Rows of screws over one piece, from edge to edge. */
function rowsOn(piece: Outline): Point[] {
  const box = boxOf(piece.outer);
  const evenly = (from: number, to: number): number[] =>
    to <= from ? [(from + to) / 2] : spread(from, to, Math.max(2, Math.ceil((to - from) / ROWS_MM) + 1));
  const rings = [piece.outer, ...piece.holes];
  return evenly(box.minX + EDGE_MM, box.maxX - EDGE_MM).flatMap((x) =>
    solidAlong([piece], x).flatMap(([a, b]) =>
      evenly(a + EDGE_MM, b - EDGE_MM)
        .map((y): Point => [x, y])
        .filter((point) => rings.every((ring) => distanceToRing(point, ring) >= EDGE_MM - 0.5)),
    ),
  );
}

function laidOn(
  layer: UpperBoard,
  beneath: FloorBoard,
  choice: FloorChoice,
  survey: Survey,
  units: readonly Shadow[],
  book: PriceBook,
): UpperLaid {
  if (choice.fixing === 'loose') return { layer, screws: [], picked: null, glue: null };
  const holes = drilledHoles(survey);
  const free = ([x, y]: Point): boolean =>
    holes.every(({ at, ring }) => {
      const box = boxOf(ring);
      return Math.hypot(at[0] - x, at[1] - y) >= (box.maxX - box.minX) / 2 + HOLE_CLEAR_MM;
    });
  const screws = layer.pieces
    .flatMap(rowsOn)
    .filter(free)
    .map((at): FloorScrew => ({ at, hidden: units.some((unit) => isOver(unit, at)) }))
    .filter(({ hidden }) => choice.fixing === 'screwed' || hidden)
    .sort((a, b) => Number(b.hidden) - Number(a.hidden));
  return {
    layer,
    screws,
    picked: pickFastener(book, {
      passed: layer.board.thickness,
      gap: Math.max(0, layer.from - beneath.to),
      into: 'wood',
      depth: beneath.board.thickness,
      // what lies under the lower board is foam or a batten, not the vehicle's skin
      spare: HIDDEN_LEFT_MM,
    }),
    glue: beads(beadRows(layer.outline)),
  };
}

/** How each board that lies on another is held to it. */
export const uppersLaid = (
  subfloor: Subfloor,
  choice: FloorChoice,
  survey: Survey,
  units: readonly Shadow[],
  book: PriceBook,
): readonly UpperLaid[] =>
  subfloor.upper.map((layer, i) => laidOn(layer, subfloor.upper[i - 1] ?? subfloor, choice, survey, units, book));
