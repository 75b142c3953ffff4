import Button from '@mui/material/Button';
import Autocomplete from '@mui/material/Autocomplete';
import TextField from '@mui/material/TextField';
import { Fragment, useState } from 'react';
import { describeAddress, furtherReadings, type Moved } from '@nestplank/core';
import { act, askMoved, notify } from '../../state/session.js';
import type { Scene } from '../../state/scene.js';
import { valueText } from '../../kit/read-value.js';
import { useSpeech } from '../../words/words.js';

/** What one retaken reading changed. */
function MovedList({ moved }: { readonly moved: Moved }) {
  const speech = useSpeech();
  const { t, len, lenUnit } = speech;
  const by = moved.after - moved.before;
  const lines = [
    ...moved.figures.map((figure) =>
      t(`measure.movedFigure.${figure.what}`, { by: `${figure.by > 0 ? '+' : '−'}${len(Math.abs(figure.by), 1)}` }),
    ),
    ...moved.parts.map((part) =>
      Number.isFinite(part.by)
        ? t('measure.movedPart', { part: part.id, by: lenUnit(Math.round(part.by * 10) / 10) })
        : t('measure.movedNew', { part: part.id }),
    ),
    ...moved.checks.map((check) => t('measure.movedCheck', { check: check.id, from: check.from, to: check.to })),
  ];
  return (
    <div className="moved" role="status">
      <p className="figures">
        {t(by >= 0 ? 'measure.movedFrom' : 'measure.movedLess', {
          before: valueText(moved.before, moved.address, speech),
          after: valueText(moved.after, moved.address, speech),
          by: valueText(Math.abs(by), moved.address, speech),
        })}
      </p>
      {lines.length === 0 ? (
        <p className="small soft">{t('measure.movedNothing')}</p>
      ) : (
        <ul className="small">
          {lines.map((line) => (
            <li key={line}>{line}</li>
          ))}
        </ul>
      )}
    </div>
  );
}

/** A reading the walk does not ask for, to check others by. */
function Further({ scene }: { readonly scene: Scene }) {
  const { t, said } = useSpeech();
  const { survey } = scene.project;
  const choices = furtherReadings(survey).map((address) => ({
    address,
    label: said(describeAddress(survey, address)),
  }));
  const [chosen, setChosen] = useState<(typeof choices)[number] | null>(null);
  const ask = (): void => {
    if (!chosen) return;
    const refused = act({ name: 'askReading', payload: { address: chosen.address } });
    if (refused) notify(said(refused), 'trouble');
    else setChosen(null);
  };
  return (
    <div className="row" style={{ alignItems: 'flex-end' }}>
      <Autocomplete
        className="grow"
        options={choices}
        value={chosen}
        onChange={(_event, value) => setChosen(value)}
        isOptionEqualToValue={(a, b) => a.address === b.address}
        renderInput={(params) => <TextField {...params} label={t('measure.further')} />}
      />
      <Button onClick={ask} disabled={!chosen}>
        {t('measure.furtherAdd')}
      </Button>
    </div>
  );
}

/** All readings with their history, in walking order. */
export function ReadingsPanel({
  scene,
  onPick,
}: {
  readonly scene: Scene;
  readonly onPick: (address: string) => void;
}) {
  const speech = useSpeech();
  const { t, said } = speech;
  const [moved, setMoved] = useState<Moved | null>(null);
  const { survey } = scene.project;
  const order = [...new Set([...scene.shape.walk, ...Object.keys(survey.readings)])];
  const outliers = new Set(scene.shape.outliers.map((outlier) => outlier.address));
  const remove = (address: string, index: number): void => {
    const refused = act({ name: 'removeReading', payload: { address, index } });
    if (refused) notify(said(refused), 'trouble');
    else setMoved(null);
  };
  const show = (address: string): void => {
    if (moved?.address === address) setMoved(null);
    else void askMoved(address).then(setMoved);
  };
  return (
    <div className="stack">
      <Further scene={scene} />
      <table className="plain">
        <tbody>
          {order.map((address) => {
            const readings = survey.readings[address] ?? [];
            const last = readings.at(-1);
            const what = said(describeAddress(survey, address));
            return (
              <Fragment key={address}>
                <tr>
                  <td>
                    {what}
                    {readings.length > 1 && (
                      <span className="soft small figures">
                        {' '}
                        (
                        {readings
                          .slice(0, -1)
                          .map((reading) => valueText(reading.value, address, speech))
                          .join(', ')}
                        )
                      </span>
                    )}
                    {last?.method === 'estimate' && <span className="small soft"> · {t('method.estimate')}</span>}
                  </td>
                  <td className={`number ${outliers.has(address) ? 'needs' : 'data'}`}>
                    {last ? valueText(last.value, address, speech) : '–'}
                  </td>
                  <td style={{ whiteSpace: 'nowrap' }}>
                    {readings.length > 1 && (
                      <Button
                        size="small"
                        variant="text"
                        onClick={() => show(address)}
                        aria-expanded={moved?.address === address}
                        aria-label={`${t('measure.moved')}: ${what}`}
                      >
                        {t('measure.moved')}
                      </Button>
                    )}
                    <Button
                      size="small"
                      variant="text"
                      onClick={() => onPick(address)}
                      aria-label={`${t(last ? 'measure.again' : 'measure.take')}: ${what}`}
                    >
                      {t(last ? 'measure.again' : 'measure.take')}
                    </Button>
                    {last && (
                      <Button
                        size="small"
                        variant="text"
                        onClick={() => remove(address, readings.length - 1)}
                        aria-label={`${t('measure.remove')}: ${what}`}
                      >
                        ✕
                      </Button>
                    )}
                  </td>
                </tr>
                {moved?.address === address && (
                  <tr>
                    <td colSpan={3}>
                      <MovedList moved={moved} />
                    </td>
                  </tr>
                )}
              </Fragment>
            );
          })}
        </tbody>
      </table>
    </div>
  );
}
