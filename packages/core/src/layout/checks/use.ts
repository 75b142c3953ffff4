import { endOf, frontLineOf } from '../../document/body.js';
import { familyNamed } from '../../document/kit.js';
import { appliesTo, changeUnit, type Case, type Scene, type SeenOpening } from '../../furniture/scene.js';
import { boardBox, type Skeleton } from '../../furniture/skeleton.js';
import { solidBox, solidsOf } from '../../furniture/solid.js';
import { rectangle, outlineArea } from '../../numeric/plane.js';
import { cutOut } from '../../numeric/shapes.js';
import { alignRule, carryRule, glassRule, waysOutRule } from '../../rules/room-use.js';
import { widthOf } from '../../shell/openings.js';
import { halfWidth, roofHeight } from '../../shell/shell.js';
import { message } from '../../words/message.js';

const sideOf = ({ opening }: SeenOpening): 'left' | 'right' | null =>
  opening.surface === 'left' || opening.surface === 'right' ? opening.surface : null;
/** What stands farther from a wall than this leaves its window free, mm. */
const NEAR_MM = 250;

/** What of an opening in a side wall is behind units, as a share of it, and their names. */
function behind(placed: SeenOpening, scene: Scene): { readonly share: number; readonly by: readonly string[] } {
  const side = sideOf(placed);
  if (!side) return { share: 0, by: [] };
  const { from, to } = widthOf(placed);
  const wall = halfWidth(scene.inner, side, (from + to) / 2, (placed.sill + placed.head) / 2);
  const names: string[] = [];
  const rings = scene.units.flatMap((unit) =>
    solidsOf(unit, scene, scene.families).flatMap((box) => {
      const out = side === 'left' ? -box.y0 : box.y1;
      const shared =
        out > wall - NEAR_MM &&
        (side === 'left' ? box.y0 < 0 : box.y1 > 0) &&
        box.x0 < to &&
        box.x1 > from &&
        box.z0 < placed.head &&
        box.z1 > placed.sill;
      if (!shared) return [];
      names.push(unit.name);
      return [rectangle(box.x0, box.z0, box.x1, box.z1)];
    }),
  );
  const glass = rectangle(from, placed.sill, to, placed.head);
  const whole = (to - from) * (placed.head - placed.sill);
  const free = cutOut({ outer: glass, holes: [] }, rings).reduce((sum, piece) => sum + outlineArea(piece), 0);
  return { share: Math.min(1, Math.max(0, 1 - free / whole)), by: [...new Set(names)] };
}

const glass = appliesTo(glassRule, {
  ofRoom: (scene) =>
    scene.openings
      .filter((placed) => placed.opening.kind === 'window' && sideOf(placed) !== null)
      .map((placed) => {
        const { share, by } = behind(placed, scene);
        const side = sideOf(placed);
        const { from, to } = widthOf(placed);
        const y = halfWidth(scene.inner, side ?? 'left', (from + to) / 2, placed.sill) - 120;
        return {
          id: `glass:${placed.opening.id}`,
          input: { share, name: placed.opening.name, by: by.join(', ') || '–' },
          pin: { unit: null, person: null, x: (from + to) / 2, y: side === 'left' ? -y : y },
          quiet: true,
        };
      }),
});

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
      const { share } = behind(placed, scene);
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

const inLine = appliesTo(alignRule, {
  ofRoom: (scene) => {
    const standing = scene.units.flatMap((unit) => {
      const line = frontLineOf(unit);
      return line ? [{ unit, line }] : [];
    });
    type Row = Case<{ off: number; name: string; other: string; what: 'front' | 'top' }>;
    const rows: Row[] = [];
    for (let i = 0; i < standing.length; i += 1)
      for (let k = i + 1; k < standing.length; k += 1) {
        const [a, b] = [standing[i], standing[k]];
        if (!a || !b || a.line.side !== b.line.side) continue;
        const next =
          Math.abs(endOf(a.unit) - b.unit.body.x) < NEXT_MM || Math.abs(endOf(b.unit) - a.unit.body.x) < NEXT_MM;
        const level = a.unit.body.from < b.unit.body.to && b.unit.body.from < a.unit.body.to;
        if (!next || !level) continue;
        const pin = {
          unit: b.unit.id,
          person: null,
          x: Math.max(a.unit.body.x, b.unit.body.x),
          y: b.line.sign * b.line.front,
        };
        const row = (what: 'front' | 'top', off: number, to: number): Row => ({
          id: `align:${what}:${a.unit.id}:${b.unit.id}`,
          input: { off: off > 30 ? 0 : off, name: b.unit.name, other: a.unit.name, what },
          pin,
          quiet: true,
          mend: () => ({
            said: message('mend.align'),
            operations: [changeUnit(b.unit, { [what === 'front' ? 'front' : 'height']: to })],
          }),
        });
        rows.push(
          row('front', Math.abs(a.line.front - b.line.front), a.line.front),
          row('top', Math.abs(a.unit.body.to - b.unit.body.to), a.unit.body.to),
        );
      }
    return rows;
  },
});

/** The largest board of a unit as it goes through a door, edge first: its two larger sizes, and how thick its boards are at most. */
interface Carried {
  readonly largest: readonly [number, number] | null;
  readonly thickest: number;
}
const carried = new WeakMap<Skeleton, Carried>();
function carriedOf(skeleton: Skeleton): Carried {
  const before = carried.get(skeleton);
  if (before) return before;
  let largest: readonly [number, number] | null = null;
  for (const board of skeleton.boards) {
    const { low, high } = boardBox(board);
    const [, b = 0, c = 0] = [0, 1, 2].map((k) => (high[k] ?? 0) - (low[k] ?? 0)).sort((p, q) => p - q);
    if (!largest || b > largest[0]) largest = [b, c];
  }
  const made = { largest, thickest: Math.max(...skeleton.boards.map(({ thickness }) => thickness)) };
  carried.set(skeleton, made);
  return made;
}

const carryIn = appliesTo(carryRule, {
  ofRoom: (scene) => {
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
    return scene.units.flatMap((unit) => {
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
    });
  },
});
/** Windows, ways out, lines and the way in. */
export const USE_CHECKS = [glass, waysOut, inLine, carryIn];
