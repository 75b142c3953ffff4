import { layerResistance, uOfPaths, type HeatPath } from '../rules/warmth.js';
import { dewPoint, saturation } from '../rules/damp.js';
import type { Climate, Project } from '../document/schema.js';
import { SURFACE_LIST, surfaceNamed, type SurfaceTraits } from '../document/surfaces.js';
import type { CoveredAreas } from './areas.js';
import {
  BATTEN_SPACING_MM,
  BATTEN_WIDTH_MM,
  type BuildUpDepth,
  type BuildUpDepths,
  type LayerDepth,
} from './buildup.js';

/** Resistance of the air outside, m2K/W (ISO 6946). */
const OUTSIDE = 0.04;
const SIDEWAYS = 0.13;
const insideAir = (surface: string): number => surfaceNamed(SURFACE_LIST, surface)?.insideAir ?? SIDEWAYS;
/** Steel, W/mK. */
const STEEL = 50;
/** Double acrylic glass and roof hatches, W/m2K. */
export const GLASS_U = 2.8;
/** Still air holds this much vapour back, kg/(m s Pa). */
const VAPOUR_CONDUCTIVITY = 2e-10;
const NIGHT_HOURS = 10;

/** A way heat takes through a build-up, and the share of the surface that takes it. */
interface Path {
  readonly through: 'between' | 'battens' | 'ribs';
  readonly share: number;
}

const resistanceOf = (depth: LayerDepth): number | null =>
  depth.material && depth.material.conductivity > 0
    ? layerResistance(depth.thickness, depth.material.conductivity)
    : null;

/** Whether a layer is met on a path: battens only on theirs, ribs instead of what lies in them. */
function onPath({ layer }: LayerDepth, path: Path['through']): boolean {
  if (layer.place === 'battens') return path === 'battens';
  if (layer.place === 'between-battens') return path !== 'battens';
  if (layer.place === 'in-ribs') return path === 'between' || path === 'battens';
  if (layer.place === 'rib-battens') return path === 'ribs';
  // patches are not counted on: the weaker path is the honest one
  return layer.place !== 'patches';
}

function pathsOf(depth: BuildUpDepth, ribs: number, spacing: number): Path[] {
  const hasBattens = depth.layers.some(({ layer }) => layer.place === 'battens');
  const batten = depth.layers.find(({ layer }) => layer.place === 'battens')?.material;
  const battenShare = hasBattens
    ? Math.min(1, (batten && batten.width > 0 ? batten.width : BATTEN_WIDTH_MM) / spacing)
    : 0;
  const ribbed = depth.ribDepth > 0 && depth.layers.some(({ layer }) => layer.place === 'in-ribs') ? ribs : 0;
  return [
    { through: 'between' as const, share: Math.max(0, 1 - battenShare - ribbed) },
    { through: 'battens' as const, share: battenShare },
    { through: 'ribs' as const, share: ribbed },
  ].filter((path) => path.share > 0);
}

/**
 * Heat that passes through a square metre for each degree, W/m2K: U = sum over the paths of share / (Rsi + sum d / lambda
 * + Rse): between, through battens, and along the steel of the ribs (parallel paths, rules of ISO 6946's upper limit).
 * @returns null when a layer's conductivity is not known
 */
export function thermalTransmittance(depth: BuildUpDepth, ribs = 0, spacing = BATTEN_SPACING_MM): number | null {
  const paths: HeatPath[] = [];
  for (const { through, share } of pathsOf(depth, ribs, spacing)) {
    let resistance =
      insideAir(depth.surface) + OUTSIDE + (through === 'ribs' ? layerResistance(depth.ribDepth, STEEL) : 0);
    for (const layer of depth.layers.filter((candidate) => onPath(candidate, through))) {
      const own = resistanceOf(layer);
      if (own === null) return null;
      resistance += own;
    }
    paths.push({ share, resistance });
  }
  return uOfPaths(paths);
}

/**
 * The same for a surface of the vehicle, with its own share of ribs and its own battens.
 * @param ribs the share of each surface that is ribs
 */
export const surfaceU = (
  depth: BuildUpDepth,
  ribs: Readonly<Record<string, number | undefined>>,
  floorSpacing: number,
): number | null =>
  thermalTransmittance(depth, ribs[depth.surface] ?? 0, depth.surface === 'floor' ? floorSpacing : BATTEN_SPACING_MM);

/** One face on the way from the room to the outside air. */
export interface Face {
  /** The layer on its cold side; null for the skin and the outside air. */
  readonly layer: string | null;
  /** Distance from the room's face, mm. */
  readonly at: number;
  readonly celsius: number;
  readonly wet: boolean;
}

/** Temperatures through a build-up and what they mean for damp. */
export interface Damp {
  readonly dewPoint: number;
  readonly faces: readonly Face[];
  /** The metal's inner face: the coldest place that vapour can reach. */
  readonly skin: number;
  /** What can reach the metal and dew there in a night, g/m2; 0 when it stays above the dew point. Null when a layer's vapour figure is not known. */
  readonly gramsANight: number | null;
  /** The same with a tight barrier on the warm side, and without any barrier. */
  readonly withBarrier: number | null;
  readonly withoutBarrier: number | null;
}

