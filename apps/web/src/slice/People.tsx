import { isAt, type Person } from '@nestplank/core/document';
import type { Scene as RulesScene } from '@nestplank/core/furniture';
import { headroomIn, type LyingPlace, sitsUp, wayAt } from '@nestplank/core/layout';
import { sitting, sittingFromFront, standing, type Capsule } from '../kit/body.js';
import { BodyOutline } from '../kit/BodyOutline.js';
import type { Speech } from '../words/words.js';
import type { View } from './view.js';

/** A person to scale: sitting on what is given as the seat, or standing on the floor, with what is left above the head. */
function Figure({
  person,
  seat,
  y,
  ceiling,
  spare,
  view,
  speech,
  body,
  left = false,
}: {
  readonly person: Person;
  readonly seat: number;
  readonly y: number;
  /** What is over the head, and how much is left under it. */
  readonly ceiling: number;
  readonly spare: number;
  readonly view: View;
  readonly speech: Speech;
  readonly body: (person: Person) => readonly Capsule[];
  /** Looks to the left: the other way round. */
  readonly left?: boolean;
}) {
  const top = ceiling - spare;
  return (
    <g role="img" aria-label={`${person.name}: ${speech.t('slice.head', { spare: speech.len(spare) })}`}>
      <BodyOutline
        body={body(person)}
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

/** Who sits on the bed at the slice, or stands in the way there: with as much over the head as the rules judge by. */
export function People({
  scene,
  lying,
  x,
  view,
  speech,
}: {
  readonly scene: RulesScene;
  readonly lying: readonly LyingPlace[];
  readonly x: number;
  readonly view: View;
  readonly speech: Speech;
}) {
  const { people, inner: room } = scene;
  const bed = lying.find((place) => isAt(place.unit, x) && place.sleepers.length > 0);
  const tallest = [...people].sort((a, b) => b.stature - a.stature)[0];
  if (!tallest) return null;
  if (bed) {
    const { body } = bed.unit;
    const count = bed.sleepers.length;
    // who lies across lies side by side along the vehicle
    const index = bed.along === 'x' ? 0 : Math.min(count - 1, Math.floor(((x - body.x) / body.length) * count));
    const sits = sitsUp(bed, index, scene);
    // who lies along the vehicle looks along it; else towards the way, off the wall behind
    return (
      sits && (
        <Figure
          {...sits}
          view={view}
          speech={speech}
          body={bed.along === 'x' ? sittingFromFront : sitting}
          left={sits.y > 0}
        />
      )
    );
  }
  const way = wayAt(x, scene);
  if (!way) return null;
  const y = (way.from + way.to) / 2;
  const ceiling = headroomIn(scene)(x, y);
  return (
    <Figure
      person={tallest}
      seat={room.floor}
      y={y}
      ceiling={ceiling}
      spare={ceiling - room.floor - tallest.stature}
      view={view}
      speech={speech}
      body={standing}
    />
  );
}
