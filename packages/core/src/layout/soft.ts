import { frontLineOf } from '../document/body.js';
import type { Scene } from '../furniture/scene.js';
import { spread } from '../numeric/plane.js';
import type { SolidBox } from '../rules/room.js';
import { halfWidth } from '../shell/shell.js';
import { seatsIn } from './checks/sitting.js';
import { berthOf, lyingPlaces, lyingRoomOf } from './lying.js';

/** A mattress or the cushion of a seat as a block where it lies, mm. */
export interface Soft {
  readonly id: string;
  readonly unit: string;
  readonly box: SolidBox;
  /** All of it, of a bed that is drawn out too, mm3. */
  readonly volume: number;
  /** What moves under it, such as the lids of a seat: it is taken off first. */
  readonly under: readonly string[];
  /** Its other half, which lies before it as far as the bed is drawn out: by so much when it is all out; by day it stands at the back. */
  readonly out?: { readonly motion: string; readonly by: number; readonly sign: 1 | -1 };
}

/**
 * Where a mattress or cushion lies while things are moved by shares: its block, and of a bed that is drawn out the other half
 * before it; nowhere while what is under it is open.
 */
export function softAt({ box, under, out }: Soft, states: Readonly<Record<string, number>>): readonly SolidBox[] {
  const share = (of: string): number => states[of] ?? 0;
  if (under.some((of) => share(of) > 0)) return [];
  const by = out ? out.by * share(out.motion) : 0;
  if (!out || by <= 0) return [box];
  const before = out.sign > 0 ? { y0: box.y0 - by, y1: box.y0 } : { y0: box.y1, y1: box.y1 + by };
  return [box, { ...box, ...before }];
}

/** What is looked at for them. */
export type SoftRoom = Pick<Scene, 'inner' | 'arches' | 'book' | 'things' | 'units' | 'families' | 'skeletons'>;

const volumeOf = ({ x0, x1, y0, y1, z0, z1 }: SolidBox): number => (x1 - x0) * (y1 - y0) * (z1 - z0);

/** A block as far as the walls leave it clear. */
function betweenWalls(box: SolidBox, { inner }: SoftRoom): SolidBox {
  const [left, right] = (['left', 'right'] as const).map((side) =>
    Math.min(
      ...spread(box.x0, box.x1, 9).flatMap((x) => spread(box.z0, box.z1, 3).map((z) => halfWidth(inner, side, x, z))),
    ),
  );
  return { ...box, y0: Math.max(box.y0, -(left ?? 0)), y1: Math.min(box.y1, right ?? 0) };
}
/** What lies under a block and moves: lids of a seat, a board that tilts. */
const movesUnder = (unit: string, box: SolidBox, { skeletons }: SoftRoom): readonly string[] =>
  (skeletons.get(unit)?.motions ?? [])
    .filter(
      ({ shut }) =>
        Math.abs(shut.z1 - box.z0) < UNDER_MM &&
        shut.x0 < box.x1 &&
        shut.x1 > box.x0 &&
        shut.y0 < box.y1 &&
        shut.y1 > box.y0,
    )
    .map(({ of }) => of);
const UNDER_MM = 5;

/**
 * Every mattress and cushion: a mattress fills its bed as far as the walls leave it clear, one that is drawn out lies on what
 * is in; a cushion covers its seat from the front edge to the backrest.
 */
export function softIn(scene: SoftRoom): readonly Soft[] {
  const { inner, units, families } = scene;
  const mattresses = lyingPlaces(units, families).flatMap((place): Soft[] => {
    const { unit, mattress, sleepers } = place;
    const shut = { ...place, ...(place.out ? { out: { ...place.out, by: 0 } } : {}) };
    const berths = Array.from({ length: Math.max(1, sleepers.length) }, (_, i) =>
      berthOf(shut, i, lyingRoomOf(scene, unit.id)),
    );
    const z0 = inner.floor + unit.body.to;
    const least = (low: 'x0' | 'y0'): number => Math.min(...berths.map((berth) => berth[low]));
    const most = (high: 'x1' | 'y1'): number => Math.max(...berths.map((berth) => berth[high]));
    const block = { x0: least('x0'), x1: most('x1'), y0: least('y0'), y1: most('y1'), z0, z1: z0 + mattress };
    const box = betweenWalls(block, scene);
    const volume = volumeOf(box) + (place.out ? place.out.by * (box.x1 - box.x0) * mattress : 0);
    const under = movesUnder(unit.id, box, scene);
    const out = place.out && {
      out: { ...place.out, sign: frontLineOf(unit)?.sign ?? (1 as const) },
    };
    return mattress > 0 ? [{ id: `${unit.id}.mattress`, unit: unit.id, box, volume, under, ...out }] : [];
  });
  // one sits on the mattress of what is a bed too
  const beds = new Set(mattresses.map(({ unit }) => unit));
  const cushions = seatsIn(scene).flatMap((seat): Soft[] => {
    const { unit, cushion, at, looks, wide, deep } = seat;
    if (cushion <= 0 || beds.has(unit.id)) return [];
    const [x, y] = at;
    const z0 = inner.floor + seat.top;
    // the front edge runs across the way one looks
    const box =
      looks[1] !== 0
        ? {
            x0: x - wide / 2,
            x1: x + wide / 2,
            y0: Math.min(y, y - looks[1] * deep),
            y1: Math.max(y, y - looks[1] * deep),
          }
        : {
            x0: Math.min(x, x - looks[0] * deep),
            x1: Math.max(x, x - looks[0] * deep),
            y0: y - wide / 2,
            y1: y + wide / 2,
          };
    const block = betweenWalls({ ...box, z0, z1: z0 + cushion }, scene);
    const under = movesUnder(unit.id, block, scene);
    return [{ id: `${seat.id}.cushion`, unit: unit.id, box: block, volume: volumeOf(block), under }];
  });
  return [...mattresses, ...cushions];
}
