import { endOf, isAt, standsAt, type Shadow } from '../../document/body.js';
import type { Track, WindowBox } from './box.js';
import type { BoxChoice, PriceBook, PriceItem, Side, Survey } from '../../document/schema.js';
import type { Part, Vector } from '../../parts/part.js';
import { revealBoard, type RevealBoardSize } from './reveal-board.js';
import { bevelOf } from '../../parts/scribe.js';
import { openingArea, placedOpenings, quadOf, widthOf, type PlacedOpening } from '../../shell/openings.js';
import { materialOf } from '../../materials/material.js';
import type { Reveal } from '../../layers/knock-on.js';
import { ringArea, spread, type Point } from '../../numeric/plane.js';
import { clearOf, frameTrim, TRIM_BACK_MM } from './frame-trim.js';
import { boxOutside } from './box-outside.js';
import { hatchBox } from './hatch-box.js';
import { halfWidth, leanUp, type Shell } from '../../shell/shell.js';

const TRACK_BEYOND_MM = 100;
const TRACK_ABOVE_MM = 60;
const HEM_CLEAR_MM = 10;
const BRACKETS_MM = 450;

/**
 * The track of a curtain over a window: 60 above its head, or at the underside of what hangs there lower. Its hems end over
 * what stands beneath; null where something stands in the track's own place.
 */
function trackOver(placed: PlacedOpening, side: Side, face: Shell, units: readonly Shadow[]): Track | null {
  const wide = widthOf(placed);
  const length = wide.to - wide.from + 2 * TRACK_BEYOND_MM;
  const from = wide.from - TRACK_BEYOND_MM;
  const beside = units.filter((unit) => standsAt(unit, side) && unit.body.x < from + length && endOf(unit) > from);
  const under = beside.map(({ body }) => face.floor + body.from).filter((foot) => foot >= placed.head);
  const z = Math.min(placed.head + TRACK_ABOVE_MM, ...under);
  const top = (x: number): number =>
    Math.max(
      face.floor,
      ...beside
        .filter((unit) => isAt(unit, x) && face.floor + unit.body.from < z)
        .map((unit) => face.floor + unit.body.to),
    );
  if (spread(from, from + length, 9).some((x) => top(x) >= z)) return null;
  return {
    length,
    brackets: Math.max(2, Math.ceil(length / BRACKETS_MM) + 1),
    hems: [from, from + length / 2, from + length].map((x) => z - top(x) - HEM_CLEAR_MM),
  };
}

/** The finished face an opening is in: a side wall, the front end, or the plane of the rear doors. */
interface FacePlane {
  /** How far out the face lies at a place, mm; and how it leans there, radians. */
  readonly out: (x: number, z: number) => number;
  readonly lean: (x: number, z: number) => number;
  /** A place so far behind the face, in the vehicle. */
  readonly at: (x: number, z: number, behind: number) => Vector;
  readonly along: Vector;
  readonly inward: Vector;
}

function planeOf(surface: Side | 'rear' | 'front', face: Shell): FacePlane {
  if (surface === 'rear' || surface === 'front') {
    const [end, out] = surface === 'rear' ? [face.length, 1] : [face.start, -1];
    return {
      out: () => 0,
      lean: () => 0,
      at: (y, z, behind) => [end + out * behind, y, z],
      along: [0, 1, 0],
      inward: [0 - out, 0, 0],
    };
  }
  const sign = surface === 'left' ? -1 : 1;
  const out = (x: number, z: number): number => halfWidth(face, surface, x, z);
  return {
    out,
    lean: (x, z) => leanUp(face, surface, x, z),
    at: (x, z, behind) => [x, sign * (out(x, z) + behind), z],
    along: [1, 0, 0],
    inward: [0, 0 - sign, 0],
  };
}

/**
 * The box of one window in a side wall, a rear door or the front end. Level boards run through, the others stand between them and lean as the sides of
 * the opening do. Depths are those of the reveal's corners; an upright board's front edge follows the wall's own curve
 * between its corners.
 * @param face the shell of the finished faces
 */
