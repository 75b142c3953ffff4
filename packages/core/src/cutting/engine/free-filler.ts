import { EndType, inflatePaths, JoinType, minkowskiSum, type Path64 } from 'clipper2-ts';
import type { Filler, FillTaste, JoinTaste, Laid } from './filling.js';
import { type EngineJob } from '../job/job.js';
import { UNITS_PER_MM } from '../job/units.js';
import { FINE, outlineArea, turnOutline, type Dot, type Outline } from '../job/outline.js';

/** Engine units in a thousandth of a millimetre. */
const UNITS_PER_FINE = UNITS_PER_MM / FINE;
/** Rounding to whole thousandths is made good by this. */
const PLAY = 2;

interface Shape {
  readonly outline: Outline;
  readonly length: number;
  readonly width: number;
  readonly area: number;
}
/** Where the corner of one shape must not be, with the other's corner at 0, 0. */
interface Forbidden {
  readonly path: Outline;
  readonly x0: number;
  readonly y0: number;
  readonly x1: number;
  readonly y1: number;
}
interface Put {
  readonly part: number;
  readonly quarters: number;
  readonly x: number;
  readonly y: number;
}

function boundsOf(path: Outline): Forbidden {
  return {
    path,
    x0: Math.min(...path.map(([x]) => x)),
    y0: Math.min(...path.map(([, y]) => y)),
    x1: Math.max(...path.map(([x]) => x)),
    y1: Math.max(...path.map(([, y]) => y)),
  };
}

/** Whether a point is inside a path by more than the play. */
function deepInside(x: number, y: number, at: Forbidden, dx: number, dy: number): boolean {
  const [px, py] = [x - dx, y - dy];
  if (px <= at.x0 + PLAY || px >= at.x1 - PLAY || py <= at.y0 + PLAY || py >= at.y1 - PLAY) return false;
  const { path } = at;
  let odd = false;
  let [ax, ay] = path[path.length - 1] ?? [0, 0];
  for (const [bx, by] of path) {
    if (ay > py !== by > py && px < ax + ((py - ay) * (bx - ax)) / (by - ay)) odd = !odd;
    [ax, ay] = [bx, by];
  }
  if (!odd) return false;
  [ax, ay] = path[path.length - 1] ?? [0, 0];
  for (const [bx, by] of path) {
    const [ex, ey] = [bx - ax, by - ay];
    const square = ex * ex + ey * ey;
    const t = square === 0 ? 0 : Math.max(0, Math.min(1, ((px - ax) * ex + (py - ay) * ey) / square));
    if (Math.abs(px - ax - t * ex) <= PLAY && Math.abs(py - ay - t * ey) <= PLAY) return false;
    [ax, ay] = [bx, by];
  }
  return true;
}

/**
 * Places true outlines: each part in turn at the place furthest to the sheet's start that no other forbids. Where two
 * parts would come closer than a kerf is found once for each pair of shapes (their Minkowski difference, widened by the
 * kerf). Parts may always be turned half round, which keeps the grain; by quarters only when they may turn.
 */
export class FreeFiller implements Filler {
  private readonly shapes: readonly (readonly Shape[])[];
  private readonly forbidden = new Map<number, Forbidden[]>();
  private readonly kerf: number;
  private pool: number[] = [];
  private rest: number[] = [];
  private put: Put[] = [];

  constructor(
    private readonly job: EngineJob,
    private readonly random: () => number,
  ) {
    this.kerf = Math.ceil(job.kerf / UNITS_PER_FINE);
    this.shapes = job.parts.map((part) => {
      const [length, width] = [Math.ceil(part.length / UNITS_PER_FINE), Math.ceil(part.width / UNITS_PER_FINE)];
      const outline: Outline = part.outline ?? [
        [0, 0],
        [length, 0],
        [length, width],
        [0, width],
      ];
      const area = outlineArea(outline);
      return [0, 1, 2, 3].map((quarters): Shape => ({
        outline: turnOutline(outline, length, width, quarters),
        length: quarters % 2 === 0 ? length : width,
        width: quarters % 2 === 0 ? width : length,
        area,
      }));
    });
  }

