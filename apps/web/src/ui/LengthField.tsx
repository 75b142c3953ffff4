import TextField from '@mui/material/TextField';
import { useEffect, useState } from 'react';
import { parseLength, type Message } from '@nestplank/core';
import { useSpeech } from '../words/words.js';

interface LengthFieldProps {
  readonly label: string;
  readonly value: number;
  /** Tries to take the length; returns why not, or null. */
  readonly onTake: (mm: number) => Message | null;
  readonly disabled?: boolean;
  readonly hideLabel?: boolean;
}

/**
 * A length as it is typed: in the reader's units, sums allowed. It is taken on Enter or on leaving the field, and only
 * when it was changed, so that being shown in other units never alters a value. A bad entry stays, with the reason.
 */
export function LengthField({ label, value, onTake, disabled, hideLabel }: LengthFieldProps) {
  const speech = useSpeech();
  const shown = speech.entry(value);
  const [typed, setTyped] = useState<string | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  useEffect(() => {
    setTyped(null);
    setProblem(null);
  }, [shown]);
  const take = (): void => {
    if (typed === null || typed.trim() === shown) {
      setTyped(null);
      setProblem(null);
      return;
    }
    const read = parseLength(typed, speech.style.units);
    const refused = read.ok ? onTake(read.mm) : read.error;
    setProblem(refused && speech.said(refused));
    if (!refused) setTyped(null);
  };
  return (
    <TextField
      label={hideLabel ? undefined : `${label}, ${speech.style.units}`}
      value={typed ?? shown}
      error={problem !== null}
      helperText={problem}
      disabled={disabled}
      onChange={(event) => setTyped(event.target.value)}
      onBlur={take}
      onKeyDown={(event) => {
        if (event.key === 'Enter') {
          event.preventDefault();
          take();
        }
        if (event.key === 'Escape') {
          setTyped(null);
          setProblem(null);
        }
      }}
      slotProps={{ htmlInput: { inputMode: 'text', 'aria-label': hideLabel ? label : undefined, autoComplete: 'off' } }}
    />
  );
}
