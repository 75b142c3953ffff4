import { memo, type KeyboardEvent } from 'react';
import {
  endOf,
  frontLineOf,
  spansWalls,
  standsAt,
  type Operation,
  type Person,
  type Unit,
} from '@nestplank/core/document';
import { outlineFromAbove, sweptFromAbove, type Motion } from '@nestplank/core/furniture';
import {
  berthOf,
  type Berth,
  type LyingPlace,
  type Snap,
  snapAcross,
  snapAlong,
  type SnapWorld,
} from '@nestplank/core/layout';
import type { Point } from '@nestplank/core/numeric';
import type { ArchShape, Shell } from '@nestplank/core/shell';
import { act, previewActions } from '../state/session.js';
import { look, useView } from '../state/view.js';
import { lying } from '../kit/body.js';
import { BodyOutline } from '../kit/BodyOutline.js';
import { ringPath } from '../kit/path.js';
import { useHand } from '../kit/use-hand.js';
import { useSpeech } from '../words/use-speech.js';
import { screenX, screenY, wallPatch, type FoldOutFrame } from './geometry.js';
import { HANGS_MM, lyingPlace } from './label-place.js';

interface UnitLayerProps {
  readonly frame: FoldOutFrame;
  readonly unit: Unit;
  readonly room: Shell;
  readonly arches: readonly ArchShape[];
  readonly people: readonly Person[];
  /** Who lies on it; null where nobody does. */
  readonly lies: LyingPlace | null;
  readonly motions: readonly Motion[];
  readonly chosen: boolean;
  /** What it can be drawn to while it is moved, and what may be moved with it; null where nothing can be told of that. */
  readonly around: () => SnapWorld | null;
  /** Whether it is one of a group that is moved together. */
  readonly together: boolean;
  /** Step a drag snaps to, mm. */
  readonly snap: number;
}
const NO_MATES: readonly Unit[] = [];
const NOTHING = [] as const;
/** What a drag began with: it is measured from there, however far things are shown to have gone meanwhile. */
interface Held {
  readonly start: Unit;
  /** What is moved together with it. */
  readonly mates: readonly Unit[];
  /** What it can be drawn to: nothing that goes along with it. */
  readonly world: SnapWorld | null;
}
function heldOf(unit: Unit, world: SnapWorld | null): Held {
  const { together } = useView.getState();
  if (!world || !together.includes(unit.id)) return { start: unit, mates: NO_MATES, world };
  const mates: Unit[] = [];
  const others: Unit[] = [];
  for (const own of world.units) if (own.id !== unit.id) (together.includes(own.id) ? mates : others).push(own);
  return { start: unit, mates, world: { ...world, units: others } };
}

/** What a moved unit has come to stand with, along the vehicle and across it. */
export interface Drawn {
  readonly along: Snap | null;
  readonly across: Snap | null;
}
const FREE: Drawn = { along: null, across: null };

/** What a unit that is moved so far is drawn to. */
export function drawnTo(unit: Unit, along: number, across: number, reach: number, world: SnapWorld): Drawn {
  const line = frontLineOf(unit);
  return {
    along: along === 0 ? null : snapAlong(unit, unit.body.x + along, reach, world),
    across: across === 0 || !line ? null : snapAcross(unit, line.front + line.sign * across, reach, world),
  };
}

/** What moving a unit by a distance along and across changes. One that reaches from wall to wall moves along only. */
export function moveOperation(unit: Unit, along: number, across: number, snap: number, drawn: Drawn = FREE): Operation {
  const to = (value: number): number => Math.round(value / snap) * snap;
  const tidy = (value: number): number => Math.round(value * 1e6) / 1e6;
  const x = tidy(drawn.along?.to ?? to(unit.body.x + along));
  const line = frontLineOf(unit);
  const { body } = unit;
  if (body.stands === 'free')
    return {
      name: 'changeUnit',
      payload: {
        id: unit.id,
        changes: {
          ...(along === 0 ? {} : { x }),
          ...(across === 0 ? {} : { y: tidy(to(body.y + across)) }),
        },
      },
    };
  if (!line) return { name: 'changeUnit', payload: { id: unit.id, changes: { x } } };
  return {
    name: 'changeUnit',
    payload: {
      id: unit.id,
      changes: {
        ...(along === 0 ? {} : { x }),
        ...(across === 0 ? {} : { front: tidy(drawn.across?.to ?? Math.max(0, to(line.front + line.sign * across))) }),
      },
    },
  };
}

