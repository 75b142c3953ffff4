import { memo } from 'react';
import { baysOf, type Stored } from '@nestplank/core/document';
import { CsvFile } from '../../kit/CsvFile.js';
import { Fold } from '../../kit/Fold.js';
import { LengthField } from '../../kit/LengthField.js';
import { NamedList } from '../../kit/NamedList.js';
import { NumberField } from '../../kit/NumberField.js';
import { PickField } from '../../kit/PickField.js';
import { useChange } from '../../kit/use-change.js';
import { act } from '../../state/session.js';
import type { Scene } from '../../state/scene.js';
import { useSpeech } from '../../words/use-speech.js';
import { nextId } from '../measure/next-id.js';

const LITRE = 1e6;

/** What is to be kept in the vehicle, and in which bay. */
export const Goods = memo(function Goods({ scene }: { readonly scene: Scene }) {
  const { t, len } = useSpeech();
  const change = useChange();
  const stored = scene.project.stored ?? [];
  const litres = stored.reduce((sum, one) => sum + (one.count * one.length * one.width * one.height) / LITRE, 0);
  const places = scene.project.layout.units.flatMap((unit) =>
    baysOf(unit.division).map((bay) => ({ value: `${unit.id} ${bay.name}`, text: `${unit.name}, ${bay.name}` })),
  );
  const put = (one: Stored, changes: Partial<Stored>) =>
    act({ name: 'putStored', payload: { stored: { ...one, ...changes } } });
  const keep = (one: Stored, value: string) => {
    const [unit, bay] = value.split(' ');
    return put(one, { kept: unit && bay ? { unit, bay } : null });
  };
  return (
    <Fold title={t('goods.title')} line={t('goods.count', { count: stored.length, litres: Math.round(litres) })}>
      <NamedList
        title={t('goods.title')}
        hint={t('goods.none')}
        items={stored}
        nameLabel={t('goods.name')}
        freeId={nextId('g', stored).id}
        onAdd={(id, name) =>
          act({
            name: 'putStored',
            payload: {
              stored: { id, name, length: 600, width: 400, height: 300, mass: 10, count: 1, turns: true, kept: null },
            },
          })
        }
        onRemove={(one) => void change({ name: 'removeStored', payload: { id: one.id } })}
        line={(one) =>
          t('goods.line', {
            count: one.count,
            length: len(one.length),
            width: len(one.width),
            height: len(one.height),
          })
        }
      >
        {(one) => (
          <div className="fields">
            {(['length', 'width', 'height'] as const).map((name) => (
              <LengthField
                key={name}
                label={t(`goods.${name}`)}
                value={one[name]}
                onTake={(value) => put(one, { [name]: value })}
              />
            ))}
            <NumberField
              label={t('goods.mass')}
              value={one.mass}
              least={0}
              most={500}
              onTake={(mass) => put(one, { mass })}
            />
            <NumberField
              label={t('goods.number')}
              value={one.count}
              least={1}
              most={500}
              whole
              onTake={(count) => put(one, { count })}
            />
            <PickField
              label={t('goods.kept')}
              value={one.kept ? `${one.kept.unit} ${one.kept.bay}` : ''}
              choices={[{ value: '', text: t('goods.nowhere') }, ...places]}
              onPick={(value) => keep(one, value)}
            />
          </div>
        )}
      </NamedList>
      <CsvFile
        title={t('goods.file')}
        name={`${scene.project.id}-kept`}
        outText={t('goods.fileOut')}
        write={async () => (await import('@nestplank/core/exchange')).storedCsv(stored)}
        read={async (text) => (await import('@nestplank/core/exchange')).readStoredCsv(text, stored)}
        onTake={({ items }) =>
          change(...items.map((one) => ({ name: 'putStored' as const, payload: { stored: one } })))
        }
      />
    </Fold>
  );
});
