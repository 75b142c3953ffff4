import { say, type Voice } from '../words/say.js';
import type { Message } from '../words/message.js';
import { EN } from '../words/en.js';

/** Anything that is derived, as it stands in a report: texts said, parts by their names, numbers to a thousandth. */
export type Spoken = string | number | boolean | null | readonly Spoken[] | { readonly [key: string]: Spoken };

const isMessage = (value: object): value is Message =>
  'key' in value && 'params' in value && typeof value.key === 'string' && value.key in EN;
/** A part is told once, in the list of parts; everywhere else by its name. */
const isPart = (value: object): value is { readonly id: string } =>
  'id' in value && 'outline' in value && 'material' in value && 'place' in value;

/** Puts whatever was derived into plain words and figures. */
export function spoken(value: unknown, voice: Voice): Spoken {
  if (value === null || value === undefined || typeof value === 'function') return null;
  if (typeof value === 'number') return Number.isFinite(value) ? Math.round(value * 1000) / 1000 || 0 : null;
  if (typeof value === 'string' || typeof value === 'boolean') return value;
  if (Array.isArray(value)) return value.map((item) => spoken(item, voice));
  if (typeof value !== 'object') return null;
  if (isMessage(value)) return say(value, voice);
  if (isPart(value)) return value.id;
  if (value instanceof Set || value instanceof Map) return spoken([...value], voice);
  return Object.fromEntries(Object.entries(value).map(([key, item]) => [key, spoken(item, voice)]));
}
