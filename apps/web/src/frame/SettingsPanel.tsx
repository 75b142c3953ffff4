import Button from '@mui/material/Button';
import type { Person, Settings } from '@nestplank/core/document';
import type { Message } from '@nestplank/core/words';
import { act, useSession } from '../state/session.js';
import { backOfKnee, SHOULDERS, SITTING_SHARE } from '@nestplank/core/rules';
import { LengthField } from '../kit/LengthField.js';
import { NumberField } from '../kit/NumberField.js';
import { PickField } from '../kit/PickField.js';
import { TextEntry } from '../kit/TextEntry.js';
import { useSpeech } from '../words/use-speech.js';

/** What of a person can be measured besides the stature, each with how it is done; estimates stand until it is. */
function Measures({ person, put }: { readonly person: Person; readonly put: (person: Person) => Message | null }) {
  const { t } = useSpeech();
  const own = {
    sittingHeight: person.sittingHeight ?? SITTING_SHARE * person.stature,
    backOfKnee: person.backOfKnee ?? backOfKnee(person.stature),
    shoulderWidth: person.shoulderWidth ?? SHOULDERS * person.stature,
  };
  return (
    <details>
      <summary>{t('settings.measures')}</summary>
      <div className="fields two">
        {(['sittingHeight', 'backOfKnee', 'shoulderWidth'] as const).map((what) => (
          <div key={what} className="stack gap-2">
            <LengthField
              label={t(`settings.${what}`)}
              value={Math.round(own[what])}
              onTake={(value) => put({ ...person, [what]: value })}
            />
            <p className="small soft">
              {t(person[what] === undefined ? 'settings.estimated' : 'settings.measured')}. {t(`settings.${what}How`)}
            </p>
          </div>
        ))}
        <NumberField
          label={t('settings.mass')}
          value={person.mass ?? null}
          least={2}
          most={300}
          onTake={(mass) => put({ ...person, mass })}
        />
        <div>
          <Button
            variant="text"
            size="small"
            onClick={() => put({ id: person.id, name: person.name, stature: person.stature })}
          >
            {t('settings.measuresForget')}
          </Button>
        </div>
      </div>
    </details>
  );
}

/** People, names and how things are shown. */
export function SettingsPanel() {
  const speech = useSpeech();
  const { t } = speech;
  const project = useSession((s) => s.project);
  if (!project) return null;
  const { settings, people } = project;
  const change = (changes: Partial<Omit<Settings, 'cutting'>>): Message | null =>
    act({ name: 'changeSettings', payload: { changes } });
  const put = (person: Person): Message | null => act({ name: 'putPerson', payload: { person } });
  const nextId = (): string =>
    `p${1 + Math.max(0, ...people.map((person) => Number(/^p(\d+)$/.exec(person.id)?.[1] ?? 0)))}`;
  return (
    <div className="stack gap-18">
      <section className="stack" aria-label={t('settings.people')}>
        <h2>{t('settings.people')}</h2>
        {people.map((person) => (
          <div className="stack gap-2" key={person.id}>
            <div className="row at-start">
              <TextEntry
                label={t('settings.personName')}
                value={person.name}
                onTake={(name) => put({ ...person, name })}
              />
              <LengthField
                label={t('settings.stature')}
                value={person.stature}
                onTake={(stature) => put({ ...person, stature })}
              />
              <Button
                variant="text"
                onClick={() => act({ name: 'removePerson', payload: { id: person.id } })}
                aria-label={`${t('common.remove')} ${person.name}`}
              >
                {t('common.remove')}
              </Button>
            </div>
            <Measures person={person} put={put} />
          </div>
        ))}
        <div>
          <Button
            onClick={() =>
              put({ id: nextId(), name: t('settings.newPerson', { number: people.length + 1 }), stature: 1700 })
            }
          >
            {t('settings.addPerson')}
          </Button>
        </div>
      </section>
      <section className="stack" aria-label={t('settings.build')}>
        <h2>{t('settings.build')}</h2>
        <TextEntry
          label={t('common.name')}
          value={project.name}
          onTake={(name) => act({ name: 'renameProject', payload: { name, model: project.vehicle.model } })}
        />
        <TextEntry
          label={t('settings.vehicle')}
          value={project.vehicle.model}
          mayBeEmpty
          onTake={(model) => act({ name: 'renameProject', payload: { name: project.name, model } })}
        />
        <div className="fields">
          <PickField
            label={t('bar.units')}
            value={settings.units}
            choices={(['mm', 'in'] as const).map((value) => ({ value, text: t(`units.${value}`) }))}
            onPick={(units) => change({ units })}
          />
          <PickField
            label={t('settings.fraction')}
            value={String(settings.fraction)}
            choices={['16', '32'].map((value) => ({ value, text: `1/${value} in` }))}
            onPick={(value) => change({ fraction: value === '32' ? 32 : 16 })}
          />
        </div>
      </section>
    </div>
  );
}
