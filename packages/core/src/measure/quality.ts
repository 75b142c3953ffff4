import type { Reading, Survey } from '../project/schema.js';
import { evaluate, monotoneCurve } from '../numeric/curve.js';
import { message, mm, type Message } from '../words/message.js';
import { parseAddress, valueAt, wallAddress, roofAddress } from './address.js';

/** Half-width of the interval a single reading is trusted to, mm, by method: handling of a tape, a laser spot, a card pattern. */
const TRUST_MM: Readonly<Record<Reading['method'], number>> = {
  tape: 2,
  laser: 1.5,
  template: 1,
  'angle-finder': 3,
  estimate: 25,
};
/** A width may differ from the sum of its halves by this much before it is looked at again, mm. */
const CLOSURE_TIGHT_MM = 5;
const CLOSURE_FAILS_MM = 12;
/** A reading that departs from its neighbours by more than this is looked at again, mm. */
const OUTLIER_MM = 14;

/** How far a reading can be trusted, mm: its method's, or half the spread of its repeats when that is more. */
export function uncertaintyOf(reading: Reading): number {
  const all = [reading.value, ...(reading.repeats ?? [])];
  return Math.max(TRUST_MM[reading.method], (Math.max(...all) - Math.min(...all)) / 2);
}

export interface Closure {
  readonly what: Message;
  readonly said: Message;
  /** mm by which the readings disagree. */
  readonly error: number;
  readonly verdict: 'good' | 'tight' | 'fails';
  readonly addresses: readonly string[];
}

const verdictOf = (error: number): Closure['verdict'] =>
  error <= CLOSURE_TIGHT_MM ? 'good' : error <= CLOSURE_FAILS_MM ? 'tight' : 'fails';

/** Readings that measure the same thing twice, and whether they agree: widths against their halves, the two floor diagonals. */
export function closuresOf(survey: Survey): Closure[] {
  const closures: Closure[] = [];
  const [a, b] = [valueAt(survey, 'floor/diagonal-a'), valueAt(survey, 'floor/diagonal-b')];
  if (a !== null && b !== null) {
    const error = Math.abs(a - b);
    closures.push({
      what: message('closure.diagonals'),
      said: message('closure.diagonals.said', { a: mm(a), b: mm(b) }),
      error,
      verdict: verdictOf(error),
      addresses: ['floor/diagonal-a', 'floor/diagonal-b'],
    });
  }
  for (const address of Object.keys(survey.readings)) {
    const place = parseAddress(address);
    if (place?.kind !== 'station' || place.what !== 'width') continue;
    const [left, right] = [wallAddress(place.id, 'left', place.along), wallAddress(place.id, 'right', place.along)];
    const [l, r, w] = [valueAt(survey, left), valueAt(survey, right), valueAt(survey, address)];
    if (l === null || r === null || w === null) continue;
    const error = Math.abs(l + r - w);
    const name = survey.stations.find((station) => station.id === place.id)?.name ?? place.id;
    closures.push({
      what: message('closure.width', { name, z: mm(place.along) }),
      said: message('closure.width.said', { left: mm(l), right: mm(r), sum: mm(l + r), taped: mm(w) }),
      error,
      verdict: verdictOf(error),
      addresses: [left, right, address],
    });
  }
  return closures;
}

export interface Expectation {
  readonly value: number;
  /** Half-width of the interval the neighbours leave open, mm. */
  readonly within: number;
}

interface Neighbour {
  readonly at: number;
  readonly value: number;
}

/** Straight-line estimate at `at` from the nearest neighbour on each side, and how far those neighbours are from agreeing. */
function between(neighbours: readonly Neighbour[], at: number): Expectation | null {
  const sorted = [...neighbours].sort((p, q) => p.at - q.at);
  const before = sorted.filter((n) => n.at < at).at(-1);
  const after = sorted.find((n) => n.at > at);
  if (before && after) {
    const curve =
      sorted.length >= 3
        ? monotoneCurve(
            sorted.map((n) => n.at),
            sorted.map((n) => n.value),
          )
        : null;
    const straight = before.value + ((after.value - before.value) * (at - before.at)) / (after.at - before.at);
    const value = curve ? (evaluate(curve, at) + straight) / 2 : straight;
    return { value, within: OUTLIER_MM / 2 + Math.abs(after.value - before.value) / 6 };
  }
  const near = before ?? after;
  return near ? { value: near.value, within: OUTLIER_MM + Math.abs(at - near.at) / 25 } : null;
}

