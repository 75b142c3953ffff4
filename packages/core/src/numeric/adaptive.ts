/** A stretch is halved at most so often. */
const MOST_HALVINGS = 7;

/**
 * Places along a function at which straight lines between its values stay within a tolerance of it: a stretch is halved for
 * as long as its values at a quarter, the middle and three quarters lie off its chord. Corners of the function come out as
 * close pairs of places.
 * @param least how many places there are at least, the ends included
 * @returns in order, `from` and `to` included
 */
export function placesAlong(
  value: (at: number) => number,
  { from, to, tolerance, least }: { from: number; to: number; tolerance: number; least: number },
): number[] {
  if (to <= from) return [from];
  const places = [from];
  const follow = (a: number, valueA: number, b: number, valueB: number, left: number): void => {
    const middle = (a + b) / 2;
    const valueM = value(middle);
    const off = (share: number, found: number): number => Math.abs(found - valueA - share * (valueB - valueA));
    const straight =
      off(0.5, valueM) <= tolerance &&
      off(0.25, value(a + (b - a) / 4)) <= tolerance &&
      off(0.75, value(b - (b - a) / 4)) <= tolerance;
    if (straight || left === 0) {
      places.push(b);
      return;
    }
    follow(a, valueA, middle, valueM, left - 1);
    follow(middle, valueM, b, valueB, left - 1);
  };
  const count = Math.max(1, least - 1);
  let before = value(from);
  for (let i = 1; i <= count; i += 1) {
    const [a, b] = [from + ((i - 1) * (to - from)) / count, from + (i * (to - from)) / count];
    const after = value(b);
    follow(a, before, b, after, MOST_HALVINGS);
    before = after;
  }
  return places;
}
