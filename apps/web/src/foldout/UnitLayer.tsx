import { useDrag } from '@use-gesture/react';
import { memo, type KeyboardEvent } from 'react';
import {
  bedLevels,
  halfWidth,
  sideAlong,
  type Operation,
  type Person,
  type Point,
  type PriceBook,
  type Shell,
  type Unit,
} from '@nestplank/core';
import { act, previewActions } from '../state/session.js';
import { look } from '../state/view.js';
import { linePath, ringPath } from '../ui/path.js';
import { useSpeech } from '../words/words.js';
import { screenX, screenY, wallPatch, type FoldOutFrame } from './geometry.js';

interface UnitLayerProps {
  readonly frame: FoldOutFrame;
  readonly unit: Unit;
  readonly room: Shell;
  readonly book: PriceBook;
  readonly people: readonly Person[];
  readonly chosen: boolean;
  /** Step a drag snaps to, mm. */
  readonly snap: number;
}

/** A unit in plan: its true outline against the wall. */
export function planOutline(unit: Unit, room: Shell, book: PriceBook): Point[] {
  const end = unit.x + unit.length;
  if (unit.kind === 'platform-bed') {
    const z = bedLevels(unit, room, book).top;
    const left = sideAlong(room, 'left', z, unit.x, end, 17).map(([x, d]): Point => [x, -d]);
    return [...left, ...sideAlong(room, 'right', z, unit.x, end, 17).reverse()];
  }
  const sign = unit.side === 'left' ? -1 : 1;
  const back = sideAlong(room, unit.side, room.floor + unit.height, unit.x, end, 17).map(([x, d]): Point => [
    x,
    sign * d,
  ]);
  return [[unit.x, sign * unit.front], ...back, [end, sign * unit.front]];
}

/** What moving a unit by a distance along and across changes. A bed reaches from wall to wall and moves along only. */
export function moveOperation(unit: Unit, along: number, across: number, snap: number): Operation {
  const to = (value: number): number => Math.round(value / snap) * snap;
  const tidy = (value: number): number => Math.round(value * 1e6) / 1e6;
  const x = tidy(to(unit.x + along));
  if (unit.kind === 'platform-bed') return { name: 'changeUnit', payload: { id: unit.id, changes: { x } } };
  const outward = unit.side === 'left' ? -across : across;
  return {
    name: 'changeUnit',
    payload: {
      id: unit.id,
      changes: {
        ...(along === 0 ? {} : { x }),
        ...(across === 0 ? {} : { front: tidy(Math.max(0, to(unit.front + outward))) }),
      },
    },
  };
}

/** A sleeper drawn to scale: head to the left, lying across. */
function Lying({
  frame,
  person,
  middle,
}: {
  readonly frame: FoldOutFrame;
  readonly person: Person;
  readonly middle: number;
}) {
  const { len } = useSpeech();
  const [head, foot] = [-person.stature / 2, person.stature / 2];
  const radius = 0.065 * person.stature;
  const shoulder = 0.13 * person.stature;
  const at = (y: number, x: number): Point => [screenX(frame, y), screenY(frame, x)];
  const [cx, cy] = at(head + radius, middle);
  const body = (sign: number): string =>
    linePath([
      at(head + 2 * radius, middle + sign * 40),
      at(head + 2 * radius + 90, middle + sign * shoulder),
      at(head + 0.45 * person.stature, middle + sign * shoulder * 0.75),
      at(foot, middle + sign * 60),
    ]);
  return (
    <g role="img" aria-label={`${person.name} ${len(person.stature)}`} pointerEvents="none">
      <circle cx={cx} cy={cy} r={radius * frame.scale} fill="var(--paper)" stroke="var(--ink)" strokeWidth={1.5} />
      <path d={body(1)} fill="none" stroke="var(--ink)" strokeWidth={1.5} strokeLinejoin="round" />
      <path d={body(-1)} fill="none" stroke="var(--ink)" strokeWidth={1.5} strokeLinejoin="round" />
      <path d={linePath([at(foot, middle - 60), at(foot, middle + 60)])} stroke="var(--ink)" strokeWidth={1.5} />
      <text
        x={screenX(frame, person.stature * 0.08)}
        y={screenY(frame, middle) + 5}
        textAnchor="middle"
        className="halo"
        style={{ stroke: 'var(--birch)' }}
      >
        {person.name} {len(person.stature)}
      </text>
    </g>
  );
}

