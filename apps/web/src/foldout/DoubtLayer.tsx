import { memo } from 'react';
import type { Side } from '@nestplank/core/document';
import type { DoubtGrid } from '@nestplank/core/measure';
import { ringPath } from '../kit/path.js';
import { isNarrow, wallPatch, type FoldOutFrame } from './geometry.js';

const SIDES: readonly Side[] = ['left', 'right'];
/** Beyond the goal a place is hatched; beyond so many goals more closely. */
const DEEP = 2.5;

/** Shading where the model is not sure to what is wanted: hatched, closer where it is worse. */
export const DoubtLayer = memo(function DoubtLayer({
  frame,
  doubt,
  goal,
  label,
  legend,
}: {
  readonly frame: FoldOutFrame;
  readonly doubt: DoubtGrid;
  readonly goal: number;
  readonly label: string;
  readonly legend: string;
}) {
  const { xs, zs } = doubt;
  return (
    <g role="img" aria-label={label} pointerEvents="none">
      {[...doubt.left, ...doubt.right].flat().some((value) => value > goal) && (
        <text
          x={frame.rightEdge}
          y={frame.top + frame.height + (isNarrow(frame) ? 36 : 18)}
          textAnchor="end"
          className="needs"
        >
          {legend}
        </text>
      )}
      {SIDES.flatMap((side) =>
        zs.slice(1).flatMap((z1, row) =>
          xs.slice(1).map((x1, column) => {
            const corners = [row, row + 1].flatMap((r) => [doubt[side][r]?.[column], doubt[side][r]?.[column + 1]]);
            const mean = corners.reduce<number>((sum, value) => sum + (value ?? 0), 0) / corners.length;
            const [x0, z0] = [xs[column] ?? 0, zs[row] ?? 0];
            return mean <= goal ? null : (
              <path
                key={`${side}${row}/${column}`}
                d={ringPath(wallPatch(frame, side, x0, x1, z0, z1))}
                fill={mean > goal * DEEP ? 'url(#hatch-doubt-deep)' : 'url(#hatch-doubt)'}
              />
            );
          }),
        ),
      )}
    </g>
  );
});
