import Button from '@mui/material/Button';
import { useRef } from 'react';
import { describeAddress, parseAddress, unitOf, valueAt } from '@nestplank/core/document';
import { walkSteps, type Closure, type Outlier, type Progress } from '@nestplank/core/measure';
import { act, notify } from '../../state/session.js';
import type { Scene } from '../../state/scene.js';
import { look } from '../../state/view.js';
import { useSpeech } from '../../words/use-speech.js';
import { PracticePanel } from './PracticePanel.js';
import { QualityPanel } from './QualityPanel.js';
import { ReadingEntry } from './ReadingEntry.js';
import { useInstrument, type InstrumentReading } from './use-instrument.js';

function ClosureRow({ closure }: { readonly closure: Closure }) {
  const { t, said, len } = useSpeech();
  const tone = closure.verdict === 'good' ? 'done' : 'needs';
  return (
    <tr>
      <td>{said(closure.what)}</td>
      <td className="figures">{said(closure.said)}</td>
      <td className={tone}>
        {closure.verdict === 'good' ? '✓' : '!'} <span className="figures">{len(closure.error)}</span>{' '}
        {t(`closure.${closure.verdict}`)}
      </td>
    </tr>
  );
}

/** The reading that is asked for, and whether what there is closes. */
export function WalkPanel({
  scene,
  progress,
  current,
  onPick,
}: {
  readonly scene: Scene;
  readonly progress: Progress;
  readonly current: string | null;
  readonly onPick: (address: string) => void;
}) {
  const { t, said, len, lenUnit } = useSpeech();
  const { quality } = scene.derived;
  // what was just taken is not asked for again while the worker reckons
  const worth = (quality?.worth ?? []).filter((address) => valueAt(scene.project.survey, address) === null);
  const [helps] = worth;
  const { shape, project } = scene;
  // the link outlives the single reading; whoever asks for one now hears of it
  const listener = useRef<((reading: InstrumentReading) => void) | null>(null);
  const hear = (reading: InstrumentReading): void => listener.current?.(reading);
  const laser = useInstrument('laser', hear);
  const finder = useInstrument('angle-finder', hear);
  const place = current ? parseAddress(current) : null;
  const instrument = place && unitOf(place) === 'degrees' ? finder : laser;
  const walk = walkSteps(project.survey);
  const leg = walk.find((step) => step.address === current)?.leg;
  const mean = (outlier: Outlier): void => {
    if (outlier.meant === null) return;
    const refused = act({
      name: 'takeReading',
      payload: {
        address: outlier.address,
        reading: { value: outlier.meant, method: 'estimate', at: new Date().toISOString() },
      },
    });
    if (refused) notify(said(refused), 'trouble');
  };
  const problems = shape.problems.filter((problem) => problem.stage === 'measure' && problem.place !== 'survey');
  return (
    <div className="stack">
      <div className="row apart">
        <h2>{current && leg ? t(`leg.${leg}`) : current ? t('measure.beyond') : t('measure.done')}</h2>
        <span className="soft small figures">
          {quality
            ? t(worth.length > 0 ? 'measure.worth' : quality.good ? 'measure.known' : 'measure.knownOnly', {
                worst: `± ${lenUnit(quality.worst)}`,
                count: worth.length,
              })
            : t('measure.toKnow', { count: progress.taken })}
          {progress.skipped > 0 ? ` · ${t('measure.skipped', { count: progress.skipped })}` : ''}
        </span>
      </div>
      {current && helps !== undefined && quality && !worth.includes(current) && (
        <div className="row apart">
          <p className="small soft grow">{t('measure.little', { goal: `± ${lenUnit(quality.goal)}` })}</p>
          <Button size="small" onClick={() => onPick(helps)}>
            {t('measure.helps')}
          </Button>
        </div>
      )}
      {current ? (
        <ReadingEntry
          key={current}
          scene={scene}
          address={current}
          instrument={instrument}
          listener={listener}
          onDone={() => look({ address: null })}
        />
      ) : (
        <p className="soft">
          {progress.skipped > 0 ? `${t('measure.skippedLeft')}. ` : ''}
          {t('measure.doneHint')}
        </p>
      )}
      {problems.length > 0 && progress.taken > 0 && (
        <ul className="notes">
          {problems.map((problem) => (
            <li className="find" key={`${problem.place}${problem.said.key}`}>
              <span className="note-mark" data-grade="fails">
                !
              </span>
              <span>{said(problem.said)}</span>
            </li>
          ))}
        </ul>
      )}
      {shape.outliers.length > 0 && (
        <section className="section">
          <h2>{t('measure.outliers')}</h2>
          <ul className="notes">
            {shape.outliers.map((outlier, i) => (
              <li key={outlier.address}>
                <span className="note-mark" data-grade="fails">
                  {i + 1}
                </span>
                <span>
                  {said(describeAddress(project.survey, outlier.address))}:{' '}
                  <span className="figures needs">{len(outlier.value)}</span>.{' '}
                  {t('measure.expected', { value: len(outlier.expected.value), within: len(outlier.expected.within) })}{' '}
                  {outlier.slip && <b>{said(outlier.slip)}</b>}
                </span>
                <span className="row">
                  {outlier.meant !== null && (
                    <Button size="small" variant="text" onClick={() => mean(outlier)}>
                      {t('measure.meant', { value: len(outlier.meant) })}
                    </Button>
                  )}
                  <Button size="small" onClick={() => onPick(outlier.address)}>
                    {t('measure.again')}
                  </Button>
                </span>
              </li>
            ))}
          </ul>
        </section>
      )}
      <QualityPanel scene={scene} />
      <PracticePanel scene={scene} />
      <section className="section">
        <div className="row apart">
          <h2>{t('measure.closes')}</h2>
          <span className="soft small">{t('measure.closures', { count: shape.closures.length })}</span>
        </div>
        {shape.closures.length === 0 ? (
          <p className="soft small">{t('measure.noClosures')}</p>
        ) : (
          <table className="plain below-little">
            <tbody>
              {shape.closures.map((closure) => (
                <ClosureRow key={closure.addresses.join()} closure={closure} />
              ))}
            </tbody>
          </table>
        )}
      </section>
      {shape.assumed.length > 0 && (
        <section className="section">
          <h2>{t('measure.assumed')}</h2>
          {shape.assumed.map((message) => (
            <p key={said(message)} className="small soft">
              {said(message)}
            </p>
          ))}
        </section>
      )}
      {valueAt(project.survey, 'floor/length') === null && <p className="small soft">{t('measure.caution')}</p>}
    </div>
  );
}
