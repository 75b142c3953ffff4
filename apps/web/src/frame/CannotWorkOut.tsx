import Button from '@mui/material/Button';
import { Problem } from '../kit/Problem.js';
import { api } from '../state/api.js';
import { undo, useSession } from '../state/session.js';
import { useSpeech } from '../words/use-speech.js';

/** Nothing can be worked out from the project as it is: what can be done all the same. */
export function CannotWorkOut({ why }: { readonly why: string }) {
  const { t } = useSpeech();
  const id = useSession((s) => s.id);
  const last = useSession((s) => s.history.undo.at(-1));
  return (
    <main className="empty stack">
      <Problem>{t('error.workOut', { why })}</Problem>
      <p>{t('error.workOutHint')}</p>
      <div className="row wrap">
        {last && <Button onClick={undo}>{t('bar.undoWhat', { what: t(`step.${last}`) })}</Button>}
        {id && (
          <Button href={api.fileAddress(id, 'json')} download>
            {t('error.takeOutProject')}
          </Button>
        )}
      </div>
    </main>
  );
}
