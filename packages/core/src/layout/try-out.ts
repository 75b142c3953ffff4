import type { Taped, Unit } from '../document/schema.js';
import { outlineFromAbove } from '../furniture/silhouette.js';
import { boxOf, type Point } from '../numeric/plane.js';
import { placeSeen } from '../parts/lay-flat.js';
import { toOrigin, type Part } from '../parts/part.js';
import type { Shell } from '../shell/shell.js';
import { settingOut, type SetOutPoint } from './datum.js';

/** What begins higher than this hangs over the head of the floor plan: it is not taped. A bed on its supports is, mm. */
const HANGS_MM = 900;

/** A unit as it is taped out on the real floor: from the centre line and the front datum, never from the walls. */
export interface FloorOutline {
  readonly unit: string;
  readonly name: string;
  /** Its corners where its front and its ends meet the floor: front near and far, rear near and far. */
  readonly corners: readonly [SetOutPoint, SetOutPoint, SetOutPoint, SetOutPoint];
  /** How far it is from the near corner at the front to the far one at the rear, and from the far to the near one, mm: both together prove the angles. */
  readonly diagonals: readonly [number, number];
  /** By tape alone: from the two ends of the centre line to each corner, mm. */
  readonly tapes: readonly { readonly corner: SetOutPoint['corner']; readonly front: number; readonly rear: number }[];
  /** Its whole outline, with the wall's curve at its foot. */
  readonly ring: readonly Point[];
}

const apart = (a: Pick<SetOutPoint, 'x' | 'y'>, b: Pick<SetOutPoint, 'x' | 'y'>): number =>
  Math.hypot(a.x - b.x, a.y - b.y);

/** The outlines of everything that stands on the floor, in the order of the units. */
export function floorOutlines(units: readonly Unit[], shell: Shell): readonly FloorOutline[] {
  const ends = { front: { x: shell.start, y: 0 }, rear: { x: shell.length, y: 0 } };
  return units
    .filter(({ body }) => body.from < HANGS_MM)
    .flatMap((unit): FloorOutline[] => {
      const [a, b, c, d] = settingOut([unit], shell);
      if (!a || !b || !c || !d) return [];
      const corners = [a, b, c, d] as const;
      return [
        {
          unit: unit.id,
          name: unit.name,
          corners,
          diagonals: [apart(a, d), apart(b, c)],
          tapes: corners.map((corner) => ({
            corner: corner.corner,
            front: apart(corner, ends.front),
            rear: apart(corner, ends.rear),
          })),
          // at its foot, where the card lies
          ring: outlineFromAbove({ ...unit, body: { ...unit.body, to: Math.max(unit.body.from, 1) } }, shell),
        },
      ];
    });
}

/** The corners of an outline, as they are kept when it has been taped. */
export const tapedNow = ({ unit, corners }: FloorOutline): Taped => {
  const [a, b, c, d] = corners;
  return {
    unit,
    corners: [
      [a.x, a.y],
      [b.x, b.y],
      [c.x, c.y],
      [d.x, d.y],
    ],
  };
};

/** A corner whose tape lies where the plan no longer has it: how far it has to go to the rear and to the right, mm. */
export interface TapeMoves {
  readonly corner: SetOutPoint['corner'];
  readonly rear: number;
  readonly right: number;
}
/** Tape is not laid closer than this, mm. */
const TAPE_MM = 2;

/** What has to be taped anew since an outline was taped; nothing where it still lies right. */
export const tapeMoves = ({ corners }: FloorOutline, taped: Taped): readonly TapeMoves[] =>
  corners.flatMap((corner, i): TapeMoves[] => {
    const was = taped.corners[i];
    if (!was) return [];
    const [rear, right] = [corner.x - was[0], corner.y - was[1]];
    return Math.hypot(rear, right) > TAPE_MM ? [{ corner: corner.corner, rear, right }] : [];
  });

/** The name under which an outline is printed at full size. */
export const cardName = (unit: string): string => `${unit}.floor-card`;

/** Outlines as cards to be printed at full size and laid on the floor: seen from above, to the rear along, to the right across. */
export const floorCards = (outlines: readonly FloorOutline[]): readonly Part[] =>
  outlines.map(({ unit, ring }): Part => {
    const { outline, moved } = toOrigin({ outer: ring, holes: [] });
    const box = boxOf(ring);
    return {
      id: cardName(unit),
      role: 'floor-card',
      number: 1,
      unit,
      material: 'card',
      thickness: 1,
      outline,
      grain: false,
      edges: [],
      // the centre line where it runs under the card
      marks: {
        lines:
          box.minY < 0 && box.maxY > 0
            ? [{ name: 'centre line', from: [0, -moved[1]], to: [box.maxX - box.minX, -moved[1]] }]
            : [],
        screws: [],
        holes: [],
      },
      place: placeSeen([moved[0], moved[1], 0], [1, 0, 0], [0, 1, 0]),
    };
  });
