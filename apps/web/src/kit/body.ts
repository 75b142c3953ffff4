import type { Person, Pet } from '@nestplank/core/document';
import { SHOULDERS, SITTING_SHARE } from '@nestplank/core/rules';
import type { Point } from '@nestplank/core/numeric';

/** A limb: round at both ends, so thick on either side of its line, mm. */
export interface Capsule {
  readonly from: Point;
  readonly to: Point;
  readonly radius: number;
}

const capsule = (from: Point, to: Point, radius: number): Capsule => ({ from, to, radius });
/** The same on both sides of the body. */
const both = (from: Point, to: Point, radius: number): readonly Capsule[] =>
  [-1, 1].map((sign) => capsule([sign * from[0], from[1]], [sign * to[0], to[1]], radius));

const shouldersOf = ({ stature, shoulderWidth }: Person): number => shoulderWidth ?? SHOULDERS * stature;
/** Where somebody's legs end and their trunk begins, mm up: stature less what is sitting. */
const hipOf = ({ stature, sittingHeight }: Person): number => stature - (sittingHeight ?? SITTING_SHARE * stature);

/**
 * Somebody who stands, from the front: across from the middle and up from the soles, mm. As tall as they are and as broad at
 * the shoulders; the legs take what is not sitting height. The rest is in the usual proportions of a body.
 */
export function standing(person: Person): readonly Capsule[] {
  const { stature: tall } = person;
  const half = shouldersOf(person) / 2;
  const hip = hipOf(person);
  const arm = 0.028 * tall;
  const shoulder = 0.81 * tall;
  return [
    capsule([0, 0.93 * tall], [0, tall - 0.055 * tall], 0.055 * tall),
    capsule([0, 0.8 * tall], [0, 0.88 * tall], 0.03 * tall),
    ...both([0.25 * half, shoulder - 0.02 * tall], [half - arm, shoulder - 0.02 * tall], arm),
    ...both([0.42 * half, 0.76 * tall], [0.045 * tall, hip + 0.04 * tall], 0.062 * tall),
    ...both([half - arm, shoulder - 0.03 * tall], [half - 0.4 * arm, 0.62 * tall], arm),
    ...both([half - 0.4 * arm, 0.62 * tall], [half - 0.2 * arm, 0.45 * tall], 0.8 * arm),
    ...both([0.055 * tall, hip], [0.055 * tall, 0.28 * tall], 0.047 * tall),
    ...both([0.055 * tall, 0.28 * tall], [0.055 * tall, 0.04 * tall], 0.034 * tall),
    ...both([0.055 * tall, 0.02 * tall], [0.075 * tall, 0.02 * tall], 0.02 * tall),
  ];
}

/** Somebody who sits with the legs forward, as in bed, from the side: forward from the back and up from the seat, mm. */
export function sitting(person: Person): readonly Capsule[] {
  const { stature: tall } = person;
  const high = person.sittingHeight ?? SITTING_SHARE * tall;
  const thigh = 0.052 * tall;
  const reach = hipOf(person);
  return [
    capsule([0.02 * tall, high - 0.075 * tall], [0.02 * tall, high - 0.062 * tall], 0.062 * tall),
    capsule([0, high - 0.17 * tall], [0.01 * tall, high - 0.12 * tall], 0.032 * tall),
    capsule([0, high - 0.21 * tall], [-0.01 * tall, 0.07 * tall], 0.068 * tall),
    capsule([0, thigh], [0.5 * reach, thigh * 1.4], thigh),
    capsule([0.5 * reach, thigh * 1.4], [0.95 * reach, 0.035 * tall], 0.036 * tall),
    capsule([0.97 * reach, 0.03 * tall], [0.98 * reach, 0.11 * tall], 0.02 * tall),
    capsule([0, high - 0.22 * tall], [0.12 * tall, 0.16 * tall], 0.026 * tall),
    capsule([0.12 * tall, 0.16 * tall], [0.26 * tall, 0.13 * tall], 0.022 * tall),
  ];
}

/** The same from the front, the legs toward or away from whoever looks: across from the middle and up from the seat, mm. */
export function sittingFromFront(person: Person): readonly Capsule[] {
  const hip = hipOf(person);
  const onSeat = ([across, up]: Point, radius: number): Point => [across, Math.max(radius, up - hip)];
  return standing(person)
    .filter(({ from, to }) => Math.max(from[1], to[1]) > hip + 0.02 * person.stature)
    .map(({ from, to, radius }) => ({ from: onSeat(from, radius), to: onSeat(to, radius), radius }));
}

/** Somebody who lies on the back, from above: from the crown to the soles, and across from the middle, mm. */
export const lying = (person: Person): readonly Capsule[] =>
  standing(person).map(({ from, to, radius }) => ({
    from: [person.stature - from[1], from[0]],
    to: [person.stature - to[1], to[0]],
    radius,
  }));

/** How far an outline reaches, mm: least and most of each of its two directions. */
export function extentOf(body: readonly Capsule[]): {
  readonly x: readonly [number, number];
  readonly y: readonly [number, number];
} {
  const span = (axis: 0 | 1): readonly [number, number] => [
    Math.min(...body.flatMap(({ from, to, radius }) => [from[axis] - radius, to[axis] - radius])),
    Math.max(...body.flatMap(({ from, to, radius }) => [from[axis] + radius, to[axis] + radius])),
  ];
  return { x: span(0), y: span(1) };
}

/** An animal that lies stretched out, from above: from the nose to the root of the tail, and across from the middle, mm. */
export function lyingAnimal({ length: long, width: wide }: Pet): readonly Capsule[] {
  const half = wide / 2;
  return [
    capsule([0.06 * long, 0], [0.12 * long, 0], 0.3 * half),
    capsule([0.15 * long, 0], [0.18 * long, 0], Math.min(0.58 * half, 0.12 * long)),
    ...both([0.7 * half, 0.4 * long], [0.92 * half, 0.27 * long], 0.16 * half).map(upright),
    ...both([0.7 * half, 0.86 * long], [0.98 * half, 0.72 * long], 0.2 * half).map(upright),
    capsule([0.24 * long + half, 0], [long - half, 0], half),
    capsule([long, 0], [1.16 * long, 0.5 * half], 0.12 * half),
  ];
}
/** What was given across and along, along and across. */
const upright = ({ from, to, radius }: Capsule): Capsule => ({ from: [from[1], from[0]], to: [to[1], to[0]], radius });

/** An animal that stands, from behind: across from the middle and up from the floor, mm; as high and as broad as it is. */
export function standingAnimal({ width: wide, height: high }: Pet): readonly Capsule[] {
  const half = wide / 2;
  const trunk = Math.min(half, 0.22 * high);
  const head = Math.min(0.7 * half, 0.13 * high);
  return [
    ...both([half - 0.14 * wide, 0.5 * high], [half - 0.14 * wide, 0.06 * wide], 0.06 * wide + 0.02 * high),
    capsule([-(half - trunk), 0.58 * high], [half - trunk, 0.58 * high], trunk),
    capsule([0, 0.7 * high], [0, high - head], head),
  ];
}
