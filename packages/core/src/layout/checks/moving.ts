import { baysOf, endOf, frontLineOf } from '../../document/body.js';
import { familyNamed } from '../../document/kit.js';
import type { Operation } from '../../document/operation.js';
import type { Bay, Unit } from '../../document/schema.js';
import { reachOf, sweptBy, takesAway, type DoorMotion, type Motion, type Prism } from '../../furniture/motions.js';
import { offer, offerBay } from '../../furniture/offer.js';
import { appliesTo, changeUnit, type Case, type Mend, type Pin, type Scene } from '../../furniture/scene.js';
import { boardBox } from '../../furniture/skeleton.js';
import { solidsOf } from '../../furniture/solid.js';
import { materialOf } from '../../materials/material.js';
import { memoFew, memoOf } from '../../numeric/memo.js';
import { boxOf, spread, type Point } from '../../numeric/plane.js';
import { stepUp } from '../../numeric/tolerance.js';
import { beforeRule, latchRule, sweepRule } from '../../rules/moving.js';
import { overlapOf, type SolidBox } from '../../rules/room.js';
import { halfWidth, roofHeight } from '../../shell/shell.js';
import { message, mm } from '../../words/message.js';
import { standingIn, standingOf, type Standing } from '../standing.js';
import { leaves } from '../through-doors.js';
import { moved, pushed } from './moved.js';
import { acrossAt } from './room.js';
import { LOOKS_AHEAD_MM } from './sight.js';

/** Things that come nearer than this touch, mm. */
export const TOUCH_MM = 0.5;

const near = (a: SolidBox, b: SolidBox): boolean =>
  a.x0 <= b.x1 && a.x1 >= b.x0 && a.y0 <= b.y1 && a.y1 >= b.y0 && a.z0 <= b.z1 && a.z1 >= b.z0;

/**
 * What stands beside one unit where a motion of it could reach. What stands in the unit's own place is said by itself; most
 * things are nowhere near.
 */
function othersNear(motion: Motion, unit: Unit, scene: Scene): readonly Standing[] {
  const reach = reachOf(motion);
  const all = struckIn(scene);
  const own = ownInWay(motion, unit, scene);
  let found: Standing[] | null = own.length > 0 ? [...own] : null;
  let within: Unit[] | null = null;
  let last: Unit | null = null;
  for (let i = 0; i < all.length; i += 1) {
    const one = all[i] as Standing;
    if (!near(reach, one.box) || one.unit === unit) continue;
    (found ??= []).push(one);
    // the boxes of a unit stand in a row
    if (one.unit === last) continue;
    last = one.unit;
    if (standsWithin(last, unit, scene)) (within ??= []).push(last);
  }
  if (!found) return NOBODY_NEAR;
  const apart = within;
  return apart === null ? found : found.filter((one) => !apart.includes(one.unit));
}
/** What of tops stands out over the fronts under them: a door that passes the front may strike it. */
const overhangsIn = (scene: Scene): readonly Standing[] =>
  scene.units.flatMap((unit): Standing[] => {
    const out = familyNamed(scene.families, unit.family)?.overhang?.(unit) ?? 0;
    const line = frontLineOf(unit);
    if (out <= 0 || !line) return [];
    const top = scene.inner.floor + unit.body.to;
    const thick = materialOf(scene.book, unit.materials['top'] ?? '')?.thickness ?? 0;
    const ys = [line.sign * line.front, line.sign * (line.front - out)];
    return [
      {
        unit,
        box: {
          x0: unit.body.x,
          x1: endOf(unit),
          y0: Math.min(...ys),
          y1: Math.max(...ys),
          z0: top - thick,
          z1: top,
        },
      },
    ];
  });
/** Everything that what moves may strike. */
const struckIn = memoOf((scene: Scene): readonly Standing[] => [...standingIn(scene), ...overhangsIn(scene)]);

/** Whether one unit stands in another's own place. */
function standsWithin(other: Unit, unit: Unit, scene: Scene): boolean {
  const mine = solidsOf(unit, scene, scene.families);
  const theirs = solidsOf(other, scene, scene.families);
  for (let i = 0; i < theirs.length; i += 1)
    for (let k = 0; k < mine.length; k += 1)
      if (overlapOf(mine[k] as SolidBox, theirs[i] as SolidBox) !== null) return true;
  return false;
}
const NOBODY_NEAR: readonly Standing[] = [];

