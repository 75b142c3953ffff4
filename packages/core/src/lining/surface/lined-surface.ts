import { endOf, standsAt, type Shadow } from '../../document/body.js';
import type { Fitting, Found, LiningChoice, Reserved, Survey } from '../../document/schema.js';
import { openingRing, placedOpenings, widthOf, type OpeningEdges } from '../../shell/openings.js';
import { boxOf, rectangle, spread, type Outline, type Point, type Ring } from '../../numeric/plane.js';
import { cutOut, simplify } from '../../numeric/shapes.js';
import { HAIR_MM } from '../../numeric/tolerance.js';
import { archProfile, type ArchShape } from '../../shell/arch.js';
import { holdsScrews, ribAt, type PlacedRib, type RibMap } from '../../shell/ribs.js';
import { outlineOf, reachOf, isEnd, toPlace, toV, type Unrolled } from './unrolled.js';

/** Something a lining is cut out for, on the unrolled surface, mm. */
export interface CutOut {
  readonly id: string;
  readonly name: string;
  readonly kind: 'window' | 'door' | 'hatch' | 'fan' | 'arch' | Fitting['kind'];
  readonly ring: Ring;
  /** What it is in the end, where the lining is cut smaller at first: nothing that stays may stand in it. */
  readonly real: Ring;
  readonly middle: Point;
  readonly length: number;
  readonly width: number;
  /** Its upright sides in the end, where they lean: u at its low and at its high edge. Its box where they do not. */
  readonly sides: { readonly front: readonly [number, number]; readonly rear: readonly [number, number] } | null;
  /** A unit hides it altogether, so that it may be rough. */
  readonly hidden: boolean;
  /** Its cable is connected at both ends: a hole will not go over it. */
  readonly wired: boolean;
}
/** An upright line behind the lining that it can be fixed to. */
export interface Support {
  readonly name: string;
  readonly u: number;
  readonly width: number;
  readonly kind: 'rib' | 'batten';
  /** How much farther along the vehicle it lies for each mm along the curve; `u` is in its middle then. */
  readonly lean: number;
  /** From where to where along the surface it can be fixed to. */
  readonly v0: number;
  readonly v1: number;
}
/** A part of the surface that a unit will hide. */
export interface HiddenZone {
  readonly by: string;
  readonly u0: number;
  readonly u1: number;
  readonly v0: number;
  readonly v1: number;
  /** The place kept for a high cupboard that it is: what that is hung from is needed behind its edges. */
  readonly hung: Reserved | null;
}
/** Round something that no screw may hit. */
export interface NoScrew {
  readonly name: string;
  readonly at: Point;
  readonly radius: number;
  /** Somebody may have to get at it again: wiring that stays, a duct. */
  readonly serviced: boolean;
}
/** A surface ready to be lined. */
export interface LinedSurface {
  readonly unrolled: Unrolled;
  /** What is to be covered: outline less openings and arches; fittings are cut out of the pieces. */
  readonly solid: readonly Outline[];
  /** The same less all of the openings as they are in the end: where something may stand behind the lining. */
  readonly behind: readonly Outline[];
  readonly openings: readonly CutOut[];
  readonly fittings: readonly CutOut[];
  readonly supports: readonly Support[];
  /** They are meant to be no farther apart than this, mm. */
  readonly widest: number;
  readonly hidden: readonly HiddenZone[];
  readonly noScrews: readonly NoScrew[];
  /** Openings planned but not read yet: the lining waits round them alone. */
  readonly pending: readonly string[];
}

/** Beyond any surface, mm. */
const FAR_MM = 1e5;
/** Kept free round an arch, and below the floor so that nothing is left there, mm. */
const ARCH_GAP_MM = 4;
const BELOW_MM = 200;
/** Nothing is screwed this near to a cable or a duct, mm. */
const CABLE_CLEAR_MM = 40;
/** An end of the surface is carried by a support that is no farther off than this, mm. */
const CARRIED_MM = 60;
const BATTEN_MM = 45;
/** Both edges of a seam lie at least so far on what carries it, mm. */
const SEAM_ON_MM = 10;
/** An edge may leave its true line by so much, mm. */
const CHORD_MM = 0.1;

