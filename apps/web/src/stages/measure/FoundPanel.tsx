import { memo, useState } from 'react';
import type { Found, LeakTest, Operation, ServiceJoint } from '@nestplank/core/document';
import { openBefore } from '@nestplank/core/measure';
import type { Point as Place } from '@nestplank/core/numeric';
import { formatMoney, type Message } from '@nestplank/core/words';
import { onWall, screenX, screenY, type FoldOutFrame } from '../../foldout/geometry.js';
import { api } from '../../state/api.js';
import { act } from '../../state/session.js';
import type { Scene } from '../../state/scene.js';
import { look, useView } from '../../state/view.js';
import { Check } from '../../kit/Check.js';
import { LengthField } from '../../kit/LengthField.js';
import { LineList } from '../../kit/LineList.js';
import { MoneyField } from '../../kit/MoneyField.js';
import { NamedList } from '../../kit/NamedList.js';
import { NumberField } from '../../kit/NumberField.js';
import { PhotoButton } from '../../kit/PhotoButton.js';
import { PickField } from '../../kit/PickField.js';
import { PointButton } from '../../kit/PointButton.js';
import { TextEntry } from '../../kit/TextEntry.js';
import { useChange } from '../../kit/use-change.js';
import { useSpeech } from '../../words/use-speech.js';
import { CoverPoint } from './CoverPoint.js';
import { nextId } from './next-id.js';

const KINDS: readonly Found['kind'][] = [
  'lining',
  'wiring',
  'hole',
  'rust',
  'leak',
  'anchor',
  'vent',
  'protrusion',
  'other',
];
const DECISIONS: readonly Found['decision'][] = ['keep', 'redo', 'remove'];
export const PLACES = ['floor', 'left', 'right', 'rear', 'ceiling'] as const;

/** Something is still to be done about it. */
const isOpen = (found: Found): boolean => found.status === 'open' && found.decision !== 'keep';

/** Where on the fold-out a find is: floor or ceiling in the middle, whichever is drawn; the rear is not laid out. */
function placeOf(frame: FoldOutFrame, found: Found, ceiling: boolean): Place | null {
  if (found.surface === (ceiling ? 'ceiling' : 'floor')) return [screenX(frame, found.along), screenY(frame, found.x)];
  return found.surface === 'left' || found.surface === 'right'
    ? onWall(frame, found.surface, found.x, found.along)
    : null;
}

/** The finds on the fold-out: squares, open ones outlined, done ones ticked. */
export const FoundLayer = memo(function FoundLayer({
  frame,
  found,
  ceiling = false,
}: {
  readonly frame: FoldOutFrame;
  readonly found: readonly Found[];
  readonly ceiling?: boolean;
}) {
  return (
    <g>
      {found.map((item, i) => {
        const at = placeOf(frame, item, ceiling);
        const open = isOpen(item);
        return at ? (
          <g key={item.id} role="img" aria-label={item.name} className="takes" onClick={() => look({ find: item.id })}>
            <rect
              x={at[0] - 10}
              y={at[1] - 10}
              width={20}
              height={20}
              fill="var(--paper)"
              stroke={open ? 'var(--needs)' : 'var(--done)'}
              strokeWidth={2}
            />
            <text x={at[0]} y={at[1] + 4.5} textAnchor="middle" className={open ? 'needs' : ''} fontWeight={700}>
              {open ? i + 1 : '✓'}
            </text>
          </g>
        ) : null;
      })}
    </g>
  );
});

/** A photo in small, which opens large. */
function Thumb({ photo, alt }: { readonly photo: string; readonly alt: string }) {
  return (
    <a href={api.photoAddress(photo, false)} target="_blank" rel="noreferrer">
      <img className="thumb" src={api.photoAddress(photo, true)} alt={alt} />
    </a>
  );
}

