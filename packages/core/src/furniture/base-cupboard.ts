import type { BaseCupboard, PriceBook } from '../document/schema.js';
import { materialOf } from '../materials/material.js';
import { cutOut, simplify } from '../numeric/shapes.js';
import { rectangle, spread, type Point, type Ring } from '../numeric/plane.js';
import { halfWidth, type Shell } from '../shell/shell.js';
import { toOrigin, type Part, type PartEdge, type PartRole, type Spot } from '../parts/part.js';
import { bevelOf, largestRemoval, leansAlong, leansUp } from '../parts/scribe.js';

/** Gap round doors, mm. */
export const DOOR_GAP_MM = 3;
/** Hidden inner panels stop this short of the wall so that air passes behind them, mm. */
const BACK_GAP_MM = 5;
const TOE_KICK_DEPTH_MM = 50;
const RAIL_WIDTH_MM = 80;
const SHELF_SETBACK_MM = 15;
const CHORD_MM = 0.05;

/** The heights and faces a cupboard is made from, mm. */
interface Frame {
  readonly sign: number;
  readonly floor: number;
  readonly carcassTop: number;
  readonly carcass: number;
  readonly top: number;
  readonly facing: number;
  readonly insideFrom: number;
  readonly insideTo: number;
}

function frameOf(unit: BaseCupboard, inner: Shell, book: PriceBook): Frame {
  const thick = (id: string): number => materialOf(book, id)?.thickness ?? 0;
  const [carcass, top, facing] = [thick(unit.carcass), thick(unit.top), thick(unit.facing)];
  return {
    sign: unit.side === 'left' ? -1 : 1,
    floor: inner.floor,
    carcassTop: inner.floor + unit.height - top,
    carcass,
    top,
    facing,
    insideFrom: unit.x + carcass,
    insideTo: unit.x + unit.length - carcass,
  };
}

type Draft = Omit<Part, 'id' | 'number' | 'unit' | 'grain'>;

const backEdge = (
  line: readonly Point[],
  axis: 0 | 1,
  allowance: number,
  leans: readonly number[],
  thickness: number,
): PartEdge => ({
  kind: 'scribe',
  at: 'back',
  trueLine: line,
  allowance,
  largestRemoval: largestRemoval(line, axis, allowance),
  ...bevelOf(leans, thickness),
});

const visible = (at: PartEdge['at']): PartEdge => ({
  kind: 'visible',
  at,
  trueLine: [],
  allowance: 0,
  largestRemoval: 0,
  bevel: { least: 0, most: 0 },
  squareCut: true,
});

/** A side, upright across the vehicle: front edge on the line, back edge on the wall's curve plus the scribe allowance. */
function side(unit: BaseCupboard, inner: Shell, frame: Frame, x: number): Draft {
  const heights = spread(frame.floor, frame.carcassTop, 25);
  const depthAt = (z: number): number =>
    Math.min(halfWidth(inner, unit.side, x, z), halfWidth(inner, unit.side, x + frame.carcass, z)) -
    unit.front -
    frame.facing;
  // grain runs up: the part's x is height above the floor, its y the depth behind the front
  const trueLine = heights.map((z): Point => [z - frame.floor, depthAt(z)]);
  const outer: Ring = [
    [0, 0],
    [frame.carcassTop - frame.floor, 0],
    ...[...trueLine].reverse().map(([z, d]): Point => [z, d + unit.scribe]),
  ];
  const kick = unit.toeKick > 0 ? [rectangle(-1, -1, unit.toeKick, TOE_KICK_DEPTH_MM)] : [];
  const [shape] = cutOut({ outer: simplify(outer, CHORD_MM), holes: [] }, kick);
  const { outline, moved } = toOrigin(shape ?? { outer, holes: [] });
  const front = frame.sign * (unit.front + frame.facing);
  return {
    role: 'side',
    material: unit.carcass,
    thickness: frame.carcass,
    outline,
    edges: [
      visible('front'),
      backEdge(
        trueLine.map(([a, b]): Point => [a - moved[0], b - moved[1]]),
        1,
        unit.scribe,
        leansAlong(inner, unit.side, x, heights),
        frame.carcass,
      ),
    ],
    place: {
      origin: [x, front + frame.sign * moved[1], frame.floor + moved[0]],
      along: [0, 0, 1],
      across: [0, frame.sign, 0],
    },
  };
}

/** A level panel between two x: front edge straight, back edge along the wall at its own height. */
function level(
  unit: BaseCupboard,
  inner: Shell,
  frame: Frame,
  role: PartRole,
  z: number,
  options: {
    readonly from: number;
    readonly to: number;
    readonly front: number;
    readonly scribe: number;
    readonly material: string;
    readonly thickness: number;
  },
): Draft {
  const xs = spread(options.from, options.to, 25);
  const depthAt = (x: number): number =>
    Math.min(halfWidth(inner, unit.side, x, z), halfWidth(inner, unit.side, x, z + options.thickness)) -
    options.front -
    (options.scribe > 0 ? 0 : BACK_GAP_MM);
  const trueLine = xs.map((x): Point => [x - options.from, depthAt(x)]);
  const outer: Ring = [
    [0, 0],
    [options.to - options.from, 0],
    ...[...trueLine].reverse().map(([x, d]): Point => [x, d + options.scribe]),
  ];
  return {
    role,
    material: options.material,
    thickness: options.thickness,
    outline: { outer: simplify(outer, CHORD_MM), holes: [] },
    edges: [
      visible('front'),
      ...(options.scribe > 0
        ? [backEdge(trueLine, 1, options.scribe, leansUp(inner, unit.side, z, xs), options.thickness)]
        : []),
    ],
    place: { origin: [options.from, frame.sign * options.front, z], along: [1, 0, 0], across: [0, frame.sign, 0] },
  };
}

