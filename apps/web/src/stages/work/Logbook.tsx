import Button from '@mui/material/Button';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { useId, useState } from 'react';
import { v4 as freshId } from 'uuid';
import { LOG_KINDS, type LogEntry, type LogKind } from '@nestplank/core/document';
import { formatMoney } from '@nestplank/core/words';
import type { Task } from '@nestplank/core/work';
import { Check } from '../../kit/Check.js';
import { PhotoButton } from '../../kit/PhotoButton.js';
import { useChange } from '../../kit/use-change.js';
import { api } from '../../state/api.js';
import type { Scene } from '../../state/scene.js';
import { useView } from '../../state/view.js';
import { dayName } from '../../frame/tape-figures.js';
import { useSpeech } from '../../words/use-speech.js';
import { timeSaid } from './times.js';

/** So many entries are listed; the search finds the others. */
const SHOWN = 60;

const isIn = (entry: LogEntry, what: string): boolean =>
  [entry.text, entry.by, entry.part ?? '', entry.at.slice(0, 10)].some((text) =>
    text.toLowerCase().includes(what.toLowerCase()),
  );

/** Where along the vehicle each entry belongs that has a place, newest on top. */
function Strip({ entries, length }: { readonly entries: readonly LogEntry[]; readonly length: number }) {
  const { t } = useSpeech();
  const placed = entries.filter(({ x }) => x !== null);
  if (length <= 0 || placed.length === 0) return null;
  const [width, height] = [336, 46];
  return (
    <figure className="log-strip">
      <svg
        viewBox={`0 0 ${width} ${height}`}
        role="img"
        aria-label={t('log.strip', { count: placed.length })}
        className="block"
      >
        <rect x={0.5} y={0.5} width={width - 1} height={height - 1} fill="var(--paper)" stroke="var(--ink)" />
        {placed.map((entry, i) => {
          const x = 8 + Math.min(1, Math.max(0, (entry.x ?? 0) / length)) * (width - 16);
          const y = height - 10 - (i % 4) * 9;
          return entry.kind === 'mistake' || entry.kind === 'snag' ? (
            <path
              key={entry.id}
              d={`M${x - 5} ${y + 4}L${x} ${y - 5}L${x + 5} ${y + 4}Z`}
              fill="var(--paper)"
              stroke="var(--needs)"
              strokeWidth={1.6}
            />
          ) : (
            <circle key={entry.id} cx={x} cy={y} r={3.6} fill="var(--data)" opacity={entry.struck ? 0.3 : 1} />
          );
        })}
      </svg>
      <figcaption className="row apart small soft">
        <span>{t('log.front')}</span>
        <span>{t('log.rear')}</span>
      </figcaption>
    </figure>
  );
}

/** Writes one entry down: a line, a kind, and what goes with the kind. */
function EntryForm({
  scene,
  task,
  kind,
  onKind,
}: {
  readonly scene: Scene;
  readonly task: Task | null;
  readonly kind: LogKind;
  readonly onKind: (kind: LogKind) => void;
}) {
  const { t, said } = useSpeech();
  const change = useChange();
  const who = useView((view) => view.who);
  const [text, setText] = useState('');
  const [amount, setAmount] = useState('');
  const [passed, setPassed] = useState(true);
  const [pinned, setPinned] = useState(true);
  const id = useId();
  const unit = scene.project.layout.units.find((own) => own.id === task?.unit);
  const number = Number(amount.replace(',', '.'));
  const wanted = kind === 'hours' || kind === 'money';
  const bad = wanted && (amount.trim() === '' || !Number.isFinite(number) || number < 0);
  const write = (photo: string | null): void => {
    const entry: LogEntry = {
      id: freshId(),
      kind: photo !== null && kind === 'note' ? 'photo' : kind,
      at: new Date().toISOString(),
      text: text.trim(),
      by: who,
      task: pinned && task ? task.id : null,
      work: pinned && task ? task.kind : null,
      part: null,
      x: pinned && unit ? unit.body.x + unit.body.length / 2 : null,
      minutes: kind === 'hours' ? number : null,
      money: kind === 'money' ? Math.round(number * 100) : null,
      photo,
      passed: kind === 'test' ? passed : null,
      struck: null,
    };
    if (!change({ name: 'writeLog', payload: { entry } })) return;
    setText('');
    setAmount('');
    onKind('note');
  };
  return (
    <form
      className="stack"
      onSubmit={(event) => {
        event.preventDefault();
        if (!bad && (text.trim() !== '' || wanted)) write(null);
      }}
    >
      <TextField
        id={id}
        label={t('log.write')}
        value={text}
        multiline
        minRows={2}
        onChange={(event) => setText(event.target.value)}
        slotProps={{ htmlInput: { maxLength: 2000 } }}
      />
      <div className="fields">
        <TextField
          select
          label={t('log.kind')}
          value={kind}
          onChange={(event) => onKind(LOG_KINDS.find((known) => known === event.target.value) ?? 'note')}
        >
          {LOG_KINDS.map((known) => (
            <MenuItem key={known} value={known}>
              {t(`log.kind.${known}`)}
            </MenuItem>
          ))}
        </TextField>
        {wanted && (
          <TextField
            label={kind === 'hours' ? t('log.minutes') : t('log.money', { currency: scene.book.currency })}
            value={amount}
            error={amount.trim() !== '' && bad}
            helperText={amount.trim() !== '' && bad ? t('work.numberBad', { least: 0, most: 100_000 }) : null}
            onChange={(event) => setAmount(event.target.value)}
            slotProps={{ htmlInput: { inputMode: 'decimal' } }}
          />
        )}
        {kind === 'test' && <Check label={t('log.passed')} checked={passed} onCheck={(on) => void setPassed(on)} />}
      </div>
      {task && (
        <Check
          label={t('log.pinned', { task: said(task.title) })}
          checked={pinned}
          onCheck={(on) => void setPinned(on)}
        />
      )}
      <div className="row wrap">
        <Button type="submit" variant="contained" disabled={bad || (text.trim() === '' && !wanted)}>
          {t('log.keep')}
        </Button>
        <PhotoButton text={t('log.photo')} label={t('log.photoOf')} onPhoto={write} />
      </div>
    </form>
  );
}

