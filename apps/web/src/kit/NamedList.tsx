import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import { useState, type ReactNode } from 'react';
import type { Message } from '@nestplank/core';
import { useSpeech } from '../words/words.js';

interface NamedListProps<T extends { readonly id: string; readonly name: string }> {
  readonly title: string;
  readonly hint: string;
  readonly items: readonly T[];
  readonly nameLabel: string;
  readonly removeLabel: (item: T) => string;
  /** Makes one of this name; returns why not, or null. */
  readonly onAdd: (name: string) => Message | null;
  readonly onRemove: (item: T) => void;
  readonly children: (item: T) => ReactNode;
  /** What is said after an item's name. */
  readonly beside?: (item: T) => ReactNode;
  /** More to choose before one is added. */
  readonly adding?: ReactNode;
}

/** Things with a name that are put on a surface one by one, each with its own figures. */
export function NamedList<T extends { readonly id: string; readonly name: string }>(props: NamedListProps<T>) {
  const { t } = useSpeech();
  const [name, setName] = useState('');
  const add = (): void => {
    if (!props.onAdd(name.trim())) setName('');
  };
  return (
    <section className="section stack" aria-label={props.title}>
      <h2>{props.title}</h2>
      {props.items.length === 0 && <p className="small soft">{props.hint}</p>}
      {props.items.map((item) => (
        <div key={item.id} className="stack" style={{ gap: 6 }}>
          <div className="row apart">
            <span>
              {item.name} {props.beside && <span className="soft small">{props.beside(item)}</span>}
            </span>
            <Button size="small" aria-label={props.removeLabel(item)} onClick={() => props.onRemove(item)}>
              {t('cut.remove')}
            </Button>
          </div>
          {props.children(item)}
        </div>
      ))}
      <div className="fields" style={{ gridTemplateColumns: props.adding ? '1fr 1fr' : '1fr auto', alignItems: 'end' }}>
        <TextField label={props.nameLabel} value={name} onChange={(event) => setName(event.target.value)} />
        {props.adding ?? (
          <Button disabled={name.trim() === ''} onClick={add}>
            {t('cut.add')}
          </Button>
        )}
      </div>
      {props.adding !== undefined && (
        <div>
          <Button disabled={name.trim() === ''} onClick={add}>
            {t('cut.add')}
          </Button>
        </div>
      )}
    </section>
  );
}
