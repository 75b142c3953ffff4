import type { PriceBook } from '@nestplank/core/document';
import { CsvFile } from '../../kit/CsvFile.js';
import { takePrices } from '../../state/session.js';
import { useSpeech } from '../../words/use-speech.js';

/** The price book out to a file and in from one. */
export function BookFile({ book, name }: { readonly book: PriceBook; readonly name: string }) {
  const { t } = useSpeech();
  return (
    <CsvFile
      title={t('book.file')}
      name={`${name}-price-book`}
      outText={t('book.fileOut')}
      write={async () => (await import('@nestplank/core/exchange')).bookCsv(book)}
      read={async (text) =>
        (await import('@nestplank/core/exchange')).readBookCsv(text, book, new Date().toISOString().slice(0, 10))
      }
      onTake={({ items }) => takePrices(items)}
    />
  );
}
