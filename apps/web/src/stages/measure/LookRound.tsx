import CloseIcon from '@mui/icons-material/Close';
import Button from '@mui/material/Button';
import IconButton from '@mui/material/IconButton';
import ToggleButton from '@mui/material/ToggleButton';
import { useEffect } from 'react';
import { valueAt, type LookTopic, type Operation, type Project, type Rough } from '@nestplank/core/document';
import { openTopics, SEEN, seenOn, seenOperation, type Seen, type SeenTopic } from '@nestplank/core/measure';
import { sketchShell } from '@nestplank/core/shell';
import { roughOf } from '../../foldout/rough.js';
import { Check } from '../../kit/Check.js';
import { LengthField } from '../../kit/LengthField.js';
import { TextEntry } from '../../kit/TextEntry.js';
import { useChange } from '../../kit/use-change.js';
import { act, useSession } from '../../state/session.js';
import { startPointing, stopPointing, usePointing, type Pointed } from '../../state/pointing.js';
import type { Scene } from '../../state/scene.js';
import { look } from '../../state/view.js';
import { useSpeech } from '../../words/use-speech.js';
import { nextId } from './next-id.js';

const POINTED: readonly SeenTopic[] = ['ribs', 'openings', 'standing', 'under'];
/** Who asks for a place; the kind of thing stands behind it. */
const BY = 'look-round:';

interface There {
  readonly id: string;
  readonly name: string;
  readonly remove: Operation;
}

/** What of a topic is entered, each with what takes it away. */
function thingsOf({ survey }: Pick<Project, 'survey'>, topic: SeenTopic): readonly There[] {
  const list = (
    things: readonly { readonly id: string; readonly name: string }[],
    name: 'removeRib' | 'removeOpening' | 'removeArch' | 'removeKeepOut',
  ): readonly There[] => things.map((thing) => ({ ...thing, remove: { name, payload: { id: thing.id } } }));
  switch (topic) {
    case 'ribs':
      return list(survey.ribs, 'removeRib');
    case 'openings':
      return list(survey.openings, 'removeOpening');
    case 'standing':
      return list(survey.arches, 'removeArch');
    case 'under':
      return list(survey.keepOuts, 'removeKeepOut');
  }
}

/** The room things are pointed at in: the measured one, else the sketch. */
const roomOf = (scene: Scene) =>
  scene.shape.shell ?? sketchShell(scene.project.vehicle.kind, valueAt(scene.project.survey, 'floor/length'));

/** One question of the look round: what there is to tap, what is entered, and that there is none. */
function Topic({ scene, topic }: { readonly scene: Scene; readonly topic: SeenTopic }) {
  const { t } = useSpeech();
  const change = useChange();
  const waiting = usePointing(({ now }) => now?.by ?? null);
  const { survey } = scene.project;
  const things = thingsOf(scene.project, topic);
  const open = openTopics(scene.project).includes(topic);
  const enter = (seen: Seen, place: Pointed | null): void => {
    // several taps may come before the screen is drawn again: each is made of what the last one left
    const now = useSession.getState().project?.survey ?? survey;
    const rough: Rough | null = place && roughOf(roomOf(scene), place);
    const on = place?.surface ?? seenOn(seen)[0] ?? 'floor';
    change(seenOperation(now, seen, on, rough, t(`seen.${seen}`)));
  };
  const point = (seen: Seen): void => {
    const by = `${BY}${seen}`;
    const on = seenOn(seen);
    look({ ceiling: on.length === 1 && on[0] === 'ceiling' });
    startPointing({
      by,
      what: t(`seen.${seen}`),
      takes: ({ surface }) => on.includes(surface),
      put: (place) => {
        enter(seen, place);
        // the next one of its kind
        point(seen);
      },
    });
  };
  const chosen = SEEN[topic].find((seen) => waiting === `${BY}${seen}`);
  return (
    <section className="section stack look-topic" aria-label={t(`look.${topic}`)}>
      <div className="row apart">
        <h2>{t(`look.${topic}`)}</h2>
        {open ? (
          <span className="needs small">{t('look.notSaid')}</span>
        ) : (
          <span className="done small">
            ✓ {things.length === 0 ? t('look.noneSaid') : t('look.count', { count: things.length })}
          </span>
        )}
      </div>
      <div className="row wrap gap-4">
        {SEEN[topic].map((seen) => (
          <ToggleButton
            key={seen}
            value={seen}
            size="small"
            selected={chosen === seen}
            onChange={() => (chosen === seen ? stopPointing(`${BY}${seen}`) : point(seen))}
          >
            {t(`seen.${seen}`)}
          </ToggleButton>
        ))}
      </div>
      {chosen && (
        <div className="row wrap gap-8">
          <span className="small data" role="status">
            {t('look.point', { what: t(`seen.${chosen}`) })}
          </span>
          <Button size="small" onClick={() => enter(chosen, null)}>
            {t('look.without')}
          </Button>
        </div>
      )}
      {things.length > 0 && (
        <ul className="look-things">
          {things.map(({ id, name, remove }) => (
            <li key={id}>
              {name}
              <IconButton size="small" aria-label={`${t('common.remove')} ${name}`} onClick={() => change(remove)}>
                <CloseIcon fontSize="inherit" />
              </IconButton>
            </li>
          ))}
        </ul>
      )}
      {things.length === 0 && (
        <Check
          label={t(`look.none.${topic}`)}
          checked={survey.looked?.[topic] !== undefined}
          onCheck={(none) => act(said(topic, none))}
        />
      )}
    </section>
  );
}

