import type { PriceItem } from '@nestplank/core/document';
import type { Message } from '@nestplank/core/words';
import { Check } from '../../kit/Check.js';
import { Fold } from '../../kit/Fold.js';
import { NumberField } from '../../kit/NumberField.js';
import { TextEntry } from '../../kit/TextEntry.js';
import { useSpeech } from '../../words/use-speech.js';

type Put = (changes: Partial<PriceItem> | ((now: PriceItem) => Partial<PriceItem>)) => Message | null;
type Bending = NonNullable<PriceItem['bending']>;

/** Of plywood about 6 mm thick, N/mm2, to begin with: typed over by what the data sheet says. */
const PLYWOOD: Bending = { along: { modulus: 9000, strength: 40 }, across: { modulus: 5000, strength: 25 } };
/** Hours after which a coat may be followed by the next, and after which it must be sanded first, to begin with. */
const RECOAT = { from: 4, to: 48 };

/** What a data sheet says of a material beside its size and price: how it bends, when it is coated again, its waste, where that is from. */
export function MaterialData({ item, put }: { readonly item: PriceItem; readonly put: Put }) {
  const { t } = useSpeech();
  const { bending, recoat } = item;
  const bend = (way: 'along' | 'across', what: 'modulus' | 'strength') => (
    <NumberField
      label={t(`book.bending.${way}.${what}`)}
      value={bending?.[way][what] ?? 0}
      least={0.1}
      most={100_000}
      onTake={(value) =>
        put((now) => ({ bending: now.bending && { ...now.bending, [way]: { ...now.bending[way], [what]: value } } }))
      }
    />
  );
  const again = (what: 'from' | 'to') => (
    <NumberField
      label={t(`book.recoat.${what}`)}
      value={recoat?.[what] ?? 0}
      least={0}
      most={what === 'from' ? 500 : 2000}
      onTake={(value) => put((now) => ({ recoat: now.recoat && { ...now.recoat, [what]: value } }))}
    />
  );
  return (
    <Fold title={t('book.sheet')}>
      <div className="fields two">
        <NumberField
          label={t('book.waste')}
          value={item.waste === undefined ? null : Math.round(item.waste * 100)}
          least={0}
          most={90}
          onTake={(percent) => put({ waste: percent / 100 })}
        />
        <TextEntry label={t('book.source')} value={item.source ?? ''} mayBeEmpty onTake={(source) => put({ source })} />
      </div>
      {(item.group === 'sheet' || item.group === 'lining') && (
        <Check
          label={t('book.bending')}
          checked={bending !== null}
          onCheck={(known) => put({ bending: known ? PLYWOOD : null })}
        />
      )}
      {bending && (
        <div className="fields two">
          {bend('along', 'modulus')}
          {bend('along', 'strength')}
          {bend('across', 'modulus')}
          {bend('across', 'strength')}
        </div>
      )}
      {item.group === 'adhesive' && (
        <Check
          label={t('book.recoat')}
          checked={recoat !== null}
          onCheck={(known) => put({ recoat: known ? RECOAT : null })}
        />
      )}
      {recoat && (
        <div className="fields two">
          {again('from')}
          {again('to')}
        </div>
      )}
    </Fold>
  );
}
