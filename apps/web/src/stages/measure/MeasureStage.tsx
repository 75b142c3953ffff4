import './measure.css';
import LinearProgress from '@mui/material/LinearProgress';
import { lazy, Suspense, useEffect, useMemo, useState } from 'react';
import { isSectionPlace, parseAddress, valueAt } from '@nestplank/core/document';
import { openTopics, progressOf } from '@nestplank/core/measure';
import { FoldOut } from '../../foldout/FoldOut.js';
import ToggleButton from '@mui/material/ToggleButton';
import { DoubtLayer } from '../../foldout/DoubtLayer.js';
import { ReadingLayer } from '../../foldout/ReadingLayer.js';
import { useScene } from '../../state/scene.js';
import { look, MEASURE_TABS, useView, type MeasureTab } from '../../state/view.js';
import { TabStrip } from '../../kit/TabStrip.js';
import { useSpeech } from '../../words/use-speech.js';
import { DatumPanel } from './DatumPanel.js';
import { ExchangePanel } from './ExchangePanel.js';
import { FoundLayer, FoundPanel } from './FoundPanel.js';
import { LookRound } from './LookRound.js';
import { ThingsPanel } from './ThingsPanel.js';
import { WalkPanel } from './WalkPanel.js';

/** With the data grid, which is loaded when the readings are looked at. */
const ReadingsPanel = lazy(() => import('./ReadingsPanel.js'));

/** Measure: the guided walk, the readings there are, and what is to be measured. */
export default function MeasureStage() {
  const { t, lenUnit } = useSpeech();
  const scene = useScene();
  const asked = useView((view) => view.address);
  const [doubt, setDoubt] = useState(true);
  const survey = scene?.project.survey;
  // worked out here and not taken from the worker: the next reading must be asked for before the next figure is typed
  const progress = useMemo(() => survey && progressOf(survey), [survey]);
  const current = asked ?? progress?.next ?? null;
  // a build nobody has measured anything of begins with a look round
  const fresh =
    scene !== null && !scene.project.practice && progress?.taken === 0 && openTopics(scene.project).length > 0;
  const chosen = useView((view) => view.measureTab);
  const setTab = (measureTab: MeasureTab): void => look({ measureTab });
  const tab = chosen ?? (fresh ? 'look' : 'walk');
  // the slice follows the station that is being read
  useEffect(() => {
    const place = current ? parseAddress(current) : null;
    const x = place?.kind === 'station' && survey ? valueAt(survey, `station/${place.id}/x`) : null;
    if (x !== null) look({ sliceX: x });
  }, [current, survey]);
  const pick = (address: string): void => {
    look({ address });
    setTab('walk');
  };
  return (
    <main
      className="stage measure"
      data-walk={tab === 'walk' && current ? (isSectionPlace(parseAddress(current)) ? 'section' : 'plan') : undefined}
    >
      <div className="board">
        <FoldOut
          quiet
          seen
          current={tab === 'walk' ? current : null}
          ink={(frame) =>
            scene && (
              <>
                {doubt && scene.derived.quality && (
                  <DoubtLayer
                    frame={frame}
                    doubt={scene.derived.quality.doubt}
                    goal={scene.derived.quality.goal}
                    label={t('measure.doubtName')}
                    legend={t('measure.doubtLegend', { goal: lenUnit(scene.derived.quality.goal) })}
                  />
                )}
                {tab === 'found' && <FoundLayer frame={frame} found={scene.project.survey.found} />}
                <ReadingLayer
                  frame={frame}
                  arches={scene.shape.arches}
                  survey={scene.project.survey}
                  outliers={scene.shape.outliers}
                  current={current}
                  onPick={pick}
                />
              </>
            )
          }
          overhead={(frame) =>
            scene && tab === 'found' && <FoundLayer frame={frame} found={scene.project.survey.found} ceiling />
          }
          tools={
            <ToggleButton value="doubt" size="small" selected={doubt} onChange={() => setDoubt(!doubt)}>
              {t('measure.doubt')}
            </ToggleButton>
          }
        />
      </div>
      <div className="side">
        <TabStrip
          label={t('stage.measure')}
          tabs={MEASURE_TABS}
          open={tab}
          prefix="measure."
          panel="measure-panel"
          onOpen={setTab}
        />
        <div id="measure-panel" role="tabpanel" aria-labelledby={`measure-panel-${tab}`}>
          {scene && tab === 'look' && <LookRound scene={scene} onWalk={() => setTab('walk')} />}
          {scene && progress && tab === 'walk' && (
            <WalkPanel scene={scene} progress={progress} current={current} onPick={pick} />
          )}
          {scene && tab === 'readings' && (
            <Suspense fallback={<LinearProgress aria-label={t('measure.readings')} />}>
              <ReadingsPanel scene={scene} onPick={pick} />
            </Suspense>
          )}
          {scene && tab === 'things' && <ThingsPanel survey={scene.project.survey} />}
          {scene && tab === 'datum' && <DatumPanel scene={scene} onPick={pick} />}
          {scene && tab === 'found' && <FoundPanel scene={scene} />}
          {scene && tab === 'exchange' && <ExchangePanel scene={scene} />}
        </div>
      </div>
    </main>
  );
}
