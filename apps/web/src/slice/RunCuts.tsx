import type { PlacedRun } from '@nestplank/core/furniture';
import type { Speech } from '../words/words.js';
import type { View } from './view.js';

/** A stretch that lies across the vehicle is seen from end to end when it is no further from the slice than this, mm. */
const NEAR_MM = 40;

/** Cables, pipes and ducts where the slice meets them: cut through as rings, along it as strokes of their own width. */
export function RunCuts({
  runs,
  x,
  view,
  speech,
}: {
  readonly runs: readonly PlacedRun[];
  readonly x: number;
  readonly view: View;
  readonly speech: Speech;
}) {
  return runs.map(({ run, points }) => {
    const drawn = points.slice(1).flatMap((b, i) => {
      const a = points[i] ?? b;
      const by = b[0] - a[0];
      if (Math.abs(by) < 1) {
        if (Math.abs(a[0] - x) > NEAR_MM) return [];
        const [[x1, y1], [x2, y2]] = [view.at(a[1], a[2]), view.at(b[1], b[2])];
        return [
          <line
            key={i}
            x1={x1}
            y1={y1}
            x2={x2}
            y2={y2}
            stroke="var(--ink)"
            strokeWidth={Math.max(1, run.diameter * view.scale)}
            strokeOpacity={0.35}
          />,
        ];
      }
      const share = (x - a[0]) / by;
      if (share < 0 || share > 1) return [];
      const [cx, cy] = view.at(a[1] + (b[1] - a[1]) * share, a[2] + (b[2] - a[2]) * share);
      return [
        <circle
          key={i}
          cx={cx}
          cy={cy}
          r={Math.max(2, (run.diameter / 2) * view.scale)}
          fill="var(--paper)"
          stroke="var(--ink)"
          strokeWidth={1.25}
        />,
      ];
    });
    return drawn.length === 0 ? null : (
      <g key={run.id} role="img" aria-label={speech.t('slice.run', { run: run.name })}>
        {drawn}
      </g>
    );
  });
}
