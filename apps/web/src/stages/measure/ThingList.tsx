import Button from '@mui/material/Button';
import Checkbox from '@mui/material/Checkbox';
import FormControlLabel from '@mui/material/FormControlLabel';
import type { ReactNode } from 'react';
import type { Operation } from '@nestplank/core';
import { PickField } from '../../kit/PickField.js';
import { TextEntry } from '../../kit/TextEntry.js';
import type { UiKey } from '../../words/en.js';
import { useSpeech } from '../../words/words.js';

/** Does an operation and says why not. */
export type Perform = (operation: Operation) => string | null;

/** A list of named things: each can be renamed, described and removed; a new one is put at the end. */
export function ThingList<T extends { readonly id: string; readonly name: string }>({
  title,
  items,
  add,
  addText,
  rename,
  remove,
  fields,
}: {
  readonly title: string;
  readonly items: readonly T[];
  readonly add: () => void;
  readonly addText: string;
  readonly rename: (item: T, name: string) => void;
  readonly remove: (item: T) => void;
  readonly fields?: (item: T) => ReactNode;
}) {
  const { t } = useSpeech();
  return (
    <section className="section stack" aria-label={title}>
      <h2>{title}</h2>
      {items.map((item) => (
        <div className="thing" key={item.id}>
          <TextEntry
            hideLabel
            label={`${t('common.name')}: ${item.name}`}
            value={item.name}
            onTake={(name) => {
              rename(item, name);
              return null;
            }}
          />
          {fields?.(item)}
          <Button
            size="small"
            variant="text"
            onClick={() => remove(item)}
            aria-label={`${t('common.remove')} ${item.name}`}
          >
            {t('common.remove')}
          </Button>
        </div>
      ))}
      <div>
        <Button onClick={add}>{addText}</Button>
      </div>
    </section>
  );
}

export function Tick({
  label,
  checked,
  onTick,
}: {
  readonly label: string;
  readonly checked: boolean;
  readonly onTick: (on: boolean) => void;
}) {
  return (
    <FormControlLabel control={<Checkbox checked={checked} onChange={(_event, on) => onTick(on)} />} label={label} />
  );
}

export function usePick() {
  const { t } = useSpeech();
  return function pick<T extends string>(
    label: string,
    value: T,
    values: readonly T[],
    prefix: string,
    onPick: (value: T) => void,
  ): ReactNode {
    return (
      <PickField
        hideLabel
        label={label}
        value={value}
        choices={values.map((choice) => ({ value: choice, text: t(`${prefix}${choice}` as UiKey) }))}
        onPick={onPick}
      />
    );
  };
}
