import { endOf, frontLineOf } from '../document/body.js';
import { familyNamed } from '../document/kit.js';
import type { Unit } from '../document/schema.js';
import type { Lying, Scene, SceneFamily } from '../furniture/scene.js';
import { solidsOf } from '../furniture/solid.js';
import type { SolidBox } from '../rules/room.js';
import { clearHalfWidth, type ArchShape } from '../shell/arch.js';
import type { Shell } from '../shell/shell.js';

/** A place to lie on a unit, and who lies there. */
export interface LyingPlace extends Lying {
  readonly unit: Unit;
}

/** Every place to lie, as the units' families say. */
export function lyingPlaces(units: readonly Unit[], families: readonly SceneFamily[]): readonly LyingPlace[] {
  const all: LyingPlace[] = [];
  for (const unit of units) {
    const lies = familyNamed(families, unit.family)?.lies?.(unit);
    if (lies) all.push({ unit, ...lies });
  }
  return all;
}

/** The strip of a bed across the vehicle that one sleeper lies on, by order across the bed, rear sleeper last. */
export function strip({ unit, sleepers }: LyingPlace, index: number): readonly [number, number] {
  const { x, length } = unit.body;
  const width = length / Math.max(1, sleepers.length);
  return [x + index * width, x + (index + 1) * width];
}

/** A place one sleeper has on a bed, seen from above, mm; and how long it is clear for the body. */
export interface Berth {
  readonly x0: number;
  readonly x1: number;
  readonly y0: number;
  readonly y1: number;
  readonly clear: number;
}

/** What one lies in: the room, arches, and what else stands at the height of a sleeper. */
export interface LyingRoom {
  readonly inner: Shell;
  readonly arches: readonly ArchShape[];
  readonly stands: readonly SolidBox[];
}

/** A sleeper takes the room over the mattress up to this, mm. */
const BODY_MM = 250;

/**
 * How far it is free to one side of the centre line over a bed, between two places along the vehicle: to the wall beside the
 * mattress, and to arches and whatever stands there beside the body too.
 */
function freeTo(
  { inner, arches, stands }: LyingRoom,
  side: 'left' | 'right',
  x0: number,
  x1: number,
  z0: number,
  z1: number,
): number {
  const sign = side === 'left' ? -1 : 1;
  const wall = clearHalfWidth(inner, [], side, x0, x1, z0, z1);
  const bump = clearHalfWidth(inner, arches, side, x0, x1, z0, z1);
  const met = stands
    .filter(
      (box) =>
        box.x0 < x1 - TOUCHES_MM && box.x1 > x0 + TOUCHES_MM && box.z0 < z1 + BODY_MM && box.z1 > z0 + TOUCHES_MM,
    )
    // what stands across the middle is no side of the bed
    .filter((box) => (sign < 0 ? box.y1 <= 0 : box.y0 >= 0))
    .map((box) => (sign < 0 ? -box.y1 : box.y0));
  return Math.min(wall, bump, ...met);
}
/** What comes no nearer than this only touches, mm. */
const TOUCHES_MM = 2;

/** How far it is clear across over a bed between two places along the vehicle, from whatever is there to whatever is there, mm. */
export const clearOver = (room: LyingRoom, x0: number, x1: number, z0: number, z1: number): number =>
  freeTo(room, 'left', x0, x1, z0, z1) + freeTo(room, 'right', x0, x1, z0, z1);

/** How wide a bed is for its sleepers together, drawn out as far as it goes, mm: the least over its length. */
export function bedWidth({ unit, along, out, mattress }: LyingPlace, room: LyingRoom): number {
  if (along !== 'x') return unit.body.length;
  const line = frontLineOf(unit);
  if (!line) return unit.body.stands === 'free' ? unit.body.width : unit.body.length;
  const z = room.inner.floor + unit.body.to;
  return freeTo(room, line.side, unit.body.x, endOf(unit), z, z + mattress) - line.front + (out?.by ?? 0);
}

/** Where a sleeper lies: strips across the vehicle side by side, or along it from the wall inward. */
export function berthOf(place: LyingPlace, index: number, room: LyingRoom): Berth {
  const { unit, mattress, along, out, sleepers } = place;
  const top = room.inner.floor + unit.body.to;
  if (along !== 'x') {
    const [x0, x1] = strip(place, index);
    const [left, right] = (['left', 'right'] as const).map((side) => freeTo(room, side, x0, x1, top, top + mattress));
    return { x0, x1, y0: -(left ?? 0), y1: right ?? 0, clear: (left ?? 0) + (right ?? 0) };
  }
  const line = frontLineOf(unit);
  const [x0, x1] = [unit.body.x, endOf(unit)];
  const wide = bedWidth(place, room) / Math.max(1, sleepers.length);
  const near = (line?.front ?? 0) - (out?.by ?? 0);
  const sign = line?.sign ?? 1;
  const [a, b] = [sign * (near + index * wide), sign * (near + (index + 1) * wide)];
  return { x0, x1, y0: Math.min(a, b), y1: Math.max(a, b), clear: x1 - x0 };
}

/** The room somebody lies in on a unit: what stands there but for the unit itself and what moves out of the way. */
export const lyingRoomOf = (
  scene: Pick<Scene, 'inner' | 'arches' | 'units' | 'book' | 'things' | 'families'>,
  unit: string,
): LyingRoom => ({
  inner: scene.inner,
  arches: scene.arches,
  stands: scene.units.filter(({ id }) => id !== unit).flatMap((own) => solidsOf(own, scene, scene.families)),
});
