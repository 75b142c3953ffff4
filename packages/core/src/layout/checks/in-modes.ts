import type { z } from 'zod';
import { leavesPlace, standsMoved, type Motion, type Prism } from '../../furniture/motions.js';
import { appliesTo, type Case, type Mend, type Scene } from '../../furniture/scene.js';
import type { Mode, Unit } from '../../document/schema.js';
import { memoFew, memoOf, memoPair } from '../../numeric/memo.js';
import { boxOf, rectangle } from '../../numeric/plane.js';
import { clipTo } from '../../numeric/shapes.js';
import { clashRule, shutRule } from '../../rules/moving.js';
import { wayThroughRule } from '../../rules/people.js';
import type { SolidBox } from '../../rules/room.js';
import { message } from '../../words/message.js';
import { midOf, motionsOf, pinAt, sameHeight, TOUCH_MM } from './moving.js';
import { standingIn } from '../standing.js';
import { narrowestWay, type Obstacle } from './room.js';

interface Placed {
  readonly motion: Motion;
  readonly unit: Unit;
  readonly share: number;
  readonly prism: Prism;
  /** The box round it, seen from above. */
  readonly round: ReturnType<typeof boxOf>;
}

const stood = new WeakMap<Motion, Map<number, Placed | null>>();
/** Something moved by a share, where it then stands: worked out once for as long as the motion is the same. */
function placedAt(motion: Motion, share: number, unit: Unit): Placed | null {
  const ofMotion = stood.get(motion) ?? new Map<number, Placed | null>();
  stood.set(motion, ofMotion);
  const before = ofMotion.get(share);
  if (before === null || before?.unit === unit) return before;
  const prism = standsMoved(motion, share);
  const placed = prism && { motion, unit, share, prism, round: roundOf(prism) };
  ofMotion.set(share, placed);
  return placed;
}

interface Movable {
  readonly motion: Motion;
  readonly unit: Unit;
  /** Which of all that moves it is, in the order of the units. */
  readonly place: number;
}
/** All that moves, by its name: listed once for a scene, as every mode names a few of many. */
const movableIn = memoFew((scene: Scene): ReadonlyMap<string, Movable> => {
  const all = new Map<string, Movable>();
  const { units } = scene;
  for (let i = 0; i < units.length; i += 1) {
    const unit = units[i] as Unit;
    const motions = motionsOf(unit, scene);
    for (let k = 0; k < motions.length; k += 1) {
      const motion = motions[k] as Motion;
      all.set(motion.of, { motion, unit, place: all.size });
    }
  }
  return all;
});
interface Used extends Movable {
  readonly share: number;
}
type States = Readonly<Record<string, number>>;
/** What a mode moves, in the order of the units; where it then is; and the units that no longer stand where they do by day. */
interface InMode {
  readonly used: readonly Used[];
  readonly moved: readonly Placed[];
  readonly left: ReadonlySet<string>;
}
const modesIn = memoFew((scene: Scene) =>
  memoOf((states: States): InMode => {
    const all = movableIn(scene);
    const used: Used[] = [];
    for (const name of Object.keys(states)) {
      const share = states[name] ?? 0;
      const one = share > 0 ? all.get(name) : undefined;
      if (one) used.push({ motion: one.motion, unit: one.unit, place: one.place, share });
    }
    used.sort((one, other) => one.place - other.place);
    return {
      used,
      moved: used.flatMap(({ motion, unit, share }) => placedAt(motion, share, unit) ?? []),
      left: new Set(used.filter(({ motion }) => leavesPlace(motion)).map(({ unit }) => unit.id)),
    };
  }),
);
/** Everything that is moved in a mode, where it then is. */
export const movedIn = (scene: Scene, states: States): readonly Placed[] => modesIn(scene)(states).moved;

/** Units that do not stand in their place in a mode: taken out, or moved as a whole to where `movedIn` has them. */
export const awayIn = (scene: Scene, states: States): ReadonlySet<string> => modesIn(scene)(states).left;

/** How far two things reach into each other: what did not move meets what it met. */
const clashOf = memoPair(depthOfClash);
/** The box round room that is taken, seen from above. */
const roundOf = memoOf(({ ring }: Prism) => boxOf(ring));

/** How far two things reach into each other, seen from above; 0 where they do not meet at any height. */
function depthOfClash(a: Prism, b: Prism): number {
  if (a.z0 >= b.z1 - TOUCH_MM || b.z0 >= a.z1 - TOUCH_MM) return 0;
  // most things are nowhere near each other
  const [boxA, boxB] = [roundOf(a), roundOf(b)];
  if (boxA.minX >= boxB.maxX || boxB.minX >= boxA.maxX || boxA.minY >= boxB.maxY || boxB.minY >= boxA.maxY) return 0;
  const shared = clipTo({ outer: a.ring, holes: [] }, b.ring);
  return Math.max(
    0,
    ...shared.map(({ outer }) => {
      const box = boxOf(outer);
      return Math.min(box.maxX - box.minX, box.maxY - box.minY, Math.min(a.z1, b.z1) - Math.max(a.z0, b.z0));
    }),
  );
}
/** A box as room that is taken: one of it for as long as the box is the same. */
const asPrism = memoOf(({ x0, x1, y0, y1, z0, z1 }: SolidBox): Prism => ({ ring: rectangle(x0, y0, x1, y1), z0, z1 }));

