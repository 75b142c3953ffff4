import { thingIn } from '../document/layout-changes.js';
import type { Thing } from '../document/schema.js';
import type { Run, RunEnd, RunKind } from '../document/unit-schema.js';
import { memoFew } from '../numeric/memo.js';
import { circleRing, distanceToRing, isWithin, nearestOnRing, type Point } from '../numeric/plane.js';
import { planeAxes, type Axis } from '../parts/lay-flat.js';
import type { Vector } from '../parts/part.js';
import { bundleRule } from '../rules/runs.js';
import type { SolidBox } from '../rules/room.js';
import { halfWidth, roofHeight, type Shell } from '../shell/shell.js';
import { boardBox, type BayRoom, type Board, type Skeleton } from './skeleton.js';

/** Where a run comes into a bay: so far from its back, mm; a waste pipe leaves at mid height, everything else low or high. */
const OFF_BACK_MM = 45;
const LOW_MM = 80;
const HIGH_SHARE = 0.75;
/** A tank takes its water from above when nothing says how high it is, mm. */
const TANK_MM = 200;
/** Kept between two holes in one board, or they become one, mm. */
const BETWEEN_MM = 15;
/** Cables share a hole, and so do water pipes; nothing else does. */
const SHARES: ReadonlySet<RunKind> = new Set(['cable', 'water']);
/** A run that comes to a board flatter than this cannot be drilled for, as a share of its length. */
const FLATTEST = 0.35;

/** One hole in one board, and what goes through it. */
export interface RunHole {
  readonly unit: string;
  /** The board, by its name within the unit. */
  readonly board: string;
  readonly runs: readonly string[];
  /** On the board's own plane, mm. */
  readonly at: Point;
  /** Where that is in the vehicle, mm. */
  readonly place: Vector;
  readonly diameter: number;
  /** Wood left between the hole and the nearest edge or opening of the board, mm; below nothing where it breaks out. */
  readonly edge: number;
  /** Which way in the vehicle it has to go to leave more, away from the nearest edge: of length 1. */
  readonly inward: Vector;
  /** The board moves: a drawer's side, a door. */
  readonly moves: boolean;
  /** It is the panel of a bay for cables and ducts: it comes off where the hole is slotted to its edge. */
  readonly panel: boolean;
}
/** A stretch of a run that lies within a board along it, instead of going through. */
export interface RunAlong {
  readonly unit: string;
  readonly board: string;
  readonly run: string;
  readonly place: Vector;
}
/** A run as it lies in the vehicle. */
export interface PlacedRun {
  readonly run: Run;
  /** Its corners from end to end, mm; none while one of its ends is not known. */
  readonly points: readonly Vector[];
  /** mm */
  readonly length: number;
  /** How many corners it turns at: bends, or elbows that are bought. */
  readonly bends: number;
  /** The things at its ends. */
  readonly things: readonly Thing[];
}
export interface RunsMade {
  readonly placed: readonly PlacedRun[];
  readonly holes: readonly RunHole[];
  readonly along: readonly RunAlong[];
}
export const NO_RUNS: RunsMade = { placed: [], holes: [], along: [] };

export interface RunsInput {
  readonly runs: readonly Run[];
  readonly skeletons: ReadonlyMap<string, Skeleton>;
  readonly things: readonly Thing[];
  readonly inner: Shell;
}

interface Anchor {
  readonly at: Vector;
  /** The wall its bay backs on: -1 left, 1 right; 0 for a place of its own. */
  readonly side: -1 | 0 | 1;
  readonly thing: Thing | null;
}

function bayNamed(end: RunEnd, skeletons: RunsInput['skeletons']): BayRoom | null {
  if (!('unit' in end)) return null;
  return skeletons.get(end.unit)?.bays?.find(({ bay }) => bay.name === end.bay) ?? null;
}