const ownBefore = new WeakMap<Motion, readonly Standing[]>();
/**
 * Boards of the unit itself that stand before what moves: a wing of a seat before its doors. What it lies beside, on or behind
 * while it is shut is where it belongs. Worked out once for a motion, which is of one skeleton.
 */
function ownInWay(motion: Motion, unit: Unit, scene: Scene): readonly Standing[] {
  const before = ownBefore.get(motion);
  if (before) return before;
  const found = motion.whole ? NOBODY_NEAR : ownAhead(motion, unit, scene);
  ownBefore.set(motion, found);
  return found;
}
function ownAhead(motion: Motion, unit: Unit, scene: Scene): readonly Standing[] {
  const name = motion.of.slice(unit.id.length + 1);
  const out = outOf(motion);
  if (!out) return NOBODY_NEAR;
  const reach = reachOf(motion);
  const { shut } = motion;
  const ahead = (box: SolidBox): boolean =>
    out.axis === 'x'
      ? out.sign > 0
        ? box.x0 >= shut.x1 - TOUCH_MM
        : box.x1 <= shut.x0 + TOUCH_MM
      : out.sign > 0
        ? box.y0 >= shut.y1 - TOUCH_MM
        : box.y1 <= shut.y0 + TOUCH_MM;
  return (scene.skeletons.get(unit.id)?.boards ?? []).flatMap((board): Standing[] => {
    if (board.moves === name || motion.off?.includes(board.name)) return [];
    const { low, high } = boardBox(board);
    const box: SolidBox = { x0: low[0], x1: high[0], y0: low[1], y1: high[1], z0: low[2], z1: high[2] };
    return near(reach, box) && ahead(box) ? [{ unit, box }] : [];
  });
}
/** Which way something moves out of its place, level with the floor; null where it moves up or down alone. */
function outOf(motion: Motion): { readonly axis: 'x' | 'y'; readonly sign: 1 | -1 } | null {
  const way = (x: number, y: number) =>
    Math.max(Math.abs(x), Math.abs(y)) < TOUCH_MM
      ? null
      : Math.abs(x) > Math.abs(y)
        ? { axis: 'x' as const, sign: x > 0 ? (1 as const) : (-1 as const) }
        : { axis: 'y' as const, sign: y > 0 ? (1 as const) : (-1 as const) };
  if (motion.kind === 'lift-off') return null;
  if (motion.kind === 'slide') return motion.by[2] === 0 ? way(motion.by[0], motion.by[1]) : null;
  if (motion.about === 'z') {
    const [from, to] = motion.range;
    const angle = ((from + (to > from ? 90 : -90)) * Math.PI) / 180;
    return way(Math.cos(angle), Math.sin(angle));
  }
  const { shut, through } = motion;
  const outs = [through.x1 - shut.x1 - (shut.x0 - through.x0), through.y1 - shut.y1 - (shut.y0 - through.y0)] as const;
  return way(outs[0], outs[1]);
}

export const sameHeight = (prism: Pick<Prism, 'z0' | 'z1'>, box: SolidBox): boolean =>
  box.z0 < prism.z1 - TOUCH_MM && box.z1 > prism.z0 + TOUCH_MM;
export const midOf = ({ ring }: Prism): Point => {
  const box = boxOf(ring);
  return [(box.minX + box.maxX) / 2, (box.minY + box.maxY) / 2];
};

/** The nearest point of a box to a place, and how far it is. */
function nearest([x, y]: Point, box: SolidBox): { readonly at: Point; readonly far: number } {
  const at: Point = [Math.min(Math.max(x, box.x0), box.x1), Math.min(Math.max(y, box.y0), box.y1)];
  return { at, far: Math.hypot(at[0] - x, at[1] - y) };
}

/** How far along a ray from a place a box begins, mm; Infinity where the ray misses it. */
function alongRay([x, y]: Point, degrees: number, box: SolidBox): number {
  const angle = (degrees * Math.PI) / 180;
  let [from, to] = [0, Infinity];
  for (const [at, by, low, high] of [
    [x, Math.cos(angle), box.x0, box.x1],
    [y, Math.sin(angle), box.y0, box.y1],
  ] as const) {
    if (Math.abs(by) < 1e-12) {
      if (at <= low || at >= high) return Infinity;
      continue;
    }
    const [a, b] = [(low - at) / by, (high - at) / by];
    from = Math.max(from, Math.min(a, b));
    to = Math.min(to, Math.max(a, b));
  }
  return from < to ? from : Infinity;
}

