import Button from '@mui/material/Button';
import { MOVING_HARDWARE, RUN_KINDS, type PriceBook, type PriceItem } from '@nestplank/core/document';
import { usualHardware } from '@nestplank/core/materials';
import type { Message } from '@nestplank/core/words';
import { LengthField } from '../../kit/LengthField.js';
import { NumberField } from '../../kit/NumberField.js';
import { PickField } from '../../kit/PickField.js';
import { takePrices } from '../../state/session.js';
import { useSpeech } from '../../words/use-speech.js';

/** Told by how wide they are outside. */
const PIPES = RUN_KINDS.filter((kind) => kind !== 'cable');

type Change = Partial<PriceItem> | ((now: PriceItem) => Partial<PriceItem>);
const HARDWARE = [...MOVING_HARDWARE, ...RUN_KINDS] as const;

/** What moving parts hang and run on: its kind, its length and what it bears where it has them. */
export function HardwareFields({
  item,
  put,
}: {
  readonly item: PriceItem;
  readonly put: (change: Change) => Message | null;
}) {
  const { t } = useSpeech();
  const { hardware } = item;
  if (item.group !== 'fixing') return null;
  const rated = hardware?.kind === 'slides' || hardware?.kind === 'strut';
  return (
    <div className="fields two">
      <PickField
        label={t('book.hardware')}
        value={hardware?.kind ?? 'none'}
        choices={(['none', ...HARDWARE] as const).map((value) => ({ value, text: t(`book.hardware.${value}`) }))}
        onPick={(kind) =>
          put({
            hardware:
              kind === 'none' ? undefined : { kind, length: hardware?.length ?? null, bears: hardware?.bears ?? null },
          })
        }
      />
      {hardware?.kind === 'slides' && (
        <LengthField
          label={t('book.slideLength')}
          value={hardware.length}
          onTake={(length) => put((now) => (now.hardware ? { hardware: { ...now.hardware, length } } : {}))}
        />
      )}
      {hardware?.kind === 'cable' && (
        <NumberField
          label={t('book.copper')}
          value={hardware.copper ?? null}
          least={0.1}
          most={200}
          onTake={(copper) => put((now) => (now.hardware ? { hardware: { ...now.hardware, copper } } : {}))}
        />
      )}
      {hardware && PIPES.some((kind) => kind === hardware.kind) && (
        <LengthField
          label={t('book.across')}
          value={hardware.across ?? null}
          onTake={(across) => put((now) => (now.hardware ? { hardware: { ...now.hardware, across } } : {}))}
        />
      )}
      {hardware && rated && (
        <NumberField
          label={t(`book.bears.${hardware.kind === 'slides' ? 'slides' : 'strut'}`)}
          value={hardware.bears}
          least={1}
          most={10_000}
          onTake={(bears) => put((now) => (now.hardware ? { hardware: { ...now.hardware, bears } } : {}))}
        />
      )}
    </div>
  );
}

/** What the book has nothing of that doors and drawers hang and run on, to be taken in with usual prices. */
export function UsualHardware({ book }: { readonly book: PriceBook }) {
  const { t } = useSpeech();
  const usual = usualHardware(book);
  if (usual.length === 0) return null;
  return (
    <section className="section stack">
      <p className="quiet">{t('book.noHardware', { n: usual.length })}</p>
      <div>
        <Button size="small" onClick={() => void takePrices(usual)}>
          {t('book.takeHardware', { n: usual.length })}
        </Button>
      </div>
    </section>
  );
}
