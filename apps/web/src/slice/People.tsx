import { frontLineOf, isAt, type Person, type Project } from '@nestplank/core/document';
import { berthOf, type LyingPlace } from '@nestplank/core/layout';
import { SITTING_SHARE } from '@nestplank/core/rules';
import { halfWidth, roofHeight, type Shell } from '@nestplank/core/shell';
import { sitting as sittingBody, standing } from '../kit/body.js';
import { BodyOutline } from '../kit/BodyOutline.js';
import type { Speech } from '../words/words.js';
import type { View } from './view.js';

/** A person to scale: sitting on what is given as the seat, or standing on the floor, with what is left above the head. */
function Figure({
  person,
  seat,
  y,
  ceiling,
  view,
  speech,
  sitting,
  left = false,
}: {
  readonly person: Person;
  readonly seat: number;
  readonly y: number;
  readonly ceiling: number;
  readonly view: View;
  readonly speech: Speech;
  readonly sitting: boolean;
  /** Looks to the left: the other way round. */
  readonly left?: boolean;
}) {
  const height = sitting ? (person.sittingHeight ?? SITTING_SHARE * person.stature) : person.stature;
  const top = seat + height;
  const spare = ceiling - top;
  return (
    <g role="img" aria-label={`${person.name}: ${speech.t('slice.head', { spare: speech.len(spare) })}`}>
      <BodyOutline
        body={sitting ? sittingBody(person) : standing(person)}
        at={([across, up]) => view.at(y + (left ? -across : across), seat + up)}
        scale={view.scale}
      />
      <line
        x1={view.at(y - 190, 0)[0]}
        x2={view.at(y + 190, 0)[0]}
        y1={view.at(0, top)[1]}
        y2={view.at(0, top)[1]}
        stroke={spare < 0 ? 'var(--needs)' : 'var(--data)'}
        strokeWidth={1.25}
      />
      <text x={view.at(y + 120, 0)[0]} y={view.at(0, top)[1] + 17} className={spare < 0 ? 'needs halo' : 'data halo'}>
        {speech.t('slice.head', { spare: speech.len(spare) })}
      </text>
    </g>
  );
}

/** Who sits on the bed at the slice, or stands in the way there. */
export function People({
  project,
  room,
  lying,
  x,
  view,
  speech,
}: {
  readonly project: Project;
  readonly room: Shell;
  readonly lying: readonly LyingPlace[];
  readonly x: number;
  readonly view: View;
  readonly speech: Speech;
}) {
  const bed = lying.find((place) => isAt(place.unit, x) && place.along !== 'x' && place.sleepers.length > 0);
  const along = lying.find((place) => isAt(place.unit, x) && place.along === 'x' && place.sleepers.length > 0);
  const tallest = [...project.people].sort((a, b) => b.stature - a.stature)[0];
  if (!tallest) return null;
  if (bed) {
    const { body } = bed.unit;
    const sleepers = bed.sleepers.flatMap((id) => project.people.filter((person) => person.id === id));
    const index = Math.min(sleepers.length - 1, Math.floor(((x - body.x) / body.length) * sleepers.length));
    const seat = room.floor + body.to + 0.85 * bed.mattress;
    return (
      <Figure
        person={sleepers[index] ?? tallest}
        seat={seat}
        y={-260}
        ceiling={roofHeight(room, x, -260)}
        view={view}
        speech={speech}
        sitting
      />
    );
  }
  if (along) {
    // one who lies along the vehicle sits up on the middle of their own place
    const berth = berthOf(along, 0, room);
    const sleeper = project.people.find(({ id }) => id === along.sleepers[0]) ?? tallest;
    const y = (berth.y0 + berth.y1) / 2;
    return (
      <Figure
        person={sleeper}
        seat={room.floor + along.unit.body.to + 0.85 * along.mattress}
        y={y}
        ceiling={roofHeight(room, x, y)}
        view={view}
        speech={speech}
        sitting
        // towards the way, off the wall behind
        left={y > 0}
      />
    );
  }
  const front = (side: 'left' | 'right'): number =>
    Math.min(
      halfWidth(room, side, x, room.floor),
      ...project.layout.units.flatMap((unit) => {
        const line = frontLineOf(unit);
        return line?.side === side && unit.body.from < 900 && isAt(unit, x) ? [line.front] : [];
      }),
    );
  const y = (front('right') - front('left')) / 2;
  return (
    <Figure
      person={tallest}
      seat={room.floor}
      y={y}
      ceiling={roofHeight(room, x, y)}
      view={view}
      speech={speech}
      sitting={false}
    />
  );
}