/**
 * How near the axis of a door something stands inside the sector it sweeps, mm; its own reach where nothing does. Seen from
 * the axis a box is nearer the nearer one looks to its nearest point: that point counts where it lies in the sector, else
 * where one edge of the sector meets the box.
 */
export function clearOfDoor({ at, range, reach }: DoorMotion, box: SolidBox): number {
  // most things are farther off than it reaches
  if (nearest(at, box).far >= reach) return reach;
  const within: SolidBox = {
    ...box,
    x0: box.x0 + TOUCH_MM,
    x1: box.x1 - TOUCH_MM,
    y0: box.y0 + TOUCH_MM,
    y1: box.y1 - TOUCH_MM,
  };
  if (within.x0 >= within.x1 || within.y0 >= within.y1) return reach;
  const near = nearest(at, within);
  const [low, high] = [Math.min(...range), Math.max(...range)];
  const towards = (Math.atan2(near.at[1] - at[1], near.at[0] - at[0]) * 180) / Math.PI;
  const turned = (((towards - low) % 360) + 360) % 360;
  if (near.far === 0 || turned <= high - low) return Math.min(near.far, reach);
  return Math.min(alongRay(at, low, within), alongRay(at, high, within), reach);
}

/** How far something that moves straight along one axis gets before a box, mm; null where the box is not in its way. */
function clearOfSlide(shut: SolidBox, by: readonly [number, number, number], box: SolidBox): number | null {
  const axis = [0, 1, 2].reduce((a, b) => (Math.abs(by[b] ?? 0) > Math.abs(by[a] ?? 0) ? b : a));
  const [low, high] = (['x', 'y', 'z'] as const).map((name) => [`${name}0`, `${name}1`] as const)[axis] ?? ['x0', 'x1'];
  const meets = (['x', 'y', 'z'] as const).every(
    (name, i) =>
      i === axis || (box[`${name}0`] < shut[`${name}1`] - TOUCH_MM && box[`${name}1`] > shut[`${name}0`] + TOUCH_MM),
  );
  if (!meets) return null;
  const clear = (by[axis] ?? 0) > 0 ? box[low] - shut[high] : shut[low] - box[high];
  // what is already behind it, or what it stands in, is no matter of moving
  return clear < -TOUCH_MM ? null : clear;
}

/** The wall on the other side, at the heights of what moves, as a box beyond it. */
function wallBeyond(scene: Scene, shut: SolidBox, towards: 1 | -1): SolidBox {
  const side = towards < 0 ? 'left' : 'right';
  const least = Math.min(
    ...spread(shut.x0, shut.x1, 3).flatMap((x) =>
      spread(shut.z0, shut.z1, 3).map((z) => halfWidth(scene.inner, side, x, z)),
    ),
  );
  return towards < 0
    ? { ...shut, y0: -10_000, y1: -least, z0: shut.z0, z1: shut.z1 }
    : { ...shut, y0: least, y1: 10_000 };
}

interface Met {
  readonly clear: number;
  readonly needs: number;
  readonly by: string;
  readonly unit: Unit | null;
}

const WALL = 'the wall';
const ROOF = 'the roof';

/** What has been taken out of the room in every mode in which something is moved: it stands in its way in none. */
function awayBefore(motion: Motion, scene: Scene): ReadonlySet<string> {
  if (scene.modes.length === 0) return NONE_AWAY;
  const movable = takenIn(scene);
  if (movable.length === 0) return NONE_AWAY;
  const used = scene.modes.filter(({ states }) => (states[motion.of] ?? 0) > 0);
  if (used.length === 0) return NONE_AWAY;
  return new Set(
    movable.filter(({ of }) => used.every(({ states }) => (states[of] ?? 0) > 0)).map(({ unit }) => unit.id),
  );
}
/** Everything that can be taken out of the room as a whole, listed once for a scene. */
const takenIn = memoFew((scene: Scene): readonly { readonly of: string; readonly unit: Unit }[] => {
  const all: { readonly of: string; readonly unit: Unit }[] = [];
  for (const unit of scene.units)
    for (const motion of motionsOf(unit, scene)) if (takesAway(motion)) all.push({ of: motion.of, unit });
  return all;
});
const NONE_AWAY: ReadonlySet<string> = new Set();

