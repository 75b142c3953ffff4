import { memo } from 'react';
import type { PlacedRun } from '@nestplank/core/furniture';
import { screenX, screenY, type FoldOutFrame } from '../../foldout/geometry.js';
import { isNamed, runPlace } from '../../foldout/label-place.js';
import type { Scene } from '../../state/scene.js';
import { useView } from '../../state/view.js';
import { useSpeech } from '../../words/use-speech.js';

/** Each kind has its own dashes; a letter beside it says which it is. */
const DASHES: Readonly<Record<PlacedRun['run']['kind'], string>> = {
  cable: '2 4',
  water: '10 3',
  waste: '16 4',
  gas: '10 3 2 3',
  duct: '1 2',
  flue: '6 2 1 2',
  fuel: '4 3',
};

/** Cables, pipes and ducts on the fold-out's floor, with their holes. */
export const RunLayer = memo(function RunLayer({
  frame,
  scene,
}: {
  readonly frame: FoldOutFrame;
  readonly scene: Scene;
}) {
  const { t, len } = useSpeech();
  const { placed, holes } = scene.derived.runs;
  const chosen = useView((view) => view.unit);
  const at = ([x, y]: readonly number[]): string => `${screenX(frame, y ?? 0)},${screenY(frame, x ?? 0)}`;
  return (
    <g pointerEvents="none">
      {placed.map(({ run, points, length }) => {
        if (points.length === 0) return null;
        return (
          <g
            key={run.id}
            role="img"
            aria-label={t('runs.line', { kind: `${run.name}: ${t(`runs.kind.${run.kind}`)}`, length: len(length) })}
          >
            <polyline points={points.map(at).join(' ')} fill="none" stroke="var(--paper)" strokeWidth={5} />
            <polyline
              points={points.map(at).join(' ')}
              fill="none"
              stroke="var(--ink)"
              strokeWidth={run.kind === 'waste' || run.kind === 'duct' ? 3 : 1.75}
              strokeDasharray={DASHES[run.kind]}
            />
          </g>
        );
      })}
      {holes.map((hole) => (
        <circle
          key={`${hole.unit}.${hole.board}.${hole.at.join()}`}
          cx={screenX(frame, hole.place[1])}
          cy={screenY(frame, hole.place[0])}
          r={3.5}
          fill="var(--paper)"
          stroke={hole.edge > 0 && !hole.moves ? 'var(--data)' : 'var(--needs)'}
          strokeWidth={1.75}
        />
      ))}
      {placed.map((one) => {
        const label = isNamed(one, chosen) && runPlace(frame, one);
        return (
          label && (
            <text key={one.run.id} x={label.x} y={label.y} textAnchor="middle" className="halo size-12">
              {one.run.name}
            </text>
          )
        );
      })}
    </g>
  );
});
