import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import { memo, useRef, useState } from 'react';
import { formatMoney, openBefore, type Found, type LeakTest, type Operation, type Point } from '@nestplank/core';
import { onWall, screenX, screenY, type FoldOutFrame } from '../../foldout/geometry.js';
import { api, RefusedError } from '../../state/api.js';
import { act, notify, useSession } from '../../state/session.js';
import type { Scene } from '../../state/scene.js';
import { LengthField } from '../../kit/LengthField.js';
import { MoneyField } from '../../kit/MoneyField.js';
import { PickField } from '../../kit/PickField.js';
import { TextEntry } from '../../kit/TextEntry.js';
import { useSpeech } from '../../words/words.js';
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

/** Where on the fold-out a find is; rear and ceiling are not laid out. */
function placeOf(frame: FoldOutFrame, found: Found): Point | null {
  if (found.surface === 'floor') return [screenX(frame, found.along), screenY(frame, found.x)];
  return found.surface === 'left' || found.surface === 'right'
    ? onWall(frame, found.surface, found.x, found.along)
    : null;
}

/** The finds on the fold-out: squares, open ones outlined, done ones ticked. */
export const FoundLayer = memo(function FoundLayer({
  frame,
  found,
}: {
  readonly frame: FoldOutFrame;
  readonly found: readonly Found[];
}) {
  return (
    <g>
      {found.map((item, i) => {
        const at = placeOf(frame, item);
        const open = item.status === 'open' && item.decision !== 'keep';
        return at ? (
          <g key={item.id} role="img" aria-label={item.name}>
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

function FoundRow({
  found,
  number,
  currency,
}: {
  readonly found: Found;
  readonly number: number;
  readonly currency: string;
}) {
  const { t, said } = useSpeech();
  const id = useSession((s) => s.id);
  const file = useRef<HTMLInputElement>(null);
  const put = (changes: Partial<Found>) => act({ name: 'putFound', payload: { found: { ...found, ...changes } } });
  const attempt = (changes: Partial<Found>): void => {
    const refused = put(changes);
    if (refused) notify(said(refused), 'trouble');
  };
  const addPhoto = async (chosen: File | undefined): Promise<void> => {
    if (!chosen || !id) return;
    try {
      attempt({ photo: (await api.addPhoto(id, chosen)).id });
    } catch (problem) {
      notify(problem instanceof RefusedError ? problem.message : t('home.failed'), 'trouble');
    }
  };
  return (
    <li className="find">
      <span className="note-mark" data-grade={found.status === 'done' || found.decision === 'keep' ? 'good' : 'fails'}>
        {found.status === 'done' ? '✓' : number}
      </span>
      <div className="stack">
        <div className="fields">
          <TextEntry label={t('common.name')} value={found.name} onTake={(name) => put({ name })} />
          <PickField
            label={t('found.kind')}
            of={found.name}
            value={found.kind}
            choices={KINDS.map((value) => ({ value, text: t(`found.kind.${value}`) }))}
            onPick={(kind) => attempt({ kind })}
          />
          <PickField
            label={t('things.surface')}
            of={found.name}
            value={found.surface}
            choices={PLACES.map((value) => ({ value, text: t(`surface.${value}`) }))}
            onPick={(surface) => attempt({ surface })}
          />
          <LengthField label={t('found.x')} value={found.x} onTake={(x) => put({ x })} />
          <LengthField label={t('found.along')} value={found.along} onTake={(along) => put({ along })} />
          <LengthField label={t('found.size')} value={found.size} onTake={(size) => put({ size })} />
          <PickField
            label={t('found.decision')}
            of={found.name}
            value={found.decision}
            choices={DECISIONS.map((value) => ({ value, text: t(`found.decision.${value}`) }))}
            onPick={(decision) => attempt({ decision })}
          />
          <TextEntry label={t('found.method')} value={found.method} mayBeEmpty onTake={(method) => put({ method })} />
          <MoneyField
            label={`${t('found.cost')}, ${currency}`}
            showLabel
            minor={found.cost}
            onTake={(cost) => attempt({ cost })}
          />
        </div>
        <div className="row wrap">
          {found.photo && (
            <a href={api.photoAddress(found.photo, false)} target="_blank" rel="noreferrer">
              <img
                src={api.photoAddress(found.photo, true)}
                alt={t('found.photoOf', { name: found.name })}
                style={{ height: 64, display: 'block', border: '1px solid var(--ink)' }}
              />
            </a>
          )}
          <FormControlLabel
            control={
              <Checkbox
                checked={found.status === 'done'}
                onChange={(_event, done) => attempt({ status: done ? 'done' : 'open' })}
              />
            }
            label={t('found.done')}
          />
          <Button size="small" onClick={() => file.current?.click()}>
            {t(found.photo ? 'found.photoAgain' : 'found.photo')}
          </Button>
          <input
            ref={file}
            type="file"
            accept="image/*"
            hidden
            aria-label={t('found.photoOf', { name: found.name })}
            onChange={(event) => {
              void addPhoto(event.target.files?.[0]);
              event.target.value = '';
            }}
          />
          <Button
            size="small"
            variant="text"
            onClick={() => act({ name: 'removeFound', payload: { id: found.id } })}
            aria-label={`${t('common.remove')} ${found.name}`}
          >
            {t('common.remove')}
          </Button>
        </div>
      </div>
    </li>
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
  const { t, said } = useSpeech();
  const { found, leakTest } = scene.project.survey;
  const [surface, setSurface] = useState<(typeof PLACES)[number]>('left');
  const { currency } = scene.book;
  const add = (): void => {
    const { id, number } = nextId('n', found);
    const operation: Operation = {
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
    };
    const refused = act(operation);
    if (refused) notify(said(refused), 'trouble');
  };
  const open = openBefore(scene.project, surface);
  return (
    <div className="stack" style={{ gap: 18 }}>
      {found.length === 0 ? (
        <p className="soft">{t('found.none')}</p>
      ) : (
        <>
          <p className="soft figures">
            {t('found.total', {
              open: found.filter((item) => item.status === 'open' && item.decision !== 'keep').length,
              count: found.length,
              cost: formatMoney(
                found.reduce((sum, item) => sum + item.cost, 0),
                currency,
              ),
            })}
          </p>
          <ul className="notes">
            {found.map((item, i) => (
              <FoundRow key={item.id} found={item} number={i + 1} currency={currency} />
            ))}
          </ul>
        </>
      )}
      <div>
        <Button onClick={add}>{t('found.add')}</Button>
      </div>
      <LeakTestRow leakTest={leakTest} />
      <section className="section stack" aria-label={t('found.before', { surface: t(`surface.${surface}`) })}>
        <div className="row apart">
          <h2>{t('found.before', { surface: t(`surface.${surface}`) })}</h2>
          <div style={{ width: 140 }}>
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
              <li key={point.id} style={{ gridTemplateColumns: '30px minmax(0, 1fr)' }}>
                <span className="note-mark" data-grade={point.stops ? 'fails' : 'tight'}>
                  {point.stops ? '!' : '?'}
                </span>
                <span>{said(point.said)}</span>
              </li>
            ))}
          </ul>
        )}
      </section>
      <p className="small soft">{t('found.caution')}</p>
    </div>
  );
}