/** Joints of gas and water that something will cover: tried before, or a point that holds the face. */
function Joints({ scene }: { readonly scene: Scene }) {
  const { t } = useSpeech();
  const change = useChange();
  const joints = scene.project.survey.before?.joints ?? [];
  const put = (joint: ServiceJoint): Message | null => act({ name: 'putJoint', payload: { joint } });
  return (
    <>
      <NamedList
        title={t('found.joints')}
        hint={t('found.jointsNone')}
        items={joints}
        nameLabel={t('found.jointName')}
        freeId={nextId('j', joints).id}
        line={({ kind, surface, tested }) =>
          t('found.jointLine', {
            kind: t(`found.joint.${kind}`),
            surface: t(`surface.${surface}`),
            state: t(tested ? 'found.jointTried' : 'found.jointUntried'),
          })
        }
        onAdd={(id, name) => put({ id, name, kind: 'water', surface: 'floor', tested: false })}
        onRemove={({ id }) => change({ name: 'removeJoint', payload: { id } })}
      >
        {(joint) => (
          <>
            <div className="fields two">
              <PickField
                label={t('found.kind')}
                of={joint.name}
                value={joint.kind}
                choices={(['gas', 'water'] as const).map((value) => ({ value, text: t(`found.joint.${value}`) }))}
                onPick={(kind) => put({ ...joint, kind })}
              />
              <PickField
                label={t('things.surface')}
                of={joint.name}
                value={joint.surface}
                choices={PLACES.map((value) => ({ value, text: t(`surface.${value}`) }))}
                onPick={(surface) => put({ ...joint, surface })}
              />
            </div>
            <Check
              label={t('found.jointTested')}
              checked={joint.tested}
              onCheck={(tested) => put({ ...joint, tested })}
            />
          </>
        )}
      </NamedList>
      {joints.length > 0 && <p className="small soft">{t('found.jointCaution')}</p>}
    </>
  );
}

/** What has to be closed before each surface is covered, with its photo. */
function BeforeCover({ scene }: { readonly scene: Scene }) {
  const { t, said } = useSpeech();
  const change = useChange();
  const [surface, setSurface] = useState<(typeof PLACES)[number]>('left');
  const open = openBefore(scene.project, surface);
  const photo = scene.project.survey.before?.photos[surface];
  const named = t(`surface.${surface}`);
  return (
    <section className="section stack" aria-label={t('found.before', { surface: named })}>
      <div className="row apart">
        <h2>{t('found.before', { surface: named })}</h2>
        <div className="narrow-field">
          <PickField
            hideLabel
            label={t('things.surface')}
            value={surface}
            choices={PLACES.map((value) => ({ value, text: t(`surface.${value}`) }))}
            onPick={setSurface}
          />
        </div>
      </div>
      {open.length === 0 ? (
        <p className="done">✓ {t('found.beforeFree')}</p>
      ) : (
        <ul className="notes">
          {open.map((point) => (
            <CoverPoint key={point.id} point={point} what={said(point.said)} />
          ))}
        </ul>
      )}
      <div className="row wrap">
        {photo !== undefined && <Thumb photo={photo} alt={t('found.surfacePhotoOf', { surface: named })} />}
        <PhotoButton
          text={t(photo === undefined ? 'found.surfacePhoto' : 'found.surfacePhotoAgain')}
          label={t('found.surfacePhotoOf', { surface: named })}
          onPhoto={(id) => change({ name: 'photoSurface', payload: { surface, photo: id } })}
        />
      </div>
    </section>
  );
}

/** What one find is, where, and what becomes of it. */
function FoundFields({ found, currency }: { readonly found: Found; readonly currency: string }) {
  const { t } = useSpeech();
  const change = useChange();
  const operation = (changes: Partial<Found>): Operation => ({
    name: 'putFound',
    payload: { found: { ...found, ...changes } },
  });
  const put = (changes: Partial<Found>): Message | null => act(operation(changes));
  return (
    <>
      <PointButton
        what={found.name}
        takes={({ surface }) => surface !== 'front'}
        onPoint={({ surface, x, along }) => {
          if (surface !== 'front') change(operation({ surface, x, along }));
        }}
      />
      <div className="fields">
        <TextEntry label={t('common.name')} value={found.name} onTake={(name) => put({ name })} />
        <PickField
          label={t('found.kind')}
          of={found.name}
          value={found.kind}
          choices={KINDS.map((value) => ({ value, text: t(`found.kind.${value}`) }))}
          onPick={(kind) => put({ kind })}
        />
        <PickField
          label={t('things.surface')}
          of={found.name}
          value={found.surface}
          choices={PLACES.map((value) => ({ value, text: t(`surface.${value}`) }))}
          onPick={(surface) => put({ surface })}
        />
        <LengthField label={t('found.x')} value={found.x} onTake={(x) => put({ x })} />
        <LengthField label={t('found.along')} value={found.along} onTake={(along) => put({ along })} />
        <LengthField label={t('found.size')} value={found.size} onTake={(size) => put({ size })} />
        <PickField
          label={t('found.decision')}
          of={found.name}
          value={found.decision}
          choices={DECISIONS.map((value) => ({ value, text: t(`found.decision.${value}`) }))}
          onPick={(decision) => put({ decision })}
        />
        <TextEntry label={t('found.method')} value={found.method} mayBeEmpty onTake={(method) => put({ method })} />
        <MoneyField
          label={`${t('found.cost')}, ${currency}`}
          showLabel
          minor={found.cost}
          onTake={(cost) => void change(operation({ cost }))}
        />
        <NumberField
          label={t('found.hours')}
          value={found.hours ?? 0}
          least={0}
          most={500}
          onTake={(hours) => put({ hours })}
        />
      </div>
      <div className="row wrap">
        {found.photo && <Thumb photo={found.photo} alt={t('found.photoOf', { name: found.name })} />}
        <Check
          label={t('found.done')}
          checked={found.status === 'done'}
          onCheck={(done) => put({ status: done ? 'done' : 'open' })}
        />
        <PhotoButton
          text={t(found.photo ? 'found.photoAgain' : 'found.photo')}
          label={t('found.photoOf', { name: found.name })}
          onPhoto={(photo) => change(operation({ photo }))}
        />
      </div>
    </>
  );
}

