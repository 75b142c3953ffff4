import {
  archFace,
  archSpan,
  bedLevels,
  boxOf,
  halfWidth,
  spread,
  wallLine,
  type ArchShape,
  type DerivedShape,
  type PriceBook,
  type Shell,
  type Unit,
} from '@nestplank/core';
import { ringPath } from '../ui/path.js';
import type { View } from './view.js';

/** A unit where the slice goes through it. */
export function UnitCut({
  unit,
  room,
  book,
  x,
  view,
}: {
  readonly unit: Unit;
  readonly room: Shell;
  readonly book: PriceBook;
  readonly x: number;
  readonly view: View;
}) {
  if (x < unit.x || x > unit.x + unit.length) return null;
  if (unit.kind === 'platform-bed') {
    const levels = bedLevels(unit, room, book);
    const band = (z0: number, z1: number): string =>
      ringPath([
        view.at(-halfWidth(room, 'left', x, z0), z0),
        view.at(halfWidth(room, 'right', x, z0), z0),
        view.at(halfWidth(room, 'right', x, z1), z1),
        view.at(-halfWidth(room, 'left', x, z1), z1),
      ]);
    return (
      <g role="img" aria-label={unit.name}>
        <path d={band(levels.underside, levels.top)} fill="url(#hatch-birch)" stroke="var(--ink)" strokeWidth={1.25} />
        {unit.mattress > 0 && (
          <path
            d={band(levels.top, levels.top + unit.mattress)}
            fill="var(--ground)"
            stroke="var(--ink)"
            strokeWidth={1.25}
          />
        )}
      </g>
    );
  }
  const sign = unit.side === 'left' ? -1 : 1;
  const top = room.floor + unit.height;
  const back = wallLine(room, unit.side, x, room.floor, top, 15).map(([d, z]) => view.at(sign * d, z));
  return (
    <g role="img" aria-label={unit.name}>
      <path
        d={ringPath([view.at(sign * unit.front, room.floor), ...back, view.at(sign * unit.front, top)])}
        fill="url(#hatch-birch)"
        stroke="var(--ink)"
        strokeWidth={1.5}
      />
    </g>
  );
}

/** Supports and other upright panels along the vehicle that the slice cuts through. */
export function SupportCuts({
  shape,
  x,
  view,
}: {
  readonly shape: DerivedShape;
  readonly x: number;
  readonly view: View;
}) {
  return shape.parts
    .filter((part) => part.role === 'bed-support')
    .map((part) => {
      const [px, py, pz] = part.place.origin;
      const box = boxOf(part.outline.outer);
      if (x < px || x > px + box.maxX) return null;
      return (
        <path
          key={part.id}
          d={ringPath([
            view.at(py, pz),
            view.at(py + part.thickness, pz),
            view.at(py + part.thickness, pz + box.maxY),
            view.at(py, pz + box.maxY),
          ])}
          fill="url(#hatch-birch)"
          stroke="var(--ink)"
          strokeWidth={1}
        />
      );
    });
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