interface Known {
  readonly inner: Scene['inner'];
  readonly openings: Scene['openings'];
  readonly others: readonly Standing[];
  readonly met: Met;
}
/** A motion in the same room beside the same things gets as far as it did. */
const known = new WeakMap<Motion, Known>();

/** What is first in the way of a motion: how far it gets and how far it would. */
function firstMet(motion: Motion, unit: Unit, scene: Scene): Met {
  const gone = awayBefore(motion, scene);
  const found = othersNear(motion, unit, scene);
  const others = gone.size === 0 ? found : found.filter(({ unit: other }) => !gone.has(other.id));
  const last = known.get(motion);
  if (
    last?.inner === scene.inner &&
    last.openings === scene.openings &&
    last.others.length === others.length &&
    last.others.every(({ box, unit: other }, i) => box === others[i]?.box && other === others[i].unit)
  )
    return last.met;
  const met = meets(motion, others, scene);
  known.set(motion, { inner: scene.inner, openings: scene.openings, others, met });
  return met;
}

/** The same, worked out. */
function meets(motion: Motion, others: readonly Standing[], scene: Scene): Met {
  const none = (needs: number): Met => ({ clear: needs, needs, by: '', unit: null });
  const least = (needs: number, found: readonly Met[]): Met =>
    found.reduce((first, next) => (next.clear < first.clear ? next : first), none(needs));
  // what is laid on elsewhere meets what stands there
  if (motion.kind === 'lift-off' && !motion.to) return none(0);
  if (motion.kind === 'slide') {
    const needs = Math.max(...motion.by.map(Math.abs));
    const found = others.flatMap(({ box, unit: other }): Met[] => {
      const clear = clearOfSlide(motion.shut, motion.by, box);
      return clear !== null && clear < needs ? [{ clear, needs, by: other.name, unit: other }] : [];
    });
    const [along, across] = motion.by;
    const wall =
      // out through a door that is open
      leaves(motion, scene)?.door
        ? null
        : across !== 0
          ? clearOfSlide(motion.shut, motion.by, wallBeyond(scene, motion.shut, across > 0 ? 1 : -1))
          : along > 0
            ? Math.max(0, scene.inner.length - motion.shut.x1)
            : along < 0
              ? Math.max(0, motion.shut.x0 - scene.inner.start)
              : null;
    return least(needs, [
      ...found,
      ...(wall !== null && wall < needs ? [{ clear: wall, needs, by: WALL, unit: null }] : []),
    ]);
  }
  if (motion.kind === 'hinge' && motion.about === 'z') {
    const { reach } = motion;
    const found = others
      .filter(({ box }) => sameHeight(motion.shut, box))
      .map(({ box, unit: other }): Met => ({
        clear: clearOfDoor(motion, box),
        needs: reach,
        by: other.name,
        unit: other,
      }))
      .filter(({ clear }) => clear < reach - TOUCH_MM);
    const room = aheadOfWall(motion, scene);
    return least(reach, [...found, ...(room < reach ? [{ clear: room, needs: reach, by: WALL, unit: null }] : [])]);
  }
  // a flap or a lid: what reaches into the box its edge passes through, by how far it gets out of its own place
  const { shut } = motion;
  const through = motion.kind === 'lift-off' ? (motion.to ?? shut) : motion.through;
  const ways: readonly { readonly needs: number; readonly clear: (box: SolidBox) => number }[] = [
    { needs: shut.y0 - through.y0, clear: (box) => shut.y0 - box.y1 },
    { needs: through.y1 - shut.y1, clear: (box) => box.y0 - shut.y1 },
    { needs: shut.x0 - through.x0, clear: (box) => shut.x0 - box.x1 },
    { needs: through.x1 - shut.x1, clear: (box) => box.x0 - shut.x1 },
  ];
  const up = { needs: through.z1 - shut.z1, clear: (box: SolidBox) => box.z0 - shut.z1 };
  const out = ways.reduce((most, way) => (way.needs > most.needs ? way : most));
  const vertical = up.needs > out.needs;
  const { needs, clear: clearOf } = vertical ? up : out;
  const found = others.flatMap(({ box, unit: other }): Met[] => {
    const meets =
      box.x0 < through.x1 - TOUCH_MM &&
      box.x1 > through.x0 + TOUCH_MM &&
      box.y0 < through.y1 - TOUCH_MM &&
      box.y1 > through.y0 + TOUCH_MM &&
      sameHeight(through, box);
    if (!meets) return [];
    const clear = clearOf(box);
    // what stands in its way already lets it go nowhere
    return clear < needs ? [{ clear: Math.max(0, clear), needs, by: other.name, unit: other }] : [];
  });
  const middle = (through.y0 + through.y1) / 2;
  const roof = Math.min(...spread(shut.x0, shut.x1, 5).map((x) => roofHeight(scene.inner, x, middle))) - shut.z1;
  // along the vehicle it ends at the front and the rear
  const end =
    out === ways[2]
      ? shut.x0 - scene.inner.start
      : out === ways[3] && !leaves(motion, scene)?.door
        ? scene.inner.length - shut.x1
        : Infinity;
  return least(needs, [
    ...found,
    ...(vertical && roof < needs ? [{ clear: roof, needs, by: ROOF, unit: null }] : []),
    ...(!vertical && end < needs - TOUCH_MM ? [{ clear: Math.max(0, end), needs, by: WALL, unit: null }] : []),
  ]);
}

