import Button, { type ButtonProps } from '@mui/material/Button';
import LinearProgress from '@mui/material/LinearProgress';
import { useEffect, useRef, useState, type ReactNode } from 'react';
import { fetched } from '../state/api.js';
import { tell } from '../words/words.js';
import { download } from './download.js';
import { Problem } from './Problem.js';
import { problemText } from './problem-text.js';

/** A file that takes this long to make shows that it is being made, ms. */
const SHOWN_AFTER_MS = 400;

interface Props {
  readonly address: string;
  readonly children: ReactNode;
  readonly variant?: ButtonProps['variant'];
  /** Its name where the words on it say too little. */
  readonly label?: string;
}

/** Asks the server for a file and gives it to the person; while it is being made it can be stopped. */
export function FileButton({ address, children, variant, label }: Props) {
  const [since, setSince] = useState<number | null>(null);
  const [seconds, setSeconds] = useState<number | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const asked = useRef<AbortController | null>(null);
  useEffect(() => () => asked.current?.abort(), []);
  useEffect(() => {
    if (since === null) return;
    const show = (): void => setSeconds(Math.floor((Date.now() - since) / 1000));
    const first = setTimeout(show, SHOWN_AFTER_MS);
    const each = setInterval(show, 1000);
    return () => {
      clearTimeout(first);
      clearInterval(each);
      setSeconds(null);
    };
  }, [since]);
  const ask = async (): Promise<void> => {
    const control = new AbortController();
    asked.current = control;
    setProblem(null);
    setSince(Date.now());
    try {
      const { name, content } = await fetched(address, control.signal);
      download(name, content);
    } catch (reason) {
      if (!control.signal.aborted) setProblem(problemText(reason));
    } finally {
      if (asked.current === control) setSince(null);
    }
  };
  return (
    <div className="stack">
      <Button
        className="to-start"
        variant={variant}
        aria-label={label}
        disabled={since !== null}
        onClick={() => void ask()}
      >
        {children}
      </Button>
      {since !== null && seconds !== null && (
        <div className="stack">
          <LinearProgress aria-label={tell('files.making')} />
          <div className="row apart">
            <span className="small soft figures" role="status">
              {tell('files.making')} {seconds} s
            </span>
            <Button size="small" variant="text" onClick={() => asked.current?.abort()}>
              {tell('files.stop')}
            </Button>
          </div>
        </div>
      )}
      {problem !== null && <Problem>{problem}</Problem>}
    </div>
  );
}
