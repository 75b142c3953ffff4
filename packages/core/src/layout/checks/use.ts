import type { z } from 'zod';
import { endOf, frontLineOf } from '../../document/body.js';
import type { Unit } from '../../document/schema.js';
import { familyNamed } from '../../document/kit.js';
import { offer } from '../../furniture/offer.js';
import { appliesTo, type Case, type Scene, type SeenOpening } from '../../furniture/scene.js';
import { boardBox, type Skeleton } from '../../furniture/skeleton.js';
import { solidBox } from '../../furniture/solid.js';
import { alignRule, carryRule, MEANT_STEP_MM, waysOutRule } from '../../rules/room-use.js';
import { halfWidth, roofHeight } from '../../shell/shell.js';
import { message } from '../../words/message.js';
import { behindGlass } from '../behind-glass.js';
import { memoOf } from '../../numeric/memo.js';

/** An opening one gets out by has at least this along and up, mm. */
const GET_OUT_MM = 450;

const waysOut = appliesTo(waysOutRule, {
  ofRoom: (scene) => {
    if (scene.openings.length === 0) return [];
    const large = scene.openings.filter(
      ({ from, to, sill, head, opening }) =>
        opening.kind !== 'fan' &&
        to - from >= GET_OUT_MM &&
        head - sill >= GET_OUT_MM &&
        (opening.kind === 'door' || opening.swing !== 'fixed'),
    );
    const free = large.filter((placed) => {
      const { share } = behindGlass(placed, scene);
      return share < 0.5;
    });
    return [
      {
        id: 'ways-out',
        input: { ways: free.length, which: free.map(({ opening }) => opening.name).join(', ') },
        pin: { unit: null, person: null, x: 120, y: 0 },
      },
    ];
  },
});

/** Neighbours stand no farther apart than this, mm. */
const NEXT_MM = 20;

/** Whether two units stand next to each other at one wall, at the same height. */
export function isNextTo(a: Unit, b: Unit): boolean {
  const beside = Math.abs(endOf(a) - b.body.x) < NEXT_MM || Math.abs(endOf(b) - a.body.x) < NEXT_MM;
  const side = frontLineOf(a)?.side;
  return (
    beside && side !== undefined && side === frontLineOf(b)?.side && a.body.from < b.body.to && b.body.from < a.body.to
  );
}

type Unaligned = Case<z.output<typeof alignRule.input>>;
/** What of two neighbours is out of line by little: their fronts, or their tops. */
function unaligned(a: Unit, b: Unit, scene: Scene, found: Unaligned[]): void {
  const line = frontLineOf(a);
  const other = frontLineOf(b);
  if (!line || !other) return;
  const row = (what: 'front' | 'top', off: number, to: number): void => {
    // what is in line, or meant to step, is not told
    if (off === 0 || off > MEANT_STEP_MM) return;
    found.push({
      id: `align:${what}:${a.id}:${b.id}`,
      input: { off, name: b.name, other: a.name, what },
      pin: { unit: b.id, person: null, x: Math.max(a.body.x, b.body.x), y: other.sign * other.front },
      quiet: true,
      mend: () => offer(b, scene, { [what === 'front' ? 'front' : 'height']: to }, message('mend.align')),
    });
  };
  row('front', Math.abs(line.front - other.front), line.front);
  row('top', Math.abs(a.body.to - b.body.to), a.body.to);
}

const inLine = appliesTo(alignRule, {
  ofEach: {
    within: NEXT_MM,
    of: (unit, scene) => {
      const found: Unaligned[] = [];
      if (!frontLineOf(unit)) return found;
      const { units } = scene;
      const [from, to] = [unit.body.x - NEXT_MM, endOf(unit) + NEXT_MM];
      for (let k = units.indexOf(unit) + 1; k < units.length; k += 1) {
        const other = units[k] as Unit;
        // most things stand nowhere near each other
        if (other.body.x <= to && endOf(other) >= from && isNextTo(unit, other)) unaligned(unit, other, scene, found);
      }
      return found;
    },
  },
});

/** The largest board of a unit as it goes through a door, edge first: its two larger sizes, and how thick its boards are at most. */
interface Carried {
  readonly largest: readonly [number, number] | null;
  readonly thickest: number;
}
const carriedOf = memoOf((skeleton: Skeleton): Carried => {
  let largest: readonly [number, number] | null = null;
  for (const board of skeleton.boards) {
    const { low, high } = boardBox(board);
    const [x, y, z] = [high[0] - low[0], high[1] - low[1], high[2] - low[2]];
    const most = Math.max(x, y, z);
    const middle = Math.max(Math.min(x, y), Math.min(Math.max(x, y), z));
    if (!largest || middle > largest[0]) largest = [middle, most];
  }
  return { largest, thickest: Math.max(...skeleton.boards.map(({ thickness }) => thickness)) };
});

const carryIn = appliesTo(carryRule, {
  ofUnit: (unit, scene) => {
    const doors = scene.openings.filter(({ opening }) => opening.kind === 'door');
    const largest = doors.reduce<SeenOpening | null>(
      (most, next) =>
        !most || (next.to - next.from) * (next.head - next.sill) > (most.to - most.from) * (most.head - most.sill)
          ? next
          : most,
      null,
    );
    if (!largest) return [];
    const door: [number, number] = [
      largest.to - largest.from,
      largest.head - Math.max(largest.sill, scene.inner.floor),
    ];
    const x = scene.inner.length / 2;
    const room: [number, number, number] = [
      scene.inner.length - scene.inner.start,
      halfWidth(scene.inner, 'left', x, 800) + halfWidth(scene.inner, 'right', x, 800),
      roofHeight(scene.inner, x, 0) - scene.inner.floor,
    ];
    const skeleton = scene.skeletons.get(unit.id);
    const boards = skeleton?.boards ?? [];
    const own = familyNamed(scene.families, unit.family)?.is?.(unit) ?? null;
    if (boards.length === 0 && own === null) return [];
    const box = solidBox(unit, scene.inner, scene.families);
    const sizes: [number, number, number] = [box.x1 - box.x0, box.y1 - box.y0, unit.body.to - unit.body.from];
    const most = skeleton && carriedOf(skeleton);
    return [
      {
        id: `carry:${unit.id}`,
        input: {
          sizes,
          parts: most?.largest ? ([most.thickest, most.largest[0]] as [number, number]) : null,
          door,
          room,
          name: unit.name,
        },
        pin: { unit: unit.id, person: null, x: unit.body.x + unit.body.length / 2, y: (box.y0 + box.y1) / 2 },
        quiet: true,
      },
    ];
  },
});
/** Ways out, lines and the way in. */
export const USE_CHECKS = [waysOut, inLine, carryIn];
