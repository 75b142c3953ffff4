import { placeSeen } from '../../parts/lay-flat.js';
import { leaveOn } from '../../parts/scribe.js';
import type { BoxChoice, Corner, PriceBook, PriceItem } from '../../document/schema.js';
import type { Part } from '../../parts/part.js';
import { materialOf } from '../../materials/material.js';
import { rectangle, type Point } from '../../numeric/plane.js';
import { message, mm, type Message } from '../../words/message.js';
import { kerfBend, type KerfBend } from '../surface/bending.js';

/** A piece bent round a corner, with a short one of the same section to try the cuts on. */
export interface CornerPiece {
  readonly id: string;
  readonly name: string;
  /** Null where it cannot be sawn so. */
  readonly bend: KerfBend | null;
  /** Its length on the flat, measured on the outer face, mm. */
  readonly developed: number;
  readonly parts: readonly Part[];
  readonly problems: readonly Message[];
}

/** Height of the piece the cuts are tried on, mm. */
const TEST_MM = 120;

/**
 * The blank of one corner: both legs less what the bend takes off them, and the bent zone on the outer face; the saw cuts
 * spread over it on the back.
 */
function cornerPiece(corner: Corner, material: PriceItem, kerf: number, scribe: number): CornerPiece {
  const { radius, angle, skin, legs } = corner;
  const turn = (angle * Math.PI) / 180;
  const refused = (said: Message): CornerPiece => ({
    id: corner.id,
    name: corner.name,
    bend: null,
    developed: 0,
    parts: [],
    problems: [said],
  });
  if (skin >= material.thickness)
    return refused(message('corner.skin', { name: corner.name, thickness: mm(material.thickness) }));
  // what a leg loses between the sharp corner and where the bend begins; a half turn has no corner to measure from
  const lost = angle < 180 ? radius * Math.tan(turn / 2) : radius;
  const [first, last] = [legs[0] - lost, legs[1] - lost];
  if (first < 0 || last < 0) return refused(message('corner.short', { name: corner.name, least: mm(lost) }));
  const bend = kerfBend(material.thickness, skin, kerf, radius, angle);
  const developed = first + bend.zone + last;
  const cuts = Array.from({ length: bend.cuts }, (_, i) => first + bend.spacing * (i + 0.5));
  const part = (role: 'corner' | 'corner-test', high: number): Part => {
    const place = ([x, y]: Point): Point => (corner.grainRound ? [x, y] : [y, developed - x]);
    const made: Part = {
      id: `${role}-${corner.id}`,
      role,
      number: 1,
      unit: null,
      surface: corner.surface,
      of: corner.name,
      material: material.id,
      thickness: material.thickness,
      outline: {
        outer: corner.grainRound ? rectangle(0, 0, developed, high) : rectangle(0, 0, high, developed),
        holes: [],
      },
      grain: material.grain,
      edges: [],
      marks: {
        lines: [],
        screws: [],
        holes: [],
        grooves: cuts.map((x) => ({ from: place([x, 0]), to: place([x, high]) })),
      },
      place: placeSeen([0, 0, 0], [1, 0, 0], [0, 0, 1]),
    };
    const round = corner.grainRound;
    // the piece the cuts are tried on meets nothing
    return leaveOn(made, role === 'corner' ? scribe : 0, [
      { at: round ? 'left' : 'back', line: [place([0, 0]), place([0, high])], out: round ? [-1, 0] : [0, 1] },
      {
        at: round ? 'right' : 'front',
        line: [place([developed, 0]), place([developed, high])],
        out: round ? [1, 0] : [0, -1],
      },
    ]);
  };
  return {
    id: corner.id,
    name: corner.name,
    bend,
    developed,
    parts: [part('corner', corner.height), part('corner-test', Math.min(TEST_MM, corner.height))],
    problems: [
      ...(bend.crowded ? [message('corner.crowded', { name: corner.name })] : []),
      ...(material.grain && !corner.grainRound ? [message('corner.grain', { name: corner.name })] : []),
    ],
  };
}

/** All corner pieces whose board is in the price book. */
export function cornerPieces(
  corners: readonly Corner[],
  kerf: number,
  { scribe = 0 }: Pick<BoxChoice, 'scribe'>,
  book: PriceBook,
): readonly CornerPiece[] {
  return corners.flatMap((corner) => {
    const material = materialOf(book, corner.board);
    return material && kerf > 0 ? [cornerPiece(corner, material, kerf, scribe)] : [];
  });
}
