import TextField from '@mui/material/TextField';
import { useEffect, useState } from 'react';
import { useSpeech } from '../words/words.js';

interface NumberFieldProps {
  readonly label: string;
  readonly value: number;
  readonly least: number;
  readonly most: number;
  readonly whole?: boolean;
  readonly onTake: (value: number) => void;
}

/** A plain number between two limits; a bad entry stays, with the reason. */
export function NumberField({ label, value, least, most, whole, onTake }: NumberFieldProps) {
  const { t } = useSpeech();
  const [typed, setTyped] = useState<string | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  useEffect(() => {
    setTyped(null);
    setProblem(null);
  }, [value]);
  const take = (): void => {
    if (typed === null) return;
    const number = Number(typed.trim().replace(',', '.'));
    if (
      typed.trim() === '' ||
      !Number.isFinite(number) ||
      number < least ||
      number > most ||
      (whole && !Number.isInteger(number))
    ) {
      setProblem(t('work.numberBad', { least, most }));
      return;
    }
    setProblem(null);
    setTyped(null);
    if (number !== value) onTake(number);
  };
  return (
    <TextField
      label={label}
      value={typed ?? String(value)}
      error={problem !== null}
      helperText={problem}
      onChange={(event) => setTyped(event.target.value)}
      onBlur={take}
      onKeyDown={(event) => {
        if (event.key === 'Enter') take();
      }}
      slotProps={{ htmlInput: { inputMode: 'decimal', autoComplete: 'off' } }}
    />
  );
}
