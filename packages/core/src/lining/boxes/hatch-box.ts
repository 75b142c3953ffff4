import type { BoxChoice, PriceBook, PriceItem } from '../../document/schema.js';
import type { Part, Vector } from '../../parts/part.js';
import { revealBoard, type RevealBoardSize } from './reveal-board.js';
import { bevelOf } from '../../parts/scribe.js';
import { openingArea, type PlacedOpening } from '../../shell/openings.js';
import { materialOf } from '../../materials/material.js';
import type { Reveal } from '../../layers/knock-on.js';
import { rectangle, spread, type Point } from '../../numeric/plane.js';
import { roofHeight, type Shell } from '../../shell/shell.js';
import { boxOutside } from './box-outside.js';
import { frameTrim, TRIM_BACK_MM } from './frame-trim.js';
import type { WindowBox } from './box.js';

const SAMPLES = 9;

/** How the ceiling leans across the vehicle at a place: radians, positive when it rises to the right. */
function leanAcross(face: Shell, x: number, y: number): number {
  const h = 2;
  return Math.atan2(roofHeight(face, x, y + h) - roofHeight(face, x, y - h), 2 * h);
}

/**
 * The box of a hatch or fan in the roof: four boards hanging from its frame to the ceiling's face. Those along the vehicle
 * run through; those across stand between them, and their edge in sight follows the ceiling's own curve. The frame is
 * taken to be straight between its corners.
 * @param face the shell of the finished faces
 */
export function hatchBox(
  placed: PlacedOpening,
  reveal: Reveal,
  face: Shell,
  choice: BoxChoice,
  material: PriceItem,
  book: PriceBook,
): WindowBox {
  const { opening } = placed;
  const outside = boxOutside(placed, true);
  const { from, to, sill, head } = outside;
  const t = material.thickness;
  const length = to - from;
  const { corners } = reveal;
  /** Height of the frame at one of its ends, straight between its own corners; null while one of them is not read. */
  const frameAt = (end: 'front' | 'rear', y: number): number | null => {
    const x = end === 'front' ? placed.from : placed.to;
    const [low, high] = [corners[`frame-${end}-low`], corners[`frame-${end}-high`]];
    const share = (y - placed.sill) / (placed.head - placed.sill);
    const [a, b] = [low, high].map((depth, i) =>
      depth === null ? null : roofHeight(face, x, i === 0 ? placed.sill : placed.head) + depth,
    );
    if (a == null || b == null) return share <= 0.5 ? (a ?? null) : (b ?? null);
    return a + (b - a) * share;
  };
  /** How deep the box is there. */
  const deepAt = (end: 'front' | 'rear', x: number, y: number): number | null => {
    const frame = frameAt(end, y);
    return frame === null ? null : frame - roofHeight(face, x, y);
  };
  const missing: WindowBox['missing'][number][] = [];
  const board = (
    name: RevealBoardSize['name'],
    number: number,
    outer: readonly Point[],
    edges: Part['edges'],
    place: RevealBoardSize['place'],
    good: Vector,
  ): Part => revealBoard(opening, choice, material, { name, number, outer, edges, place, good });
  const level = (
    [
      ['sill', 1, sill, deepAt('front', from, sill), deepAt('rear', to, sill)],
      ['head', 2, head - t, deepAt('front', from, head), deepAt('rear', to, head)],
    ] as const
  ).flatMap(([name, number, y, a, b]): Part[] => {
    if (a === null || b === null) {
      missing.push(name);
      return [];
    }
    const bevel = bevelOf(
      // told from the drawn face into the thickness
      [from, to].map((x) => (name === 'sill' ? 1 : -1) * leanAcross(face, x, y + t / 2)),
      t,
    );
    return [
      board(
        name,
        number,
        [
          [0, 0],
          [length, 0],
          [length, b],
          [0, a],
        ],
        [{ kind: 'visible', at: 'front', trueLine: [], allowance: 0, largestRemoval: 0, ...bevel }],
        {
          origin: [from, name === 'sill' ? y + t : y, roofHeight(face, from, y) + a],
          along: [1, 0, 0],
          across: [0, 0, -1],
        },
        [0, name === 'sill' ? 1 : -1, 0],
      ),
    ];
  });
  const width = head - sill - 2 * t;
  const across = (
    [
      ['front', 3, from],
      ['rear', 4, to - t],
    ] as const
  ).flatMap(([name, number, x]): Part[] => {
    if (corners[`frame-${name}-low`] === null || corners[`frame-${name}-high`] === null) {
      missing.push(name);
      return [];
    }
    // how deep it is at each place: from the frame's straight line down to the ceiling
    const edge = spread(0, width, SAMPLES).map((along): Point => {
      const y = sill + t + along;
      return [along, deepAt(name, x, y) ?? 0];
    });
    return [
      board(
        name,
        number,
        [[0, 0], [width, 0], ...[...edge].reverse()],
        [],
        {
          origin: [name === 'front' ? x + t : x, sill + t, roofHeight(face, x, sill + t) + (edge[0]?.[1] ?? 0)],
          along: [0, 1, 0],
          across: [0, 0, -1],
        },
        [name === 'front' ? 1 : -1, 0, 0],
      ),
    ];
  });
  const back = t - TRIM_BACK_MM;
  const trim = frameTrim(
    opening,
    materialOf(book, choice.trim),
    rectangle(from + back, sill + back, to - back, head - back),
    ([x, y]) => [x, y, roofHeight(face, x, y)],
    [1, 0, 0],
    [0, 1, 0],
    [0, 0, -1],
  );
  const clear = { length: length - 2 * t, top: length - 2 * t, height: width };
  return {
    opening: opening.id,
    name: opening.name,
    above: true,
    outside,
    leans: 'no',
    clear,
    lost: 1 - (clear.length * clear.height) / (openingArea(placed) * 1e6),
    parts: [...level, ...across, ...trim],
    track: null,
    behind: [],
    missing,
  };
}
