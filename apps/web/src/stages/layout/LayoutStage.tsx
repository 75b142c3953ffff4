import { MissingNotes } from '../../kit/MissingNotes.js';
import './layout.css';
import Button from '@mui/material/Button';
import { lazy, memo, Suspense, useMemo, useState } from 'react';
import type { Project, Unit } from '@nestplank/core/document';
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
import { beside } from '../../state/later.js';
import { sceneNow, useScene, type Scene } from '../../state/scene.js';
import { useSession } from '../../state/session.js';
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

interface OnFrame {
  readonly frame: FoldOutFrame;
  /** Only what hangs, on the ceiling. */
  readonly overhead?: boolean;
}
const shownOf = ({ project: { layout } }: Scene, overhead: boolean): readonly Unit[] =>
  overhead ? layout.units.filter(({ body }) => body.from >= OVERHEAD_MM) : layout.units;
/** Step of a drag, mm: a quarter of an inch where one measures in them. */
const snapOf = ({ settings }: Project): number => (settings.units === 'in' ? 6.35 : 5);

/** What stands round a unit that is moved, as things are at that moment: one that stands still need not be drawn again because another moves. */
function around(): SnapWorld | null {
  const scene = sceneNow();
  const inner = scene?.room;
  if (!scene || !inner) return null;
  const { survey, layout } = scene.project;
  return { units: layout.units, inner, openings: placedOpenings(survey), ribs: scene.shape.ribs };
}

/** Units as they are moved, the chosen one on top. */
const Units = memo(function Units({ frame, overhead = false }: OnFrame) {
  const scene = useScene();
  const chosen = useView((view) => view.unit);
  const together = useView((view) => view.together);
  // the chosen one lies on top; one that is taken hold of comes there when it is let go: moved among the others under the
  // hand it would fall out of it
  const [front, setFront] = useState(chosen);
  if (front !== chosen && scene?.previewing !== true) setFront(chosen);
  if (!scene?.room) return null;
  const { room, project, shape } = scene;
  return (
    <g>
      {[...shownOf(scene, overhead)]
        .sort((a, b) => Number(a.id === front) - Number(b.id === front) || a.body.from - b.body.from)
        .map((unit) => (
          <UnitLayer
            key={unit.id}
            frame={frame}
            unit={unit}
            room={room}
            arches={shape.arches}
            around={around}
            people={project.people}
            lies={shape.lying.find((place) => place.unit.id === unit.id) ?? NOBODY}
            motions={unit.id === chosen ? motionsIn(scene, unit.id) : NO_MOTIONS}
            chosen={unit.id === chosen}
            together={together.includes(unit.id)}
            snap={snapOf(project)}
          />
        ))}
    </g>
  );
});

/** What they are called; whoever lies on one is named in place of it. */
const Names = memo(function Names({ frame, overhead = false }: OnFrame) {
  const scene = useScene();
  if (!scene?.room) return null;
  const { lying } = scene.shape;
  return (
    <g>
      {shownOf(scene, overhead)
        .filter(({ id }) => !lying.some(({ unit, sleepers }) => unit.id === id && sleepers.length > 0))
        .map((unit) => (
          <UnitName key={unit.id} frame={frame} unit={unit} />
        ))}
    </g>
  );
});

/** Animals are moved as units are. */
const Animals = memo(function Animals({ frame }: OnFrame) {
  const scene = useScene();
  return scene?.room && <PetLayer frame={frame} scene={scene} step={snapOf(scene.project)} />;
});

const LaterRoom = beside(function LaterRoom({ scene }) {
  return (
    <Suspense fallback={null}>
      <Room scene={scene} />
    </Suspense>
  );
});
const Modes = beside(ModeLayer);
const Free = beside(FreeWidth);
const RunsDrawn = beside(RunLayer);
const Marks = beside(CheckMarks);
const Traces = beside(TraceLayer);
const Gap = beside(GapDrawing);
const Offers = beside(GapOffers);
const Strip = beside(UnitStrip);
const ModesUnder = beside(ModesRow);
const Lacking = beside(MissingNotes);
/** What stands beside the drawing, under the slice. */
const BESIDE = [
  BedScale,
  ModeTold,
  ChecksPanel,
  Weight,
  Things,
  Goods,
  Pets,
  Runs,
  WishList,
  TryOut,
  Variants,
  Suggest,
].map((Shown) => beside(Shown));

/** Layout: where things stand and whether the people fit. */
export default function LayoutStage() {
  const { t } = useSpeech();
  // as things stand, not as they are dragged: the drawing keeps its size under the hand
  const derived = useSession((session) => session.derived);
  const opened = useView((view) => view.room);
  const made = derived?.made;
  const inner = derived && (derived.inner ?? derived.shell);
  const beyond = useMemo(() => (inner && made ? behindRear(made, inner.length) : 0), [inner, made]);
  const long = useMemo(() => inner !== null && leavesSides(inner), [inner]);
  return (
    <main className="stage">
      <div className={long ? 'board modes-beside' : 'board'}>
        {opened === 'full' && <LaterRoom />}
        {opened !== 'full' && (
          <div className="foldout-and-gap">
            <FoldOut
              quiet={false}
              beyond={beyond}
              overhead={(frame) => (
                <>
                  <GapGround frame={frame} ceiling />
                  <Units frame={frame} overhead />
                  <Names frame={frame} overhead />
                  <Gap frame={frame} />
                </>
              )}
              ink={(frame) => (
                <>
                  <GapGround frame={frame} ceiling={false} />
                  <Units frame={frame} />
                  <Modes frame={frame} />
                  <Animals frame={frame} />
                  <Free frame={frame} />
                  <RunsDrawn frame={frame} />
                  <Names frame={frame} />
                  <Marks frame={frame} />
                  <Traces frame={frame} />
                  <SnapMark frame={frame} />
                  <Gap frame={frame} />
                </>
              )}
            />
            <Offers />
          </div>
        )}
        {derived?.shell && (
          <>
            <div className="strip unit-strip no-print">
              <Strip />
            </div>
            <div className="strip modes-strip no-print">
              <ModesUnder />
            </div>
          </>
        )}
      </div>
      <div className="side">
        {derived &&
          (derived.shell ? (
            <>
              {opened === 'beside' ? (
                <div className="room-beside">
                  <LaterRoom />
                </div>
              ) : (
                <Slice height={300} />
              )}
              <RoomButtons opened={opened} />
              {BESIDE.map((Shown, i) => (
                <Shown key={i} />
              ))}
            </>
          ) : (
            <>
              <Lacking stage="layout" />
              <p className="soft">{t('layout.noShell')}</p>
            </>
          ))}
      </div>
    </main>
  );
}
