import Button from '@mui/material/Button';
import { describeAddress } from '@nestplank/core';
import { act, notify } from '../../state/session.js';
import type { Scene } from '../../state/scene.js';
import { useSpeech } from '../../words/words.js';

/** All readings with their history, in walking order. */
export function ReadingsPanel({
  scene,
  onPick,
}: {
  readonly scene: Scene;
  readonly onPick: (address: string) => void;
}) {
  const { t, said, len } = useSpeech();
  const { survey } = scene.project;
  const order = [...new Set([...scene.shape.walk, ...Object.keys(survey.readings)])];
  const outliers = new Set(scene.shape.outliers.map((outlier) => outlier.address));
  const remove = (address: string, index: number): void => {
    const refused = act({ name: 'removeReading', payload: { address, index } });
    if (refused) notify(said(refused), 'trouble');
  };
  return (
    <table className="plain">
      <tbody>
        {order.map((address) => {
          const readings = survey.readings[address] ?? [];
          const last = readings.at(-1);
          return (
            <tr key={address}>
              <td>
                {said(describeAddress(survey, address))}
                {readings.length > 1 && (
                  <span className="soft small figures">
                    {' '}
                    (
                    {readings
                      .slice(0, -1)
                      .map((reading) => len(reading.value))
                      .join(', ')}
                    )
                  </span>
                )}
              </td>
              <td className={`number ${outliers.has(address) ? 'needs' : 'data'}`}>{last ? len(last.value) : '–'}</td>
              <td style={{ whiteSpace: 'nowrap' }}>
                <Button
                  size="small"
                  variant="text"
                  onClick={() => onPick(address)}
                  aria-label={`${t(last ? 'measure.again' : 'measure.take')}: ${said(describeAddress(survey, address))}`}
                >
                  {t(last ? 'measure.again' : 'measure.take')}
                </Button>
                {last && (
                  <Button
                    size="small"
                    variant="text"
                    onClick={() => remove(address, readings.length - 1)}
                    aria-label={`${t('measure.remove')}: ${said(describeAddress(survey, address))}`}
                  >
                    ✕
                  </Button>
                )}
              </td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}
