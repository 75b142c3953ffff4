import { placeSeen } from '../../parts/lay-flat.js';
import type { PriceItem } from '../../document/schema.js';
import { toOrigin, type Part } from '../../parts/part.js';
import { boxOf, outlineArea, rectangle, type Outline } from '../../numeric/plane.js';
import { clipTo } from '../../numeric/shapes.js';
import type { PlankRow } from './finish.js';

const FAR_MM = 1e5;
/** A piece is plain while it fills its rectangle but for this share; and what is smaller falls out in cutting, mm2. */
const PLAIN_SHARE = 0.03;
const CRUMB_MM2 = 400;

/** From where to where a row runs over what is laid, along x. */
export function spansOf(pieces: readonly Outline[], y0: number, y1: number): (readonly [number, number])[] {
  return pieces
    .flatMap((piece) => clipTo(piece, rectangle(-FAR_MM, y0, FAR_MM, y1)))
    .map((piece) => boxOf(piece.outer))
    .filter((span) => span.maxX - span.minX > 1)
    .map((span) => [span.minX, span.maxX] as const)
    .sort((a, b) => a[0] - b[0]);
}

/** Pieces of a finish that are cut round something: each with its outline as a part, for a template. */
export function awkwardPieces(
  laid: readonly Outline[],
  rows: readonly PlankRow[],
  material: PriceItem,
  z: number,
): readonly Part[] {
  const cut = rows.flatMap((row, r) =>
    row.pieces.flatMap((piece) =>
      laid
        .flatMap((outline) => clipTo(outline, rectangle(piece.x0, row.y0, piece.x1, row.y1)))
        .filter((outline) => outlineArea(outline) > CRUMB_MM2)
        .map((outline) => ({ outline, row: r + 1 })),
    ),
  );
  return cut
    .filter(({ outline }) => {
      const box = boxOf(outline.outer);
      return outlineArea(outline) < (1 - PLAIN_SHARE) * (box.maxX - box.minX) * (box.maxY - box.minY);
    })
    .map(({ outline, row }, i): Part => {
      const { outline: own, moved } = toOrigin(outline);
      return {
        id: `finish-${row}-${i + 1}`,
        role: 'finish',
        number: i + 1,
        unit: null,
        surface: 'floor',
        material: material.id,
        thickness: material.thickness,
        outline: own,
        grain: material.grain,
        edges: [],
        place: placeSeen([moved[0], moved[1], z], [1, 0, 0], [0, 1, 0]),
      };
    });
}