function WallMarks({ frame, unit, room, book }: Pick<UnitLayerProps, 'frame' | 'unit' | 'room' | 'book'>) {
  const end = unit.x + unit.length;
  const patch = (side: 'left' | 'right', z0: number, z1: number, fill: string) => (
    <path
      key={`${side}${z0}`}
      d={ringPath(wallPatch(frame, side, unit.x, end, z0, z1))}
      fill={fill}
      stroke="var(--ink)"
      strokeWidth={1.5}
    />
  );
  if (unit.kind === 'base-cupboard') return patch(unit.side, room.floor, room.floor + unit.height, 'url(#hatch-birch)');
  const levels = bedLevels(unit, room, book);
  return (
    <>
      {(['left', 'right'] as const).map((side) => (
        <g key={side}>
          {patch(side, levels.floor, levels.top, 'url(#hatch-birch)')}
          {unit.mattress > 0 && patch(side, levels.top, levels.top + unit.mattress, 'var(--paper)')}
        </g>
      ))}
    </>
  );
}

/** One unit on floor and walls. It is moved by dragging or with the arrow keys; both show what would come of it at once. */
export const UnitLayer = memo(function UnitLayer({ frame, unit, room, book, people, chosen, snap }: UnitLayerProps) {
  const { t, len, lenUnit } = useSpeech();
  const drag = useDrag(
    ({ movement: [mx, my], first, last, tap, memo, event }) => {
      const start = (memo as Unit | undefined) ?? unit;
      if (first) {
        look({ unit: unit.id });
        // the keys are the unit's from here on, not those of the line
        (event.currentTarget as SVGElement | null)?.focus({ preventScroll: true });
      }
      if (tap) return start;
      const operation = moveOperation(
        start,
        my / frame.scale,
        start.kind === 'platform-bed' ? 0 : mx / frame.scale,
        snap,
      );
      if (last) {
        previewActions(null);
        act(operation);
      } else previewActions([operation]);
      return start;
    },
    { filterTaps: true, preventDefault: true, pointer: { keys: false } },
  );
  const onKey = (event: KeyboardEvent): void => {
    const size = (event.shiftKey ? 10 : 1) * (snap === 5 ? 10 : snap);
    const [along, across] = { ArrowUp: [-size, 0], ArrowDown: [size, 0], ArrowLeft: [0, -size], ArrowRight: [0, size] }[
      event.key
    ] ?? [0, 0];
    if (event.key === 'Delete') {
      act({ name: 'removeUnit', payload: { id: unit.id } });
      look({ unit: null });
    } else if (event.key === 'Enter' || event.key === ' ') look({ unit: unit.id });
    else if (along !== 0 || (across !== 0 && unit.kind !== 'platform-bed'))
      act(moveOperation(unit, along ?? 0, across ?? 0, snap === 5 ? 1 : snap));
    else return;
    event.preventDefault();
    event.stopPropagation();
  };
  const outline = planOutline(unit, room, book).map(([x, y]): Point => [screenX(frame, y), screenY(frame, x)]);
  const sleepers =
    unit.kind === 'platform-bed' ? unit.sleepers.flatMap((id) => people.filter((person) => person.id === id)) : [];
  const middleX =
    unit.kind === 'platform-bed'
      ? frame.centre
      : screenX(
          frame,
          ((unit.side === 'left' ? -1 : 1) *
            (unit.front + halfWidth(room, unit.side, unit.x + unit.length / 2, room.floor))) /
            2,
        );
  const labelY = screenY(frame, unit.x + unit.length / 2);
  return (
    <g>
      <g pointerEvents="none">
        <WallMarks frame={frame} unit={unit} room={room} book={book} />
      </g>
      <g
        {...drag()}
        role="button"
        tabIndex={0}
        aria-label={t('layout.unit', { name: unit.name, length: lenUnit(unit.length) })}
        aria-pressed={chosen}
        onClick={() => look({ unit: unit.id })}
        onKeyDown={onKey}
        style={{ cursor: 'grab', touchAction: 'none', outlineOffset: 0 }}
        data-unit={unit.id}
      >
        <path
          d={ringPath(outline)}
          fill="url(#hatch-birch)"
          stroke={chosen ? 'var(--data)' : 'var(--ink)'}
          strokeWidth={chosen ? 3 : 1.5}
        />
        {sleepers.length === 0 && (
          <>
            <text x={middleX} y={labelY - 2} textAnchor="middle" style={{ fontSize: 15, fontWeight: 600 }}>
              {unit.name}
            </text>
            <text x={middleX} y={labelY + 14} textAnchor="middle" className="soft">
              {len(unit.length)}
            </text>
          </>
        )}
      </g>
      {sleepers.map((person, i) => (
        <Lying
          key={person.id}
          frame={frame}
          person={person}
          middle={unit.x + ((i + 0.5) * unit.length) / sleepers.length}
        />
      ))}
    </g>
  );
});