const shutters = new WeakMap<Scene['modes'][number], Map<string, Mend>>();
/** The operation that shuts something in a mode: the same for as long as that mode is. */
function shutIn(mode: Scene['modes'][number], of: string): Mend {
  const ofMode = shutters.get(mode) ?? new Map<string, Mend>();
  shutters.set(mode, ofMode);
  const before = ofMode.get(of);
  if (before) return before;
  const states = Object.fromEntries(Object.entries(mode.states).filter(([name]) => name !== of));
  const mend: Mend = {
    said: message('mend.shutInMode', { mode: mode.name }),
    operations: [{ name: 'putMode', payload: { mode: { ...mode, states } } }],
  };
  ofMode.set(of, mend);
  return mend;
}

/** What lies nearer beside something of the same unit while both are shut is made for it: two doors on one upright, mm. */
const OWN_APART_MM = 20;
/** Whether two of one unit move each by itself, and not beside each other. */
function apart(one: Motion, other: Motion): boolean {
  if (one.whole || other.whole || one === other) return false;
  const [a, b] = [one.shut, other.shut];
  const gaps = [b.x0 - a.x1, a.x0 - b.x1, b.y0 - a.y1, a.y0 - b.y1, b.z0 - a.z1, a.z0 - b.z1];
  return Math.max(...gaps) > OWN_APART_MM;
}

type Clash = Case<z.output<typeof clashRule.input>>;
/** What something that is moved in a mode meets: what stands, and what else is moved and comes after it in the order of the units. */
function clashesOf(one: Placed, after: readonly Placed[], mode: Mode, scene: Scene, found: Clash[]): void {
  const { minX, maxX, minY, maxY } = one.round;
  const worst = new Map<string, { readonly by: number; readonly name: Motion['name'] | string }>();
  const meet = (prism: Prism, id: string, name: Motion['name'] | string): void => {
    const by = clashOf(one.prism, prism);
    if (by > TOUCH_MM && by > (worst.get(id)?.by ?? 0)) worst.set(id, { by, name });
  };
  for (const { unit, round, prism, motion } of after)
    if (
      (unit !== one.unit || apart(one.motion, motion)) &&
      round.minX < maxX &&
      round.maxX > minX &&
      round.minY < maxY &&
      round.maxY > minY
    )
      meet(prism, motion.of, motion.name);
  // a thing that is taken away or lowered does not stand where it stands by day
  const lifted = modesIn(scene)(mode.states).left;
  for (const { unit, box } of standingIn(scene)) {
    // most things are nowhere near what is moved
    if (box.x0 >= maxX || box.x1 <= minX || box.y0 >= maxY || box.y1 <= minY) continue;
    if (unit !== one.unit && sameHeight(one.prism, box) && !lifted.has(unit.id)) meet(asPrism(box), unit.id, unit.name);
  }
  for (const [id, { by, name }] of worst)
    found.push({
      id: `clash:${mode.id}:${one.motion.of}:${id}`,
      input: { by, what: one.motion.name, other: name, mode: mode.name },
      pin: pinAt(one.unit, midOf(one.prism)),
      mode: mode.id,
      mend: () => shutIn(mode, one.motion.of),
    });
}

const clashes = appliesTo(clashRule, {
  ofEach: {
    within: 1,
    reaching: true,
    of: (unit, scene) => {
      const found: Clash[] = [];
      if (motionsOf(unit, scene).length === 0) return found;
      for (const mode of scene.modes) {
        const moved = movedIn(scene, mode.states);
        for (let i = 0; i < moved.length; i += 1) {
          const one = moved[i];
          if (one?.unit === unit) clashesOf(one, moved.slice(i + 1), mode, scene, found);
        }
      }
      return found;
    },
  },
});

/** A mode to drive in has everything shut. */
const shut = appliesTo(shutRule, {
  ofRoom: (scene) =>
    scene.modes
      .filter(({ use }) => use === 'drive')
      .flatMap((mode) =>
        movedIn(scene, mode.states)
          .filter(({ motion }) => motion.kind !== 'lift-off')
          .map(({ motion, unit, share, prism }) => ({
            id: `shut:${mode.id}:${motion.of}`,
            input: { what: motion.name, mode: mode.name, share },
            pin: pinAt(unit, midOf(prism)),
            mode: mode.id,
            mend: () => shutIn(mode, motion.of),
          })),
      ),
});

/** Room that is taken as something in the way. */
const obstacleOf = memoOf((prism: Prism): Obstacle => {
  const { minX, maxX, minY, maxY } = roundOf(prism);
  return { x0: minX, x1: maxX, y0: minY, y1: maxY };
});

/** The way through in each mode that has something moved into it. */
const wayIn = appliesTo(wayThroughRule, {
  ofRoom: (scene) => {
    const plain = narrowestWay(scene, 'hip');
    return scene.modes.flatMap((mode) => {
      // at night, at table and at work one stays where one is: their ways are told as figures
      if (mode.use !== 'day' && mode.use !== 'drive') return [];
      const more = movedIn(scene, mode.states)
        .filter(({ prism }) => prism.z0 < scene.inner.floor + 900)
        .map(({ prism }) => obstacleOf(prism));
      const narrow = more.length > 0 ? narrowestWay(scene, 'hip', more) : null;
      if (!narrow || (plain && narrow.width >= plain.width)) return [];
      return [
        {
          id: `way:${mode.id}`,
          input: { width: Math.max(0, narrow.width), at: 'hip' as const },
          pin: { unit: null, person: null, x: narrow.x, y: narrow.y },
          mode: mode.id,
        },
      ];
    });
  },
});

/** Whether each mode is possible as a whole, shut to drive, and leaves a way through. */
export const MODE_CHECKS = [clashes, shut, wayIn];
