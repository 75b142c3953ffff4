import { useState } from 'react';
import { kerfBend, type Lining } from '@nestplank/core';
import type { Scene } from '../../../state/scene.js';
import { LengthField } from '../../../ui/LengthField.js';
import { NumberField } from '../../../ui/NumberField.js';
import { useSpeech } from '../../../words/words.js';

/** How the lining is sawn on its back to turn round a pillar or a header. */
export function KerfBend({ lining, scene }: { readonly lining: Lining; readonly scene: Scene }) {
  const { t, len, style } = useSpeech();
  const thickness = lining.parts.find((part) => part.id === lining.pieces[0]?.part)?.thickness ?? 0;
  const [radius, setRadius] = useState(60);
  const [angle, setAngle] = useState(90);
  const [skin, setSkin] = useState(1.5);
  const { kerf } = scene.project.settings.cutting;
  const decimals = style.units === 'mm' ? 1 : 0;
  const bend = skin < thickness && kerf > 0 ? kerfBend(thickness, skin, kerf, radius, angle) : null;
  const take = (set: (value: number) => void) => (value: number) => {
    set(value);
    return null;
  };
  return (
    <section className="section stack">
      <h2>{t('kerf.title')}</h2>
      <div className="fields" style={{ gridTemplateColumns: '1fr 1fr 1fr' }}>
        <LengthField label={t('kerf.radius')} value={radius} onTake={take(setRadius)} />
        <NumberField label={t('kerf.angle')} value={angle} least={1} most={180} onTake={setAngle} />
        <LengthField label={t('kerf.skin')} value={skin} onTake={take(setSkin)} />
      </div>
      {bend ? (
        <p className="small figures" role="status">
          {t('kerf.is', {
            cuts: bend.cuts,
            depth: len(bend.depth, decimals),
            spacing: len(bend.spacing, decimals),
            zone: len(bend.zone, decimals),
            kerf: len(kerf, decimals),
          })}
        </p>
      ) : (
        <p className="small needs">{t('kerf.skinTooThick', { thickness: len(thickness, decimals) })}</p>
      )}
      {bend?.crowded && <p className="small needs">{t('kerf.crowded')}</p>}
      <p className="small soft">{t('kerf.test')}</p>
    </section>
  );
}
