import { useState } from 'react';
import { curtainAcross } from '@nestplank/core/lining';
import type { Scene } from '../../../state/scene.js';
import { LengthField } from '../../../kit/LengthField.js';
import { useSpeech } from '../../../words/words.js';

/** A curtain across the body: how wide its rail is, and how its hem steps over what is on the floor. */
export function CurtainAcross({ scene }: { readonly scene: Scene }) {
  const { t, len } = useSpeech();
  const { inner, arches, lined } = scene.shape;
  const [x, setX] = useState(600);
  const [height, setHeight] = useState(1600);
  if (!inner) return null;
  const ceiling = lined.linings.find((lining) => lining.surface === 'ceiling') ?? null;
  const curtain = curtainAcross(inner, arches, scene.project.layout.units, ceiling, x, height);
  const take = (set: (value: number) => void) => (value: number) => {
    set(value);
    return null;
  };
  return (
    <section className="section stack">
      <h2>{t('curtain.title')}</h2>
      <div className="fields two">
        <LengthField label={t('fitting.x')} value={x} onTake={take(setX)} />
        <LengthField label={t('curtain.height')} value={height} onTake={take(setHeight)} />
      </div>
      {curtain.high ? (
        <p className="small needs" role="status">
          {t('curtain.high')}
        </p>
      ) : (
        <>
          <p className="small figures" role="status">
            {t('curtain.is', { width: len(curtain.width), cloth: len(curtain.cloth), brackets: curtain.brackets })}{' '}
            {curtain.support && t('curtain.support', { name: curtain.support.name, off: len(curtain.support.off) })}
          </p>
          <table className="plain figures small">
            <thead>
              <tr>
                <th>{t('curtain.from')}</th>
                <th>{t('curtain.to')}</th>
                <th>{t('curtain.drop')}</th>
              </tr>
            </thead>
            <tbody>
              {curtain.drops.map((drop) => (
                <tr key={drop.from}>
                  <td>{len(drop.from)}</td>
                  <td>{len(drop.to)}</td>
                  <td>{len(drop.drop)}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </>
      )}
    </section>
  );
}
