import type { DerivedShape } from '@nestplank/core/derive';
import { frontLineOf, isAt, type Unit } from '@nestplank/core/document';
import { boardBox, type MadeUnit } from '@nestplank/core/furniture';
import type { LyingPlace } from '@nestplank/core/layout';
import { spread } from '@nestplank/core/numeric';
import { archFace, archSpan, halfWidth, wallLine, type ArchShape, type Shell } from '@nestplank/core/shell';
import { ringPath } from '../kit/path.js';
import type { View } from './view.js';

/** What stands against a side wall, where the slice goes through it. */
function RunCut({
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
      fill="url(#hatch-birch)"
      stroke="var(--ink)"
      strokeWidth={1.5}
    />
  );
}

/** What reaches from wall to wall: its boards where they are cut through, and what lies on them. */
function AcrossCut({
  made,
  lies,
  room,
  x,
  view,
}: {
  readonly made: MadeUnit | null;
  readonly lies: LyingPlace | null;
  readonly room: Shell;
  readonly x: number;
  readonly view: View;
}) {
  const band = (z0: number, z1: number): string =>
    ringPath([
      view.at(-halfWidth(room, 'left', x, z0), z0),
      view.at(halfWidth(room, 'right', x, z0), z0),
      view.at(halfWidth(room, 'right', x, z1), z1),
      view.at(-halfWidth(room, 'left', x, z1), z1),
    ]);
  const cut = (made?.skeleton?.boards ?? []).filter((board) => {
    const { low, high } = boardBox(board);
    return x >= low[0] && x <= high[0];
  });
  const top = lies ? room.floor + lies.unit.body.to : 0;
  return (
    <>
      {cut
        .filter((board) => board.normal === 'z')
        .map((board) => (
          <path
            key={board.name}
            d={band(board.at, board.at + board.thickness)}
            fill="url(#hatch-birch)"
            stroke="var(--ink)"
            strokeWidth={1.25}
          />
        ))}
      {cut
        .filter((board) => board.normal === 'y')
        .map((board) => {
          const { low, high } = boardBox(board);
          return (
            <path
              key={board.name}
              d={ringPath([
                view.at(low[1], low[2]),
                view.at(high[1], low[2]),
                view.at(high[1], high[2]),
                view.at(low[1], high[2]),
              ])}
              fill="url(#hatch-birch)"
              stroke="var(--ink)"
              strokeWidth={1}
            />
          );
        })}
      {lies && lies.mattress > 0 && (
        <path d={band(top, top + lies.mattress)} fill="var(--ground)" stroke="var(--ink)" strokeWidth={1.25} />
      )}
    </>
  );
}

/** A unit where the slice goes through it. */
export function UnitCut({
  unit,
  shape,
  room,
  x,
  view,
}: {
  readonly unit: Unit;
  readonly shape: DerivedShape;
  readonly room: Shell;
  readonly x: number;
  readonly view: View;
}) {
  if (!isAt(unit, x)) return null;
  return (
    <g role="img" aria-label={unit.name}>
      {frontLineOf(unit) ? (
        <RunCut unit={unit} room={room} x={x} view={view} />
      ) : (
        <AcrossCut
          made={shape.made.find((made) => made.unit === unit.id) ?? null}
          lies={shape.lying.find((place) => place.unit.id === unit.id) ?? null}
          room={room}
          x={x}
          view={view}
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
