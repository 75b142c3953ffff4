import type { Motion } from '../furniture/motions.js';
import type { Scene, SeenOpening } from '../furniture/scene.js';
import type { SolidBox } from '../rules/room.js';
import { narrowOf, widthOf } from '../shell/openings.js';
import { halfWidth } from '../shell/shell.js';

/** A wall that something goes out through. */
export type OutThrough = 'left' | 'right' | 'rear';
const WAYS: readonly OutThrough[] = ['left', 'right', 'rear'];
/** What turns and reaches less far beyond a wall than this does not pass it, mm. */
const BEYOND_MM = 30;

/** How something that moves leaves the vehicle. */
export interface Leaves {
  readonly way: OutThrough;
  /** The door that is behind it; null where there is none. */
  readonly door: SeenOpening | null;
  /** The room it passes the wall in, mm. */
  readonly through: SolidBox;
  /** From where it turns about to the wall, mm: 0 for what is drawn out. */
  readonly before: number;
}

/** Which axis of the floor runs along a wall. */
const alongOf = (way: OutThrough): 'x' | 'y' => (way === 'rear' ? 'y' : 'x');
/** From where to where a box reaches along a wall, mm. */
const spanAt = (way: OutThrough, box: SolidBox): { readonly from: number; readonly to: number } =>
  alongOf(way) === 'x' ? { from: box.x0, to: box.x1 } : { from: box.y0, to: box.y1 };

/** How far a box reaches beyond a wall, at its own middle, mm; below nothing where it ends before it. */
function beyond({ inner }: Scene, way: OutThrough, box: SolidBox): number {
  if (way === 'rear') return box.x1 - inner.length;
  const wall = halfWidth(inner, way, (box.x0 + box.x1) / 2, (box.z0 + box.z1) / 2);
  return (way === 'left' ? -box.y0 : box.y1) - wall;
}

/** What of a box lies in a door, along its wall, mm: below nothing where it is beside it. */
function within(door: SeenOpening, way: OutThrough, box: SolidBox): number {
  const { from, to } = spanAt(way, box);
  const wide = widthOf(door);
  return Math.min(wide.to, to) - Math.max(wide.from, from);
}

/** The room something passes on its way out, where it is outside, and how far that has to be to count; null for what stays in. */
function outOf(motion: Motion): { readonly through: SolidBox; readonly out: SolidBox; readonly least: number } | null {
  if (motion.kind === 'slide') {
    const { shut, by } = motion;
    if (motion.outside !== true) return null;
    const out = { ...shut, x0: shut.x0 + by[0], x1: shut.x1 + by[0], y0: shut.y0 + by[1], y1: shut.y1 + by[1] };
    return { through: shut, out, least: 0 };
  }
  return motion.kind === 'hinge' && motion.about === 'level'
    ? { through: motion.through, out: motion.open, least: BEYOND_MM }
    : null;
}

/**
 * How something that is meant to be used outside gets there: a board that turns out, a tray that is drawn out. Null for what
 * stays inside.
 */
export function leaves(motion: Motion, scene: Scene): Leaves | null {
  const moved = outOf(motion);
  const meant = motion.kind === 'hinge' && motion.about === 'level' ? motion.outside : undefined;
  const way = meant ?? (moved && WAYS.find((one) => beyond(scene, one, moved.out) > moved.least));
  if (!moved || !way) return null;
  const { through } = moved;
  const [door = null] = scene.openings
    .filter(({ opening }) => opening.kind === 'door' && opening.surface === way)
    .filter((one) => within(one, way, through) > 0)
    .sort((a, b) => within(b, way, through) - within(a, way, through));
  return { way, door, through, before: meant ? -beyond(scene, meant, motion.shut) : 0 };
}

/** What is left all round what goes out through a door, and where it is least, mm. A door that leans passes what its narrowest height does. */
export function clearOf({ way, door, through }: Leaves & { readonly door: SeenOpening }): {
  readonly where: 'beside' | 'under' | 'above';
  readonly clear: number;
} {
  const narrow = narrowOf(door);
  const { from, to } = spanAt(way, through);
  const sides = [
    { where: 'beside' as const, clear: Math.min(from - narrow.from, narrow.to - to) },
    { where: 'under' as const, clear: through.z0 - door.sill },
    { where: 'above' as const, clear: door.head - through.z1 },
  ];
  return sides.reduce((least, next) => (next.clear < least.clear ? next : least));
}
