import { parseAddress, unitOf } from '@nestplank/core/document';
import { formatAngle, parseAngle, parseLength, type Message } from '@nestplank/core/words';
import type { Speech } from '../words/words.js';

export type ReadValue = { readonly ok: true; readonly value: number } | { readonly ok: false; readonly error: Message };

const isAngle = (address: string): boolean => {
  const place = parseAddress(address);
  return place !== null && unitOf(place) === 'degrees';
};

/** Reads what was typed for an address: a length in the reader's units, or a slope. */
export function readValue(typed: string, address: string, speech: Speech): ReadValue {
  if (isAngle(address)) {
    const read = parseAngle(typed);
    return read.ok ? { ok: true, value: read.degrees } : read;
  }
  const read = parseLength(typed, speech.style.units);
  return read.ok ? { ok: true, value: read.mm } : read;
}

/** Writes a reading of an address without its unit, as in lists. */
export function valueText(value: number, address: string, speech: Speech): string {
  return isAngle(address) ? formatAngle(value) : speech.len(value);
}

/** The same with its unit. */
export function valueTextUnit(value: number, address: string, speech: Speech): string {
  return isAngle(address) ? formatAngle(value) : speech.lenUnit(value);
}

export const unitWord = (address: string, speech: Speech): string => (isAngle(address) ? '°' : speech.style.units);
