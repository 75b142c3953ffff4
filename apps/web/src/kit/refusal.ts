import type { Message } from '@nestplank/core/words';
import { notify } from '../state/session.js';
import type { Speech } from '../words/words.js';

/** What a field that is taken at once gives back: why its value was not taken, or nothing. */
export type Refusal = Message | null | undefined;

/** Tells a refusal that has no place of its own beside a field. @returns whether there was none */
export function tellRefusal(refused: Refusal, { said }: Pick<Speech, 'said'>): boolean {
  if (refused) notify(said(refused), 'trouble');
  return !refused;
}
