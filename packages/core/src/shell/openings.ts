import type { Opening, Survey } from '../document/schema.js';
import { valueAt } from '../document/address.js';
import { ringArea, spread, type Point, type Ring } from '../numeric/plane.js';
import { ROUNDING } from '../numeric/tolerance.js';
import { halfWidth, roofHeight, type Shell } from './shell.js';
import { message, mm, type Message } from '../words/message.js';

/** The sides of an opening in its own plane, mm: where it begins and ends at its sill and at its head. */
export interface OpeningEdges {
  readonly from: number;
  readonly to: number;
  /** The same as at the sill but where its sides lean. */
  readonly fromHead: number;
  readonly toHead: number;
  readonly sill: number;
  readonly head: number;
}
/** An opening whose four edges are read, mm. */
export interface PlacedOpening extends OpeningEdges {
  readonly opening: Opening;
}

/** From where to where an opening reaches at all, along its level edges, mm. */
export const widthOf = ({
  from,
  to,
  fromHead,
  toHead,
}: OpeningEdges): { readonly from: number; readonly to: number } => ({
  from: Math.min(from, fromHead),
  to: Math.max(to, toHead),
});

/** What passes through an opening at every height of it, along its level edges, mm: the narrowest of one that leans. */
export const narrowOf = ({
  from,
  to,
  fromHead,
  toHead,
}: OpeningEdges): { readonly from: number; readonly to: number } => ({
  from: Math.max(from, fromHead),
  to: Math.min(to, toHead),
});

/** The openings whose edges are all read and in order. */
export function placedOpenings(survey: Survey): PlacedOpening[] {
  return survey.openings.flatMap((opening): PlacedOpening[] => {
    const read = (what: string): number | null => valueAt(survey, `opening/${opening.id}/${what}`);
    const [from, to, sill, head] = [read('from'), read('to'), read('sill'), read('head')];
    if (from === null || to === null || sill === null || head === null || to <= from || head <= sill) return [];
    const [fromHead, toHead] = opening.slanted ? [read('from-head') ?? from, read('to-head') ?? to] : [from, to];
    // as it was entered until it is read
    const radius = read('corner') ?? opening.cornerRadius;
    const placed = radius === opening.cornerRadius ? opening : { ...opening, cornerRadius: radius };
    return toHead <= fromHead ? [] : [{ opening: placed, from, to, fromHead, toHead, sill, head }];
  });
}

/** Openings whose readings cannot be: turned round, above the roof, past the end. */
export function openingProblems(
  survey: Survey,
  shell: Shell | null,
): readonly { readonly said: Message; readonly address: string }[] {
  return survey.openings.flatMap((opening) => {
    const address = (what: string): string => `opening/${opening.id}/${what}`;
    const [from, to, sill, head] = ['from', 'to', 'sill', 'head'].map((what) => valueAt(survey, address(what)));
    if (from == null || to == null || sill == null || head == null) return [];
    const { name } = opening;
    if (to <= from || head <= sill) return [{ said: message('opening.order', { name }), address: address('to') }];
    const [fromHead, toHead] = ['from-head', 'to-head'].map((what) => valueAt(survey, address(what)));
    if (opening.slanted && (toHead ?? to) <= (fromHead ?? from))
      return [{ said: message('opening.order', { name }), address: address('to-head') }];
    if (!shell) return [];
    if (opening.surface !== 'left' && opening.surface !== 'right') {
      const wrong = outside(opening, { from, to, sill, head }, shell);
      return wrong ? [{ said: wrong.said, address: address(wrong.at) }] : [];
    }
    if (from < shell.start - 1)
      return [{ said: message('opening.beforeStart', { name, from: mm(from) }), address: address('from') }];
    if (to > shell.length + 1)
      return [
        { said: message('opening.pastEnd', { name, to: mm(to), length: mm(shell.length) }), address: address('to') },
      ];
    const roof = roofHeight(shell, (from + to) / 2, 0);
    return head > roof
      ? [{ said: message('opening.aboveRoof', { name, head: mm(head), roof: mm(roof) }), address: address('head') }]
      : [];
  });
}

