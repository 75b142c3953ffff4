import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import { useState, type ReactNode } from 'react';
import type { Message } from '@nestplank/core/words';
import { useSpeech } from '../words/use-speech.js';
import { LineList } from './LineList.js';

interface NamedListProps<T extends { readonly id: string; readonly name: string }> {
  readonly title: string;
  readonly hint: string;
  readonly items: readonly T[];
  readonly nameLabel: string;
  /** A free id for one that is added. */
  readonly freeId: string;
  /** Makes one of this id and name; returns why not, or null. */
  readonly onAdd: (id: string, name: string) => Message | null;
  readonly onRemove: (item: T) => void;
  readonly children: (item: T) => ReactNode;
  /** What is said after an item's name: its figures in a few words. */
  readonly line: (item: T) => ReactNode;
  /** What stands in the way of an item. */
  readonly problems?: (item: T) => readonly Message[];
  /** More to choose before one is added. */
  readonly more?: ReactNode;
}

/** Things that are given a name first, then open in place with their figures. */
export function NamedList<T extends { readonly id: string; readonly name: string }>(props: NamedListProps<T>) {
  const { t, said } = useSpeech();
  const [name, setName] = useState('');
  const [problem, setProblem] = useState<string | null>(null);
  const add = (open: (id: string) => void): void => {
    const refused = props.onAdd(props.freeId, name.trim());
    setProblem(refused && said(refused));
    if (refused) return;
    setName('');
    open(props.freeId);
  };
  return (
    <LineList
      title={props.title}
      none={props.hint}
      items={props.items}
      line={props.line}
      problems={props.problems}
      onRemove={props.onRemove}
      adding={(open) => (
        <form
          className={props.more === undefined ? 'fields entry-and-button' : 'fields two-and-button'}
          onSubmit={(event) => {
            event.preventDefault();
            add(open);
          }}
        >
          <TextField
            label={props.nameLabel}
            value={name}
            error={problem !== null}
            helperText={problem}
            onChange={(event) => {
              setName(event.target.value);
              setProblem(null);
            }}
          />
          {props.more}
          <Button type="submit" disabled={name.trim() === ''}>
            {t('common.add')}
          </Button>
        </form>
      )}
    >
      {props.children}
    </LineList>
  );
}