/** What counts as a barrier: equal to so many metres of still air. */
const BARRIER_SD = 20;
const GOOD_BARRIER_SD = 100;

function grams(sd: number, inside: number, skin: number): number {
  return skin >= inside || sd < 0
    ? 0
    : ((VAPOUR_CONDUCTIVITY * (inside - skin)) / Math.max(0.05, sd)) * NIGHT_HOURS * 3600 * 1000;
}

/**
 * Temperature through the layers, from the room to the skin, on the path between battens and ribs: each layer drops by its
 * share of the whole resistance. The skin is steel and lets no vapour out, so vapour can only gather on it: what gets
 * there is (p inside - p saturated at the skin) / sum of mu d (Glaser). Null when a conductivity is not known.
 */
export function dampOf(depth: BuildUpDepth, climate: Climate): Damp | null {
  const path = [...depth.layers].reverse().filter((layer) => onPath(layer, 'between'));
  const resistances = path.map(resistanceOf);
  if (resistances.some((value) => value === null)) return null;
  const inner = insideAir(depth.surface);
  const whole = resistances.reduce<number>((sum, value) => sum + (value ?? 0), inner + OUTSIDE);
  const dew = dewPoint(climate.inside, climate.humidity);
  const drop = (resistance: number): number =>
    climate.inside - ((climate.inside - climate.outside) * resistance) / whole;
  let resistance = inner;
  let at = 0;
  const faces: Face[] = [];
  path.forEach((layer, i) => {
    const celsius = drop(resistance);
    faces.push({ layer: layer.layer.id, at, celsius, wet: celsius < dew });
    resistance += resistances[i] ?? 0;
    at += layer.thickness;
  });
  const skin = drop(resistance);
  faces.push({ layer: null, at, celsius: skin, wet: skin < dew });
  const sds = path.map(({ material, thickness }) =>
    material && material.vapour > 0 ? (material.vapour * thickness) / 1000 : null,
  );
  const known = sds.every((value) => value !== null);
  const sum = (list: readonly (number | null)[]): number =>
    list.reduce<number>((total, value) => total + (value ?? 0), 0);
  const p = (climate.humidity / 100) * saturation(climate.inside);
  const at_ = saturation(skin);
  const bare = sum(sds.map((value) => (value !== null && value >= BARRIER_SD ? 0 : value)));
  return {
    dewPoint: dew,
    faces,
    skin,
    gramsANight: known ? grams(sum(sds), p, at_) : null,
    withBarrier: known ? grams(bare + GOOD_BARRIER_SD, p, at_) : null,
    withoutBarrier: known ? grams(bare, p, at_) : null,
  };
}

/** Heat that is lost at the chosen night, W, by surface and glass. What is not known is left out and named. */
export interface HeatLoss {
  readonly watts: number;
  readonly of: readonly {
    /** A surface, or glass. */
    readonly id: string;
    readonly area: number;
    readonly u: number;
    readonly watts: number;
  }[];
  readonly unknown: readonly string[];
}

/**
 * Sum of U times area times the difference of temperatures; the air that is changed comes on top. An end of a trailer or a bus
 * is skin, with layers or without; at an end of a van of which nobody has said anything is the cab, or there are the doors: it
 * is named as not known.
 */
export function heatLoss(
  depths: BuildUpDepths,
  areas: CoveredAreas,
  climate: Climate,
  /** The share of each surface that is ribs. */
  ribs: Readonly<Record<string, number | undefined>>,
  floorSpacing: number,
  vehicle: Project['vehicle']['kind'],
  surfaces: readonly SurfaceTraits[] = SURFACE_LIST,
): HeatLoss {
  const difference = climate.inside - climate.outside;
  const unknown: string[] = [];
  const isCab = ({ id, kind }: SurfaceTraits): boolean =>
    vehicle === 'van' && kind === 'end' && (depths[id]?.layers.length ?? 0) === 0;
  const counted = surfaces.filter((surface) => surface.warms && !isCab(surface));
  unknown.push(...surfaces.filter((own) => own.warms && isCab(own) && (areas[own.id] ?? 0) > 0).map(({ id }) => id));
  const of = counted.flatMap(({ id: surface }) => {
    const depth = depths[surface];
    const area = areas[surface];
    if (!depth || area === undefined) return [];
    const u = surfaceU(depth, ribs, floorSpacing);
    if (u === null) {
      unknown.push(surface);
      return [];
    }
    return [{ id: surface, area, u, watts: u * area * difference }];
  });
  const all = [...of, { id: 'glass', area: areas.glass, u: GLASS_U, watts: GLASS_U * areas.glass * difference }];
  return { watts: all.reduce((sum, item) => sum + item.watts, 0), of: all, unknown };
}
