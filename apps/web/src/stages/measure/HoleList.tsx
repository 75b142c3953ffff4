import { holeClearances, type Penetration, type Survey } from '@nestplank/core';
import { TextEntry } from '../../kit/TextEntry.js';
import { useSpeech } from '../../words/words.js';
import { PLACES } from './FoundPanel.js';
import { nextId } from './next-id.js';
import { ThingList, Tick, usePick, type Perform } from './ThingList.js';

/** Holes that services need, held against what lies under the floor. */
export function HoleList({ survey, perform }: { readonly survey: Survey; readonly perform: Perform }) {
  const { t, len } = useSpeech();
  const pick = usePick();
  const put = (penetration: Penetration): string | null =>
    perform({ name: 'putPenetration', payload: { penetration } });
  const { id, number } = nextId('p', survey.penetrations);
  const clearances = holeClearances(survey);
  return (
    <>
      <ThingList
        title={t('things.holes')}
        items={survey.penetrations}
        addText={t('things.addHole')}
        add={() =>
          put({ id, name: `Hole ${number}`, surface: 'floor', purpose: 'waste-water', decided: false, sealing: '' })
        }
        rename={(item, name) => put({ ...item, name })}
        remove={(item) => perform({ name: 'removePenetration', payload: { id: item.id } })}
        fields={(item) => {
          const near = clearances.find((clearance) => clearance.hole === item.id);
          return (
            <>
              {pick(`${t('things.surface')}: ${item.name}`, item.surface, PLACES, 'surface.', (surface) =>
                put({ ...item, surface }),
              )}
              {pick(
                t('things.purpose', { name: item.name }),
                item.purpose,
                ['waste-water', 'gas', 'heater', 'drain', 'cable', 'air', 'other'],
                'things.purpose.',
                (purpose) => put({ ...item, purpose }),
              )}
              <TextEntry
                hideLabel
                mayBeEmpty
                label={`${t('things.sealing')}: ${item.name}`}
                value={item.sealing}
                onTake={(sealing) => {
                  put({ ...item, sealing });
                  return null;
                }}
              />
              <Tick
                label={t('things.decided')}
                checked={item.decided}
                onTick={(decided) => put({ ...item, decided })}
              />
              {near && (
                <span className={`small ${near.clear < 0 ? 'needs' : 'soft'}`}>
                  {near.clear < 0
                    ? t('things.hits', { by: len(-near.clear), against: near.against })
                    : t('things.clear', { clear: len(near.clear), against: near.against })}
                </span>
              )}
            </>
          );
        }}
      />
      <p className="small soft">{t('things.gasCaution')}</p>
    </>
  );
}
