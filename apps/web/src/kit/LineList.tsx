import Button from '@mui/material/Button';
import Collapse from '@mui/material/Collapse';
import { useId, useState, type ReactNode } from 'react';
import type { Message } from '@nestplank/core/words';
import { useSpeech } from '../words/use-speech.js';
import { Problem } from './Problem.js';

interface Named {
  readonly id: string;
  readonly name: string;
}

interface LineListProps<T extends Named> {
  readonly title: string;
  readonly items: readonly T[];
  /** What is said when there are none. */
  readonly none?: string;
  /** What a line says after the name: its figures in a few words. */
  readonly line: (item: T) => ReactNode;
  /** What stands before the name: a number, a mark. */
  readonly mark?: (item: T, index: number) => ReactNode;
  /** What stands in the way of an item: said whether its line is open or not. */
  readonly problems?: (item: T) => readonly Message[];
  /** The fields of an item, shown when its line is open. */
  readonly children: (item: T) => ReactNode;
  /** Left out where an item cannot be removed from here. */
  readonly onRemove?: (item: T) => void;
  /** What removing one is called, where it is not just that. */
  readonly removeText?: string;
  /** Which line is open, where something else opens lines too; the list keeps it itself otherwise. */
  readonly open?: string | null;
  readonly onOpen?: (id: string | null) => void;
  /** Makes a new one and says its id, which opens it; null when it was refused. */
  readonly onAdd?: () => string | null;
  readonly addText?: string;
  /** How one is added, where that takes more than a press. */
  readonly adding?: (open: (id: string) => void) => ReactNode;
}

/** Things with a name, one line each; a line opens in place, one at a time. */
export function LineList<T extends Named>(props: LineListProps<T>) {
  const { t, said } = useSpeech();
  const list = useId();
  const [own, setOwn] = useState<string | null>(null);
  const open = props.onOpen ? (props.open ?? null) : own;
  const setOpen = props.onOpen ?? setOwn;
  const add = (): void => {
    const made = props.onAdd?.() ?? null;
    if (made !== null) setOpen(made);
  };
  return (
    <section className="section stack" aria-label={props.title}>
      <h2>{props.title}</h2>
      {props.items.length === 0 && props.none !== undefined && <p className="small soft">{props.none}</p>}
      {props.items.length > 0 && (
        <ul className="lines">
          {props.items.map((item, i) => {
            const shown = item.id === open;
            return (
              <li key={item.id}>
                <button
                  type="button"
                  className="line-of"
                  aria-expanded={shown}
                  aria-controls={`${list}-${item.id}`}
                  onClick={() => setOpen(shown ? null : item.id)}
                >
                  {props.mark?.(item, i)}
                  <strong>{item.name}</strong>
                  <span className="soft figures">{props.line(item)}</span>
                  <span aria-hidden="true" className="line-turn" />
                </button>
                {props.problems?.(item).map((problem) => (
                  <Problem key={problem.key}>{said(problem)}</Problem>
                ))}
                <Collapse in={shown} unmountOnExit id={`${list}-${item.id}`}>
                  <div className="line-inside stack">
                    {props.children(item)}
                    {props.onRemove && (
                      <div>
                        <Button
                          size="small"
                          variant="text"
                          aria-label={`${props.removeText ?? t('common.remove')} ${item.name}`}
                          onClick={() => props.onRemove?.(item)}
                        >
                          {props.removeText ?? t('common.remove')}
                        </Button>
                      </div>
                    )}
                  </div>
                </Collapse>
              </li>
            );
          })}
        </ul>
      )}
      {props.adding?.(setOpen)}
      {props.onAdd && props.addText !== undefined && (
        <div>
          <Button onClick={add}>{props.addText}</Button>
        </div>
      )}
    </section>
  );
}
