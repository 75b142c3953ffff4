import { rectangle, type Point, type Ring } from '../numeric/plane.js';
import type { SolidBox } from '../rules/room.js';
import type { Message } from '../words/message.js';

interface Moving {
  /** The part that moves, by its lasting name: `kitchen.bay-2.door-1`. */
  readonly of: string;
  readonly name: Message;
  /** The upright box round what moves while it is shut or put away, mm. */
  readonly shut: SolidBox;
  /** All of its unit moves with it, and not only the boards of its name; so it is too with a unit that is taken away. */
  readonly whole?: true;
  /** Boards that are taken off for as long as it is moved, by their names. */
  readonly off?: readonly string[];
  /** Held on the road. */
  readonly latch: boolean;
  /** Somebody stands before it and uses it so far from it, mm; 0 where it needs nobody there. */
  readonly before: number;
  /** Where it can be held on its way, as shares of its range; left out where it is shut or open. */
  readonly stops?: readonly { readonly share: number; readonly name: Message }[];
}
/** Turns about an upright axis, like a door. */
export interface DoorMotion extends Moving {
  readonly kind: 'hinge';
  readonly about: 'z';
  /** Where its axis stands. */
  readonly at: Point;
  /** From shut to open, degrees: positive turns from the rear toward the right, seen from above. */
  readonly range: readonly [number, number];
  /** From the axis to its far edge, mm. */
  readonly reach: number;
}
/** Turns about a level axis: a flap, a lid, a leaf of a table. */
export interface FlapMotion extends Moving {
  readonly kind: 'hinge';
  readonly about: 'level';
  /** The room its far edge passes through on the way, as an upright box round all of it. */
  readonly through: SolidBox;
  /** Where it lies or stands when it is open. */
  readonly open: SolidBox;
  /** It is used outside: the wall with the door that it turns out through. */
  readonly outside?: 'left' | 'right' | 'rear';
  /** Turned about the line along x through a point (y, z) by so many degrees, where it is not a quarter; positive from right to up. */
  readonly tilt?: { readonly about: Point; readonly degrees: number };
}
/** Moves straight. */
export interface SlideMotion extends Moving {
  readonly kind: 'slide';
  /** Along x, y and z when fully open, mm. */
  readonly by: readonly [number, number, number];
  /** It may be drawn out of the vehicle, where a door is open before it. */
  readonly outside?: boolean;
  /** It runs on a pair of slides under it, no longer than this, mm, and no shorter than it is drawn out; what stands on it, kg. */
  readonly on?: { readonly long: number; readonly load: number };
}
/** Taken away, or to another place in the room. */
export interface LiftMotion extends Moving {
  readonly kind: 'lift-off';
  /** Where it goes; null where it is stowed. */
  readonly to: SolidBox | null;
  /** Only a part of its unit is taken off, such as a lid: the rest stays where it is. */
  readonly part: boolean;
}
/** How a part of a unit moves. The only source of swept room, of states in modes and of what is drawn open. */
export type Motion = DoorMotion | FlapMotion | SlideMotion | LiftMotion;

/** Whether a motion takes its whole unit out of the room. */
export const takesAway = (motion: Motion): boolean => motion.kind === 'lift-off' && !motion.part;
/** Whether a unit no longer stands where it stands by day once this is moved: it is taken out, or moved as a whole. */
export const leavesPlace = (motion: Motion): boolean => takesAway(motion) || motion.whole === true;

/** Room that what moves could ever reach, as an upright box, mm. */
export function reachOf(motion: Motion): SolidBox {
  const { shut } = motion;
  if (motion.kind === 'slide') {
    const [bx, by, bz] = motion.by;
    return {
      x0: shut.x0 + Math.min(0, bx),
      x1: shut.x1 + Math.max(0, bx),
      y0: shut.y0 + Math.min(0, by),
      y1: shut.y1 + Math.max(0, by),
      z0: shut.z0 + Math.min(0, bz),
      z1: shut.z1 + Math.max(0, bz),
    };
  }
  if (motion.kind === 'hinge' && motion.about === 'z') {
    const { at, reach } = motion;
    return { x0: at[0] - reach, x1: at[0] + reach, y0: at[1] - reach, y1: at[1] + reach, z0: shut.z0, z1: shut.z1 };
  }
  return motion.kind === 'hinge' ? motion.through : (motion.to ?? shut);
}

