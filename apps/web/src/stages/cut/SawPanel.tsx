import Button from '@mui/material/Button';
import { FAMILIES } from '@nestplank/core/furniture';
import { heavyParts } from '@nestplank/core/plan';
import { ribPlaces } from '@nestplank/core/shell';
import type { Message } from '@nestplank/core/words';
import type { Scene } from '../../state/scene.js';
import { act } from '../../state/session.js';
import { LengthField } from '../../kit/LengthField.js';
import { NumberField } from '../../kit/NumberField.js';
import { PickField } from '../../kit/PickField.js';
import { useSpeech } from '../../words/use-speech.js';

type CuttingSettings = Scene['project']['settings']['cutting'];

/** Makes a part of several boards, where its unit can be made so and is not yet. */
function Split({ part, scene }: { readonly part: string; readonly scene: Scene }) {
  const { t } = useSpeech();
  const made = scene.derived.parts.find(({ id }) => id === part);
  const unit = scene.project.layout.units.find(({ id }) => id === made?.unit);
  const splits = FAMILIES.find(({ id }) => id === unit?.family)?.splits;
  if (!unit || splits?.role !== made?.role || !splits) return null;
  if (Object.entries(splits.into).every(([name, to]) => unit.options[name] === to)) return null;
  return (
    <Button
      size="small"
      variant="text"
      onClick={() => act({ name: 'changeUnit', payload: { id: unit.id, changes: splits.into } })}
    >
      {t('cut.split')}
    </Button>
  );
}

/** The saw, how it is cut, what one person carries and what the car takes. */
export function SawPanel({ scene }: { readonly scene: Scene }) {
  const { t, len, lenUnit } = useSpeech();
  const { cutting } = scene.project.settings;
  const change = (changes: Partial<CuttingSettings>): Message | null =>
    act({ name: 'changeCutting', payload: { changes } });
  const ribs = ribPlaces(scene.shape.ribs);
  const heavy = heavyParts(scene.derived.parts, scene.book, cutting.carry, ribs);
  return (
    <>
      <section className="stack">
        <h2>{t('cut.settings')}</h2>
        <div className="fields three">
          <LengthField label={t('cut.kerf')} value={cutting.kerf} onTake={(kerf) => change({ kerf })} />
          <LengthField label={t('cut.trim')} value={cutting.trim} onTake={(trim) => change({ trim })} />
          <LengthField
            label={t('cut.smallestOffcut')}
            value={cutting.smallestOffcut}
            onTake={(smallestOffcut) => change({ smallestOffcut })}
          />
        </div>
        <PickField
          label={t('cut.method')}
          value={cutting.method}
          choices={(['guillotine', 'free'] as const).map((value) => ({ value, text: t(`cut.method.${value}`) }))}
          onPick={(method) => change({ method })}
        />
        <div className="fields two">
          <NumberField
            label={t('cut.carryMass')}
            value={cutting.carry.mass}
            least={1}
            most={200}
            onTake={(mass) => change({ carry: { ...cutting.carry, mass } })}
          />
          <LengthField
            label={t('cut.carryLength')}
            value={cutting.carry.length}
            onTake={(length) => change({ carry: { ...cutting.carry, length } })}
          />
          <LengthField
            label={t('cut.carLength')}
            value={cutting.car.length}
            onTake={(length) => change({ car: { ...cutting.car, length } })}
          />
          <LengthField
            label={t('cut.carWidth')}
            value={cutting.car.width}
            onTake={(width) => change({ car: { ...cutting.car, width } })}
          />
        </div>
      </section>
      {heavy.length > 0 && (
        <section className="section stack">
          <h2>{t('cut.heavy')}</h2>
          {heavy.map((part) => (
            <p key={part.part} className="small">
              {t(`cut.heavy.${part.why}`, {
                part: part.part,
                mass: (part.mass ?? 0).toFixed(1),
                length: lenUnit(part.length),
                at: part.splitAt.map((at) => len(at)).join(', '),
              })}{' '}
              <Split part={part.part} scene={scene} />
            </p>
          ))}
        </section>
      )}
    </>
  );
}
