import type { Opening } from '../document/schema.js';
import { boxOf, rectangle, spread, type Point, type Ring } from '../numeric/plane.js';
import { clipTo, cutOut } from '../numeric/shapes.js';
import { openingRing, type PlacedOpening } from './openings.js';
import { halfWidth, roofHeight, sectionAcross, wallTop, type Shell } from './shell.js';

/** A place in the vehicle: x to the rear, y to the right, z up, mm. */
type Place = readonly [number, number, number];
/** A small piece of a surface, nearly flat, as a ring of places without holes. */
export type Facet = readonly Place[];

/** One surface of the vehicle in facets: what is closed, and what is open to glass or a door leaf. */
export interface Skin {
  readonly surface: Opening['surface'] | 'floor';
  readonly closed: readonly Facet[];
  readonly clear: readonly { readonly opening: Opening; readonly facets: readonly Facet[] }[];
  /** The outlines of its openings as lines on the surface. */
  readonly outlines: readonly (readonly Place[])[];
}

/** Facets are no larger than this, so that a curved wall looks curved, mm. */
const FACET_MM = 160;

interface Sheet {
  readonly surface: Skin['surface'];
  /** Where its plan reaches along both of its own axes. */
  readonly span: readonly [number, number, number, number];
  /** What of the plan is surface; all of it where nothing is said. */
  readonly within?: Ring;
  readonly at: (point: Point) => Place;
}

/** Places to divide a stretch at: at its ends, at the edges given, and nowhere further apart than a facet. */
function lines(from: number, to: number, edges: readonly number[]): number[] {
  const stops = [from, ...edges.filter((edge) => edge > from + 1 && edge < to - 1), to].sort((a, b) => a - b);
  return stops.flatMap((stop, i) => {
    const next = stops[i + 1];
    if (next === undefined) return [stop];
    if (next - stop < 1) return [];
    return spread(stop, next, Math.ceil((next - stop) / FACET_MM) + 1).slice(0, -1);
  });
}

function skinOf(sheet: Sheet, openings: readonly PlacedOpening[]): Skin {
  const rings = openings
    .filter(({ opening }) => opening.surface === sheet.surface)
    .map((placed) => ({
      opening: placed.opening,
      ring: openingRing(placed, 0, placed.opening.kind === 'door' ? 0 : placed.opening.cornerRadius),
    }));
  const boxes = rings.map(({ ring }) => boxOf(ring));
  const [a0, a1, b0, b1] = sheet.span;
  const alongs = lines(
    a0,
    a1,
    boxes.flatMap((box) => [box.minX, (box.minX + box.maxX) / 2, box.maxX]),
  );
  const ups = lines(
    b0,
    b1,
    boxes.flatMap((box) => [box.minY, (box.minY + box.maxY) / 2, box.maxY]),
  );
  const closed: Facet[] = [];
  const clear = rings.map(({ opening }) => ({ opening, facets: [] as Facet[] }));
  const facet = (ring: Ring): Facet => ring.map(sheet.at);
  for (const [i, x0] of alongs.slice(0, -1).entries())
    for (const [k, y0] of ups.slice(0, -1).entries()) {
      const whole = rectangle(x0, y0, alongs[i + 1] ?? x0, ups[k + 1] ?? y0);
      const met = rings.flatMap(({ ring }, n) => {
        const box = boxes[n];
        return box &&
          box.minX < (alongs[i + 1] ?? x0) &&
          box.maxX > x0 &&
          box.minY < (ups[k + 1] ?? y0) &&
          box.maxY > y0
          ? [{ ring, n }]
          : [];
      });
      const cells = sheet.within
        ? clipTo({ outer: whole, holes: [] }, sheet.within)
        : [{ outer: whole, holes: [] as readonly Ring[] }];
      for (const cell of cells) {
        const cuts = met.map(({ ring }) => ring);
        closed.push(...cutOut(cell, cuts).map(({ outer }) => facet(outer)));
        for (const { ring, n } of met) clear[n]?.facets.push(...clipTo(cell, ring).map(({ outer }) => facet(outer)));
      }
    }
  return {
    surface: sheet.surface,
    closed,
    clear,
    outlines: rings.map(({ ring }) => [...ring, ...ring.slice(0, 1)].map(sheet.at)),
  };
}

