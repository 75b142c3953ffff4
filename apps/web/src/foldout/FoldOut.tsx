import ToggleButton from '@mui/material/ToggleButton';
import { memo, useCallback, useMemo, type ReactNode } from 'react';
import type { Point } from '@nestplank/core/numeric';
import { useScene } from '../state/scene.js';
import { look, useView } from '../state/view.js';
import { PointOverlay } from '../kit/PointOverlay.js';
import { useSize } from '../kit/use-size.js';
import { useSpeech } from '../words/use-speech.js';
import { isNarrow, foldOutFrame, placeAt, type FoldOutFrame } from './geometry.js';
import { ArchPlan, ShellLayer } from './ShellLayer.js';
import { LiningLayer } from './LiningLayer.js';
import { RoughLayer } from './RoughLayer.js';
import { SketchFoldOut } from './SketchFoldOut.js';
import { SliceMark } from './SliceMark.js';

/** A drawing lower than this only shows a place: no words round it, px. */
const SMALL_PX = 200;

/** What the drawing shows besides. */
const Switches = memo(function Switches({
  measured,
  lined,
  tools,
}: {
  readonly measured: boolean;
  readonly lined: boolean;
  readonly tools?: ReactNode;
}) {
  const { t } = useSpeech();
  const ceiling = useView((view) => view.ceiling);
  const exaggerate = useView((view) => view.exaggerate);
  const lining = useView((view) => view.lining);
  return (
    <div className="row no-print switches">
      <ToggleButton value="ceiling" size="small" selected={ceiling} onChange={() => look({ ceiling: !ceiling })}>
        {t('foldout.showCeiling')}
      </ToggleButton>
      {measured && (
        <ToggleButton
          value="exaggerate"
          size="small"
          selected={exaggerate}
          onChange={() => look({ exaggerate: !exaggerate })}
          aria-label={t('foldout.exaggerated')}
        >
          {t('foldout.times10')}
        </ToggleButton>
      )}
      {measured && lined && (
        <ToggleButton value="lining" size="small" selected={lining} onChange={() => look({ lining: !lining })}>
          {t('foldout.lining')}
        </ToggleButton>
      )}
      {measured && tools}
    </div>
  );
});

/** The inside of the vehicle unfolded flat; what a stage draws on it is given as a function of the frame. */
export function FoldOut({
  ink,
  overhead,
  quiet = false,
  seen = false,
  current = null,
  beyond = 0,
  tools,
}: {
  /** What is drawn when the ceiling is in the middle. */
  readonly overhead?: (frame: FoldOutFrame) => ReactNode;
  readonly tools?: ReactNode;
  readonly ink: (frame: FoldOutFrame) => ReactNode;
  readonly quiet?: boolean;
  /** What was only seen is drawn too. */
  readonly seen?: boolean;
  /** The reading that is asked for. */
  readonly current?: string | null;
  /** How far behind the rear end something is drawn, mm. */
  readonly beyond?: number;
}) {
  const { t } = useSpeech();
  const scene = useScene();
  const { ref, width, height } = useSize<HTMLDivElement>();
  const ceiling = useView((view) => view.ceiling);
  const exaggerate = useView((view) => view.exaggerate);
  const lining = useView((view) => view.lining);
  const shell = scene?.shape.shell ?? null;
  const frame = useMemo(
    () => (shell && width > 40 && height > 40 ? foldOutFrame(shell, width, height, beyond) : null),
    [shell, width, height, beyond],
  );
  const place = useCallback((at: Point) => frame && placeAt(frame, ceiling, at), [frame, ceiling]);
  const narrow = frame !== null && isNarrow(frame);
  const worded = height >= SMALL_PX;
  return (
    <div className="drawing" ref={ref}>
      {scene && !shell && width > 40 && height > 40 && (
        <SketchFoldOut project={scene.project} current={current} ceiling={ceiling} width={width} height={height} />
      )}
      {scene && frame && scene.room && (
        <svg
          role="group"
          aria-label={t('foldout.name', {
            vehicle: scene.project.name,
            middle: t(ceiling ? 'foldout.ceiling' : 'foldout.floor'),
          })}
        >
          {worded && (
            <>
              <text x={frame.leftEdge} y={frame.top - 12} className="soft">
                {t(narrow ? 'foldout.leftShort' : 'foldout.left')}
              </text>
              <text x={frame.centre} y={frame.top - 14} textAnchor="middle" className="soft halo on-ground">
                {t('foldout.front')}
              </text>
              <text x={frame.rightEdge} y={frame.top - 12} textAnchor="end" className="soft">
                {t(narrow ? 'foldout.rightShort' : 'foldout.right')}
              </text>
              <text
                x={beyond > 0 ? frame.leftFoot : frame.centre + 8}
                y={frame.top + frame.height + 18}
                textAnchor={beyond > 0 ? 'end' : 'start'}
                className="soft"
              >
                {t('foldout.rear')}
              </text>
            </>
          )}
          {exaggerate && !ceiling && (
            <text x={frame.rightEdge} y={frame.top + frame.height + 18} textAnchor="end" className="needs">
              {t('foldout.exaggerated')}
            </text>
          )}
          <ShellLayer
            frame={frame}
            survey={scene.project.survey}
            room={scene.room}
            arches={scene.shape.arches}
            ceiling={ceiling}
            exaggerate={exaggerate}
            quiet={quiet}
          />
          {lining && (
            <LiningLayer frame={frame} linings={scene.shape.lined.linings} ceiling={ceiling} floor={scene.room.floor} />
          )}
          {ceiling ? overhead?.(frame) : ink(frame)}
          {seen && <RoughLayer frame={frame} survey={scene.project.survey} ceiling={ceiling} />}
          {!ceiling && <ArchPlan frame={frame} arches={scene.shape.arches} />}
          <SliceMark frame={frame} />
          <PointOverlay width={width} height={height} placeAt={place} />
        </svg>
      )}
      {scene && <Switches measured={shell !== null} lined={scene.shape.lined.linings.length > 0} tools={tools} />}
    </div>
  );
}
