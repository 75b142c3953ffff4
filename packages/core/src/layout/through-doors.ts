import type { Motion } from '../furniture/motions.js';
import type { Scene, SeenOpening } from '../furniture/scene.js';
import type { SolidBox } from '../rules/room.js';
import { narrowOf, widthOf } from '../shell/openings.js';
import { halfWidth } from '../shell/shell.js';

/** A wall that something goes out through. */
export type OutThrough = 'left' | 'right' | 'rear';
const WAYS: readonly OutThrough[] = ['left', 'right', 'rear'];
/** Nothing that reaches less far beyond a wall has to pass a door, mm. */
const BEYOND_MM = 30;

/** How something that moves leaves the vehicle. */
export interface Leaves {
  readonly way: OutThrough;
  /** The door that is behind it; null where there is none. */
  readonly door: SeenOpening | null;
  /** The room it passes the wall in, mm. */
  readonly through: SolidBox;
}

/** Which axis of the floor runs along a wall. */
const alongOf = (way: OutThrough): 'x' | 'y' => (way === 'rear' ? 'y' : 'x');
/** From where to where a box reaches along a wall, mm. */
export const spanAt = (way: OutThrough, box: SolidBox): { readonly from: number; readonly to: number } =>
  alongOf(way) === 'x' ? { from: box.x0, to: box.x1 } : { from: box.y0, to: box.y1 };

/** How far a box reaches beyond a wall, at its own middle, mm. */
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

/**
 * How something that is meant to be used outside gets there: a board that turns out, a tray that is drawn out. Null for what
 * stays inside.
 */
export function leaves(motion: Motion, scene: Scene): Leaves | null {
  const slid = motion.kind === 'slide' && motion.outside === true;
  if (!slid && !(motion.kind === 'hinge' && motion.about === 'level')) return null;
  const { shut } = motion;
  const out: SolidBox = slid
    ? {
        ...shut,
        x0: shut.x0 + motion.by[0],
        x1: shut.x1 + motion.by[0],
        y0: shut.y0 + motion.by[1],
        y1: shut.y1 + motion.by[1],
      }
    : (motion as Extract<Motion, { kind: 'hinge'; about: 'level' }>).open;
  const way = WAYS.find((one) => beyond(scene, one, out) > BEYOND_MM);
  if (way === undefined) return null;
  const through = slid ? shut : (motion as Extract<Motion, { kind: 'hinge'; about: 'level' }>).through;
  const [door = null] = scene.openings
    .filter(({ opening }) => opening.kind === 'door' && opening.surface === way)
    .filter((one) => within(one, way, through) > 0)
    .sort((a, b) => within(b, way, through) - within(a, way, through));
  return { way, door, through };
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
