import { useState, type KeyboardEvent } from 'react';
import { frontLineOf, type Unit } from '@nestplank/core/document';
import { type MadeUnit, type Movable, movableDividers } from '@nestplank/core/furniture';
import { useHand } from '../../kit/use-hand.js';
import { act, previewActions, useSession } from '../../state/session.js';
import { useSpeech } from '../../words/use-speech.js';

const WIDE_PX = 330;
const HIGH_PX = 190;
const MARGIN_PX = 20;
/** A bay that is drawn less high than this has its name and its size in one line, px. */
const TWO_LINES_PX = 30;
/** A divider is taken hold of within this, px; a step by keys and by hand, mm. */
const HOLD_PX = 22;
const STEP_MM = 5;
const STEP_INCH_MM = 6.35;
const LARGE_STEPS = 10;
/** A bay is made no smaller than this, mm. */
const SMALLEST_MM = 40;

const tidy = (value: number): number => Math.round(value * 1e6) / 1e6;

type Skeleton = NonNullable<MadeUnit['skeleton']>;
interface Grip extends Movable {
  /** The clear size of the bay it sizes now, and of what lies on its other side, mm. */
  readonly size: number;
  readonly other: number;
  /** Along, and up or backward as it is seen. */
  readonly x0: number;
  readonly x1: number;
  readonly v0: number;
  readonly v1: number;
}
type Seen = 'front' | 'above';
type Bay = NonNullable<Skeleton['bays']>[number];

/** How deep a bay is at the least, mm. */
const deepOf = ({ deepLow, deepHigh }: Bay): number => Math.min(deepLow, deepHigh);
/** A bay as it is seen: from the front along and up, from above along and backward from the face. */
const boxOf = (bay: Bay, seen: Seen): Pick<Grip, 'x0' | 'x1' | 'v0' | 'v1'> => {
  const { x0, x1, z0, z1 } = bay.room;
  const near = bay.behind ?? 0;
  return seen === 'front' ? { x0, x1, v0: z0, v1: z1 } : { x0, x1, v0: near, v1: near + deepOf(bay) };
};

/** Between what a cut's parts lie, as it is seen. */
const ENDS = { along: ['x0', 'x1'], up: ['v0', 'v1'], deep: ['v0', 'v1'] } as const;