/** Room that is used: a ring seen from above, from one height to another, mm. */
export interface Prism {
  readonly ring: Ring;
  readonly z0: number;
  readonly z1: number;
}

/** A plain hinge opens at least so far, degrees. */
export const OPENS = 90;
const STEPS = 10;
const prism = ({ x0, x1, y0, y1, z0, z1 }: SolidBox): Prism => ({ ring: rectangle(x0, y0, x1, y1), z0, z1 });
const around = (a: SolidBox, b: SolidBox): SolidBox => ({
  x0: Math.min(a.x0, b.x0),
  x1: Math.max(a.x1, b.x1),
  y0: Math.min(a.y0, b.y0),
  y1: Math.max(a.y1, b.y1),
  z0: Math.min(a.z0, b.z0),
  z1: Math.max(a.z1, b.z1),
});
const shifted = (box: SolidBox, by: readonly [number, number, number], share: number): SolidBox => ({
  x0: box.x0 + by[0] * share,
  x1: box.x1 + by[0] * share,
  y0: box.y0 + by[1] * share,
  y1: box.y1 + by[1] * share,
  z0: box.z0 + by[2] * share,
  z1: box.z1 + by[2] * share,
});

function sector({ at: [x, y], range, reach }: DoorMotion, share: number): Ring {
  const arc = Array.from({ length: STEPS + 1 }, (_, i): Point => {
    const angle = ((range[0] + ((range[1] - range[0]) * share * i) / STEPS) * Math.PI) / 180;
    return [x + reach * Math.cos(angle), y + reach * Math.sin(angle)];
  });
  return [[x, y], ...arc];
}

/** The room that a motion passes through on its way from shut to a share of its range, in which nothing may stand. */
export function sweptBy(motion: Motion, share = 1): Prism {
  if (motion.kind === 'lift-off') return prism(motion.to ?? motion.shut);
  if (motion.kind === 'slide') return prism(around(motion.shut, shifted(motion.shut, motion.by, share)));
  if (motion.about === 'level') return prism(motion.through);
  return { ring: sector(motion, share), z0: motion.shut.z0, z1: motion.shut.z1 };
}

/** The upright box round what is tilted by a share of its turn. */
function tilted(
  { shut }: FlapMotion,
  { about: [y, z], degrees }: NonNullable<FlapMotion['tilt']>,
  share: number,
): SolidBox {
  const turn = (degrees * share * Math.PI) / 180;
  const [c, s] = [Math.cos(turn), Math.sin(turn)];
  const corners = [shut.y0, shut.y1].flatMap((cy) =>
    [shut.z0, shut.z1].map((cz): Point => [y + c * (cy - y) - s * (cz - z), z + s * (cy - y) + c * (cz - z)]),
  );
  const [ys, zs] = [corners.map(([a]) => a), corners.map(([, b]) => b)];
  return { ...shut, y0: Math.min(...ys), y1: Math.max(...ys), z0: Math.min(...zs), z1: Math.max(...zs) };
}

/** Where what moves is, moved by a share of its range; null where it is stowed away. */
export function standsMoved(motion: Motion, share: number): Prism | null {
  if (share <= 0) return prism(motion.shut);
  if (motion.kind === 'lift-off') return motion.to && prism(motion.to);
  if (motion.kind === 'slide') return prism(shifted(motion.shut, motion.by, share));
  if (motion.about === 'level') return prism(motion.tilt ? tilted(motion, motion.tilt, share) : motion.open);
  const { at, range, reach, shut } = motion;
  const thick = Math.min(shut.x1 - shut.x0, shut.y1 - shut.y0);
  const angle = ((range[0] + (range[1] - range[0]) * share) * Math.PI) / 180;
  const [c, s] = [Math.cos(angle), Math.sin(angle)];
  const turn = range[1] > range[0] ? -1 : 1;
  const corner = (along: number, off: number): Point => [
    at[0] + along * c - off * turn * s,
    at[1] + along * s + off * turn * c,
  ];
  return { ring: [corner(0, 0), corner(reach, 0), corner(reach, thick), corner(0, thick)], z0: shut.z0, z1: shut.z1 };
}

/** The room a motion sweeps, seen from above, mm. */
export const sweptFromAbove = (motion: Motion): Ring => sweptBy(motion).ring;
