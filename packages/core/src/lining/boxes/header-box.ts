import { placeSeen } from '../../parts/lay-flat.js';
import { seenFrom } from '../../parts/hand.js';
import { leaveOn } from '../../parts/scribe.js';
import type { BoxChoice, Header, PriceBook, Side, Survey } from '../../document/schema.js';
import type { Part, PartEdge, Vector } from '../../parts/part.js';
import { placedOpenings } from '../../shell/openings.js';
import { materialOf } from '../../materials/material.js';
import type { Point } from '../../numeric/plane.js';
import { halfWidth, roofHeight, wallTop, type Shell } from '../../shell/shell.js';
import { message, mm, type Message } from '../../words/message.js';
import { HAIR_MM, ROUNDING } from '../../numeric/tolerance.js';

/** One face of a box between wall and ceiling. */
export interface HeaderFace {
  /** Width on its outer face at the front and the rear end, mm. */
  readonly front: number;
  readonly rear: number;
  /** How far the edge towards the wall, and that towards the ceiling, are cut off square, degrees. */
  readonly low: number;
  readonly high: number;
}
export interface HeaderBox {
  readonly id: string;
  readonly name: string;
  readonly faces: readonly HeaderFace[];
  /** The section in the middle, outer faces: out from the centre line and up from the bare floor, mm; wall first. */
  readonly section: readonly Point[];
  /** What it must clear, with the clearance, in the same axes. */
  readonly cleared: readonly Point[];
  /** The lowest edge of it above the floor one stands on, mm. */
  readonly under: number;
  readonly parts: readonly Part[];
  readonly problems: readonly Message[];
}

const NOWHERE: Point = [0, 0];
const DEGREES = 180 / Math.PI;
const SQUARE_MM = 1;
const STEP_MM = 2;

const less = (a: Point, b: Point): Point => [a[0] - b[0], a[1] - b[1]];
const cross = (a: Point, b: Point): number => a[0] * b[1] - a[1] * b[0];

/** Where two lines meet, each by a point and a direction; the first line's point when they are parallel. */
function meet(p: Point, d: Point, q: Point, e: Point): Point {
  const by = cross(d, e);
  const t = Math.abs(by) < ROUNDING ? 0 : cross(less(q, p), e) / by;
  return [p[0] + t * d[0], p[1] + t * d[1]];
}

interface Corner {
  readonly wall: { readonly at: Point; readonly along: Point };
  readonly ceiling: { readonly at: Point; readonly along: Point };
  readonly past: readonly Point[];
}

/** The corner at one x: the points to clear, and wall and ceiling where the box ends on them, each with its direction. */
function cornerAt(shell: Shell, header: Header, x: number): Corner {
  const { side, clearance } = header;
  const sign = side === 'left' ? -1 : 1;
  const top = wallTop(shell, side, x);
  const past = header.past.map(({ down, in: inward }): Point => {
    const edge = halfWidth(
      shell,
      side,
      x,
      Math.min(top, roofHeight(shell, x, sign * halfWidth(shell, side, x, top)) - down),
    );
    const out = edge - inward;
    return [out - clearance, roofHeight(shell, x, sign * out) - down - clearance];
  });
  const low = Math.min(...past.map(([, z]) => z));
  const inner = Math.min(...past.map(([out]) => out));
  const wallAt = (z: number): Point => [halfWidth(shell, side, x, z), z];
  const roofAt = (out: number): Point => [out, roofHeight(shell, x, sign * out)];
  return {
    past,
    wall: { at: wallAt(low), along: less(wallAt(low), wallAt(low - STEP_MM)) },
    ceiling: { at: roofAt(inner), along: less(roofAt(inner), roofAt(inner - STEP_MM)) },
  };
}

