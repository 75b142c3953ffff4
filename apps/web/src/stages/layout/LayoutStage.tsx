import { useDeferredValue } from 'react';
import { FoldOut } from '../../foldout/FoldOut.js';
import { UnitLayer } from '../../foldout/UnitLayer.js';
import { FreeWidth } from './FreeWidth.js';
import { CheckMarks } from './CheckMarks.js';
import { Slice } from '../../slice/Slice.js';
import { useScene } from '../../state/scene.js';
import { useView } from '../../state/view.js';
import { useSpeech } from '../../words/words.js';
import { ChecksPanel } from './ChecksPanel.js';
import { UnitStrip } from './UnitStrip.js';

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
                {[...scene.project.units]
                  .sort((a, b) => Number(a.id === chosen) - Number(b.id === chosen))
                  .map((unit) => (
                    <UnitLayer
                      key={unit.id}
                      frame={frame}
                      unit={unit}
                      room={scene.room ?? frame.shell}
                      book={scene.book}
                      people={scene.project.people}
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
            <p className="soft">{t('layout.noShell')}</p>
          ))}
      </div>
    </main>
  );
}
