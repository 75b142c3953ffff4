import { memo, useMemo } from 'react';
import { boxOf, type Point } from '@nestplank/core/numeric';
import { ringPath } from '../../kit/path.js';
import { screenX, screenY, type FoldOutFrame } from '../../foldout/geometry.js';
import type { Scene } from '../../state/scene.js';
import { useView } from '../../state/view.js';
import { useSpeech } from '../../words/use-speech.js';
import { movedParts, stepsOf } from './modes.js';

/** What is moved in the mode that is shown, where it then is, numbered in the order in which it is moved. */
export const ModeLayer = memo(function ModeLayer({
  frame,
  scene,
}: {
  readonly frame: FoldOutFrame;
  readonly scene: Scene;
}) {
  const { said } = useSpeech();
  const shown = useView((view) => view.mode);
  const modes = scene.project.layout.modes ?? [];
  const at = modes.findIndex(({ id }) => id === shown);
  const mode = modes[at];
  const before = modes[(at - 1 + modes.length) % modes.length];
  const steps = useMemo(
    () => (mode && before && before !== mode ? stepsOf(scene, before, mode) : []),
    [scene, mode, before],
  );
  if (!mode) return null;
  return (
    <g pointerEvents="none">
      {movedParts(scene, mode.states).map(({ motion, prism }) => {
        if (!prism) return null;
        const ring = prism.ring.map(([x, y]): Point => [screenX(frame, y), screenY(frame, x)]);
        const box = boxOf(ring);
        const number = steps.findIndex((step) => step.motion === motion.of);
        const [cx, cy] = [(box.minX + box.maxX) / 2, (box.minY + box.maxY) / 2];
        return (
          <g key={motion.of} role="img" aria-label={said(motion.name)}>
            <path d={ringPath(ring)} fill="url(#hatch-birch)" fillOpacity={0.3} stroke="var(--data)" strokeWidth={2} />
            {number >= 0 && (
              <>
                <rect x={cx - 10} y={cy - 10} width={20} height={20} fill="var(--paper)" stroke="var(--data)" />
                <text x={cx} y={cy + 5} textAnchor="middle" className="data size-14 strong">
                  {number + 1}
                </text>
              </>
            )}
          </g>
        );
      })}
    </g>
  );
});