/** From what a unit takes of the room to what it hides of a wall. */
function hiddenZones(unrolled: Unrolled, units: readonly Shadow[], floor: number): HiddenZone[] {
  const { surface } = unrolled;
  if (surface !== 'left' && surface !== 'right') return [];
  return units.flatMap((unit): HiddenZone[] => {
    if (!standsAt(unit, surface)) return [];
    const [u0, u1] = [Math.max(0, unit.body.x), Math.min(unrolled.length, endOf(unit))];
    if (u1 <= u0) return [];
    const at = (height: number): number[] => [u0, u1].map((u) => toV(unrolled, u, floor + height));
    // what hangs leaves the wall below it in sight
    const v0 = unit.body.from > 0 ? Math.max(...at(unit.body.from)) : -BELOW_MM;
    return [{ by: unit.id, u0, u1, v0, v1: Math.min(...at(unit.body.to)), hung: null }];
  });
}

/** What high cupboards that come later will hide: the top of a wall, or a strip of the ceiling along it. */
function reservedZones(unrolled: Unrolled, reserved: readonly Reserved[]): HiddenZone[] {
  const { surface } = unrolled;
  return reserved.flatMap((place): HiddenZone[] => {
    const [u0, u1] = [Math.max(0, place.x), Math.min(unrolled.length, place.x + place.length)];
    if (u1 <= u0 || isEnd(surface) || (surface !== 'ceiling' && surface !== place.side)) return [];
    const reach = [u0, (u0 + u1) / 2, u1].map((u) => reachOf(unrolled, u));
    const least = Math.min(...reach.map(([low]) => low));
    const most = Math.max(...reach.map(([, high]) => high));
    const size = surface === 'ceiling' ? place.depth : place.height;
    // from the edge that meets the other surface, along the curve
    const zone =
      surface === 'ceiling' && place.side === 'left'
        ? { v0: least - BELOW_MM, v1: Math.max(...reach.map(([low]) => low)) + size }
        : { v0: Math.min(...reach.map(([, high]) => high)) - size, v1: most + BELOW_MM };
    return [{ by: place.name, u0, u1, ...zone, hung: place }];
  });
}

const isHidden = (ring: Ring, zones: readonly HiddenZone[]): boolean => {
  const box = boxOf(ring);
  return zones.some(({ u0, u1, v0, v1 }) => box.minX >= u0 && box.maxX <= u1 && box.minY >= v0 && box.maxY <= v1);
};

/** The outside of the boxes of openings, by their ids. */
export type Boxed = ReadonlyMap<string, OpeningEdges>;
const NO_BOXES: Boxed = new Map();
/** Not what a box or an allowance leaves of an opening, but the opening. */
const METAL = -1;

/** The openings of a surface, on it: with a box it is cut round that. */
export function openingsOn(
  unrolled: Unrolled,
  survey: Survey,
  undersize: number,
  boxed: Boxed = NO_BOXES,
): Omit<CutOut, 'hidden'>[] {
  const on = unrolled.surface === 'ceiling' ? 'roof' : unrolled.surface;
  return placedOpenings(survey)
    .filter(({ opening }) => opening.surface === on)
    .map((placed) => {
      const { opening } = placed;
      const less = opening.kind === 'window' ? undersize : 0;
      const ringOf = (smaller: number): Ring => {
        const edges = (smaller >= 0 && boxed.get(opening.id)) || null;
        const flat = edges
          ? openingRing(edges, smaller, 0)
          : openingRing(placed, Math.max(0, smaller), opening.kind === 'door' ? 0 : opening.cornerRadius);
        const lowest = Math.min(...flat.map(([, z]) => z));
        return flat.map(([x, z]): Point => {
          const u = x - unrolled.from;
          // a door goes on down through the edge of the surface
          return [u, toV(unrolled, u, z) - (opening.kind === 'door' && z - lowest < HAIR_MM ? BELOW_MM : 0)];
        });
      };
      const ring = ringOf(less);
      const box = boxOf(ring);
      const { from, to } = widthOf(placed);
      const leans = placed.from !== placed.fromHead || placed.to !== placed.toHead;
      return {
        id: opening.id,
        name: opening.name,
        kind: opening.kind,
        ring,
        // where the metal ends, whatever the box leaves of it
        real: less > 0 || boxed.has(opening.id) ? ringOf(METAL) : ring,
        middle: [(from + to) / 2 - unrolled.from, (box.minY + box.maxY) / 2] as const,
        length: box.maxX - box.minX,
        width: box.maxY - box.minY,
        sides: leans
          ? {
              front: [placed.from - unrolled.from, placed.fromHead - unrolled.from],
              rear: [placed.to - unrolled.from, placed.toHead - unrolled.from],
            }
          : null,
        wired: false,
      };
    });
}

