import { MissingNotes } from '../../kit/MissingNotes.js';
import './layout.css';
import Button from '@mui/material/Button';
import { lazy, memo, Suspense, useMemo, useState, type ReactNode } from 'react';
import type { Unit } from '@nestplank/core/document';
import type { Motion } from '@nestplank/core/furniture';
import type { SnapWorld } from '@nestplank/core/layout';
import { placedOpenings } from '@nestplank/core/shell';
import { FoldOut } from '../../foldout/FoldOut.js';
import { UnitLayer } from '../../foldout/UnitLayer.js';
import { UnitName } from '../../foldout/UnitName.js';
import { leavesSides, type FoldOutFrame } from '../../foldout/geometry.js';
import { FreeWidth } from './FreeWidth.js';
import { CheckMarks } from './CheckMarks.js';
import { Slice } from '../../slice/Slice.js';
import { useLater } from '../../state/later.js';
import { sceneNow, useScene } from '../../state/scene.js';
import { look, useView } from '../../state/view.js';
import { useSpeech } from '../../words/use-speech.js';
import { drawnBySoftware } from '../../room/by-software.js';
import { ChecksPanel } from './ChecksPanel.js';
import { GapDrawing, GapGround, GapOffers } from './GapAsk.js';
import { Goods } from './Goods.js';
import { ModeLayer } from './ModeLayer.js';
import { ModesRow, ModeTold } from './ModesRow.js';
import { behindRear, motionsIn } from './modes.js';
import { BedScale } from './BedScale.js';
import { RunLayer } from './RunLayer.js';
import { PetLayer } from './PetLayer.js';
import { Pets } from './Pets.js';
import { Runs } from './Runs.js';
import { SnapMark } from './SnapMark.js';
import { Suggest } from './Suggest.js';
import { Things } from './Things.js';
import { TraceLayer } from './TraceLayer.js';
import { TryOut } from './TryOut.js';
import { UnitStrip } from './UnitStrip.js';
import { Variants } from './Variants.js';
import { WishList } from './WishList.js';
import { Weight } from './Weight.js';

const fetchRoom = () => import('../../room/Room.js');
const Room = lazy(fetchRoom);
/** Whoever points at its button is about to open it: it is fetched, and whatever draws it wakes. */
const READIES = {
  onPointerEnter: () => {
    void drawnBySoftware();
    void fetchRoom();
  },
};
const NOBODY = null;
/** What begins higher than this hangs from the ceiling, and is seen when that is looked at, mm. */
const OVERHEAD_MM = 1000;
const NO_MOTIONS: readonly Motion[] = [];

/** Opens the room in the round in place of the slice or of the fold-out. */
const RoomButtons = memo(function RoomButtons({ opened }: { readonly opened: 'shut' | 'beside' | 'full' }) {
  const { t } = useSpeech();
  return (
    <div className="row gap-6 no-print">
      {opened !== 'beside' && (
        <Button size="small" variant="text" {...READIES} onClick={() => look({ room: 'beside' })}>
          {t('room.beside')}
        </Button>
      )}
      {opened !== 'full' && (
        <Button size="small" variant="text" {...READIES} onClick={() => look({ room: 'full' })}>
          {t('room.full')}
        </Button>
      )}
      {opened !== 'shut' && (
        <Button size="small" variant="text" onClick={() => look({ room: 'shut' })}>
          {t('room.shut')}
        </Button>
      )}
    </div>
  );
});

/** What stands round a unit that is moved, as things are at that moment: one that stands still need not be drawn again because another moves. */
function around(): SnapWorld | null {
  const scene = sceneNow();
  const inner = scene?.room;
  if (!scene || !inner) return null;
  const { survey, layout } = scene.project;
  return { units: layout.units, inner, openings: placedOpenings(survey), ribs: scene.shape.ribs };
}

