import type { Operation, Survey } from '@nestplank/core/document';
import type { Message } from '@nestplank/core/words';
import { LengthList } from '../../kit/LengthList.js';
import { PickField } from '../../kit/PickField.js';
import { useSpeech } from '../../words/use-speech.js';
import { Check } from '../../kit/Check.js';
import { act } from '../../state/session.js';

/** At which heights and how the walls and the roof are read. */
export function SurveyPlan({ survey }: { readonly survey: Survey }) {
  const { t } = useSpeech();
  type Changes = Extract<Operation, { name: 'planSurvey' }>['payload']['changes'];
  const plan = (changes: Changes): Message | null => act({ name: 'planSurvey', payload: { changes } });
  const { profile } = survey;
  return (
    <section className="section stack" aria-label={t('things.plan')}>
      <h2>{t('things.plan')}</h2>
      <LengthList label={t('measure.heights')} values={survey.heights} onTake={(heights) => plan({ heights })} />
      <LengthList
        label={t('measure.roofOffsets')}
        values={survey.roofOffsets}
        onTake={(roofOffsets) => plan({ roofOffsets })}
      />
      <div className="fields two">
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
        <Check label={t('measure.symmetric')} checked={survey.symmetric} onCheck={(symmetric) => plan({ symmetric })} />
        <Check label={t('things.boxed')} checked={survey.boxed} onCheck={(boxed) => plan({ boxed })} />
      </div>
    </section>
  );
}