/** What is wrong with an opening of an end or the roof that lies beyond its surface, and which reading of it; null when it lies on it. */
function outside(
  { surface, name }: Opening,
  { from, to, sill, head }: Pick<OpeningEdges, 'from' | 'to' | 'sill' | 'head'>,
  shell: Shell,
): { readonly said: Message; readonly at: 'from' | 'to' | 'sill' | 'head' } | null {
  // across the vehicle from the centre line: along the sill in an end, up the plan in the roof
  const end = surface === 'rear' ? shell.length : surface === 'front' ? shell.start : null;
  const [x, low, high] = end === null ? [(from + to) / 2, sill, head] : [end, from, to];
  const z = end !== null ? (sill + head) / 2 : roofHeight(shell, Math.min(x, shell.length), 0) - UNDER_ROOF_MM;
  const [left, right] = [halfWidth(shell, 'left', x, z), halfWidth(shell, 'right', x, z)];
  const [lowIs, highIs] = end === null ? (['sill', 'head'] as const) : (['from', 'to'] as const);
  if (low < -left - 1 || high > right + 1)
    return {
      said: message('opening.pastWall', { name, from: mm(low), to: mm(high), left: mm(left), right: mm(right) }),
      at: high > right + 1 ? highIs : lowIs,
    };
  if (surface === 'roof' && from < shell.start - 1)
    return { said: message('opening.beforeStart', { name, from: mm(from) }), at: 'from' };
  if (surface === 'roof' && to > shell.length + 1)
    return { said: message('opening.pastEnd', { name, to: mm(to), length: mm(shell.length) }), at: 'to' };
  const roof = roofHeight(shell, end ?? shell.length, 0);
  return end !== null && head > roof
    ? { said: message('opening.aboveRoof', { name, head: mm(head), roof: mm(roof) }), at: 'head' }
    : null;
}

/** The width of a roof is read so far under its middle, mm. */
const UNDER_ROOF_MM = 60;

/** Chords of a rounded corner, and points along a straight edge so that it follows a curved wall. */
const CORNER_CHORDS = 6;
const EDGE_POINTS = 6;

/**
 * The four corners of an opening in its own plane, from its first lower one anticlockwise.
 * @param less how far inside its edges they lie all round, square to each, mm
 */
export function quadOf(edges: OpeningEdges, less: number): readonly [Point, Point, Point, Point] {
  const { sill, head } = edges;
  // a side that leans is moved in square to itself
  const side = (low: number, up: number, inward: number): ((z: number) => number) => {
    const lean = (up - low) / (head - sill);
    return (z) => low + lean * (z - sill) + inward * less * Math.hypot(1, lean);
  };
  const [front, rear] = [side(edges.from, edges.fromHead, 1), side(edges.to, edges.toHead, -1)];
  const [z0, z1] = [sill + less, head - less];
  return [
    [front(z0), z0],
    [rear(z0), z0],
    [rear(z1), z1],
    [front(z1), z1],
  ];
}

/**
 * The outline of an opening in its own plane, anticlockwise from its first lower corner: its sides lean as they were read.
 * @param less how far inside its edges the outline lies all round, square to each, mm
 * @param radius of its corners, mm
 */
export function openingRing(edges: OpeningEdges, less: number, radius: number): Ring {
  const corners = quadOf(edges, less);
  const [a, b, c, d] = corners;
  const most = Math.min(d[1] - a[1], b[0] - a[0], c[0] - d[0]) / 2;
  const rounded = corners.map((corner, i) => {
    const [before, after] = [corners[(i + 3) % 4] ?? corner, corners[(i + 1) % 4] ?? corner];
    return roundCorner(before, corner, after, Math.min(radius, most));
  });
  return rounded.flatMap((arc, i) => {
    const next = rounded[(i + 1) % 4]?.[0];
    const last = arc.at(-1);
    if (!next || !last) return arc;
    const between = spread(0, 1, EDGE_POINTS).slice(1, -1);
    return [
      ...arc,
      ...between.map((t): Point => [last[0] + t * (next[0] - last[0]), last[1] + t * (next[1] - last[1])]),
    ];
  });
}

/** A corner as an arc that touches both its edges; the corner itself without a radius. */
function roundCorner(before: Point, corner: Point, after: Point, radius: number): Point[] {
  const [ax, ay] = [before[0] - corner[0], before[1] - corner[1]];
  const [bx, by] = [after[0] - corner[0], after[1] - corner[1]];
  const [a, b] = [Math.hypot(ax, ay), Math.hypot(bx, by)];
  if (radius <= ROUNDING || a <= ROUNDING || b <= ROUNDING) return [corner];
  const angle = Math.acos(Math.max(-1, Math.min(1, (ax * bx + ay * by) / (a * b))));
  // tangent points lie r / tan(angle / 2) from the corner, the middle r / sin(angle / 2) along the bisector
  const tangent = Math.min(radius / Math.tan(angle / 2), a / 2, b / 2);
  const r = tangent * Math.tan(angle / 2);
  const [mx, my] = [ax / a + bx / b, ay / a + by / b];
  const reach = r / Math.sin(angle / 2) / Math.hypot(mx, my);
  const middle: Point = [corner[0] + mx * reach, corner[1] + my * reach];
  const start = Math.atan2(corner[1] + (ay / a) * tangent - middle[1], corner[0] + (ax / a) * tangent - middle[0]);
  const sweep = Math.PI - angle;
  return spread(0, sweep, CORNER_CHORDS + 1).map((turn): Point => [
    middle[0] + r * Math.cos(start + turn),
    middle[1] + r * Math.sin(start + turn),
  ]);
}

/** Size of an opening, m2: within its own outline, corners rounded as they are. */
export const openingArea = (placed: PlacedOpening): number =>
  Math.abs(ringArea(openingRing(placed, 0, placed.opening.kind === 'door' ? 0 : placed.opening.cornerRadius))) / 1e6;
