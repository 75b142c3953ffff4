import './room.css';
import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import Slider from '@mui/material/Slider';
import TextField from '@mui/material/TextField';
import ToggleButton from '@mui/material/ToggleButton';
import { lazy, Suspense, useCallback, useMemo, useState, type KeyboardEvent } from 'react';
import { sceneOf } from '@nestplank/core/derive';
import { FAMILIES } from '@nestplank/core/furniture';
import type { Person } from '@nestplank/core/document';
import { beginsAt, eyesOf, petsLain, seatsFor, standsHere, type Seat } from '@nestplank/core/layout';
import { download } from '../kit/download.js';
import { problemText } from '../kit/problem-text.js';
import { notify } from '../state/session.js';
import { unitName, useSliceX, type Scene } from '../state/scene.js';
import { look, useView } from '../state/view.js';
import { useSpeech } from '../words/use-speech.js';
import { drawnBySoftware } from './by-software.js';
import { eyesFrom, isWalkKey, walked, type Eyes } from './eyes.js';

// fetched together with this panel, not after it; meanwhile it is asked who draws
const drawing = import('./RoomDrawing.js');
void drawnBySoftware();
const RoomDrawing = lazy(() => drawing);

type Place =
  { readonly kind: 'outside' } | { readonly kind: 'stands' } | { readonly kind: 'seat'; readonly seat: number };
const OUTSIDE: Place = { kind: 'outside' };
const STANDS: Place = { kind: 'stands' };
const NO_STATES: Readonly<Record<string, number>> = {};
/** In a vehicle nobody is entered for, somebody of this height stands, mm. */
const SOMEBODY: Person = { id: 'somebody', name: '', stature: 1750 };
const CUTS = ['whole', 'rear', 'front'] as const;

/** The parts of a unit that move, each with a button to open or shut it: the same as a press on the drawing. */
function Opens({
  scene,
  unit,
  states,
  onMove,
}: {
  readonly scene: Scene;
  readonly unit: string;
  readonly states: Readonly<Record<string, number>>;
  readonly onMove: (motion: string) => void;
}) {
  const { t, said } = useSpeech();
  const motions = scene.shape.made.find((made) => made.unit === unit)?.skeleton?.motions ?? [];
  if (motions.length === 0) return null;
  return (
    <span className="chips" role="group" aria-label={t('room.opens', { unit: unitName(scene, unit) })}>
      {motions.map((motion) => (
        <ToggleButton
          key={motion.of}
          value={motion.of}
          size="small"
          selected={(states[motion.of] ?? 0) > 0}
          onChange={() => onMove(motion.of)}
        >
          {said(motion.name)}
        </ToggleButton>
      ))}
    </span>
  );
}

/** Where the page is longer than its window, the room that was asked for is brought into it. */
const show = (room: HTMLElement | null): void => room?.scrollIntoView?.({ block: 'nearest' });

