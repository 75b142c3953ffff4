/** The lists of a preview that mostly stay as they were. */
export type ListKey = 'parts' | 'made' | 'checks' | 'lying';

/** Entries of a list that crosses over: those that are already there by their place, the others as they are. */
export type ByPlace<T> = readonly (T | number)[];

/** A list told to somebody who has another one: what they have already is told by its place there. */
export function toldByPlace<T extends object>(list: readonly T[], there: readonly T[] | undefined): ByPlace<T> {
  if (!there) return list;
  const places = new Map(there.map((one, i) => [one, i]));
  return list.map((one) => places.get(one) ?? one);
}

/** What is said of a thing that was told once: it is compared with again and again. */
const saidOf = new WeakMap<object, string>();
function said(one: object): string {
  const known = saidOf.get(one);
  if (known !== undefined) return known;
  const fresh = JSON.stringify(one);
  saidOf.set(one, fresh);
  return fresh;
}

/** The same for what is worked out anew each time: one that says what the one of its name there says is told by that one's place. */
export function toldByName<T extends object>(
  list: readonly T[],
  there: readonly T[] | undefined,
  nameOf: (one: T) => string,
): ByPlace<T> {
  if (!there) return list;
  const places = new Map(there.map((one, i) => [nameOf(one), i]));
  return list.map((one) => {
    const place = places.get(nameOf(one));
    const before = place === undefined ? undefined : there[place];
    if (place === undefined || before === undefined) return one;
    return before === one || said(before) === JSON.stringify(one) ? place : one;
  });
}

/** The list as it was told, with what was there already as the very things that were there; the very list where nothing is new. */
export function foundByPlace<T extends object>(told: ByPlace<T>, there: readonly T[]): readonly T[] {
  const same = told.length === there.length && told.every((one, i) => one === i);
  return same ? there : told.flatMap((one) => (typeof one === 'number' ? (there[one] ?? []) : one));
}
