import type { Survey } from '../../document/schema.js';
import { toOrigin, type Part } from '../../parts/part.js';
import type { BuildUpDepths } from '../../layers/buildup.js';
import { boxOf, outlineArea, rectangle, spread, type Outline, type Point, type Ring } from '../../numeric/plane.js';
import { clipTo, cutOut, simplify } from '../../numeric/shapes.js';
import type { ArchShape } from '../../shell/arch.js';
import { RIBBED, ribAt, type PlacedRib, type Ribbed, type RibMap } from '../../shell/ribs.js';
import type { Shell } from '../../shell/shell.js';
import { archesOn, openingsOn } from './lined-surface.js';
import { solidAlong } from './pieces.js';
import { asSeen, outlineOf, reachOf, toPlace, toV, unroll, type Unrolled } from './unrolled.js';

/**
 * One compartment of a wall or ceiling: a piece of insulation, on the unrolled surface of the rib faces. Ribs, openings and
 * arches are taken out of it.
 */
export interface Cavity {
  readonly surface: Ribbed;
  readonly outline: Outline;
  /** Along the vehicle where it is widest, mm. */
  readonly width: number;
  /** Along the vehicle at its low and at its high edge, mm: they differ beside ribs that lean or widen. */
  readonly low: number;
  readonly high: number;
  /** Along the section's curve at its front and at its rear end, mm, inside of where its edges lean; they differ where it tapers. */
  readonly front: number;
  readonly rear: number;
  readonly area: number;
  /**
   * What is sawn off square through its thickness at its front and rear edges, degrees: the flanks of the ribs taper, so it
   * is narrower at the skin than at the ribs' faces.
   */
  readonly bevels: { readonly front: number; readonly rear: number };
}

/** Compartments that are the same to within `ALIKE_MM`. */
export interface CavityGroup extends Cavity {
  readonly count: number;
}
const ALIKE_MM = 5;
const ALIKE_SHARE = 0.005;
const ALIKE_DEGREES = 1;
/** Smaller than this nothing is cut for, mm2. */
const LEAST_MM2 = 2500;
/** An outline may leave its true line by so much, mm. */
const CHORD_MM = 0.1;
const FAR_MM = 1e5;
/** A rib that runs all the way goes on so far beyond its surface; the edges of one that leans are read at so many places. */
const BEYOND_MM = 300;
const EDGE_PLACES = 9;
/** An edge lies at a rib that is no farther off than this, mm. */
const AT_RIB_MM = 1;
/** The ends are read this far inside them, mm. */
const INSIDE_MM = 0.5;

/** A rib on the unrolled surface: its edges run on straight beyond the surface where it runs all the way. */
function ribRing(unrolled: Unrolled, rib: PlacedRib): Ring {
  const { x, from, to } = rib;
  const [low, high] = reachOf(unrolled, x);
  const ends = [from ?? toPlace(unrolled, x, low), to ?? toPlace(unrolled, x, high)] as const;
  const edge = (which: 0 | 1): Point[] => {
    const on = spread(ends[0], ends[1], rib.lean === 0 && rib.widens === 0 ? 2 : EDGE_PLACES).map((place): Point => {
      const u = ribAt(rib, place)[which];
      return [u, toV(unrolled, u, place)];
    });
    const [first, last] = [on[0], on.at(-1)];
    const beyond = (point: Point | undefined, by: number): Point[] =>
      point ? [[point[0] + (rib.lean + ((which === 0 ? -1 : 1) * rib.widens) / 2) * by, point[1] + by]] : [];
    return [
      ...(from === null ? beyond(first, -BEYOND_MM) : []),
      ...on,
      ...(to === null ? beyond(last, BEYOND_MM) : []),
    ];
  };
  return [...edge(0), ...edge(1).reverse()];
}

const lengthAt = (outline: Outline, u: number): number =>
  solidAlong([outline], u).reduce((sum, [v0, v1]) => sum + v1 - v0, 0);

