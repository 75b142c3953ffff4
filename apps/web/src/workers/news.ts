/** Entries of a list that crosses over: those that are already there by their place, the others as they are. */
export type ByPlace<T> = readonly (T | number)[];

/** A list told to somebody who has another one: what they have already is told by its place there. */
export function toldByPlace<T extends object>(list: readonly T[], there: readonly T[] | undefined): ByPlace<T> {
  if (!there) return list;
  const places = new Map(there.map((one, i) => [one, i]));
  return list.map((one) => places.get(one) ?? one);
}

/** The list as it was told, with what was there already as the very things that were there. */
export const foundByPlace = <T extends object>(told: ByPlace<T>, there: readonly T[]): readonly T[] =>
  told.flatMap((one) => (typeof one === 'number' ? (there[one] ?? []) : one));
