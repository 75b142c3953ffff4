import type { WordKey } from './en.js';

/** A length inside a message; it is written in the reader's own units when the message is said. */
export interface LengthParam {
  readonly mm: number;
}

/** Money inside a message, in minor units of a currency. */
export interface MoneyParam {
  readonly minor: number;
  readonly currency: string;
}

/** A word of the word list inside a message. */
export interface WordParam {
  readonly word: WordKey;
}

/** A unit inside a message, by its id: its name is put in when the message is said. */
export interface UnitParam {
  readonly unit: string;
}

/** A sentence may have another in one of its blanks. */
export type MessageParam = string | number | LengthParam | MoneyParam | WordParam | UnitParam | Message;

/** A sentence that has not been put into words yet: a key of the word list and what goes into its blanks. */
export interface Message {
  readonly key: WordKey;
  readonly params: Readonly<Record<string, MessageParam>>;
}

/** Makes a message. */
export function message(key: WordKey, params: Record<string, MessageParam> = {}): Message {
  return { key, params };
}

/** Marks a number as a length in millimetres, for a message. */
export function mm(value: number): LengthParam {
  return { mm: value };
}
