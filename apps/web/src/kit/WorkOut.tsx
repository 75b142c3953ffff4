import Button from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import { useEffect, useRef, useState, type ReactNode } from 'react';
import { stopAsking } from '../state/session.js';
import { useSpeech } from '../words/use-speech.js';

interface WorkOutProps<T> {
  readonly title: string;
  readonly hint: string;
  readonly run: string;
  /** Asks in the background; each result is told as soon as it is there. */
  readonly ask: (each: (found: T) => void) => Promise<void>;
  /** What is known so far, and a way to put it away. */
  readonly children: (found: readonly T[], clear: () => void) => ReactNode;
  /** Choices that stand before it. */
  readonly before?: ReactNode;
}

/** Something that takes a while: asked for, shown as it comes, stopped where it is. */
export function WorkOut<T>({ title, hint, run, ask, children, before }: WorkOutProps<T>) {
  const { t } = useSpeech();
  const [found, setFound] = useState<readonly T[]>([]);
  const [running, setRunning] = useState(false);
  const alive = useRef(true);
  useEffect(() => {
    alive.current = true;
    return () => {
      alive.current = false;
      stopAsking();
    };
  }, []);
  const start = async (): Promise<void> => {
    setRunning(true);
    setFound([]);
    await ask((one) => {
      if (alive.current) setFound((known) => [...known, one]);
    });
    if (alive.current) setRunning(false);
  };
  return (
    <section className="section stack">
      <h2>{title}</h2>
      {before}
      <p className="small soft">{hint}</p>
      {running ? (
        <div className="stack gap-6">
          <LinearProgress aria-label={title} />
          <div>
            <Button onClick={stopAsking}>{t('cut.cancel')}</Button>
          </div>
        </div>
      ) : (
        <div>
          <Button onClick={() => void start()}>{run}</Button>
        </div>
      )}
      {found.length > 0 && children(found, () => setFound([]))}
    </section>
  );
}