/** The room in the round: from outside, or as one of its people sees it who stands, sits or lies in it. */
export default function Room({ scene }: { readonly scene: Scene }) {
  const { t, len, lenUnit } = useSpeech();
  const theme = useView((view) => view.theme);
  const chosen = useView((view) => view.unit);
  const shown = useView((view) => view.mode);
  const sliceX = useSliceX(scene.shape.shell);
  const [place, setPlace] = useState<Place>(OUTSIDE);
  const [eyes, setEyes] = useState<Eyes | null>(null);
  const [who, setWho] = useState<string | null>(null);
  const [refused, setRefused] = useState<string | null>(null);
  const [apart, setApart] = useState(0);
  const [cutting, setCutting] = useState<(typeof CUTS)[number]>('whole');
  const [lined, setLined] = useState(false);
  const [saving, setSaving] = useState(false);
  /** What was opened or shut by hand, over the mode that is shown. */
  const [byHand, setByHand] = useState<{ readonly mode: string | null; readonly states: Record<string, number> }>({
    mode: shown,
    states: {},
  });
  const { people, layout, name } = scene.project;
  const person = people.find(({ id }) => id === who) ?? people[0] ?? SOMEBODY;
  const mode = layout.modes?.find(({ id }) => id === shown) ?? null;
  const own = byHand.mode === shown ? byHand.states : NO_STATES;
  const states = useMemo(() => ({ ...mode?.states, ...own }), [mode, own]);
  const world = useMemo(
    () => sceneOf(scene.project, scene.derived, scene.book, FAMILIES),
    [scene.project, scene.derived, scene.book],
  );
  const seats = useMemo((): readonly Seat[] => (world ? seatsFor(world, person) : []), [world, person]);
  const begins = useMemo(() => world && beginsAt(world, states, person), [world, states, person]);
  const animals = useMemo(() => (world ? petsLain(world, states) : []), [world, states]);
  const onMove = useCallback(
    (motion: string): void =>
      setByHand((before) => {
        const kept = before.mode === shown ? before.states : NO_STATES;
        return { mode: shown, states: { ...kept, [motion]: (kept[motion] ?? mode?.states[motion] ?? 0) > 0 ? 0 : 1 } };
      }),
    [shown, mode],
  );
  const onUnit = useCallback((unit: string): void => look({ unit }), []);
  const onLook = useCallback(
    (turn: number, nod: number): void => setEyes((before) => before && { ...before, turn, nod }),
    [],
  );
  const cut = useMemo(() => (cutting === 'whole' ? null : { x: sliceX, keeps: cutting }), [cutting, sliceX]);
  if (!world || !scene.room || !begins) return null;
  const floor = scene.room.floor;
  const go = (to: Place): void => {
    setPlace(to);
    setRefused(null);
    if (to.kind === 'outside') setEyes(null);
    else if (to.kind === 'stands') setEyes({ at: [...begins, floor + eyesOf(person)], turn: 0, nod: -0.15 });
    else {
      const seat = seats[to.seat];
      if (seat) setEyes(eyesFrom(seat));
    }
  };
  const choose = (id: string): void => {
    setWho(id);
    // somebody else sees from another height, and has a bed of their own
    setPlace(OUTSIDE);
    setEyes(null);
  };
  const at = eyes && place.kind === 'stands' ? ([eyes.at[0], eyes.at[1]] as const) : begins;
  const here = standsHere(world, states, person, at);
  const onKey = (event: KeyboardEvent): void => {
    if (!eyes || !isWalkKey(event.key)) return;
    event.preventDefault();
    event.stopPropagation();
    const { to, turn, nod } = walked(eyes, event.key);
    if (place.kind !== 'stands') {
      setEyes({ ...eyes, turn, nod });
      return;
    }
    const there = standsHere(world, states, person, to);
    // one who began where there is no room may walk out of it
    if (there.meets !== null && here.meets === null) {
      setRefused(there.meets);
      setEyes({ ...eyes, turn, nod });
      return;
    }
    setRefused(null);
    setEyes({ at: [...to, eyes.at[2]], turn, nod });
  };
  const save = (): void => {
    setSaving(true);
    void import('@nestplank/solids/room-file')
      .then(({ savedRoom }) => savedRoom(scene, states))
      .then((file) => download(`${name}.glb`, file))
      .catch((problem: unknown) => notify(problemText(problem), 'trouble'))
      .finally(() => setSaving(false));
  };
  const named = person === SOMEBODY ? t('room.somebody', { tall: lenUnit(SOMEBODY.stature) }) : person.name;
  const called = (seat: Seat): string => t(`room.${seat.posture}`, { unit: unitName(scene, seat.unit) });
  const told =
    place.kind === 'outside'
      ? t('room.outsideHint')
      : place.kind === 'seat'
        ? t('room.seatHint', { who: named })
        : refused !== null
          ? t('room.inTheWay', { what: refused === 'wall' ? t('room.wall') : unitName(scene, refused) })
          : here.head < 0
            ? t('room.stoops', { who: named, by: lenUnit(-here.head) })
            : t('room.stands', { who: named, head: lenUnit(here.head) });
  return (
    <section className="room" aria-label={t('room.title')} ref={show}>
      <div className="row gap-6 room-row">
        <TextField
          select
          size="small"
          label={t('room.from')}
          value={place.kind === 'seat' ? `seat-${place.seat}` : place.kind}
          onChange={({ target }) =>
            go(
              target.value === 'outside'
                ? OUTSIDE
                : target.value === 'stands'
                  ? STANDS
                  : { kind: 'seat', seat: Number(target.value.slice(5)) },
            )
          }
        >
          <MenuItem value="outside">{t('room.outside')}</MenuItem>
          <MenuItem value="stands">{t('room.standing')}</MenuItem>
          {seats.map((seat, i) => (
            <MenuItem key={`${seat.unit}:${seat.posture}`} value={`seat-${i}`}>
              {called(seat)}
            </MenuItem>
          ))}
        </TextField>
        {people.length > 1 && (
          <TextField
            select
            size="small"
            label={t('room.as')}
            value={person.id}
            onChange={({ target }) => choose(target.value)}
          >
            {people.map(({ id, name: called_, stature }) => (
              <MenuItem key={id} value={id}>
                {called_}, {len(stature)}
              </MenuItem>
            ))}
          </TextField>
        )}
        {(layout.modes ?? []).length > 0 && (
          <TextField
            select
            size="small"
            label={t('room.mode')}
            value={shown ?? ''}
            onChange={({ target }) => look({ mode: target.value === '' ? null : target.value })}
            slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
          >
            <MenuItem value="">{t('room.asMade')}</MenuItem>
            {(layout.modes ?? []).map((each) => (
              <MenuItem key={each.id} value={each.id}>
                {each.name}
              </MenuItem>
            ))}
          </TextField>
        )}
        <span className="chips" role="group" aria-label={t('room.cut', { x: len(sliceX) })}>
          {CUTS.map((each) => (
            <ToggleButton
              key={each}
              value={each}
              size="small"
              selected={cutting === each}
              onChange={() => setCutting(each)}
            >
              {t(`room.cut.${each}`)}
            </ToggleButton>
          ))}
        </span>
        {scene.shape.parts.some(({ bends }) => bends) && (
          <ToggleButton value="lined" size="small" selected={lined} onChange={() => setLined((before) => !before)}>
            {t('room.lined')}
          </ToggleButton>
        )}
        <Button size="small" variant="text" onClick={save} disabled={saving}>
          {t('room.save')}
        </Button>
      </div>
      <div
        className="room-drawing"
        data-room
        role="application"
        aria-label={t('room.name', { what: told })}
        tabIndex={0}
        onKeyDown={onKey}
      >
        <Suspense fallback={<p className="soft">{t('room.opening')}</p>}>
          <RoomDrawing
            scene={scene}
            theme={theme}
            states={states}
            eyes={eyes}
            stands={{ person, at: begins }}
            animals={animals}
            chosen={chosen}
            apart={apart}
            cut={cut}
            lined={lined}
            onUnit={onUnit}
            onMove={onMove}
            onLook={onLook}
          />
        </Suspense>
      </div>
      <p className="small figures room-told" aria-live="polite">
        <span className={here.head < 0 || refused !== null ? 'needs' : undefined}>{told}</span>
      </p>
      {chosen !== null && layout.units.some(({ id }) => id === chosen) && (
        <div className="row gap-6 room-row">
          <strong className="small">{unitName(scene, chosen)}</strong>
          <Opens scene={scene} unit={chosen} states={states} onMove={onMove} />
          <span className="row gap-6 room-apart">
            <span className="small" id="room-apart">
              {t('room.apart')}
            </span>
            <Slider
              size="small"
              min={0}
              max={1}
              step={0.05}
              value={apart}
              aria-labelledby="room-apart"
              onChange={(_, to) => setApart(to)}
            />
          </span>
        </div>
      )}
    </section>
  );
}
