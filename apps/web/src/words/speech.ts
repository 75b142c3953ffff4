import {
  fillText,
  formatEntry,
  formatLength,
  formatLengthWithUnit,
  formatSawn,
  say,
  EN,
  type LengthStyle,
  type Message,
} from '@nestplank/core/words';
import { EN_UI, type UiKey } from './en.js';

export type Params = Readonly<Record<string, string | number>>;

/** Puts an interface text into words. */
export function tell(key: UiKey, params: Params = {}): string {
  return fillText(
    EN_UI[key],
    (name) => (params[name] === undefined ? undefined : String(params[name])),
    (name) => params[name],
  );
}

/** How the reader of this project is spoken to: texts, lengths in their units, messages of the computation. */
export interface Speech {
  readonly style: LengthStyle;
  readonly t: typeof tell;
  /** A length without its unit, as in drawings. */
  readonly len: (mm: number, decimals?: number) => string;
  /** A length that is sawn, marked or set at a fence, in the step of a saw. */
  readonly sawn: (mm: number) => string;
  readonly lenUnit: (mm: number) => string;
  readonly entry: (mm: number) => string;
  readonly said: (message: Message) => string;
}

export function speechFor(style: LengthStyle, units: (id: string) => string | null = () => null): Speech {
  const voice = { words: EN, lengths: style, units };
  return {
    style,
    t: tell,
    len: (mm, decimals) => formatLength(mm, style, decimals),
    sawn: (mm) => formatSawn(mm, style),
    lenUnit: (mm) => formatLengthWithUnit(mm, style),
    entry: (mm) => formatEntry(mm, style),
    said: (message) => say(message, voice),
  };
}
