/** Lists one after another as one: what `flat` gives, without its look at every entry whether that is a list too. */
export function joined<T>(lists: readonly (readonly T[])[]): T[] {
  const all: T[] = [];
  for (const list of lists) for (let i = 0; i < list.length; i += 1) all.push(list[i] as T);
  return all;
}
