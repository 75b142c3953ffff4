import TextField from '@mui/material/TextField';
import { useEffect, useState } from 'react';
import { parseLength } from '@nestplank/core';
import { useSpeech } from '../words/words.js';

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
  readonly onTake: (values: number[]) => string | null;
  readonly mayBeEmpty?: boolean;
  /** Keeps the order and what is there twice, as readings along an edge are. */
  readonly asTyped?: boolean;
}) {
  const { t, entry, style, said } = useSpeech();
  const shown = values.map(entry).join('; ');
  const [typed, setTyped] = useState(shown);
  const [problem, setProblem] = useState<string | null>(null);
  useEffect(() => {
    setTyped(shown);
    setProblem(null);
  }, [shown]);
  const take = (): void => {
    if (typed.trim() === shown) return;
    const texts = typed.split(';').filter((text) => text.trim() !== '');
    if (texts.length === 0 && !mayBeEmpty) {
      setProblem(t('measure.listBad'));
      return;
    }
    const read = texts.map((text) => parseLength(text, style.units));
    const bad = read.find((result) => !result.ok);
    if (bad && !bad.ok) {
      setProblem(said(bad.error));
      return;
    }
    const lengths = read.flatMap((result) => (result.ok ? [result.mm] : []));
    setProblem(onTake(asTyped ? lengths : [...new Set(lengths)].sort((a, b) => a - b)));
  };
  return (
    <TextField
      label={`${label}, ${style.units}`}
      value={typed}
      error={problem !== null}
      helperText={problem}
      onChange={(event) => setTyped(event.target.value)}
      onBlur={take}
      onKeyDown={(event) => event.key === 'Enter' && take()}
    />
  );
}
