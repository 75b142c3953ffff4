import type { z } from 'zod';
import { endOf, frontLineOf, isAt, spansWalls } from '../../document/body.js';
import { familyNamed } from '../../document/kit.js';
import type { Unit } from '../../document/schema.js';
import { appliesTo, changeUnit, type Case, type Mend, type Pin, type Scene } from '../../furniture/scene.js';
import { keeps, offer, raised, sceneWith, tried } from '../../furniture/offer.js';
import { memoFew, memoOf, memoPair } from '../../numeric/memo.js';
import { stepUp } from '../../numeric/tolerance.js';
import { solidsOf } from '../../furniture/solid.js';
import { spread } from '../../numeric/plane.js';
import { wayThroughRule } from '../../rules/people.js';
import { collisionRule, insideRule, overlapOf, type SolidBox } from '../../rules/room.js';
import { archFace, type ArchShape } from '../../shell/arch.js';
import { halfWidth, roofHeight } from '../../shell/shell.js';
import { message, mm, type Message } from '../../words/message.js';
import { acrossSpan, moved, pushed, type Direction } from './moved.js';

/** A unit less deep than this is of no use, mm. */
const LEAST_DEPTH_MM = 100;

/** Where across the vehicle the roof over a unit counts: over its front, or over its middle. */
function roofLine(unit: Unit): number {
  const line = frontLineOf(unit);
  if (line && unit.body.from > 0) return line.sign * line.front;
  return unit.body.stands === 'free' ? unit.body.y + unit.body.width / 2 : 0;
}

/** Length, height and depth of the room against each unit. */
const inside = appliesTo(insideRule, {
  ofUnit: (unit, scene) => {
    const { inner } = scene;
    const { x, length, to } = unit.body;
    const end = endOf(unit);
    const pin: Pin = { unit: unit.id, person: null, x: Math.min(Math.max(x, 0), inner.length), y: 0 };
    const room = inner.length - inner.start;
    const by = x < inner.start ? inner.start - x : inner.length - end;
    const roof = Math.min(...spread(x, end, 5).map((at) => roofHeight(inner, at, roofLine(unit))));
    const line = frontLineOf(unit);
    const { body, name } = unit;
    const over = to - (roof - inner.floor);
    return [
      {
        id: `inside:${unit.id}`,
        input: { start: x - inner.start, end: end - inner.start, room, name, what: 'length' as const },
        pin,
        quiet: true,
        mend: () =>
          length <= room
            ? offer(
                unit,
                scene,
                { x: x + by },
                message(by < 0 ? 'mend.forward' : 'mend.rearward', { by: mm(Math.abs(by)) }),
              )
            : offer(
                unit,
                scene,
                { x: inner.start, length: Math.floor(room) },
                message('mend.shorten', { to: mm(Math.floor(room)) }),
              ),
      },
      {
        id: `under-roof:${unit.id}`,
        input: { start: 0, end: to, room: roof - inner.floor, name, what: 'height' as const },
        pin,
        quiet: true,
        mend: () =>
          to - stepUp(scene, over) > unit.body.from + 50
            ? offer(
                unit,
                scene,
                { height: to - stepUp(scene, over) },
                message('mend.lower', { name, to: mm(to - stepUp(scene, over)) }),
              )
            : null,
      },
      ...(body.stands === 'free'
        ? [
            {
              id: `between-walls:${unit.id}`,
              input: {
                ...acrossSpan(body.y, body.width, scene, unit),
                name,
                what: 'width' as const,
              },
              pin: { unit: unit.id, person: null, x: x + length / 2, y: body.y + body.width / 2 },
              quiet: true,
            },
          ]
        : []),
      ...(line && familyNamed(scene.families, unit.family)?.flat !== true
        ? [
            {
              id: `depth:${unit.id}`,
              input: {
                start: 0,
                end: LEAST_DEPTH_MM,
                room: depthOf(unit, scene) - line.front,
                name,
                what: 'depth' as const,
              },
              pin: { unit: unit.id, person: null, x: x + length / 2, y: line.sign * line.front },
              quiet: true,
            },
          ]
        : []),
    ];
  },
});