/** What arches and the like take of a wall. */
export function archesOn(unrolled: Unrolled, arches: readonly ArchShape[]): Omit<CutOut, 'hidden'>[] {
  return arches
    .filter((arch) => arch.side === unrolled.surface && arch.kind !== 'step' && arch.far === null)
    .map((arch) => {
      const lowest = arch.bottom <= 0 ? -BELOW_MM : 0;
      const profile = archProfile(arch).map(([x, z], i, all): Point => {
        const outward = x <= (arch.from + arch.to) / 2 ? -ARCH_GAP_MM : ARCH_GAP_MM;
        const foot = arch.bottom <= 0 && (i === 0 || i === all.length - 1);
        const v = toV(unrolled, x, z);
        return [x + outward, foot ? v + lowest : v + ARCH_GAP_MM];
      });
      const box = boxOf(profile);
      return {
        id: arch.id,
        name: arch.name,
        kind: 'arch' as const,
        ring: profile,
        real: profile,
        middle: [(arch.from + arch.to) / 2, toV(unrolled, arch.from, arch.height / 2)] as const,
        length: box.maxX - box.minX,
        width: box.maxY - Math.max(0, box.minY),
        sides: null,
        wired: false,
      };
    });
}

function fittingsOn(unrolled: Unrolled, fittings: readonly Fitting[]): Omit<CutOut, 'hidden'>[] {
  return fittings
    .filter((fitting) => fitting.surface === unrolled.surface)
    .map((fitting) => {
      const u = fitting.x - unrolled.from;
      const v = toV(unrolled, u, fitting.along);
      const radius = fitting.diameter / 2;
      const ring = spread(0, 2 * Math.PI, 33)
        .slice(0, -1)
        .map((angle): Point => [u + radius * Math.cos(angle), v + radius * Math.sin(angle)]);
      return {
        id: fitting.id,
        name: fitting.name,
        kind: fitting.kind,
        ring,
        real: ring,
        middle: [u, v] as const,
        length: fitting.diameter,
        width: fitting.diameter,
        sides: null,
        wired: fitting.wired,
      };
    });
}

/** A rib as what carries a lining: one that leans by its line between its ends, as wide as where it is narrowest. */
function ribSupport(unrolled: Unrolled, rib: PlacedRib): Support {
  const { name, x, from, to } = rib;
  if (rib.lean === 0 && rib.widens === 0)
    return {
      name,
      u: x,
      width: rib.width,
      kind: 'rib',
      lean: 0,
      v0: from === null ? -FAR_MM : toV(unrolled, x, from),
      v1: to === null ? FAR_MM : toV(unrolled, x, to),
    };
  const [low, high] = reachOf(unrolled, x);
  const ends = [from ?? toPlace(unrolled, x, low), to ?? toPlace(unrolled, x, high)].map((place) => {
    const [a, b] = ribAt(rib, place);
    return { u: (a + b) / 2, width: b - a, v: toV(unrolled, (a + b) / 2, place) };
  });
  const [a, b] = [ends[0] ?? { u: x, width: 0, v: low }, ends[1] ?? { u: x, width: 0, v: high }];
  return {
    name,
    u: (a.u + b.u) / 2,
    width: Math.min(a.width, b.width),
    kind: 'rib',
    lean: (b.u - a.u) / Math.max(1, b.v - a.v),
    v0: a.v,
    v1: b.v,
  };
}

