import { materialOf } from '../materials/material.js';
import type { BuildUps, Layer, PriceBook, PriceItem } from '../document/schema.js';
import { layersOn, SURFACE_LIST, type KnownSurface, type SurfaceTraits } from '../document/surfaces.js';
import type { Insets } from '../shell/inner.js';

/** One layer with its material and how much of the room it takes, mm. */
export interface LayerDepth {
  readonly layer: Layer;
  readonly material: PriceItem | null;
  /** What it really measures: as bought where that was read, else as planned. */
  readonly thickness: number;
  /** What this layer takes off the room: nothing for what lies in the ribs' depth or between battens. */
  readonly takes: number;
}

export interface BuildUpDepth {
  readonly surface: string;
  readonly layers: readonly LayerDepth[];
  /** Sum of what the layers take off the room, mm. */
  readonly total: number;
  /** How far the ribs stand proud here, mm. */
  readonly ribDepth: number;
}

/** A layer with nothing said but what it is made of and where it lies. */
export function plainLayer(
  id: string,
  material: string,
  thickness: number,
  place: Layer['place'],
  board = false,
): Layer {
  return { id, material, thickness, place, share: 1, measured: null, board };
}

/**
 * What a build-up takes off the room, from the metal inward.
 * Layers in the ribs fill their depth one after another and take only what stands proud of them; battens in the ribs
 * likewise, beside what else lies there; what lies between battens takes only what stands proud of the battens beneath
 * it; everything else takes its thickness, patches too: the face lies on them.
 * @param ribDepth how far the ribs stand proud of the skin, mm
 */
export function buildUpDepth(
  surface: string,
  layers: readonly Layer[],
  ribDepth: number,
  book: PriceBook,
): BuildUpDepth {
  let battens = 0;
  let inRibs = 0;
  let proud = 0;
  const depths = layers.map((layer): LayerDepth => {
    const material = materialOf(book, layer.material);
    const thickness = layer.measured ?? layer.thickness;
    let takes = thickness;
    if (layer.place === 'in-ribs') {
      takes = Math.max(0, inRibs + thickness - ribDepth - proud);
      proud += takes;
      inRibs += thickness;
    }
    if (layer.place === 'rib-battens') {
      takes = Math.max(0, thickness - ribDepth - proud);
      proud += takes;
    }
    if (layer.place === 'between-battens') takes = Math.max(0, thickness - battens);
    if (layer.place === 'battens') battens = thickness;
    return { layer, material, thickness, takes };
  });
  return { surface, layers: depths, total: depths.reduce((sum, depth) => sum + depth.takes, 0), ribDepth };
}

/** The build-up of every surface, by surface: those every vehicle has, and others beside them. */
export type BuildUpDepths = Readonly<Record<KnownSurface, BuildUpDepth>> &
  Readonly<Record<string, BuildUpDepth | undefined>>;

/**
 * The depths of all build-ups. Only surfaces with ribs have a depth between them.
 * @param ribDepth how far the ribs of each surface stand proud, mm
 */
export function buildUpDepths(
  buildUps: BuildUps,
  ribDepth: Readonly<Record<string, number | undefined>>,
  book: PriceBook,
  surfaces: readonly SurfaceTraits[] = SURFACE_LIST,
): BuildUpDepths {
  return Object.fromEntries(
    surfaces.map(({ id, ribs }) => [
      id,
      buildUpDepth(id, layersOn(buildUps, id), ribs ? (ribDepth[id] ?? 0) : 0, book),
    ]),
  ) as unknown as BuildUpDepths;
}

/** The insets of the inner shell. */
export function insetsOf(depths: BuildUpDepths): Insets {
  const { floor, left, right, ceiling, front, rear } = depths;
  return {
    floor: floor.total,
    left: left.total,
    right: right.total,
    ceiling: ceiling.total,
    front: front.total,
    rear: rear.total,
  };
}

/** Heights above the bare floor between which a floor layer lies, mm. */
export function floorLayerHeights(
  depth: BuildUpDepth,
  layerId: string,
): { readonly from: number; readonly to: number } | null {
  let under = 0;
  for (const { layer, takes, thickness } of depth.layers) {
    if (layer.id === layerId) return { from: under + takes - thickness, to: under + takes };
    under += takes;
  }
  return null;
}

/** Share of a surface that a layer covers: battens by their width, what lies between them the rest, patches as stated. */
export function coverOf(depth: LayerDepth, battenSpacing: number): number {
  const width = depth.material && depth.material.width > 0 ? depth.material.width : BATTEN_WIDTH_MM;
  const share = Math.min(1, width / battenSpacing);
  switch (depth.layer.place) {
    case 'battens':
    case 'rib-battens':
      return share;
    case 'between-battens':
      return 1 - Math.min(1, BATTEN_WIDTH_MM / battenSpacing);
    case 'patches':
      return depth.layer.share;
    default:
      return 1;
  }
}
/** Width of a batten whose material does not say, mm. */
export const BATTEN_WIDTH_MM = 45;
/** Battens stand this far apart on walls and ceiling, middle to middle, mm. */
export const BATTEN_SPACING_MM = 400;
