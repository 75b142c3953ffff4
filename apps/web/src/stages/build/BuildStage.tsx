import './build.css';
import ToggleButton from '@mui/material/ToggleButton';
import { useEffect, useState } from 'react';
import { useSearchParams } from 'react-router';
import type { Lining } from '@nestplank/core/lining';
import { partMass, type Part } from '@nestplank/core/parts';
import { unitName, useScene, type Scene } from '../../state/scene.js';
import { look, useView } from '../../state/view.js';
import { useSpeech } from '../../words/use-speech.js';
import { groupOf, partGroups } from './groups.js';
import { FloorDrawing, FLOOR_LAYERS, type FloorLayers } from './floor/FloorDrawing.js';
import { FloorPanel } from './floor/FloorPanel.js';
import { HowMade } from './HowMade.js';
import { Boxes } from './lining/Boxes.js';
import { CurtainAcross } from './lining/CurtainAcross.js';
import { DoorPanels } from './lining/DoorPanels.js';
import { FittingOrder } from './lining/FittingOrder.js';
import { HeaderBoxes, ReservedPlaces } from './lining/Overhead.js';
import { CompareLinings } from './lining/CompareLinings.js';
import { Fittings } from './lining/Fittings.js';
import { Corners } from './lining/Corners.js';
import { PartTable } from './lining/PartTable.js';
import { LiningPanel, moveSeam } from './lining/LiningPanel.js';
import { SurfaceDrawing, type Shown } from './lining/SurfaceDrawing.js';
import { Assembled } from './Assembled.js';
import { PartFan } from './PartFan.js';
import { PartPanel } from './PartPanel.js';
import { Patterns } from './Patterns.js';
import { ScribePasses } from './ScribePasses.js';
import { UnitProblems } from '../layout/UnitProblems.js';

const LAYERS = ['seams', 'supports', 'fixings', 'hidden'] as const;

/** The flat drawing of a lined surface, with what is drawn over it to be switched. */
function Surface({
  lining,
  chosen,
  scene,
}: {
  readonly lining: Lining;
  readonly chosen: string | null;
  readonly scene: Scene;
}) {
  const { t } = useSpeech();
  const [shown, setShown] = useState<Shown>({ seams: true, supports: true, fixings: false, hidden: true });
  return (
    <>
      <div className="strip row wrap open-top">
        <div className="chips" role="group" aria-label={t('lining.show')}>
          {LAYERS.map((layer) => (
            <ToggleButton
              key={layer}
              value={layer}
              selected={shown[layer]}
              onChange={() => setShown({ ...shown, [layer]: !shown[layer] })}
            >
              {t(`lining.show.${layer}`)}
            </ToggleButton>
          ))}
        </div>
      </div>
      <SurfaceDrawing
        nameOf={(id) => unitName(scene, id)}
        lining={lining}
        shown={shown}
        chosen={chosen}
        onPart={(part) => look({ part: part === chosen ? null : part })}
        onSeam={lining.widest === null || scene.previewing ? null : (index, to) => void moveSeam(lining, index, to)}
      />
      <p className="small soft inset">{t(`lining.seen.${lining.surface}`)}</p>
    </>
  );
}

/** The floor from above, with what is drawn to be switched. */
function Floor({ chosen, scene }: { readonly chosen: string | null; readonly scene: Scene }) {
  const { t } = useSpeech();
  const [shown, setShown] = useState<FloorLayers>({
    board: true,
    upper: true,
    battens: true,
    screws: false,
    planks: false,
    under: true,
  });
  return (
    <>
      <div className="strip row wrap open-top">
        <div className="chips" role="group" aria-label={t('lining.show')}>
          {FLOOR_LAYERS.filter((layer) => layer !== 'upper' || (scene.shape.subfloor?.upper.length ?? 0) > 0).map(
            (layer) => (
              <ToggleButton
                key={layer}
                value={layer}
                selected={shown[layer]}
                onChange={() => setShown({ ...shown, [layer]: !shown[layer] })}
              >
                {t(`floor.show.${layer}`)}
              </ToggleButton>
            ),
          )}
        </div>
      </div>
      <FloorDrawing
        scene={scene}
        shown={shown}
        chosen={chosen}
        onPart={(part) => look({ part: part === chosen ? null : part })}
      />
      <p className="small soft inset">{t('floor.seen')}</p>
    </>
  );
}

