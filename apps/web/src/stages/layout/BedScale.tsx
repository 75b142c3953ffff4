import Slider from '@mui/material/Slider';
import { memo, useMemo, useState } from 'react';
import { sceneOf } from '@nestplank/core/derive';
import { FAMILIES } from '@nestplank/core/furniture';
import { bedBands, type HeightBand } from '@nestplank/core/layout';
import { act, notify, previewActions } from '../../state/session.js';
import type { Scene } from '../../state/scene.js';
import { useView } from '../../state/view.js';
import { useSpeech } from '../../words/use-speech.js';

const STEP_MM = 5;
/** So much beyond the bands is still on the scale, mm. */
const BEYOND_MM = 100;

/** The heights that are worth showing: from the lowest that does to the highest, and where it stands. */
function spanOf(bands: readonly HeightBand[], now: number): readonly [number, number] {
  const does = bands.filter(({ grade }) => grade !== 'fails');
  const ends = [now, ...does.flatMap(({ from, to }) => [from, to])];
  return [Math.max(0, Math.min(...ends) - BEYOND_MM), Math.max(...ends) + BEYOND_MM];
}

/** A height that is drawn with the hand, and the scale that it is drawn on. */
interface Held {
  readonly of: string;
  readonly to: number;
  readonly span: readonly [number, number];
}

/** The chosen bed's own scale: the heights at which its sleepers sit up and find the floor, and its height to be drawn into them. */
export const BedScale = memo(function BedScale({ scene }: { readonly scene: Scene }) {
  const { t, len, lenUnit, said } = useSpeech();
  const chosen = useView((view) => view.unit);
  const { project, derived, book } = scene;
  const unit = project.layout.units.find(({ id }) => id === chosen);
  const lies = scene.shape.lying.find((place) => place.unit.id === chosen);
  const bands = useMemo(() => {
    const world = unit && lies && sceneOf(project, derived, book, FAMILIES);
    return world ? bedBands(unit, world) : [];
  }, [unit, lies, project, derived, book]);
  // the hand's own figure, until what is shown beside a drag has come to it
  const [held, setHeld] = useState<Held | null>(null);
  if (held && (held.of !== unit?.id || held.to === unit.body.to)) setHeld(null);
  if (!unit || bands.length === 0) return null;
  const { body } = unit;
  const height = held?.to ?? body.to;
  // the scale stands still under the hand
  const [least, most] = held?.span ?? spanOf(bands, body.to);
  const share = (height: number): number =>
    (100 * (Math.min(Math.max(height, least), most) - least)) / Math.max(1, most - least);
  const change = (to: number) => ({
    name: 'changeUnit' as const,
    payload: { id: unit.id, changes: { height: to } },
  });
  const good = bands.filter(({ grade }) => grade === 'good');
  const tight = bands.filter(({ grade }) => grade === 'tight');
  const spans = (list: readonly HeightBand[]): string =>
    list.map(({ from, to }) => `${len(from)}–${len(to)}`).join(', ');
  return (
    <section className="section stack gap-4" aria-label={t('bed.scale', { name: unit.name })}>
      <div className="row apart">
        <h2>{t('bed.scale', { name: unit.name })}</h2>
        <span className="figures data">{lenUnit(height)}</span>
      </div>
      <div className="bed-scale">
        <div className="bed-bands" aria-hidden="true">
          {bands
            .filter(({ from, to }) => to >= least && from <= most)
            .map(({ from, to, grade }) => (
              <span
                key={from}
                data-grade={grade}
                style={{ left: `${share(from)}%`, width: `${share(to + STEP_MM) - share(from)}%` }}
              />
            ))}
        </div>
        <Slider
          size="small"
          min={least}
          max={most}
          step={STEP_MM}
          value={height}
          aria-label={t('bed.height', { name: unit.name })}
          getAriaValueText={lenUnit}
          onChange={(_, to) => {
            setHeld({ of: unit.id, to, span: [least, most] });
            previewActions([change(to)]);
          }}
          onChangeCommitted={(_, to) => {
            previewActions(null);
            const refused = act(change(to));
            if (!refused) return;
            setHeld(null);
            notify(said(refused), 'trouble');
          }}
        />
      </div>
      <p className="small">
        {good.length > 0
          ? t('bed.good', { spans: spans(good) })
          : tight.length > 0
            ? t('bed.tight', { spans: spans(tight) })
            : t('bed.none')}
      </p>
    </section>
  );
});
