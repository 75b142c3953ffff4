import { frontLineOf, isAt, type Mode, type PriceBook, type Unit } from '@nestplank/core/document';
import type { LyingPlace } from '@nestplank/core/layout';
import { materialOf } from '@nestplank/core/materials';
import { spread } from '@nestplank/core/numeric';
import { sectionOf, type Part } from '@nestplank/core/parts';
import { archFace, archSpan, halfWidth, wallLine, type ArchShape, type Shell } from '@nestplank/core/shell';
import { ringPath } from '../kit/path.js';
import type { View } from './view.js';

/** Parts where the slice goes through them, each in its material's hatch: the true sections of boards, battens and boxes. */
export function PartCuts({
  parts,
  book,
  x,
  view,
}: {
  readonly parts: readonly Part[];
  readonly book: PriceBook;
  readonly x: number;
  readonly view: View;
}) {
  return parts.flatMap((part) =>
    sectionOf(part, x).map(({ outer, holes }, i) => (
      <path
        key={`${part.id}:${i}`}
        d={[outer, ...holes].map((ring) => ringPath(ring.map(([y, z]) => view.at(y, z)))).join(' ')}
        fillRule="evenodd"
        fill={`url(#hatch-${materialOf(book, part.material)?.hatch ?? 'grey'})`}
        stroke="var(--ink)"
        strokeWidth={1}
        data-part={part.id}
      />
    )),
  );
}

/** The outline of what stands against a side wall, behind its parts: what the slice sees of it. */
function RunOutline({
  unit,
  room,
  x,
  view,
}: {
  readonly unit: Unit;
  readonly room: Shell;
  readonly x: number;
  readonly view: View;
}) {
  const line = frontLineOf(unit);
  if (!line) return null;
  const [foot, top] = [room.floor + unit.body.from, room.floor + unit.body.to];
  const back = wallLine(room, line.side, x, foot, top, 15).map(([d, z]) => view.at(line.sign * d, z));
  return (
    <path
      d={ringPath([view.at(line.sign * line.front, foot), ...back, view.at(line.sign * line.front, top)])}
      fill="var(--ground)"
      stroke="var(--soft)"
      strokeWidth={1}
    />
  );
}

/** A unit where the slice goes through it: its outline, its parts cut through, and what lies on it. */
export function UnitCut({
  unit,
  lies,
  parts,
  states,
  book,
  room,
  x,
  view,
}: {
  readonly unit: Unit;
  readonly lies: LyingPlace | null;
  /** Its parts, where they stand in the mode that is shown. */
  readonly parts: readonly Part[];
  readonly states: Mode['states'];
  readonly book: PriceBook;
  readonly room: Shell;
  readonly x: number;
  readonly view: View;
}) {
  const cuts = <PartCuts parts={parts} book={book} x={x} view={view} />;
  // what is turned or drawn out of it may reach past its ends
  if (!isAt(unit, x)) return cuts;
  const top = room.floor + unit.body.to;
  const edge = (side: 'left' | 'right', z: number) =>
    view.at((side === 'left' ? -1 : 1) * halfWidth(room, side, x, z), z);
  const line = frontLineOf(unit);
  // bedding reaches from wall to wall, or from the front of a bed along a wall to that wall
  const out = lies?.out ? lies.out.by * (states[lies.out.motion] ?? 0) : 0;
  const near = (z: number) => view.at((line?.sign ?? 1) * ((line?.front ?? 0) - out), z);
  const from = (z: number) => (line === null || line.side === 'left' ? edge('left', z) : near(z));
  const to = (z: number) => (line === null || line.side === 'right' ? edge('right', z) : near(z));
  return (
    <g role="img" aria-label={unit.name}>
      <RunOutline unit={unit} room={room} x={x} view={view} />
      {cuts}
      {lies && lies.mattress > 0 && (
        <path
          d={ringPath([from(top), to(top), to(top + lies.mattress), from(top + lies.mattress)])}
          fill="var(--ground)"
          stroke="var(--ink)"
          strokeWidth={1.25}
        />
      )}
    </g>
  );
}

/** Arches, steps and what else stands in the room, where the slice goes through. */
export function ArchCuts({
  arches,
  shell,
  x,
  view,
}: {
  readonly arches: readonly ArchShape[];
  readonly shell: Shell;
  readonly x: number;
  readonly view: View;
}) {
  return arches.map((arch) => {
    const heights = spread(arch.bottom, arch.height - 0.5, 9).filter((z) => {
      const span = archSpan(arch, z);
      return span && x >= span[0] && x <= span[1];
    });
    const top = heights.at(-1);
    if (top === undefined) return null;
    const sign = arch.side === 'left' ? -1 : 1;
    return (
      <path
        key={arch.id}
        d={ringPath([
          view.at(sign * archFace(arch, arch.bottom), arch.bottom),
          ...(arch.far === null
            ? wallLine(shell, arch.side, x, arch.bottom, top, 5).map(([d, z]) => view.at(sign * d, z))
            : [view.at(sign * arch.far, arch.bottom), view.at(sign * arch.far, top)]),
          view.at(sign * archFace(arch, top), top),
        ])}
        fill="url(#hatch-solid)"
        stroke="var(--soft)"
        strokeWidth={1.25}
      />
    );
  });
}