/** What ends in a bay keeps so far off a board that stands in it, mm. */
const OFF_BOARD_MM = 5;
/** The middle of a bay along the vehicle, or beside the board that stands there: a bearer under a bed, say. */
function middleOf({ room }: BayRoom, diameter: number, boards: readonly Board[]): number {
  const middle = (room.x0 + room.x1) / 2;
  const off = diameter / 2 + OFF_BOARD_MM;
  const inWay = boards.find(
    ({ normal, at, thickness, moves }) =>
      normal === 'x' && moves === undefined && at < middle + off && at + thickness > middle - off,
  );
  return inWay ? inWay.at + inWay.thickness + off : middle;
}

/** A bay whose back is no farther from the wall than this backs on it: behind it lies an air gap or a way for pipes, mm. */
const AT_WALL_MM = 350;

function anchorOf(end: RunEnd | null, { kind, diameter }: Run, last: boolean, input: RunsInput): Anchor | null {
  if (!end) return null;
  if ('at' in end) {
    const [x, y, z] = end.at;
    return { at: [x, y, z + input.inner.floor], side: 0, thing: null };
  }
  const place = bayNamed(end, input.skeletons);
  if (!place) return null;
  const { room, into, bay } = place;
  const id = thingIn(bay);
  const thing = input.things.find((one) => one.id === id) ?? null;
  const high = room.z1 - room.z0;
  const up =
    kind === 'waste'
      ? last
        ? Math.min(thing?.height ?? TANK_MM, high - OFF_BACK_MM)
        : high / 2
      : kind === 'cable'
        ? high * HIGH_SHARE
        : LOW_MM;
  const y = into < 0 ? room.y0 + OFF_BACK_MM : into > 0 ? room.y1 - OFF_BACK_MM : (room.y0 + room.y1) / 2;
  const z = room.z0 + Math.min(up, high);
  const x = middleOf(place, diameter, input.skeletons.get(end.unit)?.boards ?? []);
  // what stands in the room has its back at no wall, whichever way one reaches into it
  const wall = into === 0 ? 0 : halfWidth(input.inner, into < 0 ? 'left' : 'right', x, z);
  const atWall = into !== 0 && wall - Math.sign(into) * (into < 0 ? room.y0 : room.y1) < AT_WALL_MM;
  return { at: [x, y, z], side: !atWall ? 0 : into < 0 ? -1 : 1, thing };
}

const apart = (a: Vector, b: Vector): number => Math.hypot(b[0] - a[0], b[1] - a[1], b[2] - a[2]);
const same = (a: Vector, b: Vector): boolean => apart(a, b) < 1;

/** What is laid in a chase, and how high in it: so cables, ducts and water pipes lie over each other. */
const IN_CHASE: Partial<Record<RunKind, number>> = { cable: 0.75, duct: 0.5, water: 0.25 };
/** A run comes into a chase and leaves it so far from its ends, mm. */
const INTO_CHASE_MM = 40;
/** It goes no further up or down out of its way for a chase than this, mm. */
const OUT_OF_WAY_MM = 450;

/** The line of a chase that a run can be laid in: from where to where along the vehicle, and its place across and up. */
interface ChaseLine {
  readonly x0: number;
  readonly x1: number;
  readonly y: number;
  readonly z: number;
}

