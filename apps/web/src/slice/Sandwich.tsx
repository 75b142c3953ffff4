import type { ReactNode } from 'react';
import type { BuildUpDepths } from '@nestplank/core/layers';
import { spread, type Point } from '@nestplank/core/numeric';
import { halfWidth, roofHeight, wallTop, type Shell } from '@nestplank/core/shell';
import { ringPath } from '../kit/path.js';
import type { View } from './view.js';

/** Moves an open line to its left by a distance, along its own normal. */
function offset(line: readonly Point[], by: number): Point[] {
  return line.map(([x, y], i): Point => {
    const [a, b] = [line[Math.max(0, i - 1)] ?? [x, y], line[Math.min(line.length - 1, i + 1)] ?? [x, y]];
    const [dx, dy] = [b[0] - a[0], b[1] - a[1]];
    const length = Math.hypot(dx, dy) || 1;
    return [x - (dy / length) * by, y + (dx / length) * by];
  });
}

/** The layers of walls and ceiling cut through, each as thick as what it takes off the room, in its material's hatch. */
export function Sandwich({
  shell,
  depths,
  x,
  view,
}: {
  readonly shell: Shell;
  readonly depths: BuildUpDepths;
  readonly x: number;
  readonly view: View;
}) {
  const up = (side: 'left' | 'right', sign: number): Point[] =>
    spread(0, wallTop(shell, side, x), 25).map((z): Point => [sign * halfWidth(shell, side, x, z), z]);
  const [left, right] = [up('left', -1), up('right', 1)];
  const roof = spread(right.at(-1)?.[0] ?? 0, left.at(-1)?.[0] ?? 0, 33).map((y): Point => [
    y,
    roofHeight(shell, x, y),
  ]);
  // each line runs with the room on its left: up the right wall, over the roof, down the left wall
  const lines = { right, ceiling: roof, left: [...left].reverse() } as const;
  const bands: ReactNode[] = (['right', 'ceiling', 'left'] as const).flatMap((surface) => {
    let from = 0;
    return depths[surface].layers.flatMap(({ layer, material, takes }) => {
      if (takes <= 0) return [];
      const [a, b] = [from, from + takes];
      from = b;
      const ring = [...offset(lines[surface], a), ...offset(lines[surface], b).reverse()];
      return [
        <path
          key={`${surface}:${layer.id}`}
          d={ringPath(ring.map(([y, z]) => view.at(y, z)))}
          fill={`url(#hatch-${material?.hatch ?? 'grey'})`}
          stroke="var(--ink)"
          strokeWidth={0.75}
        />,
      ];
    });
  });
  return <g data-layer="sandwich">{bands}</g>;
}
