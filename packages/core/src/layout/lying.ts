import { familyNamed } from '../document/kit.js';
import type { Unit } from '../document/schema.js';
import type { SceneFamily } from '../furniture/scene.js';
import { spread } from '../numeric/plane.js';
import { halfWidth, type Shell } from '../shell/shell.js';

/** A place to lie on a unit, and who lies there. */
export interface LyingPlace {
  readonly unit: Unit;
  readonly mattress: number;
  readonly sleepers: readonly string[];
}

/** Every place to lie, as the units' families say. */
export function lyingPlaces(units: readonly Unit[], families: readonly SceneFamily[]): readonly LyingPlace[] {
  return units.flatMap((unit): LyingPlace[] => {
    const lies = familyNamed(families, unit.family)?.lies?.(unit);
    return lies ? [{ unit, ...lies }] : [];
  });
}

/** The strip of a bed that one sleeper lies on, by order across the bed, rear sleeper last. */
export function strip({ unit, sleepers }: LyingPlace, index: number): readonly [number, number] {
  const { x, length } = unit.body;
  const width = length / Math.max(1, sleepers.length);
  return [x + index * width, x + (index + 1) * width];
}

/** Clear length across the vehicle for one sleeper: the least inner width over the strip and the mattress's thickness. */
export function clearAcross(inner: Shell, x0: number, x1: number, z0: number, z1: number): number {
  let least = Infinity;
  for (const x of spread(x0, x1, 9))
    for (const z of spread(z0, z1, 4))
      least = Math.min(least, halfWidth(inner, 'left', x, z) + halfWidth(inner, 'right', x, z));
  return least;
}
