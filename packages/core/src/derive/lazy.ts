/** Makers by name; each is run when its value is first asked for, and not again. */
export type Makers<T> = { readonly [K in keyof T]: () => T[K] };

interface Pulling {
  readonly makers: Record<string, (() => unknown) | undefined>;
  readonly made: Map<string, unknown>;
}
const PULLING = Symbol('pulling');

/** What objects with these names are made from: the names are the same at every step of a drag, and so is the shape. */
const prototypes = new Map<string, object>();
function prototypeOf(names: readonly string[]): object {
  const key = names.join();
  const before = prototypes.get(key);
  if (before) return before;
  const prototype = {};
  for (const name of names)
    Object.defineProperty(prototype, name, {
      enumerable: true,
      get(this: { readonly [PULLING]: Pulling }) {
        const { makers, made } = this[PULLING];
        if (!made.has(name)) {
          const make = makers[name];
          if (!make) throw new Error(`${name} was read after everything had been let go.`);
          made.set(name, make());
        }
        return made.get(name);
      },
    });
  prototypes.set(key, prototype);
  return prototype;
}

/** An object whose values are made when they are first read. */
export function pulled<T extends object>(makers: Makers<T>): T {
  const object = Object.create(prototypeOf(Object.keys(makers))) as T & { [PULLING]: Pulling };
  object[PULLING] = { makers: makers as unknown as Pulling['makers'], made: new Map() };
  return object;
}

/**
 * The same as plain data, with the named values only. The makers are let go: nothing else of the object can be read after
 * that, and nothing of what they were made of is held on to, which at every step of a drag is a whole project.
 */
export function settled<T extends object, K extends keyof T>(object: T, keys: readonly K[]): Pick<T, K> {
  const plain = {} as Pick<T, K>;
  for (const key of keys) plain[key] = object[key];
  const { makers } = (object as T & { readonly [PULLING]: Pulling })[PULLING];
  for (const name of Object.keys(makers)) makers[name] = undefined;
  return plain;
}
