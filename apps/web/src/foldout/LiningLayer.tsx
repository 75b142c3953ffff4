import { memo } from 'react';
import type { Side } from '@nestplank/core/document';
import type { Lining } from '@nestplank/core/lining';
import type { Point } from '@nestplank/core/numeric';
import { developedHeight } from '@nestplank/core/shell';
import { ringPath } from '../kit/path.js';
import { screenX, screenY, type FoldOutFrame } from './geometry.js';

const sideOf = (lining: Lining): Side | null =>
  lining.surface === 'left' || lining.surface === 'right' ? lining.surface : null;

/** The pieces of the linings where they lie on the fold-out: seams of the walls, or of the ceiling when that is looked at. */
export const LiningLayer = memo(function LiningLayer({
  frame,
  linings,
  ceiling,
  floor,
}: {
  readonly frame: FoldOutFrame;
  readonly linings: readonly Lining[];
  readonly ceiling: boolean;
  /** Height of the finished floor, from which a lining is measured. */
  readonly floor: number;
}) {
  const at = (lining: Lining, [u, v]: Point): Point => {
    const side = sideOf(lining);
    if (side === null) return [screenX(frame, v), screenY(frame, u)];
    const up = (v + developedHeight(frame.shell, side, u, floor)) * frame.scale;
    return [side === 'left' ? frame.leftFoot - up : frame.rightFoot + up, screenY(frame, u)];
  };
  return (
    <g pointerEvents="none" data-layer="lining">
      {linings
        .filter((lining) => sideOf(lining) !== null || (lining.surface === 'ceiling' && ceiling))
        .map((lining) => (
          <path
            key={lining.surface}
            d={lining.pieces
              .flatMap((piece) => [piece.outline.outer, ...piece.outline.holes])
              .map((ring) => ringPath(ring.map((point) => at(lining, point))))
              .join(' ')}
            fill="none"
            stroke="var(--data)"
            strokeOpacity={0.55}
            strokeWidth={0.8}
          />
        ))}
    </g>
  );
});
