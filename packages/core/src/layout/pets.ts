import type { Mode, Pet } from '../document/schema.js';
import type { Den } from '../document/unit-schema.js';
import type { Scene } from '../furniture/scene.js';
import { solidsOf } from '../furniture/solid.js';
import { boxOf, spread } from '../numeric/plane.js';
import { CURLS_UP, petPlaceRule, TURNS_ROUND } from '../rules/pets.js';
import { figureOf } from '../rules/rule.js';
import type { SolidBox } from '../rules/room.js';
import { archFace } from '../shell/arch.js';
import { halfWidth, roofHeight } from '../shell/shell.js';
import { awayIn, movedIn } from './checks/in-modes.js';

/** What is free where an animal lies, mm: as far to both sides of its middle as to the nearer thing. */
export interface PetRoom {
  readonly long: number;
  readonly wide: number;
  readonly high: number;
  /** What it lies on, above the datum. */
  readonly foot: number;
  /** Where that is, seen from above. */
  readonly x: number;
  readonly y: number;
  /** It lies across the vehicle. */
  readonly turned: boolean;
  /** What is nearest, by its name; null where that is the vehicle itself. */
  readonly by: string | null;
  /** Behind a door, a panel or drawers, under a lid or behind another bay. */
  readonly shut: boolean;
  /** What it gets in through, where that is not all round it. */
  readonly door: { readonly wide: number; readonly high: number } | null;
}
/** An animal, where it was laid, and what is free there. */
export interface PetLain {
  readonly pet: Pet;
  readonly at: Den['at'];
  readonly room: PetRoom;
}

/** Bays that one can lie in, and fronts that leave them open. */
const LAIN_IN: ReadonlySet<string> = new Set(['open', 'hold']);
const STAY_OPEN: ReadonlySet<string> = new Set(['none', 'curtain']);
/** What stands up from the floor by less than this is lain on: a mat, a strip, mm. */
const LAIN_ON_MM = 25;
/** An animal that lies is about so high, as a share of its height where it stands. */
const LYING_SHARE = 0.5;
/** A wall is never so far from the centre line, mm. */
const BEYOND_MM = 5000;

type Named = SolidBox & { readonly name: string | null };

/** The animals that lie on the floor, as they lie; all but one where one is named. */
export const lyingOnFloor = ({ pets, dens, inner }: Scene, but: string | null = null): readonly Named[] =>
  dens.flatMap(({ pet: id, at }): Named[] => {
    const pet = pets.find((one) => one.id === id);
    if (!pet || id === but || !('x' in at)) return [];
    const [halfX, halfY] = at.turned ? [pet.width / 2, pet.length / 2] : [pet.length / 2, pet.width / 2];
    return [
      {
        x0: at.x - halfX,
        x1: at.x + halfX,
        y0: at.y - halfY,
        y1: at.y + halfY,
        z0: inner.floor,
        z1: inner.floor + LYING_SHARE * pet.height,
        name: pet.name,
      },
    ];
  });

/** Everything that takes room in a mode, or with everything shut: units, what is moved out of them, and arches. */
function standsIn(scene: Scene, states: Mode['states']): readonly Named[] {
  const away = awayIn(scene, states);
  return [
    ...scene.units
      .filter(({ id }) => !away.has(id))
      .flatMap((unit) => solidsOf(unit, scene, scene.families).map((box) => ({ ...box, name: unit.name }))),
    ...movedIn(scene, states).map(({ unit, prism }) => {
      const box = boxOf(prism.ring);
      return {
        x0: box.minX,
        x1: box.maxX,
        y0: box.minY,
        y1: box.maxY,
        z0: prism.z0,
        z1: prism.z1,
        name: unit.name,
      };
    }),
    ...scene.arches.map((arch) => {
      const [near, far] = [archFace(arch, arch.bottom), arch.far ?? BEYOND_MM];
      const across = arch.side === 'left' ? { y0: -far, y1: -near } : { y0: near, y1: far };
      return { x0: arch.from, x1: arch.to, ...across, z0: arch.bottom, z1: arch.height, name: null };
    }),
  ];
}

