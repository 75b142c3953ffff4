import { formatLength, groupDigits, type LengthStyle } from './length.js';
import { EN, type Words } from './en.js';
import { fillText } from './fill.js';
import type { Message, MessageParam } from './message.js';

/** How one reader is spoken to. */
export interface Voice {
  readonly words: Words;
  readonly lengths: LengthStyle;
  /** What units are called, by their ids. */
  readonly units?: (id: string) => string | null;
}

/** English in millimetres. */
export const PLAIN_VOICE: Voice = { words: EN, lengths: { units: 'mm', fraction: 16 } };

/** Writes money: minor units to `1 234.50 EUR`. */
export function formatMoney(minor: number, currency: string): string {
  return `${groupDigits(minor / 100, 2)}\u00a0${currency}`;
}

function write(param: MessageParam, voice: Voice): string {
  if (typeof param === 'string') return param;
  if (typeof param === 'number') return groupDigits(param, Number.isInteger(param) ? 0 : 1);
  if ('key' in param) return say(param, voice);
  if ('word' in param) return voice.words[param.word];
  if ('unit' in param) return voice.units?.(param.unit) ?? param.unit;
  if ('mm' in param)
    return voice.lengths.units === 'mm'
      ? formatLength(param.mm, voice.lengths)
      : `${formatLength(param.mm, voice.lengths)}\u00a0in`;
  return formatMoney(param.minor, param.currency);
}

/** Puts a message into words. A blank without a value is left as it stands, so that it is noticed. */
export function say(message: Message, voice: Voice = PLAIN_VOICE): string {
  const { params } = message;
  return fillText(
    voice.words[message.key],
    (name) => {
      const param = params[name];
      return param === undefined ? undefined : write(param, voice);
    },
    (name) => params[name],
  );
}
