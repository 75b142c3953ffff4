import { isAt } from '../document/body.js';
import { familyNamed } from '../document/kit.js';
import type { Mode, Person } from '../document/schema.js';
import { leavesPlace, standsMoved } from '../furniture/motions.js';
import type { Scene } from '../furniture/scene.js';
import { solidsOf } from '../furniture/solid.js';
import { boxOf, distanceToRing, rectangle, type Point } from '../numeric/plane.js';
import type { Vector } from '../parts/part.js';
import { CUSHION_GIVES, EYES_BELOW_CROWN, MATTRESS_GIVES, SITTING_SHARE } from '../rules/people.js';
import { halfWidth, roofHeight } from '../shell/shell.js';
import { berthOf, lyingPlaces, lyingRoomOf } from './lying.js';

/** Half the breadth of somebody who walks, mm; and what is lower than this is stepped over. */
const HALF_BODY_MM = 190;
const STEPPED_OVER_MM = 120;

/** Somebody who stands at a place: what is left above the head, and what they would stand in. */
export interface StandsHere {
  /** mm; below 0 where the head meets the roof. */
  readonly head: number;
  /** The unit in the way, by its id; `wall` for the vehicle itself; null where there is room. */
  readonly meets: string | null;
}

/** Whether there is room to stand at a place of the floor, with what a mode has moved, and how much is left above the head. */
export function standsHere(scene: Scene, states: Mode['states'], person: Person, [x, y]: Point): StandsHere {
  const { inner } = scene;
  const [low, high] = [inner.floor + STEPPED_OVER_MM, inner.floor + person.stature];
  const body = rectangle(x - HALF_BODY_MM, y - HALF_BODY_MM, x + HALF_BODY_MM, y + HALF_BODY_MM);
  const near = (ring: readonly Point[], z0: number, z1: number): boolean => {
    const box = boxOf(ring);
    const apart =
      box.minX >= x + HALF_BODY_MM ||
      box.maxX <= x - HALF_BODY_MM ||
      box.minY >= y + HALF_BODY_MM ||
      box.maxY <= y - HALF_BODY_MM;
    if (apart || z0 >= high || z1 <= low) return false;
    return inside([x, y], ring) || distanceToRing([x, y], ring) < HALF_BODY_MM;
  };
  const met = scene.units.find((unit) => {
    const motions = scene.skeletons.get(unit.id)?.motions ?? [];
    const share = (of: string): number => states[of] ?? 0;
    const away = motions.some((motion) => share(motion.of) > 0 && leavesPlace(motion));
    return (
      (!away &&
        solidsOf(unit, scene, scene.families).some((box) =>
          near(rectangle(box.x0, box.y0, box.x1, box.y1), box.z0, box.z1),
        )) ||
      motions.some((motion) => {
        const stands = share(motion.of) > 0 ? standsMoved(motion, share(motion.of)) : null;
        return stands !== null && near(stands.ring, stands.z0, stands.z1);
      })
    );
  });
  const hip = inner.floor + person.stature / 2;
  const outside =
    body.some(([bx, by]) => Math.abs(by) > halfWidth(inner, by < 0 ? 'left' : 'right', bx, hip)) ||
    x < inner.start + HALF_BODY_MM ||
    x > inner.length - HALF_BODY_MM;
  return { head: roofHeight(inner, x, y) - high, meets: met?.id ?? (outside ? 'wall' : null) };
}

/** Whether a place lies within a ring, by the crossings of a line from it. */
function inside([x, y]: Point, ring: readonly Point[]): boolean {
  return ring.reduce((within, [ax, ay], i) => {
    const [bx, by] = ring[(i + 1) % ring.length] ?? [ax, ay];
    return ay > y !== by > y && x < ax + ((y - ay) / (by - ay)) * (bx - ax) ? !within : within;
  }, false);
}

