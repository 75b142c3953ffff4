/** Remembers the last call of a function and gives its result again while the arguments are the same. */
export function memoLast<Args extends readonly unknown[], Result>(
  work: (...args: Args) => Result,
  same: (a: Args, b: Args) => boolean = (a, b) => a.length === b.length && a.every((value, i) => value === b[i]),
): (...args: Args) => Result {
  let last: { args: Args; result: Result } | null = null;
  return (...args) => {
    if (last && same(last.args, args)) return last.result;
    last = { args, result: work(...args) };
    return last.result;
  };
}

/** The same with one memory for each key of the first argument, so that one thing's change leaves the others' results alone. */
export function memoEach<Args extends readonly unknown[], Result>(
  keyOf: (first: Args[0]) => string,
  work: (...args: Args) => Result,
): (...args: Args) => Result {
  const memories = new Map<string, (...args: Args) => Result>();
  return (...args) => {
    const key = keyOf(args[0]);
    const memory = memories.get(key) ?? memoLast(work);
    memories.set(key, memory);
    return memory(...args);
  };
}
