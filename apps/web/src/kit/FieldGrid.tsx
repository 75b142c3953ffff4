import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import type { Field, Person, Thing, Unit } from '@nestplank/core/document';
import type { Message } from '@nestplank/core/words';
import { EN_UI, type UiKey } from '../words/en.js';
import { useSpeech } from '../words/use-speech.js';
import { LengthField } from './LengthField.js';
import { NumberField } from './NumberField.js';
import { PickField } from './PickField.js';

type Value = ReturnType<Field['get']>;
interface FieldGridProps {
  readonly fields: readonly Field[];
  readonly of: Unit;
  readonly labelOf: (name: string) => string;
  /** Materials that a field of sheets offers. */
  readonly sheets: readonly { readonly value: string; readonly text: string }[];
  readonly people: readonly Person[];
  /** Things with data sheets that a field of things offers. */
  readonly things?: readonly Thing[];
  /** Tries to take a value; returns why not, or null. */
  readonly onTake: (name: string, value: Value) => Message | null;
  /** Tells a refusal that has no place of its own. */
  readonly onRefused: (why: Message) => void;
}

/** A form made from what a family says of its fields, in the order in which it says it. */
export function FieldGrid({ fields, of, labelOf, sheets, people, onTake, onRefused, things = [] }: FieldGridProps) {
  const { t } = useSpeech();
  const pick = (name: string, value: Value): void => {
    const refused = onTake(name, value);
    if (refused) onRefused(refused);
  };
  return (
    <div className="fields">
      {fields
        .filter((field) => field.when?.(of) !== false)
        .map((field) => {
          const { name } = field;
          const value = field.get(of);
          const label = labelOf(name);
          switch (field.kind) {
            case 'length':
              return <LengthField key={name} label={label} value={Number(value)} onTake={(mm) => onTake(name, mm)} />;
            case 'count':
              return (
                <NumberField
                  key={name}
                  label={label}
                  value={Number(value)}
                  least={field.least ?? 0}
                  most={field.most ?? 100}
                  whole
                  onTake={(count) => onTake(name, count)}
                />
              );
            case 'choice':
              return (
                <PickField
                  key={name}
                  label={label}
                  value={String(value)}
                  choices={(field.choices ?? []).map((choice) => ({ value: choice, text: choiceText(choice, t) }))}
                  onPick={(choice) => pick(name, choice)}
                />
              );
            case 'sheet':
              return (
                <PickField
                  key={name}
                  label={label}
                  value={String(value)}
                  choices={sheets}
                  onPick={(material) => pick(name, material)}
                />
              );
            case 'thing':
              return (
                <PickField
                  key={name}
                  label={label}
                  value={String(value)}
                  choices={[
                    { value: '', text: t('bay.noThing') },
                    ...things.map(({ id, name: text }) => ({ value: id, text })),
                  ]}
                  onPick={(thing) => pick(name, thing)}
                />
              );
            case 'yes-no':
              return (
                <FormControlLabel
                  key={name}
                  control={<Checkbox checked={value === true} onChange={(_event, on) => pick(name, on)} />}
                  label={label}
                />
              );
            case 'people': {
              const chosen = Array.isArray(value) ? value : [];
              return people.length === 0 ? null : (
                <div key={name} role="group" aria-label={label} className="field-wide">
                  {people.map((person) => (
                    <FormControlLabel
                      key={person.id}
                      control={
                        <Checkbox
                          checked={chosen.includes(person.id)}
                          onChange={(_event, on) =>
                            pick(name, on ? [...chosen, person.id] : chosen.filter((id) => id !== person.id))
                          }
                        />
                      }
                      label={person.name}
                    />
                  ))}
                </div>
              );
            }
          }
        })}
    </div>
  );
}

/** A choice in words; one without words of its own stands as it is. */
function choiceText(choice: string, t: ReturnType<typeof useSpeech>['t']): string {
  if (choice === 'left' || choice === 'right') return t(`surface.${choice}`);
  const key = `choice.${choice}`;
  return key in EN_UI ? t(key as UiKey) : choice;
}