/** The chases at a wall that a run passes on its way between two places along the vehicle, in its order, where it has room in them. */
function chasesOn(side: -1 | 1, a: Vector, b: Vector, run: Run, { skeletons }: RunsInput): readonly ChaseLine[] {
  const [from, to] = [Math.min(a[0], b[0]), Math.max(a[0], b[0])];
  const beyond = ({ z }: ChaseLine): number => (Math.abs(z - a[2]) + Math.abs(z - b[2]) - Math.abs(a[2] - b[2])) / 2;
  const share = IN_CHASE[run.kind];
  if (share === undefined) return [];
  const found = [...skeletons.values()]
    .flatMap(({ bays = [] }) => bays)
    .flatMap(({ bay, room, into }): ChaseLine[] => {
      if (bay.holds.kind !== 'chase' || Math.sign(into) !== side) return [];
      const [deep, high] = [room.y1 - room.y0, room.z1 - room.z0];
      if (Math.min(deep, high) < run.diameter) return [];
      // in the middle of what is shallow, else as far off the back as everything else
      const off = Math.min(OFF_BACK_MM, deep / 2);
      const half = run.diameter / 2;
      return [
        {
          x0: room.x0 + INTO_CHASE_MM,
          x1: room.x1 - INTO_CHASE_MM,
          y: side < 0 ? room.y0 + off : room.y1 - off,
          z: room.z0 + Math.min(Math.max(high * share, half), high - half),
        },
      ];
    })
    .filter((line) => line.x1 > from && line.x0 < to && line.x1 > line.x0 && beyond(line) <= OUT_OF_WAY_MM)
    .sort((one, other) => one.x0 - other.x0);
  return a[0] <= b[0] ? found : found.reverse();
}

/**
 * From one place to another at one wall, back to a chase and through it wherever there is one on the way; null where there is none.
 * @param early whether it goes up or down where it begins, and where it ends, and not in the chase
 */
function throughChases(
  [a, b]: readonly [Vector, Vector],
  side: -1 | 1,
  run: Run,
  input: RunsInput,
  early: { readonly begins: boolean; readonly ends: boolean },
): Vector[] | null {
  const way: Vector[] = [a];
  let [x, y, z] = a;
  for (const line of chasesOn(side, a, b, run, input)) {
    const clamp = (at: number): number => Math.min(Math.max(at, line.x0), line.x1);
    const [enters, leaves] = [clamp(x), clamp(b[0])];
    // where chases lie side by side it goes on in the one that it is in
    if (Math.abs(leaves - enters) < 1) continue;
    if (early.begins && way.length === 1) {
      z = line.z;
      way.push([x, y, z]);
    }
    way.push([enters, y, z], [enters, line.y, z], [enters, line.y, line.z], [leaves, line.y, line.z]);
    [x, y, z] = [leaves, line.y, line.z];
  }
  if (way.length === 1) return null;
  const level = early.ends ? z : b[2];
  return [...way, [x, y, level], [x, b[1], level], [b[0], b[1], level], b];
}

/** A run is looked at every so often along its length, mm. */
const STEP_MM = 20;
/** Nearer to the wall than this it lies along it; higher than this above the floor nobody meets it, mm. */
const ALONG_WALL_MM = 120;
const OVERHEAD_MM = 1900;
const holds = (box: SolidBox, x: number, y: number, z: number): boolean =>
  x > box.x0 - 1 && x < box.x1 + 1 && y > box.y0 - 1 && y < box.y1 + 1 && z > box.z0 - 1 && z < box.z1 + 1;

/** What lies no higher above the floor than this lies on it: a threshold covers it, mm. */
const ON_FLOOR_MM = 60;
/** The length of a way at whose places something is so, mm. */
function lengthWhere(points: readonly Vector[], is: (x: number, y: number, z: number) => boolean): number {
  let found = 0;
  for (let i = 1; i < points.length; i += 1) {
    const [a, b] = [points[i - 1], points[i]];
    if (!a || !b) continue;
    const length = apart(a, b);
    const steps = Math.max(1, Math.round(length / STEP_MM));
    for (let k = 0; k < steps; k += 1) {
      const share = (k + 0.5) / steps;
      const at = (n: 0 | 1 | 2): number => a[n] + (b[n] - a[n]) * share;
      if (is(at(0), at(1), at(2))) found += length / steps;
    }
  }
  return found;
}
/** Whether a place is in the room and neither along a wall nor in a unit. */
const isFree = (solids: readonly SolidBox[], inner: Shell, x: number, y: number, z: number): boolean =>
  z >= inner.floor &&
  x >= inner.start &&
  x <= inner.length &&
  halfWidth(inner, y < 0 ? 'left' : 'right', x, z) - Math.abs(y) >= ALONG_WALL_MM &&
  !solids.some((box) => holds(box, x, y, z));

