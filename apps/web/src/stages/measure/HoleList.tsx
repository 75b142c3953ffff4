import type { Survey } from '@nestplank/core/document';
import { holeClearances } from '@nestplank/core/measure';
import { Check } from '../../kit/Check.js';
import { TextEntry } from '../../kit/TextEntry.js';
import { useSpeech } from '../../words/use-speech.js';
import { PLACES } from './FoundPanel.js';
import { nextId } from './next-id.js';
import { ThingList, usePick } from './ThingList.js';

const PURPOSES = ['waste-water', 'gas', 'heater', 'drain', 'cable', 'air', 'other'] as const;

/** Holes that services need, held against what lies under the floor. */
export function HoleList({ survey }: { readonly survey: Survey }) {
  const { t, len } = useSpeech();
  const pick = usePick();
  const clearances = holeClearances(survey);
  return (
    <>
      <ThingList
        title={t('things.holes')}
        items={survey.penetrations}
        line={({ id, purpose, surface, decided }) => {
          const near = clearances.find((clearance) => clearance.hole === id);
          return (
            <>
              {t(`things.purpose.${purpose}`)} · {t(`surface.${surface}`)} ·{' '}
              {t(decided ? 'things.decided' : 'things.undecided')}
              {near && (
                <span className={near.clear < 0 ? 'needs' : ''}>
                  {' · '}
                  {near.clear < 0
                    ? t('things.hits', { by: len(-near.clear), against: near.against })
                    : t('things.clear', { clear: len(near.clear), against: near.against })}
                </span>
              )}
            </>
          );
        }}
        addText={t('things.addHole')}
        add={() => {
          const { id, number } = nextId('p', survey.penetrations);
          return {
            id,
            operation: {
              name: 'putPenetration',
              payload: {
                penetration: {
                  id,
                  name: t('things.newHole', { number }),
                  surface: 'floor',
                  purpose: 'waste-water',
                  decided: false,
                  sealing: '',
                },
              },
            },
          };
        }}
        put={(penetration) => ({ name: 'putPenetration', payload: { penetration } })}
        remove={({ id }) => ({ name: 'removePenetration', payload: { id } })}
        fields={(item, change) => (
          <>
            {pick(t('things.surface'), item.name, item.surface, PLACES, 'surface.', (surface) => change({ surface }))}
            {pick(t('things.purpose'), item.name, item.purpose, PURPOSES, 'things.purpose.', (purpose) =>
              change({ purpose }),
            )}
            <TextEntry
              mayBeEmpty
              label={t('things.sealing')}
              value={item.sealing}
              onTake={(sealing) => change({ sealing })}
            />
            <Check label={t('things.decided')} checked={item.decided} onCheck={(decided) => change({ decided })} />
          </>
        )}
      />
      <p className="small soft">{t('things.gasCaution')}</p>
    </>
  );
}
