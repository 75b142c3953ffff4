import { type Message, type Operation, type Settings, type Unit } from '@nestplank/core';
import { act, notify } from '../../state/session.js';
import type { Scene } from '../../state/scene.js';
import { LengthField } from '../../ui/LengthField.js';
import { NumberField } from '../../ui/NumberField.js';
import { PickField } from '../../ui/PickField.js';
import { useSpeech } from '../../words/words.js';

type Changes = Extract<Operation, { name: 'changeUnit' }>['payload']['changes'];

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
          value={scene.project.linings.floor.keepBack}
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

function UnitChoices({ unit, scene }: { readonly unit: Unit; readonly scene: Scene }) {
  const { t, said } = useSpeech();
  const change = (changes: Changes): Message | null => act({ name: 'changeUnit', payload: { id: unit.id, changes } });
  const attempt = (changes: Changes): void => {
    const refused = change(changes);
    if (refused) notify(said(refused), 'trouble');
  };
  const sheets = scene.book.items
    .filter((item) => item.stocks.length > 0)
    .map((item) => ({ value: item.id, text: item.name }));
  const pick = (field: 'board' | 'support' | 'carcass' | 'facing' | 'top', value: string) => (
    <PickField
      key={field}
      label={t(`field.${field}`)}
      value={value}
      choices={sheets}
      onPick={(chosen) => attempt({ [field]: chosen })}
    />
  );
  const length = (field: 'boardWidth' | 'span' | 'scribe' | 'toeKick' | 'overhang', value: number) => (
    <LengthField key={field} label={t(`field.${field}`)} value={value} onTake={(mm) => change({ [field]: mm })} />
  );
  return (
    <div className="fields">
      {unit.kind === 'platform-bed' ? (
        [
          pick('board', unit.board),
          pick('support', unit.support),
          length('boardWidth', unit.boardWidth),
          length('span', unit.span),
          length('scribe', unit.scribe),
        ]
      ) : (
        <>
          {[
            pick('carcass', unit.carcass),
            pick('facing', unit.facing),
            pick('top', unit.top),
            length('toeKick', unit.toeKick),
            length('overhang', unit.overhang),
            length('scribe', unit.scribe),
          ]}
          <NumberField
            label={t('field.shelves')}
            value={unit.shelves}
            least={0}
            most={8}
            whole
            onTake={(shelves) => attempt({ shelves })}
          />
          <NumberField
            label={t('field.doors')}
            value={unit.doors}
            least={0}
            most={6}
            whole
            onTake={(doors) => attempt({ doors })}
          />
        </>
      )}
    </div>
  );
}

/** How the open unit is made, as a few choices; parts, mass and price follow at once. */
export function HowMade({ group, scene }: { readonly group: string; readonly scene: Scene }) {
  const { t } = useSpeech();
  const unit = scene.project.units.find((candidate) => candidate.id === group);
  return (
    <section className="section stack">
      <h2>{t('build.how')}</h2>
      {unit ? <UnitChoices key={unit.id} unit={unit} scene={scene} /> : <SubfloorChoices scene={scene} />}
    </section>
  );
}
