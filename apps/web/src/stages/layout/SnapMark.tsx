import { memo } from 'react';
import { screenX, screenY, type FoldOutFrame } from '../../foldout/geometry.js';
import { useView } from '../../state/view.js';
import { useSpeech } from '../../words/use-speech.js';

/** The line that a moved unit has come to stand on, and why it is drawn to it. */
export const SnapMark = memo(function SnapMark({ frame }: { readonly frame: FoldOutFrame }) {
  const { said, len } = useSpeech();
  const snap = useView((view) => view.snap);
  if (!snap) return null;
  const { shell } = frame;
  const along = snap.axis === 'along';
  const [x1, y1, x2, y2] = along
    ? [screenX(frame, -1100), screenY(frame, snap.line), screenX(frame, 1100), screenY(frame, snap.line)]
    : [screenX(frame, snap.line), screenY(frame, shell.start), screenX(frame, snap.line), screenY(frame, shell.length)];
  return (
    <g pointerEvents="none" role="img" aria-label={said(snap.said)}>
      <line x1={x1} y1={y1} x2={x2} y2={y2} stroke="var(--data)" strokeWidth={1.5} strokeDasharray="7 4" />
      <text
        x={along ? (x1 + x2) / 2 : x1 + 6}
        y={along ? y1 - 6 : y1 + 18}
        textAnchor={along ? 'middle' : 'start'}
        className="data halo size-14 strong"
      >
        {len(Math.abs(snap.line))} · {said(snap.said)}
      </text>
    </g>
  );
});
