import type { Side } from '@nestplank/core/document';
import { spread, type Point } from '@nestplank/core/numeric';
import { developedHeight, halfWidth, ribAt, wallTop, type PlacedRib, type Shell } from '@nestplank/core/shell';
import type { Pointed } from '../state/pointing.js';

/** How the fold-out lies on the screen: the floor in the middle, the walls laid flat beside it with their feet along it. Pixels. */
export interface FoldOutFrame {
  readonly shell: Shell;
  readonly scale: number;
  readonly top: number;
  readonly height: number;
  readonly centre: number;
  readonly leftFoot: number;
  readonly rightFoot: number;
  readonly leftEdge: number;
  readonly rightEdge: number;
}

const MARGIN = { top: 34, bottom: 48, side: 18 };
/** On a narrow screen the switches below reach under what is written there: room for both, one over the other. */
const NARROW = { width: 560, bottom: 88 };
/** A drawing that only shows a place has no words and no switches. */
const SMALL = { height: 200, margin: 10 };
const RULER = 34;
const GAP = 20;
const ALONG = 33;

/** Largest unrolled height of a wall, mm. */
function tallest(shell: Shell, side: Side): number {
  return Math.max(...spread(0, shell.length, 9).map((x) => developedHeight(shell, side, x, wallTop(shell, side, x))));
}

function widestFloor(shell: Shell, side: Side): number {
  return Math.max(
    ...spread(0, shell.length, 9).flatMap((x) =>
      spread(shell.floor, wallTop(shell, side, x), 7).map((z) => halfWidth(shell, side, x, z)),
    ),
  );
}

/**
 * Fits the fold-out into a window, true to scale.
 * @param beyond how far behind its rear end something is drawn too, mm
 */
export function foldOutFrame(shell: Shell, width: number, height: number, beyond = 0): FoldOutFrame {
  const long = shell.length + beyond;
  const [left, right] = [tallest(shell, 'left'), tallest(shell, 'right')];
  const [floorLeft, floorRight] = [widestFloor(shell, 'left'), widestFloor(shell, 'right')];
  const across = left + right + floorLeft + floorRight;
  const free = width - 2 * MARGIN.side - RULER - GAP;
  const [above, bottom] =
    height < SMALL.height
      ? [SMALL.margin, SMALL.margin]
      : [MARGIN.top, width < NARROW.width ? NARROW.bottom : MARGIN.bottom];
  const scale = Math.max(0.02, Math.min(free / across, (height - above - bottom) / long));
  const used = across * scale + RULER + GAP;
  const leftEdge = (width - used) / 2;
  const leftFoot = leftEdge + left * scale;
  const centre = leftFoot + RULER + floorLeft * scale;
  const rightFoot = centre + floorRight * scale + GAP;
  return {
    shell,
    scale,
    top: above + Math.max(0, (height - above - bottom - long * scale) / 2),
    height: shell.length * scale,
    centre,
    leftFoot,
    rightFoot,
    leftEdge,
    rightEdge: rightFoot + right * scale,
  };
}

/** A vehicle so long for its width that the fold-out is less wide than this share of its height leaves the sides of its pane empty. */
const LONG_SHARE = 1.3;
/** Whether that is so: what stands under the drawing has room beside it then. */
export function leavesSides(shell: Shell): boolean {
  const across =
    tallest(shell, 'left') + tallest(shell, 'right') + widestFloor(shell, 'left') + widestFloor(shell, 'right');
  return across < LONG_SHARE * shell.length;
}

/** Words written below or above it come too near each other when it is narrower than this, px. */
const NARROW_PX = 420;
export const isNarrow = (frame: FoldOutFrame): boolean => frame.rightEdge - frame.leftEdge < NARROW_PX;

export const screenY = (frame: FoldOutFrame, x: number): number => frame.top + x * frame.scale;
export const screenX = (frame: FoldOutFrame, y: number): number => frame.centre + y * frame.scale;

/** A place on a wall: x along the vehicle, z up; the wall is unrolled along its curve. */
export function onWall(frame: FoldOutFrame, side: Side, x: number, z: number): Point {
  const up = developedHeight(frame.shell, side, x, z) * frame.scale;
  return [side === 'left' ? frame.leftFoot - up : frame.rightFoot + up, screenY(frame, x)];
}

/** A rectangle on a wall between two x and two heights, its upright edges following the unrolled wall. */
export function wallPatch(frame: FoldOutFrame, side: Side, x0: number, x1: number, z0: number, z1: number): Point[] {
  const xs = spread(x0, x1, 5);
  // what reaches up under the roof covers the wall to its top and no further
  const at = (x: number, z: number): Point => onWall(frame, side, x, Math.min(z, wallTop(frame.shell, side, x)));
  return [...xs.map((x) => at(x, z0)), ...xs.reverse().map((x) => at(x, z1))];
}

