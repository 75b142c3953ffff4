import type { Operation } from '@nestplank/core/document';
import { act } from '../state/session.js';
import { useSpeech } from '../words/use-speech.js';
import { tellRefusal } from './refusal.js';

/**
 * Does operations and always tells when they are refused: for buttons, boxes and pick lists, which have no place of their
 * own for a reason. Fields that have one give the refusal back instead.
 * @returns whether they were done
 */
export function useChange(): (...operations: readonly Operation[]) => boolean {
  const speech = useSpeech();
  return (...operations) => tellRefusal(act(...operations), speech);
}