interface Side {
  readonly free: number;
  readonly by: string | null;
}
const nearer = (a: Side, b: Side): Side => (b.free < a.free ? b : a);

/** What a place has to have, mm. */
interface Least {
  readonly long: number;
  readonly wide: number;
  readonly high: number;
}
const ANYTHING: Least = { long: -Infinity, wide: -Infinity, high: -Infinity };

/** What is free round a place on the floor, among what stands there; null as soon as it is less than the least. */
function freeRound(
  pet: Pet,
  at: { readonly x: number; readonly y: number; readonly turned: boolean },
  { inner }: Scene,
  standing: readonly Named[],
  least: Least = ANYTHING,
): PetRoom | null {
  const { x, y, turned } = at;
  const [halfX, halfY] = turned ? [pet.width / 2, pet.length / 2] : [pet.length / 2, pet.width / 2];
  const [leastX, leastY] = turned ? [least.wide / 2, least.long / 2] : [least.long / 2, least.wide / 2];
  const low = inner.floor + LYING_SHARE * pet.height;
  let [alongX, acrossY, high]: [Side, Side, Side] = [
    { free: Math.min(x - inner.start, inner.length - x), by: null },
    { free: Infinity, by: null },
    { free: Infinity, by: null },
  ];
  if (alongX.free < leastX) return null;
  for (const box of standing) {
    if (box.z1 <= inner.floor + LAIN_ON_MM) continue;
    const [besideX, besideY] = [box.x0 < x + halfX && box.x1 > x - halfX, box.y0 < y + halfY && box.y1 > y - halfY];
    if (box.z0 >= low) {
      if (besideX && besideY) high = nearer(high, { free: box.z0 - inner.floor, by: box.name });
      continue;
    }
    if (besideY) alongX = nearer(alongX, { free: Math.max(box.x0 - x, x - box.x1), by: box.name });
    if (besideX) acrossY = nearer(acrossY, { free: Math.max(box.y0 - y, y - box.y1), by: box.name });
    if (alongX.free < leastX || acrossY.free < leastY || high.free < least.high) return null;
  }
  const xs = spread(Math.max(inner.start, x - halfX), Math.min(inner.length, x + halfX), 5);
  for (const near of xs)
    for (const z of [inner.floor, low]) {
      const free = Math.min(halfWidth(inner, 'left', near, z) + y, halfWidth(inner, 'right', near, z) - y);
      acrossY = nearer(acrossY, { free, by: null });
      if (acrossY.free < leastY) return null;
    }
  for (const near of xs)
    for (const across of [y - halfY, y, y + halfY]) {
      high = nearer(high, { free: roofHeight(inner, near, across) - inner.floor, by: null });
      if (high.free < least.high) return null;
    }
  const [long, wide] = turned ? [acrossY, alongX] : [alongX, acrossY];
  const tightest = [
    { of: 2 * long.free - pet.length, by: long.by },
    { of: 2 * wide.free - TURNS_ROUND * pet.width, by: wide.by },
    { of: high.free - pet.height, by: high.by },
  ].reduce((first, next) => (next.of < first.of ? next : first));
  return {
    long: Math.max(0, 2 * long.free),
    wide: Math.max(0, 2 * wide.free),
    high: high.free,
    foot: inner.floor,
    x,
    y,
    turned,
    by: tightest.by,
    shut: false,
    door: null,
  };
}

