import { endOf, frontLineOf } from '../document/body.js';
import { familyNamed } from '../document/kit.js';
import type { Unit } from '../document/unit-schema.js';
import { spread, type Point } from '../numeric/plane.js';
import type { SolidBox } from '../rules/room.js';
import { halfWidth, sideAlong, type Shell } from '../shell/shell.js';
import type { SceneFamily } from './scene.js';

/** The room a unit takes, as an upright box in the vehicle, mm, with the bedding on it. Walls are followed only as far as a box can. */
export function solidBox(unit: Unit, inner: Shell, families: readonly SceneFamily[]): SolidBox {
  const [x0, x1] = [unit.body.x, endOf(unit)];
  const top = inner.floor + unit.body.to;
  const widest = (side: 'left' | 'right'): number =>
    Math.max(...spread(x0, x1, 5).map((x) => halfWidth(inner, side, x, top)));
  const line = frontLineOf(unit);
  const [y0, y1] = line
    ? line.sign < 0
      ? [-widest('left'), -line.front]
      : [line.front, widest('right')]
    : [-widest('left'), widest('right')];
  const bedding = familyNamed(families, unit.family)?.lies?.(unit).mattress ?? 0;
  return { x0, x1, y0, y1, z0: inner.floor + unit.body.from, z1: top + bedding };
}

/** A unit seen from above at its top: its true outline against the wall, mm. */
export function outlineFromAbove(unit: Unit, inner: Shell): Point[] {
  const [x, end] = [unit.body.x, endOf(unit)];
  const z = inner.floor + unit.body.to;
  const line = frontLineOf(unit);
  if (!line) {
    const left = sideAlong(inner, 'left', z, x, end, 17).map(([at, d]): Point => [at, -d]);
    return [...left, ...sideAlong(inner, 'right', z, x, end, 17).reverse()];
  }
  const back = sideAlong(inner, line.side, z, x, end, 17).map(([at, d]): Point => [at, line.sign * d]);
  return [[x, line.sign * line.front], ...back, [end, line.sign * line.front]];
}
