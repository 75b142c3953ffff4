import { memo, useDeferredValue, useMemo } from 'react';
import { sceneOf } from '@nestplank/core/derive';
import { isAt, spansWalls } from '@nestplank/core/document';
import { FAMILIES } from '@nestplank/core/furniture';
import { wayAt } from '@nestplank/core/layout';
import { halfWidth } from '@nestplank/core/shell';
import { screenX, screenY, type FoldOutFrame } from '../../foldout/geometry.js';
import { useSliceX, type Scene } from '../../state/scene.js';
import { useView } from '../../state/view.js';
import { useSpeech } from '../../words/use-speech.js';

/** So far from the centre line it is written, and half of what it takes, px. */
const BESIDE_PX = 30;
const HALF_PX = 18;

/** The free width across at the slice: the way past what stands there, as it is judged; on a bed from wall to wall its own width. */
export const FreeWidth = memo(function FreeWidth({
  frame,
  scene,
}: {
  readonly frame: FoldOutFrame;
  readonly scene: Scene;
}) {
  const { len } = useSpeech();
  const { room, project, shape, book } = scene;
  const asked = useView((view) => view.gap !== null);
  const x = useDeferredValue(useSliceX(frame.shell));
  const world = useMemo(
    () => sceneOf(project, { ...shape, inner: shape.inner ?? room }, book, FAMILIES),
    [project, shape, book, room],
  );
  // a free place that is asked for tells its own measures there
  if (!room || !world || asked) return null;
  const across = project.layout.units.find((unit) => spansWalls(unit) && isAt(unit, x));
  const onTop = (side: 'left' | 'right'): number =>
    halfWidth(room, side, x, room.floor + (across ? across.body.to : 0));
  const way = wayAt(x, world) ?? { from: -onTop('left'), to: onTop('right') };
  if (way.to - way.from <= 0) return null;
  const [a, b, y] = [screenX(frame, way.from), screenX(frame, way.to), screenY(frame, x)];
  const middle = (a + b) / 2;
  // beside the centre line, and within the way as long as there is room
  const named = Math.min(middle + BESIDE_PX, Math.max(middle, b - HALF_PX));
  return (
    <g pointerEvents="none">
      <path d={`M${a} ${y - 7} V${y + 7} M${b} ${y - 7} V${y + 7}`} stroke="var(--data)" strokeWidth={1.5} />
      <text x={named} y={y - 6} textAnchor="middle" className="data halo size-15">
        {len(way.to - way.from)}
      </text>
    </g>
  );
});