function LeakTestRow({ leakTest }: { readonly leakTest: LeakTest }) {
  const { t, said } = useSpeech();
  const [reason, setReason] = useState(leakTest.reason);
  const [problem, setProblem] = useState<string | null>(null);
  const set = (state: LeakTest['state'], why: string): void => {
    const refused = act({
      name: 'setLeakTest',
      payload: { leakTest: { state, reason: why, at: state === 'open' ? null : new Date().toISOString() } },
    });
    setProblem(refused && said(refused));
  };
  const [wanted, setWanted] = useState<LeakTest['state']>(leakTest.state);
  return (
    <section className="section stack" aria-label={t('found.leak')}>
      <h2>{t('found.leak')}</h2>
      <p className="small soft">{t('found.leakHint')}</p>
      <div className="fields">
        <PickField
          label={t('found.leak')}
          value={wanted}
          choices={(['open', 'passed', 'overruled'] as const).map((value) => ({
            value,
            text: t(`found.leak.${value}`),
          }))}
          onPick={(state) => {
            setWanted(state);
            set(state, reason);
          }}
        />
        {wanted === 'overruled' && (
          <TextEntry
            label={t('found.leakReason')}
            value={reason}
            problem={problem}
            onTake={(why) => {
              setReason(why);
              set('overruled', why);
              return null;
            }}
          />
        )}
      </div>
    </section>
  );
}

/** What was in the vehicle before the build, and what has to be closed before each surface is covered. */
export function FoundPanel({ scene }: { readonly scene: Scene }) {
  const { t, len } = useSpeech();
  const change = useChange();
  const { found, leakTest } = scene.project.survey;
  const shown = useView((view) => view.find);
  const { currency } = scene.book;
  const add = (): string | null => {
    const { id, number } = nextId('n', found);
    const made = change({
      name: 'putFound',
      payload: {
        found: {
          id,
          name: t('found.new', { number }),
          kind: 'rust',
          surface: 'left',
          x: 0,
          along: 0,
          size: 0,
          decision: 'redo',
          status: 'open',
          method: '',
          cost: 0,
          photo: null,
        },
      },
    });
    return made ? id : null;
  };
  return (
    <div className="stack gap-18">
      <LineList
        title={t('found.list')}
        items={found}
        none={t('found.none')}
        open={shown}
        onOpen={(find) => look({ find })}
        mark={(item, i) => (
          <span className="note-mark" data-grade={isOpen(item) ? 'fails' : 'good'}>
            {isOpen(item) ? i + 1 : '✓'}
          </span>
        )}
        line={(item) =>
          `${t(`found.kind.${item.kind}`)} · ${t(`surface.${item.surface}`)} ${len(item.x)} · ${t(`found.decision.${item.decision}`)}`
        }
        onRemove={({ id }) => change({ name: 'removeFound', payload: { id } })}
        addText={t('found.add')}
        onAdd={add}
      >
        {(item) => <FoundFields found={item} currency={currency} />}
      </LineList>
      {found.length > 0 && (
        <p className="soft figures">
          {t('found.total', {
            open: found.filter(isOpen).length,
            count: found.length,
            cost: formatMoney(
              found.reduce((sum, item) => sum + item.cost, 0),
              currency,
            ),
          })}
        </p>
      )}
      {found.length === 0 && (
        <Check
          label={t('found.nothing')}
          checked={(scene.project.survey.before?.nothingFound ?? null) !== null}
          onCheck={(nothing) =>
            act({ name: 'sayNothingFound', payload: { at: nothing ? new Date().toISOString() : null } })
          }
        />
      )}
      <LeakTestRow leakTest={leakTest} />
      <Joints scene={scene} />
      <BeforeCover scene={scene} />
      <p className="small soft">{t('found.caution')}</p>
    </div>
  );
}
