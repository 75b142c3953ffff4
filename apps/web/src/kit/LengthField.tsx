import TextField from '@mui/material/TextField';
import { parseLength, type Message } from '@nestplank/core/words';
import { useSpeech } from '../words/use-speech.js';
import { useTypedField } from './use-typed-field.js';

interface LengthFieldProps {
  readonly label: string;
  /** Null while it is not known. */
  readonly value: number | null;
  /** Tries to take the length; returns why not, or null. */
  readonly onTake: (mm: number) => Message | null;
  readonly disabled?: boolean;
  readonly hideLabel?: boolean;
}

/** A length as it is typed: in the reader's units, sums allowed. */
export function LengthField({ label, value, onTake, disabled, hideLabel }: LengthFieldProps) {
  const speech = useSpeech();
  const typing = useTypedField<number>({
    shown: value === null ? '' : speech.entry(value),
    parse: (typed) => {
      const read = parseLength(typed, speech.style.units);
      return read.ok ? { ok: true, value: read.mm } : { ok: false, why: speech.said(read.error) };
    },
    take: (mm) => {
      const refused = onTake(mm);
      return refused && speech.said(refused);
    },
  });
  return (
    <TextField
      label={hideLabel ? undefined : `${label}, ${speech.style.units}`}
      {...typing.field}
      error={typing.problem !== null}
      helperText={typing.problem}
      disabled={disabled}
      slotProps={{ htmlInput: { inputMode: 'text', 'aria-label': hideLabel ? label : undefined, autoComplete: 'off' } }}
    />
  );
}
