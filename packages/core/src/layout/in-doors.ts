import { endOf, standsAt } from '../document/body.js';
import type { Unit } from '../document/schema.js';
import type { Scene, SeenOpening } from '../furniture/scene.js';
import type { SolidBox } from '../rules/room.js';
import { halfWidth } from '../shell/shell.js';
import { standingIn } from './standing.js';
import { memoOf } from '../numeric/memo.js';

export type Walled = SeenOpening & { readonly side: 'left' | 'right' };

const walled = {
  door: memoOf((openings: Scene['openings']) => walledOf(openings, 'door')),
  window: memoOf((openings: Scene['openings']) => walledOf(openings, 'window')),
};
const walledOf = (openings: Scene['openings'], kind: 'door' | 'window'): readonly Walled[] =>
  openings.flatMap((placed): Walled[] => {
    const { surface } = placed.opening;
    return placed.opening.kind === kind && (surface === 'left' || surface === 'right')
      ? [{ ...placed, side: surface }]
      : [];
  });
/** Openings in the side walls of a kind. */
export const inWalls = ({ openings }: Pick<Scene, 'openings'>, kind: 'door' | 'window'): readonly Walled[] =>
  walled[kind](openings);

/** What stands at an opening of a side wall: from where to where along the vehicle, its foot above the datum, and whose it is. */
export interface StandingAt {
  readonly x0: number;
  readonly x1: number;
  readonly z0: number;
  readonly name: string;
  readonly id: string;
}

/** The part of each unit that stands before an opening, at its heights; what lies wholly above or below leaves it free. */
function atOpening(
  scene: Scene,
  { sill, head }: Walled,
  from: number,
  to: number,
  before: (unit: Unit, box: SolidBox) => boolean,
): StandingAt[] {
  const found: StandingAt[] = [];
  for (const { unit, box } of standingIn(scene))
    if (
      box.x1 > from &&
      box.x0 < to &&
      box.z1 > sill + 1 &&
      box.z0 < head - 1 &&
      endOf(unit) > from &&
      unit.body.x < to &&
      before(unit, box)
    )
      found.push({
        x0: Math.max(from, box.x0),
        x1: Math.min(to, box.x1),
        z0: box.z0,
        name: unit.name,
        id: unit.id,
      });
  return found;
}

/** Each unit that stands at the wall in an opening of it, once. */
export const standingAt = (scene: Scene, placed: Walled, from: number, to: number): StandingAt[] => [
  ...new Map(
    atOpening(scene, placed, from, to, (unit) => standsAt(unit, placed.side)).map((one) => [one.id, one] as const),
  ).values(),
];

/** Nobody gets past what stands free nearer to a door than this, mm. */
const PASSES_MM = 400;

/** What stands in a door, or free so near before it that nobody gets past. */
export const standingInDoor = (scene: Scene, door: Walled): StandingAt[] =>
  atOpening(scene, door, door.from, door.to, (unit, box) => {
    if (unit.body.stands !== 'free') return standsAt(unit, door.side);
    const wall = halfWidth(scene.inner, door.side, (box.x0 + box.x1) / 2, Math.max(scene.inner.floor, box.z0));
    return wall - (door.side === 'left' ? -box.y0 : box.y1) < PASSES_MM;
  });
