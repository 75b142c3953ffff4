import { memo } from 'react';
import type { Check } from '@nestplank/core/furniture';
import { screenX, screenY, type FoldOutFrame } from '../../foldout/geometry.js';
import type { Scene } from '../../state/scene.js';
import { look } from '../../state/view.js';

/** The checks that want a number on the drawing, in the order of the list. */
export const numbered = (checks: readonly Check[]): Check[] =>
  checks.filter((check) => check.aside === null && (check.grade === 'fails' || check.grade === 'tight'));

/** Numbers at the places that the checks speak of. */
export const CheckMarks = memo(function CheckMarks({
  frame,
  scene,
}: {
  readonly frame: FoldOutFrame;
  readonly scene: Scene;
}) {
  const taken: [number, number][] = [];
  return (
    <g>
      {numbered(scene.shape.checks).map((check, i) => {
        let x = screenX(frame, check.y);
        const y = screenY(frame, check.x);
        while (taken.some(([a, b]) => Math.hypot(a - x, b - y) < 26)) x += 27;
        taken.push([x, y]);
        return (
          <g className="takes" key={check.id} onClick={() => check.unit && look({ unit: check.unit, sliceX: check.x })}>
            <circle
              cx={x}
              cy={y}
              r={12}
              fill="var(--paper)"
              stroke="var(--needs)"
              strokeWidth={check.grade === 'fails' ? 3 : 1.75}
              strokeDasharray={check.grade === 'fails' ? undefined : '4 2.5'}
            />
            <text x={x} y={y + 5} textAnchor="middle" className="needs size-14 strong">
              {i + 1}
            </text>
          </g>
        );
      })}
    </g>
  );
});
