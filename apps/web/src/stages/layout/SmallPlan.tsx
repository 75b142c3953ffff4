import type { Unit } from '@nestplank/core/document';
import { leavesPlace, outlineFromAbove } from '@nestplank/core/furniture';
import type { Point } from '@nestplank/core/numeric';
import { halfWidth, type Shell } from '@nestplank/core/shell';
import { ringPath } from '../../kit/path.js';
import type { MovedPart } from './modes.js';

const NOTHING: readonly MovedPart[] = [];
/** What begins higher than this hangs, and is drawn open, mm. */
const HANGS_MM = 900;

/** A plan, small: the floor, what stands on it, what is moved. The front is to the left. */
export function SmallPlan({
  units,
  room,
  high,
  moved = NOTHING,
}: {
  readonly units: readonly Unit[];
  readonly room: Shell;
  /** How high it is drawn, px. */
  readonly high: number;
  readonly moved?: readonly MovedPart[];
}) {
  const half = (side: 'left' | 'right', x: number, z: number): number => halfWidth(room, side, x, z);
  const wide = Math.max(half('left', room.length / 2, 700), half('right', room.length / 2, 700)) + 30;
  const scale = high / (2 * wide);
  const path = (ring: readonly Point[]): string =>
    ringPath(ring.map(([x, y]): Point => [2 + x * scale, (y + wide) * scale]));
  const edge = (side: 'left' | 'right'): Point[] =>
    [0, 0.25, 0.5, 0.75, 1].map((share): Point => {
      const x = room.start + share * (room.length - room.start);
      return [x, (side === 'left' ? -1 : 1) * half(side, x, room.floor)];
    });
  const away = new Set(moved.filter(({ motion }) => leavesPlace(motion)).map(({ unit }) => unit));
  const out = Math.max(room.length, ...moved.flatMap(({ prism }) => prism?.ring.map(([x]) => x) ?? []));
  const width = out * scale + 4;
  return (
    <svg viewBox={`0 0 ${width} ${high}`} height={high} width={width} aria-hidden="true">
      <path d={path([...edge('left'), ...edge('right').reverse()])} fill="var(--paper)" stroke="var(--soft)" />
      {units
        .filter((unit) => !away.has(unit.id))
        .map((unit) => (
          <path
            key={unit.id}
            d={path(outlineFromAbove(unit, room))}
            fill={unit.body.from > HANGS_MM ? 'none' : 'var(--birch, #e3cda4)'}
            stroke="var(--ink)"
            strokeWidth={0.75}
            strokeDasharray={unit.body.from > HANGS_MM ? '3 2' : undefined}
          />
        ))}
      {moved.map(
        ({ motion, prism }) =>
          prism && (
            <path
              key={motion.of}
              d={path(prism.ring)}
              fill="var(--birch, #e3cda4)"
              stroke="var(--data)"
              strokeWidth={1.5}
            />
          ),
      )}
    </svg>
  );
}
