import TextField from '@mui/material/TextField';
import { useEffect, useState } from 'react';
import { useSpeech } from '../words/words.js';

interface MoneyFieldProps {
  readonly label: string;
  readonly minor: number;
  readonly showLabel?: boolean;
  readonly onTake: (minor: number) => void;
}

/** A price: typed with two decimals at most, kept in minor units. */
export function MoneyField({ label, minor, showLabel, onTake }: MoneyFieldProps) {
  const { t } = useSpeech();
  const [typed, setTyped] = useState<string | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  useEffect(() => {
    setTyped(null);
    setProblem(null);
  }, [minor]);
  const take = (): void => {
    if (typed === null) return;
    const clean = typed.replace(/[\s\u202f\u00a0]/g, '').replace(',', '.');
    if (!/^\d{1,9}(\.\d{1,2})?$/.test(clean)) {
      setProblem(t('buy.priceBad'));
      return;
    }
    const value = Math.round(Number(clean) * 100);
    setProblem(null);
    setTyped(null);
    if (value !== minor) onTake(value);
  };
  return (
    <TextField
      label={showLabel ? label : undefined}
      value={typed ?? (minor / 100).toFixed(2)}
      error={problem !== null}
      helperText={problem}
      onChange={(event) => setTyped(event.target.value)}
      onBlur={take}
      onKeyDown={(event) => {
        if (event.key === 'Enter') take();
        if (event.key === 'Escape') {
          setTyped(null);
          setProblem(null);
        }
      }}
      slotProps={{
        htmlInput: {
          inputMode: 'decimal',
          autoComplete: 'off',
          'aria-label': showLabel ? undefined : label,
          style: { textAlign: showLabel ? 'left' : 'right' },
        },
      }}
    />
  );
}
