import type { Lined, LiningChoice } from '../../document/schema.js';
import { boxOf, type Outline, type Point } from '../../numeric/plane.js';
import { message, type Message } from '../../words/message.js';
import { isBehind, type LinedSurface } from './lined-surface.js';
import { solidAlong } from './pieces.js';
import { isEnd, reachOf } from './unrolled.js';

/** What is known of a piece when its turn to be fitted comes. */
export interface FittedPiece {
  readonly part: string;
  readonly row: number;
  readonly outline: Outline;
  readonly slots: readonly string[];
  /** It comes off again. */
  readonly removable: boolean;
}
/** One step of putting a lining up. */
export interface FittingStep {
  readonly part: string;
  /** What has to be done with it before it goes up, while it can be reached. */
  readonly first: readonly Message[];
  /** It comes off again: it goes up last, screwed in sight, neither glued nor caulked. */
  readonly off: boolean;
  /** What lies behind it and must stay within reach. */
  readonly behind: readonly string[];
}

/** A strip is behind an edge that is this near to its middle, mm. */
const AT_EDGE_MM = 6;
const SAMPLE_MM = 25;

/** What lies behind a piece that somebody may have to get at again: wiring and ducts. */
export function behindPiece(ground: LinedSurface, outline: Outline): readonly string[] {
  const box = boxOf(outline.outer);
  return ground.noScrews
    .filter(({ serviced, at: [u, v] }) => serviced && u > box.minX && u < box.maxX && v > box.minY && v < box.maxY)
    .map(({ name }) => name);
}

/**
 * The order in which a lining goes up: rows from the low edge, boards and panels from the front; pieces that must come off
 * again last. A strip behind a joint is glued to the piece that goes up first, while its back can be reached.
 * @param strips backing strips: their middle line and their part
 */
export function fittingOrder(
  ground: LinedSurface,
  pieces: readonly FittedPiece[],
  strips: readonly { readonly part: string; readonly u: number; readonly v0: number; readonly v1: number }[],
): readonly FittingStep[] {
  const sorted = pieces
    .map((piece) => ({ piece, box: boxOf(piece.outline.outer), behind: behindPiece(ground, piece.outline) }))
    .sort(
      (a, b) =>
        Number(a.piece.removable) - Number(b.piece.removable) ||
        Math.sign(a.behind.length) - Math.sign(b.behind.length) ||
        a.piece.row - b.piece.row ||
        a.box.minX - b.box.minX ||
        a.box.minY - b.box.minY,
    );
  const glued = new Set<string>();
  return sorted.map(({ piece, box, behind }): FittingStep => {
    const own = strips.filter(
      ({ part, u, v0, v1 }) =>
        !glued.has(part) &&
        v1 > box.minY &&
        v0 < box.maxY &&
        (Math.abs(u - box.minX) < AT_EDGE_MM || Math.abs(u - box.maxX) < AT_EDGE_MM),
    );
    for (const { part } of own) glued.add(part);
    const inside = ({ middle: [u, v] }: LinedSurface['fittings'][number]): boolean =>
      u > box.minX && u < box.maxX && v > box.minY && v < box.maxY;
    const fittings = ground.fittings.filter(inside);
    const drilled = fittings.filter(({ id }) => !piece.slots.includes(id)).map(({ name }) => name);
    const threaded = fittings.filter(({ id }) => piece.slots.includes(id)).map(({ name }) => name);
    return {
      part: piece.part,
      first: [
        ...own.map(({ part }) => message('lining.first.strip', { part })),
        ...(drilled.length > 0 ? [message('lining.first.drill', { names: drilled.join(', ') })] : []),
        ...(threaded.length > 0 ? [message('lining.first.thread', { names: threaded.join(', ') })] : []),
      ],
      off: piece.removable,
      behind,
    };
  });
}

/** Beside a piece that comes off again an edge or a joint is so near to it, mm. */
const BESIDE_MM = 6;