function boxFor(
  whole: PlacedOpening,
  reveal: Reveal,
  units: readonly Shadow[],
  face: Shell,
  choice: BoxChoice,
  material: PriceItem,
  book: PriceBook,
): WindowBox {
  const { opening } = whole;
  const upright = (choice.upright ?? []).includes(opening.id);
  const outside = boxOutside(whole, upright);
  const placed: PlacedOpening = { opening, ...outside };
  const { sill, head } = placed;
  const side = opening.surface === 'left' || opening.surface === 'right' ? opening.surface : null;
  const plane = planeOf(side ?? (opening.surface === 'front' ? 'front' : 'rear'), face);
  const { thickness } = material;
  const { corners: depths } = reveal;
  const known = {
    front: [depths['frame-front-low'], depths['frame-front-high']],
    rear: [depths['frame-rear-low'], depths['frame-rear-high']],
  } as const;
  const tall = whole.head - whole.sill;
  const wholeSide = {
    front: (z: number): number => whole.from + ((whole.fromHead - whole.from) * (z - whole.sill)) / tall,
    rear: (z: number): number => whole.to + ((whole.toHead - whole.to) * (z - whole.sill)) / tall,
  };
  /**
   * How deep the box is at a place beside one of its ends: from the frame, straight between the opening's corners there, to
   * the face; null while one that it takes is not read.
   */
  const deepAt = (end: 'front' | 'rear', x: number, z: number): number | null => {
    const [low, high] = known[end];
    const share = (z - whole.sill) / tall;
    const frame = (depth: number | null, corner: number): number | null =>
      depth === null ? null : plane.out(wholeSide[end](corner), corner) + depth;
    const [a, b] = [frame(low, whole.sill), frame(high, whole.head)];
    // a level board at one edge needs that corner alone
    const at = share <= 0 || b === null ? a : share >= 1 || a === null ? b : a + (b - a) * share;
    return at === null ? null : at - plane.out(x, z);
  };
  /** The same where a level board's end lies: near a corner, and as that where the other is not read. */
  const endDepth = (end: 'front' | 'rear', z: number, corner: 0 | 1): number | null =>
    known[end][corner] === null ? null : deepAt(end, sides[end](z), z);
  const missing: WindowBox['missing'][number][] = [];
  const parts: Part[] = [];
  const add = (
    name: RevealBoardSize['name'],
    number: number,
    outer: readonly Point[],
    edges: Part['edges'],
    place: RevealBoardSize['place'],
    good: Vector,
  ): void => void parts.push(revealBoard(opening, choice, material, { name, number, outer, edges, place, good }));
  const { inward } = plane;
  const high = head - sill;
  const leans = { front: (placed.fromHead - placed.from) / high, rear: (placed.toHead - placed.to) / high };
  const sides = {
    front: (z: number): number => placed.from + leans.front * (z - sill),
    rear: (z: number): number => placed.to + leans.rear * (z - sill),
  };
  // a bevel is told from the drawn face into the thickness: down from a sill's, up from a head's
  const edgeOf = (z: number, good: 1 | -1, at: 'front'): Part['edges'] => [
    {
      kind: 'visible',
      at,
      trueLine: [],
      allowance: 0,
      largestRemoval: 0,
      ...bevelOf(
        [sides.front(z), sides.rear(z)].map((x) => good * plane.lean(x, z)),
        thickness,
      ),
    },
  ];
  /** An end that is sawn along a leaning board: how far it moves out for each mm into the thickness. */
  const sawn = (at: 'left' | 'right', lean: number): Part['edges'] =>
    lean === 0
      ? []
      : [
          {
            kind: 'visible',
            at,
            trueLine: [],
            allowance: 0,
            largestRemoval: 0,
            ...bevelOf([Math.atan(lean)], thickness),
          },
        ];
  for (const [name, z, a, b] of [
    ['sill', sill, endDepth('front', sill, 0), endDepth('rear', sill, 0)],
    ['head', head - thickness, endDepth('front', head, 1), endDepth('rear', head, 1)],
  ] as const) {
    if (a === null || b === null) {
      missing.push(name);
      continue;
    }
    const [from, to] = [sides.front(z), sides.rear(z)];
    const length = to - from;
    const good = name === 'sill' ? 1 : -1;
    add(
      name,
      name === 'sill' ? 1 : 2,
      [
        [0, 0],
        [length, 0],
        [length, b],
        [0, a],
      ],
      [...edgeOf(z, good, 'front'), ...sawn('left', good * leans.front), ...sawn('right', -good * leans.rear)],
      { origin: plane.at(from, name === 'sill' ? z + thickness : z, a), along: plane.along, across: inward },
      [0, 0, good],
    );
  }
  const height = head - sill - 2 * thickness;
  for (const name of ['front', 'rear'] as const) {
    if (known[name].includes(null)) {
      missing.push(name);
      continue;
    }
    const [z0, z1] = [sill + thickness, head - thickness];
    const lean = leans[name];
    const good = name === 'front' ? 1 : -1;
    // along the board, which leans with the side of the opening
    const slope = Math.hypot(1, lean);
    const at = (z: number): number => sides[name](z) - (name === 'rear' ? thickness * slope : 0);
    // where the wall bellies out behind the straight line between its corners, the board is less deep
    const edge = spread(z0, z1, 9).map((z): Point => [(z - z0) * slope, deepAt(name, at(z), z) ?? 0]);
    add(
      name,
      name === 'front' ? 3 : 4,
      [[0, 0], [height * slope, 0], ...[...edge].reverse()],
      [...sawn('left', good * lean), ...sawn('right', -good * lean)],
      {
        origin: plane.at(at(z0) + (name === 'front' ? thickness * slope : 0), z0, edge[0]?.[1] ?? 0),
        along: [(plane.along[0] * lean) / slope, (plane.along[1] * lean) / slope, 1 / slope],
        across: inward,
      },
      name === 'front' ? plane.along : [0 - plane.along[0], 0 - plane.along[1], 0 - plane.along[2]],
    );
  }
  // inside the boards, the trim a little back from their faces
  const [corners, inner] = [quadOf(placed, thickness - TRIM_BACK_MM), quadOf(placed, thickness)];
  const [x0, z0] = corners[0];
  // flat before the wall: as far in as its first corner lies
  const [cx, cy] = plane.at(x0, z0, 0);
  parts.push(
    ...frameTrim(
      opening,
      materialOf(book, choice.trim),
      corners,
      ([x, z]) => (side ? [x, cy, z] : [cx, x, z]),
      plane.along,
      [0, 0, 1],
      plane.inward,
    ),
  );
  const leaning = whole.from !== whole.fromHead || whole.to !== whole.toHead;
  return {
    opening: opening.id,
    name: opening.name,
    above: false,
    outside,
    leans: leaning ? (upright ? 'opening-alone' : 'with-it') : 'no',
    clear: clearOf(inner),
    lost: 1 - Math.abs(ringArea(inner)) / (openingArea(whole) * 1e6),
    parts,
    // what hangs before a door's window hangs on the door
    track: side && trackOver(whole, side, face, units),
    behind: units
      .filter((unit) => side !== null && standsAt(unit, side))
      .filter((unit) => unit.body.x < widthOf(whole).to && endOf(unit) > widthOf(whole).from)
      // what hangs over it is not before it
      .filter(({ body }) => face.floor + body.from < whole.head)
      .filter((unit) => face.floor + unit.body.to > whole.sill)
      .map((unit) => unit.id),
    missing,
  };
}

/** The boxes of all framed windows in side walls, rear doors and the front end, and hatches in the roof, that have a lining. Nothing when their board is not in the price book. */
export function windowBoxes(
  survey: Survey,
  reveals: readonly Reveal[],
  units: readonly Shadow[],
  face: Shell,
  choice: BoxChoice,
  book: PriceBook,
): readonly WindowBox[] {
  const material = materialOf(book, choice.board);
  if (!material) return [];
  return placedOpenings(survey).flatMap((placed): WindowBox[] => {
    const reveal = reveals.find((candidate) => candidate.opening.id === placed.opening.id);
    if (!reveal || reveal.most === null) return [];
    return placed.opening.surface === 'roof'
      ? [hatchBox(placed, reveal, face, choice, material, book)]
      : [boxFor(placed, reveal, units, face, choice, material, book)];
  });
}