/** The dividers of a unit that can be moved, with where they are seen. */
function gripsOf(unit: Unit, skeleton: Skeleton, seen: Seen): Grip[] {
  return movableDividers(unit.division).flatMap((movable): Grip[] => {
    const board = skeleton.boards.find(({ name }) => name === movable.board);
    const own = (skeleton.bays ?? []).filter(({ bay }) => movable.own.includes(bay.name));
    if (!board || own.length === 0 || (movable.cut === 'deep') !== (seen === 'above')) return [];
    const along = movable.cut === 'along';
    const ends = board.outline.outer.map((point) => point[along ? 1 : 0]);
    const [from, to] = [Math.min(...ends), Math.max(...ends)];
    const beside = (skeleton.bays ?? []).filter(({ bay }) => movable.others.includes(bay.name));
    if (beside.length === 0) return [];
    const [low, high] = ENDS[movable.cut];
    const spanOf = (all: readonly Bay[]): readonly [number, number] => {
      const boxes = all.map((bay) => boxOf(bay, seen));
      return [Math.min(...boxes.map((box) => box[low])), Math.max(...boxes.map((box) => box[high]))];
    };
    const [span, across] = [spanOf(own), spanOf(beside)];
    const sizes = { size: span[1] - span[0], other: across[1] - across[0] };
    if (seen === 'above') {
      const at = movable.grows > 0 ? span[1] : span[0] - board.thickness;
      return [{ ...movable, ...sizes, x0: from, x1: to, v0: at, v1: at + board.thickness }];
    }
    const [near, far] = [board.at, board.at + board.thickness];
    return [
      {
        ...movable,
        ...sizes,
        ...(along ? { x0: near, x1: far, v0: from, v1: to } : { x0: from, x1: to, v0: near, v1: far }),
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
  readonly at: (x: number, v: number) => readonly [number, number];
}) {
  const { t, lenUnit, style } = useSpeech();
  const step = style.units === 'in' ? STEP_INCH_MM : STEP_MM;
  const along = grip.cut === 'along';
  // what it takes it takes from what lies on its other side: nothing else moves
  const sized = ({ size, other }: Pick<Grip, 'size' | 'other'>, by: number) => {
    const both = size + other;
    const wished = tidy(Math.round((size + grip.grows * by) / step) * step);
    const next = Math.max(Math.min(SMALLEST_MM, size), Math.min(wished, both - Math.min(SMALLEST_MM, other)));
    return {
      name: 'sizeBay' as const,
      payload: {
        id: unit.id,
        bay: grip.bay,
        size: next,
        ...(grip.outward > 0 ? { outward: grip.outward } : {}),
        beside: { side: grip.grows > 0 ? ('after' as const) : ('before' as const), size: tidy(both - next) },
      },
    };
  };
  const drag = useHand(([mx, my], { last, tap, memo }) => {
    const from = (memo as Grip | undefined) ?? grip;
    if (tap) return from;
    const by = along ? ((mirrored ? -1 : 1) * mx) / scale : -my / scale;
    const operation = sized(from, by);
    if (last) {
      previewActions(null);
      act(operation);
    } else previewActions([operation]);
    return from;
  });
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
    act(sized(grip, by));
  };
  const [ax, ay] = at(grip.x0, grip.v1);
  const [bx, by] = at(grip.x1, grip.v0);
  const [x, y, wide, high] = [Math.min(ax, bx), Math.min(ay, by), Math.abs(bx - ax), Math.abs(by - ay)];
  const more = Math.max(0, (HOLD_PX - (along ? wide : high)) / 2);
  return (
    <g
      className="grips"
      {...drag()}
      role="slider"
      tabIndex={0}
      aria-orientation={along ? 'horizontal' : 'vertical'}
      aria-label={t('bay.divider', { name: grip.bay, other: grip.others[0] ?? '' })}
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

/** A unit from its front or from above: its bays with their clear sizes, and the dividers between them, which are taken hold of. */
function View({ unit, skeleton, seen }: { readonly unit: Unit; readonly skeleton: Skeleton; readonly seen: Seen }) {
  const { t, len } = useSpeech();
  const all = skeleton.bays ?? [];
  const front = seen === 'front';
  // from the front what lies behind is not seen, but named
  const shown = front ? all.filter(({ behind }) => behind === undefined) : all;
  const grips = gripsOf(unit, skeleton, seen);
  const boxes = shown.map((bay) => boxOf(bay, seen));
  const [x0, x1] = [unit.body.x, unit.body.x + unit.body.length];
  const v0 = Math.min(...boxes.map((box) => box.v0));
  const v1 = Math.max(...boxes.map((box) => box.v1));
  const scale = Math.min((WIDE_PX - 2 * MARGIN_PX) / (x1 - x0), (HIGH_PX - 2 * MARGIN_PX) / Math.max(1, v1 - v0));
  // who stands before the left wall has the front of the vehicle to the right
  const mirrored = frontLineOf(unit)?.side === 'left';
  const left = (WIDE_PX - (x1 - x0) * scale) / 2;
  const at = (x: number, v: number): readonly [number, number] => [
    mirrored ? WIDE_PX - left - (x - x0) * scale : left + (x - x0) * scale,
    MARGIN_PX + (v1 - v) * scale,
  ];
  return (
    <svg
      className="elevation"
      width={WIDE_PX}
      height={(v1 - v0) * scale + 2 * MARGIN_PX}
      role="group"
      aria-label={t(front ? 'bay.elevation' : 'bay.plan', { name: unit.name })}
    >
      {shown.map((one, i) => {
        const box = boxes[i] ?? boxOf(one, seen);
        const [a, b] = [at(box.x0, box.v1), at(box.x1, box.v0)];
        const [x, y] = [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2];
        const size = `${len(box.x1 - box.x0)} × ${len(box.v1 - box.v0)}`;
        const low = b[1] - a[1] < TWO_LINES_PX;
        const behind = front ? all.filter((other) => other.behind !== undefined && liesBehind(other, one)) : [];
        return (
          <g key={one.bay.name}>
            <rect
              x={Math.min(a[0], b[0])}
              y={a[1]}
              width={Math.abs(b[0] - a[0])}
              height={b[1] - a[1]}
              fill="var(--paper)"
              stroke="var(--ink)"
            />
            <text x={x} y={low ? y + 4 : y - 2} textAnchor="middle" className="size-12">
              {one.bay.name}
              {low && <tspan className="data"> {size}</tspan>}
            </text>
            {!low && (
              <text x={x} y={y + 13} textAnchor="middle" className="data size-12">
                {size}
              </text>
            )}
            {behind.length > 0 && (
              <text x={x} y={y + 28} textAnchor="middle" className="size-12">
                {t('bay.behind', { names: behind.map(({ bay }) => bay.name).join(', ') })}
              </text>
            )}
          </g>
        );
      })}
      {grips.map((grip) => (
        <Divider key={grip.board} unit={unit} grip={grip} scale={scale} mirrored={mirrored} at={at} />
      ))}
    </svg>
  );
}
/** Whether the middle of a bay lies behind another, seen from the front. */
function liesBehind({ room }: Bay, { room: before }: Bay): boolean {
  const [x, z] = [(room.x0 + room.x1) / 2, (room.z0 + room.z1) / 2];
  return x > before.x0 && x < before.x1 && z > before.z0 && z < before.z1;
}

/** A unit from its front, and from above where bays lie behind each other. */
export function Elevation({ unit, skeleton: made }: { readonly unit: Unit; readonly skeleton: Skeleton }) {
  // a divider that is drawn farther than can be made stays in the hand: the unit is seen as it could last be made
  const dragged = useSession((session) => session.preview !== null);
  const [skeleton, setSkeleton] = useState(made);
  const bays = skeleton.bays ?? [];
  if (made !== skeleton && (!dragged || (made.bays ?? []).length >= bays.length)) setSkeleton(made);
  const deep = bays.some(({ behind }) => behind !== undefined);
  if (bays.length < 2) return null;
  return (
    <>
      <View unit={unit} skeleton={skeleton} seen="front" />
      {deep && <View unit={unit} skeleton={skeleton} seen="above" />}
    </>
  );
}
