import type { Side } from '../document/schema.js';
import { outlineArea, spread } from '../numeric/plane.js';
import { developedHeight, halfWidth, roofHeight, sectionAcross, wallTop, type Shell } from './shell.js';

/** The figures a builder asks of a shell, mm unless said. Each is the smallest over the length, with the place where it is found. */
export interface RoomFigures {
  readonly length: number;
  readonly standing: Figure;
  readonly widthAtFloor: Figure;
  readonly widthAtBelly: Figure;
  readonly widthAtBed: Figure;
  /** Areas of the surfaces, m2, walls and ceiling along their curves. */
  readonly areas: {
    readonly floor: number;
    readonly left: number;
    readonly right: number;
    readonly ceiling: number;
    readonly front: number;
    readonly rear: number;
  };
}
export interface Figure {
  readonly value: number;
  readonly x: number;
}

/** Height above the floor at which sleeping across is usually looked at, mm. */
export const BED_HEIGHT_MM = 800;
const ALONG = 25;

function smallest(shell: Shell, of: (x: number) => number): Figure {
  const stations = shell.stations.map((station) => station.x);
  const all = [
    ...spread(shell.start, shell.length, ALONG),
    ...stations.filter((x) => x >= shell.start && x <= shell.length),
  ].map((x) => ({ x, value: of(x) }));
  return all.reduce((best, next) => (next.value < best.value ? next : best));
}

const width = (shell: Shell, x: number, z: number): number =>
  halfWidth(shell, 'left', x, z) + halfWidth(shell, 'right', x, z);

function widest(shell: Shell, x: number): number {
  return Math.max(
    ...spread(shell.floor, Math.min(wallTop(shell, 'left', x), wallTop(shell, 'right', x)), 25).map((z) =>
      width(shell, x, z),
    ),
  );
}

/** Mean of a length over the vehicle times the vehicle's length, m2 (trapezoid rule). */
function areaOf(shell: Shell, across: (x: number) => number): number {
  const values = spread(shell.start, shell.length, ALONG).map(across);
  const step = (shell.length - shell.start) / (ALONG - 1);
  return values.reduce((sum, value, i) => sum + value * step * (i === 0 || i === ALONG - 1 ? 0.5 : 1), 0) / 1e6;
}

/** Length of the ceiling's curve at x, mm. */
function ceilingLength(shell: Shell, x: number): number {
  const from = -halfWidth(shell, 'left', x, wallTop(shell, 'left', x));
  const to = halfWidth(shell, 'right', x, wallTop(shell, 'right', x));
  const ys = spread(from, to, 21);
  return ys.slice(1).reduce((sum, y, i) => {
    const before = ys[i] ?? y;
    return sum + Math.hypot(y - before, roofHeight(shell, x, y) - roofHeight(shell, x, before));
  }, 0);
}

/** Area of the section at one end, m2. */
const sectionArea = (shell: Shell, x: number): number =>
  outlineArea({ outer: sectionAcross(shell, x), holes: [] }) / 1e6;

/** Works out the room figures of a shell, bare or inner. */
export function roomFigures(shell: Shell, bedHeight = BED_HEIGHT_MM): RoomFigures {
  const wall = (side: Side): number =>
    areaOf(shell, (x) => developedHeight(shell, side, x, wallTop(shell, side, x), 9));
  return {
    length: shell.length - shell.start,
    standing: smallest(shell, (x) => roofHeight(shell, x, 0) - shell.floor),
    widthAtFloor: smallest(shell, (x) => width(shell, x, shell.floor)),
    widthAtBelly: smallest(shell, (x) => widest(shell, x)),
    widthAtBed: smallest(shell, (x) => width(shell, x, shell.floor + bedHeight)),
    areas: {
      floor: areaOf(shell, (x) => width(shell, x, shell.floor)),
      left: wall('left'),
      right: wall('right'),
      ceiling: areaOf(shell, (x) => ceilingLength(shell, x)),
      front: sectionArea(shell, shell.start),
      rear: sectionArea(shell, shell.length),
    },
  };
}
