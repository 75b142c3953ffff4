/** What is known when steps come in. */
export interface Arrived {
  /** The revision the sender says its steps stand on. */
  readonly sent: number;
  /** The revision the project has. */
  readonly current: number;
  /** Revisions after the sent one that were made by steps of this very message. */
  readonly own: number;
  /** Steps of the message that are not done yet. */
  readonly fresh: number;
}

/**
 * Whether steps may be done on top of the project as it is. Steps that are done are never done again, whatever revision
 * came with them; new ones may be done when everything that happened since the sent revision is the sender's own.
 */
export const mayDo = ({ sent, current, own, fresh }: Arrived): boolean =>
  fresh === 0 || (sent <= current && current - sent === own);
