import type { Motion } from './motions.js';
import type { Board } from './skeleton.js';

/** A motion that a part goes with: it is carried by it, or taken off for it. */
export interface Goes {
  readonly motion: Motion;
  readonly off: boolean;
}

/** How a board of a unit goes with one of its motions; null where that leaves it where it is. */
export function goesWith(unit: string, { name, moves }: Pick<Board, 'name' | 'moves'>, motion: Motion): Goes | null {
  if (motion.off?.includes(name) === true) return { motion, off: true };
  const whole = motion.whole === true || (motion.kind === 'lift-off' && !motion.part);
  return whole || (moves !== undefined && motion.of === `${unit}.${moves}`) ? { motion, off: false } : null;
}