/** How far the wall is behind a unit: the least of its foot and head; of one that hangs its foot, since the roof closes its head. */
function depthOf(unit: Unit, { inner }: Scene): number {
  const line = frontLineOf(unit);
  if (!line) return Infinity;
  const heights = unit.body.from > 0 || unit.body.to > 1200 ? [unit.body.from] : [unit.body.from, unit.body.to];
  return Math.min(
    ...spread(unit.body.x, endOf(unit), 7).map((at) =>
      Math.min(...heights.map((height) => halfWidth(inner, line.side, at, inner.floor + height))),
    ),
  );
}

/** The deepest of the overlaps between two units' solids: what is least to be moved to part them. */
function deepest(
  a: readonly SolidBox[],
  b: readonly SolidBox[],
): { readonly a: SolidBox; readonly b: SolidBox } | null {
  let most = 0;
  let found: { readonly a: SolidBox; readonly b: SolidBox } | null = null;
  for (const one of a)
    for (const other of b) {
      const overlap = overlapOf(one, other);
      const least = overlap ? Math.min(overlap.x, overlap.y, overlap.z) : 0;
      if (least > most) {
        most = least;
        found = { a: one, b: other };
      }
    }
  return found;
}

/** Whether any two boxes stand beside each other along the vehicle: most things are nowhere near each other. */
function meetAlong(a: readonly SolidBox[], b: readonly SolidBox[]): boolean {
  for (const one of a) for (const other of b) if (one.x0 < other.x1 && other.x0 < one.x1) return true;
  return false;
}
/** The same with a memory: what stands where it did reaches into the others as it did. */
const deepestOf = memoPair(deepest);

/** The ways to part two units: worked out once, when they are first asked for, for as long as both stand where they do. */
const partingOf = memoPair<readonly SolidBox[], readonly SolidBox[], { ways: readonly (Mend | null)[] | null }>(() => ({
  ways: null,
}));

interface Solid {
  readonly unit: Unit;
  readonly boxes: readonly SolidBox[];
}
/** Ways to part two units that reach into each other: either moved or made shorter; what hangs raised off the other. */
function waysApart(a: Solid, b: Solid, pair: NonNullable<ReturnType<typeof deepest>>, scene: Scene): (Mend | null)[] {
  const [front, rear] = a.unit.body.x <= b.unit.body.x ? [a, b] : [b, a];
  const parts = (then: Unit): boolean => {
    const other = then.id === a.unit.id ? b : a;
    return deepest(solidsOf(then, scene, scene.families), other.boxes) === null;
  };
  const move = (own: Solid, way: Direction): Mend | null => {
    const by = pushed(own.boxes, (own === a ? b : a).boxes, way);
    return by > 0 ? moved(own.unit, way, by, scene, parts) : null;
  };
  const shorten = ({ unit, boxes: own }: Solid, end: 'front' | 'rear'): Mend | null => {
    const by = stepUp(scene, pushed(own, (unit === a.unit ? b : a).boxes, end === 'rear' ? 'front' : 'rear'));
    const { x, length } = unit.body;
    return length - by >= 300 && !spansWalls(unit)
      ? offer(
          unit,
          scene,
          { x: end === 'front' ? x + by : x, length: length - by },
          message('mend.shortenBy', { name: unit.name, by: mm(by) }),
          parts,
        )
      : null;
  };
  // what hangs is raised off what it meets, as far as the roof lets it
  const above = pair.a.z0 > pair.b.z0 + 100 ? a.unit : pair.b.z0 > pair.a.z0 + 100 ? b.unit : null;
  const overlap = overlapOf(pair.a, pair.b);
  return [
    move(front, 'front'),
    move(rear, 'rear'),
    shorten(front, 'rear'),
    shorten(rear, 'front'),
    above && overlap ? raised(above, scene, stepUp(scene, overlap.z), parts) : null,
    ...[a, b].flatMap((own) => (own.unit.body.stands === 'free' ? [move(own, 'left'), move(own, 'right')] : [])),
  ];
}

