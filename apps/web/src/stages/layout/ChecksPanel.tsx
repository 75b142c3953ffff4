import Button from '@mui/material/Button';
import { memo, useState } from 'react';
import type { Check } from '@nestplank/core/furniture';
import { act, notify } from '../../state/session.js';
import type { Scene } from '../../state/scene.js';
import { look } from '../../state/view.js';
import { useSpeech } from '../../words/words.js';
import { MissingNotes } from '../../kit/MissingNotes.js';
import { numbered } from './CheckMarks.js';

function Note({ check, number }: { readonly check: Check; readonly number: number | null }) {
  const { t, said } = useSpeech();
  const mend = (): void => {
    const refused = check.mend && act(...check.mend.operations);
    if (refused) notify(said(refused), 'trouble');
  };
  return (
    <li data-check={check.id} onMouseEnter={() => check.grade !== 'good' && check.unit && look({ sliceX: check.x })}>
      <span className="note-mark" data-grade={check.grade}>
        {number ?? '✓'}
      </span>
      <span>
        {said(check.said)}
        {check.mend && <span className="soft"> {said(check.mend.said)}.</span>}
      </span>
      {check.mend ? (
        <Button
          size="small"
          onClick={mend}
          title={said(check.mend.said)}
          aria-label={`${t('layout.mend')}: ${said(check.mend.said)}`}
        >
          {t('layout.mend')}
        </Button>
      ) : (
        <span
          className={check.grade === 'good' ? 'done small' : check.grade === 'fails' ? 'needs small' : 'soft small'}
        >
          {t(`layout.${check.grade}`)}
        </span>
      )}
    </li>
  );
}

/** What does not fit, worst first, each with the way out; what fits on request. */
export const ChecksPanel = memo(function ChecksPanel({ scene }: { readonly scene: Scene }) {
  const { t } = useSpeech();
  const [all, setAll] = useState(false);
  const { checks } = scene.shape;
  const open = numbered(checks);
  const good = checks.filter((check) => !open.includes(check));
  const fails = checks.filter((check) => check.grade === 'fails').length;
  const unknown = scene.shape.missing.some(({ stages }) => stages.includes('layout'));
  if (checks.length === 0)
    return (
      <>
        <MissingNotes scene={scene} stage="layout" />
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
      <ul className="notes">
        {open.map((check, i) => (
          <Note key={check.id} check={check} number={i + 1} />
        ))}
        {all && good.map((check) => <Note key={check.id} check={check} number={null} />)}
      </ul>
      {good.length > 0 && (
        <Button variant="text" onClick={() => setAll(!all)} aria-expanded={all}>
          {all ? t('layout.fewer') : t('layout.more', { count: good.length })}
        </Button>
      )}
    </section>
  );
});