/** How high somebody's eyes are above their soles, mm. */
export const eyesOf = ({ stature }: Person): number => (1 - EYES_BELOW_CROWN) * stature;

/** A place somebody can look from: where their eyes are, and which way they look. */
export interface Seat {
  readonly posture: 'sits' | 'lies';
  readonly unit: string;
  readonly eyes: Vector;
  readonly looks: Vector;
}

/** Eyes of one who lies on the back are so far above what they lie on: the depth of a head, as a share of stature. */
const HEAD_DEEP = 0.115;

/**
 * Where somebody can sit and lie: on every seat, and on the beds that are theirs, or on every bed where none is. The eyes of
 * one who sits are under the top of the sitting height as far as they are under the crown; of one who lies, a head above the
 * mattress.
 */
export function seatsFor(scene: Scene, person: Person): readonly Seat[] {
  const { inner } = scene;
  const high = person.sittingHeight ?? SITTING_SHARE * person.stature;
  const upright = high - EYES_BELOW_CROWN * person.stature;
  const seats = scene.units.flatMap((unit): Seat[] =>
    (familyNamed(scene.families, unit.family)?.sits?.(unit, scene) ?? []).map((sits) => {
      const [lx, ly] = sits.looks;
      const back = Math.min(sits.deep, 420) * 0.75;
      return {
        posture: 'sits',
        unit: unit.id,
        eyes: [
          sits.at[0] - lx * back,
          sits.at[1] - ly * back,
          inner.floor + sits.top + (1 - CUSHION_GIVES) * sits.cushion + upright,
        ],
        looks: [lx, ly, -0.1],
      };
    }),
  );
  const places = lyingPlaces(scene.units, scene.families);
  const theirs = places.filter(({ sleepers }) => sleepers.includes(person.id));
  const beds = (theirs.length > 0 ? theirs : places).flatMap((place): Seat[] => {
    const index = Math.max(0, place.sleepers.indexOf(person.id));
    const berth = berthOf(place, index, lyingRoomOf(scene, place.unit.id));
    const top = inner.floor + place.unit.body.to + (1 - MATTRESS_GIVES) * place.mattress;
    const lengthwise = place.along === 'x';
    const [mx, my] = [(berth.x0 + berth.x1) / 2, (berth.y0 + berth.y1) / 2];
    // the head is towards the front, or to the right
    const [x, y] = lengthwise ? [berth.x0 + 150, my] : [mx, berth.y1 - 150];
    const feet: Vector = lengthwise ? [1, 0, 0.12] : [0, -1, 0.12];
    return [
      {
        posture: 'lies',
        unit: place.unit.id,
        eyes: [x, y, top + HEAD_DEEP * person.stature],
        looks: feet,
      },
      { posture: 'sits', unit: place.unit.id, eyes: [x, y, top + upright], looks: [feet[0], feet[1], -0.15] },
    ];
  });
  return [...seats, ...beds];
}

/** Where on the floor there is most room to stand, looking for it along the middle of the vehicle: somebody has to begin somewhere. */
export function beginsAt(scene: Scene, states: Mode['states'], person: Person): Point {
  const { inner } = scene;
  const wide = Math.min(halfWidth(inner, 'left', inner.length / 2, inner.floor + 900), 800);
  const places = Array.from(
    { length: 25 },
    (_, i): number => inner.start + ((i + 0.5) / 25) * (inner.length - inner.start),
  )
    .flatMap((x) => [0, 0.25, -0.25, 0.5, -0.5].map((share): Point => [x, share * wide]))
    .filter((at) => standsHere(scene, states, person, at).meets === null);
  const middle = (inner.start + inner.length) / 2;
  const score = ([x, y]: Point): number =>
    Math.abs(x - middle) + Math.abs(y) + (scene.units.some((unit) => isAt(unit, x)) ? 0 : 300);
  return places.reduce<Point | null>((best, at) => (best && score(best) <= score(at) ? best : at), null) ?? [middle, 0];
}