/** What is free in a bay: whichever way round it lies better. */
function freeInBay(pet: Pet, at: { readonly unit: string; readonly bay: string }, scene: Scene): PetRoom | null {
  const found = scene.skeletons.get(at.unit)?.bays?.find(({ bay }) => bay.name === at.bay);
  if (!found) return null;
  const { room, bay, into, through, behind = 0 } = found;
  const [wide, high] = through ?? (into === 0 ? [0, 0] : [room.x1 - room.x0, room.z1 - room.z0]);
  const open = LAIN_IN.has(bay.holds.kind) && STAY_OPEN.has(bay.front.kind) && behind === 0 && wide > 0;
  const [x, y] = [room.x1 - room.x0, room.y1 - room.y0];
  const spare = (long: number, wide: number): number => Math.min(long - pet.length, wide - TURNS_ROUND * pet.width);
  const turned = spare(y, x) > spare(x, y);
  return {
    long: turned ? y : x,
    wide: turned ? x : y,
    high: room.z1 - room.z0,
    foot: room.z0,
    x: (room.x0 + room.x1) / 2,
    y: (room.y0 + room.y1) / 2,
    turned,
    by: scene.units.find(({ id }) => id === at.unit)?.name ?? null,
    shut: !open,
    door: open ? { wide, high } : null,
  };
}

/**
 * What is free where an animal lies.
 * @param states what is moved in the mode it is asked for; nothing where everything is shut
 * @returns null where its bay is not there
 */
export const petRoom = (pet: Pet, at: Den['at'], scene: Scene, states: Mode['states'] = {}): PetRoom | null =>
  'unit' in at
    ? freeInBay(pet, at, scene)
    : freeRound(pet, at, scene, [...standsIn(scene, states), ...lyingOnFloor(scene, pet.id)]);

/** Every animal that is laid, where there is such a place. */
export const petsLain = (scene: Scene, states: Mode['states'] = {}): readonly PetLain[] =>
  scene.dens.flatMap(({ pet: id, at }) => {
    const pet = scene.pets.find((one) => one.id === id);
    const room = pet && petRoom(pet, at, scene, states);
    return room ? [{ pet, at, room }] : [];
  });

/** A place is looked for in steps of so much, mm. */
const STEP_MM = 100;
/** Places that are no further apart than this are as near as each other, mm. */
const AS_NEAR_MM = 1;

/**
 * The place on the floor nearest to one that an animal has good room at in every mode and with everything shut; where there
 * is none, one that it fits in. Null where there is none of both.
 */
export function nearestDen(pet: Pet, near: readonly [number, number], scene: Scene): Den['at'] | null {
  const { inner } = scene;
  // what is in the way in any mode is in the way
  const standing = [
    ...new Map(
      [{}, ...scene.modes.map(({ states }) => states)]
        .flatMap((states) => standsIn(scene, states))
        .concat(lyingOnFloor(scene, pet.id))
        .map((box) => [[box.x0, box.x1, box.y0, box.y1, box.z0, box.z1].join(), box] as const),
    ).values(),
  ];
  const [longer, higher] = (['longer', 'higher'] as const).map((name) => figureOf(petPlaceRule, name, scene.figures));
  const good: Least = {
    long: pet.length + (longer ?? 0),
    wide: TURNS_ROUND * pet.width,
    high: pet.height + (higher ?? 0),
  };
  const tight: Least = { long: pet.length, wide: CURLS_UP * pet.width, high: pet.height };
  const wide = Math.max(
    ...spread(inner.start, inner.length, 5).flatMap((x) => [
      halfWidth(inner, 'left', x, inner.floor),
      halfWidth(inner, 'right', x, inner.floor),
    ]),
  );
  const places: { readonly at: Extract<Den['at'], { x: number }>; readonly away: number }[] = [];
  for (let x = Math.ceil(inner.start / STEP_MM) * STEP_MM; x <= inner.length; x += STEP_MM)
    for (let y = -Math.floor(wide / STEP_MM) * STEP_MM; y <= wide; y += STEP_MM)
      for (const turned of [false, true])
        places.push({ at: { x, y, turned }, away: Math.hypot(x - near[0], y - near[1]) });
  places.sort((a, b) =>
    Math.abs(a.away - b.away) < AS_NEAR_MM ? Number(a.at.turned) - Number(b.at.turned) : a.away - b.away,
  );
  for (const least of [good, tight])
    for (const { at } of places) if (freeRound(pet, at, scene, standing, least)) return at;
  return null;
}