/**
 * What a wall or roof reading ought to be by its neighbours along the vehicle at the same height; null when there are none.
 * The reading itself is left out, so a slip cannot vouch for itself.
 * @param without further readings that are not trusted
 */
export function expectedAt(
  survey: Survey,
  address: string,
  without: ReadonlySet<string> = new Set(),
): Expectation | null {
  const place = parseAddress(address);
  if (place?.kind !== 'station' || place.what === 'x' || place.what === 'width') return null;
  const own = valueAt(survey, `station/${place.id}/x`);
  if (own === null) return null;
  const make = (id: string): string =>
    place.what === 'roof'
      ? roofAddress(id, place.along)
      : wallAddress(id, place.what === 'left' ? 'left' : 'right', place.along);
  const neighbours = survey.stations.flatMap((station): Neighbour[] => {
    const at = valueAt(survey, `station/${station.id}/x`);
    const value = valueAt(survey, make(station.id));
    return station.id === place.id || without.has(make(station.id)) || at === null || value === null || at === own
      ? []
      : [{ at, value }];
  });
  return between(dropEqual(neighbours), own);
}

function dropEqual(neighbours: readonly Neighbour[]): Neighbour[] {
  return neighbours.filter((n, i) => neighbours.findIndex((other) => other.at === n.at) === i);
}

/** The slip that would explain a reading that is off: neighbouring digits swapped, inches or centimetres read for millimetres. */
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
  if (near(value * 10)) return { slip: message('slip.centimetres', { value: mm(value * 10) }), value: value * 10 };
  if (near(value * 25.4)) return { slip: message('slip.inches', { value: mm(value * 25.4) }), value: value * 25.4 };
  if (near(value + 304.8)) return { slip: message('slip.foot', { value: mm(value + 304.8) }), value: value + 304.8 };
  return null;
}

export interface Outlier {
  readonly address: string;
  readonly value: number;
  readonly expected: Expectation;
  readonly slip: Message | null;
}

/**
 * Wall and roof readings that depart from their neighbours beyond what the tape explains. The worst is named first and
 * then left out of its neighbours' expectation, so that one slip does not cast doubt on the readings beside it.
 */
export function outliersOf(survey: Survey): Outlier[] {
  const addresses = Object.keys(survey.readings).filter((address) => parseAddress(address)?.kind === 'station');
  const found: Outlier[] = [];
  const without = new Set<string>();
  for (;;) {
    const worst = addresses
      .filter((address) => !without.has(address))
      .map((address) => departure(survey, address, without))
      .filter((d) => d !== null)
      .reduce<Departure | null>((most, next) => (most && most.beyond >= next.beyond ? most : next), null);
    if (!worst || worst.beyond <= 0) return found;
    without.add(worst.address);
    found.push({
      address: worst.address,
      value: worst.value,
      expected: worst.expected,
      slip: likelySlip(worst.value, worst.expected)?.slip ?? null,
    });
  }
}

interface Departure extends Omit<Outlier, 'slip'> {
  /** mm beyond what is allowed. */
  readonly beyond: number;
}

function departure(survey: Survey, address: string, without: ReadonlySet<string>): Departure | null {
  const value = valueAt(survey, address);
  const expected = expectedAt(survey, address, without);
  const place = parseAddress(address);
  if (value === null || !expected || place?.kind !== 'station') return null;
  const allowed = expected.within * (isEndStation(survey, place.id) ? 5 : 1) + OUTLIER_MM;
  return { address, value, expected, beyond: Math.abs(value - expected.value) - allowed };
}

function isEndStation(survey: Survey, id: string): boolean {
  const order = survey.stations
    .map((station) => ({ id: station.id, x: valueAt(survey, `station/${station.id}/x`) }))
    .filter((station): station is { id: string; x: number } => station.x !== null)
    .sort((a, b) => a.x - b.x);
  return order[0]?.id === id || order.at(-1)?.id === id;
}
