import type { Point } from '@nestplank/core/numeric';

/** Screws on a drawing: open where something will hide them, filled where they stay in sight. */
export function Fixings({
  points,
  at,
}: {
  readonly points: readonly { readonly at: Point; readonly hidden: boolean }[];
  readonly at: (point: Point) => Point;
}) {
  return (
    <g pointerEvents="none">
      {points.map((point, i) => {
        const [x, y] = at(point.at);
        return point.hidden ? (
          <circle key={i} cx={x} cy={y} r={2.2} fill="none" stroke="var(--data)" />
        ) : (
          <circle key={i} cx={x} cy={y} r={2} fill="var(--data)" />
        );
      })}
    </g>
  );
}
