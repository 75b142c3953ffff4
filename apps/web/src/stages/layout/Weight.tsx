import { memo } from 'react';
import { UPHOLSTERY_KG_M3 } from '@nestplank/core/furniture';
import { materialOf } from '@nestplank/core/materials';
import { roadLoadRule } from '@nestplank/core/rules';
import type { Limits } from '@nestplank/core/document';
import { Fold } from '../../kit/Fold.js';
import { LengthField } from '../../kit/LengthField.js';
import { NumberField } from '../../kit/NumberField.js';
import { act } from '../../state/session.js';
import { unitName, type Scene } from '../../state/scene.js';
import { LEVER_MM } from '@nestplank/core/layout';
import { useSpeech } from '../../words/use-speech.js';

const WIDE = 150;

/** A level: the bubble stands toward the heavier side, by as much as it is heavier. */
function Bubble({ left, right, label }: { readonly left: number; readonly right: number; readonly label: string }) {
  const share = left + right > 0 ? (right - left) / (left + right) : 0;
  const x = WIDE / 2 + Math.max(-1, Math.min(1, -share)) * (WIDE / 2 - 16);
  return (
    <svg width={WIDE} height={26} role="img" aria-label={label}>
      <rect x={1} y={5} width={WIDE - 2} height={16} rx={8} fill="none" stroke="var(--ink)" />
      <path d={`M${WIDE / 2 - 14} 5 V21 M${WIDE / 2 + 14} 5 V21`} stroke="var(--ink)" />
      <ellipse cx={x} cy={13} rx={12} ry={6} fill="var(--paper)" stroke="var(--data)" strokeWidth={1.5} />
    </svg>
  );
}

/** A seesaw over the axles: it dips toward the one that carries more. */
function Seesaw({ front, rear, label }: { readonly front: number; readonly rear: number; readonly label: string }) {
  const tilt = Math.max(-1, Math.min(1, (rear - front) / Math.max(1, front + rear))) * 9;
  return (
    <svg width={WIDE} height={34} role="img" aria-label={label}>
      <path d={`M${WIDE / 2 - 8} 32 L${WIDE / 2} 16 L${WIDE / 2 + 8} 32 Z`} fill="none" stroke="var(--ink)" />
      <line x1={8} x2={WIDE - 8} y1={16 - tilt} y2={16 + tilt} stroke="var(--ink)" strokeWidth={2} />
      <circle cx={14} cy={10 - tilt} r={5} fill="none" stroke="var(--data)" strokeWidth={1.5} />
      <circle cx={WIDE - 14} cy={10 + tilt} r={5} fill="none" stroke="var(--data)" strokeWidth={1.5} />
    </svg>
  );
}

/** What the fixings of every unit have to hold on the road. */
function OnTheRoad({ scene }: { readonly scene: Scene }) {
  const { t, len } = useSpeech();
  const { units } = scene.derived.weight;
  if (units.length === 0) return null;
  const trailer = scene.project.vehicle.kind === 'trailer';
  return (
    <section className="section stack gap-4" aria-label={t('weight.held')}>
      <h2>{t('weight.held')}</h2>
      <ul className="plain-list small figures">
        {units.map(({ unit, kg, lever }) => {
          const { newtons, screws, nuts } = roadLoadRule.run({ mass: kg });
          return (
            <li key={unit}>
              {t('weight.holds', { name: unitName(scene, unit), kg: kg.toFixed(1), newtons: Math.round(newtons) })} ·{' '}
              <span className="soft">{t('weight.fixings', { screws, nuts })}</span>
              {lever !== null && (
                <span className="soft">
                  {' '}
                  · {t(trailer ? 'weight.leverNose' : 'weight.lever', { by: len(LEVER_MM), kg: lever.toFixed(1) })}
                </span>
              )}
            </li>
          );
        })}
      </ul>
      <p className="small soft">{t('weight.heldSay')}</p>
    </section>
  );
}

const KILOS = ['most', 'bare', 'bareFront', 'mostFront', 'mostRear'] as const;

/** What it weighs, and where: the papers' masses are entered here. */
export const Weight = memo(function Weight({ scene }: { readonly scene: Scene }) {
  const { t } = useSpeech();
  const { weight, mass } = scene.derived;
  const unknown = mass.unknown.map((id) => materialOf(scene.book, id)?.name ?? id);
  const { limits } = scene.project;
  const trailer = scene.project.vehicle.kind === 'trailer';
  const set = (changes: Partial<Limits>) => act({ name: 'changeLimits', payload: { changes } });
  const kg = (value: number): number => Math.round(value);
  const nose = limits?.nose ?? null;
  return (
    <Fold title={t('weight.title')} line={t('weight.line', { added: kg(weight.added) })}>
      <div className="row wrap gap-6">
        <Bubble
          left={weight.left}
          right={weight.right}
          label={t('weight.bubble', { left: kg(weight.left), right: kg(weight.right) })}
        />
        <span className="figures">{t('weight.sides', { left: kg(weight.left), right: kg(weight.right) })}</span>
      </div>
      {weight.front !== null && weight.rear !== null && (
        <div className="row wrap gap-6">
          <Seesaw
            front={weight.front}
            rear={weight.rear}
            label={t('weight.seesaw', { front: kg(weight.front), rear: kg(weight.rear) })}
          />
          <span className="figures">
            {t('weight.axles', { front: kg(weight.front), rear: kg(weight.rear) })}
            {trailer && weight.nose !== null && ` · ${t('weight.nose', { share: (weight.nose * 100).toFixed(1) })}`}
          </span>
        </div>
      )}
      <p className="small figures">{t('weight.soft', { kg: weight.soft.toFixed(1), density: UPHOLSTERY_KG_M3 })}</p>
      {unknown.length > 0 && <p className="small">{t('weight.unknown', { materials: unknown.join(', ') })}</p>}
      {weight.empty.total !== null && (
        <p className="small figures">{t('weight.empty', { total: kg(weight.empty.total) })}</p>
      )}
      <div className="fields">
        {KILOS.filter((name) => !trailer || name !== 'mostFront').map((name) => (
          <NumberField
            key={name}
            label={t(`weight.${name}`)}
            value={limits?.[name] ?? null}
            least={0}
            most={60_000}
            onTake={(value) => set({ [name]: value === 0 && name !== 'bareFront' ? null : value })}
          />
        ))}
        {(['frontAxle', 'rearAxle'] as const).map((name) => (
          <LengthField
            key={name}
            label={t(`weight.${name}`)}
            value={limits?.[name] ?? null}
            onTake={(value) => set({ [name]: value })}
          />
        ))}
        {trailer &&
          (['least', 'most'] as const).map((end) => (
            <NumberField
              key={end}
              label={t(end === 'least' ? 'weight.noseLeast' : 'weight.noseMost')}
              value={nose === null ? null : nose[end] * 100}
              least={0}
              most={50}
              onTake={(value) =>
                set({ nose: { least: nose?.least ?? 0, most: nose?.most ?? 0.5, [end]: value / 100 } })
              }
            />
          ))}
      </div>
      <p className="small soft">{t('weight.caution')}</p>
      <OnTheRoad scene={scene} />
    </Fold>
  );
});
