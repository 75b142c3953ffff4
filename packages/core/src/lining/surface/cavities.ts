import type { Survey } from '../../document/schema.js';
import { toOrigin, type Part } from '../../parts/part.js';
import type { BuildUpDepths } from '../../layers/buildup.js';
import { boxOf, outlineArea, rectangle, type Outline, type Point, type Ring } from '../../numeric/plane.js';
import { clipTo, cutOut, simplify } from '../../numeric/shapes.js';
import type { ArchShape } from '../../shell/arch.js';
import { RIBBED, type PlacedRib, type Ribbed, type RibMap } from '../../shell/ribs.js';
import type { Shell } from '../../shell/shell.js';
import { archesOn, openingsOn } from './lined-surface.js';
import { solidAlong } from './pieces.js';
import { asSeen, outlineOf, patchOf, unroll, type Unrolled } from './unrolled.js';

/**
 * One compartment of a wall or ceiling: a piece of insulation, on the unrolled surface of the rib faces. Ribs, openings and
 * arches are taken out of it.
 */
export interface Cavity {
  readonly surface: Ribbed;
  readonly outline: Outline;
  /** Along the vehicle, mm. */
  readonly width: number;
  /** Along the section's curve at its front and at its rear end, mm; they differ where it tapers. */
  readonly front: number;
  readonly rear: number;
  readonly area: number;
}

/** Compartments that are the same to within `ALIKE_MM`. */
export interface CavityGroup extends Cavity {
  readonly count: number;
}
const ALIKE_MM = 5;
const ALIKE_SHARE = 0.005;
/** Smaller than this nothing is cut for, mm2. */
const LEAST_MM2 = 2500;
/** An outline may leave its true line by so much, mm. */
const CHORD_MM = 0.1;
const FAR_MM = 1e5;
/** The ends are read this far inside them, mm. */
const INSIDE_MM = 0.5;

function ribRing(unrolled: Unrolled, { x, width, from, to }: PlacedRib): Ring {
  const [u0, u1] = [x - width / 2, x + width / 2];
  if (from === null && to === null) return rectangle(u0, -FAR_MM, u1, FAR_MM);
  const patch = patchOf(unrolled, u0, u1, from ?? -FAR_MM, to ?? FAR_MM);
  const box = boxOf(patch);
  return rectangle(u0, from === null ? -FAR_MM : box.minY, u1, to === null ? FAR_MM : box.maxY);
}

const lengthAt = (outline: Outline, u: number): number =>
  solidAlong([outline], u).reduce((sum, [v0, v1]) => sum + v1 - v0, 0);

/** What is left of a compartment beside an opening that is lower than this is a lip: it is cut for itself, mm. */
const LIP_MM = 40;
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
  return stretches.length < 2
    ? [outline]
    : stretches.flatMap(({ from, to }) => clipTo(outline, rectangle(from, -FAR_MM, to, FAR_MM)));
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
      return {
        surface,
        outline,
        width: box.maxX - box.minX,
        front: lengthAt(outline, box.minX + INSIDE_MM),
        rear: lengthAt(outline, box.maxX - INSIDE_MM),
        area: outlineArea(outline),
      };
    })
    .filter((cavity) => cavity.area >= LEAST_MM2)
    .sort((a, b) => boxOf(a.outline.outer).minX - boxOf(b.outline.outer).minX);
}

const alike = (a: Cavity, b: Cavity): boolean =>
  a.surface === b.surface &&
  [a.width - b.width, a.front - b.front, a.rear - b.rear].every((by) => Math.abs(by) <= ALIKE_MM) &&
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
