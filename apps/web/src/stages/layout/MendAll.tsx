import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import { useEffect, useRef, useState } from 'react';
import type { MendedAll } from '@nestplank/core/derive';
import { act, askMends, notify, stopAsking } from '../../state/session.js';
import { useSpeech } from '../../words/use-speech.js';

/** Looks for mends that go together, says what they would change, and makes them as one step. */
export function MendAll({ fails }: { readonly fails: number }) {
  const { t, said } = useSpeech();
  const [found, setFound] = useState<MendedAll | null>(null);
  const [running, setRunning] = useState(false);
  const alive = useRef(true);
  useEffect(() => {
    alive.current = true;
    return () => {
      alive.current = false;
      stopAsking();
    };
  }, []);
  // what was found for another state of the plan is no answer any more
  useEffect(() => setFound(null), [fails]);
  const start = async (): Promise<void> => {
    setRunning(true);
    setFound(null);
    await askMends((one) => {
      if (alive.current) setFound(one);
    });
    if (alive.current) setRunning(false);
  };
  const use = (): void => {
    const refused = found && act(...found.operations);
    if (refused) notify(said(refused), 'trouble');
    setFound(null);
  };
  return (
    <div className="stack gap-6">
      {running ? (
        <div className="row gap-6">
          <LinearProgress aria-label={t('mend.all')} className="grow" />
          <Button size="small" onClick={stopAsking}>
            {t('cut.cancel')}
          </Button>
        </div>
      ) : (
        <div>
          <Button size="small" onClick={() => void start()} title={t('mend.all.hint')}>
            {t('mend.all')}
          </Button>
        </div>
      )}
      {found && !running && (
        <div className="stack gap-6" role="status">
          {found.done.length === 0 ? (
            <p className="small soft">{t('mend.all.none', { tried: found.tried })}</p>
          ) : (
            <>
              <ul className="plain-list small">
                {found.done.map(({ check, said: done }, i) => (
                  <li key={`${check.id}:${i}`}>{t('mend.because', { done: said(done), because: said(check.said) })}</li>
                ))}
              </ul>
              <p className={found.left.length === 0 ? 'small done' : 'small needs'}>
                {found.left.length === 0
                  ? t('mend.all.found', { tried: found.tried })
                  : t('mend.all.left', { count: found.left.length, tried: found.tried })}
              </p>
              <div>
                <Button size="small" onClick={use}>
                  {t('mend.all.use')}
                </Button>
              </div>
            </>
          )}
        </div>
      )}
    </div>
  );
}
