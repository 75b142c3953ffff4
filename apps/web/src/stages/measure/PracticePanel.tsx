import Button from '@mui/material/Button';
import { useEffect, useState } from 'react';
import type { Nearness } from '@nestplank/core/practice';
import type { Scene } from '../../state/scene.js';
import { useSpeech } from '../../words/use-speech.js';

/** For a vehicle whose true shape is known: how near the survey came. */
export function PracticePanel({ scene }: { readonly scene: Scene }) {
  const { t, lenUnit, len } = useSpeech();
  const [near, setNear] = useState<(Nearness & { readonly standing: number }) | null>(null);
  const { practice } = scene.project;
  const { shell } = scene.shape;
  useEffect(() => setNear(null), [shell]);
  if (!practice) return null;
  const compare = async (): Promise<void> => {
    if (!shell) return;
    const { hiddenShape, nearnessOf, STANDING_MM } = await import('@nestplank/core/practice');
    setNear({ ...nearnessOf(shell, hiddenShape(practice)), standing: STANDING_MM });
  };
  const rows = near
    ? ([
        [t('measure.near95'), near.walls95],
        [t('measure.nearStanding', { z: len(near.standing) }), near.standingWorst],
        [t('measure.nearWorst'), near.wallsWorst],
        [t('measure.nearRoof'), near.roofWorst],
      ] as const)
    : [];
  return (
    <section className="section stack" aria-label={t('measure.practice')}>
      <h2>{t('measure.practice')}</h2>
      <p className="small soft">{t('measure.practiceHint')}</p>
      {shell && (
        <div>
          <Button onClick={() => void compare()}>{t('measure.near')}</Button>
        </div>
      )}
      {near && (
        <table className="plain">
          <tbody>
            {rows.map(([what, by]) => (
              <tr key={what}>
                <td>{what}</td>
                <td className="number">{t('measure.nearWithin', { by: lenUnit(Math.round(by * 10) / 10) })}</td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </section>
  );
}