/** The slimmest way from wall to ceiling past all points: their hull towards the room. Numbers of the points on it. */
function hullOf({ past, wall, ceiling }: Corner): readonly number[] {
  const sorted = past
    .map((point, i) => ({ point, i }))
    .sort((a, b) => b.point[0] - a.point[0] || a.point[1] - b.point[1]);
  const chain: { readonly point: Point; readonly i: number }[] = [{ point: wall.at, i: -1 }];
  for (const next of [...sorted, { point: ceiling.at, i: -2 }]) {
    for (;;) {
      const [a, b] = [chain.at(-2), chain.at(-1)];
      if (!a || !b || cross(less(b.point, a.point), less(next.point, b.point)) < -HAIR_MM) break;
      chain.pop();
    }
    chain.push(next);
  }
  return chain.slice(1, -1).map(({ i }) => i);
}

/** Inner and outer corners of the boards at one section: the outer line lies a thickness towards the room. */
function sectionAt(
  corner: Corner,
  hull: readonly number[],
  thickness: number,
): { readonly inner: Point[]; readonly outer: Point[] } {
  const inner = [corner.wall.at, ...hull.flatMap((i) => (corner.past[i] ? [corner.past[i]] : [])), corner.ceiling.at];
  const faces = inner.slice(1).map((to, i) => {
    const from = inner[i] ?? to;
    const d = less(to, from);
    const long = Math.hypot(d[0], d[1]) || 1;
    // seen from wall to ceiling the room lies on the left of an inward line: turn the direction a quarter towards it
    const off: Point = [from[0] + (d[1] / long) * -thickness, from[1] + (d[0] / long) * thickness];
    const away: Point = [from[0] + (d[1] / long) * thickness, from[1] + (d[0] / long) * -thickness];
    // the room is nearer to the centre line and lower
    return { at: off[0] + off[1] < away[0] + away[1] ? off : away, along: d };
  });
  const outer = inner.map((_, i): Point => {
    const [before, after] = [faces[i - 1], faces[i]];
    if (!before && after) return meet(after.at, after.along, corner.wall.at, corner.wall.along);
    if (before && !after) return meet(before.at, before.along, corner.ceiling.at, corner.ceiling.along);
    return before && after ? meet(before.at, before.along, after.at, after.along) : [0, 0];
  });
  return { inner, outer };
}

/** How far an edge is off square: the outer line stands over the inner one by so much along the face. */
function offSquare(inner: Point, outer: Point, along: Point): number {
  const long = Math.hypot(along[0], along[1]) || 1;
  const d = less(outer, inner);
  const over = (d[0] * along[0] + d[1] * along[1]) / long;
  const deep = Math.abs(cross(along, d)) / long;
  return Math.atan2(over, deep) * DEGREES;
}

const edge = (at: 'front' | 'back', angles: readonly number[], thickness: number): PartEdge => ({
  kind: 'visible',
  at,
  trueLine: [],
  allowance: 0,
  largestRemoval: 0,
  bevel: { least: Math.min(...angles), most: Math.max(...angles) },
  squareCut: angles.every((angle) => thickness * Math.tan(Math.abs(angle) / DEGREES) < SQUARE_MM),
});

/**
 * A box over what is in the way between wall and ceiling, as slim as its clearance lets it be: boards along the hull of the
 * points, mitred where they meet, bevelled to wall and ceiling as these lean.
 */