/** What moves a unit and everything that is moved with it, by as much as it comes to after it was drawn to something. */
export function moveTogether(start: Unit, operation: Operation, mates: readonly Unit[]): Operation[] {
  if (operation.name !== 'changeUnit' || mates.length === 0) return [operation];
  const { changes } = operation.payload;
  const by = (to: unknown, from: number): number => (typeof to === 'number' ? to - from : 0);
  const along = by(changes['x'], start.body.x);
  const line = frontLineOf(start);
  const across = line
    ? line.sign * by(changes['front'], line.front)
    : start.body.stands === 'free'
      ? by(changes['y'], start.body.y)
      : 0;
  return [operation, ...mates.map((mate) => moveOperation(mate, along, spansWalls(mate) ? 0 : across, HAIR_STEP_MM))];
}
/** Mates keep their places to each other exactly: they are not rounded to the step of the hand, mm. */
const HAIR_STEP_MM = 0.001;

/** With a unit in the group or out of it; one alone is no group. */
export function grouped(group: readonly string[], chosen: string | null, unit: string): readonly string[] {
  const before = group.length > 0 ? group : chosen !== null && chosen !== unit ? [chosen] : [];
  const after = before.includes(unit) ? before.filter((id) => id !== unit) : [...before, unit];
  return after.length > 1 ? after : [];
}

/** A sleeper drawn to scale on their place: head to the left where one lies across, to the front where one lies along. */
function Lying({
  frame,
  person,
  berth,
  along,
}: {
  readonly frame: FoldOutFrame;
  readonly person: Person;
  readonly berth: Berth;
  readonly along: 'x' | 'y';
}) {
  const { len } = useSpeech();
  const [mx, my] = [(berth.x0 + berth.x1) / 2, (berth.y0 + berth.y1) / 2];
  const head = -person.stature / 2;
  const at = ([down, across]: Point): Point =>
    along === 'y'
      ? [screenX(frame, head + down), screenY(frame, mx + across)]
      : [screenX(frame, my + across), screenY(frame, mx + head + down)];
  const name = lyingPlace(frame, person, berth, along);
  return (
    <g role="img" aria-label={`${person.name} ${len(person.stature)}`} pointerEvents="none">
      <BodyOutline body={lying(person)} at={at} scale={frame.scale} />
      <text transform={`translate(${name.x} ${name.y + 5})`} textAnchor="middle" className="halo size-12">
        {person.name} {len(person.stature)}
      </text>
    </g>
  );
}

/** What a unit covers of the walls, once for each place it is drawn to: what follows from it comes later. */
const WallMarks = memo(function WallMarks({
  frame,
  unit,
  room,
  lies,
}: Pick<UnitLayerProps, 'frame' | 'unit' | 'room' | 'lies'>) {
  const { x, from, to } = unit.body;
  const top = room.floor + to;
  const patch = (side: 'left' | 'right', z0: number, z1: number, fill: string) => (
    <path
      key={`${side}${z0}`}
      d={ringPath(wallPatch(frame, side, x, endOf(unit), z0, z1))}
      fill={fill}
      stroke="var(--ink)"
      strokeWidth={1.5}
    />
  );
  const mattress = lies?.mattress ?? 0;
  return (
    <>
      {(['left', 'right'] as const)
        .filter((side) => standsAt(unit, side))
        .map((side) => (
          <g key={side}>
            {patch(side, room.floor + from, top, 'url(#hatch-birch)')}
            {mattress > 0 && patch(side, top, top + mattress, 'var(--paper)')}
          </g>
        ))}
    </>
  );
});

/** The room that doors sweep, drawn while the unit is chosen. */
function Swept({ frame, motions }: { readonly frame: FoldOutFrame; readonly motions: readonly Motion[] }) {
  return (
    <g pointerEvents="none">
      {motions.map((motion) => (
        <path
          key={motion.of}
          d={ringPath(sweptFromAbove(motion).map(([x, y]): Point => [screenX(frame, y), screenY(frame, x)]))}
          fill="none"
          stroke="var(--data)"
          strokeWidth={1.25}
          strokeDasharray="5 3"
        />
      ))}
    </g>
  );
}

