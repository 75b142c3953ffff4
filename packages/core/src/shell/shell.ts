import type { Side } from '../document/schema.js';
import { evaluate, evaluateKnown, neededFrom, neededTo, pieceAt, slopeAt, type Curve } from '../numeric/curve.js';
import { spread, type Point, type Ring } from '../numeric/plane.js';
import { ROUNDING } from '../numeric/tolerance.js';

/** One cross-section: distance of each wall from the centre line over height, joined to the roof's height over y. */
export interface StationSection {
  readonly x: number;
  /** Wall distance (positive) over height, from the floor to where the wall meets the roof curve. */
  readonly left: Curve;
  readonly right: Curve;
  /** Roof height over y, from the top of the left wall (negative y) to the top of the right. */
  readonly roof: Curve;
}

/**
 * The inside of the vehicle as a surface: rib faces when bare, the lining's face when inner.
 * Axes as in the maintainer's guide: x to the rear, y to the right, z up from the bare floor. Millimetres.
 */
export interface Shell {
  /** Where it begins and ends along the vehicle: a bare one begins at 0, at the front datum. */
  readonly start: number;
  readonly length: number;
  /** Height of the surface one stands on, above the bare floor. */
  readonly floor: number;
  readonly stations: readonly StationSection[];
  /** The stations' places along x, in order. */
  readonly at: readonly number[];
  /** Where the lowest wall of each side meets the roof: below it every section is wall. */
  readonly leastTop: { readonly left: number; readonly right: number };
}

const first = (curve: Curve): number => curve.at[0] ?? 0;
const last = (curve: Curve): number => curve.at.at(-1) ?? 0;

/** Puts sections together to a shell. */
export function makeShell(length: number, floor: number, stations: readonly StationSection[], start = 0): Shell {
  const least = (side: Side): number => Math.min(...stations.map((section) => last(section[side])));
  return {
    start,
    length,
    floor,
    stations,
    at: stations.map((station) => station.x),
    leastTop: { left: least('left'), right: least('right') },
  };
}

/** The y at which the roof curve of a section comes down to height `z` on one side; 0 when the roof is nowhere that high. */
function roofReach(section: StationSection, side: Side, z: number): number {
  const outer = side === 'left' ? -first(section.roof) : last(section.roof);
  const sign = side === 'left' ? -1 : 1;
  if (evaluate(section.roof, 0) <= z) return 0;
  let [low, high] = [0, outer];
  for (let i = 0; i < 40; i += 1) {
    const middle = (low + high) / 2;
    if (evaluate(section.roof, sign * middle) > z) low = middle;
    else high = middle;
  }
  return low;
}

/** Distance from the centre line to one side of a section at height `z`, mm. */
export function sideDistance(section: StationSection, side: Side, z: number): number {
  const wall = section[side];
  return z <= last(wall) ? evaluate(wall, z) : roofReach(section, side, z);
}

/** Most heights or places across whose values at the stations are remembered of one shell. */
const REMEMBERED = 4096;
/** What of a shell is followed along it: its sides at a height, its walls alone up to their tops, and its roof at a place across. */
interface Followed {
  readonly sides: Readonly<Record<Side, Map<number, Float64Array>>>;
  readonly walls: Readonly<Record<Side, Map<number, Float64Array>>>;
  readonly roofs: Map<number, Float64Array>;
  readonly tops: Readonly<Record<Side, Float64Array>>;
}
const followed = new WeakMap<Shell, Followed>();
const unknown = ({ stations }: Shell): Float64Array => new Float64Array(stations.length).fill(NaN);
function followedOf(shell: Shell): Followed {
  const before = followed.get(shell);
  if (before) return before;
  const fresh: Followed = {
    sides: { left: new Map(), right: new Map() },
    walls: { left: new Map(), right: new Map() },
    roofs: new Map(),
    tops: { left: unknown(shell), right: unknown(shell) },
  };
  followed.set(shell, fresh);
  return fresh;
}
/** Values station by station; what was not asked for yet is NaN. A panel asks for many places at one height. */
function levelOf(shell: Shell, levels: Map<number, Float64Array>, at: number): Float64Array {
  const level = levels.get(at);
  if (level) return level;
  if (levels.size >= REMEMBERED) levels.clear();
  const fresh = unknown(shell);
  levels.set(at, fresh);
  return fresh;
}
/** What of a section is followed along the vehicle. */
type Follows = 'side' | 'wall' | 'top' | 'roof';
function valueOf(section: StationSection, what: Follows, side: Side, at: number): number {
  if (what === 'roof') return evaluate(section.roof, at);
  if (what === 'side') return sideDistance(section, side, at);
  const wall = section[side];
  return what === 'top' ? last(wall) : evaluate(wall, Math.min(at, last(wall)));
}
/** Along x between stations the same shape-preserving curve is used; before the first and behind the last station their value is held. */
function alongVehicle(shell: Shell, x: number, known: Float64Array, what: Follows, side: Side, at: number): number {
  const { stations } = shell;
  if (stations.length === 0) return 0;
  const piece = pieceAt(shell.at, x);
  const to = neededTo(shell.at, piece);
  for (let k = neededFrom(piece); k <= to; k += 1) {
    const value = known[k] as number;
    if (value !== value) known[k] = valueOf(stations[k] as StationSection, what, side, at);
  }
  return evaluateKnown(shell.at, known, x, piece);
}

