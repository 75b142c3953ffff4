import type { Point } from '@nestplank/core/numeric';
import type { Capsule } from './body.js';

const INK_PX = 1.5;

/** A person as a plain outline: every limb once thicker in ink, then all of them in paper, so that only the outside is left. */
export function BodyOutline({
  body,
  at,
  scale,
  tone = 'var(--ink)',
}: {
  readonly body: readonly Capsule[];
  readonly at: (place: Point) => Point;
  /** Pixels a millimetre. */
  readonly scale: number;
  readonly tone?: string;
}) {
  const limbs = (stroke: string, more: number) =>
    body.map(({ from, to, radius }, i) => {
      const [[x1, y1], [x2, y2]] = [at(from), at(to)];
      return (
        <line
          key={i}
          x1={x1}
          y1={y1}
          // a limb of no length is still drawn round
          x2={x2 === x1 && y2 === y1 ? x2 + 0.01 : x2}
          y2={y2}
          stroke={stroke}
          strokeWidth={2 * radius * scale + more}
        />
      );
    });
  return (
    <g strokeLinecap="round" pointerEvents="none">
      {limbs(tone, 2 * INK_PX)}
      {limbs('var(--paper)', 0)}
    </g>
  );
}
