/** A document as it came from a file or the database: its shape is not known yet. */
export type Raw = Record<string, unknown>;
export const isRaw = (value: unknown): value is Raw =>
  typeof value === 'object' && value !== null && !Array.isArray(value);
/** A record, or an empty one where there is none. */
export const rawIn = (value: unknown): Raw => (isRaw(value) ? value : {});
/** Every entry of a list changed; anything else as it is. */
export const eachRaw = (list: unknown, change: (item: Raw) => unknown): unknown =>
  Array.isArray(list) ? list.map((item: unknown) => (isRaw(item) ? change(item) : item)) : list;
/** The entries of a list with what they lack. */
export const withDefaults = (list: unknown, defaults: Raw): unknown =>
  eachRaw(list, (item) => ({ ...defaults, ...item }));
/** A record without one of its keys. */
export const without = (raw: Raw, key: string): Raw =>
  Object.fromEntries(Object.entries(raw).filter(([own]) => own !== key));
