import type { Lined } from '@nestplank/core/document';
import type { Point } from '@nestplank/core/numeric';
import type { Seat } from '@nestplank/core/layout';
import { halfWidth, roofHeight, type Shell } from '@nestplank/core/shell';

/** Where one looks from: the eyes in the vehicle, mm, and which way, radians. A turn of 0 looks to the rear, one of a quarter to the right. */
export interface Eyes {
  readonly at: readonly [number, number, number];
  readonly turn: number;
  readonly nod: number;
}

/** One step, mm, and one turn of the head, radians. */
const STEP_MM = 100;
const TURN = Math.PI / 16;
const NOD_MOST = 1.4;

export const nodded = (nod: number): number => Math.max(-NOD_MOST, Math.min(NOD_MOST, nod));

/** The way one looks, as a vector. */
export const lookOf = ({ turn, nod }: Pick<Eyes, 'turn' | 'nod'>): readonly [number, number, number] => [
  Math.cos(turn) * Math.cos(nod),
  Math.sin(turn) * Math.cos(nod),
  Math.sin(nod),
];

/** Eyes of one who sits or lies, as they first look. */
export function eyesFrom({ eyes, looks: [x, y, z] }: Seat): Eyes {
  return { at: eyes, turn: Math.atan2(y, x), nod: Math.atan2(z, Math.hypot(x, y)) };
}

export const WALK_KEYS = ['ArrowUp', 'ArrowDown', 'ArrowLeft', 'ArrowRight', 'PageUp', 'PageDown', ',', '.'] as const;
export type WalkKey = (typeof WALK_KEYS)[number];
export const isWalkKey = (key: string): key is WalkKey => (WALK_KEYS as readonly string[]).includes(key);

/**
 * What a key does: forward and back by the arrows, turning by the arrows to the sides, to the side by , and ., up and down with
 * the head by the page keys.
 * @returns where one would then stand, seen from above, and how one looks
 */
export function walked(eyes: Eyes, key: WalkKey): { readonly to: Point; readonly turn: number; readonly nod: number } {
  const [x, y] = eyes.at;
  const ahead = key === 'ArrowUp' ? 1 : key === 'ArrowDown' ? -1 : 0;
  // to the left is a quarter more of a turn, seen from above
  const left = key === ',' ? 1 : key === '.' ? -1 : 0;
  const [c, s] = [Math.cos(eyes.turn), Math.sin(eyes.turn)];
  return {
    to: [x + STEP_MM * (ahead * c - left * s), y + STEP_MM * (ahead * s + left * c)],
    turn: eyes.turn + (key === 'ArrowLeft' ? TURN : key === 'ArrowRight' ? -TURN : 0),
    nod: nodded(eyes.nod + (key === 'PageUp' ? TURN : key === 'PageDown' ? -TURN : 0)),
  };
}

/** Whether one looks at the inner face of a surface from a place: from beyond it one sees its back, which is not drawn. */
export function facesEye(
  surface: Lined,
  at: { readonly x: number; readonly y: number; readonly z: number },
  room: Shell,
): boolean {
  const x = Math.min(room.length, Math.max(room.start, at.x));
  if (surface === 'front') return at.x > room.start;
  if (surface === 'rear') return at.x < room.length;
  if (surface === 'ceiling') return at.z < roofHeight(room, x, 0);
  const wall = halfWidth(room, surface, x, room.floor + 500);
  return surface === 'left' ? at.y > -wall : at.y < wall;
}
