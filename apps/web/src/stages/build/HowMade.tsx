import type { Settings, Unit } from '@nestplank/core/document';
import type { Message } from '@nestplank/core/words';
import { FieldGrid } from '../../kit/FieldGrid.js';
import { familyOf, fieldLabel } from '../../kit/unit-words.js';
import { Bays } from './Bays.js';
import { act, notify } from '../../state/session.js';
import type { Scene } from '../../state/scene.js';
import { LengthField } from '../../kit/LengthField.js';
import { PickField } from '../../kit/PickField.js';
import { useSpeech } from '../../words/use-speech.js';

/** Asked for bay by bay. */
const IN_BAYS: ReadonlySet<string> = new Set(['shelves', 'doors']);

function SubfloorChoices({ scene }: { readonly scene: Scene }) {
  const { t, len } = useSpeech();
  const { settings } = scene.project;
  const { subfloor } = scene.shape;
  const change = (changes: Partial<Omit<Settings, 'cutting'>>): Message | null =>
    act({ name: 'changeSettings', payload: { changes } });
  return (
    <>
      <p className="small">
        {t('build.subfloorHow')} {subfloor && t('build.lies', { from: len(subfloor.from), to: len(subfloor.to) })}{' '}
        {subfloor &&
          subfloor.seams
            .map((seam) => t('build.seam', { direction: t(`build.${seam.direction}`), at: len(seam.at) }))
            .join(' ')}
      </p>
      <div className="fields">
        <LengthField
          label={t('build.clearance')}
          value={settings.floorClearance}
          onTake={(floorClearance) => change({ floorClearance })}
        />
        <LengthField
          label={t('build.corner')}
          value={settings.floorCornerRadius}
          onTake={(floorCornerRadius) => change({ floorCornerRadius })}
        />
        <LengthField
          label={t('floor.keepBack')}
          value={scene.project.floor.keepBack}
          onTake={(keepBack) => act({ name: 'changeFloor', payload: { changes: { keepBack } } })}
        />
        <PickField
          label={t('build.meets')}
          value={settings.floorMeets}
          choices={(['lining', 'shell'] as const).map((value) => ({ value, text: t(`build.meets.${value}`) }))}
          onPick={(floorMeets) => change({ floorMeets })}
        />
      </div>
    </>
  );
}

/** How a unit is made, as its family asks; then its bays. */
function UnitChoices({ unit, scene }: { readonly unit: Unit; readonly scene: Scene }) {
  const speech = useSpeech();
  const family = familyOf(unit.family);
  if (!family) return null;
  const sheets = scene.book.items
    .filter((item) => item.stocks.length > 0)
    .map((item) => ({ value: item.id, text: item.name }));
  return (
    <>
      <FieldGrid
        fields={family.fields.filter(
          (field) => field.group === 'made' && !(family.cuts.length > 0 && IN_BAYS.has(field.name)),
        )}
        of={unit}
        labelOf={(name) => fieldLabel(family, name, speech)}
        sheets={sheets}
        people={[]}
        onTake={(name, value) => act({ name: 'changeUnit', payload: { id: unit.id, changes: { [name]: value } } })}
        onRefused={(why) => notify(speech.said(why), 'trouble')}
      />
      {family.cuts.length > 0 && (
        <Bays
          unit={unit}
          things={scene.project.things ?? []}
          skeleton={scene.shape.made.find((one) => one.unit === unit.id)?.skeleton ?? null}
        />
      )}
    </>
  );
}

/** How the open unit is made, as a few choices; parts, mass and price follow at once. */
export function HowMade({ group, scene }: { readonly group: string; readonly scene: Scene }) {
  const { t } = useSpeech();
  const unit = scene.project.layout.units.find((candidate) => candidate.id === group);
  return (
    <section className="section stack">
      <h2>{t('build.how')}</h2>
      {unit ? <UnitChoices key={unit.id} unit={unit} scene={scene} /> : <SubfloorChoices scene={scene} />}
    </section>
  );
}
