/** One step of what is worked out: a value from what it reads of its sources. */
export interface Stage<From extends object, Value> {
  readonly work: (from: From) => Value;
  /** Whether a value worked out anew is the one before in all that counts: then that one stays. */
  same?(value: Value, before: Value): boolean;
}

/** A stage whose value stays the one before while `same` holds. */
export const steady = <From extends object, Value>(
  work: (from: From) => Value,
  same: (value: Value, before: Value) => boolean,
): Stage<From, Value> => ({ work, same });

/** Lists with the same things in the same order. */
export const sameItems = <T>(a: readonly T[], b: readonly T[]): boolean =>
  a.length === b.length && a.every((item, i) => item === b[i]);

/**
 * Remembers a stage: what it reads of its sources is what it depends on. Its value is worked out anew only when something that
 * it read, asked for in the same order, is another one. A stage must not hold on to its sources.
 */
export function remembered<From extends object, Value>(stage: Stage<From, Value>): (from: From) => Value {
  let read: readonly (readonly [keyof From, unknown])[] | null = null;
  let value: Value;
  const asBefore = (from: From): boolean => {
    if (read === null) return false;
    for (const [name, was] of read) if (from[name] !== was) return false;
    return true;
  };
  return (from) => {
    if (asBefore(from)) return value;
    const now = new Map<keyof From, unknown>();
    const made = stage.work(
      new Proxy(from, {
        get(sources, name) {
          const got: unknown = sources[name as keyof From];
          now.set(name as keyof From, got);
          return got;
        },
      }),
    );
    const first = read === null;
    read = [...now];
    if (first || !stage.same?.(made, value)) value = made;
    return value;
  };
}