/** Where a support is at a place along the surface's curve. */
export const supportAt = ({ u, v0, v1, lean }: Support, v: number): number =>
  lean === 0 ? u : u + lean * (v - (v0 + v1) / 2);

/** Whether a seam that runs straight up lies on a support all the way. */
export const carriesSeam = ({ lean, v0, v1, width }: Support): boolean =>
  lean === 0 || Math.abs(lean) * (v1 - v0) <= width - 2 * SEAM_ON_MM;

/**
 * What carries a lining: the ribs that hold screws, and battens wherever they leave more than `widest` free or an end of the
 * surface on nothing. A rib that does not run all the way is used as far as it goes, and not counted on.
 */
function supportsOf(unrolled: Unrolled, ribs: RibMap, widest: number): Support[] {
  const { surface } = unrolled;
  const own = (isEnd(surface) ? [] : ribs.on[surface].ribs)
    .filter((rib) => rib.x > 0 && rib.x < unrolled.length && holdsScrews(rib))
    .map((rib) => ribSupport(unrolled, rib));
  const through = own.filter(({ u, v0, v1 }) => {
    const [low, high] = reachOf(unrolled, u);
    return v0 <= low + CARRIED_MM && v1 >= high - CARRIED_MM;
  });
  const half = BATTEN_MM / 2;
  const near = (u: number): boolean => through.some((support) => Math.abs(support.u - u) < CARRIED_MM);
  const edges = [half + 5, unrolled.length - half - 5].filter((u) => !near(u));
  const ends = [...edges, ...through.map((support) => support.u)].sort((a, b) => a - b);
  const added = ends.slice(1).flatMap((end, i) => {
    const from = ends[i] ?? 0;
    const bays = Math.max(1, Math.ceil((end - from) / widest - HAIR_MM));
    return spread(from, end, bays + 1).slice(1, -1);
  });
  const bare = isEnd(surface)
    ? []
    : ribs.on[surface].ribs.filter((rib) => rib.x > 0 && rib.x < unrolled.length && !holdsScrews(rib));
  const all = [...edges, ...added]
    .flatMap((u) => besideRibs(u, bare, ends, widest))
    .filter((u, i, list) => list.findIndex((other) => Math.abs(other - u) < half) === i)
    .sort((a, b) => a - b);
  return [
    ...own,
    ...all.map((u, i): Support => ({
      name: `batten ${i + 1}`,
      u,
      width: BATTEN_MM,
      kind: 'batten',
      lean: 0,
      v0: -FAR_MM,
      v1: FAR_MM,
    })),
  ].sort((a, b) => a.u - b.u);
}

/** Where a batten stands that would stand where a rib is that nothing is fixed to: beside it, on both sides where one leaves too much free. */
function besideRibs(
  u: number,
  bare: readonly { readonly x: number; readonly width: number }[],
  ends: readonly number[],
  widest: number,
): number[] {
  const clear = ({ width }: { readonly width: number }): number => width / 2 + BATTEN_MM / 2 + 1;
  const met = bare.find((rib) => Math.abs(rib.x - u) < clear(rib));
  if (!met) return [u];
  const [before, after] = [met.x - clear(met), met.x + clear(met)];
  const nearest = u <= met.x ? before : after;
  const low = Math.max(...ends.filter((end) => end < u));
  const high = Math.min(...ends.filter((end) => end > u));
  return nearest - low <= widest && high - nearest <= widest ? [nearest] : [before, after];
}