function Entry({ entry, currency }: { readonly entry: LogEntry; readonly currency: string }) {
  const speech = useSpeech();
  const { t } = speech;
  const change = useChange();
  const [asking, setAsking] = useState(false);
  const [reason, setReason] = useState('');
  const words = entry.text === '' ? t(`log.kind.${entry.kind}`) : entry.text;
  return (
    <li className="stack">
      <div className="row apart at-baseline">
        <span className={entry.struck ? 'soft struck' : ''}>
          <b className={entry.kind === 'mistake' || entry.kind === 'snag' ? 'needs' : ''}>
            {t(`log.kind.${entry.kind}`)}
          </b>{' '}
          {entry.text}
          {entry.minutes !== null && <span className="figures"> {timeSaid(entry.minutes, speech)}</span>}
          {entry.money !== null && <span className="figures"> {formatMoney(entry.money, currency)}</span>}
          {entry.passed !== null && <span> · {t(entry.passed ? 'log.passed' : 'log.failed')}</span>}
        </span>
        <span className="figures soft small one-line">
          {dayName(entry.at.slice(0, 10))}
          {entry.by !== '' && ` · ${entry.by}`}
        </span>
      </div>
      {entry.photo !== null && (
        <a href={api.photoAddress(entry.photo, false)} target="_blank" rel="noreferrer">
          <img
            className="thumb"
            src={api.photoAddress(entry.photo, true)}
            alt={t('log.photoSeen', { date: dayName(entry.at.slice(0, 10)) })}
          />
        </a>
      )}
      {entry.struck && <p className="small soft">{t('log.struck', { reason: entry.struck.reason })}</p>}
      {!entry.struck && !asking && (
        <div>
          <Button size="small" aria-label={t('log.strikeOf', { text: words })} onClick={() => setAsking(true)}>
            {t('log.strike')}
          </Button>
        </div>
      )}
      {asking && (
        <form
          className="row"
          onSubmit={(event) => {
            event.preventDefault();
            const done = change({
              name: 'strikeLog',
              payload: { id: entry.id, reason: reason.trim(), at: new Date().toISOString() },
            });
            if (done) setAsking(false);
          }}
        >
          <TextField
            label={t('log.reason')}
            value={reason}
            onChange={(event) => setReason(event.target.value)}
            className="grow"
            slotProps={{ htmlInput: { maxLength: 400 } }}
          />
          <Button type="submit" disabled={reason.trim() === ''}>
            {t('log.strike')}
          </Button>
        </form>
      )}
    </li>
  );
}

/** The logbook: along the vehicle, then newest first; written in one line, searched, struck out but never taken away. */
export function Logbook({
  scene,
  task,
  kind,
  onKind,
}: {
  readonly scene: Scene;
  readonly task: Task | null;
  readonly kind: LogKind;
  readonly onKind: (kind: LogKind) => void;
}) {
  const { t } = useSpeech();
  const [search, setSearch] = useState('');
  const log = scene.project.record?.log ?? [];
  const found = (search.trim() === '' ? log : log.filter((entry) => isIn(entry, search.trim()))).toReversed();
  return (
    <section className="section stack">
      <div className="row apart at-baseline">
        <h2>{t('log.title')}</h2>
        {log.length > 0 && <span className="figures soft small">{t('log.count', { count: log.length })}</span>}
      </div>
      <Strip entries={found.slice(0, SHOWN)} length={scene.derived.shell?.length ?? 0} />
      <EntryForm scene={scene} task={task} kind={kind} onKind={onKind} />
      {log.length > 5 && (
        <TextField label={t('log.search')} value={search} onChange={(event) => setSearch(event.target.value)} />
      )}
      {log.length === 0 && <p className="small soft">{t('log.none')}</p>}
      {log.length > 0 && found.length === 0 && (
        <p className="small soft">{t('log.noneFound', { what: search.trim() })}</p>
      )}
      <ol className="ruled-list">
        {found.slice(0, SHOWN).map((entry) => (
          <Entry key={entry.id} entry={entry} currency={scene.book.currency} />
        ))}
      </ol>
    </section>
  );
}
