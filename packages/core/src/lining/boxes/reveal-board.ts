import type { BoxChoice, Opening, PriceItem } from '../../document/schema.js';
import type { Point } from '../../numeric/plane.js';
import { seenFrom } from '../../parts/hand.js';
import { placeSeen } from '../../parts/lay-flat.js';
import type { Part, Vector } from '../../parts/part.js';
import { leaveOn } from '../../parts/scribe.js';

/** One board of the box round a window or a hatch, of the size it is to have in the end. */
export interface RevealBoardSize {
  readonly name: 'sill' | 'head' | 'front' | 'rear';
  readonly number: number;
  /** Its first two corners lie at the opening's frame, the others at the finished face. */
  readonly outer: readonly Point[];
  readonly edges: Part['edges'];
  /** Where its first corner is, on its good face. */
  readonly place: Pick<Part['place'], 'origin' | 'along' | 'across'>;
  /** Which way its good face looks. */
  readonly good: Vector;
}

/** A board as a part: larger where it is scribed to frame and face, drawn from its good face. */
export const revealBoard = (
  opening: Opening,
  choice: BoxChoice,
  material: PriceItem,
  { name, number, outer, edges, place, good }: RevealBoardSize,
): Part =>
  seenFrom(
    leaveOn(
      {
        id: `window-${opening.id}-${name}`,
        role: 'reveal',
        number,
        unit: null,
        surface: 'windows',
        of: opening.name,
        material: material.id,
        thickness: material.thickness,
        outline: { outer, holes: [] },
        grain: material.grain,
        edges,
        place: placeSeen(place.origin, place.along, place.across),
      },
      choice.scribe ?? 0,
      [
        { at: 'back', line: outer.slice(0, 2), out: [0, -1] },
        { at: 'front', line: outer.slice(2), out: [0, 1] },
      ],
    ),
    good,
  );
