import { memo, useDeferredValue } from 'react';
import { bedLevels, halfWidth } from '@nestplank/core';
import { screenX, screenY, type FoldOutFrame } from '../../foldout/geometry.js';
import { useSliceX, type Scene } from '../../state/scene.js';
import { useSpeech } from '../../words/words.js';

/** The free width across at the slice: between fronts where units stand, else from lining to lining; on the bed its own width there. */
export const FreeWidth = memo(function FreeWidth({
  frame,
  scene,
}: {
  readonly frame: FoldOutFrame;
  readonly scene: Scene;
}) {
  const { len } = useSpeech();
  const { room, project, book } = scene;
  const x = useDeferredValue(useSliceX(frame.shell));
  if (!room) return null;
  const bed = project.units.find((unit) => unit.kind === 'platform-bed' && x >= unit.x && x <= unit.x + unit.length);
  const z = bed?.kind === 'platform-bed' ? bedLevels(bed, room, book).top : room.floor;
  const free = (side: 'left' | 'right'): number =>
    Math.min(
      halfWidth(room, side, x, z),
      ...project.units.flatMap((unit) =>
        !bed && unit.kind === 'base-cupboard' && unit.side === side && x >= unit.x && x <= unit.x + unit.length
          ? [unit.front]
          : [],
      ),
    );
  const [left, right] = [free('left'), free('right')];
  if (left + right <= 0) return null;
  const [a, b, y] = [screenX(frame, -left), screenX(frame, right), screenY(frame, x)];
  return (
    <g pointerEvents="none">
      <path d={`M${a} ${y - 7} V${y + 7} M${b} ${y - 7} V${y + 7}`} stroke="var(--data)" strokeWidth={1.5} />
      <text x={(a + b) / 2 + 30} y={y - 6} textAnchor="middle" className="data halo" style={{ fontSize: 15 }}>
        {len(left + right)}
      </text>
    </g>
  );
});
