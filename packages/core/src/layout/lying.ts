import { endOf, frontLineOf } from '../document/body.js';
import { familyNamed } from '../document/kit.js';
import type { Unit } from '../document/schema.js';
import type { Lying, SceneFamily } from '../furniture/scene.js';
import { spread } from '../numeric/plane.js';
import { clearAcross, halfWidth, type Shell } from '../shell/shell.js';

/** A place to lie on a unit, and who lies there. */
export interface LyingPlace extends Lying {
  readonly unit: Unit;
}

/** Every place to lie, as the units' families say. */
export function lyingPlaces(units: readonly Unit[], families: readonly SceneFamily[]): readonly LyingPlace[] {
  const all: LyingPlace[] = [];
  for (const unit of units) {
    const lies = familyNamed(families, unit.family)?.lies?.(unit);
    if (lies) all.push({ unit, ...lies });
  }
  return all;
}

/** The strip of a bed across the vehicle that one sleeper lies on, by order across the bed, rear sleeper last. */
export function strip({ unit, sleepers }: LyingPlace, index: number): readonly [number, number] {
  const { x, length } = unit.body;
  const width = length / Math.max(1, sleepers.length);
  return [x + index * width, x + (index + 1) * width];
}

/** A place one sleeper has on a bed, seen from above, mm; and how long it is clear for the body. */
export interface Berth {
  readonly x0: number;
  readonly x1: number;
  readonly y0: number;
  readonly y1: number;
  readonly clear: number;
}

/** How wide a bed is for its sleepers together, drawn out as far as it goes, mm: the least over its length. */
export function bedWidth({ unit, along, out }: LyingPlace, inner: Shell): number {
  if (along !== 'x') return unit.body.length;
  const line = frontLineOf(unit);
  if (!line) return unit.body.stands === 'free' ? unit.body.width : unit.body.length;
  const z = inner.floor + unit.body.to;
  const wall = Math.min(...spread(unit.body.x, endOf(unit), 9).map((x) => halfWidth(inner, line.side, x, z)));
  return wall - line.front + (out?.by ?? 0);
}

/** Where a sleeper lies: strips across the vehicle side by side, or along it from the wall inward. */
export function berthOf(place: LyingPlace, index: number, inner: Shell): Berth {
  const { unit, mattress, along, out, sleepers } = place;
  const top = inner.floor + unit.body.to;
  if (along !== 'x') {
    const [x0, x1] = strip(place, index);
    const [left, right] = (['left', 'right'] as const).map((side) => halfWidth(inner, side, (x0 + x1) / 2, top));
    return { x0, x1, y0: -(left ?? 0), y1: right ?? 0, clear: clearAcross(inner, x0, x1, top, top + mattress) };
  }
  const line = frontLineOf(unit);
  const [x0, x1] = [unit.body.x, endOf(unit)];
  const wide = bedWidth(place, inner) / Math.max(1, sleepers.length);
  const near = (line?.front ?? 0) - (out?.by ?? 0);
  const sign = line?.sign ?? 1;
  const [a, b] = [sign * (near + index * wide), sign * (near + (index + 1) * wide)];
  return { x0, x1, y0: Math.min(a, b), y1: Math.max(a, b), clear: x1 - x0 };
}
