import { placeSeen } from '../../parts/lay-flat.js';
import { endOf, isAt, standsAt, type Shadow } from '../../document/body.js';
import type { Track, WindowBox } from './box.js';
import type { BoxChoice, PriceBook, Side, Survey } from '../../document/schema.js';
import type { Part, Vector } from '../../parts/part.js';
import { bevelOf } from '../../parts/scribe.js';
import { placedOpenings, type PlacedOpening } from '../../shell/openings.js';
import { materialOf } from '../../materials/material.js';
import type { Reveal } from '../../layers/knock-on.js';
import { valueAt } from '../../document/address.js';
import { spread, type Point } from '../../numeric/plane.js';
import { frameTrim, TRIM_BACK_MM } from './frame-trim.js';
import { hatchBox } from './hatch-box.js';
import { halfWidth, leanUp, type Shell } from '../../shell/shell.js';

const TRACK_BEYOND_MM = 100;
const TRACK_ABOVE_MM = 60;
const HEM_CLEAR_MM = 10;
const BRACKETS_MM = 450;

function trackOver(placed: PlacedOpening, side: Side, face: Shell, units: readonly Shadow[]): Track {
  const length = placed.to - placed.from + 2 * TRACK_BEYOND_MM;
  const z = placed.head + TRACK_ABOVE_MM;
  const top = (x: number): number =>
    Math.max(
      face.floor,
      ...units
        .filter((unit) => standsAt(unit, side))
        .filter((unit) => isAt(unit, x))
        .map((unit) => face.floor + unit.body.to),
    );
  const from = placed.from - TRACK_BEYOND_MM;
  return {
    length,
    brackets: Math.max(2, Math.ceil(length / BRACKETS_MM) + 1),
    hems: [from, from + length / 2, from + length].map((x) => z - top(x) - HEM_CLEAR_MM),
  };
}

/** The largest upright rectangle within an opening whose sides lean. */
function squared(survey: Survey, placed: PlacedOpening): { readonly from: number; readonly to: number } {
  const at = (what: string): number | null => valueAt(survey, `opening/${placed.opening.id}/${what}`);
  return {
    from: Math.max(placed.from, at('from-head') ?? placed.from),
    to: Math.min(placed.to, at('to-head') ?? placed.to),
  };
}

/**
 * The box of one window in a side wall. Level boards run through, upright ones stand between them. Depths are those of the
 * reveal's corners; an upright board's front edge follows the wall's own curve between its corners.
 * @param face the shell of the finished faces
 */
