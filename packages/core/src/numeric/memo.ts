/** Remembers the last call of a function and gives its result again while the arguments are the same. */
export function memoLast<Args extends readonly unknown[], Result>(
  work: (...args: Args) => Result,
  same: (a: Args, b: Args) => boolean = (a, b) => a.length === b.length && a.every((value, i) => value === b[i]),
): (...args: Args) => Result {
  // two variables: an object of both, made anew each time, is soon taken for something that lasts, and keeps what it held
  let before: Args | null = null;
  let result: Result;
  return (...args) => {
    if (before && same(before, args)) return result;
    result = work(...args);
    before = args;
    return result;
  };
}

/** The same of one thing that is put together anew each time: its last result again while each of its fields is what it was. */
export function memoFields<Whole extends object, Result>(work: (whole: Whole) => Result): (whole: Whole) => Result {
  let before: Whole | null = null;
  let result: Result;
  const same = (a: Whole, b: Whole): boolean => {
    const names = Object.keys(b) as (keyof Whole)[];
    return names.length === Object.keys(a).length && names.every((name) => a[name] === b[name]);
  };
  return (whole) => {
    if (before && same(before, whole)) return result;
    result = work(whole);
    before = whole;
    return result;
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

/** How many things are remembered where one is asked about many times before the next comes. */
const FEW = 4;
/**
 * Remembers what was worked out of the last few things, told apart by identity: for what is asked again and again of one
 * room until the next one takes its place. Nothing older is held on to.
 */
export function memoFew<Key extends object, Result>(work: (key: Key) => Result): (key: Key) => Result {
  const keys: Key[] = [];
  const results: Result[] = [];
  let next = 0;
  return (key) => {
    const at = keys.indexOf(key);
    if (at >= 0) return results[at] as Result;
    const result = work(key);
    keys[next] = key;
    results[next] = result;
    next = (next + 1) % FEW;
    return result;
  };
}

/** Remembers what was worked out of a thing for as long as that thing is there. */
export function memoOf<Key extends object, Result>(work: (key: Key) => Result): (key: Key) => Result {
  const known = new WeakMap<Key, { readonly result: Result }>();
  return (key) => {
    const before = known.get(key);
    if (before) return before.result;
    const result = work(key);
    known.set(key, { result });
    return result;
  };
}

/** The same of two things together. */
export function memoPair<A extends object, B extends object, Result>(
  work: (a: A, b: B) => Result,
): (a: A, b: B) => Result {
  const ofA = memoOf((a: A) => memoOf((b: B) => work(a, b)));
  return (a, b) => ofA(a)(b);
}
