import { memo } from 'react';
import {
  halfWidth,
  parseAddress,
  roofHeight,
  valueAt,
  walkOf,
  type Outlier,
  type Point,
  type Survey,
} from '@nestplank/core';
import { onWall, screenX, screenY, type FoldOutFrame } from './geometry.js';

interface Dot {
  readonly address: string;
  readonly at: Point;
  readonly taken: boolean;
}

/** Where the far end of the tape goes for an address, on the fold-out; null when it has no place there. */
export function dotAt(frame: FoldOutFrame, survey: Survey, address: string): Point | null {
  const place = parseAddress(address);
  if (!place) return null;
  if (place.kind === 'floor')
    return place.what === 'length' ? [frame.centre, screenY(frame, frame.shell.length)] : null;
  const read = (what: string): number | null => valueAt(survey, `${place.kind}/${place.id}/${what}`);
  if (place.kind === 'station') {
    const x = read('x');
    if (x === null) return null;
    if (place.what === 'x') return [frame.centre, screenY(frame, x)];
    if (place.what === 'left' || place.what === 'right') return onWall(frame, place.what, x, place.along);
    return null;
  }
  if (place.kind === 'rib') {
    const x = read('x');
    return x === null ? null : [frame.leftEdge, screenY(frame, x)];
  }
  if (place.kind === 'arch') {
    const arch = survey.arches.find((a) => a.id === place.id);
    const [from, to] = [read('from'), read('to')];
    const x =
      place.what === 'to' ? to : place.what === 'from' ? from : from !== null && to !== null ? (from + to) / 2 : null;
    const face = read('face');
    return x === null || !arch
      ? null
      : [
          screenX(frame, (arch.side === 'left' ? -1 : 1) * (face ?? halfWidth(frame.shell, arch.side, x, 0))),
          screenY(frame, x),
        ];
  }
  const opening = survey.openings.find((o) => o.id === place.id);
  const [from, to, sill, head] = [read('from'), read('to'), read('sill'), read('head')];
  if (
    !opening ||
    (opening.surface !== 'left' && opening.surface !== 'right') ||
    from === null ||
    to === null ||
    sill === null ||
    head === null
  )
    return null;
  const x = place.what === 'from' ? from : place.what === 'to' ? to : (from + to) / 2;
  const z = place.what === 'sill' ? sill : place.what === 'head' ? head : (sill + head) / 2;
  return onWall(frame, opening.surface, x, Math.min(z, roofHeight(frame.shell, x, 0)));
}

interface ReadingLayerProps {
  readonly frame: FoldOutFrame;
  readonly survey: Survey;
  readonly outliers: readonly Outlier[];
  readonly current: string | null;
  readonly onPick: (address: string) => void;
}

/** Where readings are taken: full dots are taken, rings are open, the blue ring is the one asked for, numbered circles look wrong. */
export const ReadingLayer = memo(function ReadingLayer({
  frame,
  survey,
  outliers,
  current,
  onPick,
}: ReadingLayerProps) {
  const dots = walkOf(survey).flatMap((address): Dot[] => {
    const place = parseAddress(address);
    if (place?.kind !== 'station' && place?.kind !== 'floor') return [];
    const at = dotAt(frame, survey, address);
    return at ? [{ address, at, taken: valueAt(survey, address) !== null }] : [];
  });
  const now = current ? dotAt(frame, survey, current) : null;
  return (
    <g>
      {dots.map(({ address, at, taken }) => (
        <circle
          key={address}
          cx={at[0]}
          cy={at[1]}
          r={4.5}
          fill={taken ? 'var(--data)' : 'var(--paper)'}
          stroke="var(--data)"
          strokeWidth={1.5}
          style={{ cursor: 'pointer' }}
          onClick={() => onPick(address)}
          data-reading={address}
        />
      ))}
      {now && (
        <circle
          cx={now[0]}
          cy={now[1]}
          r={10}
          fill="none"
          stroke="var(--data)"
          strokeWidth={2.5}
          pointerEvents="none"
        />
      )}
      {outliers.map((outlier, i) => {
        const at = dotAt(frame, survey, outlier.address);
        return at ? (
          <g key={outlier.address} style={{ cursor: 'pointer' }} onClick={() => onPick(outlier.address)}>
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
