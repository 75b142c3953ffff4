import type { Survey } from '../document/schema.js';
import { message, mm, type Message } from '../words/message.js';
import { isSectionPlace, parseAddress, valueAt, wallAddress } from '../document/address.js';
import { heightsOf } from './walk.js';

/** Readings of one thing may differ by this much before they are looked at again, mm. */
const TIGHT_MM = 5;
const FAILS_MM = 12;

export interface Closure {
  readonly what: Message;
  readonly said: Message;
  /** mm by which the readings disagree. */
  readonly error: number;
  readonly verdict: 'good' | 'tight' | 'fails';
  readonly addresses: readonly string[];
}

const verdictOf = (error: number): Closure['verdict'] =>
  error <= TIGHT_MM ? 'good' : error <= FAILS_MM ? 'tight' : 'fails';

const nameOf = (survey: Survey, id: string): string => survey.stations.find((station) => station.id === id)?.name ?? id;

function closure(what: Message, said: Message, error: number, addresses: readonly string[]): Closure {
  return { what, said, error: Math.abs(error), verdict: verdictOf(Math.abs(error)), addresses };
}

function widthClosures(survey: Survey): Closure[] {
  return Object.keys(survey.readings).flatMap((address) => {
    const place = parseAddress(address);
    if (!isSectionPlace(place) || place.what !== 'width') return [];
    const [left, right] = [wallAddress(place.id, 'left', place.along), wallAddress(place.id, 'right', place.along)];
    const [l, r, w] = [valueAt(survey, left), valueAt(survey, right), valueAt(survey, address)];
    if (l === null || r === null || w === null) return [];
    return [
      closure(
        message('closure.width', { name: nameOf(survey, place.id), z: mm(place.along) }),
        message('closure.width.said', { left: mm(l), right: mm(r), sum: mm(l + r), taped: mm(w) }),
        l + r - w,
        [left, right, address],
      ),
    ];
  });
}

/** Front datum to a station and from there to the rear sill, against the whole. */
function lengthClosures(survey: Survey): Closure[] {
  const whole = valueAt(survey, 'floor/length');
  return survey.stations.flatMap(({ id, name }) => {
    const [x, rest] = [valueAt(survey, `station/${id}/x`), valueAt(survey, `station/${id}/rest`)];
    if (x === null || rest === null || whole === null) return [];
    return [
      closure(
        message('closure.length', { name }),
        message('closure.length.said', { x: mm(x), rest: mm(rest), sum: mm(x + rest), whole: mm(whole) }),
        x + rest - whole,
        [`station/${id}/x`, `station/${id}/rest`, 'floor/length'],
      ),
    ];
  });
}

/**
 * A station's diagonal against its halves: from low on one side to high on the other,
 * d^2 = (half at the foot + half at the top on the other side)^2 + (height between)^2.
 */
function diagonalClosures(survey: Survey): Closure[] {
  return survey.stations.flatMap(({ id, name }) => {
    const heights = heightsOf(survey, id).filter(
      (z) => z === Math.min(...survey.heights) || z === Math.max(...survey.heights),
    );
    const [low, high] = [heights[0] ?? 0, heights.at(-1) ?? 0];
    return (['diagonal-a', 'diagonal-b'] as const).flatMap((which) => {
      const [from, to] = which === 'diagonal-a' ? (['left', 'right'] as const) : (['right', 'left'] as const);
      const [a, b] = [wallAddress(id, from, low), wallAddress(id, to, high)];
      const address = `station/${id}/${which}`;
      const [foot, top, taped] = [valueAt(survey, a), valueAt(survey, b), valueAt(survey, address)];
      if (foot === null || top === null || taped === null || high <= low) return [];
      const worked = Math.hypot(foot + top, high - low);
      return [
        closure(
          message(`closure.station.${which}`, { name }),
          message('closure.worked', { worked: mm(worked), taped: mm(taped) }),
          worked - taped,
          [a, b, address],
        ),
      ];
    });
  });
}

/** By how much the diagonals of an opening differ when it is as its edges were read: not at all where its sides stand upright, mm. */
function expectedDifference(survey: Survey, { id, slanted }: Survey['openings'][number]): number {
  const read = (what: string): number | null => valueAt(survey, `opening/${id}/${what}`);
  const [from, to, sill, head] = [read('from'), read('to'), read('sill'), read('head')];
  if (!slanted || from === null || to === null || sill === null || head === null) return 0;
  const [fromHead, toHead] = [read('from-head') ?? from, read('to-head') ?? to];
  return Math.hypot(toHead - from, head - sill) - Math.hypot(to - fromHead, head - sill);
}

/** Opening diagonals: equal when the opening is square, and apart by what its slant makes of them when it is not. */
function openingClosures(survey: Survey): Closure[] {
  return survey.openings.flatMap((opening) => {
    const { id, name } = opening;
    const [a, b] = [valueAt(survey, `opening/${id}/diagonal-a`), valueAt(survey, `opening/${id}/diagonal-b`)];
    if (a === null || b === null) return [];
    return [
      closure(
        message('closure.opening', { name }),
        message('closure.diagonals.said', { a: mm(a), b: mm(b) }),
        a - b - expectedDifference(survey, opening),
        [`opening/${id}/diagonal-a`, `opening/${id}/diagonal-b`],
      ),
    ];
  });
}

/**
 * Readings that measure the same thing twice, and whether they agree: the floor's diagonals, widths against their halves,
 * lengths against the whole, diagonals of stations and openings.
 */
export function closuresOf(survey: Survey): Closure[] {
  const [a, b] = [valueAt(survey, 'floor/diagonal-a'), valueAt(survey, 'floor/diagonal-b')];
  const floor =
    a === null || b === null
      ? []
      : [
          closure(message('closure.diagonals'), message('closure.diagonals.said', { a: mm(a), b: mm(b) }), a - b, [
            'floor/diagonal-a',
            'floor/diagonal-b',
          ]),
        ];
  return [
    ...floor,
    ...widthClosures(survey),
    ...lengthClosures(survey),
    ...diagonalClosures(survey),
    ...openingClosures(survey),
  ];
}
