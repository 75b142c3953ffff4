import { seenFrom } from '../../parts/hand.js';
import { placeSeen } from '../../parts/lay-flat.js';
import type { PriceBook, PriceItem, Survey } from '../../document/schema.js';
import { HIDDEN_LEFT_MM, pickFastener, type Picked } from '../../rules/fasteners.js';
import { wholeUp } from '../../numeric/tolerance.js';
import type { Shadow } from '../../document/body.js';
import { barStocks, isBar } from '../../materials/bars.js';
import { rectangle, type Ring } from '../../numeric/plane.js';
import { blankOf, type Part, type Vector } from '../../parts/part.js';
import { placedOpenings } from '../../shell/openings.js';
import type { ArchShape } from '../../shell/arch.js';
import { halfWidth, type Shell } from '../../shell/shell.js';
import { freeInDoors } from './floor-holes.js';

/** A door whose sill is no higher than this over the floor has the floor's edge in it, mm. */
const IN_DOOR_MM = 120;

/** The longest piece that a profile gives, mm; 0 where it is not sold by the length. */
export const longestTrim = (trim: PriceItem | null): number =>
  trim && isBar(trim) ? Math.max(...barStocks(trim).map((stock) => stock.length)) : 0;

/** A screw every so far along a trim of the floor, and no fewer than two, mm. */
const SCREWS_MM = 200;

/** What the trims of the floor are screwed with into its board. */
export interface TrimsHeld {
  readonly picked: Picked | null;
  readonly count: number;
}

/**
 * Screws of everything that is trimmed on the floor, into the board under it.
 * @param board thickness of what they go into, mm; 0 where there is none
 */
export function trimsHeld(trims: readonly Part[], board: number, book: PriceBook): TrimsHeld | null {
  const [first] = trims;
  if (!first || board <= 0) return null;
  return {
    picked: pickFastener(book, { passed: first.thickness, gap: 0, into: 'wood', depth: board, spare: HIDDEN_LEFT_MM }),
    count: trims.reduce((sum, part) => sum + Math.max(2, wholeUp(blankOf(part).length / SCREWS_MM) + 1), 0),
  };
}

/** One length of a trim: along the floor's edge, or back from it to the wall. */
interface Length {
  readonly id: string;
  readonly of?: string;
  readonly ring: Ring;
  readonly ends: { readonly start: number; readonly end: number };
  readonly place: Part['place'];
}

/** A length as a part: it lies on the floor, and its good face looks up. */
function trimPart({ id, of, ring, ends, place }: Length, number: number, trim: PriceItem): Part {
  const [x, y, z] = place.origin;
  return seenFrom(
    {
      id,
      role: 'trim',
      number,
      unit: null,
      surface: 'floor',
      ...(of === undefined ? {} : { of }),
      material: trim.id,
      thickness: trim.thickness,
      outline: { outer: ring, holes: [] },
      grain: true,
      ends,
      edges: [],
      // given where its underside is
      place: { ...place, origin: [x, y, z + trim.thickness] },
    },
    [0, 0, 1],
  );
}

/**
 * Trims of a stretch of the floor's edge along a side door: one length along it; where the board is kept back, a return at
 * each end out to where the floor goes on, all mitred in the inside corners.
 */
function alongDoor(
  { door, name, side, from, to }: ReturnType<typeof freeInDoors>[number],
  inner: Shell,
  width: number,
  back: number,
  number: number,
): Length[] {
  const sign = side === 'left' ? -1 : 1;
  const edge = halfWidth(inner, side, (from + to) / 2, inner.floor) - back;
  const length = to - from;
  const id = number === 0 ? `floor-edge-${door}` : `floor-edge-${door}-${number + 1}`;
  if (back <= 0)
    return [
      {
        id,
        of: name,
        ring: rectangle(0, 0, length, width),
        ends: { start: 0, end: 0 },
        place: placeSeen([from, sign * edge, inner.floor], [1, 0, 0], [0, 0 - sign, 0]),
      },
    ];
  const lengths = notchLengths({ side, from, to, edge, z: inner.floor }, [back, back], width);
  return (['', '-front', '-rear'] as const).flatMap((which, i): Length[] => {
    const made = lengths[i];
    return made ? [{ id: `${id}${which}`, of: name, ...made }] : [];
  });
}