/** How much of a way lies in the open room where one walks, mm: not in a unit, along a wall, overhead or under the floor. */
export const openLength = (points: readonly Vector[], solids: readonly SolidBox[], inner: Shell): number =>
  lengthWhere(points, (x, y, z) => z <= inner.floor + OVERHEAD_MM && isFree(solids, inner, x, y, z));

/** How much of a way hangs in mid-air, mm: in the open, on no floor, along no wall, end wall or roof. */
export const airLength = (points: readonly Vector[], solids: readonly SolidBox[], inner: Shell): number =>
  lengthWhere(
    points,
    (x, y, z) =>
      z > inner.floor + ON_FLOOR_MM &&
      x > inner.start + ALONG_WALL_MM &&
      x < inner.length - ALONG_WALL_MM &&
      roofHeight(inner, x, y) - z >= ALONG_WALL_MM &&
      isFree(solids, inner, x, y, z),
  );

const lengthOf = (way: readonly Vector[]): number =>
  way.slice(1).reduce((sum, point, i) => sum + apart(way[i] ?? point, point), 0);

/** The boxes that units stand in, by the boards that do not move: worked out once for all runs among the same units. */
const standingBoxes = memoFew((skeletons: RunsInput['skeletons']): readonly SolidBox[] =>
  [...skeletons.values()].flatMap(({ boards }): SolidBox[] => {
    const boxes = boards.filter(({ moves }) => moves === undefined).map(boardBox);
    if (boxes.length === 0) return [];
    const least = (n: 0 | 1 | 2): number => Math.min(...boxes.map(({ low }) => low[n]));
    const most = (n: 0 | 1 | 2): number => Math.max(...boxes.map(({ high }) => high[n]));
    return [{ x0: least(0), x1: most(0), y0: least(1), y1: most(1), z0: least(2), z1: most(2) }];
  }),
);

/** A stretch in mid-air counts as so many across the floor: it is what nobody can lay. */
const AIR_WEIGHT = 20;
/** And length itself, where ways are else alike. */
const LENGTH_WEIGHT = 0.05;
/** Of several ways the one with least of it in mid-air, then in the open; the first of those that are as good. */
function leastOpen(
  ways: readonly [Vector[], ...Vector[][]],
  { inner, skeletons }: RunsInput,
  lengths = false,
): Vector[] {
  const boxes = standingBoxes(skeletons);
  const open = ways.map(
    (way) =>
      openLength(way, boxes, inner) +
      AIR_WEIGHT * airLength(way, boxes, inner) +
      (lengths ? LENGTH_WEIGHT * lengthOf(way) : 0),
  );
  const least = Math.min(...open);
  return ways[open.findIndex((length) => length < least + STEP_MM)] ?? ways[0];
}

