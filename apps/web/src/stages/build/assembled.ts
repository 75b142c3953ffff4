import type { Point } from '@nestplank/core/numeric';
import type { Part } from '@nestplank/core/parts';

type Ring = readonly Point[];
type Place = readonly [number, number, number];

/** One visible face of a board as it is drawn: its outlines on the drawing, mm, the nearest face last. */
export interface SeenFace {
  readonly part: string;
  readonly rings: readonly Ring[];
  /** The edge of a board, not its broad face. */
  readonly edge: boolean;
  /** How far off it is, mm: what is farther is drawn first. */
  readonly depth: number;
}

/** How much one looks down, radians. */
const DOWN = (28 * Math.PI) / 180;

/** Where a place is drawn when one looks along the vehicle turned by an angle, and how far off it is. */
export function seenAt([x, y, z]: Place, turn: number): { readonly at: Point; readonly depth: number } {
  const [c, s] = [Math.cos(turn), Math.sin(turn)];
  const right = x * c + y * s;
  const away = -x * s + y * c;
  return {
    at: [right, -(z * Math.cos(DOWN)) - away * Math.sin(DOWN)],
    depth: away * Math.cos(DOWN) - z * Math.sin(DOWN),
  };
}

const areaOf = (ring: Ring): number =>
  ring.reduce((sum, [x, y], i) => {
    const [nx, ny] = ring[(i + 1) % ring.length] ?? [x, y];
    return sum + x * ny - nx * y;
  }, 0) / 2;

/** The places of a board's outline in the vehicle, so far into its thickness. */
function placed({ place }: Pick<Part, 'place'>, ring: Ring, into: number): readonly Place[] {
  const { origin, along, across, thick } = place;
  return ring.map(([a, b]): Place => [
    origin[0] + a * along[0] + b * across[0] + into * thick[0],
    origin[1] + a * along[1] + b * across[1] + into * thick[1],
    origin[2] + a * along[2] + b * across[2] + into * thick[2],
  ]);
}

/** One face from its corners in the vehicle. */
function faceOf(part: string, corners: readonly (readonly Place[])[], turn: number, edge: boolean): SeenFace {
  const seen = corners.map((ring) => ring.map((place) => seenAt(place, turn)));
  const outer = seen[0] ?? [];
  return {
    part,
    rings: seen.map((ring) => ring.map(({ at }) => at)),
    edge,
    depth: outer.reduce((sum, { depth }) => sum + depth, 0) / Math.max(1, outer.length),
  };
}

/** The room a board takes, from corner to corner. */
interface Box {
  readonly low: Place;
  readonly high: Place;
}

function boxIn(places: readonly Place[]): Box {
  const of = (pick: (...values: number[]) => number): Place => [
    pick(...places.map(([x]) => x)),
    pick(...places.map(([, y]) => y)),
    pick(...places.map(([, , z]) => z)),
  ];
  return { low: of(Math.min), high: of(Math.max) };
}

/** Boards that touch, or reach a hair into each other, are still beside each other, mm. */
const TOUCH_MM = 0.6;
const AXES = [0, 1, 2] as const;

/**
 * Which of two boards is drawn first: -1 the first, 1 the second, 0 where neither hides the other. A plane between the two
 * settles it: what is on the seer's side of it cannot be hidden by what is beyond.
 */
function firstOf(a: Box, b: Box, away: Place): -1 | 0 | 1 {
  let [aNearer, bNearer] = [false, false];
  for (const axis of AXES) {
    if (a.high[axis] <= b.low[axis] + TOUCH_MM) {
      if (away[axis] > 0) aNearer = true;
      else bNearer = true;
    } else if (b.high[axis] <= a.low[axis] + TOUCH_MM) {
      if (away[axis] > 0) bNearer = true;
      else aNearer = true;
    }
  }
  return aNearer === bNearer ? 0 : aNearer ? 1 : -1;
}

/** Boards in the order in which they are drawn: each after all that it hides; the farther first where nothing says. */
function drawingOrder<T extends { readonly box: Box; readonly depth: number }>(boards: readonly T[], away: Place): T[] {
  const left = [...boards].sort((a, b) => b.depth - a.depth);
  const order: T[] = [];
  while (left.length > 0) {
    // one that hides nothing of what is left to draw; boards that hide each other in a ring go by how far off they are
    const free = left.findIndex((board) =>
      left.every((other) => other === board || firstOf(board.box, other.box, away) <= 0),
    );
    order.push(...left.splice(Math.max(0, free), 1));
  }
  return order;
}

type Boarded = Pick<Part, 'id' | 'outline' | 'place' | 'thickness'>;

/**
 * Boards put together as they stand in the vehicle, seen from above and turned: every face that looks to the one who sees it,
 * in an order in which what is drawn later hides what is behind.
 * @param turn which way one looks, radians: 0 toward the right wall, a half turn toward the left
 */
export function assembled(parts: readonly Boarded[], turn: number): readonly SeenFace[] {
  const away: Place = [-Math.sin(turn) * Math.cos(DOWN), Math.cos(turn) * Math.cos(DOWN), -Math.sin(DOWN)];
  const boards = parts.map((part) => {
    const { outline, thickness } = part;
    const rings: readonly Ring[] = [outline.outer, ...outline.holes];
    const broad = (into: number): SeenFace =>
      faceOf(
        part.id,
        rings.map((ring) => placed(part, ring, into)),
        turn,
        false,
      );
    // of the two broad faces the nearer one is seen
    const [near, far] = [broad(0), broad(thickness)];
    const front = near.depth <= far.depth ? near : far;
    const sides = rings.flatMap((ring) =>
      ring.flatMap((from, i): SeenFace[] => {
        const to = ring[(i + 1) % ring.length] ?? from;
        const [a, b] = [placed(part, [from, to], 0), placed(part, [from, to], thickness)];
        const side = faceOf(part.id, [[...a, ...[...b].reverse()]], turn, true);
        return Math.abs(areaOf(side.rings[0] ?? [])) < 1 ? [] : [side];
      }),
    );
    return {
      faces: [...sides.sort((a, b) => b.depth - a.depth), front],
      box: boxIn([...placed(part, outline.outer, 0), ...placed(part, outline.outer, thickness)]),
      depth: (near.depth + far.depth) / 2,
    };
  });
  return drawingOrder(boards, away).flatMap(({ faces }) => faces);
}

/** The window the faces lie in, mm. */
export function windowOf(faces: readonly SeenFace[]): {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
} {
  const points = faces.flatMap(({ rings }) => rings.flat());
  const xs = points.map(([x]) => x);
  const ys = points.map(([, y]) => y);
  const [x, y] = [Math.min(...xs), Math.min(...ys)];
  return { x, y, width: Math.max(...xs) - x, height: Math.max(...ys) - y };
}
