import type { Mode } from '../document/schema.js';
import { handsFor } from '../furniture/hardware.js';
import { leavesPlace, standsMoved, sweptBy, type Motion, type Prism } from '../furniture/motions.js';
import type { Scene } from '../furniture/scene.js';
import { solidsOf } from '../furniture/solid.js';
import { boxOf, outlineArea, rectangle, spread } from '../numeric/plane.js';
import { clipTo } from '../numeric/shapes.js';
import type { Message } from '../words/message.js';
import { halfWidth } from '../shell/shell.js';
import { awayIn, movedIn } from './checks/in-modes.js';
import { headroomIn } from './checks/people.js';
import { archesAt, narrowestWay } from './checks/room.js';

/** What it takes to move something once, seconds, for somebody who knows how. */
const SECONDS: Readonly<Record<Motion['kind'], number>> = { hinge: 5, slide: 10, 'lift-off': 25 };

/** One move in a change of mode. */
export interface Step {
  readonly motion: string;
  readonly name: Message;
  readonly from: number;
  readonly to: number;
  /** How many people it takes; null while it is not known what it weighs. */
  readonly hands: 1 | 2 | null;
  readonly seconds: number;
  /** What is in its way at that moment; null where it clears. */
  readonly meets: string | null;
}

const overlap = (a: Prism, b: Prism): boolean =>
  a.z0 < b.z1 - 0.5 &&
  b.z0 < a.z1 - 0.5 &&
  clipTo({ outer: a.ring, holes: [] }, b.ring).some((piece) => outlineArea(piece) > 100);

/**
 * What moves between two modes, in an order in which each has room: what is put away goes before what is drawn out, and
 * whatever meets something waits until that has moved.
 */
export function stepsBetween(scene: Scene, from: Mode['states'], to: Mode['states']): readonly Step[] {
  const all = scene.units.flatMap((unit) =>
    (scene.skeletons.get(unit.id)?.motions ?? []).map((motion) => ({ unit, motion })),
  );
  const now = new Map(all.map(({ motion }) => [motion.of, from[motion.of] ?? 0]));
  const wanted = (motion: Motion): number => to[motion.of] ?? 0;
  const open = all.filter(({ motion }) => Math.abs((now.get(motion.of) ?? 0) - wanted(motion)) > 1e-6);
  // what is put away first
  open.sort((a, b) => wanted(a.motion) - wanted(b.motion));
  const steps: Step[] = [];
  const meets = ({ unit, motion }: (typeof all)[number]): string | null => {
    const share = Math.max(now.get(motion.of) ?? 0, wanted(motion));
    const swept = sweptBy(motion, share);
    for (const other of scene.units) {
      if (other.id === unit.id) continue;
      const own = all.filter((one) => one.unit.id === other.id);
      const away = own.some(({ motion: its }) => (now.get(its.of) ?? 0) > 0 && leavesPlace(its));
      if (!away)
        for (const box of solidsOf(other, scene, scene.families))
          if (overlap(swept, { ring: rectangle(box.x0, box.y0, box.x1, box.y1), z0: box.z0, z1: box.z1 }))
            return other.name;
      for (const { motion: its } of own) {
        const at = now.get(its.of) ?? 0;
        const stands = at > 0 ? standsMoved(its, at) : null;
        if (stands && overlap(swept, stands)) return other.name;
      }
    }
    return null;
  };
  while (open.length > 0) {
    const free = open.findIndex((one) => meets(one) === null);
    const [one] = open.splice(Math.max(0, free), 1);
    if (!one) break;
    const skeleton = scene.skeletons.get(one.unit.id);
    steps.push({
      motion: one.motion.of,
      name: one.motion.name,
      from: now.get(one.motion.of) ?? 0,
      to: wanted(one.motion),
      hands: skeleton ? handsFor(one.unit, one.motion, skeleton, scene).hands : null,
      seconds: SECONDS[one.motion.kind],
      meets: meets(one),
    });
    now.set(one.motion.of, wanted(one.motion));
  }
  return steps;
}

/** What a mode leaves free. */
export interface ModeFigures {
  readonly mode: Mode;
  /** Floor that nothing stands on or is moved over, m2. */
  readonly floor: number;
  /** How much of the length one can stand upright in and pass, mm. */
  readonly standing: number;
  /** The narrowest way, mm; null where nothing is walked past. */
  readonly way: number | null;
  /** The modes that can be used at the same time. */
  readonly with: readonly string[];
}

const STEP_MM = 100;
const TALL_MM = 1800;

/** Whether two modes can be used at once: everything is in one place in both. What a mode does not name is at rest in it. */
const together = (a: Mode, b: Mode): boolean =>
  [...new Set([...Object.keys(a.states), ...Object.keys(b.states)])].every(
    (name) => Math.abs((a.states[name] ?? AT_REST) - (b.states[name] ?? AT_REST)) <= 0.01,
  );
const AT_REST = 0;

/** The figures of every mode. */
export function modeFigures(scene: Scene): readonly ModeFigures[] {
  const { inner } = scene;
  const tallest = Math.max(0, ...scene.people.map(({ stature }) => stature)) || TALL_MM;
  return scene.modes.map((mode): ModeFigures => {
    const moved = movedIn(scene, mode.states);
    const all = moved.map(({ prism }) => {
      const box = boxOf(prism.ring);
      return { x0: box.minX, x1: box.maxX, y0: box.minY, y1: box.maxY, z0: prism.z0 };
    });
    const boxes = all.filter(({ z0 }) => z0 < inner.floor + 900);
    // what is drawn out or let down over a head
    const hung = all.filter(({ z0 }) => z0 >= inner.floor + 900);
    const away = awayIn(scene, mode.states);
    const standing = scene.units.filter(({ id }) => !away.has(id));
    const here = { ...scene, units: standing };
    const solid = standing.flatMap((unit) =>
      solidsOf(unit, scene, scene.families).filter((box) => box.z0 < inner.floor + 900),
    );
    const stands = [...solid, ...boxes, ...archesAt(scene)];
    const headroom = headroomIn(here);
    let [floor, tall] = [0, 0];
    for (const x of spread(
      inner.start + STEP_MM / 2,
      inner.length - STEP_MM / 2,
      Math.max(2, Math.round((inner.length - inner.start) / STEP_MM)),
    )) {
      const [left, right] = [halfWidth(inner, 'left', x, inner.floor), halfWidth(inner, 'right', x, inner.floor)];
      let free = 0;
      let [widest, middle] = [0, 0];
      let at = -left;
      const spans = stands
        .filter((box) => x >= box.x0 && x <= box.x1)
        .map((box) => [box.y0, box.y1] as const)
        .sort((a, b) => a[0] - b[0]);
      for (const [from, to] of [...spans, [right, right] as const]) {
        const gap = Math.min(from, right) - at;
        if (gap > 0) free += gap;
        if (gap > widest) [widest, middle] = [gap, at + gap / 2];
        at = Math.max(at, to);
      }
      floor += (free * STEP_MM) / 1e6;
      // where one walks there
      const over = hung
        .filter((box) => x >= box.x0 && x <= box.x1 && middle >= box.y0 && middle <= box.y1)
        .map(({ z0 }) => z0);
      if (widest >= 450 && Math.min(headroom(x, middle), ...over) - inner.floor >= tallest) tall += STEP_MM;
    }
    const way = narrowestWay(here, 'hip', boxes);
    return {
      mode,
      floor,
      standing: tall,
      way: way ? Math.max(0, way.width) : null,
      with: scene.modes.filter((other) => other.id !== mode.id && together(mode, other)).map(({ id }) => id),
    };
  });
}
