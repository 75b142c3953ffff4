import Button from '@mui/material/Button';
import { useRef, useState } from 'react';
import type { Message } from '@nestplank/core/words';
import { useSpeech } from '../words/use-speech.js';
import { download } from './download.js';
import { Problem } from './Problem.js';

/** No more rows than these are named. */
const NAMED = 8;

/** What was read from a file of rows. */
export interface ReadFile {
  readonly items: readonly unknown[];
  readonly added: number;
  readonly rows: number;
  readonly fault: Message | null;
  readonly problems: readonly { readonly row: number; readonly said: Message }[];
}

/** Rows out to a file and in from one: what a row says wrongly is told with its number, and the rest can be taken. */
export function CsvFile<T extends ReadFile>({
  title,
  name,
  outText,
  write,
  read,
  onTake,
}: {
  readonly title: string;
  /** What the file is called, without its ending. */
  readonly name: string;
  /** What is written out, in words. */
  readonly outText: string;
  readonly write: () => Promise<string>;
  readonly read: (text: string) => Promise<T>;
  /** Takes what can be taken; says whether that was done. */
  readonly onTake: (found: T) => Promise<boolean> | boolean;
}) {
  const { t, said } = useSpeech();
  const file = useRef<HTMLInputElement>(null);
  const [found, setFound] = useState<T | null>(null);
  const take = async (): Promise<void> => {
    if (found && (await onTake(found))) setFound(null);
  };
  return (
    <section className="section stack" aria-label={title}>
      <h2>{title}</h2>
      <div className="row wrap">
        <Button onClick={() => void write().then((text) => download(`${name}.csv`, text, 'text/csv'))}>
          {outText}
        </Button>
        <Button onClick={() => file.current?.click()}>{t('book.fileIn')}</Button>
        <input
          ref={file}
          type="file"
          accept=".csv,text/csv"
          hidden
          aria-label={`${title}: ${t('book.fileIn')}`}
          onChange={(event) => {
            const picked = event.target.files?.[0];
            event.target.value = '';
            if (picked) void picked.text().then(read).then(setFound);
          }}
        />
      </div>
      {found?.fault && <Problem>{said(found.fault)}</Problem>}
      {found && !found.fault && (
        <div className="stack" role="status">
          <div className="row">
            <p className="grow">
              {t('book.fileReady', { good: found.items.length, added: found.added, rows: found.rows })}
            </p>
            <Button variant="contained" disabled={found.items.length === 0} onClick={() => void take()}>
              {t('exchange.take')}
            </Button>
          </div>
          {found.problems.length > 0 && (
            <ul className="small needs-list">
              {found.problems.slice(0, NAMED).map((row) => (
                <li key={row.row}>{t('exchange.csvBad', { row: row.row, why: said(row.said) })}</li>
              ))}
              {found.problems.length > NAMED && <li>{t('exchange.more', { count: found.problems.length - NAMED })}</li>}
            </ul>
          )}
        </div>
      )}
    </section>
  );
}