/** Its own way along the wall: through chases where there are some, else at one depth past everything between, down or up at the end; over the floor to the other side. */
function ownWay(from: Anchor, to: Anchor, run: Run, input: RunsInput): Vector[] {
  const [a, b] = [from.at, to.at];
  const side = from.side || to.side;
  // the depth that is nearer to the middle is inside both
  const y = side < 0 ? Math.max(a[1], b[1]) : side > 0 ? Math.min(a[1], b[1]) : a[1];
  const plain: Vector[] = [a, [a[0], y, a[2]], [b[0], y, a[2]], [b[0], y, b[2]], b];
  if (from.side === to.side && side !== 0) {
    // water finds its fall on its own
    if (run.kind === 'waste') return plain;
    const both = [false, true];
    const chased = both.flatMap((begins) =>
      both.flatMap((ends) => {
        const way = throughChases([a, b], side, run, input, { begins, ends });
        return way ? [way] : [];
      }),
    );
    const [first = plain, ...others] = chased;
    return leastOpen(
      chased.length > 0 ? [first, ...others] : [plain, [a, [a[0], y, a[2]], [a[0], y, b[2]], [b[0], y, b[2]], b]],
      input,
    );
  }
  const low = input.inner.floor + run.diameter / 2;
  const across: Vector[] = [a, [b[0], a[1], a[2]], [b[0], a[1], low], [b[0], b[1], low], b];
  if (from.side !== 0 && to.side !== 0 && !inAir(across, input)) return across;
  // an end in the middle of the room, or a way between walls that nothing stands along: over the floor, or along a wall at its foot
  const foot = (wall: -1 | 1): number =>
    Math.min(...[a[0], b[0]].map((x) => halfWidth(input.inner, wall < 0 ? 'left' : 'right', x, low) - OFF_BACK_MM)) *
    wall;
  const over = (through: number): Vector[] => [
    a,
    [a[0], a[1], low],
    [a[0], through, low],
    [b[0], through, low],
    [b[0], b[1], low],
    b,
  ];
  const first = from.side !== 0 && to.side !== 0 ? across : plain;
  const level: Vector[] = [a, [a[0], y, a[2]], [a[0], y, b[2]], [b[0], y, b[2]], b];
  return leastOpen([first, level, over(a[1]), over(b[1]), over(foot(-1)), over(foot(1))], input, true);
}
/** Whether any of a way hangs in mid-air among the units that stand. */
const inAir = (way: readonly Vector[], { inner, skeletons }: RunsInput): boolean =>
  airLength(way, standingBoxes(skeletons), inner) > STEP_MM;

/** A waste pipe falls evenly from one end to the other, unless it is led by hand. */
function falling(points: readonly Vector[]): Vector[] {
  const [first, last] = [points[0], points.at(-1)];
  if (!first || !last) return [...points];
  const level = (a: Vector, b: Vector): number => Math.hypot(b[0] - a[0], b[1] - a[1]);
  const all = points.slice(1).reduce((sum, point, i) => sum + level(points[i] ?? point, point), 0);
  let gone = 0;
  return points.map((point, i): Vector => {
    gone += i > 0 ? level(points[i - 1] ?? point, point) : 0;
    return all > 0 ? [point[0], point[1], first[2] + ((last[2] - first[2]) * gone) / all] : point;
  });
}

/** A corner that turns by less than this is no bend: a pipe gives so much, degrees. */
const STRAIGHT_DEGREES = 15;
/** How many corners of a way turn. */
const bendsOf = (points: readonly Vector[]): number =>
  points.slice(2).filter((c, i) => {
    const [a, b] = [points[i], points[i + 1]];
    if (!a || !b) return false;
    const cosine =
      [0, 1, 2].reduce((sum, k) => sum + ((b[k] ?? 0) - (a[k] ?? 0)) * ((c[k] ?? 0) - (b[k] ?? 0)), 0) /
      (apart(a, b) * apart(b, c));
    return cosine < Math.cos((STRAIGHT_DEGREES * Math.PI) / 180);
  }).length;

function placed(run: Run, input: RunsInput): PlacedRun {
  const [from, to] = [anchorOf(run.from, run, false, input), anchorOf(run.to, run, true, input)];
  const things = [from?.thing, to?.thing].flatMap((thing) => thing ?? []);
  if (!from || !to) return { run, points: [], length: 0, bends: 0, things };
  const via = run.via.map(([x, y, z]): Vector => [x, y, z + input.inner.floor]);
  const way = via.length > 0 ? [from.at, ...via, to.at] : ownWay(from, to, run, input);
  const points = (via.length === 0 && run.kind === 'waste' ? falling(way) : way).filter(
    (point, i, all) => i === 0 || !same(point, all[i - 1] ?? point),
  );
  return { run, points, length: lengthOf(points), bends: bendsOf(points), things };
}

