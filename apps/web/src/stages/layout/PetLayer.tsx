import { memo, useMemo, type KeyboardEvent } from 'react';
import { sceneOf } from '@nestplank/core/derive';
import type { Den, Operation, Pet } from '@nestplank/core/document';
import { FAMILIES } from '@nestplank/core/furniture';
import { petsLain, type PetRoom } from '@nestplank/core/layout';
import type { Point } from '@nestplank/core/numeric';
import { screenX, screenY, type FoldOutFrame } from '../../foldout/geometry.js';
import { animalPlace } from '../../foldout/label-place.js';
import { lyingAnimal } from '../../kit/body.js';
import { BodyOutline } from '../../kit/BodyOutline.js';
import { useHand } from '../../kit/use-hand.js';
import { act, previewActions } from '../../state/session.js';
import type { Scene } from '../../state/scene.js';
import { look } from '../../state/view.js';
import { useSpeech } from '../../words/use-speech.js';

type OnFloor = Extract<Den['at'], { x: number }>;

/** Laying an animal so far from where it lies, mm, to whole steps. */
export const layBy = (pet: Pet, at: OnFloor, along: number, across: number, step: number): Operation => ({
  name: 'layPet',
  payload: {
    pet: pet.id,
    at: {
      ...at,
      x: along === 0 ? at.x : Math.round((at.x + along) / step) * step,
      y: across === 0 ? at.y : Math.round((at.y + across) / step) * step,
    },
  },
});

/** One animal where it lies: dragged or moved by arrows on the floor, turned by Enter; in a bay it goes with its unit. */
function Lain({
  frame,
  pet,
  at,
  room,
  step,
}: {
  readonly frame: FoldOutFrame;
  readonly pet: Pet;
  readonly at: Den['at'];
  readonly room: PetRoom;
  readonly step: number;
}) {
  const { t, len } = useSpeech();
  const floor = 'x' in at ? at : null;
  const drag = useHand(([mx, my], { last, tap, memo: held, event }) => {
    const start = (held as OnFloor | undefined) ?? floor;
    if (!start) return undefined;
    if (tap) {
      look({ sliceX: start.x, unit: null });
      (event.currentTarget as SVGElement | null)?.focus({ preventScroll: true });
      return start;
    }
    const operation = layBy(pet, start, my / frame.scale, mx / frame.scale, step);
    if (last) {
      previewActions(null);
      act(operation);
    } else previewActions([operation]);
    return start;
  });
  const onKey = (event: KeyboardEvent): void => {
    if (!floor) return;
    const size = (event.shiftKey ? 10 : 1) * (step === 5 ? 10 : step);
    const [along, across] = { ArrowUp: [-size, 0], ArrowDown: [size, 0], ArrowLeft: [0, -size], ArrowRight: [0, size] }[
      event.key
    ] ?? [0, 0];
    if (event.key === 'Enter' || event.key === ' ')
      act({ name: 'layPet', payload: { pet: pet.id, at: { ...floor, turned: !floor.turned } } });
    else if (event.key === 'Delete') act({ name: 'layPet', payload: { pet: pet.id, at: null } });
    else if (along !== 0 || across !== 0) act(layBy(pet, floor, along ?? 0, across ?? 0, step === 5 ? 1 : step));
    else return;
    event.preventDefault();
    event.stopPropagation();
  };
  // the head is to the front, or to the left where it lies across
  const place = ([down, across]: Point): Point =>
    room.turned
      ? [screenX(frame, room.y - pet.length / 2 + down), screenY(frame, room.x + across)]
      : [screenX(frame, room.y + across), screenY(frame, room.x - pet.length / 2 + down)];
  const { x, y } = animalPlace(frame, pet, room);
  const [wide, high] = (room.turned ? [pet.length, pet.width] : [pet.width, pet.length]).map((mm) => mm * frame.scale);
  return (
    <g
      className={floor ? 'grips' : undefined}
      {...(floor ? drag() : {})}
      role={floor ? 'button' : 'img'}
      tabIndex={floor ? 0 : undefined}
      aria-label={t(floor ? 'pets.lies' : 'pets.liesIn', { name: pet.name, x: len(room.x) })}
      onKeyDown={onKey}
      data-pet={pet.id}
    >
      <rect
        x={x - (wide ?? 0) / 2}
        y={y - (high ?? 0) / 2}
        width={wide}
        height={high}
        fill="transparent"
        pointerEvents={floor ? 'all' : 'none'}
      />
      <BodyOutline body={lyingAnimal(pet)} at={place} scale={frame.scale} />
      <text x={x} y={y + 4} textAnchor="middle" className="halo size-12" pointerEvents="none">
        {pet.name}
      </text>
    </g>
  );
}

/** Where animals lie, drawn to scale on the floor. */
export const PetLayer = memo(function PetLayer({
  frame,
  scene,
  step,
}: {
  readonly frame: FoldOutFrame;
  readonly scene: Scene;
  /** Step that a drag snaps to, mm. */
  readonly step: number;
}) {
  const { project, shape, book } = scene;
  const { pets } = project;
  const { dens } = project.layout;
  const seen = useMemo(
    () => (pets && dens && dens.length > 0 ? sceneOf(project, shape, book, FAMILIES) : null),
    [pets, dens, project, shape, book],
  );
  if (!seen) return null;
  return (
    <g>
      {petsLain(seen).map(({ pet, at, room }) => (
        <Lain key={pet.id} frame={frame} pet={pet} at={at} room={room} step={step} />
      ))}
    </g>
  );
});
