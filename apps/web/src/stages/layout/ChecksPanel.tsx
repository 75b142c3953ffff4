import Button from '@mui/material/Button';
import Menu from '@mui/material/Menu';
import MenuItem from '@mui/material/MenuItem';
import TextField from '@mui/material/TextField';
import { memo, useState } from 'react';
import type { Wish } from '@nestplank/core/document';
import type { Worse } from '@nestplank/core/derive';
import type { Check } from '@nestplank/core/furniture';
import { decides } from '@nestplank/core/layout';
import { act, askWorse, notify } from '../../state/session.js';
import { beside } from '../../state/later.js';
import type { Scene } from '../../state/scene.js';
import { look } from '../../state/view.js';
import { useSpeech } from '../../words/use-speech.js';
import { MissingNotes } from '../../kit/MissingNotes.js';
import { useChange } from '../../kit/use-change.js';
import { numbered } from './CheckMarks.js';
import { MendAll } from './MendAll.js';
import { RuleWhy } from './RuleWhy.js';
import { UnitProblems } from './UnitProblems.js';

/** A check comes anew from the worker at each step of a drag, mostly the same. */
const sameCheck = (before: { readonly check: Check }, next: { readonly check: Check }): boolean =>
  before.check === next.check || JSON.stringify(before.check) === JSON.stringify(next.check);

/** The ways to mend a check: the first by one press, the others in a list. */
const Mends = memo(function Mends({ check }: { readonly check: Check }) {
  const { t, said } = useSpeech();
  const [at, setAt] = useState<HTMLElement | null>(null);
  const apply = (mend: Check['mends'][number]): void => {
    setAt(null);
    const refused = act(...mend.operations);
    if (refused) notify(said(refused), 'trouble');
  };
  const [first, ...others] = check.mends;
  if (!first) return null;
  return (
    <span className="row gap-4">
      <Button
        size="small"
        onClick={() => apply(first)}
        title={said(first.said)}
        aria-label={`${t('layout.mend')}: ${said(first.said)}`}
      >
        {t('layout.mend')}
      </Button>
      {others.length > 0 && (
        <>
          <Button
            size="small"
            variant="text"
            aria-haspopup="menu"
            aria-label={`${t('mend.more')}: ${said(check.said)}`}
            onClick={(event) => setAt(event.currentTarget)}
          >
            +{others.length}
          </Button>
          <Menu anchorEl={at} open={at !== null} onClose={() => setAt(null)}>
            {others.map((mend, i) => (
              <MenuItem key={i} onClick={() => apply(mend)}>
                {said(mend.said)}
              </MenuItem>
            ))}
          </Menu>
        </>
      )}
    </span>
  );
}, sameCheck);

/** A check put aside keeps its reason; one that is not can be put aside with one. */
const AsideOf = memo(function AsideOf({ check }: { readonly check: Check }) {
  const { t } = useSpeech();
  const change = useChange();
  const [asking, setAsking] = useState(false);
  const [reason, setReason] = useState('');
  if (check.aside !== null)
    return (
      <span className="soft small">
        {t('aside.was', { reason: check.aside })}{' '}
        <Button size="small" variant="text" onClick={() => change({ name: 'takeUp', payload: { check: check.id } })}>
          {t('aside.up')}
        </Button>
      </span>
    );
  if (check.grade === 'good') return null;
  if (!asking)
    return (
      <Button size="small" variant="text" className="quiet-button" onClick={() => setAsking(true)}>
        {t('aside.put')}
      </Button>
    );
  return (
    <form
      className="fields entry-and-button"
      onSubmit={(event) => {
        event.preventDefault();
        if (change({ name: 'setAside', payload: { check: check.id, reason, at: new Date().toISOString() } }))
          setAsking(false);
      }}
    >
      <TextField
        label={t('aside.reason')}
        value={reason}
        autoFocus
        onChange={(event) => setReason(event.target.value)}
        onKeyDown={(event) => {
          event.stopPropagation();
          if (event.key === 'Escape') setAsking(false);
        }}
      />
      <Button type="submit" disabled={reason.trim() === ''}>
        {t('aside.keep')}
      </Button>
    </form>
  );
}, sameCheck);

/** Opens how a check was judged, and shuts it. */
const Asks = memo(function Asks({
  text,
  name,
  open,
  onPress,
}: {
  readonly text: string;
  readonly name: string;
  readonly open: boolean;
  readonly onPress: (open: boolean) => void;
}) {
  return (
    <Button
      size="small"
      variant="text"
      className="quiet-button"
      aria-expanded={open}
      aria-label={name}
      onClick={() => onPress(!open)}
    >
      {text}
    </Button>
  );
});

interface NoteProps {
  readonly check: Check;
  readonly number: number | null;
  /** The wishes that it decides. */
  readonly wishes: readonly Wish[];
  /** Whether its rule judges by figures of this project. */
  readonly own: boolean;
}
const sameNote = (before: NoteProps, next: NoteProps): boolean =>
  before.number === next.number &&
  before.own === next.own &&
  before.wishes.length === next.wishes.length &&
  before.wishes.every((wish, i) => wish === next.wishes[i]) &&
  sameCheck(before, next);

