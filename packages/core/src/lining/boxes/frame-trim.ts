import { placeSeen } from '../../parts/lay-flat.js';
import type { Opening, PriceItem } from '../../document/schema.js';
import { isBar } from '../../materials/bars.js';
import type { Part, Vector } from '../../parts/part.js';

/** The trim stands back from the boards' inner faces, mm. */
export const TRIM_BACK_MM = 3;
const MITRE = { start: 45, end: 45 } as const;
const opposite = ([x, y, z]: Vector): Vector => [0 - x, 0 - y, 0 - z];

/**
 * Four lengths of a profile round an opening, mitred where they meet.
 * @param inside of the frame, mm
 * @param at where a place of the frame's own plane is in the vehicle
 * @param along the frame's length, `up` its height
 */
export function frameTrim(
  opening: Opening,
  trim: PriceItem | null,
  inside: { readonly length: number; readonly height: number },
  at: (a: number, b: number) => Vector,
  along: Vector,
  up: Vector,
): Part[] {
  if (!trim || !isBar(trim)) return [];
  const w = trim.width;
  const piece = (number: number, clear: number, origin: Vector, run: Vector, across: Vector): Part => {
    const length = clear + 2 * w;
    return {
      id: `window-${opening.id}-trim-${number}`,
      role: 'trim',
      number,
      unit: null,
      surface: 'windows',
      of: opening.name,
      material: trim.id,
      thickness: trim.thickness,
      outline: {
        outer: [
          [w, 0],
          [length - w, 0],
          [length, w],
          [0, w],
        ],
        holes: [],
      },
      grain: true,
      ends: MITRE,
      edges: [],
      place: placeSeen(origin, run, across),
    };
  };
  return [
    piece(1, inside.length, at(-w, 0), along, opposite(up)),
    piece(2, inside.length, at(-w, inside.height), along, up),
    piece(3, inside.height, at(0, -w), up, opposite(along)),
    piece(4, inside.height, at(inside.length, -w), up, along),
  ];
}