/** What is left of a compartment beside an opening that is lower than this is a lip: it is cut for itself, mm. */
const LIP_MM = 40;
/** What is lower than this, so far inside its end, ends in a point, mm. */
const LEAST_LIP_MM = 4;
const POINT_MM = 0.2;
/** A compartment as it is cut by hand: the piece, and each lip beside an opening for itself. */
export function lipsApart(outline: Outline): Outline[] {
  const us = [...new Set([outline.outer, ...outline.holes].flat().map(([u]) => u))].sort((a, b) => a - b);
  const isLip = (a: number, b: number): boolean => lengthAt(outline, (a + b) / 2) < LIP_MM;
  const stretches = us.slice(1).reduce<{ from: number; to: number; lip: boolean }[]>((all, to, i) => {
    const from = us[i] ?? to;
    const lip = isLip(from, to);
    const last = all.at(-1);
    if (last?.lip !== lip) return [...all, { from, to, lip }];
    return [...all.slice(0, -1), { ...last, to }];
  }, []);
  const first = stretches[0]?.from;
  // beside a rib that leans a piece ends in a point, which is no lip
  const parted = stretches
    .map((stretch) =>
      stretch.lip &&
      (lengthAt(outline, stretch.from + POINT_MM) < LEAST_LIP_MM ||
        lengthAt(outline, stretch.to - POINT_MM) < LEAST_LIP_MM)
        ? { ...stretch, lip: false }
        : stretch,
    )
    .reduce<typeof stretches>((all, stretch) => {
      const last = all.at(-1);
      return last && last.lip === stretch.lip && stretch.from !== first
        ? [...all.slice(0, -1), { ...last, to: stretch.to }]
        : [...all, stretch];
    }, []);
  return parted.length < 2
    ? [outline]
    : parted.flatMap(({ from, to }) => clipTo(outline, rectangle(from, -FAR_MM, to, FAR_MM)));
}

const swapped = ([u, v]: Point): Point => [v, u];
/** How wide a piece is at a place along the curve. */
const widthAt = ({ outer, holes }: Outline, v: number): number =>
  lengthAt({ outer: outer.map(swapped), holes: holes.map((hole) => hole.map(swapped)) }, v);

/** The rib that a piece lies against at its front or its rear. */
const ribBeside = (
  outline: Outline,
  ribs: readonly PlacedRib[],
  unrolled: Unrolled,
  end: 'front' | 'rear',
): PlacedRib | null =>
  ribs.find((own) =>
    outline.outer.some(
      ([u, v]) => Math.abs(ribAt(own, toPlace(unrolled, u, v))[end === 'front' ? 1 : 0] - u) <= AT_RIB_MM,
    ),
  ) ?? null;

/** Where a piece has its full length beside one of its ends: inside of an edge that leans. */
function insideOf(outline: Outline, ribs: readonly PlacedRib[], unrolled: Unrolled, end: 'front' | 'rear'): number {
  const box = boxOf(outline.outer);
  const rib = ribBeside(outline, ribs, unrolled, end);
  const along =
    !rib || (rib.lean === 0 && rib.widens === 0)
      ? []
      : outline.outer
          .filter(([u, v]) => Math.abs(ribAt(rib, toPlace(unrolled, u, v))[end === 'front' ? 1 : 0] - u) <= AT_RIB_MM)
          .map(([u]) => u);
  return end === 'front' ? Math.max(box.minX, ...along) + INSIDE_MM : Math.min(box.maxX, ...along) - INSIDE_MM;
}

/** How far off square its edges are beside ribs whose flanks taper, degrees. */
function bevelsOf(outline: Outline, ribs: readonly PlacedRib[], unrolled: Unrolled): Cavity['bevels'] {
  const beside = (end: 'front' | 'rear'): number => {
    const rib = ribBeside(outline, ribs, unrolled, end);
    return rib && rib.proud !== null && rib.proud > 0
      ? (Math.atan((rib.foot - rib.width) / 2 / rib.proud) * 180) / Math.PI
      : 0;
  };
  return { front: beside('front'), rear: beside('rear') };
}

