import { acrossOf, endOf, frontLineOf, spansWalls } from '../document/body.js';
import type { Unit } from '../document/schema.js';
import { widthOf, type PlacedOpening } from '../shell/openings.js';
import type { RibMap } from '../shell/ribs.js';
import type { Shell } from '../shell/shell.js';
import { message, type Message } from '../words/message.js';

/** Where a unit is drawn to while it is moved, and why. */
export interface Snap {
  /** The place of its front end along the vehicle, or of its front across, mm. */
  readonly to: number;
  /** The line it meets there, mm: along the vehicle, or from the centre line. */
  readonly line: number;
  readonly said: Message;
}

/** What a moved unit can be drawn to. */
export interface SnapWorld {
  readonly units: readonly Unit[];
  readonly inner: Shell;
  readonly openings: readonly PlacedOpening[];
  readonly ribs: RibMap | null;
}

/** Whether two units stand in each other's way along the vehicle: at the same wall, or where one reaches across. */
function sameLane(a: Unit, b: Unit): boolean {
  const [p, q] = [acrossOf(a), acrossOf(b)];
  return p.from < q.to && q.from < p.to && a.body.from < b.body.to && b.body.from < a.body.to;
}

const nearest = (snaps: readonly Snap[], to: number, reach: number): Snap | null =>
  snaps.reduce<Snap | null>((best, snap) => {
    const off = Math.abs(snap.to - to);
    return off <= reach && (best === null || off < Math.abs(best.to - to)) ? snap : best;
  }, null);

/**
 * Where a unit moved along the vehicle comes to stand with something: against a neighbour, in line with a unit opposite, with
 * one end at a rib, at the edge of a window or door, at an end of the floor, or with equal gaps to both of its neighbours.
 * @param x where its front end is moved to, mm
 * @param reach how far it is drawn, mm
 */
export function snapAlong(unit: Unit, x: number, reach: number, world: SnapWorld): Snap | null {
  const { length } = unit.body;
  const others = world.units.filter((other) => other.id !== unit.id);
  const lane = others.filter((other) => sameLane(unit, other));
  const begins = (line: number, said: Message): Snap => ({ to: line, line, said });
  const ends = (line: number, said: Message): Snap => ({ to: line - length, line, said });
  const both = (line: number, said: Message): Snap[] => [begins(line, said), ends(line, said)];
  const beside = lane.flatMap((other) => [
    begins(endOf(other), message('snap.beside', { name: other.name })),
    ends(other.body.x, message('snap.beside', { name: other.name })),
  ]);
  const inLine = others
    .filter((other) => !lane.includes(other))
    .flatMap((other) => [
      begins(other.body.x, message('snap.inLine', { name: other.name })),
      ends(endOf(other), message('snap.inLine', { name: other.name })),
    ]);
  const edges = world.openings.flatMap((placed) => {
    const { surface } = placed.opening;
    if (surface !== 'left' && surface !== 'right') return [];
    if (!spansWalls(unit) && frontLineOf(unit)?.side !== surface) return [];
    const { from, to } = widthOf(placed);
    const said = message('snap.opening', { name: placed.opening.name });
    return [...both(from, said), ...both(to, said)];
  });
  const side = frontLineOf(unit)?.side;
  const walls = side ? [side] : spansWalls(unit) ? (['left', 'right'] as const) : [];
  const ribs = walls.flatMap((wall) =>
    (world.ribs?.on[wall].ribs ?? []).flatMap((rib) => both(rib.x, message('snap.rib', { name: rib.name }))),
  );
  const before = Math.max(world.inner.start, ...lane.map(endOf).filter((end) => end <= x + reach));
  const behind = Math.min(
    world.inner.length,
    ...lane.map((other) => other.body.x).filter((at) => at >= x + length - reach),
  );
  const gap = (behind - before - length) / 2;
  return nearest(
    [
      ...beside,
      begins(world.inner.start, message('snap.end')),
      ends(world.inner.length, message('snap.end')),
      ...inLine,
      ...edges,
      ...(gap > 0 ? [{ to: before + gap, line: before + gap, said: message('snap.equal') }] : []),
      ...ribs,
    ],
    x,
    reach,
  );
}

/** Where a front moved across comes into the line of another front at its wall, or as far out as one opposite. */
export function snapAcross(unit: Unit, front: number, reach: number, { units }: SnapWorld): Snap | null {
  const line = frontLineOf(unit);
  if (!line) return null;
  return nearest(
    units.flatMap((other): Snap[] => {
      const own = other.id === unit.id ? null : frontLineOf(other);
      if (!own) return [];
      const said = message(own.side === line.side ? 'snap.front' : 'snap.opposite', { name: other.name });
      return [{ to: own.front, line: line.sign * own.front, said }];
    }),
    front,
    reach,
  );
}