export const motionsOf = (unit: Unit, scene: Scene): readonly Motion[] => scene.skeletons.get(unit.id)?.motions ?? [];
export const pinAt = (unit: Unit, [x, y]: Point): Pin => ({ unit: unit.id, person: null, x, y });

/** The bay whose front a motion is, by its name. */
function bayOf(unit: Unit, motion: Motion): Bay | null {
  const [, bay = ''] = motion.of.split('.');
  return baysOf(unit.division).find(({ name }) => name === bay) ?? null;
}
const changeBay = (unit: Unit, bay: Bay, changes: Partial<Pick<Bay, 'holds' | 'front'>>): Operation => ({
  name: 'changeBay',
  payload: { id: unit.id, bay: bay.name, ...changes },
});

/** More doors than hang at the ends of a bay need an upright between them. */
const MOST_DOORS = 2;
/** A shorter flap is of no use, mm. */
const SHORTEST_FLAP_MM = 100;
/** Whether something of a unit moves all its way as the unit would be. */
function opensAs({ of }: Motion, then: Unit, others: readonly Standing[], scene: Scene): boolean {
  const motions = familyNamed(scene.families, then.family)?.skeleton(then, scene).motions ?? [];
  const motion = motions.find((one) => one.of === of);
  const met = motion && meets(motion, others, scene);
  return met !== undefined && met.clear >= met.needs - TOUCH_MM;
}
/** Ways to give a motion room: other fronts, a shorter way out, the other unit put back. */
function mendsOf(motion: Motion, unit: Unit, met: Met, scene: Scene): (Mend | null)[] {
  const gone = awayBefore(motion, scene);
  const others = othersNear(motion, unit, scene).filter(({ unit: one }) => !gone.has(one.id));
  const bay = bayOf(unit, motion);
  const line = met.unit && frontLineOf(met.unit);
  const by = stepUp(scene, met.needs - met.clear);
  const other = met.unit;
  const mends: (Mend | null)[] = [];
  if (bay && motion.kind === 'slide' && bay.holds.kind === 'pull-out' && met.clear >= 200)
    mends.push(
      offerBay(
        unit,
        bay,
        scene,
        { holds: { ...bay.holds, travel: Math.floor(met.clear) } },
        message('mend.travel', { to: mm(Math.floor(met.clear)) }),
      ),
    );
  // a flap of a top is made shorter by what it lacks
  const long = unit.options['flapLong'];
  const shorter = typeof long === 'number' ? Math.floor(long - (met.needs - met.clear)) : 0;
  if (motion.of === `${unit.id}.flap` && shorter >= SHORTEST_FLAP_MM)
    mends.push(offer(unit, scene, { flapLong: shorter }, message('mend.flap', { to: mm(shorter) })));
  // a door across that lacks room beside its opening: the opening is moved to where there is
  const doorAt = unit.options['doorAt'];
  if (typeof doorAt === 'number' && !bay && motion.kind === 'slide' && motion.by[1] !== 0) {
    const free = Math.round(doorAt) - Math.sign(motion.by[1]) * by;
    mends.push(
      offer(unit, scene, { doorAt: free }, message('mend.doorAt', { name: unit.name, at: acrossAt(free) }), (then) =>
        opensAs(motion, then, others, scene),
      ),
    );
  }
  // what a lid of the top meets is not met by a front, and another front does not help
  const front = motion.kind === 'hinge' && !motion.of.endsWith('.lid') ? bay?.front.kind : undefined;
  if (bay && front === 'doors' && bay.front.kind === 'doors' && motion.kind === 'hinge' && motion.about === 'z') {
    // narrower doors are hung elsewhere: they are clear of what is farther from the front than they are wide
    const free = Math.min(...others.map(({ box }) => aheadOf(motion, box)), aheadOfWall(motion, scene));
    const count = Math.ceil((bay.front.count * motion.reach) / Math.max(1, free));
    if (count > bay.front.count && count <= MOST_DOORS)
      mends.push(offerBay(unit, bay, scene, { front: { ...bay.front, count } }, message('mend.moreDoors', { count })));
  }
  // two panels take a thickness more of the depth than a door does
  if (bay && (front === 'doors' || front === 'flap-down' || front === 'lift-up'))
    mends.push(
      offerBay(
        unit,
        bay,
        scene,
        { front: { kind: 'sliding', latch: true } },
        message('mend.otherFront', { what: { word: 'mend.front.sliding' } }),
      ),
    );
  if (other && other !== unit && line && by < 250)
    mends.push(
      offer(
        other,
        scene,
        { front: line.front + by },
        message('mend.frontBack', { name: other.name, by: mm(by) }),
        (then) => {
          const stands = standingOf(then, scene, scene.families);
          const now = meets(motion, [...others.filter((one) => one.unit !== other), ...stands], scene);
          return now.clear > met.clear + TOUCH_MM && (now.unit !== then || now.clear >= now.needs - TOUCH_MM);
        },
      ),
    );
  // what stands free is moved out of its way, where nothing else stands
  if (other && other !== unit && other.body.stands === 'free') {
    const reach = reachOf(motion);
    const standing = standingIn(scene).filter((one) => one.unit !== other);
    const solids = solidsOf(other, scene, scene.families);
    for (const way of ['front', 'rear', 'left', 'right'] as const)
      mends.push(
        moved(other, way, pushed(solids, [reach], way), scene, (then) => {
          const now = solidsOf(then, scene, scene.families);
          return (
            now.every((box) => standing.every((one) => overlapOf(one.box, box) === null)) &&
            meets(
              motion,
              [...others.filter((one) => one.unit !== other), ...standingOf(then, scene, scene.families)],
              scene,
            ).clear >=
              met.needs - TOUCH_MM
          );
        }),
      );
  }
  return mends;
}
/** How far before the shut door something stands, across the vehicle, mm; Infinity where no narrower door comes near it. */
function aheadOf({ shut, reach, at }: DoorMotion, box: SolidBox): number {
  const beside = box.x1 <= shut.x0 - reach || box.x0 >= shut.x1 + reach || !sameHeight(shut, box);
  if (beside) return Infinity;
  const gap = Math.max(box.y0 - Math.max(at[1], shut.y0), Math.min(at[1], shut.y1) - box.y1);
  return Math.max(0, gap);
}
const walls = new WeakMap<DoorMotion, { readonly inner: Scene['inner']; readonly far: number }>();
/** How far it is from the axis of a door to the wall it opens towards, mm: the same for as long as it hangs where it does. */
function aheadOfWall(motion: DoorMotion, scene: Scene): number {
  const before = walls.get(motion);
  if (before?.inner === scene.inner) return before.far;
  const far = wallAhead(motion, scene);
  walls.set(motion, { inner: scene.inner, far });
  return far;
}
function wallAhead(motion: DoorMotion, scene: Scene): number {
  const [, y] = motion.at;
  // where it gets farthest from its own axis, whichever wall that axis is nearer to
  const outer = sweptBy(motion).ring.reduce((far, [, at]) => (Math.abs(at - y) > Math.abs(far - y) ? at : far), y);
  const towards = outer < y ? -1 : 1;
  const wall = wallBeyond(scene, motion.shut, towards);
  return Math.abs((towards < 0 ? wall.y1 : wall.y0) - y);
}