/** Layout: where things stand and whether the people fit. */
export default function LayoutStage() {
  const { t } = useSpeech();
  const scene = useScene();
  // notes, figures and the free width follow a drag as soon as there is time for them
  const later = useLater(scene);
  // what stands under the drawing comes with it: it would be drawn larger first
  const under = later ?? scene;
  const chosen = useView((view) => view.unit);
  const together = useView((view) => view.together);
  const opened = useView((view) => view.room);
  const inner = scene?.room;
  // as things stand, not as they are dragged: the drawing keeps its size under the hand
  const made = scene?.derived.made;
  const beyond = useMemo(() => (inner && made ? behindRear(made, inner.length) : 0), [inner, made]);
  const long = inner ? leavesSides(inner) : false;
  const snap = scene?.project.settings.units === 'in' ? 6.35 : 5;
  // the chosen one lies on top; one that is taken hold of comes there when it is let go: moved among the others under the
  // hand it would fall out of it
  const [front, setFront] = useState(chosen);
  if (front !== chosen && scene?.previewing !== true) setFront(chosen);
  const drawn = (frame: FoldOutFrame, all: readonly Unit[]): ReactNode =>
    scene?.room &&
    [...all]
      .sort((a, b) => Number(a.id === front) - Number(b.id === front) || a.body.from - b.body.from)
      .map((unit) => (
        <UnitLayer
          key={unit.id}
          frame={frame}
          unit={unit}
          room={scene.room ?? frame.shell}
          around={around}
          people={scene.project.people}
          lies={scene.shape.lying.find((place) => place.unit.id === unit.id) ?? NOBODY}
          motions={unit.id === chosen ? motionsIn(scene, unit.id) : NO_MOTIONS}
          chosen={unit.id === chosen}
          together={together.includes(unit.id)}
          snap={snap}
        />
      ));
  // whoever lies on a unit is named in place of it
  const named = (frame: FoldOutFrame, all: readonly Unit[]): ReactNode =>
    all
      .filter(({ id }) => !scene?.shape.lying.some(({ unit, sleepers }) => unit.id === id && sleepers.length > 0))
      .map((unit) => <UnitName key={unit.id} frame={frame} unit={unit} />);
  return (
    <main className="stage">
      <div className={long ? 'board modes-beside' : 'board'}>
        {opened === 'full' && later && (
          <Suspense fallback={null}>
            <Room scene={later} />
          </Suspense>
        )}
        {opened !== 'full' && (
          <div className="foldout-and-gap">
            <FoldOut
              quiet={false}
              beyond={beyond}
              overhead={(frame) =>
                scene?.room && (
                  <>
                    <GapGround frame={frame} ceiling />
                    {[drawn, named].map((each, i) => (
                      <g key={i}>
                        {each(
                          frame,
                          scene.project.layout.units.filter(({ body }) => body.from >= OVERHEAD_MM),
                        )}
                      </g>
                    ))}
                    {later && <GapDrawing frame={frame} scene={later} />}
                  </>
                )
              }
              ink={(frame) =>
                scene?.room && (
                  <>
                    <GapGround frame={frame} ceiling={false} />
                    {drawn(frame, scene.project.layout.units)}
                    {later && <ModeLayer frame={frame} scene={later} />}
                    {scene && <PetLayer frame={frame} scene={scene} step={snap} />}
                    {later && <FreeWidth frame={frame} scene={later} />}
                    {later && <RunLayer frame={frame} scene={later} />}
                    {named(frame, scene.project.layout.units)}
                    {later && <CheckMarks frame={frame} scene={later} />}
                    {later && <TraceLayer frame={frame} scene={later} />}
                    <SnapMark frame={frame} />
                    {later && <GapDrawing frame={frame} scene={later} />}
                  </>
                )
              }
            />
            {later && <GapOffers scene={later} />}
          </div>
        )}
        {under?.shape.shell && (
          <>
            <div className="strip unit-strip no-print">
              <UnitStrip scene={under} />
            </div>
            <div className="strip modes-strip no-print">
              <ModesRow scene={under} />
            </div>
          </>
        )}
      </div>
      <div className="side">
        {later &&
          (later.room && later.shape.shell ? (
            <>
              {opened === 'beside' ? (
                <div className="room-beside">
                  <Suspense fallback={null}>
                    <Room scene={later} />
                  </Suspense>
                </div>
              ) : (
                <Slice height={300} />
              )}
              <RoomButtons opened={opened} />
              <BedScale scene={later} />
              <ModeTold scene={later} />
              <ChecksPanel scene={later} />
              <Weight scene={later} />
              <Things scene={later} />
              <Goods scene={later} />
              <Pets scene={later} />
              <Runs scene={later} />
              <WishList scene={later} />
              <TryOut scene={later} />
              <Variants scene={later} />
              <Suggest scene={later} />
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
