import { useDrag } from '@use-gesture/react';
import { memo, type KeyboardEvent } from 'react';
import { useSliceX } from '../state/scene.js';
import { look } from '../state/view.js';
import { useSpeech } from '../words/use-speech.js';
import { screenY, type FoldOutFrame } from './geometry.js';

/** The movable line across the fold-out where the slice is taken. */
export const SliceMark = memo(function SliceMark({ frame }: { readonly frame: FoldOutFrame }) {
  const x = useSliceX(frame.shell);
  const { t, lenUnit } = useSpeech();
  const to = (value: number): void => look({ sliceX: Math.min(Math.max(value, 0), frame.shell.length) });
  const drag = useDrag(
    ({ movement: [, my], memo }) => {
      const start = typeof memo === 'number' ? memo : x;
      to(start + my / frame.scale);
      return start;
    },
    { preventDefault: true, pointer: { keys: false } },
  );
  const onKey = (event: KeyboardEvent): void => {
    const by = { ArrowUp: -10, ArrowLeft: -10, ArrowDown: 10, ArrowRight: 10, PageUp: -100, PageDown: 100 }[event.key];
    if (by === undefined) return;
    event.preventDefault();
    to(x + by);
  };
  const y = screenY(frame, x);
  const [left, right] = [frame.leftEdge - 4, frame.rightEdge + 4];
  return (
    <g
      className="slides-across"
      {...drag()}
      role="slider"
      tabIndex={0}
      aria-label={t('foldout.slice', { x: lenUnit(x) })}
      aria-valuemin={0}
      aria-valuemax={Math.round(frame.shell.length)}
      aria-valuenow={Math.round(x)}
      aria-valuetext={lenUnit(x)}
      onKeyDown={onKey}
    >
      <line x1={left} x2={right} y1={y} y2={y} stroke="var(--data)" strokeWidth={1.5} pointerEvents="none" />
      <rect x={left - 14} y={y - 22} width={40} height={44} fill="transparent" />
      <rect x={right - 26} y={y - 22} width={40} height={44} fill="transparent" />
      <path
        d={`M${left - 12} ${y - 9} L${left + 5} ${y} L${left - 12} ${y + 9} Z M${right + 12} ${y - 9} L${right - 5} ${y} L${right + 12} ${y + 9} Z`}
        fill="var(--data)"
      />
    </g>
  );
});
