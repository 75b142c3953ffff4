import { useEffect, useState, type KeyboardEvent } from 'react';

/** What was made of a typed text: a value, or why it is none. */
export type Read<T> = { readonly ok: true; readonly value: T } | { readonly ok: false; readonly why: string };

export interface TypedField<T> {
  /** The value as it is shown while nobody types. */
  readonly shown: string;
  readonly parse: (typed: string) => Read<T>;
  /** Tries to take the value; says why not, or null. */
  readonly take: (value: T) => string | null;
}

/** What a text field needs of it. */
export interface Typing {
  readonly text: string;
  readonly problem: string | null;
  readonly field: {
    readonly value: string;
    readonly onChange: (event: { readonly target: { readonly value: string } }) => void;
    readonly onBlur: () => void;
    readonly onKeyDown: (event: KeyboardEvent) => void;
  };
}

/**
 * One way for every field that is typed: what was typed stays until it is taken, on Enter or on leaving the field; a text
 * that cannot be taken stays with the reason beside it; Escape gives up; what was not changed is not taken, so that being
 * shown in other units never alters a value.
 */
export function useTypedField<T>({ shown, parse, take }: TypedField<T>): Typing {
  const [typed, setTyped] = useState<string | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  useEffect(() => {
    setTyped(null);
    setProblem(null);
  }, [shown]);
  const drop = (): void => {
    setTyped(null);
    setProblem(null);
  };
  const finish = (): void => {
    if (typed === null || typed.trim() === shown.trim()) {
      drop();
      return;
    }
    const read = parse(typed);
    const refused = read.ok ? take(read.value) : read.why;
    setProblem(refused);
    if (refused === null) setTyped(null);
  };
  return {
    text: typed ?? shown,
    problem,
    field: {
      value: typed ?? shown,
      onChange: (event) => setTyped(event.target.value),
      onBlur: finish,
      onKeyDown: (event) => {
        if (event.key === 'Enter') {
          event.preventDefault();
          finish();
        }
        if (event.key === 'Escape') drop();
      },
    },
  };
}
