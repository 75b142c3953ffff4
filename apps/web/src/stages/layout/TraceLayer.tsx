import { memo } from 'react';
import { outlineFromAbove } from '@nestplank/core/furniture';
import { boxOf, type Point } from '@nestplank/core/numeric';
import { ringPath } from '../../kit/path.js';
import { screenX, screenY, type FoldOutFrame } from '../../foldout/geometry.js';
import type { Scene } from '../../state/scene.js';
import { useView } from '../../state/view.js';

/** A kept layout over the one that stands, as on tracing paper: outlines and names, in data blue. */
export const TraceLayer = memo(function TraceLayer({
  frame,
  scene,
}: {
  readonly frame: FoldOutFrame;
  readonly scene: Scene;
}) {
  const traced = useView((view) => view.traced);
  const variant = scene.project.variants?.find(({ id }) => id === traced);
  const { room } = scene;
  if (!variant || !room) return null;
  return (
    <g pointerEvents="none" role="img" aria-label={variant.name}>
      {variant.layout.units.map((unit) => {
        const ring = outlineFromAbove(unit, room).map(([x, y]): Point => [screenX(frame, y), screenY(frame, x)]);
        const box = boxOf(ring);
        return (
          <g key={unit.id}>
            <path
              d={ringPath(ring)}
              fill="var(--paper)"
              fillOpacity={0.35}
              stroke="var(--data)"
              strokeWidth={2}
              strokeDasharray="9 5"
            />
            <text x={(box.minX + box.maxX) / 2} y={box.minY + 15} textAnchor="middle" className="data halo size-12">
              {unit.name}
            </text>
          </g>
        );
      })}
    </g>
  );
});
