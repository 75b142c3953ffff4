import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import { useState } from 'react';
import { download } from '../kit/download.js';
import { LineList } from '../kit/LineList.js';
import type { Aside } from '../state/outbox.js';
import { doAside, dropAside, tryNow, useSession } from '../state/session.js';
import { useSpeech } from '../words/use-speech.js';

const clock = new Intl.DateTimeFormat('en-GB', { day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' });

/** One step that was set aside: what it was to change can be put right and done again. */
function AsideFields({ entry }: { readonly entry: Aside }) {
  const { t, said } = useSpeech();
  const [text, setText] = useState(JSON.stringify(entry.step.payload ?? {}, null, 2));
  const [problem, setProblem] = useState<string | null>(null);
  const again = async (): Promise<void> => {
    let payload: Record<string, unknown>;
    try {
      payload = JSON.parse(text) as Record<string, unknown>;
    } catch (reason) {
      setProblem(t('unsent.notJson', { why: reason instanceof Error ? reason.message : '' }));
      return;
    }
    const refused = await doAside(entry, payload);
    if (refused) setProblem(said(refused));
  };
  return (
    <>
      <p className="needs small">{entry.why}</p>
      <TextField
        label={t('unsent.payload')}
        multiline
        maxRows={12}
        value={text}
        error={problem !== null}
        helperText={problem}
        onChange={(event) => setText(event.target.value)}
      />
      <div>
        <Button size="small" onClick={() => void again()}>
          {t('unsent.again')}
        </Button>
      </div>
    </>
  );
}

/** What the server has, what waits for it, and what it would not take. */
export function UnsentPanel() {
  const { t } = useSpeech();
  const saving = useSession((s) => s.saving);
  const aside = useSession((s) => s.aside);
  const id = useSession((s) => s.id);
  const time = clock.format(saving.at);
  return (
    <div className="stack">
      <p>
        {saving.unsent === 0
          ? t(aside.length > 0 ? 'unsent.none' : 'unsent.all')
          : t('unsent.waits', { count: saving.unsent })}
      </p>
      {saving.state === 'waiting' && (
        <div className="row wrap">
          <span className="needs">{t(`save.waiting.${saving.why ?? 'unreachable'}`, { count: saving.unsent })}</span>
          <Button size="small" onClick={tryNow}>
            {t('unsent.now')}
          </Button>
        </div>
      )}
      <p className="small soft">{t('save.last', { revision: saving.revision, time })}</p>
      {aside.length > 0 && (
        <>
          <LineList
            title={t('unsent.aside')}
            items={aside.map((entry) => ({ id: entry.step.id, name: t(`step.${entry.step.name}`), entry }))}
            line={({ entry }) => clock.format(new Date(entry.at))}
            onRemove={({ entry }) => void dropAside(entry)}
            removeText={t('unsent.drop')}
          >
            {({ entry }) => <AsideFields entry={entry} />}
          </LineList>
          <p className="small soft">{t('unsent.asideHint')}</p>
          <div>
            <Button
              size="small"
              onClick={() => download(`${id ?? 'steps'}-set-aside.json`, JSON.stringify(aside, null, 2))}
            >
              {t('unsent.export')}
            </Button>
          </div>
        </>
      )}
    </div>
  );
}
