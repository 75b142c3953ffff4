/** Makers by name; each is run when its value is first asked for, and not again. */
export type Makers<T> = { readonly [K in keyof T]: () => T[K] };

/** An object whose values are made when they are first read. */
export function pulled<T extends object>(makers: Makers<T>): T {
  const object = {} as T;
  for (const key of Object.keys(makers) as (keyof T)[]) {
    let made: { readonly value: T[keyof T] } | null = null;
    Object.defineProperty(object, key, {
      enumerable: true,
      get: () => (made ??= { value: makers[key]() }).value,
    });
  }
  return object;
}

/** The same as plain data, with the named values only. */
export const settled = <T extends object, K extends keyof T>(object: T, keys: readonly K[]): Pick<T, K> =>
  Object.fromEntries(keys.map((key) => [key, object[key]])) as unknown as Pick<T, K>;
