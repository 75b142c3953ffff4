import type { Rough } from '@nestplank/core/document';
import type { SeenOn } from '@nestplank/core/measure';
import type { Point } from '@nestplank/core/numeric';
import { halfWidth, wallTop, type Shell } from '@nestplank/core/shell';
import type { Pointed } from '../state/pointing.js';
import { onWall, screenX, screenY, type FoldOutFrame } from './geometry.js';

/** The ends are not laid out: a strip before and behind the floor stands for them, px. */
export const END_STRIP = 26;
/** Between the floor and the strip of an end, px. */
export const END_GAP = 10;

/** How far from the centre line a surface that lies flat in the middle reaches on one side, mm. */
function reach(shell: Shell, on: SeenOn, x: number, sign: number): number {
  const side = sign < 0 ? 'left' : 'right';
  return halfWidth(shell, side, x, on === 'ceiling' ? wallTop(shell, side, x) : shell.floor);
}

const clamp = (value: number, least: number, most: number): number => Math.min(most, Math.max(least, value));

/** A place that was pointed at, as shares of the room. */
export function roughOf(shell: Shell, place: Pointed): Rough {
  const x = clamp(place.x / shell.length, 0, 1);
  const { surface, along } = place;
  const share =
    surface === 'left' || surface === 'right'
      ? clamp(along / wallTop(shell, surface, place.x), 0, 1)
      : clamp(along / reach(shell, surface, place.x, along), -1, 1);
  return { x, along: share };
}

/** Where on the fold-out a share of a surface is; null where that surface is not drawn now. */
export function roughPoint(frame: FoldOutFrame, on: SeenOn, rough: Rough, ceiling: boolean): Point | null {
  const { shell } = frame;
  const x = rough.x * shell.length;
  if (on === 'left' || on === 'right') return onWall(frame, on, x, rough.along * wallTop(shell, on, x));
  if (on === 'front' || on === 'rear') {
    const end = on === 'front' ? 0 : shell.length;
    const beside = END_GAP + END_STRIP / 2;
    return [
      screenX(frame, rough.along * reach(shell, on, end, rough.along)),
      screenY(frame, end) + (on === 'front' ? -beside : beside),
    ];
  }
  if ((on === 'ceiling') !== ceiling) return null;
  return [screenX(frame, rough.along * reach(shell, on, x, rough.along)), screenY(frame, x)];
}