/** The compartments of one surface, from front to rear. */
function cavitiesOn(
  survey: Survey,
  shell: Shell,
  surface: Ribbed,
  ribs: RibMap,
  arches: readonly ArchShape[],
): Cavity[] {
  const own = ribs.on[surface].ribs;
  if (own.length < 2) return [];
  const unrolled = unroll(shell, surface);
  const whole: Outline = { outer: simplify(outlineOf(unrolled, 0), CHORD_MM), holes: [] };
  const taken = [
    ...own.map((rib) => ribRing(unrolled, rib)),
    ...[...openingsOn(unrolled, survey, 0), ...archesOn(unrolled, arches)].map(({ ring }) => ring),
  ];
  return cutOut(whole, taken)
    .flatMap(lipsApart)
    .map((outline): Cavity => {
      const box = boxOf(outline.outer);
      // a wall's top that rises along the piece is no width of it
      const reaches = spread(box.minX, box.maxX, EDGE_PLACES).map((u) => reachOf(unrolled, u));
      const low = Math.max(box.minY, ...reaches.map(([v]) => v).filter((v) => v < (box.minY + box.maxY) / 2));
      const high = Math.min(box.maxY, ...reaches.map(([, v]) => v).filter((v) => v > (box.minY + box.maxY) / 2));
      return {
        surface,
        outline,
        width: box.maxX - box.minX,
        low: widthAt(outline, low + INSIDE_MM),
        high: widthAt(outline, high - INSIDE_MM),
        front: lengthAt(outline, insideOf(outline, own, unrolled, 'front')),
        rear: lengthAt(outline, insideOf(outline, own, unrolled, 'rear')),
        area: outlineArea(outline),
        bevels: bevelsOf(outline, own, unrolled),
      };
    })
    .filter((cavity) => cavity.area >= LEAST_MM2)
    .sort((a, b) => boxOf(a.outline.outer).minX - boxOf(b.outline.outer).minX);
}

const alike = (a: Cavity, b: Cavity): boolean =>
  a.surface === b.surface &&
  [a.width - b.width, a.low - b.low, a.high - b.high, a.front - b.front, a.rear - b.rear].every(
    (by) => Math.abs(by) <= ALIKE_MM,
  ) &&
  [a.bevels.front - b.bevels.front, a.bevels.rear - b.bevels.rear].every((by) => Math.abs(by) <= ALIKE_DEGREES) &&
  Math.abs(a.area - b.area) <= ALIKE_SHARE * Math.max(a.area, b.area) &&
  a.outline.holes.length === b.outline.holes.length;

/** The compartments of walls and ceiling, alike ones counted together. */
export function cavitiesOf(survey: Survey, shell: Shell, ribs: RibMap, arches: readonly ArchShape[]): CavityGroup[] {
  const groups: CavityGroup[] = [];
  for (const cavity of RIBBED.flatMap((surface) => cavitiesOn(survey, shell, surface, ribs, arches))) {
    const index = groups.findIndex((group) => alike(group, cavity));
    const group = groups[index];
    if (group) groups[index] = { ...group, count: group.count + 1 };
    else groups.push({ ...cavity, count: 1 });
  }
  return groups;
}

/**
 * Patterns for what is pressed in between the ribs, seen from the room: one for each kind of compartment of a surface that
 * has a layer there.
 */
export const cavityParts = (groups: readonly CavityGroup[], depths: BuildUpDepths): Part[] =>
  groups.flatMap((group, i): Part[] => {
    const layer = depths[group.surface].layers.find(({ layer: { place } }) => place === 'in-ribs');
    if (!layer) return [];
    const seen = (point: Point): Point => asSeen({ surface: group.surface, length: 0 }, point);
    const { outer, holes } = group.outline;
    return [
      {
        id: `cavity.${group.surface}-${i + 1}`,
        role: 'cavity',
        number: i + 1,
        unit: null,
        surface: group.surface,
        material: layer.layer.material,
        thickness: layer.thickness,
        outline: toOrigin({ outer: outer.map(seen), holes: holes.map((hole) => hole.map(seen)) }).outline,
        grain: false,
        edges: [],
        place: { origin: [0, 0, 0], along: [1, 0, 0], across: [0, 0, 1], thick: [0, 1, 0] },
      },
    ];
  });
