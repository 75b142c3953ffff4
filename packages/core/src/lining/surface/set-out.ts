import type { Lined, LiningChoice } from '../../document/schema.js';
import { HAIR_MM } from '../../numeric/tolerance.js';
/** How far an edge of a surface lies at its least and at its most, mm. */
export interface EdgeRange {
  readonly min: number;
  readonly max: number;
}
/** Rows side by side over a surface, mm. */
export interface SetOut {
  /** Where each begins and ends, joints' gaps taken off. */
  readonly rows: readonly (readonly [number, number])[];
  /** How wide the first and the last are where they are narrowest. */
  readonly first: number;
  readonly last: number;
  /** False where no set-out keeps every row as wide as asked. */
  readonly legal: boolean;
}

const EPSILON = HAIR_MM;
/** Widths of a first row that are tried, beside whole and equal ones. */
const TRIES = 80;

/**
 * Sets rows of one width out between two edges that may taper, so that neither the first nor the last gets thinner than
 * `sliver` anywhere. Whole rows from the low edge are liked best; then equal first and last rows, as wide as can be; then
 * whatever first row leaves both wide enough.
 */
export function setOutRows(low: EdgeRange, high: EdgeRange, row: number, gap: number, sliver: number): SetOut {
  const wide = high.max - low.min;
  const made = (first: number): SetOut => {
    const rows: [number, number][] = [];
    for (let at = low.min, width = first; at < high.max - EPSILON; width = row) {
      rows.push([at, Math.min(high.max, at + width)]);
      at += width + gap;
    }
    const [start, end] = [rows[0], rows.at(-1)];
    const only = rows.length === 1;
    const narrow = only ? high.min - low.max : (start?.[1] ?? 0) - low.max;
    const last = only ? narrow : high.min - (end?.[0] ?? 0);
    return { rows, first: narrow, last, legal: Math.min(narrow, last) >= sliver - EPSILON };
  };
  const whole = made(Math.min(row, wide));
  if (whole.legal || wide <= row + EPSILON) return whole;
  const equal: number[] = [];
  for (let count = Math.ceil(wide / (row + gap)); count >= 0; count -= 1) {
    const rest = (wide - count * row - (count + 1) * gap) / 2;
    if (rest > 0 && rest <= row + EPSILON) equal.push(rest);
  }
  // a whole last row: what is over goes to the first
  const over = wide % (row + gap);
  if (over > gap) equal.push(over - gap);
  const others = Array.from({ length: TRIES }, (_, i) => row - ((row - 1) * i) / (TRIES - 1));
  const tried = [...equal, ...others].map(made);
  const worth = (candidate: SetOut): number => Math.min(candidate.first, candidate.last);
  return (
    tried.find((candidate) => candidate.legal) ??
    [whole, ...tried].reduce((best, candidate) => (worth(candidate) > worth(best) ? candidate : best))
  );
}

/**
 * Rows from a height that is given: a joint lies at `from`, and others a row and a gap apart above and below it.
 * @param from height of one joint's lower side, counted as the edges are, mm
 */
export function setOutFrom(
  low: EdgeRange,
  high: EdgeRange,
  row: number,
  gap: number,
  sliver: number,
  from: number,
): SetOut {
  const pitch = row + gap;
  const below = Math.floor((from - low.min) / pitch + EPSILON);
  let top = from - below * pitch;
  // a joint on the edge itself is none: the first row is whole
  if (top - low.min < EPSILON) top += pitch;
  const rows: [number, number][] = [];
  for (let at = low.min; at < high.max - EPSILON; at = top - pitch + gap) {
    rows.push([at, Math.min(high.max, top)]);
    top += pitch;
  }
  const [start, end] = [rows[0], rows.at(-1)];
  const first = rows.length === 1 ? high.min - low.max : (start?.[1] ?? 0) - low.max;
  const last = rows.length === 1 ? first : high.min - (end?.[0] ?? 0);
  return { rows, first, last, legal: Math.min(first, last) >= sliver - EPSILON };
}