/** The middle of the room something sweeps, seen from above: where its note is pinned. */
const middleOfSweep = memoOf((motion: Motion): Point => midOf(sweptBy(motion)));

const sweeps = appliesTo(sweepRule, {
  ofEach: {
    within: 1,
    of: (unit, scene) =>
      motionsOf(unit, scene).map((motion): Case<{ clear: number; needs: number; what: Motion['name']; by: string }> => {
        const met = firstMet(motion, unit, scene);
        return {
          id: `sweep:${motion.of}`,
          input: { clear: met.clear, needs: met.needs, what: motion.name, by: met.by },
          pin: pinAt(unit, middleOfSweep(motion)),
          quiet: true,
          mend: () => mendsOf(motion, unit, met, scene),
        };
      }),
  },
});

/** What slides, as if it slid out farther by so much as is looked at before it. */
const fartherOut = memoOf((motion: Motion & { readonly kind: 'slide' }): Motion => {
  const [bx, by, bz] = motion.by;
  const more = 1 + LOOKS_AHEAD_MM / Math.max(1, Math.hypot(bx, by, bz));
  return { ...motion, by: [bx * more, by * more, bz * more] as const };
});

/** Room to stand before what is pulled out, from its open front to the next thing. */
const before = appliesTo(beforeRule, {
  ofEach: {
    within: 1,
    of: (unit, scene) =>
      motionsOf(unit, scene).flatMap((motion) => {
        if (motion.before === 0 || motion.kind !== 'slide') return [];
        const met = firstMet(motion, unit, scene);
        // that it does not open at all is said already
        if (met.clear < met.needs || leaves(motion, scene)?.door) return [];
        const far = firstMet(fartherOut(motion), unit, scene);
        return [
          {
            id: `before:${motion.of}`,
            input: { room: far.clear - met.needs, what: motion.name, by: far.by },
            pin: pinAt(unit, middleOfSweep(motion)),
            quiet: true,
          },
        ];
      }),
  },
});