type Collision = Case<z.output<typeof collisionRule.input>>;
/** Two units that reach into each other. */
const collided = (a: Solid, b: Solid, pair: NonNullable<ReturnType<typeof deepest>>, scene: Scene): Collision => ({
  id: `collision:${a.unit.id}:${b.unit.id}`,
  input: { a: pair.a, b: pair.b, nameA: a.unit.name, nameB: b.unit.name },
  pin: {
    unit: a.unit.id,
    person: null,
    x: (Math.max(pair.a.x0, pair.b.x0) + Math.min(pair.a.x1, pair.b.x1)) / 2,
    y: (Math.max(pair.a.y0, pair.b.y0) + Math.min(pair.a.y1, pair.b.y1)) / 2,
  },
  mend: () => (partingOf(a.boxes, b.boxes).ways ??= waysApart(a, b, pair, scene)),
});

const collision = appliesTo(collisionRule, {
  ofEach: {
    within: 1,
    of: (unit, scene) => {
      const { units, families } = scene;
      const own: Solid = { unit, boxes: solidsOf(unit, scene, families) };
      const met: Collision[] = [];
      // each pair once
      for (let k = units.indexOf(unit) + 1; k < units.length; k += 1) {
        const other = units[k] as Unit;
        const boxes = solidsOf(other, scene, families);
        const pair = meetAlong(own.boxes, boxes) ? deepestOf(own.boxes, boxes) : null;
        if (pair) met.push(collided(own, { unit: other, boxes }, pair, scene));
      }
      return met;
    },
  },
});

const HIP_MM = 900;
/** Shoulders of somebody of usual height, mm above the floor. */
const SHOULDER_MM = 1400;

/** Something in the way at a height: from where to where along and across. */
export interface Obstacle {
  readonly x0: number;
  readonly x1: number;
  readonly y0: number;
  readonly y1: number;
}

export interface Way {
  readonly width: number;
  readonly x: number;
  readonly y: number;
  readonly at: 'hip' | 'shoulder';
}

/** What is asked for what stands in a room. */
type Standable = Pick<Scene, 'units' | 'inner' | 'families' | 'arches' | 'book' | 'things'>;
const standings = new WeakMap<
  Unit,
  { readonly solids: readonly SolidBox[]; readonly hip: readonly Obstacle[]; readonly shoulder: readonly Obstacle[] }
>();

/** What of a unit stands in the way at the hip and at the shoulder: its solids, with what stands out over its front. */
function standingBy(
  unit: Unit,
  scene: Standable,
): { readonly hip: readonly Obstacle[]; readonly shoulder: readonly Obstacle[] } {
  const solids = solidsOf(unit, scene, scene.families);
  const before = standings.get(unit);
  if (before?.solids === solids) return before;
  const above = (height: number): number => scene.inner.floor + height;
  const line = frontLineOf(unit);
  const out = familyNamed(scene.families, unit.family)?.overhang?.(unit) ?? 0;
  const of = (boxes: readonly SolidBox[]): Obstacle[] =>
    boxes.map((box) => ({
      x0: box.x0,
      x1: box.x1,
      y0: line?.sign === 1 ? box.y0 - out : box.y0,
      y1: line?.sign === -1 ? box.y1 + out : box.y1,
    }));
  const standing = {
    solids,
    hip: of(solids.filter((box) => box.z0 < above(HIP_MM))),
    shoulder: of(solids.filter((box) => box.z0 < above(SHOULDER_MM) && box.z1 > above(SHOULDER_MM))),
  };
  standings.set(unit, standing);
  return standing;
}
/** What stands in the way at a height. At the hip whatever stands on the floor counts. */
function obstaclesAt(scene: Standable, at: 'hip' | 'shoulder', but: readonly Unit[]): Obstacle[] {
  const all: Obstacle[] = [];
  const { units } = scene;
  for (let i = 0; i < units.length; i += 1) {
    const unit = units[i] as Unit;
    if (but.length > 0 && but.includes(unit)) continue;
    const own = standingBy(unit, scene)[at];
    for (let k = 0; k < own.length; k += 1) all.push(own[k] as Obstacle);
  }
  return all;
}

