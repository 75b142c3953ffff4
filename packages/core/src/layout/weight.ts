import type { Limits } from '../document/schema.js';
import type { MassPoint } from '../furniture/mass-point.js';

/** What everything weighs and where, kg and mm; null where the papers were not looked up. */
export interface WeightFigures {
  /** All that is built in, kept and seated. */
  readonly added: number;
  /** Of that, mattresses and cushions. */
  readonly soft: number;
  readonly left: number;
  readonly right: number;
  /** The middle of what is added. */
  readonly centre: readonly [number, number, number] | null;
  readonly total: number | null;
  readonly front: number | null;
  readonly rear: number | null;
  /** Share of the whole on the coupling of a trailer. */
  readonly nose: number | null;
  /**
   * What each unit weighs with everything in it, the heaviest first, kg, and what it takes from the front axle or the
   * coupling to the rear one for each `LEVER_MM` that it is moved to the rear; null while the axles are not known.
   */
  readonly units: readonly { readonly unit: string; readonly kg: number; readonly lever: number | null }[];
  /** With empty tanks. */
  readonly empty: { readonly total: number | null; readonly front: number | null; readonly rear: number | null };
}

/** A unit's lever is told for so far to the rear, mm. */
export const LEVER_MM = 100;

const sum = (points: readonly MassPoint[], of: (point: MassPoint) => number): number =>
  points.reduce((total, point) => total + of(point), 0);

/** Loads of the axles by moments about each other: F = bare + sum m (xr - x) / (xr - xf). */
function axles(
  points: readonly MassPoint[],
  limits: Limits,
): { front: number | null; rear: number | null; total: number | null } {
  const { bare, bareFront, frontAxle, rearAxle } = limits;
  const total = bare === null ? null : bare + sum(points, ({ kg }) => kg);
  if (total === null || bareFront === null || frontAxle === null || rearAxle === null || rearAxle - frontAxle < 1)
    return { front: null, rear: null, total };
  const front = bareFront + sum(points, ({ kg, at }) => (kg * (rearAxle - at[0])) / (rearAxle - frontAxle));
  return { front, rear: total - front, total };
}

/** The masses of units with what is in them, the heaviest first. */
function unitsOf(points: readonly MassPoint[], limits: Limits | null): WeightFigures['units'] {
  const between =
    limits && limits.rearAxle !== null && limits.frontAxle !== null ? limits.rearAxle - limits.frontAxle : null;
  const of = new Map<string, number>();
  for (const { unit, kg } of points) if (unit !== null) of.set(unit, (of.get(unit) ?? 0) + kg);
  return [...of]
    .map(([unit, kg]) => ({ unit, kg, lever: between !== null && between >= 1 ? (kg * LEVER_MM) / between : null }))
    .sort((a, b) => b.kg - a.kg);
}

const weighed = new WeakMap<
  readonly MassPoint[],
  { readonly limits: Limits | null; readonly figures: WeightFigures }
>();

/** What it comes to on the road, with full tanks and everybody seated, and with empty tanks. The same points are added up once. */
export function weigh(points: readonly MassPoint[], limits: Limits | null): WeightFigures {
  const before = weighed.get(points);
  if (before?.limits === limits) return before.figures;
  const figures = addedUp(points, limits);
  weighed.set(points, { limits, figures });
  return figures;
}

function addedUp(points: readonly MassPoint[], limits: Limits | null): WeightFigures {
  const added = sum(points, ({ kg }) => kg);
  const built = points.filter(({ kind }) => kind !== 'person');
  const side = (sign: 1 | -1): number => sum(built, ({ kg, at }) => (at[1] * sign > 0 ? kg : at[1] === 0 ? kg / 2 : 0));
  const nothing = { front: null, rear: null, total: null };
  const full = limits ? axles(points, limits) : nothing;
  const empty = limits
    ? axles(
        points.filter(({ kind }) => kind !== 'contents'),
        limits,
      )
    : nothing;
  return {
    added,
    soft: sum(
      points.filter(({ kind }) => kind === 'soft'),
      ({ kg }) => kg,
    ),
    left: side(-1),
    right: side(1),
    centre:
      added > 0
        ? [
            sum(points, ({ kg, at }) => kg * at[0]) / added,
            sum(points, ({ kg, at }) => kg * at[1]) / added,
            sum(points, ({ kg, at }) => kg * at[2]) / added,
          ]
        : null,
    units: unitsOf(built, limits),
    ...full,
    nose: full.front !== null && full.total !== null && full.total > 0 ? full.front / full.total : null,
    empty,
  };
}