/** A rib on a wall between its two edges, which may lean and part from each other. */
export function ribPatch(frame: FoldOutFrame, side: Side, rib: PlacedRib): Point[] {
  const { shell } = frame;
  const top = wallTop(shell, side, Math.min(shell.length, Math.max(shell.start, rib.x)));
  const heights = spread(Math.max(shell.floor, rib.from ?? shell.floor), Math.min(top, rib.to ?? top), 9);
  const edge = (which: 0 | 1): Point[] => heights.map((z) => onWall(frame, side, ribAt(rib, z)[which], z));
  return [...edge(0), ...edge(1).reverse()];
}

/** The wall's own outline. */
export function wallOutline(frame: FoldOutFrame, side: Side): Point[] {
  const xs = spread(0, frame.shell.length, ALONG);
  return [
    ...xs.map((x) => onWall(frame, side, x, frame.shell.floor)),
    ...[...xs].reverse().map((x) => onWall(frame, side, x, wallTop(frame.shell, side, x))),
  ];
}

/** Makes departures of an edge from straight ten times as large, about its mean. */
function stretched(values: readonly number[], exaggerate: boolean): number[] {
  if (!exaggerate) return [...values];
  const mean = values.reduce((sum, value) => sum + value, 0) / values.length;
  return values.map((value) => mean + 10 * (value - mean));
}

/** The floor's outline at a height, for the shell or the room inside it. */
export function floorOutline(frame: FoldOutFrame, shell: Shell, z: number, exaggerate: boolean): Point[] {
  const xs = spread(0, shell.length, ALONG * 2);
  const edge = (side: Side): number[] =>
    stretched(
      xs.map((x) => halfWidth(shell, side, x, z)),
      exaggerate,
    );
  const [left, right] = [edge('left'), edge('right')];
  return [
    ...xs.map((x, i): Point => [screenX(frame, -(left[i] ?? 0)), screenY(frame, x)]),
    ...xs.map((x, i): Point => [screenX(frame, right[i] ?? 0), screenY(frame, x)]).reverse(),
  ];
}

/** The ceiling between the walls' tops, in plan. */
export function ceilingOutline(frame: FoldOutFrame, shell: Shell): Point[] {
  const xs = spread(0, shell.length, ALONG);
  const edge = (side: Side, sign: number) =>
    xs.map((x): Point => [
      screenX(frame, sign * halfWidth(shell, side, x, wallTop(shell, side, x))),
      screenY(frame, x),
    ]);
  return [...edge('left', -1), ...edge('right', 1).reverse()];
}

/** Halves a wall of a few metres to well under a tenth of a mm. */
const HALVINGS = 18;

/** Tells a wall's height from how far up the flat wall it is drawn; null above its top. The length along the curve only grows with height, so halving finds it. */
function heightAt(shell: Shell, side: Side, x: number, along: number): number | null {
  let [low, high] = [shell.floor, wallTop(shell, side, x)];
  if (along < 0 || along > developedHeight(shell, side, x, high)) return null;
  for (let i = 0; i < HALVINGS; i += 1) {
    const middle = (low + high) / 2;
    if (developedHeight(shell, side, x, middle) < along) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}
/**
 * The place that is drawn at a point of the fold-out: on a wall x and height, on the floor or the ceiling x and how far
 * right of the centre line, whole mm; between wall and floor the foot of the wall; null outside.
 * @param ceiling whether the ceiling is drawn in the middle
 */
export function placeAt(frame: FoldOutFrame, ceiling: boolean, [px, py]: Point): Pointed | null {
  const { shell, scale } = frame;
  const x = (py - frame.top) / scale;
  if (x < shell.start || x > shell.length) return null;
  const whole = (surface: Pointed['surface'], along: number): Pointed => ({
    surface,
    x: Math.round(x),
    along: Math.round(along),
  });
  const y = (px - frame.centre) / scale;
  const reach = (side: Side): number => halfWidth(shell, side, x, ceiling ? wallTop(shell, side, x) : shell.floor);
  if (y >= -reach('left') && y <= reach('right')) return whole(ceiling ? 'ceiling' : 'floor', y);
  const side = px < frame.centre ? 'left' : 'right';
  // between floor and wall is the foot of the wall
  const up = Math.max(0, side === 'left' ? (frame.leftFoot - px) / scale : (px - frame.rightFoot) / scale);
  const z = heightAt(shell, side, x, up);
  return z === null ? null : whole(side, z);
}
