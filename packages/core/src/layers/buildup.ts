import type { BuildUps, Layer, PriceBook, PriceItem, Surface } from '../project/schema.js';
import type { Insets } from '../shell/inner.js';

/** One layer with its material and how much of the room it takes, mm. */
export interface LayerDepth {
  readonly layer: Layer;
  readonly material: PriceItem | null;
  /** What this layer takes off the room: nothing for what lies in the ribs' depth or between battens. */
  readonly takes: number;
}

export interface BuildUpDepth {
  readonly surface: Surface;
  readonly layers: readonly LayerDepth[];
  /** Sum of what the layers take off the room, mm. */
  readonly total: number;
}

/** Finds a material by id; null when the price book has none of that id. */
export function materialOf(book: PriceBook, id: string): PriceItem | null {
  return book.items.find((item) => item.id === id) ?? null;
}

/**
 * What a build-up takes off the room, from the metal inward.
 * Layers in the ribs fill their depth one after another and take only what stands proud of them; what lies between battens takes only what stands proud of
 * the battens beneath it; everything else takes its thickness.
 * @param ribDepth how far the ribs stand proud of the skin, mm
 */
export function buildUpDepth(
  surface: Surface,
  layers: readonly Layer[],
  ribDepth: number,
  book: PriceBook,
): BuildUpDepth {
  let battens = 0;
  let inRibs = 0;
  const depths = layers.map((layer): LayerDepth => {
    const material = materialOf(book, layer.material);
    let takes = layer.thickness;
    if (layer.place === 'in-ribs') {
      takes = Math.max(0, inRibs + layer.thickness - ribDepth) - Math.max(0, inRibs - ribDepth);
      inRibs += layer.thickness;
    }
    if (layer.place === 'between-battens') takes = Math.max(0, layer.thickness - battens);
    if (layer.place === 'battens') battens = layer.thickness;
    return { layer, material, takes };
  });
  return { surface, layers: depths, total: depths.reduce((sum, depth) => sum + depth.takes, 0) };
}

export type BuildUpDepths = Readonly<Record<Surface, BuildUpDepth>>;

/** The depths of all four build-ups. The floor has no ribs. */
export function buildUpDepths(buildUps: BuildUps, ribDepth: number, book: PriceBook): BuildUpDepths {
  return {
    floor: buildUpDepth('floor', buildUps.floor, 0, book),
    left: buildUpDepth('left', buildUps.left, ribDepth, book),
    right: buildUpDepth('right', buildUps.right, ribDepth, book),
    ceiling: buildUpDepth('ceiling', buildUps.ceiling, ribDepth, book),
  };
}

/** The insets of the inner shell. */
export function insetsOf(depths: BuildUpDepths): Insets {
  return {
    floor: depths.floor.total,
    left: depths.left.total,
    right: depths.right.total,
    ceiling: depths.ceiling.total,
  };
}

/** Heights above the bare floor between which a floor layer lies, mm. */
export function floorLayerHeights(
  depth: BuildUpDepth,
  layerId: string,
): { readonly from: number; readonly to: number } | null {
  let under = 0;
  for (const { layer, takes } of depth.layers) {
    if (layer.id === layerId) return { from: under + takes - layer.thickness, to: under + takes };
    under += takes;
  }
  return null;
}

/** Surface resistances inside and outside together, m2K/W: heat flowing down, sideways and up (ISO 6946). */
const SURFACE_RESISTANCE: Readonly<Record<Surface, number>> = { floor: 0.21, left: 0.17, right: 0.17, ceiling: 0.14 };

/**
 * Heat that passes through a square metre for each degree, W/m2K: 1 / (surface resistances + sum of d / lambda), with
 * battens as a parallel path by their share of the area (batten width 45 mm at 400 mm).
 * @returns null when a layer's conductivity is not known
 */
export function thermalTransmittance(depth: BuildUpDepth, battenShare = 45 / 400): number | null {
  const resistance = (through: 'battens' | 'between'): number | null => {
    let sum = SURFACE_RESISTANCE[depth.surface];
    for (const { layer, material } of depth.layers) {
      const skipped = layer.place === (through === 'battens' ? 'between-battens' : 'battens');
      if (skipped) continue;
      if (!material || material.conductivity <= 0) return null;
      sum += layer.thickness / 1000 / material.conductivity;
    }
    return sum;
  };
  const between = resistance('between');
  if (between === null) return null;
  if (!depth.layers.some(({ layer }) => layer.place === 'battens')) return 1 / between;
  const battens = resistance('battens');
  return battens === null ? null : battenShare / battens + (1 - battenShare) / between;
}
