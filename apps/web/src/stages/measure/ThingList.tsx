import type { ReactNode } from 'react';
import type { Operation } from '@nestplank/core/document';
import type { Message } from '@nestplank/core/words';
import { act } from '../../state/session.js';
import { LineList } from '../../kit/LineList.js';
import { PickField } from '../../kit/PickField.js';
import { tellRefusal } from '../../kit/refusal.js';
import { TextEntry } from '../../kit/TextEntry.js';
import { useChange } from '../../kit/use-change.js';
import type { UiKey } from '../../words/en.js';
import { useSpeech } from '../../words/use-speech.js';

interface ThingListProps<T extends { readonly id: string; readonly name: string }> {
  readonly title: string;
  readonly items: readonly T[];
  /** What makes one as a list starts it. */
  readonly add: () => { readonly id: string; readonly operation: Operation };
  readonly addText: string;
  /** The operation that keeps a changed one. */
  readonly put: (item: T) => Operation;
  readonly remove: (item: T) => Operation;
  /** What it is and where, in a few words. */
  readonly line: (item: T) => ReactNode;
  readonly fields?: (item: T, change: (changes: Partial<T>) => Message | null) => ReactNode;
}

/** Named things that are measured: one line each, opened in place to be renamed, described and removed. */
export function ThingList<T extends { readonly id: string; readonly name: string }>(props: ThingListProps<T>) {
  const speech = useSpeech();
  const change = useChange();
  return (
    <LineList
      title={props.title}
      items={props.items}
      line={props.line}
      onRemove={(item) => change(props.remove(item))}
      addText={props.addText}
      onAdd={() => {
        const { id, operation } = props.add();
        return tellRefusal(act(operation), speech) ? id : null;
      }}
    >
      {(item) => {
        const take = (changes: Partial<T>): Message | null => act(props.put({ ...item, ...changes }));
        return (
          <div className="fields two">
            <TextEntry
              label={speech.t('common.name')}
              value={item.name}
              onTake={(name) => take({ name } as Partial<T>)}
            />
            {props.fields?.(item, take)}
          </div>
        );
      }}
    </LineList>
  );
}

/** A choice whose values have their words under a prefix. */
export function usePick() {
  const { t } = useSpeech();
  return function pick<T extends string>(
    label: string,
    of: string,
    value: T,
    values: readonly T[],
    prefix: string,
    onPick: (value: T) => Message | null,
  ): ReactNode {
    return (
      <PickField
        label={label}
        of={of}
        value={value}
        choices={values.map((choice) => ({ value: choice, text: t(`${prefix}${choice}` as UiKey) }))}
        onPick={onPick}
      />
    );
  };
}

/** A figure of a survey that is read, or a dash. */
export function useRead(survey: {
  readonly readings: Readonly<Record<string, readonly { readonly value: number }[]>>;
}) {
  const { len } = useSpeech();
  const one = (address: string): string => {
    const last = survey.readings[address]?.at(-1);
    return last ? len(last.value) : '–';
  };
  return {
    one,
    /** From one reading to another. */
    span: (from: string, to: string): string => `${one(from)}–${one(to)}`,
  };
}
