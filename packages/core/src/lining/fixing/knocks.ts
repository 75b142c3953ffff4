import { endOf, spansWalls, type Shadow } from '../../document/body.js';
import type { PriceItem } from '../../document/schema.js';
import { message, mm, type Message } from '../../words/message.js';
import type { LinedSurface } from '../surface/lined-surface.js';
import { toV } from '../surface/unrolled.js';

/** Somebody leaning: so much force on a strip so wide, N and mm; it may give so much, mm. */
const LEAN_N = 250;
const STRIP_MM = 300;
const GIVES_MM = 6;
/** A board that runs on over its supports gives F L3 / (90 E I) in the middle of the bay that is loaded. */
const RUNS_ON = 90;
/** A hand that pushes anywhere, N. */
const HAND_N = 100;
/** However stiff a lining is, its supports are no farther apart, mm. */
const WIDEST_BAY_MM = 720;
/** What would need its supports nearer than this is a film and no lining, mm. */
export const NARROWEST_BAY_MM = 100;
/** As far above a mattress as a back leans, mm. */
const BACK_MM = 500;

/**
 * How far apart the supports of a lining may be, mm: a hand on a strip of it makes it give no more than somebody who leans
 * on it may, and never more than is usual.
 * @param along whether its grain runs along the vehicle, across the supports
 */
export function widestBay(material: PriceItem, thickness: number, along: boolean): number {
  const stiff = along ? material.bending?.along : material.bending?.across;
  if (!stiff) return WIDEST_BAY_MM;
  const inertia = (STRIP_MM * thickness ** 3) / 12;
  return Math.min(WIDEST_BAY_MM, Math.cbrt((GIVES_MM * RUNS_ON * stiff.modulus * inertia) / HAND_N));
}

/**
 * Where somebody leans against a lining: beside a bed, over its mattress. The lining counts as a board that runs on over its
 * supports, loaded between the two that are farthest apart there.
 * @param along whether the material's grain runs along the vehicle
 */
export function leanNotes(
  ground: LinedSurface,
  units: readonly Shadow[],
  material: PriceItem,
  thickness: number,
  along: boolean,
  floor: number,
): Message[] {
  const stiff = along ? material.bending?.along : material.bending?.across;
  if (!stiff || ground.unrolled.surface === 'ceiling') return [];
  return units.flatMap((unit): Message[] => {
    // somebody sits or lies on what reaches from wall to wall, and leans against the wall beside it
    if (!spansWalls(unit)) return [];
    const [u0, u1] = [Math.max(0, unit.body.x), Math.min(ground.unrolled.length, endOf(unit))];
    const { mattress } = unit.options;
    const low = toV(
      ground.unrolled,
      (u0 + u1) / 2,
      floor + unit.body.to + (typeof mattress === 'number' ? mattress : 0),
    );
    const us = ground.supports.map((support) => support.u).sort((a, b) => a - b);
    const ends = [0, ...us, ground.unrolled.length];
    const bays = ends
      .slice(1)
      .map((end, i) => ({ from: ends[i] ?? 0, to: end }))
      .filter(({ from, to }) => to > u0 && from < u1);
    const bay = Math.max(0, ...bays.map(({ from, to }) => to - from));
    const sag = (LEAN_N * bay ** 3) / (RUNS_ON * stiff.modulus * ((STRIP_MM * thickness ** 3) / 12));
    return sag > GIVES_MM && low > 0
      ? [message('lining.lean', { unit: { unit: unit.id }, sag: mm(sag), bay: mm(bay), high: mm(BACK_MM) })]
      : [];
  });
}
