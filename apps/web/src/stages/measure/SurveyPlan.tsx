import type { Operation, Survey } from '@nestplank/core';
import { LengthList } from '../../kit/LengthList.js';
import { PickField } from '../../kit/PickField.js';
import { useSpeech } from '../../words/words.js';
import { Tick, type Perform } from './ThingList.js';

/** At which heights and how the walls and the roof are read. */
export function SurveyPlan({ survey, perform }: { readonly survey: Survey; readonly perform: Perform }) {
  const { t } = useSpeech();
  type Changes = Extract<Operation, { name: 'planSurvey' }>['payload']['changes'];
  const plan = (changes: Changes): string | null => perform({ name: 'planSurvey', payload: { changes } });
  const { profile } = survey;
  return (
    <>
      <LengthList label={t('measure.heights')} values={survey.heights} onTake={(heights) => plan({ heights })} />
      <LengthList
        label={t('measure.roofOffsets')}
        values={survey.roofOffsets}
        onTake={(roofOffsets) => plan({ roofOffsets })}
      />
      <div className="fields" style={{ gridTemplateColumns: 'repeat(2, minmax(0, 1fr))' }}>
        <PickField
          label={t('things.profile')}
          value={profile.station ?? 'none'}
          choices={[
            { value: 'none', text: t('things.profileNone') },
            ...survey.stations.map((station) => ({ value: station.id, text: station.name })),
          ]}
          onPick={(station) => plan({ profile: { ...profile, station: station === 'none' ? null : station } })}
        />
        <PickField
          label={t('things.reference')}
          value={survey.reference}
          choices={(['centre', 'wall'] as const).map((value) => ({ value, text: t(`things.reference.${value}`) }))}
          onPick={(reference) => plan({ reference })}
        />
      </div>
      {profile.station !== null && (
        <>
          <LengthList
            label={t('things.profileHeights')}
            values={profile.heights}
            mayBeEmpty
            onTake={(heights) => plan({ profile: { ...profile, heights } })}
          />
          <LengthList
            label={t('things.profileRoof')}
            values={profile.roofOffsets}
            mayBeEmpty
            onTake={(roofOffsets) => plan({ profile: { ...profile, roofOffsets } })}
          />
        </>
      )}
      <div>
        <Tick label={t('measure.symmetric')} checked={survey.symmetric} onTick={(symmetric) => plan({ symmetric })} />
        <Tick label={t('things.boxed')} checked={survey.boxed} onTick={(boxed) => plan({ boxed })} />
      </div>
    </>
  );
}
