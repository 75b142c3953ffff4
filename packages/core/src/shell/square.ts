import { valueAt } from '../document/address.js';
import type { Survey } from '../document/schema.js';
import { squareRule } from '../rules/openings.js';
import { placedOpenings } from './openings.js';
import type { Message } from '../words/message.js';

/**
 * What the two diagonals of an opening say of it: how far it is out of square, and whether hinges and runners bear that.
 * @returns null while a diagonal or an edge is not read, and for one whose sides lean
 */
export function squareness(survey: Survey, id: string): Message | null {
  const placed = placedOpenings(survey).find(({ opening }) => opening.id === id);
  const [a, b] = [valueAt(survey, `opening/${id}/diagonal-a`), valueAt(survey, `opening/${id}/diagonal-b`)];
  if (!placed || placed.opening.slanted || a === null || b === null) return null;
  return squareRule.run({
    length: placed.to - placed.from,
    height: placed.head - placed.sill,
    a,
    b,
    name: placed.opening.name,
  }).said;
}