  load(pool: readonly number[]): void {
    this.pool = [...pool];
  }
  left(): number[] {
    return this.rest;
  }
  laid(x = 0, y = 0): Laid[] {
    return this.put.map((put) => ({
      part: put.part,
      x: x + put.x * UNITS_PER_FINE,
      y: y + put.y * UNITS_PER_FINE,
      turned: put.quarters % 2 === 1,
      quarters: put.quarters,
    }));
  }

  private quartersOf(part: number): readonly number[] {
    const straight = this.job.parts[part]?.outline === undefined;
    const turns = this.job.parts[part]?.mayTurn === true;
    return straight ? (turns ? [0, 1] : [0]) : turns ? [0, 1, 2, 3] : [0, 2];
  }

  private forbids(fixed: Put, part: number, quarters: number): readonly Forbidden[] {
    const key = ((fixed.part * 4 + fixed.quarters) * this.shapes.length + part) * 4 + quarters;
    const known = this.forbidden.get(key);
    if (known) return known;
    const there = this.shapes[fixed.part]?.[fixed.quarters];
    const moving = this.shapes[part]?.[quarters];
    if (!there || !moving) return [];
    const path = (outline: Outline, sign: number): Path64 => outline.map(([x, y]) => ({ x: sign * x, y: sign * y }));
    const sum = minkowskiSum(path(moving.outline, -1), path(there.outline, 1), true);
    const wide = inflatePaths(sum, this.kerf, JoinType.Miter, EndType.Polygon, 2);
    const outer = wide
      .map((ring) => ring.map(({ x, y }): Dot => [x, y]))
      .filter((ring) => ring.length > 2)
      .map(boundsOf);
    // a ring inside another is a hole, which is not used
    const kept = outer.filter(
      (ring) =>
        !outer.some((o) => o !== ring && o.x0 <= ring.x0 && o.y0 <= ring.y0 && o.x1 >= ring.x1 && o.y1 >= ring.y1),
    );
    this.forbidden.set(key, kept);
    return kept;
  }

  /** Places that touch: corners of the space, corners of what is forbidden, and where their edges meet. */
  private places(
    blocks: readonly { readonly at: Forbidden; readonly x: number; readonly y: number }[],
    mostX: number,
    mostY: number,
  ): Dot[] {
    const places: Dot[] = [
      [0, 0],
      [0, mostY],
    ];
    const add = (x: number, y: number): void => {
      if (x >= -PLAY && y >= -PLAY && x <= mostX + PLAY && y <= mostY + PLAY)
        places.push([Math.min(mostX, Math.max(0, x)), Math.min(mostY, Math.max(0, y))]);
    };
    const edges: [number, number, number, number][] = [];
    for (const { at, x, y } of blocks) {
      let [ax, ay] = at.path[at.path.length - 1] ?? [0, 0];
      for (const [bx, by] of at.path) {
        const [x1, y1, x2, y2] = [ax + x, ay + y, bx + x, by + y];
        add(x2, y2);
        if (Math.max(x1, x2) >= 0 && Math.min(x1, x2) <= mostX && Math.max(y1, y2) >= 0 && Math.min(y1, y2) <= mostY)
          edges.push([x1, y1, x2, y2]);
        for (const level of [0, mostX])
          if (x1 < level !== x2 < level) add(level, y1 + ((level - x1) / (x2 - x1)) * (y2 - y1));
        for (const level of [0, mostY])
          if (y1 < level !== y2 < level) add(x1 + ((level - y1) / (y2 - y1)) * (x2 - x1), level);
        [ax, ay] = [bx, by];
      }
    }
    for (let i = 0; i < edges.length; i += 1) {
      const [ax, ay, bx, by] = edges[i] ?? [0, 0, 0, 0];
      const [lowX, highX, lowY, highY] = [Math.min(ax, bx), Math.max(ax, bx), Math.min(ay, by), Math.max(ay, by)];
      for (let j = 0; j < i; j += 1) {
        const [cx, cy, dx, dy] = edges[j] ?? [0, 0, 0, 0];
        if (Math.max(cx, dx) < lowX || Math.min(cx, dx) > highX || Math.max(cy, dy) < lowY || Math.min(cy, dy) > highY)
          continue;
        const cross = (bx - ax) * (dy - cy) - (by - ay) * (dx - cx);
        if (cross === 0) continue;
        const t = ((cx - ax) * (dy - cy) - (cy - ay) * (dx - cx)) / cross;
        const u = ((cx - ax) * (by - ay) - (cy - ay) * (bx - ax)) / cross;
        if (t >= 0 && t <= 1 && u >= 0 && u <= 1) add(ax + t * (bx - ax), ay + t * (by - ay));
      }
    }
    return places;
  }