const MITRE_DEGREES = 45;

/** A bite out of the floor's edge at a side: from where to where along it, and how far out its inner edge lies, mm. */
interface Notch {
  readonly side: 'left' | 'right';
  readonly from: number;
  readonly to: number;
  readonly edge: number;
  readonly z: number;
}

/**
 * A profile round three edges of a bite out of the floor: along its inner edge, and from both its corners out to the wall,
 * mitred where they meet. It lies on the floor.
 * @param back how long the returns at its front and rear are on their edge, mm
 */
export function notchLengths(
  { side, from, to, edge, z }: Notch,
  back: readonly [number, number],
  width: number,
): readonly Pick<Length, 'ring' | 'ends' | 'place'>[] {
  const sign = side === 'left' ? -1 : 1;
  const length = to - from;
  const at = (x: number, out: number): Vector => [x, sign * out, z];
  return [
    {
      // longer on its inner edge: it runs past the corners by its own width
      ring: [
        [width, 0],
        [width + length, 0],
        [2 * width + length, width],
        [0, width],
      ],
      ends: { start: MITRE_DEGREES, end: MITRE_DEGREES },
      place: placeSeen(at(from - width, edge), [1, 0, 0], [0, 0 - sign, 0]),
    },
    ...(
      [
        [from, -1, back[0]],
        [to, 1, back[1]],
      ] as const
    ).map(([x, way, long]) => ({
      // from the corner out to the wall on the edge, and its own width more on the far side
      ring: [
        [width, 0],
        [width + long, 0],
        [width + long, width],
        [0, width],
      ] as const,
      ends: { start: MITRE_DEGREES, end: 0 },
      place: placeSeen(at(x, edge - width), [0, sign, 0], [way, 0, 0]),
    })),
  ];
}

/**
 * A profile along the floor's edge in every door, each length in one piece. At an end it runs from side to side; in a side
 * door along what no unit stands in, with returns where the board is kept back.
 * @param inner the shell of the finished faces
 * @param back how far the board is kept back at side doors, mm
 */
export function edgeTrims(
  survey: Survey,
  inner: Shell,
  trim: PriceItem | null,
  units: readonly Shadow[],
  back: number,
): readonly Part[] {
  if (!trim || !isBar(trim)) return [];
  const low = placedOpenings(survey).filter(
    ({ opening, sill }) => opening.kind === 'door' && opening.surface !== 'roof' && sill <= inner.floor + IN_DOOR_MM,
  );
  const free = freeInDoors(survey, units);
  const lengths = low.flatMap(({ opening, from, to }): Length[] =>
    opening.surface === 'rear' || opening.surface === 'front'
      ? [
          {
            id: `floor-edge-${opening.id}`,
            of: opening.name,
            ring: rectangle(0, 0, to - from, trim.width),
            ends: { start: 0, end: 0 },
            place:
              opening.surface === 'rear'
                ? placeSeen([inner.length, from, inner.floor], [0, 1, 0], [-1, 0, 0])
                : placeSeen([inner.start, from, inner.floor], [0, 1, 0], [1, 0, 0]),
          },
        ]
      : free
          .filter(({ door }) => door === opening.id)
          .flatMap((stretch, i) => alongDoor(stretch, inner, trim.width, back, i)),
  );
  return lengths.map((length, i) => trimPart(length, i + 1, trim));
}

/** Profiles along the edge of a step: one along its length, one back to the wall at each end, mitred where they meet. */
export function stepTrims(arches: readonly ArchShape[], inner: Shell, trim: PriceItem | null): readonly Part[] {
  if (!trim || !isBar(trim)) return [];
  return arches
    .filter((arch) => arch.kind === 'step')
    .flatMap(({ id, side, from, to, face: edge }): Part[] => {
      const z = inner.floor;
      const back = (x: number): number => Math.max(0, halfWidth(inner, side, x, z) - edge);
      return notchLengths({ side, from, to, edge, z }, [back(from), back(to)], trim.width).map((length, i) =>
        trimPart({ id: `step-${id}-trim-${i + 1}`, ...length }, i + 1, trim),
      );
    });
}
