import TextField from '@mui/material/TextField';
import { parseLength, type Message } from '@nestplank/core/words';
import { useSpeech } from '../words/use-speech.js';
import { useTypedField } from './use-typed-field.js';

/** A list of lengths with semicolons between them. */
export function LengthList({
  label,
  values,
  onTake,
  mayBeEmpty = false,
  asTyped = false,
}: {
  readonly label: string;
  readonly values: readonly number[];
  /** Tries to take the list; returns why not, as a message or in words, or null. */
  readonly onTake: (values: number[]) => Message | string | null;
  readonly mayBeEmpty?: boolean;
  /** Keeps the order and what is there twice, as readings along an edge are. */
  readonly asTyped?: boolean;
}) {
  const { t, entry, style, said } = useSpeech();
  const typing = useTypedField<number[]>({
    shown: values.map(entry).join('; '),
    parse: (typed) => {
      const texts = typed.split(';').filter((text) => text.trim() !== '');
      if (texts.length === 0 && !mayBeEmpty) return { ok: false, why: t('measure.listBad') };
      const read = texts.map((text) => parseLength(text, style.units));
      const bad = read.find((result) => !result.ok);
      if (bad && !bad.ok) return { ok: false, why: said(bad.error) };
      const lengths = read.flatMap((result) => (result.ok ? [result.mm] : []));
      return { ok: true, value: asTyped ? lengths : [...new Set(lengths)].sort((a, b) => a - b) };
    },
    take: (lengths) => {
      const refused = onTake(lengths);
      return typeof refused === 'string' ? refused : refused && said(refused);
    },
  });
  return (
    <TextField
      label={`${label}, ${style.units}`}
      {...typing.field}
      error={typing.problem !== null}
      helperText={typing.problem}
    />
  );
}