  private bestPlace(
    part: number,
    length: number,
    width: number,
    lean: number,
  ): (Put & { readonly merit: number }) | null {
    let best: (Put & { readonly merit: number }) | null = null;
    for (const quarters of this.quartersOf(part)) {
      const shape = this.shapes[part]?.[quarters];
      if (!shape) continue;
      const [mostX, mostY] = [length - shape.length, width - shape.width];
      if (mostX < 0 || mostY < 0) continue;
      const blocks = this.put.flatMap((put) =>
        this.forbids(put, part, quarters).map((at) => ({ at, x: put.x, y: put.y })),
      );
      const places = this.places(blocks, mostX, mostY).map(([x, y]): Dot => [Math.round(x), Math.round(y)]);
      // the place where the part reaches least far along the sheet, then least across
      const merit = (place: Dot): number => place[0] + shape.length + lean * (place[1] + shape.width);
      places.sort((a, b) => merit(a) - merit(b));
      for (const place of places) {
        if (best && merit(place) >= best.merit) break;
        if (blocks.some(({ at, x, y }) => deepInside(place[0], place[1], at, x, y))) continue;
        best = { part, quarters, x: place[0], y: place[1], merit: merit(place) };
        break;
      }
    }
    return best;
  }

  fill(roomLength: number, roomWidth: number, join: JoinTaste, taste: FillTaste): number {
    const [length, width] = [
      Math.floor((roomLength - this.job.kerf) / UNITS_PER_FINE),
      Math.floor((roomWidth - this.job.kerf) / UNITS_PER_FINE),
    ];
    const steady = join.waste < 0;
    const size = (part: number): number => {
      const shape = this.shapes[part]?.[0];
      if (!shape) return 0;
      const base = taste.smallestFirst ? Math.max(shape.length, shape.width) ** 2 : shape.area;
      return base * (steady ? 1 : 1 + 1.5 * taste.noise * (this.random() - 0.5));
    };
    const keys = new Map(this.pool.map((part) => [part, size(part)]));
    const order = [...this.pool].sort((a, b) => (keys.get(b) ?? 0) - (keys.get(a) ?? 0) || a - b);
    const lean = steady ? 0.05 : ([0.02, 0.05, 0.3, 1][Math.floor(this.random() * 4)] ?? 0.05);
    this.put = [];
    this.rest = [];
    const failed = new Set<number>();
    let area = 0;
    for (const part of order) {
      const put = failed.has(part) ? null : this.bestPlace(part, length, width, lean);
      if (!put) {
        failed.add(part);
        this.rest.push(part);
        continue;
      }
      this.put.push(put);
      area += (this.shapes[part]?.[0]?.area ?? 0) * UNITS_PER_FINE ** 2;
    }
    return area;
  }
}
