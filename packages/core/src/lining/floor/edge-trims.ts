import { placeSeen } from '../../parts/lay-flat.js';
import type { PriceItem, Survey } from '../../document/schema.js';
import type { Shadow } from '../../document/body.js';
import { barStocks, isBar } from '../../materials/bars.js';
import { rectangle, type Ring } from '../../numeric/plane.js';
import type { Part, Vector } from '../../parts/part.js';
import { placedOpenings } from '../../shell/openings.js';
import { halfWidth, type Shell } from '../../shell/shell.js';
import { freeInDoors } from './floor-holes.js';

/** A door whose sill is no higher than this over the floor has the floor's edge in it, mm. */
const IN_DOOR_MM = 120;

/** The longest piece that a profile gives, mm; 0 where it is not sold by the length. */
export const longestTrim = (trim: PriceItem | null): number =>
  trim && isBar(trim) ? Math.max(...barStocks(trim).map((stock) => stock.length)) : 0;

/** One length of a trim: along the floor's edge, or back from it to the wall. */
interface Length {
  readonly id: string;
  readonly of: string;
  readonly ring: Ring;
  readonly ends: { readonly start: number; readonly end: number };
  readonly place: Part['place'];
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
  const inward: Vector = [0, 0 - sign, 0];
  const length = to - from;
  const at = (x: number, out: number): Vector => [x, sign * out, inner.floor];
  const id = number === 0 ? `floor-edge-${door}` : `floor-edge-${door}-${number + 1}`;
  if (back <= 0)
    return [
      {
        id,
        of: name,
        ring: rectangle(0, 0, length, width),
        ends: { start: 0, end: 0 },
        place: placeSeen(at(from, edge), [1, 0, 0], inward),
      },
    ];
  const mitre = 45;
  return [
    {
      id,
      of: name,
      // longer on its inner edge: it runs past the corners by its own width
      ring: [
        [width, 0],
        [width + length, 0],
        [2 * width + length, width],
        [0, width],
      ],
      ends: { start: mitre, end: mitre },
      place: placeSeen(at(from - width, edge), [1, 0, 0], inward),
    },
    ...(
      [
        ['front', from, -1],
        ['rear', to, 1],
      ] as const
    ).map(([which, x, way]): Length => ({
      id: `${id}-${which}`,
      of: name,
      // from the corner out to the wall: as long as the board is kept back, and its width more on the far edge
      ring: [
        [width, 0],
        [width + back, 0],
        [width + back, width],
        [0, width],
      ],
      ends: { start: mitre, end: 0 },
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
  return lengths.map(({ id, of, ring, ends, place }, i): Part => ({
    id,
    role: 'trim',
    number: i + 1,
    unit: null,
    surface: 'floor',
    of,
    material: trim.id,
    thickness: trim.thickness,
    outline: { outer: ring, holes: [] },
    grain: true,
    ends,
    edges: [],
    place,
  }));
}