/** A unit is drawn to a line this near, px. */
const SNAP_PX = 9;
/** One unit on floor and walls. It is moved by dragging or with the arrow keys; both show what would come of it at once. */
export const UnitLayer = memo(function UnitLayer({
  frame,
  unit,
  room,
  arches,
  people,
  lies,
  motions,
  chosen,
  around,
  together,
  snap,
}: UnitLayerProps) {
  const { t, lenUnit } = useSpeech();
  const drag = useHand(([mx, my], { first, last, tap, memo, event, altKey }) => {
    const held = (memo as Held | undefined) ?? heldOf(unit, around());
    const { start, mates, world } = held;
    if (tap && event.shiftKey) {
      const { together, unit: chosen } = useView.getState();
      look({ together: grouped(together, chosen === unit.id ? null : chosen, unit.id), unit: unit.id });
      return held;
    }
    if (first && !event.shiftKey) {
      look({ unit: unit.id });
      // the keys are the unit's from here on, not those of the line
      (event.currentTarget as SVGElement | null)?.focus({ preventScroll: true });
    }
    if (tap) return held;
    const [along, across] = [my / frame.scale, spansWalls(start) ? 0 : mx / frame.scale];
    // with the alternative key held it goes wherever it is put
    const drawn = altKey || !world ? FREE : drawnTo(start, along, across, SNAP_PX / frame.scale, world);
    const operation = moveOperation(start, along, across, snap, drawn);
    if (last) {
      look({ snap: null });
      previewActions(null);
      act(...moveTogether(start, operation, mates));
    } else {
      const to = drawn.along ?? drawn.across;
      look({ snap: to && { axis: drawn.along ? 'along' : 'across', line: to.line, said: to.said } });
      previewActions(moveTogether(start, operation, mates));
    }
    return held;
  });
  const onKey = (event: KeyboardEvent): void => {
    const size = (event.shiftKey ? 10 : 1) * (snap === 5 ? 10 : snap);
    const [along, across] = { ArrowUp: [-size, 0], ArrowDown: [size, 0], ArrowLeft: [0, -size], ArrowRight: [0, size] }[
      event.key
    ] ?? [0, 0];
    if (event.key === 'Delete') {
      act({ name: 'removeUnit', payload: { id: unit.id } });
      look({ unit: null });
    } else if (event.key === 'Enter' && event.shiftKey) {
      const { together, unit: held } = useView.getState();
      look({ together: grouped(together, held, unit.id) });
    } else if (event.key === 'Enter' || event.key === ' ') look({ unit: unit.id });
    else if (along !== 0 || (across !== 0 && !spansWalls(unit)))
      act(
        ...moveTogether(
          unit,
          moveOperation(unit, along ?? 0, across ?? 0, snap === 5 ? 1 : snap),
          heldOf(unit, around()).mates,
        ),
      );
    else return;
    event.preventDefault();
    event.stopPropagation();
  };
  const outline = outlineFromAbove(unit, room).map(([x, y]): Point => [screenX(frame, y), screenY(frame, x)]);
  const sleepers = (lies?.sleepers ?? []).flatMap((id) => people.filter((person) => person.id === id));
  const { body } = unit;
  const { length } = body;
  // what hangs is drawn over what stands below it, open: there it is taken hold of by its edge, on the ceiling anywhere
  const hangs = body.from >= HANGS_MM;
  const ceiling = useView((view) => view.ceiling);
  return (
    <g>
      <g pointerEvents="none">
        <WallMarks frame={frame} unit={unit} room={room} lies={lies} />
      </g>
      <g
        className="grips"
        {...drag()}
        role="button"
        tabIndex={0}
        aria-label={t('layout.unit', { name: unit.name, length: lenUnit(length) })}
        aria-pressed={chosen}
        onClick={(event) => {
          if (!event.shiftKey) look({ unit: unit.id });
        }}
        onKeyDown={onKey}
        data-unit={unit.id}
      >
        <path
          d={ringPath(outline)}
          fill={hangs ? 'transparent' : 'url(#hatch-birch)'}
          stroke={chosen || together ? 'var(--data)' : 'var(--ink)'}
          strokeWidth={chosen ? 3 : together ? 2.25 : 1.5}
          strokeDasharray={hangs ? '8 4' : undefined}
          pointerEvents={hangs && !ceiling ? 'stroke' : undefined}
        />
      </g>
      {chosen && <Swept frame={frame} motions={motions} />}
      {lies &&
        sleepers.map((person, i) => (
          <Lying
            key={person.id}
            frame={frame}
            person={person}
            berth={berthOf(lies, i, { inner: room, arches, stands: NOTHING })}
            along={lies.along ?? 'y'}
          />
        ))}
    </g>
  );
});