/**
 * The surfaces of a vehicle as small facets to be drawn in the round, with its openings cut out of them: walls, roof, floor
 * and both ends. Openings that are not read are not there.
 */
export function skinsOf(shell: Shell, openings: readonly PlacedOpening[]): readonly Skin[] {
  const [start, end] = [shell.start, shell.length];
  const wall = (side: 'left' | 'right'): Sheet => {
    const sign = side === 'left' ? -1 : 1;
    const top = shell.leastTop[side];
    return {
      surface: side,
      span: [start, end, shell.floor, top],
      // above the lowest top a wall goes on as far as it reaches at each place
      at: ([x, z]) => {
        const height = z >= top - 1 ? wallTop(shell, side, x) : z;
        return [x, sign * halfWidth(shell, side, x, height), height];
      },
    };
  };
  const edge = (side: 'left' | 'right', x: number): number => halfWidth(shell, side, x, wallTop(shell, side, x));
  const along = spread(start, end, 9);
  const [left, right] = (['left', 'right'] as const).map((side) => Math.min(...along.map((x) => edge(side, x))));
  const onFloor = (side: 'left' | 'right', x: number): number => halfWidth(shell, side, x, shell.floor);
  const across = (surface: 'front' | 'rear', x: number): Sheet => {
    const ring = sectionAcross(shell, x);
    const box = boxOf(ring);
    return {
      surface,
      span: [box.minX, box.maxX, box.minY, box.maxY],
      within: ring,
      at: ([y, z]) => [x, y, z],
    };
  };
  return [
    wall('left'),
    wall('right'),
    {
      surface: 'roof' as const,
      span: [start, end, -(left ?? 0), right ?? 0] as const,
      at: ([x, y]: Point): Place => {
        const out = y <= -(left ?? 0) + 1 ? -edge('left', x) : y >= (right ?? 0) - 1 ? edge('right', x) : y;
        return [x, out, roofHeight(shell, x, out)];
      },
    },
    {
      surface: 'floor' as const,
      span: [start, end, -1, 1] as const,
      // its plan is a share of the half width on either side
      at: ([x, share]: Point): Place => [x, share * onFloor(share < 0 ? 'left' : 'right', x), shell.floor],
    },
    across('front', start),
    across('rear', end),
  ].map((sheet) => skinOf(sheet, openings));
}

/** What one sees of a lining's thickness at an opening: its edge, from the lined face to the bare one, in facets. */
export interface Reveal {
  readonly opening: Opening;
  readonly facets: readonly Facet[];
  /** The outline at the bare face. */
  readonly behind: Facet;
  /** The middle of the opening. */
  readonly middle: Place;
}
/** Less than this is no thickness, mm. */
const THIN_MM = 0.5;

/** The edges of everything that stands between the bare and the lined faces of a vehicle, where openings cut through it. */
export function revealsOf(inner: Shell, bare: Shell, openings: readonly PlacedOpening[]): readonly Reveal[] {
  const outlines = (shell: Shell): Skin['outlines'][number][] =>
    skinsOf(shell, openings).flatMap((own) => own.outlines);
  const placed = skinsOf(inner, openings).flatMap(({ clear }) => clear.map(({ opening }) => opening));
  const [lined, behind] = [outlines(inner), outlines(bare)];
  return placed.flatMap((opening, i): Reveal[] => {
    const [near, far] = [lined[i] ?? [], behind[i] ?? []];
    const facets = near.slice(0, -1).flatMap((a, k): Facet[] => {
      const [b, c, d] = [near[k + 1], far[k + 1], far[k]];
      return b && c && d && Math.hypot(a[0] - d[0], a[1] - d[1], a[2] - d[2]) > THIN_MM ? [[a, b, c, d]] : [];
    });
    const middle = [0, 1, 2].map((axis) => near.reduce((sum, place) => sum + (place[axis] ?? 0) / near.length, 0));
    return facets.length === 0
      ? []
      : [{ opening, facets, behind: far, middle: [middle[0] ?? 0, middle[1] ?? 0, middle[2] ?? 0] }];
  });
}
