import { RefusedError } from '../state/api.js';
import { tell } from '../words/words.js';

/** What the server said against something, or that it was not heard. */
export const problemText = (reason: unknown): string =>
  reason instanceof RefusedError ? reason.message : tell('home.failed');