/** The widest free stretch across the vehicle at x, between what stands there; what stands in order from left to right. */
function widestAt(
  left: number,
  right: number,
  standing: readonly Obstacle[],
  x0: number,
  x1: number,
): { width: number; y: number } {
  const width = widthAt(left, right, standing, x0, x1);
  let [y, at] = [0, -left];
  // the first of those that are so wide
  for (let i = 0; i <= standing.length; i += 1) {
    const box = standing[i];
    if (box && (x1 < box.x0 || x0 > box.x1)) continue;
    const to = box ? Math.min(box.y0, right) : right;
    if (to - at >= width) {
      y = (at + to) / 2;
      break;
    }
    if (box && box.y1 > at) at = box.y1;
  }
  return { width, y };
}
/** How wide it is, alone: asked at many places of which only the narrowest or the widest is told. */
function widthAt(left: number, right: number, standing: readonly Obstacle[], x0: number, x1: number): number {
  let [width, at] = [-Infinity, -left];
  for (let i = 0; i < standing.length; i += 1) {
    const box = standing[i] as Obstacle;
    if (x1 < box.x0 || x0 > box.x1) continue;
    width = Math.max(width, Math.min(box.y0, right) - at);
    if (box.y1 > at) at = box.y1;
  }
  return Math.max(width, right - at);
}

/** What stands up from the floor by less than this is stepped over, mm. */
const STEPPED_OVER_MM = 100;
/** A wall is never so far from the centre line, mm. */
const BEYOND_MM = 5000;
const archStands = memoOf((arch: ArchShape): Obstacle => {
  const [near, far] = [archFace(arch, arch.bottom), arch.far ?? BEYOND_MM];
  const across = arch.side === 'left' ? { y0: -far, y1: -near } : { y0: near, y1: far };
  return { x0: arch.from, x1: arch.to, ...across };
});
/** Arches and what else of the vehicle stands on its floor: feet go beside it. */
export function archesAt({ arches, inner }: Pick<Scene, 'arches' | 'inner'>): readonly Obstacle[] {
  return arches
    .filter(({ height, bottom }) => height > inner.floor + STEPPED_OVER_MM && bottom <= inner.floor)
    .map(archStands);
}

interface InTheWay {
  readonly blocked: readonly Unit[];
  readonly standing: readonly Obstacle[];
}
/** Beds from wall to wall, where nobody walks, and what stands in the way at a height beside them, from left to right. */
const inTheWays = {
  hip: memoFew((scene: Standable) => standsInTheWay(scene, 'hip')),
  shoulder: memoFew((scene: Standable) => standsInTheWay(scene, 'shoulder')),
};
const inTheWay = (scene: Standable, at: 'hip' | 'shoulder'): InTheWay => inTheWays[at](scene);
function standsInTheWay(scene: Standable, at: 'hip' | 'shoulder'): InTheWay {
  const blocked = scene.units.filter(
    (unit) => spansWalls(unit) && familyNamed(scene.families, unit.family)?.lies !== undefined,
  );
  const standing = obstaclesAt(scene, at, blocked);
  // where nothing is built in there is nothing to walk past
  if (at === 'hip' && standing.length > 0) standing.push(...archesAt(scene));
  return { blocked, standing: standing.sort((a, b) => a.y0 - b.y0) };
}

/**
 * The widest free stretch at a place along the vehicle, from where to where across, mm: what the way through is judged by
 * there; null where a bed reaches from wall to wall and nobody walks.
 */
export function wayAt(x: number, scene: Standable): { readonly from: number; readonly to: number } | null {
  const { blocked, standing } = inTheWay(scene, 'hip');
  if (blocked.some((unit) => isAt(unit, x))) return null;
  const [left, right] = (['left', 'right'] as const).map((side) =>
    halfWidth(scene.inner, side, x, scene.inner.floor + HIP_MM),
  );
  const { width, y } = widestAt(left ?? 0, right ?? 0, standing, x, x);
  return { from: y - width / 2, to: y + width / 2 };
}