function boxFor(
  placed: PlacedOpening,
  reveal: Reveal,
  survey: Survey,
  units: readonly Shadow[],
  face: Shell,
  choice: BoxChoice,
  book: PriceBook,
): WindowBox {
  const { opening, sill, head } = placed;
  const side = opening.surface as Side;
  const { from, to } = squared(survey, placed);
  const material = materialOf(book, choice.board);
  const thickness = material?.thickness ?? 0;
  const sign = side === 'left' ? -1 : 1;
  const depthAt = (
    which: 'frame-front-low' | 'frame-front-high' | 'frame-rear-low' | 'frame-rear-high',
  ): number | null => reveal.corners[which];
  const missing: WindowBox['missing'][number][] = [];
  const parts: Part[] = [];
  const add = (
    name: 'sill' | 'head' | 'front' | 'rear',
    number: number,
    outer: readonly Point[],
    bevel: Part['edges'],
    place: Pick<Part['place'], 'origin' | 'along' | 'across'>,
  ): void =>
    void parts.push({
      id: `window-${opening.id}-${name}`,
      role: 'reveal',
      number,
      unit: null,
      surface: 'windows',
      of: opening.name,
      material: choice.board,
      thickness,
      outline: { outer, holes: [] },
      grain: material?.grain ?? false,
      edges: bevel,
      place: placeSeen(place.origin, place.along, place.across),
    });
  const inward: Vector = [0, 0 - sign, 0];
  const edgeOf = (z: number, at: 'front'): Part['edges'] => [
    {
      kind: 'visible',
      at,
      trueLine: [],
      allowance: 0,
      largestRemoval: 0,
      ...bevelOf(
        [from, to].map((x) => leanUp(face, side, x, z)),
        thickness,
      ),
    },
  ];
  const frameY = (x: number, z: number, depth: number): number => sign * (halfWidth(face, side, x, z) + depth);
  for (const [name, z, a, b] of [
    ['sill', sill, depthAt('frame-front-low'), depthAt('frame-rear-low')],
    ['head', head - thickness, depthAt('frame-front-high'), depthAt('frame-rear-high')],
  ] as const) {
    if (a === null || b === null) {
      missing.push(name);
      continue;
    }
    const length = to - from;
    add(
      name,
      name === 'sill' ? 1 : 2,
      [
        [0, 0],
        [length, 0],
        [length, b],
        [0, a],
      ],
      edgeOf(z, 'front'),
      { origin: [from, frameY(from, z, a), z], along: [1, 0, 0], across: inward },
    );
  }
  const height = head - sill - 2 * thickness;
  for (const [name, x, low, high] of [
    ['front', from, depthAt('frame-front-low'), depthAt('frame-front-high')],
    ['rear', to - thickness, depthAt('frame-rear-low'), depthAt('frame-rear-high')],
  ] as const) {
    if (low === null || high === null) {
      missing.push(name);
      continue;
    }
    const [z0, z1] = [sill + thickness, head - thickness];
    const chord = (z: number): number =>
      halfWidth(face, side, x, sill) +
      ((halfWidth(face, side, x, head) - halfWidth(face, side, x, sill)) * (z - sill)) / (head - sill);
    // where the wall bellies out behind the straight line between its corners, the board is less deep
    const edge = spread(z0, z1, 9).map((z): Point => {
      const straight = low + ((high - low) * (z - sill)) / (head - sill);
      return [z - z0, straight + (chord(z) - halfWidth(face, side, x, z))];
    });
    add(name, name === 'front' ? 3 : 4, [[0, 0], [height, 0], ...[...edge].reverse()], [], {
      origin: [x, frameY(x, z0, low), z0],
      along: [0, 0, 1],
      across: inward,
    });
  }
  const inside = { length: to - from - 2 * thickness + 2 * TRIM_BACK_MM, height: height + 2 * TRIM_BACK_MM };
  const [x0, z0] = [from + thickness - TRIM_BACK_MM, sill + thickness - TRIM_BACK_MM];
  const y0 = sign * halfWidth(face, side, x0, z0);
  parts.push(
    ...frameTrim(opening, materialOf(book, choice.trim), inside, (a, b) => [x0 + a, y0, z0 + b], [1, 0, 0], [0, 0, 1]),
  );
  const clear = { length: to - from - 2 * thickness, height };
  return {
    opening: opening.id,
    name: opening.name,
    above: false,
    clear,
    lost: 1 - (clear.length * clear.height) / ((placed.to - placed.from) * (head - sill)),
    parts,
    track: trackOver(placed, side, face, units),
    behind: units
      .filter((unit) => standsAt(unit, side))
      .filter((unit) => unit.body.x < placed.to && endOf(unit) > placed.from)
      .filter((unit) => face.floor + unit.body.to > sill)
      .map((unit) => unit.id),
    missing,
  };
}

/** The boxes of all framed windows in the side walls, and hatches in the roof, that have a lining. Nothing when their board is not in the price book. */
export function windowBoxes(
  survey: Survey,
  reveals: readonly Reveal[],
  units: readonly Shadow[],
  face: Shell,
  choice: BoxChoice,
  book: PriceBook,
): readonly WindowBox[] {
  if (!materialOf(book, choice.board)) return [];
  return placedOpenings(survey).flatMap((placed): WindowBox[] => {
    const reveal = reveals.find((candidate) => candidate.opening.id === placed.opening.id);
    if (!reveal || reveal.most === null || placed.opening.surface === 'rear') return [];
    return placed.opening.surface === 'roof'
      ? [hatchBox(placed, reveal, face, choice, book)]
      : [boxFor(placed, reveal, survey, units, face, choice, book)];
  });
}