const said = (topic: LookTopic, yes: boolean): Operation => ({
  name: 'sayLooked',
  payload: { topic, at: yes ? new Date().toISOString() : null },
});

/** Statures to begin with, mm: typed over by each one's own. */
const ADULT_MM = 1740;
const CHILD_MM = 1250;

function People({ scene }: { readonly scene: Scene }) {
  const { t } = useSpeech();
  const change = useChange();
  const { people } = scene.project;
  const add = (stature: number, base: string): void => {
    const { id, number } = nextId('p', people);
    change({ name: 'putPerson', payload: { person: { id, name: `${base} ${number}`, stature } } });
  };
  return (
    <section className="section stack look-topic" aria-label={t('look.people')}>
      <div className="row apart">
        <h2>{t('look.people')}</h2>
        {people.length === 0 ? (
          <span className="needs small">{t('look.notSaid')}</span>
        ) : (
          <span className="done small">✓ {t('look.count', { count: people.length })}</span>
        )}
      </div>
      {people.map((person) => (
        <div className="row at-start" key={person.id}>
          <TextEntry
            label={t('settings.personName')}
            value={person.name}
            onTake={(name) => act({ name: 'putPerson', payload: { person: { ...person, name } } })}
          />
          <LengthField
            label={t('settings.stature')}
            value={person.stature}
            onTake={(stature) => act({ name: 'putPerson', payload: { person: { ...person, stature } } })}
          />
          <IconButton
            aria-label={`${t('common.remove')} ${person.name}`}
            onClick={() => change({ name: 'removePerson', payload: { id: person.id } })}
          >
            <CloseIcon />
          </IconButton>
        </div>
      ))}
      <div className="row wrap gap-8">
        <Button size="small" onClick={() => add(ADULT_MM, t('look.adult'))}>
          {t('look.addAdult')}
        </Button>
        <Button size="small" onClick={() => add(CHILD_MM, t('look.child'))}>
          {t('look.addChild')}
        </Button>
      </div>
    </section>
  );
}

/** Before the tape comes out: what there is, by taps on a sketch. The walk then asks for its sizes, and nothing is forgotten. */
export function LookRound({ scene, onWalk }: { readonly scene: Scene; readonly onWalk: () => void }) {
  const { t } = useSpeech();
  const open = openTopics(scene.project);
  // it stays open while the last answers are given
  useEffect(() => look({ measureTab: 'look' }), []);
  useEffect(() => {
    const leave = (event: KeyboardEvent): void => {
      if (event.key === 'Escape') stopPointing();
    };
    window.addEventListener('keydown', leave);
    return () => {
      window.removeEventListener('keydown', leave);
      const { now } = usePointing.getState();
      if (now?.by.startsWith(BY)) stopPointing(now.by);
    };
  }, []);
  return (
    <div className="stack">
      <div>
        <h1>{t('look.title')}</h1>
        <p className="soft">{t('look.hint')}</p>
      </div>
      {POINTED.map((topic) => (
        <Topic key={topic} scene={scene} topic={topic} />
      ))}
      <People scene={scene} />
      <div className="row apart section">
        <span className={open.length === 0 ? 'done' : 'needs'}>
          {open.length === 0
            ? `✓ ${t('look.all')}`
            : t('look.open', { topics: open.map((topic) => t(`look.${topic}`).toLowerCase()).join(', ') })}
        </span>
        <Button variant="contained" onClick={onWalk}>
          {t('look.walk')}
        </Button>
      </div>
    </div>
  );
}
