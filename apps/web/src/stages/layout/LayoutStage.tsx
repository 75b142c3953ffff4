import { MissingNotes } from '../../kit/MissingNotes.js';
import './layout.css';
import { useDeferredValue } from 'react';
import type { Unit } from '@nestplank/core/document';
import { motionsOf, type Motion } from '@nestplank/core/furniture';
import { FoldOut } from '../../foldout/FoldOut.js';
import { UnitLayer } from '../../foldout/UnitLayer.js';
import { FreeWidth } from './FreeWidth.js';
import { CheckMarks } from './CheckMarks.js';
import { Slice } from '../../slice/Slice.js';
import { useScene, type Scene } from '../../state/scene.js';
import { useView } from '../../state/view.js';
import { useSpeech } from '../../words/words.js';
import { ChecksPanel } from './ChecksPanel.js';
import { UnitStrip } from './UnitStrip.js';

const NOBODY = null;
const NO_MOTIONS: readonly Motion[] = [];

/** How the doors of a unit move, once it is made. */
function motionsIn(scene: Scene, unit: Unit): readonly Motion[] {
  const skeleton = scene.shape.made.find((made) => made.unit === unit.id)?.skeleton;
  return skeleton ? motionsOf(unit, skeleton) : NO_MOTIONS;
}

/** Layout: where things stand and whether the people fit. */
export default function LayoutStage() {
  const { t } = useSpeech();
  const scene = useScene();
  // notes, figures and the free width follow a drag as soon as there is time for them
  const later = useDeferredValue(scene);
  const chosen = useView((view) => view.unit);
  const snap = scene?.project.settings.units === 'in' ? 6.35 : 5;
  return (
    <main className="stage">
      <div className="board">
        <FoldOut
          quiet={false}
          ink={(frame) =>
            scene?.room && (
              <>
                {[...scene.project.layout.units]
                  .sort((a, b) => Number(a.id === chosen) - Number(b.id === chosen))
                  .map((unit) => (
                    <UnitLayer
                      key={unit.id}
                      frame={frame}
                      unit={unit}
                      room={scene.room ?? frame.shell}
                      people={scene.project.people}
                      lies={scene.shape.lying.find((place) => place.unit.id === unit.id) ?? NOBODY}
                      motions={unit.id === chosen ? motionsIn(scene, unit) : NO_MOTIONS}
                      chosen={unit.id === chosen}
                      snap={snap}
                    />
                  ))}
                {later && <FreeWidth frame={frame} scene={later} />}
                {later && <CheckMarks frame={frame} scene={later} />}
              </>
            )
          }
        />
        {later?.shape.shell && <UnitStrip scene={later} />}
      </div>
      <div className="side">
        {later &&
          (later.room && later.shape.shell ? (
            <>
              <Slice height={300} />
              <ChecksPanel scene={later} />
            </>
          ) : (
            <>
              <MissingNotes scene={later} stage="layout" />
              <p className="soft">{t('layout.noShell')}</p>
            </>
          ))}
      </div>
    </main>
  );
}
