import { endOf, frontLineOf, spansWalls } from '../document/body.js';
import { familyNamed } from '../document/kit.js';
import type { Unit } from '../document/unit-schema.js';
import { rectangle, spread, type Point } from '../numeric/plane.js';
import type { SolidBox } from '../rules/room.js';
import { halfWidth, sideAlong, type Shell } from '../shell/shell.js';
import type { SceneFamily } from './scene.js';
import type { Surroundings } from './surroundings.js';

const boxed = new WeakMap<Unit, { readonly inner: Shell; readonly box: SolidBox }>();

/**
 * The room a unit takes, as an upright box in the vehicle, mm, with the bedding on it. Walls are followed only as far as a box
 * can. Worked out once for a unit in its room.
 */
export function solidBox(unit: Unit, inner: Shell, families: readonly SceneFamily[]): SolidBox {
  const before = boxed.get(unit);
  if (before?.inner === inner) return before.box;
  const box = boxRound(unit, inner, families);
  boxed.set(unit, { inner, box });
  return box;
}

function boxRound(unit: Unit, inner: Shell, families: readonly SceneFamily[]): SolidBox {
  const { body } = unit;
  const [x0, x1] = [body.x, endOf(unit)];
  const top = inner.floor + body.to;
  const widest = (side: 'left' | 'right'): number =>
    Math.max(
      ...spread(x0, x1, 5).map((x) =>
        body.from > 0
          ? Math.max(halfWidth(inner, side, x, top), halfWidth(inner, side, x, inner.floor + body.from))
          : halfWidth(inner, side, x, Math.min(top, inner.floor + BELLY_MM)),
      ),
    );
  const line = frontLineOf(unit);
  const [y0, y1] =
    body.stands === 'free'
      ? [body.y, body.y + body.width]
      : line
        ? line.sign < 0
          ? [-widest('left'), -line.front]
          : [line.front, widest('right')]
        : [-widest('left'), widest('right')];
  const bedding = familyNamed(families, unit.family)?.lies?.(unit).mattress ?? 0;
  return { x0, x1, y0, y1, z0: inner.floor + body.from, z1: top + bedding };
}

interface Known {
  readonly inner: Shell;
  readonly book: Surroundings['book'];
  readonly boxes: readonly SolidBox[];
}
/** Units are never changed, only put in each other's places: what was worked out of one holds for as long as its room. */
const known = new WeakMap<Unit, Known>();

/** The room a unit takes as boxes: one, or what its family says. */
export function solidsOf(unit: Unit, room: Surroundings, families: readonly SceneFamily[]): readonly SolidBox[] {
  const last = known.get(unit);
  if (last?.inner === room.inner && last.book === room.book) return last.boxes;
  const boxes = familyNamed(families, unit.family)?.solids?.(unit, room) ?? [solidBox(unit, room.inner, families)];
  known.set(unit, { inner: room.inner, book: room.book, boxes });
  return boxes;
}

/** A body seen from above at its top, from its front line to the wall's true curve, mm. */
export function bodyFromAbove(unit: Unit, inner: Shell): Point[] {
  const { body } = unit;
  const [x, end] = [body.x, endOf(unit)];
  if (body.stands === 'free') return [...rectangle(x, body.y, end, body.y + body.width)];
  const z = inner.floor + (spansWalls(unit) ? Math.min(body.to, BELLY_MM) : body.to);
  const line = frontLineOf(unit);
  if (!line) {
    const left = sideAlong(inner, 'left', z, x, end, 17).map(([at, d]): Point => [at, -d]);
    return [...left, ...sideAlong(inner, 'right', z, x, end, 17).reverse()];
  }
  const deep = (at: number): number =>
    Math.max(
      ...[body.from, body.to].map((height) => halfWidth(inner, line.side, at, inner.floor + height)),
      line.front,
    );
  // what reaches up under the roof is seen where it is deepest
  const back = spread(x, end, 17).map((at): Point => [
    at,
    line.sign * (body.from > 0 || body.to > BELLY_MM ? deep(at) : halfWidth(inner, line.side, at, z)),
  ]);
  return [[x, line.sign * line.front], ...back, [end, line.sign * line.front]];
}
/** Above this walls lean in: what is higher is drawn where it is widest, mm. */
const BELLY_MM = 1100;
