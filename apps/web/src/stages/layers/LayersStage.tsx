import type { Surface } from '@nestplank/core';
import { Slice } from '../../slice/Slice.js';
import { useScene } from '../../state/scene.js';
import { useSpeech } from '../../words/words.js';
import { RoomTable } from './RoomTable.js';
import { Sample } from './Sample.js';

const SURFACES: readonly Surface[] = ['floor', 'ceiling', 'left', 'right'];

/** Layers: each surface as a core sample, and the room that is left. */
export default function LayersStage() {
  const { t, said, lenUnit } = useSpeech();
  const scene = useScene();
  return (
    <main className="stage">
      <div className="board">
        <div className="samples">
          {scene && SURFACES.map((surface) => <Sample key={surface} surface={surface} scene={scene} />)}
        </div>
      </div>
      <div className="side">
        {scene && (
          <>
            {scene.shape.problems
              .filter((problem) => problem.stage === 'layers')
              .map((problem) => (
                <p key={problem.place} className="problem" role="alert">
                  {said(problem.said)}
                </p>
              ))}
            {scene.shape.shell ? <Slice height={290} /> : <p className="soft">{t('layers.noShell')}</p>}
            <RoomTable scene={scene} />
            <p className="small soft">
              {scene.shape.ribDepth > 0
                ? t('layers.ribDepth', { depth: lenUnit(scene.shape.ribDepth) })
                : t('layers.ribDepthNone')}
            </p>
            <p className="small soft">{t('layers.caution')}</p>
          </>
        )}
      </div>
    </main>
  );
}