interface Crossing {
  readonly run: Run;
  readonly at: Point;
  readonly place: Vector;
  /** Across the board, of the run as it comes through at its angle, mm. */
  readonly wide: number;
}
const INDEX: Readonly<Record<Axis, 0 | 1 | 2>> = { x: 0, y: 1, z: 2 };

/** Places on a stretch at which it is looked at. */
const SAMPLES = [0.05, 0.25, 0.5, 0.75, 0.95] as const;

/** Where a stretch of a run meets a board: through it, or along it. */
function meets(board: Board, a: Vector, b: Vector, run: Run): Crossing | 'along' | null {
  const n = INDEX[board.normal];
  const [u, v] = planeAxes(board.normal).map((axis) => INDEX[axis]) as [0 | 1 | 2, 0 | 1 | 2];
  const middle = board.at + board.thickness / 2;
  const length = apart(a, b);
  const steep = Math.abs(b[n] - a[n]) / length;
  if (steep < FLATTEST) {
    // too flat to be bored for: it lies along the board wherever it is in its thickness and over its face
    const [off, by] = [a[n] - middle, b[n] - a[n]];
    const reach = board.thickness / 2 + run.diameter / 2 - 1;
    const [one, other] = Math.abs(by) < 1e-6 ? [-Infinity, Infinity] : [(-reach - off) / by, (reach - off) / by];
    const [from, to] = [Math.max(0, Math.min(one, other)), Math.min(1, Math.max(one, other))];
    if (from >= to || (Math.abs(by) < 1e-6 && Math.abs(off) >= reach)) return null;
    const over = SAMPLES.some((share) => {
      const t = from + (to - from) * share;
      return isWithin([a[u] + (b[u] - a[u]) * t, a[v] + (b[v] - a[v]) * t], board.outline.outer);
    });
    return over ? 'along' : null;
  }
  const share = (middle - a[n]) / (b[n] - a[n]);
  if (!(share > 0 && share < 1)) return null;
  const place: Vector = [0, 1, 2].map((i) => {
    const k = i as 0 | 1 | 2;
    return a[k] + (b[k] - a[k]) * share;
  }) as unknown as Vector;
  const at: Point = [place[u], place[v]];
  // what goes through an opening that is there already needs none of its own
  if (!isWithin(at, board.outline.outer) || board.outline.holes.some((hole) => isWithin(at, hole))) return null;
  return { run, at, place, wide: run.diameter / steep };
}

/** Away from the nearest edge of a board, in the vehicle. */
function inwardOf(board: Board, at: Point): Vector {
  const [u, v] = planeAxes(board.normal).map((axis) => INDEX[axis]) as [0 | 1 | 2, 0 | 1 | 2];
  const near = nearestOnRing(at, board.outline.outer);
  const far = Math.hypot(at[0] - near[0], at[1] - near[1]);
  const to = [0, 0, 0];
  to[u] = far > 0 ? (at[0] - near[0]) / far : 0;
  to[v] = far > 0 ? (at[1] - near[1]) / far : 0;
  return [to[0] ?? 0, to[1] ?? 0, to[2] ?? 0];
}

