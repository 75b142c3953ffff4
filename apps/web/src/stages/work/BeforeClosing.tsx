import { openBefore } from '@nestplank/core/measure';
import type { Task } from '@nestplank/core/work';
import { PhotoButton } from '../../kit/PhotoButton.js';
import { useChange } from '../../kit/use-change.js';
import type { Scene } from '../../state/scene.js';
import { useSpeech } from '../../words/use-speech.js';
import { CoverPoint } from '../measure/CoverPoint.js';

const PLACES = ['floor', 'left', 'right', 'rear', 'ceiling'] as const;

/** What is still open where a task covers something for good: closed, photographed, or overruled for a reason that stays. */
export function BeforeClosing({ task, scene }: { readonly task: Task; readonly scene: Scene }) {
  const { t, said } = useSpeech();
  const change = useChange();
  const surface = PLACES.find((place) => place === task.surface);
  if (surface === undefined || task.open.length === 0) return null;
  const open = new Set(task.open.map((point) => JSON.stringify(point)));
  const points = openBefore(scene.project, surface).filter((point) => open.has(JSON.stringify(point.said)));
  const photo = points.find(({ id }) => id === `photo-${surface}`);
  const named = t(`surface.${surface}`);
  return (
    <section className="bench-closing" aria-label={t('found.before', { surface: named })}>
      <h3>{t('found.before', { surface: named })}</h3>
      <ul className="notes">
        {points.map((point) => (
          <CoverPoint key={point.id} point={point} what={said(point.said)} />
        ))}
      </ul>
      {photo && (
        <PhotoButton
          text={t('found.surfacePhoto')}
          label={t('found.surfacePhotoOf', { surface: named })}
          onPhoto={(id) => change({ name: 'photoSurface', payload: { surface, photo: id } })}
        />
      )}
    </section>
  );
}
