import { memo, type ReactNode } from 'react';
import { isSectionPlace, parseAddress, valueAt, type Survey } from '@nestplank/core/document';
import { walkOf, type Outlier } from '@nestplank/core/measure';
import type { Point } from '@nestplank/core/numeric';
import type { ArchShape } from '@nestplank/core/shell';
import { linePath } from '../kit/path.js';
import type { FoldOutFrame } from './geometry.js';
import { tapeEnds } from './tape-ends.js';

interface ReadingLayerProps {
  readonly frame: FoldOutFrame;
  readonly survey: Survey;
  readonly arches: readonly ArchShape[];
  readonly outliers: readonly Outlier[];
  readonly current: string | null;
  readonly onPick: (address: string) => void;
}

interface Dot {
  readonly address: string;
  readonly at: Point;
  readonly taken: boolean;
}

/** What has a dot on the fold-out: readings of walls and of where stations stand. The roof's are seen in the slice. */
function hasDot(address: string): boolean {
  const place = parseAddress(address);
  return isSectionPlace(place)
    ? place.what === 'left' || place.what === 'right'
    : place?.kind === 'station'
      ? place.what === 'x'
      : place?.kind === 'hole';
}

/** Where readings are taken: full dots are taken, rings are open, numbered circles look wrong; the tape lies where the asked one goes. */
export const ReadingLayer = memo(function ReadingLayer({
  frame,
  survey,
  arches,
  outliers,
  current,
  onPick,
}: ReadingLayerProps) {
  const where = { frame, survey, arches };
  const addresses = [...new Set([...walkOf(survey), ...Object.keys(survey.readings)])].filter(hasDot);
  const dots = addresses.flatMap((address): Dot[] => {
    const at = tapeEnds(where, address)?.[1];
    return at ? [{ address, at, taken: valueAt(survey, address) !== null }] : [];
  });
  const tape = current ? tapeEnds(where, current) : null;
  return (
    <g>
      {dots.map(({ address, at, taken }) => (
        <circle
          className="takes"
          key={address}
          cx={at[0]}
          cy={at[1]}
          r={4.5}
          fill={taken ? 'var(--data)' : 'var(--paper)'}
          stroke="var(--data)"
          strokeWidth={1.5}
          onClick={() => onPick(address)}
          data-reading={address}
        />
      ))}
      {tape && (
        <g pointerEvents="none" data-tape={current}>
          <path d={linePath([...tape])} stroke="var(--data)" strokeWidth={3.5} fill="none" />
          <circle cx={tape[0][0]} cy={tape[0][1]} r={6} fill="var(--data)" />
          <circle cx={tape[1][0]} cy={tape[1][1]} r={9} fill="var(--paper)" stroke="var(--data)" strokeWidth={3} />
        </g>
      )}
      {outliers.map((outlier, i): ReactNode => {
        const at = tapeEnds(where, outlier.address)?.[1];
        return at ? (
          <g className="takes" key={outlier.address} onClick={() => onPick(outlier.address)}>
            <circle cx={at[0]} cy={at[1]} r={11} fill="var(--paper)" stroke="var(--needs)" strokeWidth={2.5} />
            <text x={at[0]} y={at[1] + 4.5} textAnchor="middle" className="needs" fontWeight={700}>
              {i + 1}
            </text>
          </g>
        ) : null;
      })}
    </g>
  );
});