export interface LinedSurfaceInput {
  readonly unrolled: Unrolled;
  readonly choice: LiningChoice;
  readonly survey: Survey;
  /** Wiring in this surface that was found and stays. */
  readonly wiring: readonly Found[];
  readonly units: readonly Shadow[];
  readonly arches: readonly ArchShape[];
  readonly fittings: readonly Fitting[];
  readonly reserved: readonly Reserved[];
  readonly ribs: RibMap;
  /** Openings that get a box. */
  readonly boxed: Boxed;
  /** Supports are no farther apart than this, mm. */
  readonly widest: number;
  readonly floor: number;
}

/** Gathers everything that bears on the lining of one surface. */
export function linedSurface(input: LinedSurfaceInput): LinedSurface {
  const { unrolled, survey, choice } = input;
  const kept = reservedZones(unrolled, input.reserved);
  const hidden = [...hiddenZones(unrolled, input.units, input.floor), ...kept];
  // a ceiling that stops in front of a high cupboard is left out over it
  const leftOut = kept.filter(({ hung }) => unrolled.surface === 'ceiling' && hung?.ceiling === 'stops');
  const told = (cut: Omit<CutOut, 'hidden'>): CutOut => ({ ...cut, hidden: isHidden(cut.ring, hidden) });
  const openings = [
    ...openingsOn(unrolled, survey, choice.undersize, input.boxed),
    ...archesOn(unrolled, input.arches),
  ].map(told);
  const fittings = fittingsOn(unrolled, input.fittings).map(told);
  const on = unrolled.surface === 'ceiling' ? 'roof' : unrolled.surface;
  const placed = new Set(placedOpenings(survey).map(({ opening }) => opening.id));
  const wiring = input.wiring.map((found): NoScrew => ({
    name: found.name,
    at: [found.x - unrolled.from, toV(unrolled, found.x - unrolled.from, found.along)],
    radius: Math.max(CABLE_CLEAR_MM, found.size / 2 + CABLE_CLEAR_MM),
    serviced: true,
  }));
  const whole: Outline = { outer: simplify(outlineOf(unrolled, choice.edge - choice.scribe), CHORD_MM), holes: [] };
  const stops = leftOut.map(({ u0, u1, v0, v1 }) => rectangle(u0, v0, u1, v1));
  const solid = cutOut(whole, [...openings.map((opening) => opening.ring), ...stops]);
  return {
    unrolled,
    solid,
    behind: openings.every(({ ring, real }) => ring === real)
      ? solid
      : cutOut(whole, [...openings.map((opening) => opening.real), ...stops]),
    openings,
    fittings,
    widest: input.widest,
    supports: supportsOf(unrolled, input.ribs, input.widest),
    hidden,
    noScrews: [
      ...fittings.map((fitting): NoScrew => ({
        name: fitting.name,
        at: fitting.middle,
        radius: fitting.length / 2 + CABLE_CLEAR_MM,
        serviced: fitting.kind === 'duct',
      })),
      ...wiring,
    ],
    pending: survey.openings
      .filter((opening) => opening.surface === on && !placed.has(opening.id))
      .map((opening) => opening.name),
  };
}

/** Share of an upright line's height that units hide, and the unit that hides most of it. */
export function hiddenAt(
  surface: Pick<LinedSurface, 'unrolled' | 'hidden'>,
  u: number,
): { readonly share: number; readonly by: string | null } {
  const [low, high] = reachOf(surface.unrolled, u);
  const over = surface.hidden
    .filter((zone) => u >= zone.u0 && u <= zone.u1)
    .map((zone) => ({ by: zone.by, much: Math.max(0, Math.min(zone.v1, high) - Math.max(zone.v0, low)) }))
    .sort((a, b) => b.much - a.much);
  const much = over.reduce((sum, zone) => sum + zone.much, 0);
  return { share: Math.min(1, much / (high - low)), by: over[0]?.by ?? null };
}

/** Whether a place on the surface lies behind something. */
export const isBehind = (surface: Pick<LinedSurface, 'hidden'>, [u, v]: Point): boolean =>
  surface.hidden.some((zone) => u >= zone.u0 && u <= zone.u1 && v >= zone.v0 && v <= zone.v1);
