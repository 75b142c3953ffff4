import { useDrag } from '@use-gesture/react';
import type { KeyboardEvent } from 'react';
import { frontLineOf, type Unit } from '@nestplank/core/document';
import { type MadeUnit, movableDividers } from '@nestplank/core/furniture';
import { act, previewActions } from '../../state/session.js';
import { useSpeech } from '../../words/use-speech.js';

const WIDE_PX = 330;
const HIGH_PX = 190;
const MARGIN_PX = 20;
/** A divider is taken hold of within this, px; a step by keys and by hand, mm. */
const HOLD_PX = 22;
const STEP_MM = 5;
const STEP_INCH_MM = 6.35;
const LARGE_STEPS = 10;
/** A bay is made no smaller than this, mm. */
const SMALLEST_MM = 40;

const tidy = (value: number): number => Math.round(value * 1e6) / 1e6;

type Skeleton = NonNullable<MadeUnit['skeleton']>;
interface Grip {
  readonly board: string;
  readonly cut: 'along' | 'up';
  readonly bay: string;
  readonly grows: 1 | -1;
  /** The clear size of the bay it sizes now, mm. */
  readonly size: number;
  readonly x0: number;
  readonly x1: number;
  readonly z0: number;
  readonly z1: number;
}

/** The dividers of a unit that can be moved, with where they stand as seen from its front. */
function gripsOf(unit: Unit, skeleton: Skeleton): Grip[] {
  return movableDividers(unit.division).flatMap((movable): Grip[] => {
    const board = skeleton.boards.find(({ name }) => name === movable.board);
    const place = skeleton.bays?.find(({ bay }) => bay.name === movable.bay);
    if (!board || !place) return [];
    const along = movable.cut === 'along';
    const ends = board.outline.outer.map((point) => point[along ? 1 : 0]);
    const [from, to] = [Math.min(...ends), Math.max(...ends)];
    const [near, far] = [board.at, board.at + board.thickness];
    const { room } = place;
    return [
      {
        ...movable,
        size: along ? room.x1 - room.x0 : room.z1 - room.z0,
        ...(along ? { x0: near, x1: far, z0: from, z1: to } : { x0: from, x1: to, z0: near, z1: far }),
      },
    ];
  });
}

/** One divider that is taken hold of: dragged, or moved by the arrows. */
function Divider({
  unit,
  grip,
  scale,
  mirrored,
  at,
}: {
  readonly unit: Unit;
  readonly grip: Grip;
  readonly scale: number;
  /** Seen from the front x runs to the left. */
  readonly mirrored: boolean;
  readonly at: (x: number, z: number) => readonly [number, number];
}) {
  const { t, lenUnit, style } = useSpeech();
  const step = style.units === 'in' ? STEP_INCH_MM : STEP_MM;
  const along = grip.cut === 'along';
  const sized = (from: number, by: number) => ({
    name: 'sizeBay' as const,
    payload: {
      id: unit.id,
      bay: grip.bay,
      size: Math.max(SMALLEST_MM, tidy(Math.round((from + grip.grows * by) / step) * step)),
    },
  });
  const drag = useDrag(
    ({ movement: [mx, my], last, tap, memo }) => {
      const from = (memo as number | undefined) ?? grip.size;
      if (tap) return from;
      const by = along ? ((mirrored ? -1 : 1) * mx) / scale : -my / scale;
      const operation = sized(from, by);
      if (last) {
        previewActions(null);
        act(operation);
      } else previewActions([operation]);
      return from;
    },
    { filterTaps: true, preventDefault: true, pointer: { keys: false } },
  );
  const onKey = (event: KeyboardEvent): void => {
    const size = event.shiftKey ? LARGE_STEPS * step : step;
    const to = mirrored ? -size : size;
    const steps: Readonly<Record<string, number>> = along
      ? { ArrowLeft: -to, ArrowRight: to }
      : { ArrowUp: size, ArrowDown: -size };
    const by = steps[event.key];
    if (by === undefined) return;
    event.preventDefault();
    event.stopPropagation();
    act(sized(grip.size, by));
  };
  const [ax, ay] = at(grip.x0, grip.z1);
  const [bx, by] = at(grip.x1, grip.z0);
  const [x, y, wide, high] = [Math.min(ax, bx), Math.min(ay, by), Math.abs(bx - ax), Math.abs(by - ay)];
  const more = Math.max(0, (HOLD_PX - (along ? wide : high)) / 2);
  return (
    <g
      className="grips"
      {...drag()}
      role="slider"
      tabIndex={0}
      aria-orientation={along ? 'horizontal' : 'vertical'}
      aria-label={t('bay.divider', { name: grip.bay })}
      aria-valuenow={Math.round(grip.size)}
      aria-valuetext={lenUnit(grip.size)}
      onKeyDown={onKey}
    >
      <rect
        x={x - (along ? more : 0)}
        y={y - (along ? 0 : more)}
        width={wide + (along ? 2 * more : 0)}
        height={high + (along ? 0 : 2 * more)}
        fill="transparent"
        style={{ cursor: along ? 'ew-resize' : 'ns-resize' }}
      />
      <rect
        x={x}
        y={y}
        width={Math.max(2, wide)}
        height={Math.max(2, high)}
        fill="url(#hatch-birch)"
        stroke="var(--data)"
        strokeWidth={1.5}
      />
    </g>
  );
}

