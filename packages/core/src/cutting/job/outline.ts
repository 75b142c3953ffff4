/** A point of an outline in whole thousandths of a millimetre. */
export type Dot = readonly [number, number];
export type Outline = readonly Dot[];

/** Thousandths of a millimetre in a millimetre. */
export const FINE = 1000;

/** An outline turned by quarters about its bounding rectangle, whose corner stays at 0, 0. */
export function turnOutline(outline: Outline, length: number, width: number, quarters: number): Dot[] {
  return outline.map(([x, y]): Dot => {
    switch (quarters) {
      case 1:
        return [width - y, x];
      case 2:
        return [length - x, width - y];
      case 3:
        return [y, length - x];
      default:
        return [x, y];
    }
  });
}

const following = (outline: Outline, i: number): Dot => outline[(i + 1) % outline.length] ?? [0, 0];

/** Area by the shoelace formula; never negative. */
export function outlineArea(outline: Outline): number {
  return (
    Math.abs(outline.reduce((sum, [x, y], i) => sum + x * following(outline, i)[1] - following(outline, i)[0] * y, 0)) /
    2
  );
}

export function perimeter(outline: Outline): number {
  return outline.reduce(
    (sum, [x, y], i) => sum + Math.hypot(following(outline, i)[0] - x, following(outline, i)[1] - y),
    0,
  );
}

/** Whether every corner turns the same way. */
export function isConvex(outline: Outline): boolean {
  let sign = 0;
  return outline.every((point, i) => {
    const next = following(outline, i);
    const after = following(outline, i + 1);
    const turn = Math.sign((next[0] - point[0]) * (after[1] - next[1]) - (next[1] - point[1]) * (after[0] - next[0]));
    if (turn === 0) return true;
    if (sign === 0) sign = turn;
    return turn === sign;
  });
}

const side = (a: Dot, b: Dot, p: Dot): number => (b[0] - a[0]) * (p[1] - a[1]) - (b[1] - a[1]) * (p[0] - a[0]);

/** Whether two edges cross or touch. */
function meet(a: Dot, b: Dot, c: Dot, d: Dot): boolean {
  const [s1, s2, s3, s4] = [side(a, b, c), side(a, b, d), side(c, d, a), side(c, d, b)];
  const within = (p: Dot, q: Dot, r: Dot): boolean =>
    r[0] >= Math.min(p[0], q[0]) &&
    r[0] <= Math.max(p[0], q[0]) &&
    r[1] >= Math.min(p[1], q[1]) &&
    r[1] <= Math.max(p[1], q[1]);
  if (s1 * s2 < 0 && s3 * s4 < 0) return true;
  return (
    (s1 === 0 && within(a, b, c)) ||
    (s2 === 0 && within(a, b, d)) ||
    (s3 === 0 && within(c, d, a)) ||
    (s4 === 0 && within(c, d, b))
  );
}

/** The first two edges of an outline that cross although they are no neighbours, counted from 0; null when none do. */
export function selfCrossing(outline: Outline): readonly [number, number] | null {
  for (let i = 0; i < outline.length; i += 1)
    for (let j = i + 2; j < outline.length; j += 1) {
      if (i === 0 && j === outline.length - 1) continue;
      const [a, c] = [outline[i], outline[j]];
      if (a && c && meet(a, following(outline, i), c, following(outline, j))) return [i, j];
    }
  return null;
}

function toSegment(p: Dot, a: Dot, b: Dot): number {
  const [dx, dy] = [b[0] - a[0], b[1] - a[1]];
  const square = dx * dx + dy * dy;
  const t = square === 0 ? 0 : Math.max(0, Math.min(1, ((p[0] - a[0]) * dx + (p[1] - a[1]) * dy) / square));
  return Math.hypot(p[0] - a[0] - t * dx, p[1] - a[1] - t * dy);
}

/** Whether a point lies within an outline (crossing number); on the edge either way. */
export function within(p: Dot, outline: Outline): boolean {
  let odd = false;
  outline.forEach((a, i) => {
    const b = following(outline, i);
    if (a[1] > p[1] !== b[1] > p[1] && p[0] < a[0] + ((p[1] - a[1]) * (b[0] - a[0])) / (b[1] - a[1])) odd = !odd;
  });
  return odd;
}

/** The clear distance between two outlines; 0 when they touch, cross or lie in one another. */
export function clearance(a: Outline, b: Outline): number {
  const [p, q] = [a[0], b[0]];
  if (!p || !q || within(p, b) || within(q, a)) return 0;
  let least = Infinity;
  for (let i = 0; i < a.length; i += 1)
    for (let j = 0; j < b.length; j += 1) {
      const [s, t] = [a[i], b[j]];
      if (!s || !t) continue;
      const [s2, t2] = [following(a, i), following(b, j)];
      if (meet(s, s2, t, t2)) return 0;
      least = Math.min(least, toSegment(s, t, t2), toSegment(t, s, s2));
    }
  return least;
}
