import { acrossOf, isAt, type Shadow } from '../../document/body.js';
import type { BoxChoice } from '../../document/schema.js';
import { spread } from '../../numeric/plane.js';
import type { ArchShape } from '../../shell/arch.js';
import { halfWidth, roofHeight, type Shell } from '../../shell/shell.js';
import type { Lining } from '../surface/lining.js';

/** A curtain across the body that is wanted. */
export interface CurtainAcross {
  readonly id: string;
  readonly name: string;
  readonly curtain: Curtain;
}

/** A curtain that hangs across the body, by its drops. */
export interface Curtain {
  /** From wall to wall at the rail, or to what stands or hangs there; the widest stretch of it, mm. */
  readonly width: number;
  /** Cloth for its fullness, mm. */
  readonly cloth: number;
  readonly brackets: number;
  /** The support behind the ceiling that the rail can be screwed to, and how far off it is, mm; null without a lining. */
  readonly support: { readonly name: string; readonly off: number } | null;
  /** From left to right: from which y to which the hem is how far below the rail, mm. */
  readonly drops: readonly { readonly from: number; readonly to: number; readonly drop: number }[];
  /** The ceiling is lower than the rail somewhere. */
  readonly high: boolean;
  /** Units leave no stretch for it at the height of its rail. */
  readonly blocked: boolean;
}

/** A curtain is so much wider than its rail. */
export const FULLNESS = 1.5;
const BRACKETS_MM = 450;
const HEM_CLEAR_MM = 10;
/** A shorter rail parts nothing off, mm. */
const LEAST_RAIL_MM = 300;
const STEP_MM = 10;
const SAME_MM = 2;

/**
 * A rail across the body at x, so high above the floor one stands on: how wide, and how long the cloth at each place down
 * to the floor, a step, an arch or the top of a unit.
 */
export function curtainAcross(
  inner: Shell,
  arches: readonly ArchShape[],
  units: readonly Shadow[],
  ceiling: Lining | null,
  x: number,
  height: number,
): Curtain {
  const z = inner.floor + height;
  const [from, to] = widestFree(
    [-halfWidth(inner, 'left', x, z), halfWidth(inner, 'right', x, z)],
    units
      .filter((one) => isAt(one, x) && inner.floor + one.body.from < z && inner.floor + one.body.to > z)
      .map(acrossOf),
  );
  const width = Math.max(0, to - from);
  const beneath = (y: number): number => {
    const side = y < 0 ? 'left' : 'right';
    const out = Math.abs(y);
    const arch = arches
      .filter(
        (one) => one.side === side && x >= one.from && x <= one.to && out >= one.face && out <= (one.far ?? Infinity),
      )
      .map((one) => (one.kind === 'step' ? one.bottom : one.bottom <= 0 ? one.height : inner.floor));
    const unit = units
      .filter((one) => isAt(one, x))
      .filter((one) => {
        const across = acrossOf(one);
        // what is higher than the rail stands beside it, not under it
        return y >= across.from && y <= across.to && inner.floor + one.body.from < z && inner.floor + one.body.to <= z;
      })
      .map((one) => inner.floor + one.body.to);
    const stepped = arch.filter((at) => at < 0);
    const floor = stepped.length > 0 ? Math.min(...stepped) : inner.floor;
    return Math.max(floor, ...arch.filter((at) => at > 0), ...unit);
  };
  const ys = spread(from, to, Math.max(2, Math.round(width / STEP_MM)));
  const high = ys.some((y) => roofHeight(inner, x, y) < z);
  const drops: { from: number; to: number; drop: number }[] = [];
  for (const y of ys) {
    const drop = z - beneath(y) - HEM_CLEAR_MM;
    const last = drops.at(-1);
    if (last && Math.abs(last.drop - drop) <= SAME_MM) last.to = y;
    else drops.push({ from: last ? last.to : y, to: y, drop });
  }
  const support = [...(ceiling?.ground.supports ?? [])].sort((a, b) => Math.abs(a.u - x) - Math.abs(b.u - x))[0];
  return {
    width,
    cloth: width * FULLNESS,
    brackets: Math.max(2, Math.ceil(width / BRACKETS_MM) + 1),
    support: support ? { name: support.name, off: Math.abs(support.u - x) } : null,
    drops,
    high,
    blocked: !high && width < LEAST_RAIL_MM,
  };
}

/** The widest stretch between two walls that nothing takes; of no width where there is none. */
function widestFree(
  [left, right]: readonly [number, number],
  taken: readonly { readonly from: number; readonly to: number }[],
): readonly [number, number] {
  let at = left;
  let best: readonly [number, number] = [left, left];
  for (const { from, to } of [...taken].sort((a, b) => a.from - b.from).concat([{ from: right, to: right }])) {
    const end = Math.min(from, right);
    if (end - at > best[1] - best[0]) best = [at, end];
    at = Math.max(at, to);
  }
  return best;
}

/** The curtains across the body that are wanted. */
export const curtainsAcross = (
  { across = [] }: Pick<BoxChoice, 'across'>,
  inner: Shell,
  arches: readonly ArchShape[],
  units: readonly Shadow[],
  ceiling: Lining | null,
): readonly CurtainAcross[] =>
  across.map(({ id, name, x, height }) => ({
    id,
    name,
    curtain: curtainAcross(inner, arches, units, ceiling, x, height),
  }));
