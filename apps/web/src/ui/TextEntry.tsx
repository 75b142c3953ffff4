import TextField from '@mui/material/TextField';
import { useEffect, useState } from 'react';
import type { Message } from '@nestplank/core';
import { useSpeech } from '../words/words.js';

/** A text that is taken on leaving the field or on Enter; one that may not be empty is refused where it stands. */
export function TextEntry({
  label,
  value,
  onTake,
  mayBeEmpty = false,
  hideLabel = false,
  problem: given = null,
}: {
  readonly label: string;
  readonly value: string;
  readonly onTake: (text: string) => Message | null;
  readonly mayBeEmpty?: boolean;
  readonly hideLabel?: boolean;
  readonly problem?: string | null;
}) {
  const { t, said } = useSpeech();
  const [typed, setTyped] = useState(value);
  const [problem, setProblem] = useState<string | null>(null);
  useEffect(() => {
    setTyped(value);
    setProblem(null);
  }, [value]);
  const take = (): void => {
    const text = typed.trim();
    if (text === value) return;
    if (text === '' && !mayBeEmpty) {
      setProblem(t('error.rename'));
      return;
    }
    const refused = onTake(text);
    setProblem(refused && said(refused));
  };
  const shown = problem ?? given;
  return (
    <TextField
      label={hideLabel ? undefined : label}
      value={typed}
      error={shown !== null}
      helperText={shown}
      onChange={(event) => setTyped(event.target.value)}
      onBlur={take}
      onKeyDown={(event) => {
        if (event.key === 'Enter') take();
      }}
      slotProps={{ htmlInput: { 'aria-label': hideLabel ? label : undefined, autoComplete: 'off' } }}
    />
  );
}
