import { message, type Message } from './message.js';

/** The two systems lengths are shown in. Inside everything is millimetres. */
export type UnitSystem = 'mm' | 'in';

/** How lengths are shown to one reader. `fraction` is the finest inch fraction: sixteenths or thirty-seconds. */
export interface LengthStyle {
  readonly units: UnitSystem;
  readonly fraction: 16 | 32;
}

export const MM_PER_INCH = 25.4;
/** No length in a vehicle comes near this; larger entries are slips. */
export const LARGEST_LENGTH_MM = 100_000;
const NANOMETRE = 1e6;

export type LengthResult = { readonly ok: true; readonly mm: number } | { readonly ok: false; readonly error: Message };

type Token =
  | {
      readonly kind: 'number';
      readonly value: number;
      readonly text: string;
      readonly start: number;
      readonly end: number;
    }
  | { readonly kind: 'unit'; readonly mm: number; readonly feet: boolean }
  | { readonly kind: 'operator'; readonly sign: string };

/** A value on the way through a sum: a plain number, or a length in millimetres. */
interface Quantity {
  readonly value: number;
  readonly isLength: boolean;
}

class LengthProblem extends Error {
  constructor(readonly said: Message) {
    super(said.key);
  }
}

const UNITS: readonly [RegExp, number, boolean][] = [
  [/^(mm|millimet(?:re|er)s?)\b/i, 1, false],
  [/^(cm|centimet(?:re|er)s?)\b/i, 10, false],
  [/^(m|met(?:re|er)s?)\b/i, 1000, false],
  [/^(in|inch(?:es)?)\b\.?|^(?:"|″|”|'')/i, MM_PER_INCH, false],
  [/^(ft|foot|feet)\b\.?|^(?:'|′|’)/i, 12 * MM_PER_INCH, true],
];
const VULGAR: Readonly<Record<string, string>> = {
  '½': '1/2',
  '¼': '1/4',
  '¾': '3/4',
  '⅛': '1/8',
  '⅜': '3/8',
  '⅝': '5/8',
  '⅞': '7/8',
};

function normalise(text: string): string {
  return text
    .replace(
      /(\d)?([½¼¾⅛⅜⅝⅞])/g,
      (_all, digit: string | undefined, sign: string) =>
        `${digit === undefined ? '' : `${digit} `}${VULGAR[sign] ?? ''}`,
    )
    .replace(/[\u00a0\u202f\u2009]/g, ' ')
    .replace(/[×·]/g, '*')
    .replace(/[−–]/g, '-')
    .replace(/÷/g, '/')
    .trim();
}

function tokenise(text: string): Token[] {
  const tokens: Token[] = [];
  let at = 0;
  while (at < text.length) {
    const rest = text.slice(at);
    const space = /^\s+/.exec(rest);
    if (space) {
      at += space[0].length;
      continue;
    }
    const number = /^(\d{1,3}(?: \d{3})+(?![\d/]| *\/)|\d+)?(?:([.,])(\d+))?/.exec(rest);
    if (number && number[0] !== '') {
      if (number[2] === ',' && number[3]?.length === 3)
        throw new LengthProblem(message('length.comma', { typed: number[0] }));
      tokens.push({
        kind: 'number',
        value: Number(`${(number[1] ?? '0').replaceAll(' ', '')}.${number[3] ?? '0'}`),
        text: number[0],
        start: at,
        end: at + number[0].length,
      });
      at += number[0].length;
      continue;
    }
    const unit = UNITS.map(([pattern, size, feet]) => ({ match: pattern.exec(rest), size, feet })).find((u) => u.match);
    if (unit?.match) {
      tokens.push({ kind: 'unit', mm: unit.size, feet: unit.feet });
      at += unit.match[0].length;
      continue;
    }
    const sign = rest[0] ?? '';
    if ('+-*/()'.includes(sign)) {
      tokens.push({ kind: 'operator', sign });
      at += 1;
      continue;
    }
    throw new LengthProblem(message('length.unreadable', { typed: text, at: rest.split(/\s/)[0] ?? rest }));
  }
  return tokens;
}

/** Recursive descent over the tokens of one sum. */
class SumReader {
  private at = 0;
  constructor(
    private readonly tokens: readonly Token[],
    private readonly typed: string,
    private readonly plainMm: number,
  ) {}

  read(): number {
    const total = this.sum();
    if (this.at < this.tokens.length) this.fail();
    return this.asLength(total);
  }

  private fail(): never {
    throw new LengthProblem(message('length.sum', { typed: this.typed }));
  }

  private asLength(quantity: Quantity): number {
    return quantity.isLength ? quantity.value : quantity.value * this.plainMm;
  }

  private takeOperator(signs: string): string | null {
    const token = this.tokens[this.at];
    if (token?.kind !== 'operator' || !signs.includes(token.sign)) return null;
    this.at += 1;
    return token.sign;
  }

  private sum(): Quantity {
    let left = this.product();
    for (let sign = this.takeOperator('+-'); sign; sign = this.takeOperator('+-')) {
      const right = this.product();
      const factor = sign === '+' ? 1 : -1;
      left =
        left.isLength || right.isLength
          ? { value: this.asLength(left) + factor * this.asLength(right), isLength: true }
          : { value: left.value + factor * right.value, isLength: false };
    }
    return left;
  }

  private product(): Quantity {
    let left = this.signed();
    for (let sign = this.takeOperator('*/'); sign; sign = this.takeOperator('*/')) {
      const right = this.signed();
      if (right.isLength && (left.isLength || sign === '/'))
        throw new LengthProblem(message('length.area', { typed: this.typed }));
      if (sign === '/' && right.value === 0) throw new LengthProblem(message('length.zero', { typed: this.typed }));
      left = {
        value: sign === '*' ? left.value * right.value : left.value / right.value,
        isLength: left.isLength || right.isLength,
      };
    }
    return left;
  }

  private signed(): Quantity {
    const sign = this.takeOperator('+-');
    if (sign) {
      const inner = this.signed();
      return sign === '-' ? { ...inner, value: -inner.value } : inner;
    }
    if (this.takeOperator('(')) {
      const inner = this.sum();
      if (!this.takeOperator(')')) this.fail();
      return inner;
    }
    return this.quantity();
  }

  /** A number with its fraction and unit, feet followed by inches included. */
  private quantity(): Quantity {
    const value = this.mixedNumber();
    const unit = this.tokens[this.at];
    if (unit?.kind !== 'unit') return { value, isLength: false };
    this.at += 1;
    let total = value * unit.mm;
    if (unit.feet && this.tokens[this.at]?.kind === 'number') {
      total += this.mixedNumber() * MM_PER_INCH;
      const inches = this.tokens[this.at];
      if (inches?.kind === 'unit') {
        if (inches.mm !== MM_PER_INCH) this.fail();
        this.at += 1;
      }
    }
    return { value: total, isLength: true };
  }

  private mixedNumber(): number {
    const whole = this.tokens[this.at];
    if (whole?.kind !== 'number') this.fail();
    this.at += 1;
    const fraction = this.fractionAt(this.at);
    if (fraction !== null) {
      this.at += 3;
      return whole.value + fraction;
    }
    // `7/8 in`: a bare fraction that carries a unit is one number, not a division of a length
    const own = this.fractionAt(this.at - 1);
    if (own !== null && this.tokens[this.at + 2]?.kind === 'unit') {
      this.at += 2;
      return own;
    }
    return whole.value;
  }

  private fractionAt(at: number): number | null {
    const [top, bar, bottom] = [this.tokens[at], this.tokens[at + 1], this.tokens[at + 2]];
    if (top?.kind !== 'number' || bar?.kind !== 'operator' || bar.sign !== '/' || bottom?.kind !== 'number')
      return null;
    if (bottom.value === 0) throw new LengthProblem(message('length.zero', { typed: this.typed }));
    return top.value / bottom.value;
  }
}

/**
 * Reads a length as people write it: `1420`, `142 cm`, `4' 7 7/8"`, `55 7/8 in`, `48 1/2`, and sums such as `2440-2*18`.
 * A plain number is in the reader's own units. The result is rounded to a millionth of a millimetre, so that every
 * 1/32 in is exact and what is written by {@link formatEntry} is read back unchanged.
 * @param text what was typed
 * @param units the units of a plain number
 * @returns millimetres, or a message that names what was typed and what is allowed; never throws
 */
export function parseLength(text: string, units: UnitSystem): LengthResult {
  const clean = normalise(text);
  if (clean === '') return { ok: false, error: message('length.empty') };
  try {
    const exact = new SumReader(tokenise(clean), clean, units === 'mm' ? 1 : MM_PER_INCH).read();
    const rounded = Math.round(exact * NANOMETRE) / NANOMETRE;
    if (!Number.isFinite(rounded) || Math.abs(rounded) > LARGEST_LENGTH_MM)
      return { ok: false, error: message('length.large', { typed: clean }) };
    return { ok: true, mm: rounded === 0 ? 0 : rounded };
  } catch (problem) {
    if (problem instanceof LengthProblem) return { ok: false, error: problem.said };
    throw problem;
  }
}

function greatestDivisor(a: number, b: number): number {
  return b === 0 ? a : greatestDivisor(b, a % b);
}

function writeFraction(parts: number, denominator: number): string {
  const whole = Math.floor(parts / denominator);
  const rest = parts % denominator;
  if (rest === 0) return String(whole);
  const divisor = greatestDivisor(rest, denominator);
  return `${whole === 0 ? '' : `${whole} `}${rest / divisor}/${denominator / divisor}`;
}

/** Groups digits by threes with a narrow space: `2140` becomes `2 140`. */
export function groupDigits(value: number, decimals = 0): string {
  const [whole = '0', rest] = Math.abs(value).toFixed(decimals).split('.');
  const grouped = whole.replace(/\B(?=(\d{3})+$)/g, '\u202f');
  const isZero = Number(Math.abs(value).toFixed(decimals)) === 0;
  return `${value < 0 && !isZero ? '−' : ''}${grouped}${rest === undefined ? '' : `.${rest}`}`;
}

/**
 * Writes a length for reading, without its unit: whole millimetres, or inches with the nearest fraction.
 * @param decimals decimals of a metric length; 0 when not given
 */
export function formatLength(mm: number, style: LengthStyle, decimals = 0): string {
  if (style.units === 'mm') return groupDigits(mm, decimals);
  const parts = Math.round((Math.abs(mm) / MM_PER_INCH) * style.fraction);
  return `${mm < 0 && parts > 0 ? '−' : ''}${writeFraction(parts, style.fraction)}`;
}

/** The finest step a saw is set to: half a millimetre, and a thirty-second of an inch. */
const SAWN_STEP_MM = 0.5;
const SAWN_FRACTION = 32;

/**
 * Writes a length that is to be sawn, marked or set at a fence, without its unit: to the nearest half millimetre, whole ones
 * without a decimal, or to the nearest thirty-second of an inch. Everything that is cut is written by this one function, so
 * that drawing, list, label and fence say the same.
 */
export function formatSawn(mm: number, style: LengthStyle): string {
  if (style.units === 'in') return formatLength(mm, { ...style, fraction: SAWN_FRACTION });
  const steps = Math.round(mm / SAWN_STEP_MM) * SAWN_STEP_MM;
  return groupDigits(steps, Number.isInteger(steps) ? 0 : 1);
}

/** The same with the unit: `1 420 mm`, `55 7/8 in`. */
export function formatLengthWithUnit(mm: number, style: LengthStyle, decimals = 0): string {
  return `${formatLength(mm, style, decimals)}\u00a0${style.units}`;
}

/**
 * Writes a length for an entry field so that reading it back gives the same number to the millionth of a millimetre:
 * an inch fraction when the value is one, plain decimals otherwise.
 */
export function formatEntry(mm: number, style: LengthStyle): string {
  const sign = mm < 0 ? '-' : '';
  const size = Math.abs(mm);
  if (style.units === 'mm') return `${sign}${Number(size.toFixed(6))}`;
  const parts = Math.round((size / MM_PER_INCH) * 32);
  if (Math.abs((parts / 32) * MM_PER_INCH - size) < 1e-7) return `${sign}${writeFraction(parts, 32)}`;
  return `${sign}${Number((size / MM_PER_INCH).toFixed(9))}`;
}