/** Crossings of one board as holes: those that share one are bundled. */
function holesOf(unit: string, board: Board, crossings: readonly Crossing[], panel: boolean): RunHole[] {
  const groups: Crossing[][] = [];
  for (const crossing of crossings) {
    const near = groups.find(([first]) => {
      if (!first || first.run.kind !== crossing.run.kind || !SHARES.has(first.run.kind)) return false;
      const between = Math.hypot(first.at[0] - crossing.at[0], first.at[1] - crossing.at[1]);
      return between < (first.wide + crossing.wide) / 2 + BETWEEN_MM;
    });
    if (near) near.push(crossing);
    else groups.push([crossing]);
  }
  const each = groups.map((group) => {
    const mean = (of: (crossing: Crossing) => number): number =>
      group.reduce((sum, crossing) => sum + of(crossing), 0) / group.length;
    return {
      group,
      at: [mean(({ at }) => at[0]), mean(({ at }) => at[1])] as Point,
      place: [0, 1, 2].map((i) => mean(({ place }) => place[i as 0 | 1 | 2])) as unknown as Vector,
      diameter: bundleRule.run({
        diameters: group.map(({ wide }) => wide),
        hot: group.some(({ run }) => run.kind === 'flue'),
      }).hole,
    };
  });
  return each.map(({ group, at, place, diameter }, i): RunHole => {
    const others = each
      .filter((_, k) => k !== i)
      .map((other) => Math.hypot(other.at[0] - at[0], other.at[1] - at[1]) - other.diameter / 2);
    const free = Math.min(
      ...[board.outline.outer, ...board.outline.holes].map((ring) => distanceToRing(at, ring)),
      ...others,
    );
    return {
      unit,
      board: board.name,
      runs: group.map(({ run }) => run.id),
      at,
      place,
      diameter,
      edge: free - diameter / 2,
      inward: inwardOf(board, at),
      moves: board.moves !== undefined && !panel,
      panel,
    };
  });
}

/**
 * Every run where it lies, and the holes it takes through the boards of furniture: one for a bundle.
 * @returns lengths in mm; a run of which an end is not known has no points, and goes through nothing
 */
export function runsOf(input: RunsInput): RunsMade {
  if (input.runs.length === 0) return NO_RUNS;
  const all = input.runs.map((run) => placed(run, input));
  const holes: RunHole[] = [];
  const along: RunAlong[] = [];
  for (const [unit, { boards, bays = [] }] of input.skeletons) {
    const panels = new Set(
      bays.flatMap(({ bay }) =>
        bay.holds.kind === 'chase' && bay.front.kind === 'panel' ? [`${bay.name}.panel`] : [],
      ),
    );
    for (const board of boards) {
      const { low, high } = boardBox(board);
      const crossings: Crossing[] = [];
      for (const { run, points } of all)
        for (let i = 1; i < points.length; i += 1) {
          const [a, b] = [points[i - 1], points[i]];
          if (!a || !b) continue;
          const r = run.diameter / 2;
          if (
            [0, 1, 2].some(
              (k) =>
                Math.max(a[k] ?? 0, b[k] ?? 0) + r < (low[k] ?? 0) ||
                Math.min(a[k] ?? 0, b[k] ?? 0) - r > (high[k] ?? 0),
            )
          )
            continue;
          const met = meets(board, a, b, run);
          if (met === 'along') {
            if (!along.some((one) => one.board === board.name && one.run === run.id && one.unit === unit))
              along.push({
                unit,
                board: board.name,
                run: run.id,
                place: [(a[0] + b[0]) / 2, (a[1] + b[1]) / 2, (a[2] + b[2]) / 2],
              });
          } else if (met) crossings.push(met);
        }
      holes.push(...holesOf(unit, board, crossings, panels.has(board.name)));
    }
  }
  return { placed: all, holes, along };
}

/** Boards with the holes that runs take through them; one that would break out at an edge is not bored, and is told instead. */
export function bored(skeleton: Skeleton, holes: readonly RunHole[]): Skeleton {
  const cut = holes.filter(({ edge, moves }) => edge > 0 && !moves);
  if (cut.length === 0) return skeleton;
  return {
    ...skeleton,
    boards: skeleton.boards.map((board) => {
      const own = cut.filter((hole) => hole.board === board.name);
      return own.length === 0
        ? board
        : {
            ...board,
            outline: {
              ...board.outline,
              holes: [...board.outline.holes, ...own.map(({ at, diameter }) => circleRing(at, diameter / 2))],
            },
          };
    }),
  };
}
