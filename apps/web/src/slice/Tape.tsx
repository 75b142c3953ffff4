import { isSectionPlace, parseAddress } from '@nestplank/core/document';
import type { Point } from '@nestplank/core/numeric';
import { halfWidth, roofHeight, type Shell } from '@nestplank/core/shell';
import type { Speech } from '../words/words.js';
import type { View } from './view.js';

/** The tape of one reading: from the centre line to the wall, or from the floor to the roof. */
export function Tape({
  address,
  shell,
  x,
  view,
  speech,
}: {
  readonly address: string;
  readonly x: number;
  readonly shell: Shell;
  readonly view: View;
  readonly speech: Speech;
}) {
  const place = parseAddress(address);
  if (!isSectionPlace(place)) return null;
  const ends: readonly [Point, Point] =
    place.what === 'roof'
      ? [view.at(place.along, 0), view.at(place.along, roofHeight(shell, x, place.along))]
      : [
          place.what === 'width'
            ? view.at(-halfWidth(shell, 'left', x, place.along), place.along)
            : view.at(0, place.along),
          view.at(
            (place.what === 'left' ? -1 : 1) *
              halfWidth(shell, place.what === 'left' ? 'left' : 'right', x, place.along),
            place.along,
          ),
        ];
  return (
    <g>
      <line x1={ends[0][0]} y1={ends[0][1]} x2={ends[1][0]} y2={ends[1][1]} stroke="var(--data)" strokeWidth={4} />
      <circle cx={ends[0][0]} cy={ends[0][1]} r={6} fill="var(--data)" />
      <circle cx={ends[1][0]} cy={ends[1][1]} r={9} fill="var(--paper)" stroke="var(--data)" strokeWidth={3} />
      {place.what !== 'roof' && place.along > 0 && (
        <>
          <line
            x1={(ends[0][0] + ends[1][0]) / 2}
            x2={(ends[0][0] + ends[1][0]) / 2}
            y1={ends[0][1]}
            y2={view.at(0, 0)[1]}
            stroke="var(--data)"
            strokeWidth={1.25}
            strokeDasharray="4 3"
          />
          <text x={(ends[0][0] + ends[1][0]) / 2 + 6} y={(ends[0][1] + view.at(0, 0)[1]) / 2} className="data halo">
            {speech.len(place.along)}
          </text>
        </>
      )}
    </g>
  );
}
