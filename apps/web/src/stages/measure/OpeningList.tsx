import { type Opening, type Survey } from '@nestplank/core';
import { act, notify } from '../../state/session.js';
import { LengthField } from '../../kit/LengthField.js';
import { useSpeech } from '../../words/words.js';
import { nextId } from './next-id.js';
import { ThingList, Tick, usePick, type Perform } from './ThingList.js';

/** Doors, windows and hatches: what they are, how they open, and what of them is read. */
export function OpeningList({ survey, perform }: { readonly survey: Survey; readonly perform: Perform }) {
  const { t, said } = useSpeech();
  const pick = usePick();
  const put = (opening: Opening): string | null => perform({ name: 'putOpening', payload: { opening } });
  const { id, number } = nextId('o', survey.openings);
  return (
    <ThingList
      title={t('measure.openings')}
      items={survey.openings}
      addText={t('measure.addOpening')}
      add={() =>
        put({
          id,
          name: `Opening ${number}`,
          kind: 'window',
          surface: 'left',
          cornerRadius: 60,
          swing: 'fixed',
          hand: 'none',
          slanted: false,
          framed: false,
          ring: null,
        })
      }
      rename={(item, name) => put({ ...item, name })}
      remove={(item) => perform({ name: 'removeOpening', payload: { id: item.id } })}
      fields={(item) => (
        <>
          {pick(
            `${t('opening.window')}, ${t('opening.door')}: ${item.name}`,
            item.kind,
            ['window', 'door', 'hatch', 'fan'],
            'opening.',
            (kind) => put({ ...item, kind }),
          )}
          {pick(
            `${t('field.side')}: ${item.name}`,
            item.surface,
            ['left', 'right', 'rear', 'roof'],
            'surface.',
            (surface) => put({ ...item, surface }),
          )}
          {pick(
            t('things.swing', { name: item.name }),
            item.swing,
            ['fixed', 'slides', 'hinged', 'pair'],
            'swing.',
            (swing) => put({ ...item, swing }),
          )}
          {item.swing !== 'fixed' &&
            pick(
              t('things.hand', { name: item.name }),
              item.hand,
              ['none', 'front', 'rear', 'left', 'right', 'up'],
              'things.hand.',
              (hand) => put({ ...item, hand }),
            )}
          <LengthField
            label={t('things.radius')}
            value={item.cornerRadius}
            onTake={(cornerRadius) => {
              put({ ...item, cornerRadius });
              return null;
            }}
          />
          <Tick label={t('things.slanted')} checked={item.slanted} onTick={(slanted) => put({ ...item, slanted })} />
          <Tick label={t('things.framed')} checked={item.framed} onTick={(framed) => put({ ...item, framed })} />
          {item.framed && (
            <Tick
              label={t('things.ringNone')}
              checked={item.ring !== null}
              onTick={(made) => put({ ...item, ring: made ? 50 : null })}
            />
          )}
          {item.framed && item.ring !== null && (
            <LengthField
              label={t('things.ring')}
              value={item.ring}
              onTake={(ring) => {
                const refused = act({ name: 'putOpening', payload: { opening: { ...item, ring } } });
                if (refused) notify(said(refused), 'trouble');
                return refused;
              }}
            />
          )}
        </>
      )}
    />
  );
}