/** So many of what a mend makes worse are told. */
const MOST_WORSE = 3;
/** What the first mend of a check would make worse, asked for when its note is looked at; nothing before, or once the check is another. */
function useWorse(check: Check): { readonly found: readonly Worse[]; readonly ask: () => void } {
  const [answer, setAnswer] = useState<{ readonly of: Check; readonly found: readonly Worse[] } | null>(null);
  const [mend] = check.mends;
  const ask = (): void => {
    if (!mend || check.aside !== null || answer?.of === check) return;
    setAnswer({ of: check, found: [] });
    askWorse(mend.operations, check.id).then(
      (found) => setAnswer({ of: check, found: found.slice(0, MOST_WORSE) }),
      // the worker was begun anew meanwhile: it is asked again at the next look
      () => setAnswer(null),
    );
  };
  return { found: answer?.of === check ? answer.found : [], ask };
}

/** How a check was judged, by the project as it is. */
const WhyNow = beside(RuleWhy);

const Note = memo(function Note({ check, number, wishes, own }: NoteProps) {
  const { t, said } = useSpeech();
  const [why, setWhy] = useState(false);
  const [mend] = check.mends;
  const worse = useWorse(check);
  return (
    <li
      data-check={check.id}
      onMouseEnter={() => {
        worse.ask();
        if (check.grade !== 'good') look({ sliceX: check.x, ...(check.mode ? { mode: check.mode } : {}) });
      }}
      onFocus={worse.ask}
    >
      <span className="note-mark" data-grade={check.aside === null ? check.grade : 'good'}>
        {number ?? (check.aside === null ? '✓' : '–')}
      </span>
      <span>
        {said(check.said)}
        {mend && check.aside === null && <span className="soft"> {said(mend.said)}.</span>}{' '}
        {mend && worse.found.length > 0 && (
          <span className="needs small" role="status">
            {t('mend.worse', { what: worse.found.map((one) => said(one.said)).join(' ') })}{' '}
          </span>
        )}
        {wishes.map(({ id, text, who }) => (
          <span key={id} className="soft small">
            {t('wish.of')}
            {who !== '' && ` (${who})`}: {text}.{' '}
          </span>
        ))}
        <span className="note-acts">
          <AsideOf key={check.id} check={check} />
          <Asks
            text={t(own ? 'rule.whyOwn' : 'rule.why')}
            name={`${t('rule.why')}: ${said(check.said)}`}
            open={why}
            onPress={setWhy}
          />
        </span>
        {why && <WhyNow name={check.rule} />}
      </span>
      {mend && check.aside === null ? (
        <Mends check={check} />
      ) : (
        <span
          className={check.grade === 'good' ? 'done small' : check.grade === 'fails' ? 'needs small' : 'soft small'}
        >
          {t(`layout.${check.grade}`)}
        </span>
      )}
    </li>
  );
}, sameNote);

/** What does not fit, worst first, each with the way out; what fits on request. */
export const ChecksPanel = memo(function ChecksPanel({ scene }: { readonly scene: Scene }) {
  const { t } = useSpeech();
  const [all, setAll] = useState(false);
  const { checks } = scene.shape;
  const wished = scene.project.wishes ?? [];
  const open = numbered(checks);
  const put = checks.filter(({ aside }) => aside !== null);
  const good = checks.filter((check) => !open.includes(check) && !put.includes(check));
  const fails = open.filter((check) => check.grade === 'fails').length;
  const unknown = scene.shape.missing.some(({ stages }) => stages.includes('layout'));
  if (checks.length === 0)
    return (
      <>
        <MissingNotes scene={scene} stage="layout" />
        <UnitProblems scene={scene} />
        <p className="soft section">{t('layout.none')}</p>
      </>
    );
  return (
    <section className="section">
      <div className="row apart">
        <h2>{open.length > 0 ? t('layout.problems') : t(unknown ? 'layout.unknownFit' : 'layout.allFit')}</h2>
        <span className="soft small figures">{t('layout.checked', { fails, count: checks.length })}</span>
      </div>
      <MissingNotes scene={scene} stage="layout" />
      <UnitProblems scene={scene} />
      {fails > 1 && <MendAll fails={fails} />}
      <ul className="notes">
        {[...open, ...put, ...(all ? good : [])].map((check, i) => (
          <Note
            key={check.id}
            check={check}
            number={i < open.length ? i + 1 : null}
            wishes={wished.filter((wish) => decides(check, wish))}
            own={scene.project.settings.figures?.[check.rule] !== undefined}
          />
        ))}
      </ul>
      {good.length > 0 && (
        <Button variant="text" onClick={() => setAll(!all)} aria-expanded={all}>
          {all ? t('layout.fewer') : t('layout.more', { count: good.length })}
        </Button>
      )}
    </section>
  );
});
