import { memo, type ReactNode } from 'react';
import { valueAt, type Rough, type Survey } from '@nestplank/core/document';
import type { SeenOn } from '@nestplank/core/measure';
import { wallTop } from '@nestplank/core/shell';
import { onWall, type FoldOutFrame } from './geometry.js';
import { END_STRIP, roughPoint } from './rough.js';

/** About how large what was seen is drawn, mm: along the vehicle, and up the wall or across. */
const ABOUT = {
  window: [700, 420],
  door: [900, 1400],
  hatch: [450, 450],
  fan: [400, 400],
  arch: [750, 260],
  step: [700, 300],
  hump: [600, 400],
  pillar: [120, 120],
  duct: [900, 160],
  under: [500, 500],
} as const;

interface Mark {
  readonly id: string;
  readonly name: string;
  readonly on: SeenOn;
  readonly rough: Rough;
  readonly size: readonly [number, number];
  readonly line?: boolean;
  readonly door?: boolean;
}

const FLAT: Readonly<Record<'roof' | 'left' | 'right' | 'rear' | 'front', SeenOn>> = {
  roof: 'ceiling',
  left: 'left',
  right: 'right',
  rear: 'rear',
  front: 'front',
};

/** What was seen and pointed at, and has no measured place yet. */
function marksOf(survey: Survey): readonly Mark[] {
  const open = (address: string): boolean => valueAt(survey, address) === null;
  return [
    ...survey.openings.flatMap(({ id, name, kind, surface, rough }): Mark[] =>
      rough && open(`opening/${id}/from`)
        ? [{ id, name, on: FLAT[surface], rough, size: ABOUT[kind], door: kind === 'door' }]
        : [],
    ),
    ...survey.arches.flatMap(({ id, name, kind, rough }): Mark[] =>
      rough && open(`arch/${id}/from`) ? [{ id, name, on: 'floor', rough, size: ABOUT[kind] }] : [],
    ),
    ...survey.keepOuts.flatMap(({ id, name, rough }): Mark[] =>
      rough && open(`keepout/${id}/from`) ? [{ id, name, on: 'floor', rough, size: ABOUT.under }] : [],
    ),
    ...survey.ribs.flatMap(({ id, name, on, rough }): Mark[] => {
      if (!rough || !open(`rib/${id}/x`)) return [];
      const surfaces: readonly SeenOn[] =
        on === 'ring' ? ['left', 'right', 'ceiling'] : [on === 'roof' ? 'ceiling' : on];
      return surfaces.map((surface) => ({
        id: `${id}-${surface}`,
        name,
        on: surface,
        rough,
        size: [0, 0],
        line: true,
      }));
    }),
  ];
}

/** Dashed, about where it was pointed at: what was seen in the look round, until it is measured. */
export const RoughLayer = memo(function RoughLayer({
  frame,
  survey,
  ceiling,
}: {
  readonly frame: FoldOutFrame;
  readonly survey: Survey;
  readonly ceiling: boolean;
}) {
  const { shell, scale } = frame;
  const ink = { stroke: 'var(--soft)', strokeWidth: 1.5, strokeDasharray: '4 4', fill: 'none' };
  return (
    <g pointerEvents="none" className="rough">
      {marksOf(survey).map(({ id, name, on, rough, size, line, door }): ReactNode => {
        let at = roughPoint(frame, on, line ? { ...rough, along: 0 } : rough, ceiling);
        if (!at) return null;
        const wall = on === 'left' || on === 'right';
        if (line) {
          const x = rough.x * shell.length;
          const [from, to] = wall
            ? [onWall(frame, on, x, 0), onWall(frame, on, x, wallTop(shell, on, x))]
            : [
                [at[0] - 700 * scale, at[1]],
                [at[0] + 700 * scale, at[1]],
              ];
          return (
            <line key={id} x1={from[0]} y1={from[1]} x2={to[0]} y2={to[1]} {...ink} aria-label={name} role="img" />
          );
        }
        const end = on === 'front' || on === 'rear';
        // on a wall the height lies across the screen
        const [high, wide] = end ? [END_STRIP - 6, size[0] * scale] : [size[0] * scale, size[1] * scale];
        if (door && wall) {
          // a door stands on the floor
          const foot = onWall(frame, on, rough.x * shell.length, 0);
          at = [foot[0] + ((on === 'left' ? -1 : 1) * wide) / 2, foot[1]];
        }
        return (
          <g key={id} role="img" aria-label={name}>
            <rect x={at[0] - wide / 2} y={at[1] - high / 2} width={wide} height={high} {...ink} />
            <text x={at[0]} y={at[1] + 4} textAnchor="middle" className="soft halo size-12">
              {name}
            </text>
          </g>
        );
      })}
    </g>
  );
});
