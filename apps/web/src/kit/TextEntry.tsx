import TextField from '@mui/material/TextField';
import type { Message } from '@nestplank/core/words';
import { useSpeech } from '../words/use-speech.js';
import { useTypedField } from './use-typed-field.js';

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
  const typing = useTypedField<string>({
    shown: value,
    parse: (typed) =>
      typed.trim() === '' && !mayBeEmpty ? { ok: false, why: t('error.rename') } : { ok: true, value: typed.trim() },
    take: (text) => {
      const refused = onTake(text);
      return refused && said(refused);
    },
  });
  const shown = typing.problem ?? given;
  return (
    <TextField
      label={hideLabel ? undefined : label}
      {...typing.field}
      error={shown !== null}
      helperText={shown}
      slotProps={{ htmlInput: { 'aria-label': hideLabel ? label : undefined, autoComplete: 'off' } }}
    />
  );
}
