import Button from '@mui/material/Button';
import { useRef, useState } from 'react';
import type { PriceBook } from '@nestplank/core/document';
import type { ReadBook } from '@nestplank/core/exchange';
import { download } from '../../kit/download.js';
import { Problem } from '../../kit/Problem.js';
import { takePrices } from '../../state/session.js';
import { useSpeech } from '../../words/words.js';

/** No more rows than these are named. */
const NAMED = 8;

/** The price book out to a file and in from one: what a row says wrongly is told with its number, and the rest can be taken. */
export function BookFile({ book, name }: { readonly book: PriceBook; readonly name: string }) {
  const { t, said } = useSpeech();
  const file = useRef<HTMLInputElement>(null);
  const [found, setFound] = useState<ReadBook | null>(null);
  const out = async (): Promise<void> => {
    const { bookCsv } = await import('@nestplank/core/exchange');
    download(`${name}-price-book.csv`, bookCsv(book), 'text/csv');
  };
  const read = async (picked: File | undefined): Promise<void> => {
    if (!picked) return;
    const { readBookCsv } = await import('@nestplank/core/exchange');
    setFound(readBookCsv(await picked.text(), book, new Date().toISOString().slice(0, 10)));
  };
  const take = (): void => {
    if (found)
      void takePrices(found.items).then((done) => {
        if (done) setFound(null);
      });
  };
  return (
    <section className="section stack" aria-label={t('book.file')}>
      <h2>{t('book.file')}</h2>
      <div className="row wrap">
        <Button onClick={() => void out()}>{t('book.fileOut')}</Button>
        <Button onClick={() => file.current?.click()}>{t('book.fileIn')}</Button>
        <input
          ref={file}
          type="file"
          accept=".csv,text/csv"
          hidden
          aria-label={t('book.fileIn')}
          onChange={(event) => {
            void read(event.target.files?.[0]);
            event.target.value = '';
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
            <Button variant="contained" disabled={found.items.length === 0} onClick={take}>
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
