import type { Survey } from '../document/schema.js';
import { message, type Message, mm } from '../words/message.js';
import { isSectionPlace, parseAddress, valueAt } from '../document/address.js';
import { departuresOf, predict, surfaceModel, type SurfaceModel } from './surface-model.js';
import { HAIR_MM } from '../numeric/tolerance.js';

/** A reading that departs from what the others predict by more than this, and by so many spreads, is looked at again. */
const OUTLIER_MM = 7;
const OUTLIER_SPREADS = 2.9;

export interface Expectation {
  readonly value: number;
  /** Half-width of the interval the other readings leave open, mm: two spreads. */
  readonly within: number;
}

/**
 * What a wall or roof reading ought to be by all the others; null when too little is known to say. The reading itself is
 * left out, so a slip cannot vouch for itself.
 * @param without further readings that are not trusted
 */
export function expectedAt(
  survey: Survey,
  address: string,
  without: ReadonlySet<string> = new Set(),
): Expectation | null {
  const place = parseAddress(address);
  if (!isSectionPlace(place) || place.what === 'width') return null;
  const x = valueAt(survey, `station/${place.id}/x`);
  if (x === null) return null;
  const said = predict(surfaceModel(survey, new Set([...without, address])), {
    surface: place.what,
    x,
    at: place.along,
  });
  return said && said.spread < EXPECT_WITHIN_MM ? { value: said.value, within: 2 * said.spread + 2 } : null;
}
/** A wider expectation than this is none, mm. */
const EXPECT_WITHIN_MM = 30;

/** The slip that would explain a reading that is off: a digit wrong or swapped, inches or centimetres read for millimetres, a foot lost. */
export function likelySlip(
  value: number,
  expected: Expectation,
): { readonly slip: Message; readonly value: number } | null {
  const near = (candidate: number): boolean =>
    Math.abs(candidate - expected.value) <= Math.max(expected.within, OUTLIER_MM);
  const digits = String(Math.round(value));
  for (let i = 0; i + 1 < digits.length; i += 1) {
    const swapped = Number(digits.slice(0, i) + (digits[i + 1] ?? '') + (digits[i] ?? '') + digits.slice(i + 2));
    if (swapped !== Math.round(value) && near(swapped))
      return { slip: message('slip.digits', { value: mm(swapped) }), value: swapped };
  }
  for (const [key, factor] of [
    ['slip.centimetres', 10],
    ['slip.inches', 25.4],
  ] as const)
    if (near(value * factor)) return { slip: message(key, { value: mm(value * factor) }), value: value * factor };
  if (near(value + 304.8)) return { slip: message('slip.foot', { value: mm(value + 304.8) }), value: value + 304.8 };
  // a figure of whole inches or sixteenths was read in inches: its digits in millimetres say nothing
  const sixteenths = (value / 25.4) * 16;
  if (value > 0 && Math.abs(sixteenths - Math.round(sixteenths)) < HAIR_MM) {
    for (const off of [25.4, -25.4])
      if (near(value + off)) return { slip: message('slip.inch', { value: mm(value + off) }), value: value + off };
  }
  return wrongDigit(digits, near);
}

/** One digit read or written wrongly, the last left alone: it makes no difference that could be told. */
function wrongDigit(
  digits: string,
  near: (value: number) => boolean,
): { readonly slip: Message; readonly value: number } | null {
  for (let i = 0; i + 1 < digits.length; i += 1)
    for (let digit = i === 0 ? 1 : 0; digit <= 9; digit += 1) {
      const other = Number(`${digits.slice(0, i)}${digit}${digits.slice(i + 1)}`);
      if (String(digit) !== digits[i] && near(other))
        return { slip: message('slip.digit', { value: mm(other) }), value: other };
    }
  return null;
}

export interface Outlier {
  readonly address: string;
  readonly value: number;
  readonly expected: Expectation;
  readonly slip: Message | null;
  /** What the slip would make of it, mm. */
  readonly meant: number | null;
}

/**
 * Wall and roof readings that the others do not bear out. The worst is named first and then left out, so that one slip
 * does not cast doubt on the readings beside it.
 */
export function outliersOf(survey: Survey, model: SurfaceModel = surfaceModel(survey)): Outlier[] {
  return departuresOf(model, OUTLIER_MM, OUTLIER_SPREADS).map(({ sample, expected, spread }) => {
    const expectation = { value: expected, within: 2 * spread + 2 };
    const slip = likelySlip(sample.value, expectation);
    return {
      address: sample.address,
      value: sample.value,
      expected: expectation,
      slip: slip?.slip ?? null,
      meant: slip?.value ?? null,
    };
  });
}
