/** Lists one after another as one: what `flat` gives, without its look at every entry whether that is a list too. */
export function joined<T>(lists: readonly (readonly T[])[]): T[] {
  let length = 0;
  for (let k = 0; k < lists.length; k += 1) length += (lists[k] as readonly T[]).length;
  const all = new Array<T>(length);
  let at = 0;
  for (let k = 0; k < lists.length; k += 1) {
    const list = lists[k] as readonly T[];
    for (let i = 0; i < list.length; i += 1) {
      all[at] = list[i] as T;
      at += 1;
    }
  }
  return all;
}