interface Post {
  readonly x: number;
  readonly left: number;
  readonly right: number;
}
const posts = new WeakMap<
  Obstacle,
  { readonly inner: Scene['inner']; readonly z: number; readonly at: readonly Post[] }
>();
/** Where along something the way is measured, and the walls there: worked out once for as long as it stands there. */
function postsOf(obstacle: Obstacle, inner: Scene['inner'], z: number): readonly Post[] {
  const before = posts.get(obstacle);
  if (before?.inner === inner && before.z === z) return before.at;
  const at = spread(obstacle.x0, obstacle.x1, 9)
    .filter((x) => x >= inner.start && x <= inner.length)
    .map((x): Post => ({ x, left: halfWidth(inner, 'left', x, z), right: halfWidth(inner, 'right', x, z) }));
  posts.set(obstacle, { inner, z, at });
  return at;
}
const overlapAlong = (a: Obstacle, b: Obstacle): boolean => a.x0 <= b.x1 && a.x1 >= b.x0;
/** Whether a bed from wall to wall lies at a place along the vehicle, or so near it. */
function liesAt(x: number, beds: readonly Unit[], near: number): boolean {
  for (let i = 0; i < beds.length; i += 1) {
    const bed = beds[i] as Unit;
    if (x > bed.body.x - near && x < endOf(bed) + near) return true;
  }
  return false;
}
/** The narrowest way past one thing, between all that stands beside it; null where nobody walks. */
function narrowestBeside(
  obstacle: Obstacle,
  all: readonly Obstacle[],
  blocked: readonly Unit[],
  inner: Scene['inner'],
  z: number,
  at: Way['at'],
): Way | null {
  const beside = all.filter((other) => overlapAlong(other, obstacle));
  let least = Infinity;
  let post: Post | null = null;
  for (const here of postsOf(obstacle, inner, z)) {
    if (liesAt(here.x, blocked, 0)) continue;
    const width = widthAt(here.left, here.right, beside, here.x, here.x);
    if (width < least) [least, post] = [width, here];
  }
  return post && { ...widestAt(post.left, post.right, beside, post.x, post.x), x: post.x, at };
}

/** What stood in the way when it was last looked at, and how wide it was past each of it. */
interface Walked {
  readonly blocked: readonly Unit[];
  readonly floor: number;
  readonly ways: Map<Obstacle, Way | null>;
}
const sameAll = <T>(a: readonly T[], b: readonly T[]): boolean =>
  a.length === b.length && a.every((one, i) => one === b[i]);
const walked = new WeakMap<Scene['inner'], Map<string, Walked>>();
/** The ways past all that stands: past what nothing was moved beside they are as they were. */
function waysPast(
  all: readonly Obstacle[],
  blocked: readonly Unit[],
  inner: Scene['inner'],
  at: Way['at'],
  name: string,
): ReadonlyMap<Obstacle, Way | null> {
  const z = inner.floor + (at === 'hip' ? HIP_MM : SHOULDER_MM);
  const ofInner = walked.get(inner) ?? new Map<string, Walked>();
  walked.set(inner, ofInner);
  const before = ofInner.get(name);
  const known =
    before && before.floor === inner.floor && sameAll(before.blocked, blocked)
      ? before
      : { blocked, floor: inner.floor, ways: new Map<Obstacle, Way | null>() };
  ofInner.set(name, known);
  const { ways } = known;
  const changed: Obstacle[] = [];
  for (const obstacle of all) if (!ways.has(obstacle)) changed.push(obstacle);
  // what stood there and does no longer: those that are known, less those that still are
  if (ways.size > all.length - changed.length) {
    const now = new Set(all);
    for (const obstacle of ways.keys()) if (!now.has(obstacle)) changed.push(obstacle);
    for (const obstacle of changed) ways.delete(obstacle);
  }
  if (changed.length > 0)
    for (const obstacle of all)
      if (changed.some((other) => overlapAlong(other, obstacle)))
        ways.set(obstacle, narrowestBeside(obstacle, all, blocked, inner, z, at));
  return ways;
}
const plainWays = {
  hip: memoFew((scene: Scene) => narrowest(scene, 'hip', [])),
  shoulder: memoFew((scene: Scene) => narrowest(scene, 'shoulder', [])),
};