/**
 * Distance from the centre line to the shell's side at a place, mm. Below the lowest reading the lowest is held;
 * above the wall's top it follows the roof curve, and is 0 above the roof.
 */
export function halfWidth(shell: Shell, side: Side, x: number, z: number): number {
  const { sides, walls } = followedOf(shell);
  // walls of neighbouring stations end at slightly different heights: up to the wall's own top here it is wall throughout
  return z > shell.leastTop[side] && z <= wallTop(shell, side, x) + ROUNDING
    ? alongVehicle(shell, x, levelOf(shell, walls[side], z), 'wall', side, z)
    : alongVehicle(shell, x, levelOf(shell, sides[side], z), 'side', side, z);
}

/** Height of the roof above the bare floor at a place, mm; outside the walls the height of the wall's top is held. */
export function roofHeight(shell: Shell, x: number, y: number): number {
  return alongVehicle(shell, x, levelOf(shell, followedOf(shell).roofs, y), 'roof', 'left', y);
}

/** Height at which the wall meets the roof curve, mm above the bare floor. */
export function wallTop(shell: Shell, side: Side, x: number): number {
  return alongVehicle(shell, x, followedOf(shell).tops[side], 'top', side, 0);
}

/** Lean of the wall in section: angle from the upright, radians, positive when it leans outward going up. */
export function leanUp(shell: Shell, side: Side, x: number, z: number): number {
  const h = 1;
  return Math.atan2(halfWidth(shell, side, x, z + h) - halfWidth(shell, side, x, z - h), 2 * h);
}

/** Lean of the wall along the vehicle at one height: angle from the centre line's direction, radians, positive when it opens to the rear. */
export function leanAlong(shell: Shell, side: Side, x: number, z: number): number {
  const h = 5;
  return Math.atan2(halfWidth(shell, side, x + h, z) - halfWidth(shell, side, x - h, z), 2 * h);
}

/** Radius of curvature of the wall in section at a height, mm; Infinity where it is straight. From three points 20 mm apart in height. */
export function curvatureRadius(shell: Shell, side: Side, x: number, z: number): number {
  const h = 20;
  const [a, b, c] = [z - h, z, z + h].map((height) => halfWidth(shell, side, x, height));
  const slope = ((c ?? 0) - (a ?? 0)) / (2 * h);
  const bend = ((c ?? 0) - 2 * (b ?? 0) + (a ?? 0)) / (h * h);
  return Math.abs(bend) < ROUNDING ? Infinity : (1 + slope * slope) ** 1.5 / Math.abs(bend);
}

/** The wall in section at x, as points (distance from the centre line, height) from `from` up to `to`. */
export function wallLine(shell: Shell, side: Side, x: number, from: number, to: number, count = 25): Point[] {
  return spread(from, to, count).map((z): Point => [halfWidth(shell, side, x, z), z]);
}

/** Length along the wall's curve from the floor up to height `z`, mm: what the wall measures when it is unrolled. */
export function developedHeight(shell: Shell, side: Side, x: number, z: number, count = 17): number {
  if (z <= shell.floor) return 0;
  // as wallLine and lineLength together, without keeping anything: it is asked of many places at each step of a drag
  const high = (z - shell.floor) / (count - 1);
  let length = 0;
  let below = halfWidth(shell, side, x, shell.floor);
  for (let i = 1; i < count; i += 1) {
    const wide = halfWidth(shell, side, x, shell.floor + high * i);
    length += Math.sqrt((wide - below) * (wide - below) + high * high);
    below = wide;
  }
  return length;
}

/** The whole section across the vehicle at x as a closed ring (y, z): floor, right wall, roof, left wall. */
export function sectionAcross(shell: Shell, x: number, count = 25): Ring {
  const up = (side: Side, sign: number): Point[] =>
    wallLine(shell, side, x, shell.floor, wallTop(shell, side, x), count).map(([d, z]): Point => [sign * d, z]);
  const right = up('right', 1);
  const left = up('left', -1);
  const [from, to] = [right.at(-1)?.[0] ?? 0, left.at(-1)?.[0] ?? 0];
  const roof = spread(from, to, count)
    .slice(1, -1)
    .map((y): Point => [y, roofHeight(shell, x, y)]);
  return [...right, ...roof, ...left.reverse()];
}

/** One side's edge in a level plane: points (x, distance from the centre line) from x0 to x1 at height z. */
export function sideAlong(shell: Shell, side: Side, z: number, x0: number, x1: number, count = 41): Point[] {
  return spread(x0, x1, count).map((x): Point => [x, halfWidth(shell, side, x, z)]);
}

/** The section in an upright plane along the vehicle at `y`: points (x, roof height) from x0 to x1. */
export function roofAlong(shell: Shell, y: number, x0: number, x1: number, count = 41): Point[] {
  return spread(x0, x1, count).map((x): Point => [x, roofHeight(shell, x, y)]);
}

/** Slope of a section's roof at y, as rise over run. */
export function roofSlope(section: StationSection, y: number): number {
  return slopeAt(section.roof, y);
}

/** Clear length across the vehicle for one sleeper: the least inner width over the strip and the mattress's thickness. */
export function clearAcross(inner: Shell, x0: number, x1: number, z0: number, z1: number): number {
  let least = Infinity;
  for (const x of spread(x0, x1, 9))
    for (const z of spread(z0, z1, 4))
      least = Math.min(least, halfWidth(inner, 'left', x, z) + halfWidth(inner, 'right', x, z));
  return least;
}
