import type { Vector } from '../parts/part.js';
import type { Axis } from '../parts/lay-flat.js';
import type { SolidBox } from '../rules/room.js';
import type { Motion } from './motions.js';

/** A move without change of shape: first turned about an axis through a point, then moved along; radians and mm. */
export interface Rigid {
  readonly axis: Axis;
  readonly about: Vector;
  /** Positive from the axis after it to the one after that: about z from x to y. */
  readonly turn: number;
  readonly by: Vector;
}

const NOWHERE: Vector = [0, 0, 0];
const AXES: readonly Axis[] = ['x', 'y', 'z'];
const QUARTERS = [1, -1, 2, 0] as const;
type Spans = readonly [readonly [number, number], readonly [number, number], readonly [number, number]];
const spansOf = ({ x0, x1, y0, y1, z0, z1 }: SolidBox): Spans => [
  [x0, x1],
  [y0, y1],
  [z0, z1],
];

/** Where a point comes to be by a move, mm. */
export function moved({ axis, about, turn, by }: Rigid, point: Vector): Vector {
  const k = AXES.indexOf(axis);
  const [i, j] = [(k + 1) % 3, (k + 2) % 3];
  const [c, s] = [Math.cos(turn), Math.sin(turn)];
  const at = (n: number): number => (point[n] ?? 0) - (about[n] ?? 0);
  const to = [0, 0, 0];
  to[k] = (point[k] ?? 0) + (by[k] ?? 0);
  to[i] = (about[i] ?? 0) + c * at(i) - s * at(j) + (by[i] ?? 0);
  to[j] = (about[j] ?? 0) + s * at(i) + c * at(j) + (by[j] ?? 0);
  return [to[0] ?? 0, to[1] ?? 0, to[2] ?? 0];
}

/** How far the box round what was moved is from where it should be: the sum over its faces, mm. */
function missed(rigid: Rigid, from: SolidBox, to: SolidBox): number {
  const [a, b] = [spansOf(from), spansOf(to)];
  const ends = [0, 1].map((n) => moved(rigid, [a[0][n] ?? 0, a[1][n] ?? 0, a[2][n] ?? 0]));
  return [0, 1, 2].reduce((sum, axis) => {
    const [p, q] = [ends[0]?.[axis] ?? 0, ends[1]?.[axis] ?? 0];
    const span = b[axis] ?? [0, 0];
    return sum + Math.abs(Math.min(p, q) - span[0]) + Math.abs(Math.max(p, q) - span[1]);
  }, 0);
}

/** The turn by quarters about one of its own edges that best brings a shut flap to where it lies open. */
function flapTurn(shut: SolidBox, open: SolidBox): Rigid {
  const spans = spansOf(shut);
  const turns = (['x', 'y'] as const).flatMap((axis) => {
    const k = AXES.indexOf(axis);
    const [i, j] = [(k + 1) % 3, (k + 2) % 3];
    return QUARTERS.flatMap((quarter) =>
      [0, 1].flatMap((p) =>
        [0, 1].map((q): Rigid => {
          const about = [0, 0, 0];
          about[i] = spans[i as 0 | 1 | 2][p] ?? 0;
          about[j] = spans[j as 0 | 1 | 2][q] ?? 0;
          return {
            axis,
            about: [about[0] ?? 0, about[1] ?? 0, about[2] ?? 0],
            turn: (quarter * Math.PI) / 2,
            by: NOWHERE,
          };
        }),
      ),
    );
  });
  return turns.reduce((best, turn) => (missed(turn, shut, open) < missed(best, shut, open) ? turn : best));
}

/** What is carried to another place: turned by a quarter where it only fits so, its middle in the middle of where it goes. */
function carried(from: SolidBox, to: SolidBox): Rigid {
  const middle = (box: SolidBox): Vector => {
    const [x, y, z] = spansOf(box);
    return [(x[0] + x[1]) / 2, (y[0] + y[1]) / 2, (z[0] + z[1]) / 2];
  };
  const [a, b] = [middle(from), middle(to)];
  const by: Vector = [b[0] - a[0], b[1] - a[1], b[2] - a[2]];
  const stays: Rigid = { axis: 'z', about: a, turn: 0, by };
  return AXES.map((axis): Rigid => ({ axis, about: a, turn: Math.PI / 2, by })).reduce(
    (best, turn) => (missed(turn, from, to) < missed(best, from, to) - 1 ? turn : best),
    stays,
  );
}

/**
 * How what moves is moved by a share of its range; null where it is stowed out of the room. At a whole share it stands where
 * `standsMoved` says.
 */
export function rigidOf(motion: Motion, share: number): Rigid | null {
  const still: Rigid = { axis: 'z', about: NOWHERE, turn: 0, by: NOWHERE };
  if (share <= 0) return still;
  if (motion.kind === 'lift-off') return motion.to && carried(motion.shut, motion.to);
  if (motion.kind === 'slide') {
    const [x, y, z] = motion.by;
    return { ...still, by: [x * share, y * share, z * share] };
  }
  if (motion.about === 'level' && motion.tilt) {
    const [y, z] = motion.tilt.about;
    return { axis: 'x', about: [0, y, z], turn: (motion.tilt.degrees * share * Math.PI) / 180, by: NOWHERE };
  }
  if (motion.about === 'level') {
    const whole = flapTurn(motion.shut, motion.open);
    return { ...whole, turn: whole.turn * share };
  }
  const [from, to] = motion.range;
  return { axis: 'z', about: [...motion.at, 0], turn: ((to - from) * share * Math.PI) / 180, by: NOWHERE };
}
