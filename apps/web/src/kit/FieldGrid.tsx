import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import { memo, type ReactNode } from 'react';
import type { Field, Person, Thing, Unit } from '@nestplank/core/document';
import type { Message } from '@nestplank/core/words';
import { EN_UI, type UiKey } from '../words/en.js';
import { useSpeech } from '../words/use-speech.js';
import { LengthField } from './LengthField.js';
import { NumberField } from './NumberField.js';
import { PickField } from './PickField.js';
import { useStable } from './use-stable.js';

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

interface OneFieldProps extends Required<Pick<FieldGridProps, 'sheets' | 'people' | 'things' | 'onTake'>> {
  readonly field: Field;
  readonly value: Value;
  readonly label: string;
  readonly onPick: (name: string, value: Value) => void;
}

/** One field by its kind. Drawn again when its own value changes, not for another's. */
const OneField = memo(function OneField({
  field,
  value,
  label,
  sheets,
  people,
  things,
  onTake,
  onPick,
}: OneFieldProps): ReactNode {
  const { t } = useSpeech();
  const { name } = field;
  switch (field.kind) {
    case 'length':
      return <LengthField label={label} value={Number(value)} onTake={(mm) => onTake(name, mm)} />;
    case 'count':
      return (
        <NumberField
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
          label={label}
          value={String(value)}
          choices={(field.choices ?? []).map((choice) => ({ value: choice, text: choiceText(choice, t) }))}
          onPick={(choice) => onPick(name, choice)}
        />
      );
    case 'sheet':
      return (
        <PickField label={label} value={String(value)} choices={sheets} onPick={(material) => onPick(name, material)} />
      );
    case 'thing':
      return (
        <PickField
          label={label}
          value={String(value)}
          choices={[
            { value: '', text: t('bay.noThing') },
            ...things.map(({ id, name: text }) => ({ value: id, text })),
          ]}
          onPick={(thing) => onPick(name, thing)}
        />
      );
    case 'yes-no':
      return (
        <FormControlLabel
          control={<Checkbox checked={value === true} onChange={(_event, on) => onPick(name, on)} />}
          label={label}
        />
      );
    case 'people': {
      const chosen = Array.isArray(value) ? value : [];
      return people.length === 0 ? null : (
        <div role="group" aria-label={label} className="field-wide">
          {people.map((person) => (
            <FormControlLabel
              key={person.id}
              control={
                <Checkbox
                  checked={chosen.includes(person.id)}
                  onChange={(_event, on) =>
                    onPick(name, on ? [...chosen, person.id] : chosen.filter((id) => id !== person.id))
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
});
const NO_THINGS: readonly Thing[] = [];

/** A form made from what a family says of its fields, in the order in which it says it. */
export function FieldGrid({
  fields,
  of,
  labelOf,
  sheets,
  people,
  onTake,
  onRefused,
  things = NO_THINGS,
}: FieldGridProps) {
  const take = useStable(onTake);
  const pick = useStable((name: string, value: Value): void => {
    const refused = onTake(name, value);
    if (refused) onRefused(refused);
  });
  return (
    <div className="fields">
      {fields
        .filter((field) => field.when?.(of) !== false)
        .map((field) => (
          <OneField
            key={field.name}
            field={field}
            value={field.get(of)}
            label={labelOf(field.name)}
            sheets={sheets}
            people={people}
            things={things}
            onTake={take}
            onPick={pick}
          />
        ))}
    </div>
  );
}

/** A choice in words; one without words of its own stands as it is. */
function choiceText(choice: string, t: ReturnType<typeof useSpeech>['t']): string {
  if (choice === 'left' || choice === 'right') return t(`surface.${choice}`);
  const key = `choice.${choice}`;
  return key in EN_UI ? t(key as UiKey) : choice;
}
