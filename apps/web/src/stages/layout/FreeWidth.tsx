import { memo, useDeferredValue } from 'react';
import { frontLineOf, isAt, spansWalls } from '@nestplank/core/document';
import { halfWidth } from '@nestplank/core/shell';
import { screenX, screenY, type FoldOutFrame } from '../../foldout/geometry.js';
import { useSliceX, type Scene } from '../../state/scene.js';
import { useSpeech } from '../../words/use-speech.js';

/** The free width across at the slice: between fronts where units stand, else from lining to lining; on the bed its own width there. */
export const FreeWidth = memo(function FreeWidth({
  frame,
  scene,
}: {
  readonly frame: FoldOutFrame;
  readonly scene: Scene;
}) {
  const { len } = useSpeech();
  const { room, project } = scene;
  const x = useDeferredValue(useSliceX(frame.shell));
  if (!room) return null;
  const across = project.layout.units.find((unit) => spansWalls(unit) && isAt(unit, x));
  const z = across ? room.floor + across.body.to : room.floor;
  const free = (side: 'left' | 'right'): number =>
    Math.min(
      halfWidth(room, side, x, z),
      ...project.layout.units.flatMap((unit) => {
        const line = frontLineOf(unit);
        return !across && unit.body.from < 900 && line?.side === side && isAt(unit, x) ? [line.front] : [];
      }),
    );
  const [left, right] = [free('left'), free('right')];
  if (left + right <= 0) return null;
  const [a, b, y] = [screenX(frame, -left), screenX(frame, right), screenY(frame, x)];
  return (
    <g pointerEvents="none">
      <path d={`M${a} ${y - 7} V${y + 7} M${b} ${y - 7} V${y + 7}`} stroke="var(--data)" strokeWidth={1.5} />
      <text x={(a + b) / 2 + 30} y={y - 6} textAnchor="middle" className="data halo size-15">
        {len(left + right)}
      </text>
    </g>
  );
});