/** Build: one unit or surface taken apart, each part with its drawing, and how it is made. */
export default function BuildStage() {
  const speech = useSpeech();
  const { t } = speech;
  const scene = useScene();
  const group = useView((view) => view.group);
  const chosenPart = useView((view) => view.part);
  const [together, setTogether] = useState(false);
  const [search] = useSearchParams();
  const asked = search.get('part');
  const askedPart = scene?.shape.parts.find((part) => part.id === asked);
  const askedGroup = askedPart && groupOf(askedPart);
  useEffect(() => {
    // a label's code leads here
    if (asked !== null && askedGroup !== undefined) look({ group: askedGroup, part: asked });
  }, [asked, askedGroup]);
  if (!scene) return <main className="stage" />;
  const groups = partGroups(scene, speech);
  const open = groups.find((candidate) => candidate.id === group) ?? groups[0];
  const lining = scene.shape.lined.linings.find((candidate) => candidate.surface === open?.lined) ?? null;
  const floor = open?.id === 'floor' && scene.shape.subfloor !== null;
  const picked = open?.parts.find((candidate) => candidate.id === chosenPart);
  const part: Part | null = picked ?? (lining || floor ? null : (open?.parts[0] ?? null));
  const masses = (open?.parts ?? []).map((item) => partMass(item, scene.book));
  const mass = masses.reduce((sum: number, kg) => (kg === null ? sum : sum + kg), 0);
  const unweighed = masses.filter((kg) => kg === null).length;
  const boxed = open?.id === 'windows' || open?.id === 'arches' || open?.lined === 'left' || open?.lined === 'right';
  return (
    <main className="stage">
      <div className="board">
        {!open ? (
          <p className="empty">{t('build.none')}</p>
        ) : (
          <>
            <div className="strip row apart wrap head">
              <div className="chips">
                {groups.map((candidate) => (
                  <ToggleButton
                    key={candidate.id}
                    value={candidate.id}
                    selected={candidate.id === open.id}
                    onChange={() => look({ group: candidate.id, part: null })}
                  >
                    {candidate.name}
                  </ToggleButton>
                ))}
              </div>
              <span className="soft figures">
                {t('build.parts', { count: open.parts.length, mass: mass.toFixed(1) })}
                {unweighed > 0 && ` ${t('build.unweighed', { count: unweighed })}`}
              </span>
            </div>
            {floor ? (
              <Floor chosen={part?.id ?? null} scene={scene} />
            ) : lining ? (
              <Surface lining={lining} chosen={part?.id ?? null} scene={scene} />
            ) : (
              <>
                <div className="row inset">
                  <ToggleButton
                    value="together"
                    size="small"
                    selected={together}
                    onChange={() => setTogether(!together)}
                  >
                    {t('build.putTogether')}
                  </ToggleButton>
                </div>
                {together ? (
                  <Assembled
                    key={open.id}
                    parts={open.parts}
                    chosen={part?.id ?? null}
                    scene={scene}
                    name={open.name}
                  />
                ) : (
                  <PartFan parts={open.parts} chosen={part?.id ?? null} scene={scene} />
                )}
              </>
            )}
          </>
        )}
      </div>
      <div className="side">
        {part && <PartPanel part={part} scene={scene} />}
        {part?.edges
          // an edge that a notch parts in two is scribed as one
          .filter((edge, i, all) => edge.kind === 'scribe' && all.findIndex(({ at }) => at === edge.at) === i)
          .map((edge) => (
            <ScribePasses key={`${part.id}:${edge.at}`} part={part} edge={edge} scene={scene} />
          ))}
        {!part && !lining && !floor && <p className="soft">{t('build.pick')}</p>}
        {lining && <LiningPanel key={lining.surface} lining={lining} scene={scene} />}
        {lining && <Fittings key={`fittings-${lining.surface}`} surface={lining.surface} scene={scene} />}
        {lining && <FittingOrder key={`order-${lining.surface}`} lining={lining} />}
        {lining && <ReservedPlaces key={`reserved-${lining.surface}`} surface={lining.surface} scene={scene} />}
        {(lining?.surface === 'left' || lining?.surface === 'right') && (
          <HeaderBoxes key={`headers-${lining.surface}`} surface={lining.surface} scene={scene} />
        )}
        {lining && open && <PartTable parts={open.parts} scene={scene} />}
        {lining && <Corners key={`corners-${lining.surface}`} lining={lining} scene={scene} />}
        {lining && <CompareLinings key={`compare-${lining.surface}`} surface={lining.surface} scene={scene} />}
        {boxed && <Boxes scene={scene} of={open.id === 'windows' || open.id === 'arches' ? open.id : 'wall'} />}
        {open?.id === 'doors' && <DoorPanels scene={scene} />}
        {(open?.id === 'windows' || lining?.surface === 'ceiling') && <CurtainAcross scene={scene} />}
        {floor && <FloorPanel scene={scene} />}
        {open && <UnitProblems scene={scene} unit={open.id} />}
        {open && !lining && !boxed && open.id !== 'doors' && <HowMade group={open.id} scene={scene} />}
        <Patterns key={part?.id ?? ''} part={part} scene={scene} />
      </div>
    </main>
  );
}
