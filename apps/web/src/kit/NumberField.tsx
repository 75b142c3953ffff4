import TextField from '@mui/material/TextField';
import type { Message } from '@nestplank/core/words';
import { useSpeech } from '../words/use-speech.js';
import { readNumber } from './read-number.js';
import { useTypedField } from './use-typed-field.js';

interface NumberFieldProps {
  readonly label: string;
  /** Null while nothing is known. */
  readonly value: number | null;
  readonly least: number;
  readonly most: number;
  readonly whole?: boolean;
  /** Tries to take the number; returns why not, or null. */
  readonly onTake: (value: number) => Message | null;
}

/** A plain number between two limits. */
export function NumberField({ label, value, least, most, whole = false, onTake }: NumberFieldProps) {
  const { t, said } = useSpeech();
  const typing = useTypedField<number>({
    shown: value === null ? '' : String(value),
    parse: (typed) => {
      const number = readNumber(typed, { least, most, whole });
      return number === null ? { ok: false, why: t('work.numberBad', { least, most }) } : { ok: true, value: number };
    },
    take: (number) => {
      const refused = onTake(number);
      return refused && said(refused);
    },
  });
  return (
    <TextField
      label={label}
      {...typing.field}
      error={typing.problem !== null}
      helperText={typing.problem}
      slotProps={{ htmlInput: { inputMode: 'decimal', autoComplete: 'off' } }}
    />
  );
}
