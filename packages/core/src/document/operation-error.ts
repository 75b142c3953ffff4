import type { Message } from '../words/message.js';

/** An operation that cannot be done; says why. The project is left as it was. */
export class OperationError extends Error {
  constructor(
    readonly said: Message,
    readonly place: string = '',
  ) {
    super(said.key);
  }
}