/** Length of a line that stays in sight and lies at nothing that comes off again, mm. */
function seen(ground: LinedSurface, [a, b]: readonly [Point, Point], off: readonly Outline[]): number {
  const boxes = off.map(({ outer }) => boxOf(outer));
  const beside = (u: number, v: number): boolean =>
    boxes.some(
      ({ minX, maxX, minY, maxY }) =>
        u > minX - BESIDE_MM && u < maxX + BESIDE_MM && v > minY - BESIDE_MM && v < maxY + BESIDE_MM,
    );
  const length = Math.hypot(b[0] - a[0], b[1] - a[1]);
  const count = Math.max(1, Math.round(length / SAMPLE_MM));
  let open = 0;
  for (let i = 0; i < count; i += 1) {
    const t = (i + 0.5) / count;
    const [u, v] = [a[0] + t * (b[0] - a[0]), a[1] + t * (b[1] - a[1])];
    if (!isBehind(ground, [u, v]) && !beside(u, v)) open += 1;
  }
  return (length * open) / count;
}

/** Joints and edges in sight that are filled, m, and what that takes, ml. */
export interface Caulk {
  readonly joints: number;
  readonly edges: number;
  readonly millilitres: number;
}

/** A joint is filled no deeper than its width, or this, mm. */
const LEAST_DEEP_MM = 3;

/**
 * What is filled with flexible caulk: upright seams, joints between strips, and the edges where the lining meets other
 * surfaces, as far as they stay in sight. Grooved boards are not filled, nor anything that must come off again.
 */
export function caulkOf(
  ground: LinedSurface,
  school: LiningChoice['school'],
  choice: LiningChoice,
  seams: readonly number[],
  rows: readonly (readonly [number, number])[],
  thickness: number,
  off: readonly Outline[],
  lined: readonly Lined[],
): Caulk {
  if (choice.removable) return { joints: 0, edges: 0, millilitres: 0 };
  const { unrolled, solid } = ground;
  const upright = seams.reduce(
    (sum, u) =>
      sum +
      solidAlong(solid, u).reduce(
        (all, [v0, v1]) =>
          all +
          seen(
            ground,
            [
              [u, v0],
              [u, v1],
            ],
            off,
          ),
        0,
      ),
    0,
  );
  const level =
    school === 'strips'
      ? rows.slice(1).reduce(
          (sum, [v]) =>
            sum +
            seen(
              ground,
              [
                [choice.edge, v],
                [unrolled.length - choice.edge, v],
              ],
              off,
            ),
          0,
        )
      : 0;
  const ends = [0, unrolled.length].map((u) => reachOf(unrolled, u));
  const [front, rear] = [ends[0] ?? [0, 0], ends[1] ?? [0, 0]];
  const around = [
    [
      [0, front[0]],
      [unrolled.length, rear[0]],
    ],
    [
      [0, front[1]],
      [unrolled.length, rear[1]],
    ],
    [
      [0, front[0]],
      [0, front[1]],
    ],
    [
      [unrolled.length, rear[0]],
      [unrolled.length, rear[1]],
    ],
  ] as const;
  // an edge between two surfaces is filled once: the ceiling has it before the walls, and they before the ends
  const { surface } = unrolled;
  const over = surface !== 'ceiling' && lined.includes('ceiling');
  const sides = isEnd(surface) ? (['left', 'right'] as const).map((side) => lined.includes(side)) : [false, false];
  const elsewhere = [false, over, sides[0], sides[1]];
  const edges =
    choice.edge > 0 ? around.reduce((sum, line, i) => sum + (elsewhere[i] ? 0 : seen(ground, line, off)), 0) : 0;
  const joints = choice.gap > 0 ? upright + level : 0;
  const bead = (width: number): number => width * Math.min(thickness, Math.max(width / 2, LEAST_DEEP_MM));
  return {
    joints: joints / 1000,
    edges: edges / 1000,
    millilitres: (joints * bead(choice.gap) + edges * bead(choice.edge)) / 1000,
  };
}
