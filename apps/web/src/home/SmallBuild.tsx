import { useEffect, useState } from 'react';
import type { ProjectListItem } from '@nestplank/contract';
import type { SmallFoldOut } from '@nestplank/core/derive';
import { ringPath } from '../kit/path.js';
import { api } from '../state/api.js';
import { tell } from '../words/words.js';

/** Small fold-outs of builds, one asked for after the other: the list stands at once, and is drawn as they come. */
export function useSmall(projects: readonly ProjectListItem[] | null): ReadonlyMap<string, SmallFoldOut | null> {
  const [small, setSmall] = useState<ReadonlyMap<string, SmallFoldOut | null>>(new Map());
  useEffect(() => {
    let current = true;
    void (async () => {
      for (const { id } of projects ?? []) {
        if (!current) return;
        try {
          const answer = await api.small(id);
          if (current) setSmall((now) => new Map(now).set(id, answer.small));
        } catch {
          // what cannot be drawn is listed without its drawing; opening it says why
          if (current) setSmall((now) => new Map(now).set(id, null));
        }
      }
    })();
    return () => {
      current = false;
    };
  }, [projects]);
  return small;
}

const HEIGHT = 84;

/** A build unfolded, small: walls and floor in ink, glass hatched, furniture in timber; dashed and empty before it is measured. */
export function SmallDrawing({ small }: { readonly small: SmallFoldOut | null | undefined }) {
  if (!small)
    return (
      <svg className="small-build" viewBox="0 0 120 84" aria-hidden="true">
        {[6, 44, 82].map((x) => (
          <rect key={x} x={x} y={8} width={32} height={68} fill="none" stroke="var(--rule)" strokeDasharray="5 4" />
        ))}
      </svg>
    );
  const scale = Math.min((HEIGHT - 8) / small.length, 148 / small.width);
  const width = small.width * scale + 8;
  const path = (ring: readonly (readonly [number, number])[]): string =>
    ringPath(ring.map(([x, y]): [number, number] => [4 + x * scale, 4 + y * scale]));
  return (
    <svg className="small-build" viewBox={`0 0 ${width} ${HEIGHT}`} aria-hidden="true">
      {small.bands.map((ring, i) => (
        <path key={i} d={path(ring)} fill="var(--paper)" stroke="var(--ink)" strokeWidth={1} />
      ))}
      {small.units.map((ring, i) => (
        <path key={i} d={path(ring)} fill="var(--birch, #e3cda4)" stroke="var(--ink)" strokeWidth={0.75} />
      ))}
      {small.openings.map(({ door, ring }, i) => (
        <path
          key={i}
          d={path(ring)}
          fill={door ? 'none' : 'var(--rule)'}
          stroke="var(--ink)"
          strokeWidth={0.75}
          strokeDasharray={door ? '3 2' : undefined}
        />
      ))}
    </svg>
  );
}

/** How far a build has got, in one line. */
export function smallState(small: SmallFoldOut | null | undefined): string {
  if (small === undefined) return tell('home.looking');
  if (small === null) return tell('home.unmeasured');
  const { readings, units, fails, unknown } = small.state;
  return [
    tell('home.readings', { count: readings }),
    ...(units > 0 ? [tell('home.units', { count: units })] : []),
    ...(fails > 0 ? [tell('home.fails', { count: fails })] : []),
    ...(unknown > 0 ? [tell('home.unknown', { count: unknown })] : []),
  ].join(' · ');
}