/** The operations that give everything of a unit that moves a latch. */
function latched(unit: Unit, loose: readonly Motion[]): Operation[] {
  const bays = baysOf(unit.division).filter((bay) => loose.some((motion) => bayOf(unit, motion) === bay));
  const own =
    loose.some((motion) => bayOf(unit, motion) === null) || ('latch' in unit.options && unit.options['latch'] !== true);
  return [
    ...bays.map((bay) =>
      changeBay(unit, bay, {
        ...(bay.holds.kind === 'drawers' || bay.holds.kind === 'pull-out'
          ? { holds: { ...bay.holds, latch: true } }
          : {}),
        ...(bay.front.kind === 'doors' ||
        bay.front.kind === 'flap-down' ||
        bay.front.kind === 'lift-up' ||
        bay.front.kind === 'sliding'
          ? { front: { ...bay.front, latch: true } }
          : {}),
      }),
    ),
    ...(own && 'latch' in unit.options ? [changeUnit(unit, { latch: true })] : []),
  ];
}

const latches = appliesTo(latchRule, {
  ofUnit: (unit, scene) => {
    const motions = motionsOf(unit, scene);
    if (motions.length === 0) return [];
    const loose = motions.filter(({ latch }) => !latch);
    const operations = latched(unit, loose);
    return [
      {
        id: `latch:${unit.id}`,
        input: {
          loose: loose.length,
          of: motions.length,
          name: unit.name,
          which: loose.map(({ of }) => of.slice(unit.id.length + 1)).join(', '),
        },
        pin: pinAt(unit, [unit.body.x + unit.body.length / 2, middleOf(unit)]),
        quiet: true,
        mend: () =>
          operations.length > 0 ? { said: message('mend.latch', { loose: loose.length }), operations } : null,
      },
    ];
  },
});
function middleOf(unit: Unit): number {
  const line = frontLineOf(unit);
  return unit.body.stands === 'free' ? unit.body.y + unit.body.width / 2 : line ? line.sign * (line.front + 80) : 0;
}

/** Whether what moves has room and is held on the road. */
export const MOVING_CHECKS = [sweeps, before, latches];
