/**
 * A curve through points (at[i], value[i]) with a slope at each, cubic in between.
 * Plain data, so that it can be sent between threads.
 */
export interface Curve {
  readonly at: readonly number[];
  readonly value: readonly number[];
  readonly slope: readonly number[];
}

export class CurveError extends Error {}

function get(list: readonly number[], index: number): number {
  const value = list[index];
  if (value === undefined) throw new CurveError(`A curve was asked for point ${index} of ${list.length}.`);
  return value;
}

/** One-sided three-point slope at an end, limited so that the curve keeps the shape of its points (Fritsch and Carlson). */
function endSlope(step: number, nextStep: number, secant: number, nextSecant: number): number {
  const slope = ((2 * step + nextStep) * secant - step * nextSecant) / (step + nextStep);
  if (Math.sign(slope) !== Math.sign(secant)) return 0;
  if (Math.sign(secant) !== Math.sign(nextSecant) && Math.abs(slope) > Math.abs(3 * secant)) return 3 * secant;
  return slope;
}

/** Slope at a point between two pieces: the weighted harmonic mean of their secants, 0 at a turning point. */
function innerSlope(stepBefore: number, stepAfter: number, before: number, after: number): number {
  if (before * after <= 0) return 0;
  const weightBefore = 2 * stepAfter + stepBefore;
  const weightAfter = stepAfter + 2 * stepBefore;
  return (weightBefore + weightAfter) / (weightBefore / before + weightAfter / after);
}

/** The cubic piece between two values with their slopes, at share t of the step. */
function hermite(a: number, slopeA: number, b: number, slopeB: number, step: number, t: number): number {
  const u = 1 - t;
  return (1 + 2 * t) * u * u * a + t * u * u * step * slopeA + t * t * (3 - 2 * t) * b - t * t * u * step * slopeB;
}

/**
 * Shape-preserving cubic through the points: no overshoot between them, straight where the points are straight.
 * Slopes are the weighted harmonic means of neighbouring secants (Fritsch and Butland 1984).
 * @param at strictly increasing positions, mm
 * @param value one value for each position, mm
 * @throws CurveError when there is no point or the positions do not increase
 */
export function monotoneCurve(at: readonly number[], value: readonly number[]): Curve {
  const count = at.length;
  if (count === 0 || count !== value.length)
    throw new CurveError('A curve needs as many values as positions, and at least one.');
  if (count === 1) return { at, value, slope: [0] };
  const steps: number[] = [];
  const secants: number[] = [];
  for (let i = 0; i + 1 < count; i += 1) {
    const step = get(at, i + 1) - get(at, i);
    if (!(step > 0)) throw new CurveError('The positions of a curve must increase.');
    steps.push(step);
    secants.push((get(value, i + 1) - get(value, i)) / step);
  }
  if (count === 2) return { at, value, slope: [get(secants, 0), get(secants, 0)] };
  const slope: number[] = [endSlope(get(steps, 0), get(steps, 1), get(secants, 0), get(secants, 1))];
  for (let i = 1; i + 1 < count; i += 1) {
    slope.push(innerSlope(get(steps, i - 1), get(steps, i), get(secants, i - 1), get(secants, i)));
  }
  slope.push(endSlope(get(steps, count - 2), get(steps, count - 3), get(secants, count - 2), get(secants, count - 3)));
  return { at, value, slope };
}

/** The index of the piece that holds `x`: largest i with at[i] <= x, kept inside the curve. */
function pieceOf(at: readonly number[], x: number): number {
  let low = 0;
  let high = at.length - 1;
  while (high - low > 1) {
    const middle = (low + high) >> 1;
    if (get(at, middle) <= x) low = middle;
    else high = middle;
  }
  return low;
}

/** Value of the curve at `x`; beyond its ends the end value is held. */
export function evaluate(curve: Curve, x: number): number {
  const last = curve.at.length - 1;
  if (x <= get(curve.at, 0)) return get(curve.value, 0);
  if (x >= get(curve.at, last)) return get(curve.value, last);
  const i = pieceOf(curve.at, x);
  const step = get(curve.at, i + 1) - get(curve.at, i);
  const t = (x - get(curve.at, i)) / step;
  return hermite(get(curve.value, i), get(curve.slope, i), get(curve.value, i + 1), get(curve.slope, i + 1), step, t);
}

/** Slope of the curve at `x`; 0 beyond its ends, where the value is held. */
export function slopeAt(curve: Curve, x: number): number {
  const last = curve.at.length - 1;
  if (last === 0 || x < get(curve.at, 0) || x > get(curve.at, last)) return 0;
  const i = pieceOf(curve.at, x);
  const step = get(curve.at, i + 1) - get(curve.at, i);
  const t = (x - get(curve.at, i)) / step;
  return (
    ((6 * t * t - 6 * t) * get(curve.value, i) + (6 * t - 6 * t * t) * get(curve.value, i + 1)) / step +
    (3 * t * t - 4 * t + 1) * get(curve.slope, i) +
    (3 * t * t - 2 * t) * get(curve.slope, i + 1)
  );
}

/** The place of a position in a curve that is worked out from few of its values: before its first point, behind its last, or in a piece of it. */
export function pieceAt(at: readonly number[], x: number): number {
  const last = at.length - 1;
  if (last <= 0 || x <= get(at, 0)) return -1;
  return x >= get(at, last) ? last : pieceOf(at, x);
}
/** Which values a curve needs in a piece of it: from position number to position number, at most four. */
export const neededFrom = (piece: number): number => Math.max(0, piece - 1);
export const neededTo = (at: readonly number[], piece: number): number =>
  piece < 0 ? 0 : Math.min(at.length - 1, piece + 2);

/**
 * The same curve at one place without making it: only the values it needs there are read, which lets them be worked out on
 * demand, such as a wall between stations.
 * @param at strictly increasing positions
 * @param known values by position number: those that `neededFrom` and `neededTo` name
 * @param i the piece that holds `x`, by `pieceAt`
 */
export function evaluateKnown(at: readonly number[], known: Float64Array, x: number, i: number): number {
  const last = at.length - 1;
  if (i < 0) return known[0] as number;
  if (i >= last) return known[last] as number;
  const from = get(at, i);
  const to = get(at, i + 1);
  const step = to - from;
  const a = known[i] as number;
  const b = known[i + 1] as number;
  const secant = (b - a) / step;
  const t = (x - from) / step;
  if (last === 1) return a + (b - a) * t;
  const stepBefore = i > 0 ? from - get(at, i - 1) : 0;
  const secantBefore = i > 0 ? (a - (known[i - 1] as number)) / stepBefore : 0;
  const stepAfter = i + 1 < last ? get(at, i + 2) - to : 0;
  const secantAfter = i + 1 < last ? ((known[i + 2] as number) - b) / stepAfter : 0;
  const slopeA =
    stepBefore > 0
      ? innerSlope(stepBefore, step, secantBefore, secant)
      : endSlope(step, stepAfter, secant, secantAfter);
  const slopeB =
    stepAfter > 0 ? innerSlope(step, stepAfter, secant, secantAfter) : endSlope(step, stepBefore, secant, secantBefore);
  return hermite(a, slopeA, b, slopeB, step, t);
}