/**
 * The narrowest way past units at hip or shoulder height; null where there is none to walk past. Where a bed reaches from
 * wall to wall nobody walks.
 * @param more what else is in the way, as what is moved in a mode
 */
export const narrowestWay = (scene: Scene, at: 'hip' | 'shoulder', more: readonly Obstacle[] = []): Way | null =>
  more.length === 0 ? plainWays[at](scene) : narrowest(scene, at, more);
function narrowest(scene: Scene, at: 'hip' | 'shoulder', more: readonly Obstacle[]): Way | null {
  const { blocked, standing } = inTheWay(scene, at);
  const all = more.length === 0 ? standing : [...standing, ...more].sort((a, b) => a.y0 - b.y0);
  const ways = waysPast(all, blocked, scene.inner, at, more.length === 0 ? at : `${at} in a mode`);
  let least: Way | null = null;
  for (const obstacle of all) {
    const here = ways.get(obstacle);
    if (here && (least === null || here.width < least.width)) least = here;
  }
  // things that reach into each other leave nothing
  return least && least.width < 0 ? { ...least, width: 0 } : least;
}

/** The widest place of the way past units at the hip: where two can pass; null where nobody walks past anything. */
export function widestWay(scene: Scene): Way | null {
  const { inner } = scene;
  const { blocked, standing } = inTheWay(scene, 'hip');
  if (standing.length === 0) return null;
  let most = -Infinity;
  let post: Post | null = null;
  for (const here of waitingPosts(inner)) {
    const { x, left, right } = here;
    if (liesAt(x, blocked, WAITS_MM)) continue;
    const width = widthAt(left, right, standing, x - WAITS_MM, x + WAITS_MM);
    if (width > most) [most, post] = [width, here];
  }
  return (
    post && {
      ...widestAt(post.left, post.right, standing, post.x - WAITS_MM, post.x + WAITS_MM),
      x: post.x,
      at: 'hip',
    }
  );
}
/** Somebody who waits needs room for a body along the way too: so much before and behind, mm. */
const WAITS_MM = 200;
/** Where one could wait for another, and the walls there at the hip: the same for as long as the room is. */
const waitingPosts = memoOf((inner: Scene['inner']): readonly Post[] => {
  const z = inner.floor + HIP_MM;
  return spread(inner.start + 300, inner.length - 300, 25).map((x) => ({
    x,
    left: halfWidth(inner, 'left', x, z),
    right: halfWidth(inner, 'right', x, z),
  }));
});

/** No front is put back so far that less than this is left behind it, mm. */
const LEFT_BEHIND_MM = 250;
/** Fronts put back together, at most. */
const FRONTS = 4;

/**
 * Fronts put back so that the way is as wide as it should be: one where that is enough, else all on one side that stand
 * where it is too narrow. What does not widen it is not offered.
 * @param narrow the place of the way that counts, in the room as it would be; null where nobody walks past anything
 */