function headerBox(
  header: Header,
  shell: Shell,
  material: { readonly id: string; readonly thickness: number; readonly grain: boolean },
  survey: Survey,
  scribe: number,
): HeaderBox {
  const [x0, x1] = [Math.max(0, header.x), Math.min(shell.length, header.x + header.length)];
  const side: Side = header.side;
  const sign = side === 'left' ? -1 : 1;
  const t = material.thickness;
  const corners = [x0, (x0 + x1) / 2, x1].map((x) => cornerAt(shell, header, x));
  const middle = corners[1] ?? cornerAt(shell, header, x0);
  const hull = hullOf(middle);
  const sections = corners.map((corner) => sectionAt(corner, hull, t));
  const [front, mid, rear] = sections;
  if (!front || !mid || !rear || x1 <= x0)
    return {
      id: header.id,
      name: header.name,
      faces: [],
      section: [],
      cleared: [],
      under: 0,
      parts: [],
      problems: [message('header.off', { name: header.name })],
    };
  const widths = (section: typeof mid): number[] =>
    section.outer.slice(1).map((to, i) => {
      const from = section.outer[i] ?? to;
      const [a, b] = [section.inner[i] ?? from, section.inner[i + 1] ?? to];
      return Math.max(Math.hypot(...less(to, from)), Math.hypot(...less(b, a)));
    });
  const [wide0, wide1] = [widths(front), widths(rear)];
  const faces = mid.outer.slice(1).map((_, i): HeaderFace => {
    const [a, b] = [mid.inner[i] ?? NOWHERE, mid.inner[i + 1] ?? NOWHERE];
    const along = less(b, a);
    return {
      front: wide0[i] ?? 0,
      rear: wide1[i] ?? 0,
      low: -offSquare(a, mid.outer[i] ?? a, along),
      high: offSquare(b, mid.outer[i + 1] ?? b, along),
    };
  });
  const parts = faces.map((face, i): Part => {
    const [a, b] = [front.outer[i] ?? NOWHERE, front.outer[i + 1] ?? NOWHERE];
    const d = less(b, a);
    const long = Math.hypot(d[0], d[1]) || 1;
    // adding nothing makes a negative zero a plain one
    const across: Vector = [0, (sign * d[0]) / long + 0, d[1] / long + 0];
    const made: Part = {
      id: `header-${header.id}-${i + 1}`,
      role: 'header',
      number: i + 1,
      unit: null,
      surface: side,
      of: header.name,
      material: material.id,
      thickness: t,
      outline: {
        outer: [
          [0, 0],
          [x1 - x0, 0],
          [x1 - x0, face.rear],
          [0, face.front],
        ],
        holes: [],
      },
      grain: material.grain,
      edges: [edge('front', [face.low], t), edge('back', [face.high], t)],
      place: placeSeen([x0, sign * a[0], a[1]], [1, 0, 0], across),
    };
    const [p0, p1, p2, p3] = made.outline.outer;
    // the first board meets the wall, the last one the ceiling
    const left = leaveOn(made, scribe, [
      ...(i === 0 && p0 && p1 ? [{ at: 'front' as const, line: [p0, p1], out: [0, -1] as const }] : []),
      ...(i === faces.length - 1 && p2 && p3 ? [{ at: 'back' as const, line: [p2, p3], out: [0, 1] as const }] : []),
    ]);
    // it is seen from the room: from the centre line, and from below
    return seenFrom(left, [0, 0 - sign, -1]);
  });
  const lowest = Math.min(...sections.flatMap((section) => section.outer.map(([, z]) => z)));
  return {
    id: header.id,
    name: header.name,
    faces,
    section: mid.outer,
    cleared: middle.past,
    under: lowest - shell.floor,
    parts,
    problems: placedOpenings(survey)
      .filter(({ opening, from, to }) => opening.surface === side && from < x1 && to > x0)
      .filter(({ head, sill }) => head > lowest && sill < lowest)
      .map(({ opening, head }) =>
        message('header.opening', { name: header.name, opening: opening.name, amount: mm(head - lowest) }),
      ),
  };
}

/** The boxes between wall and ceiling; nothing when their board is not in the price book. */
export function headerBoxes(
  headers: readonly Header[],
  survey: Survey,
  inner: Shell,
  choice: BoxChoice,
  book: PriceBook,
): readonly HeaderBox[] {
  const material = materialOf(book, choice.board);
  return material ? headers.map((header) => headerBox(header, inner, material, survey, choice.scribe ?? 0)) : [];
}
