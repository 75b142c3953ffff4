import type { PlatformBed } from '../document/schema.js';
import { spread } from '../numeric/plane.js';
import { halfWidth, type Shell } from '../shell/shell.js';

/** The strip of a bed that one sleeper lies on, by order across the bed, rear sleeper last. */
export function strip(bed: PlatformBed, index: number, count: number): readonly [number, number] {
  const width = bed.length / Math.max(1, count);
  return [bed.x + index * width, bed.x + (index + 1) * width];
}

/** Clear length across the vehicle for one sleeper: the least inner width over the strip and the mattress's thickness. */
export function clearAcross(inner: Shell, x0: number, x1: number, z0: number, z1: number): number {
  let least = Infinity;
  for (const x of spread(x0, x1, 9))
    for (const z of spread(z0, z1, 4))
      least = Math.min(least, halfWidth(inner, 'left', x, z) + halfWidth(inner, 'right', x, z));
  return least;
}