/** The height lines are set out from; a ceiling has no floor to be set out from. */
export const datumOf = (choice: LiningChoice, surface: Lined): number | null =>
  surface === 'ceiling' ? null : (choice.datum ?? null);

/** Where the pieces of one row meet. */
export interface Joints {
  readonly at: readonly number[];
  /** Joints that no support lies under. */
  readonly unsupported: readonly number[];
  /** Joints nearer than wanted to one of the row before. */
  readonly close: readonly number[];
}

/** Places between supports that are thought of are this far apart, mm. */
const SPARE_MM = 100;
/** What a set of joints costs: a short piece more than one that lies on nothing, that more than one close to another row's, and that more than one more joint. */
const SHORT = 500;
const UNSUPPORTED = 120;
const CLOSE = 40;
const JOINT = 10;

/**
 * Places the joints of a row from `from` to `to`: no piece shorter than `shortest`, on supports, apart from those of the row
 * before, and then as few as the longest piece allows. Solved exactly over the supports (and evenly spread places besides) by
 * dynamic programming.
 * @param apart least distance to a joint of the row before, mm
 */
export function placeJoints(
  from: number,
  to: number,
  supports: readonly number[],
  longest: number,
  shortest: number,
  before: readonly number[],
  apart: number,
): Joints {
  if (to - from <= longest + EPSILON) return { at: [], unsupported: [], close: [] };
  const inside = supports.filter((at) => at > from + EPSILON && at < to - EPSILON);
  const placed = bestJoints(from, to, inside, inside, longest, shortest, before, apart);
  // a joint between supports is thought of only where those on them leave something to be wished for
  if (placed && placed.close.length === 0 && !placed.short) return placed;
  const spare = Array.from({ length: Math.floor((to - from) / SPARE_MM) }, (_, i) => from + SPARE_MM * (i + 1)).filter(
    (at) => at < to - EPSILON,
  );
  return (
    bestJoints(from, to, [...inside, ...spare], inside, longest, shortest, before, apart) ?? {
      at: [],
      unsupported: [],
      close: [],
    }
  );
}

/** The best joints among given places; null when no set of them keeps every piece within the longest. */
function bestJoints(
  from: number,
  to: number,
  candidates: readonly number[],
  inside: readonly number[],
  longest: number,
  shortest: number,
  before: readonly number[],
  apart: number,
): (Joints & { readonly short: boolean }) | null {
  const onSupport = (at: number): boolean => inside.some((support) => Math.abs(support - at) < 1);
  const isClose = (at: number): boolean => before.some((other) => Math.abs(other - at) < apart - EPSILON);
  const places = [from, ...[...new Set(candidates)].sort((a, b) => a - b), to];
  const costs = places.map(() => Infinity);
  const parents = places.map(() => -1);
  costs[0] = 0;
  for (let j = 1; j < places.length; j += 1) {
    const at = places[j] ?? 0;
    const joint = j === places.length - 1 ? 0 : JOINT + (onSupport(at) ? 0 : UNSUPPORTED) + (isClose(at) ? CLOSE : 0);
    for (let i = 0; i < j; i += 1) {
      const piece = at - (places[i] ?? 0);
      if (piece > longest + EPSILON) continue;
      // a short piece is taken only where nothing else goes
      const cost = (costs[i] ?? Infinity) + joint + (piece < shortest - EPSILON ? SHORT : 0);
      if (cost < (costs[j] ?? Infinity) - EPSILON) {
        costs[j] = cost;
        parents[j] = i;
      }
    }
  }
  if (!Number.isFinite(costs.at(-1) ?? Infinity)) return null;
  const at: number[] = [];
  for (let j = parents[places.length - 1] ?? -1; j > 0; j = parents[j] ?? -1) at.unshift(places[j] ?? 0);
  const ends = [from, ...at, to];
  return {
    at,
    unsupported: at.filter((joint) => !onSupport(joint)),
    close: at.filter(isClose),
    short: ends.slice(1).some((end, i) => end - (ends[i] ?? 0) < shortest - EPSILON),
  };
}
