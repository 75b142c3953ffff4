/** A free id of a prefix and a number, for a list of things. */
export function nextId(
  prefix: string,
  list: readonly { readonly id: string }[],
): { readonly id: string; readonly number: number } {
  const number =
    1 + Math.max(0, ...list.map((item) => Number(new RegExp(`^${prefix}(\\d+)$`).exec(item.id)?.[1] ?? 0)));
  return { id: `${prefix}${number}`, number };
}
