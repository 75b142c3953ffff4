import Button from '@mui/material/Button';
import { describeAddress, type Operation } from '@nestplank/core/document';
import { act, notify } from '../../state/session.js';
import type { Scene } from '../../state/scene.js';
import { look } from '../../state/view.js';
import { LengthField } from '../../kit/LengthField.js';
import { useSpeech } from '../../words/use-speech.js';

/** How good the survey is where it matters, the reading that would help most, and whether one may stop. */
export function QualityPanel({ scene }: { readonly scene: Scene }) {
  const speech = useSpeech();
  const { t, said, len, lenUnit } = speech;
  const { quality } = scene.derived;
  const { survey } = scene.project;
  const ask = (): void => {
    if (!quality?.next) return;
    const { station, addresses } = quality.next;
    const operations: Operation[] = [
      ...(station
        ? [
            {
              name: 'putStation' as const,
              payload: { station: { id: station.id, name: station.name, planned: false } },
            },
          ]
        : []),
      ...addresses.map((address) => ({ name: 'askReading' as const, payload: { address } })),
    ];
    const refused = act(...operations);
    if (refused) notify(said(refused), 'trouble');
    else look({ address: addresses[0] ?? null });
  };
  const spot = quality?.at;
  const what =
    quality?.next &&
    (quality.next.station
      ? `${quality.next.station.name}, ${lenUnit(quality.next.station.x)}`
      : said(describeAddress(survey, quality.next.addresses[0] ?? '')));
  return (
    <section className="section stack" aria-label={t('measure.quality')}>
      <h2>{t('measure.quality')}</h2>
      {!quality || !spot ? (
        <p className="soft small">{t('measure.qualityNone')}</p>
      ) : quality.good ? (
        <p>
          <span className="done">✓</span>{' '}
          {t('measure.qualityGood', { worst: `± ${lenUnit(quality.worst)}`, goal: `± ${len(quality.goal)}` })}
        </p>
      ) : (
        <p>
          {t('measure.qualityOpen', {
            worst: `± ${lenUnit(quality.worst)}`,
            goal: `± ${len(quality.goal)}`,
            within: Math.round(quality.within * 100),
            where: t('measure.qualityAt', {
              side: t(`surface.${spot.surface}`),
              x: len(spot.x),
              z: len(spot.at),
            }),
          })}
        </p>
      )}
      {/* one that would change nothing at the precision that is shown is not offered */}
      {quality?.next && len(quality.next.before) !== len(quality.next.after) && (
        <div className="row">
          <p className="grow">
            {t('measure.next', {
              what: what ?? '',
              before: `± ${len(quality.next.before)}`,
              after: `± ${len(quality.next.after)}`,
            })}
          </p>
          <Button onClick={ask}>{t('measure.nextTake')}</Button>
        </div>
      )}
      <div className="row wrap at-end">
        <div className="narrow-field">
          <LengthField
            label={t('measure.goal')}
            value={survey.goal}
            onTake={(goal) => act({ name: 'planSurvey', payload: { changes: { goal } } })}
          />
        </div>
        {quality && !quality.good && <p className="small soft grow">{t('measure.early')}</p>}
      </div>
    </section>
  );
}
