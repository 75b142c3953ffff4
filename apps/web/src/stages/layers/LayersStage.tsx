import './layers.css';
import Button from '@mui/material/Button';
import { MissingNotes } from '../../kit/MissingNotes.js';
import { Problem } from '../../kit/Problem.js';
import { useState } from 'react';
import { layersOn, SURFACE_LIST } from '@nestplank/core/document';
import { RIBBED } from '@nestplank/core/shell';
import { Slice } from '../../slice/Slice.js';
import { useScene } from '../../state/scene.js';
import { TabStrip } from '../../kit/TabStrip.js';
import { useSpeech } from '../../words/use-speech.js';
import { ComparePanel } from './ComparePanel.js';
import { KnockOnPanel } from './KnockOnPanel.js';
import { RoomPanel } from './RoomPanel.js';
import { Sample } from './Sample.js';
import { WholeVehicle } from './WholeVehicle.js';
import { WarmthPanel } from './WarmthPanel.js';

const TABS = ['left', 'warmth', 'knock', 'compare'] as const;

/** Layers: each surface as a core sample, the room that is left, and what the layers do to warmth, depths and cost. */
export default function LayersStage() {
  const { t, said, len } = useSpeech();
  const scene = useScene();
  const bare = scene !== null && SURFACE_LIST.every(({ id }) => layersOn(scene.project.buildUps, id).length === 0);
  const [tab, setTab] = useState<(typeof TABS)[number]>('left');
  return (
    <main className="stage layers">
      <div className="board">
        <div className="samples">
          {scene && bare && <WholeVehicle scene={scene} />}
          {scene && SURFACE_LIST.map(({ id }) => <Sample key={id} surface={id} scene={scene} />)}
        </div>
      </div>
      <div className="side">
        {scene && (
          <>
            {scene.shape.problems
              .filter((problem) => problem.stage === 'layers')
              .map((problem) => (
                <Problem key={problem.place}>{said(problem.said)}</Problem>
              ))}
            <MissingNotes scene={scene} stage="layers" />
            {scene.project.comfort.length === 0 && !bare && (
              <div className="row apart">
                <p className="small soft grow">{t('layers.comfortFirst')}</p>
                <Button size="small" onClick={() => setTab('compare')}>
                  {t('layers.comfortWrite')}
                </Button>
              </div>
            )}
            <TabStrip
              label={t('stage.layers')}
              tabs={TABS}
              open={tab}
              prefix="layers.tab."
              panel="layers-panel"
              onOpen={setTab}
            />
            <div id="layers-panel" role="tabpanel" aria-labelledby={`layers-panel-${tab}`} className="stack">
              {tab === 'left' && (
                <>
                  {scene.shape.shell ? <Slice height={230} /> : <p className="soft">{t('layers.noShell')}</p>}
                  <RoomPanel scene={scene} />
                  <p className="small soft">
                    {RIBBED.every((surface) => scene.shape.ribs.on[surface].depth === 0)
                      ? t('layers.ribDepthNone')
                      : t('layers.ribDepth', {
                          depths: RIBBED.map(
                            (surface) => `${t(`surface.${surface}`)} ${len(scene.shape.ribs.on[surface].depth)}`,
                          ).join(', '),
                        })}
                  </p>
                  <p className="small soft">{t('layers.caution')}</p>
                </>
              )}
              {tab === 'warmth' && <WarmthPanel scene={scene} />}
              {tab === 'knock' && <KnockOnPanel scene={scene} />}
              {tab === 'compare' && <ComparePanel scene={scene} />}
            </div>
          </>
        )}
      </div>
    </main>
  );
}