/** A unit from its front: its bays with their clear sizes, and the dividers between them, which are taken hold of. */
export function Elevation({ unit, skeleton }: { readonly unit: Unit; readonly skeleton: Skeleton }) {
  const { t, len } = useSpeech();
  const bays = skeleton.bays ?? [];
  const grips = gripsOf(unit, skeleton);
  if (bays.length < 2 || grips.length === 0) return null;
  const [x0, x1] = [unit.body.x, unit.body.x + unit.body.length];
  const z0 = Math.min(...bays.map(({ room }) => room.z0));
  const z1 = Math.max(...bays.map(({ room }) => room.z1));
  const scale = Math.min((WIDE_PX - 2 * MARGIN_PX) / (x1 - x0), (HIGH_PX - 2 * MARGIN_PX) / (z1 - z0));
  // who stands before the left wall has the front of the vehicle to the right
  const mirrored = frontLineOf(unit)?.side === 'left';
  const left = (WIDE_PX - (x1 - x0) * scale) / 2;
  const at = (x: number, z: number): readonly [number, number] => [
    mirrored ? WIDE_PX - left - (x - x0) * scale : left + (x - x0) * scale,
    MARGIN_PX + (z1 - z) * scale,
  ];
  return (
    <svg
      className="elevation"
      width={WIDE_PX}
      height={(z1 - z0) * scale + 2 * MARGIN_PX}
      role="group"
      aria-label={t('bay.elevation', { name: unit.name })}
    >
      {bays.map(({ bay, room }) => {
        const [a, b] = [at(room.x0, room.z1), at(room.x1, room.z0)];
        const [x, y] = [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2];
        return (
          <g key={bay.name}>
            <rect
              x={Math.min(a[0], b[0])}
              y={a[1]}
              width={Math.abs(b[0] - a[0])}
              height={b[1] - a[1]}
              fill="var(--paper)"
              stroke="var(--ink)"
            />
            <text x={x} y={y - 2} textAnchor="middle" className="size-12">
              {bay.name}
            </text>
            <text x={x} y={y + 13} textAnchor="middle" className="data size-12">
              {len(room.x1 - room.x0)} × {len(room.z1 - room.z0)}
            </text>
          </g>
        );
      })}
      {grips.map((grip) => (
        <Divider key={grip.board} unit={unit} grip={grip} scale={scale} mirrored={mirrored} at={at} />
      ))}
    </svg>
  );
}