export function widen(scene: Scene, want: number, narrow: (scene: Scene) => Way | null): Mend[] {
  const ways = (['left', 'right'] as const).flatMap((side): Mend[] => {
    let then = scene;
    const back = new Map<string, { readonly unit: Unit; readonly by: number }>();
    for (let i = 0; i < FRONTS; i += 1) {
      const way = narrow(then);
      const short = way ? stepUp(scene, want - way.width) : 0;
      if (!way || short <= 0) break;
      const next = then.units.flatMap((unit) => {
        const line = frontLineOf(unit);
        const here = way.x >= unit.body.x && way.x <= endOf(unit) && unit.body.from < HIP_MM;
        const { by: before = 0 } = back.get(unit.id) ?? {};
        if (!line || !here || line.side !== side || depthOf(unit, then) - line.front - short < LEFT_BEHIND_MM)
          return [];
        const put = tried(unit, { front: line.front + short }, then);
        const now = put && keeps(put, unit, then) && sceneWith(then, put);
        return put && now && (narrow(now)?.width ?? want) >= Math.min(want, way.width) && before === 0
          ? [{ unit, put, by: short, now }]
          : [];
      })[0];
      if (!next) return [];
      back.set(next.unit.id, { unit: next.unit, by: next.by });
      then = next.now;
    }
    const all = [...back.values()];
    const [first] = all;
    if (!first || (narrow(then)?.width ?? want) < want - 0.5) return [];
    const operations = all.map(({ unit, by }) => changeUnit(unit, { front: (frontLineOf(unit)?.front ?? 0) + by }));
    return [
      {
        said:
          all.length === 1
            ? message('mend.frontBack', { name: first.unit.name, by: mm(first.by) })
            : message('mend.frontsBack', {
                names: all.map(({ unit }) => unit.name).join(', '),
                by: mm(Math.max(...all.map(({ by }) => by))),
              }),
        operations,
      },
    ];
  });
  return [...ways].sort((a, b) => a.operations.length - b.operations.length);
}

/** How far left or right of the centre line, in words. */
export const acrossAt = (y: number): Message =>
  y === 0 ? message('across.centre') : message(y < 0 ? 'across.left' : 'across.right', { y: mm(Math.abs(y)) });

/** The opening of something across the vehicle put where one gets through before and behind it; null where it has none, or that is no wider. */
function opened(scene: Scene, at: Way): Mend | null {
  const across = scene.units.find((unit) => spansWalls(unit) && at.x >= unit.body.x - 1 && at.x <= endOf(unit) + 1);
  const [place, width] = ['doorAt', 'doorWidth'].map((name) => across?.options[name]);
  if (!across || typeof place !== 'number' || typeof width !== 'number') return null;
  const without = { ...scene, units: scene.units.filter(({ id }) => id !== across.id) };
  const free = wayThrough(across.body.x, endOf(across), without);
  if (!free || free.to - free.from <= at.width) return null;
  const to = Math.round(Math.min(Math.max(place, free.from), Math.max(free.from, free.to - width)));
  return offer(
    across,
    scene,
    { doorAt: to },
    message('mend.doorAt', { name: across.name, at: acrossAt(to) }),
    (then) => (narrowestWay(sceneWith(scene, then), at.at)?.width ?? Infinity) > at.width,
  );
}

/** From where to where across one gets past a stretch along the vehicle, just before it and just behind it, mm; null where nobody walks. */
export function wayThrough(x0: number, x1: number, scene: Standable): ReturnType<typeof wayAt> {
  const [before, behind] = [x0 - BESIDE_MM, x1 + BESIDE_MM].map((x) =>
    x > scene.inner.start && x < scene.inner.length ? wayAt(x, scene) : undefined,
  );
  if (before === null || behind === null) return null;
  const from = Math.max(before?.from ?? -Infinity, behind?.from ?? -Infinity);
  const to = Math.min(before?.to ?? Infinity, behind?.to ?? Infinity);
  return Number.isFinite(from) && Number.isFinite(to) ? { from, to } : null;
}
/** What stands no further from something than this is right before it, mm. */
const BESIDE_MM = 30;

const way = appliesTo(wayThroughRule, {
  ofRoom: (scene) =>
    (['hip', 'shoulder'] as const).flatMap((at) => {
      const narrow = narrowestWay(scene, at);
      return narrow
        ? [
            {
              id: at === 'hip' ? 'way' : 'way-shoulder',
              input: { width: narrow.width, at },
              pin: { unit: null, person: null, x: narrow.x, y: narrow.y },
              quiet: at === 'shoulder',
              mend: ({ good }) => [opened(scene, narrow), ...widen(scene, good, (then) => narrowestWay(then, at))],
            },
          ]
        : [];
    }),
});

/** Whether units fit the room and leave a way through. */
export const ROOM_CHECKS = [inside, collision, way];