/** A plain rectangle standing along the vehicle. */
function upright(
  role: PartRole,
  material: string,
  thickness: number,
  length: number,
  height: number,
  origin: Spot,
): Draft {
  return {
    role,
    material,
    thickness,
    outline: { outer: rectangle(0, 0, length, height), holes: [] },
    edges: role === 'door' ? [visible('front')] : [],
    place: { origin, along: [1, 0, 0], across: [0, 0, 1] },
  };
}

/** A rail lying flat under the worktop, its front edge at a distance from the centre line. */
function flatRail(unit: BaseCupboard, frame: Frame, length: number, front: number): Draft {
  return {
    role: 'rail',
    material: unit.carcass,
    thickness: frame.carcass,
    outline: { outer: rectangle(0, 0, length, RAIL_WIDTH_MM), holes: [] },
    edges: [],
    place: {
      origin: [frame.insideFrom, frame.sign * front, frame.carcassTop - frame.carcass],
      along: [1, 0, 0],
      across: [0, frame.sign, 0],
    },
  };
}

function doors(unit: BaseCupboard, frame: Frame): Draft[] {
  if (unit.doors === 0) return [];
  const width = (unit.length - DOOR_GAP_MM * (unit.doors + 1)) / unit.doors;
  const [from, to] = [frame.floor + unit.toeKick + DOOR_GAP_MM, frame.carcassTop - DOOR_GAP_MM];
  return Array.from({ length: unit.doors }, (_, i) => {
    const x = unit.x + DOOR_GAP_MM + i * (width + DOOR_GAP_MM);
    const z = from;
    // grain up: the part's x is height
    return {
      ...upright('door', unit.facing, frame.facing, to - from, width, [x, frame.sign * unit.front, z]),
      place: { origin: [x, frame.sign * unit.front, z] as Spot, along: [0, 0, 1] as Spot, across: [1, 0, 0] as Spot },
    };
  });
}

/**
 * The parts of a base cupboard in the plywood-carcass school: two sides with their backs on the wall's curve plus the
 * scribe allowance, bottom, shelves, two rails under the worktop, kick board, doors and worktop. The front stands on a
 * line parallel to the centre line; the back takes all the difference.
 */
export function baseCupboardParts(unit: BaseCupboard, inner: Shell, book: PriceBook): Part[] {
  const frame = frameOf(unit, inner, book);
  const [length, bottom] = [frame.insideTo - frame.insideFrom, frame.floor + unit.toeKick];
  if (length <= 0 || frame.carcassTop <= bottom + frame.carcass) return [];
  const carcassFront = unit.front + frame.facing;
  const inside = {
    from: frame.insideFrom,
    to: frame.insideTo,
    scribe: 0,
    material: unit.carcass,
    thickness: frame.carcass,
  };
  const clear = frame.carcassTop - bottom - frame.carcass;
  const shelves = Array.from(
    { length: unit.shelves },
    (_, i) => bottom + frame.carcass + ((i + 1) * clear) / (unit.shelves + 1) - frame.carcass / 2,
  );
  const depthAtTop = Math.min(
    ...spread(inside.from, inside.to, 13).map((x) => halfWidth(inner, unit.side, x, frame.carcassTop)),
  );
  const rail = (front: number): Draft => flatRail(unit, frame, length, front);
  const drafts: Draft[] = [
    side(unit, inner, frame, unit.x),
    side(unit, inner, frame, unit.x + unit.length - frame.carcass),
    level(unit, inner, frame, 'bottom', bottom, { ...inside, front: carcassFront }),
    ...shelves.map((z) => level(unit, inner, frame, 'shelf', z, { ...inside, front: carcassFront + SHELF_SETBACK_MM })),
    rail(carcassFront),
    rail(depthAtTop - BACK_GAP_MM - RAIL_WIDTH_MM),
    ...(unit.toeKick > 0
      ? [
          upright('kick', unit.carcass, frame.carcass, length, unit.toeKick, [
            frame.insideFrom,
            frame.sign * (carcassFront + TOE_KICK_DEPTH_MM),
            frame.floor,
          ]),
        ]
      : []),
    ...doors(unit, frame),
    level(unit, inner, frame, 'top', frame.carcassTop, {
      from: unit.x,
      to: unit.x + unit.length,
      front: unit.front - unit.overhang,
      scribe: unit.scribe,
      material: unit.top,
      thickness: frame.top,
    }),
  ];
  const counts = new Map<PartRole, number>();
  return drafts.map((draft): Part => {
    const number = (counts.get(draft.role) ?? 0) + 1;
    counts.set(draft.role, number);
    return {
      ...draft,
      id: `${unit.id}-${draft.role}-${number}`,
      number,
      unit: unit.id,
      grain: materialOf(book, draft.material)?.grain ?? false,
    };
  });
}
